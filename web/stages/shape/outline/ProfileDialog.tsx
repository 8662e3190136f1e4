import { useRef, useState } from 'react';
import styled from 'styled-components';
import { ulid } from 'ulid';
import type { Profile, ProfileLoop } from '../../../../core/files/profile/loops';
import { formatPlain } from '../../../../core/quantity/format';
import { parseQuantity } from '../../../../core/quantity/parse';
import { writeHoles } from '../../../../core/shape/outline-text';
import type { ParameterSpec } from '../../../../core/shape/recipes/parameters';
import { useBench } from '../../../job/bench-context';
import { Button, Checkbox, Dialog, Select, TextField } from '../../../ui/controls';
import { Loading, Notice, Row, Stack } from '../../../ui/layout';
import { readProfileFile } from './read-profile-file';

type Unit = Profile['unit'];
export type OutlineSpec = Extract<ParameterSpec, { kind: 'outline' }>;
const UNITS: { value: Unit; label: string }[] = [
  { value: 'mm', label: 'millimetres' },
  { value: 'cm', label: 'centimetres' },
  { value: 'in', label: 'inches' },
  { value: 'px', label: 'pixels, 96 an inch' },
  { value: 'm', label: 'metres' },
];

/** A profile from a drawing: the file's content and size are shown before anything is taken. */
export default function ProfileDialog({ spec, onClose }: { spec: OutlineSpec; onClose(): void }) {
  const { document, resolved, edit, say } = useBench('document', 'resolved', 'edit', 'say');
  const outline = spec.name;
  const [file, setFile] = useState<{ name: string; text: string } | null>(null);
  const [profile, setProfile] = useState<Profile | null>(null);
  const [problem, setProblem] = useState<string | null>(null);
  const [busy, setBusy] = useState(false);
  const [width, setWidth] = useState('');
  const [withHoles, setWithHoles] = useState(true);
  const takesHoles = outline === 'outline' && resolved.recipe.parameters.some(p => p.name === 'holes');

  // Leaving the width's field for the button reads the file again: the result of that is taken.
  const reading = useRef<Promise<Profile | null>>(Promise.resolve(null));
  const made = useRef<number | null>(null);
  const read = (text: string, unit?: Unit, wide?: number) => {
    made.current = wide ?? null;
    setBusy(true);
    const asked = readProfileFile({ text, unit, width: wide }).then(reply => {
      if (reading.current !== asked) return null;
      setBusy(false);
      setProfile(reply.ok ? reply.profile : null);
      setProblem(reply.ok ? null : reply.message);
      return reply.ok ? reply.profile : null;
    });
    reading.current = asked;
  };
  const known = parseQuantity(width, 'length', 'mm');
  const [main, ...others] = profile?.loops ?? [];
  const circles = others.filter(l => l.circle);
  const take = async () => {
    const [main, ...rest] = (await reading.current)?.loops ?? [];
    if (!main) return;
    const circles = rest.filter(l => l.circle);
    const put = (name: string, text: string) =>
      edit({ kind: 'parameter', partId: resolved.part.id, name, expression: { text, unit: 'mm' } });
    if (!(await put(outline, main.outline))) return;
    if (takesHoles && withHoles && circles.length > 0) {
      await put('holes', writeHoles(circles.map(l => l.circle!)));
    }
    const said = sizesSaid(main);
    if (said.length > 0) await edit({ kind: 'add-readings', readings: said });
    say('The outline is taken in. Check its width against a reading.');
    onClose();
  };
  /** The drawing's own sizes, for dimensions that were not read yet. */
  const sizesSaid = ({ box }: ProfileLoop) =>
    Object.entries(spec.read ?? {}).flatMap(([way, key]) => {
      const dimension = document.dimensions.find(d => d.guide === key);
      if (!dimension || resolved.dimensions.get(dimension.id)?.evaluation) return [];
      const value = Number((way === 'width' ? box[2] - box[0] : box[3] - box[1]).toFixed(3));
      return [
        {
          dimensionId: dimension.id,
          reading: {
            id: ulid(),
            value,
            text: `${formatPlain(value, 3)}, drawn`,
            unit: 'mm' as const,
            at: new Date().toISOString(),
            instrumentId: null,
            source: 'said' as const,
            via: 'import' as const,
            struck: null,
          },
        },
      ];
    });
  return (
    <Dialog title="Outline from a drawing file" isOpen onClose={onClose} width={600}>
      <Stack $gap={12}>
        <p className="soft">
          An SVG or DXF with the profile as closed lines. The largest closed line becomes the outline
          {takesHoles ? ', circles in it become holes' : ''}.
        </p>
        <input
          type="file"
          accept=".svg,.dxf,image/svg+xml"
          aria-label="Drawing file"
          onChange={event => {
            const chosen = event.target.files?.[0];
            if (!chosen) return;
            setWidth('');
            // A file larger than any profile is not even read.
            if (chosen.size > 16_000_000) {
              setProfile(null);
              setProblem('This file is over 4 MB: export only the profile.');
              return;
            }
            void chosen.text().then(text => {
              setFile({ name: chosen.name, text });
              read(text);
            });
          }}
        />
        {busy ? <Loading what="Reading the drawing" /> : null}
        {problem ? <Notice level="stop">{problem}</Notice> : null}
        {profile && main && file ? (
          <>
            <Preview main={main} others={others} />
            <p>
              <b>{file.name}</b>:{' '}
              <span className="number" data-testid="profile-size">
                {formatPlain(main.box[2] - main.box[0], 2)} × {formatPlain(main.box[3] - main.box[1], 2)} mm
              </span>
              {others.length > 0
                ? `, with ${circles.length} ${circles.length === 1 ? 'circle' : 'circles'}${others.length > circles.length ? ` and ${others.length - circles.length} other closed lines, which are left out` : ''} in it`
                : ''}
              .
            </p>
            {profile.unitSaid ? null : (
              <Notice level="warn">The file does not say its unit. Is it really this large?</Notice>
            )}
            {profile.notes.map(n => (
              <Notice key={n} level="note">
                {n}
              </Notice>
            ))}
            <Row $gap={16} $wrap style={{ alignItems: 'flex-start' }}>
              <div style={{ width: 200 }}>
                <Select
                  label="Unit of its numbers"
                  value={profile.unit}
                  options={UNITS}
                  onChange={unit => {
                    setWidth('');
                    read(file.text, unit);
                  }}
                />
              </div>
              <div style={{ width: 230 }}>
                <TextField
                  label="Or make it this wide, mm"
                  value={width}
                  onChange={setWidth}
                  onBlur={() => {
                    if (known.ok && known.quantity.value > 0 && known.quantity.value !== made.current)
                      read(file.text, profile.unit, known.quantity.value);
                  }}
                  problem={
                    width !== '' && !(known.ok && known.quantity.value > 0)
                      ? 'Give the width that was read, such as 62.4.'
                      : undefined
                  }
                />
              </div>
            </Row>
            {takesHoles && circles.length > 0 ? (
              <Checkbox isSelected={withHoles} onChange={setWithHoles}>
                Take its circles as holes
              </Checkbox>
            ) : null}
          </>
        ) : null}
        <Row style={{ justifyContent: 'flex-end' }}>
          <Button $look="main" isDisabled={!main} onPress={() => void take()}>
            Use this outline
          </Button>
        </Row>
      </Stack>
    </Dialog>
  );
}

