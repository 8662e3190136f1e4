import { useState } from 'react';
import styled from 'styled-components';
import { ulid } from 'ulid';
import type { Scan } from '../../../../core/job/scans';
import { formatPlain } from '../../../../core/quantity/format';
import type { CutPlane } from '../../../../core/scan/section/cut';
import type { Point3 } from '../../../../core/shape/vector';
import { useBench } from '../../../job/bench-context';
import type { OpenScan } from '../../../scan/use-scan';
import { Button, Checkbox, Select } from '../../../ui/controls';
import { Notice, Panel, Row, Stack } from '../../../ui/layout';
import type { ShownFinding, ShownScan, ShownSection } from '../../../workers/scan-protocol';
import { useOutline } from '../use-outline';
import { TestPieceButton } from './TestPieceButton';

type Way = 'x' | 'y' | 'z' | 'lit';
const AXES = { x: 0, y: 1, z: 2 } as const;
const CUTS = { x: 'left to right', y: 'front to back', z: 'level' } as const;
const SIDES = {
  x: ['what is left of it', 'what is right of it'],
  y: ['what is before it', 'what is behind it'],
  z: ['what is below it', 'what is above it'],
} as const;

interface Props {
  scan: Scan;
  shown: ShownScan;
  ask: OpenScan['ask'];
  section: ShownSection | null;
  onSection(section: ShownSection | null): void;
  lit: ShownFinding | null;
}

