import { FileInput, Plus, RotateCcw, Trash2 } from 'lucide-react';
import { lazy, Suspense, useState } from 'react';
import styled from 'styled-components';
import {
  type Corner,
  OutlineTextError,
  readCorners,
  writeCorners,
} from '../../../../core/shape/outline-text';
import { Button, Hinted, IconButton, Select, TextField } from '../../../ui/controls';
import { Row } from '../../../ui/layout';
import { OutlineDrawing } from './OutlineDrawing';
import type { OutlineSpec } from './ProfileDialog';
import { Cell, Field, Grid, Head, Problem } from './table';
import { useWritten } from './use-written';

const ProfileDialog = lazy(() => import('./ProfileDialog'));

type Written = Corner<string>;
/** A traced outline with more corners is easier to read as text than as a table. */
const FIRST_TABLE = 60;

/** An outline as a table of its corners: what each is, and the edge that ends there. */
export function OutlineField({ spec }: { spec: OutlineSpec }) {
  const { text, problem, type, leave, put, latest, reset } = useWritten(spec);
  const [asText, setAsText] = useState(() => (rowsOf(text)?.length ?? 0) > FIRST_TABLE);
  const [reading, setReading] = useState(false);
  const corners = rowsOf(text);
  // Each step starts from what was written last, not from what was rendered last.
  const changed = (i: number, change: Partial<Written>): string =>
    writeCorners((rowsOf(latest()) ?? []).map((c, k) => (k === i ? { ...c, ...change } : c)));
  const step = (edit: (now: Written[]) => Written[]) => put(writeCorners(edit(rowsOf(latest()) ?? [])));
  const shown = corners && !asText;
  return (
    <Field aria-label={spec.label}>
      <Row $between $wrap>
        <strong>{spec.label}</strong>
        <Row $gap={6} $wrap>
          {reset ? (
            <Hinted hint="Back to the recipe’s own">
              <IconButton aria-label={`${spec.label}: back to the recipe’s own`} onPress={reset}>
                <RotateCcw size={16} />
              </IconButton>
            </Hinted>
          ) : null}
          <Button $small onPress={() => setReading(true)}>
            <FileInput size={16} aria-hidden />
            From a drawing file
          </Button>
          {corners ? (
            <Button $small $look="quiet" onPress={() => setAsText(!asText)}>
              {asText ? 'As a table' : 'As text'}
            </Button>
          ) : null}
        </Row>
      </Row>
      {corners ? <OutlineDrawing label={spec.label} corners={corners} onDraft={type} onKeep={put} /> : null}
      {shown ? (
        <Scroll>
          <Grid $columns="24px repeat(2, minmax(100px, 1.1fr)) minmax(118px, 0.9fr) minmax(190px, 1.6fr) 70px 34px">
            <Head>#</Head>
            <Head>x, mm</Head>
            <Head>y, mm</Head>
            <Head>Corner</Head>
            <Head>Edge to here</Head>
            <Head>Trim, mm</Head>
            <Head />
            {corners.map((c, i) => (
              <CornerRow
                key={i}
                at={i}
                corner={c}
                last={corners.length <= 2}
                onType={change => type(changed(i, change))}
                onLeave={leave}
                onPut={change => put(changed(i, change))}
                onRemove={() => step(now => now.filter((_, k) => k !== i))}
              />
            ))}
          </Grid>
        </Scroll>
      ) : (
        <TextField
          onBlur={leave}
          label="Corners"
          rows={5}
          value={text}
          onChange={type}
          hint="x, y of each corner, parted by semicolons; round 3, chamfer 2, via x, y and trim −1 belong to the corner they follow."
        />
      )}
      {problem ? <Problem role="alert">{problem}</Problem> : null}
      {shown ? (
        <Row $wrap>
          <Button $small onPress={() => step(withOneMore)}>
            <Plus size={16} aria-hidden />
            Add a corner
          </Button>
          <span className="soft">
            Numbers may be expressions over what was measured. A trim moves its edge outwards, below 0
            inwards.
          </span>
        </Row>
      ) : null}
      {reading ? (
        <Suspense fallback={null}>
          <ProfileDialog spec={spec} onClose={() => setReading(false)} />
        </Suspense>
      ) : null}
    </Field>
  );
}