function Preview({ main, others }: { main: ProfileLoop; others: readonly ProfileLoop[] }) {
  const [x0, y0, x1, y1] = main.box;
  const pad = Math.max(x1 - x0, y1 - y0) * 0.04;
  const path = (loop: ProfileLoop) => `M${loop.points.map(([x, y]) => `${x} ${-y}`).join('L')}Z`;
  return (
    <Picture
      viewBox={`${x0 - pad} ${-y1 - pad} ${x1 - x0 + 2 * pad} ${y1 - y0 + 2 * pad}`}
      role="img"
      aria-label="The closed lines of the file"
    >
      <path
        d={path(main)}
        fill="var(--tint)"
        stroke="var(--ink)"
        vectorEffect="non-scaling-stroke"
        strokeWidth={1.6}
      />
      {others.map((loop, i) => (
        <path
          key={i}
          d={path(loop)}
          fill="var(--sheet)"
          stroke="var(--ink)"
          strokeDasharray={loop.circle ? undefined : '4 3'}
          vectorEffect="non-scaling-stroke"
          strokeWidth={1}
        />
      ))}
    </Picture>
  );
}
const Picture = styled.svg`width: 100%; max-height: 240px; background: var(--sheet); border: 1px solid var(--rule); border-radius: 4px;`;