/** A cut through the scan: lines and arcs, measured, and as an outline for the part. */
export function SectionPanel({ scan, shown, ask, section, onSection, lit }: Props) {
  const { edit } = useBench('edit');
  const { words: useWords, use } = useOutline();
  const [way, setWay] = useState<Way>('z');
  const [share, setShare] = useState(50);
  const [planes, setPlanes] = useState('1');
  const [said, setSaid] = useState<string | null>(null);
  const [taken, setTaken] = useState<readonly string[]>([]);
  const { min, max } = shown.bounds;
  const axis = lit?.axis ?? null;
  const across = way === 'lit' && !axis ? 'z' : way;
  const at =
    across === 'lit' ? null : min[AXES[across]] + (share / 100) * (max[AXES[across]] - min[AXES[across]]);
  const cut = async (tidy: readonly string[] = []) => {
    setSaid(null);
    setTaken(tidy);
    const cutAt = (where: number | null) =>
      ask(api => api.section(planeOf(across, where, shown, lit), scan.trust?.factor ?? 1, tidy));
    const reply = await cutAt(at);
    if (!reply) return;
    onSection(reply.ok ? reply.section : null);
    if (!reply.ok) return setSaid(reply.message);
    if (across === 'lit') return;
    // The others are shown next to it: the chosen one is measured and used.
    const count = Number(planes);
    const [low, high] = [min[AXES[across]], max[AXES[across]]];
    const others: ShownSection['loops'] = [];
    for (let k = 0; k + 1 < count; k++) {
      const beside = await cutAt(low + ((k + 1) / count) * (high - low));
      if (!beside) return;
      if (beside.ok) others.push(...beside.section.loops);
    }
    if (others.length > 0) onSection({ ...reply.section, beside: others });
  };
  const profile = section?.profile;
  const keep = (side: 'above' | 'below') => {
    if (across === 'lit' || at === null) return;
    const i = AXES[across];
    const low = min.map((x, k) => (k === i && side === 'above' ? at : x - 1));
    const high = max.map((x, k) => (k === i && side === 'below' ? at : x + 1));
    onSection(null);
    void edit({
      kind: 'scan',
      scanId: scan.id,
      change: {
        steps: [
          ...scan.steps,
          {
            id: ulid(),
            kind: 'crop',
            min: [low[0]!, low[1]!, low[2]!],
            max: [high[0]!, high[1]!, high[2]!],
          },
        ],
      },
    });
  };
  return (
    <Panel>
      <h2>Section</h2>
      <Row $gap={12} $wrap style={{ alignItems: 'flex-end' }}>
        <div style={{ width: 200 }}>
          <Select
            label="Cut"
            value={across}
            options={[
              { value: 'z', label: 'level, across the height' },
              { value: 'x', label: 'from left to right' },
              { value: 'y', label: 'from front to back' },
              ...(axis ? [{ value: 'lit' as const, label: 'across what is lit' }] : []),
            ]}
            onChange={next => {
              setWay(next);
              onSection(null);
            }}
          />
        </div>
        {at === null ? null : (
          <Where>
            where
            <input
              type="range"
              min={1}
              max={99}
              value={share}
              aria-label="Where it is cut, % of the scan"
              onChange={event => setShare(Number(event.target.value))}
              onPointerUp={() => void cut()}
              onKeyUp={() => void cut()}
            />
            <span className="number">{formatPlain(at, 1)} mm</span>
          </Where>
        )}
        {at === null ? null : (
          <div style={{ width: 150 }}>
            <Select
              label="Planes"
              value={planes}
              options={[
                { value: '1', label: 'this one' },
                { value: '4', label: 'and 3 more' },
                { value: '8', label: 'and 7 more' },
              ]}
              onChange={setPlanes}
            />
          </div>
        )}
        <Button onPress={() => void cut()}>Cut here</Button>
      </Row>
      {said ? <Notice level="warn">{said}</Notice> : null}
      {section ? (
        <>
          <Loops>
            {section.loops.slice(0, 8).map((loop, i) => (
              <li key={i}>
                {loop.closed ? 'Closed' : 'Open'}: {loop.words},{' '}
                <span className="number">{formatPlain(loop.length, 1)} mm</span> long
              </li>
            ))}
            {section.loops.length > 8 ? <li>and {section.loops.length - 8} shorter ones</li> : null}
          </Loops>
          {section.offers.length > 0 ? (
            <Stack $gap={4} style={{ margin: '6px 0 10px' }}>
              {section.offers.map(o => (
                <Checkbox
                  key={o.key}
                  isSelected={taken.includes(o.key)}
                  onChange={on => void cut(on ? [...taken, o.key] : taken.filter(k => k !== o.key))}
                >
                  {o.words}
                </Checkbox>
              ))}
            </Stack>
          ) : null}
          {section.notes.map(n => (
            <Notice key={n} level="note">
              {n}
            </Notice>
          ))}
          <Row $gap={8} $wrap>
            {profile ? (
              <Button
                $look="main"
                onPress={() =>
                  void use(
                    { outline: profile.outline, holes: profile.circles },
                    `Section of ${scan.label}`.slice(0, 120),
                    'The section is the outline now. Lay a thin print of it on the object before you trust it.',
                  )
                }
              >
                {useWords}, {formatPlain(profile.width, 1)} × {formatPlain(profile.depth, 1)} mm
              </Button>
            ) : (
              <p className="soft">
                No line of it closes: cut where the object was seen all round to have an outline.
              </p>
            )}
            {profile ? (
              <TestPieceButton
                scan={scan}
                profile={profile}
                where={
                  at === null
                    ? 'across what was lit'
                    : `${CUTS[across as 'x' | 'y' | 'z']} at ${formatPlain(at, 1)} mm`
                }
                ask={ask}
              />
            ) : null}
            {at === null ? null : (
              <>
                <Button $small onPress={() => keep('above')}>
                  Leave out {SIDES[across as 'x' | 'y' | 'z'][0]}
                </Button>
                <Button $small onPress={() => keep('below')}>
                  Leave out {SIDES[across as 'x' | 'y' | 'z'][1]}
                </Button>
              </>
            )}
          </Row>
        </>
      ) : null}
    </Panel>
  );
}

function planeOf(
  way: Way,
  at: number | null,
  { bounds: { min, max } }: ShownScan,
  lit: ShownFinding | null,
): CutPlane {
  if (way === 'lit' && lit?.axis) return { at: lit.near, normal: lit.axis };
  const i = way === 'lit' ? 2 : AXES[way];
  const middle = [0, 1, 2].map(k => (k === i ? (at ?? 0) : (min[k as 0]! + max[k as 0]!) / 2));
  const normal: Point3 = [i === 0 ? 1 : 0, i === 1 ? 1 : 0, i === 2 ? 1 : 0];
  return { at: [middle[0]!, middle[1]!, middle[2]!], normal };
}

const Where = styled.label`
  display: flex; align-items: center; gap: 8px; font-size: 14px; color: var(--soft);
  input { width: 150px; accent-color: var(--blue); } .number { min-width: 76px; }
`;
const Loops = styled.ul`margin: 10px 0; padding-left: 18px; font-size: 14px;`;
