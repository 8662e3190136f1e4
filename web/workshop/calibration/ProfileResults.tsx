import { lazy, Suspense, useMemo } from 'react';
import styled from 'styled-components';
import {
  type Geometry,
  isSeen,
  printedAt,
  type Response,
  type WithDoubt,
} from '../../../core/calibration/profile';
import type { Workshop } from '../../../core/job/workshop';
import { formatPercent, formatPlain, formatSigned } from '../../../core/quantity/format';
import { gainsOf } from '../../../core/work/printers';
import type { Profile } from '../../../core/work/profiles';
import { Panel } from '../../ui/layout';
import { FONTS } from '../../ui/theme';
import { KIND_WORDS } from './kind-words';

const SizeChart = lazy(() => import('./SizeChart'));

/** What the readings say about the printer, and what that is worth. */
export function ProfileResults({ profile, workshop }: { profile: Profile; workshop: Workshop }) {
  const { responses, geometry, scatter, rows } = profile;
  const gains = useMemo(
    () => (rows.length > 0 ? gainsOf(profile.calibration, workshop) : []),
    [profile, workshop, rows],
  );
  if (responses.length === 0) return null;
  return (
    <Panel>
      <h2>What it says</h2>
      <Suspense fallback={<div style={{ height: 330 }} />}>
        <SizeChart responses={responses} />
      </Suspense>
      <Tables>
        <table data-testid="responses">
          <thead>
            <tr>
              <th>Surfaces</th>
              <th>print, mm</th>
              <th>with size</th>
              <th>read</th>
            </tr>
          </thead>
          <tbody>
            {responses.map(r => (
              <ResponseRow key={r.kind} response={r} />
            ))}
          </tbody>
        </table>
        <table data-testid="gains">
          <thead>
            <tr>
              <th>First print right</th>
              <th>before</th>
              <th>with this</th>
            </tr>
          </thead>
          <tbody>
            {gains.map(g => (
              <tr key={g.words}>
                <td>{g.words}</td>
                <td>{formatPercent(g.before)}</td>
                <td>
                  <b>{formatPercent(g.after)}</b>
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      </Tables>
      <ul>
        <li>One size lies within {formatPlain(2 * scatter, 2)} mm of its line in 95 of 100 prints.</li>
        {sentences(geometry).map(s => (
          <li key={s}>{s}</li>
        ))}
      </ul>
    </Panel>
  );
}

function ResponseRow({ response }: { response: Response }) {
  const { kind, rows, scale } = response;
  const middle = rows.reduce((sum, r) => sum + r.drawn, 0) / rows.length;
  const { mean, sd } = printedAt(response, middle);
  const drift = 100 * (scale.mean - 1);
  return (
    <tr>
      <td>{KIND_WORDS[kind]}</td>
      <td>
        {formatPlain(Math.abs(mean - middle), 3)} {mean < middle ? 'small' : 'large'} at{' '}
        {formatPlain(middle, 0)}, ±{formatPlain(2 * sd, 3)}
      </td>
      <td>{rows.length < 3 ? 'three sizes tell' : `${formatSigned(drift, 'mm', 2)} %`}</td>
      <td>{rows.length}</td>
    </tr>
  );
}

/** Geometric errors of the printer beyond their uncertainty, and what to do. */
function sentences({ stretch, outOfSquare, bulge }: Geometry): string[] {
  const doubt = (d: WithDoubt, digits: number, times = 1) => `±${formatPlain(2 * times * d.u, digits)}`;
  const words: string[] = [];
  if (stretch)
    words.push(
      isSeen(stretch)
        ? `Left to right prints ${formatPlain(Math.abs(100 * stretch.value), 2)} % ${stretch.value > 0 ? 'longer' : 'shorter'} than front to back (${doubt(stretch, 2, 100)}): ${formatPlain(Math.abs(100 * stretch.value), 2)} mm on 100. Round things come out that much oval; check the belts.`
        : `Both directions print alike, within ${formatPlain(200 * stretch.u, 2)} %.`,
    );
  if (outOfSquare)
    words.push(
      isSeen(outOfSquare)
        ? `The front left corner is ${formatPlain(Math.abs(outOfSquare.value), 2)}° ${outOfSquare.value > 0 ? 'more' : 'less'} than square (${doubt(outOfSquare, 2)}): ${formatPlain(100 * Math.abs(Math.tan((outOfSquare.value * Math.PI) / 180)), 2)} mm over 100. Square the printer’s frame before large plates.`
        : `It prints square, within ${formatPlain(2 * outOfSquare.u, 2)}°.`,
    );
  if (bulge)
    words.push(
      isSeen(bulge) && bulge.value > 0
        ? `The first layer bulges out by ${formatPlain(bulge.value, 2)} mm a side (${doubt(bulge, 2)}): keep mates off the bed, chamfer their edges there, or raise the nozzle a little.`
        : `The first layer does not bulge, within ${formatPlain(2 * bulge.u, 2)} mm a side.`,
    );
  return words;
}

const Tables = styled.div`
  display: grid; grid-template-columns: minmax(0, 1.4fr) minmax(0, 1fr); gap: 30px; margin: 10px 0 8px;
  table { width: 100%; border-collapse: collapse; font-size: 14.5px; align-self: start; }
  th { text-align: left; font: 600 14px ${FONTS.label}; color: var(--soft); padding: 3px 8px 3px 0; }
  td { border-top: 1px solid var(--rule); padding: 6px 8px 6px 0; }
  td:not(:first-child) { font-family: ${FONTS.number}; font-size: 13.5px; }
  @media (max-width: 860px) { grid-template-columns: minmax(0, 1fr); }
`;
