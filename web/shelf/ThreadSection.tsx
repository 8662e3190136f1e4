import styled from 'styled-components';
import type { PrintedThread, ThreadNumbers } from '../../core/fit/screw';
import { formatPlain } from '../../core/quantity/format';
import { Row } from '../ui/layout';
import { FONTS } from '../ui/theme';

const W = 300;
const H = 96;

/** Two pitches in section, to scale: theirs in clay, ours in the working blue, the gap between. */
export function ThreadSection({ thread, numbers }: { thread: PrintedThread; numbers: ThreadNumbers }) {
  const { pitch, flankAngle } = thread;
  const scale = W / (2.2 * pitch);
  const half = ((flankAngle / 2) * Math.PI) / 180;
  // A ridge of the basic depth between flanks, centred; its flats share what the flanks leave.
  const depth = (thread.major - thread.minor) / 2;
  const slope = Math.min(depth * Math.tan(half), pitch / 2);
  const flat = Math.max(0, (pitch - 2 * slope) / 2);
  const top = 30;
  const points = (shift: number) =>
    [-1, 0, 1, 2].flatMap(k => {
      const x0 = (k + 0.1) * pitch;
      return [
        [x0, depth],
        [x0 + flat, depth],
        [x0 + flat + slope, 0],
        [x0 + 2 * flat + slope, 0],
        [x0 + 2 * flat + 2 * slope, depth],
      ].map(([x, y]) => `${(x! * scale).toFixed(1)} ${(top + (y! + shift) * scale).toFixed(1)}`);
    });
  const gap = thread.clearance / 2;
  const theirs = points(0);
  const ours = points(-gap);
  const drawn = Math.max(H, top + (depth + 1) * scale + 10);
  return (
    <Row $gap={12} style={{ marginBottom: 8 }}>
      <Section
        viewBox={`0 0 ${W} ${drawn.toFixed(0)}`}
        role="img"
        aria-label={`Two pitches in section, to scale: ${formatPlain(thread.clearance / 2, 3)} mm between the flanks’ sides at each`}
      >
        <path d={`M0 ${drawn}L${theirs.join('L')}L${W + 40} ${drawn}Z`} className="theirs" />
        <path d={`M0 0L${ours.join('L')}L${W + 40} 0Z`} className="ours" />
        <text x={6} y={16} className="on">
          {thread.side === 'internal' ? 'ours, outside' : 'the object, outside'}
        </text>
        <text x={6} y={drawn - 6}>
          {thread.side === 'internal' ? 'the object' : 'ours'} · pitch{' '}
          {formatPlain(numbers.lead / thread.starts, 2)} mm
        </text>
      </Section>
    </Row>
  );
}

const Section = styled.svg`
  width: 100%; max-width: 420px; border: 1px solid var(--rule); border-radius: 4px; background: var(--right-tint);
  .theirs { fill: var(--clay); stroke: var(--strong); } .ours { fill: var(--blue); }
  text { font: 12px ${FONTS.text}; fill: var(--ink); } .on { fill: var(--on-blue); }
`;