interface RowProps {
  at: number;
  corner: Written;
  last: boolean;
  onType(change: Partial<Written>): void;
  onLeave(): void;
  onPut(change: Partial<Written>): void;
  onRemove(): void;
}

function CornerRow({ at, corner, last, onType, onLeave, onPut, onRemove }: RowProps) {
  const name = `Corner ${at + 1}`;
  const kind = corner.round !== undefined ? 'round' : corner.chamfer !== undefined ? 'chamfer' : 'sharp';
  const cell = (label: string, value: string | undefined, change: (text: string) => Partial<Written>) => (
    <Cell
      aria-label={`${name}, ${label}`}
      value={value ?? ''}
      onChange={event => onType(change(event.target.value))}
      onBlur={onLeave}
      onKeyDown={event => event.key === 'Enter' && onLeave()}
    />
  );
  return (
    <>
      <Place className="number">{at + 1}</Place>
      {cell('x', corner.x, x => ({ x }))}
      {cell('y', corner.y, y => ({ y }))}
      <Pair>
        <Whole>
          <Select
            label={`${name} is`}
            hideLabel
            value={kind}
            options={[
              { value: 'sharp', label: 'sharp' },
              { value: 'round', label: 'rounded' },
              { value: 'chamfer', label: 'chamfered' },
            ]}
            onChange={k =>
              onPut({
                round: k === 'round' ? (corner.chamfer ?? '2') : undefined,
                chamfer: k === 'chamfer' ? (corner.round ?? '2') : undefined,
              })
            }
          />
        </Whole>
        {kind === 'sharp'
          ? null
          : cell(`${kind === 'round' ? 'radius' : 'chamfer'}, mm`, corner[kind], size => ({ [kind]: size }))}
      </Pair>
      <Pair>
        <Whole>
          <Select
            label={`Edge to corner ${at + 1}`}
            hideLabel
            value={corner.via ? 'arc' : 'line'}
            options={[
              { value: 'line', label: 'straight' },
              { value: 'arc', label: 'arc through' },
            ]}
            onChange={k => onPut({ via: k === 'arc' ? [`${corner.x} + 5`, `${corner.y} + 5`] : undefined })}
          />
        </Whole>
        {corner.via ? (
          <>
            {cell('arc through x', corner.via[0], x => ({ via: [x, corner.via![1]] }))}
            {cell('arc through y', corner.via[1], y => ({ via: [corner.via![0], y] }))}
          </>
        ) : null}
      </Pair>
      {cell('trim', corner.trim, trim => ({ trim: trim.trim() === '' ? undefined : trim }))}
      <Hinted hint="Take this corner out">
        <IconButton aria-label={`Take out corner ${at + 1}`} isDisabled={last} onPress={onRemove}>
          <Trash2 size={16} />
        </IconButton>
      </Hinted>
    </>
  );
}

function rowsOf(text: string): Written[] | null {
  try {
    return readCorners(text);
  } catch (error) {
    if (error instanceof OutlineTextError) return null;
    throw error;
  }
}

/** Midway between the last corner and the first, so that it changes nothing yet. */
function withOneMore(now: Written[]): Written[] {
  const [a, b] = [now.at(-1), now[0]];
  if (!a || !b) return [...now, { x: '0', y: '0' }];
  const middle = (p: string, q: string) => {
    const value = (Number(p) + Number(q)) / 2;
    return Number.isFinite(value) ? String(value) : `(${p} + ${q}) / 2`;
  };
  return [...now, { x: middle(a.x, b.x), y: middle(a.y, b.y) }];
}

const Scroll = styled.div`overflow: auto; max-height: 460px; padding: 2px;`;
const Place = styled.span`padding-top: 8px; color: var(--soft); font-size: 13px;`;
const Pair = styled.div`display: grid; grid-template-columns: 1fr 1fr; gap: 5px 6px; min-width: 0; > :nth-child(2):last-child { grid-column: 1 / -1; }`;
const Whole = styled.div`grid-column: 1 / -1; min-width: 0;`;
