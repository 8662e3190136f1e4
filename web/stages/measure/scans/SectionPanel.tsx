import { useState } from 'react';
import styled from 'styled-components';
import { ulid } from 'ulid';
import type { Scan } from '../../../../core/job/document';
import { formatPlain } from '../../../../core/quantity/format';
import type { CutPlane } from '../../../../core/scan/section/cut';
import { writeHoles } from '../../../../core/shape/outline-text';
import type { Point3 } from '../../../../core/shape/vector';
import { useBench } from '../../../job/bench-context';
import type { OpenScan } from '../../../scan/use-scan';
import { Button, Select } from '../../../ui/controls';
import { Notice, Panel, Row } from '../../../ui/layout';
import type { ShownFinding, ShownScan, ShownSection } from '../../../workers/scan-protocol';

type Way = 'x' | 'y' | 'z' | 'lit';
const AXES = { x: 0, y: 1, z: 2 } as const;
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
  const { resolved, edit, say, go } = useBench('resolved', 'edit', 'say', 'go');
  const [way, setWay] = useState<Way>('z');
  const [share, setShare] = useState(50);
  const [said, setSaid] = useState<string | null>(null);
  const { min, max } = shown.bounds;
  const axis = lit?.axis ?? null;
  const across = way === 'lit' && !axis ? 'z' : way;
  const at =
    across === 'lit' ? null : min[AXES[across]] + (share / 100) * (max[AXES[across]] - min[AXES[across]]);
  const cut = async () => {
    setSaid(null);
    const reply = await ask(api => api.section(planeOf(across, at, shown, lit)));
    if (!reply) return;
    onSection(reply.ok ? reply.section : null);
    if (!reply.ok) setSaid(reply.message);
  };
  const outline = resolved.recipe.parameters.find(p => p.kind === 'outline');
  const hasHoles = resolved.recipe.parameters.some(p => p.name === 'holes');
  const profile = section?.profile;
  const use = async () => {
    if (!profile || !outline) return;
    const put = (name: string, text: string) =>
      edit({ kind: 'parameter', partId: resolved.part.id, name, expression: { text, unit: 'mm' } });
    if (!(await put(outline.name, profile.outline))) return;
    if (hasHoles && profile.circles.length > 0) await put('holes', writeHoles(profile.circles));
    say('The section is the outline now. Lay a thin print of it on the object before you trust it.');
    go('shape');
  };
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
          {section.notes.map(n => (
            <Notice key={n} level="note">
              {n}
            </Notice>
          ))}
          <Row $gap={8} $wrap>
            {profile && outline ? (
              <Button $look="main" onPress={() => void use()}>
                Use it as the outline, {formatPlain(profile.width, 1)} × {formatPlain(profile.depth, 1)} mm
              </Button>
            ) : profile ? (
              <p className="soft">
                This recipe takes no outline. A part of the recipe “profile part” takes this section,{' '}
                {formatPlain(profile.width, 1)} × {formatPlain(profile.depth, 1)} mm, as its own.
              </p>
            ) : (
              <p className="soft">
                No line of it closes: cut where the object was seen all round to have an outline.
              </p>
            )}
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
