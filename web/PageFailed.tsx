import { Link, useRouteError } from 'react-router';
import { Button } from './ui/controls';
import { Notice, Row } from './ui/layout';
import { TopBar } from './ui/TopBar';

/** A program error: what was recorded is on the server, and the page can be opened again. */
export function PageFailed() {
  const error = useRouteError();
  const message = error instanceof Error ? error.message : String(error);
  return (
    <>
      <TopBar />
      <main style={{ padding: 28, maxWidth: 720 }}>
        <h1>This page failed</h1>
        <Notice level="stop">
          Everything that was recorded is safe: it is kept by the server, not by this page. Reload it; if it
          fails again at the same place, go another way and tell whoever keeps Sagoma what stands here:{' '}
          {message}
        </Notice>
        <Row $gap={10} style={{ marginTop: 14 }}>
          <Button $look="main" onPress={() => window.location.reload()}>
            Reload the page
          </Button>
          <Link to="/" reloadDocument>
            To the rack
          </Link>
        </Row>
      </main>
    </>
  );
}
