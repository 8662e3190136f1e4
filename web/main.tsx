import '@fontsource/barlow/400.css';
import '@fontsource/barlow/500.css';
import '@fontsource/barlow/600.css';
import '@fontsource/barlow-semi-condensed/500.css';
import '@fontsource/barlow-semi-condensed/600.css';
import '@fontsource/spline-sans-mono/400.css';
import '@fontsource/spline-sans-mono/600.css';
import { QueryClient, QueryClientProvider } from '@tanstack/react-query';
import { lazy, StrictMode, Suspense } from 'react';
import { createRoot } from 'react-dom/client';
import { createBrowserRouter, Navigate, RouterProvider } from 'react-router';
import { PageFailed } from './PageFailed';
import { Rack } from './rack/Rack';
import { Empty, Loading } from './ui/layout';
import { TopBar } from './ui/TopBar';
import { applyTheme, GlobalStyle, readTheme } from './ui/theme';

const AboutPage = lazy(() => import('./about/AboutPage'));
const JobPage = lazy(() => import('./job/JobPage'));
const StagePage = lazy(() => import('./stages/StagePage'));
const WorthPage = lazy(() => import('./workshop/worth/WorthPage'));
const LessonsPage = lazy(() => import('./workshop/lessons/LessonsPage'));
const PairPage = lazy(() => import('./phone/PairPage'));
const PhonePage = lazy(() => import('./phone/PhonePage'));
const QueuePage = lazy(() => import('./queue/QueuePage'));
const ShelfPage = lazy(() => import('./shelf/ShelfPage'));
const SheetPage = lazy(() => import('./sheet/SheetPage'));
const CalibrationPage = lazy(() => import('./workshop/calibration/CalibrationPage'));
const WorkshopPage = lazy(() => import('./workshop/WorkshopPage'));

applyTheme(readTheme());
const client = new QueryClient({ defaultOptions: { queries: { retry: 1, staleTime: 5000 } } });

const router = createBrowserRouter([
  {
    errorElement: <PageFailed />,
    children: [
      { path: '/', element: <Rack /> },
      {
        path: '/workshop',
        element: (
          <Suspense fallback={<Loading what="Opening the workshop" />}>
            <WorkshopPage />
          </Suspense>
        ),
      },
      {
        path: '/workshop/calibrations/:calibrationId',
        element: (
          <Suspense fallback={<Loading what="Opening the calibration" />}>
            <CalibrationPage />
          </Suspense>
        ),
      },
      {
        path: '/workshop/worth',
        element: (
          <Suspense fallback={<Loading what="Adding it up" />}>
            <WorthPage />
          </Suspense>
        ),
      },
      {
        path: '/workshop/lessons',
        element: (
          <Suspense fallback={<Loading what="Reading the logbooks" />}>
            <LessonsPage />
          </Suspense>
        ),
      },
      {
        path: '/about',
        element: (
          <Suspense fallback={<Loading what="Opening the licences" />}>
            <AboutPage />
          </Suspense>
        ),
      },
      {
        path: '/queue',
        element: (
          <Suspense fallback={<Loading what="Looking at the printers" />}>
            <QueuePage />
          </Suspense>
        ),
      },
      {
        path: '/shelf',
        element: (
          <Suspense fallback={<Loading what="Walking to the shelf" />}>
            <ShelfPage />
          </Suspense>
        ),
      },
      {
        path: '/pair',
        element: (
          <Suspense fallback={<Loading what="Opening" />}>
            <PairPage />
          </Suspense>
        ),
      },
      {
        path: '/phone/:what?',
        element: (
          <Suspense fallback={<Loading what="Looking at the bench" />}>
            <PhonePage />
          </Suspense>
        ),
      },
      {
        path: '/jobs/:jobId/sheet',
        element: (
          <Suspense fallback={<Loading what="Laying out the sheet" />}>
            <SheetPage />
          </Suspense>
        ),
      },
      {
        path: '/jobs/:jobId',
        element: (
          <Suspense fallback={<Loading what="Opening the job" />}>
            <JobPage />
          </Suspense>
        ),
        children: [
          { index: true, element: <Navigate to="brief" replace /> },
          {
            path: ':stage',
            element: (
              <Suspense fallback={<Loading what="Clearing the bench" />}>
                <StagePage />
              </Suspense>
            ),
          },
        ],
      },
      {
        path: '*',
        element: (
          <>
            <TopBar />
            <div style={{ maxWidth: 620, margin: '60px auto' }}>
              <Empty title="Nothing hangs here">
                There is nothing at this address. The rack has all the jobs.
              </Empty>
            </div>
          </>
        ),
      },
    ],
  },
]);

createRoot(document.getElementById('root')!).render(
  <StrictMode>
    <QueryClientProvider client={client}>
      <GlobalStyle />
      <RouterProvider router={router} />
    </QueryClientProvider>
  </StrictMode>,
);
