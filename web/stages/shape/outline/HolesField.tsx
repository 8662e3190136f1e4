import { Plus, Trash2 } from 'lucide-react';
import { type Hole, OutlineTextError, readHoles, writeHoles } from '../../../../core/shape/outline-text';
import type { ParameterSpec } from '../../../../core/shape/recipes/parameters';
import { Button, Hinted, IconButton, TextField } from '../../../ui/controls';
import { Row } from '../../../ui/layout';
import { Cell, Field, Grid, Head, Problem } from './table';
import { useWritten } from './use-written';

type Written = Hole<string>;

/** Round holes, each by its place and size; without a depth it goes through. */
export function HolesField({ spec }: { spec: ParameterSpec }) {
  const { text, problem, type, leave, put, latest } = useWritten(spec);
  const holes = rowsOf(text);
  const step = (edit: (now: Written[]) => Written[]) => put(writeHoles(edit(rowsOf(latest()) ?? [])));
  const change = (i: number, by: Partial<Written>) =>
    type(writeHoles((rowsOf(latest()) ?? []).map((h, k) => (k === i ? { ...h, ...by } : h))));
  const cell = (
    i: number,
    label: string,
    value: string | undefined,
    by: (text: string) => Partial<Written>,
  ) => (
    <Cell
      aria-label={`Hole ${i + 1}, ${label}`}
      value={value ?? ''}
      placeholder={label === 'deep' ? 'through' : undefined}
      onChange={event => change(i, by(event.target.value))}
      onBlur={leave}
      onKeyDown={event => event.key === 'Enter' && leave()}
    />
  );
  return (
    <Field aria-label={spec.label}>
      <Row $gap={10}>
        <strong>{spec.label}</strong>
        <Button $small onPress={() => step(now => [...now, withOneMore(now)])}>
          <Plus size={16} aria-hidden />
          Add a hole
        </Button>
        {holes?.length === 0 ? <span className="soft">None.</span> : null}
      </Row>
      {holes === null ? (
        <TextField
          onBlur={leave}
          label="Holes"
          rows={2}
          value={text}
          onChange={type}
          hint="x, y, diameter of each, parted by semicolons; deep 3 where it does not go through."
        />
      ) : holes.length > 0 ? (
        <Grid $columns="repeat(4, minmax(74px, 160px)) 34px">
          <Head>x, mm</Head>
          <Head>y, mm</Head>
          <Head>Diameter, mm</Head>
          <Head>Deep, mm</Head>
          <Head />
          {holes.flatMap((h, i) => [
            <span key={`x${i}`}>{cell(i, 'x', h.x, x => ({ x }))}</span>,
            <span key={`y${i}`}>{cell(i, 'y', h.y, y => ({ y }))}</span>,
            <span key={`d${i}`}>{cell(i, 'diameter', h.diameter, diameter => ({ diameter }))}</span>,
            <span key={`t${i}`}>
              {cell(i, 'deep', h.deep, deep => ({ deep: deep.trim() === '' ? undefined : deep }))}
            </span>,
            <Hinted key={`r${i}`} hint="Take this hole out">
              <IconButton
                aria-label={`Take out hole ${i + 1}`}
                onPress={() => step(now => now.filter((_, k) => k !== i))}
              >
                <Trash2 size={16} />
              </IconButton>
            </Hinted>,
          ])}
        </Grid>
      ) : null}
      {problem ? <Problem role="alert">{problem}</Problem> : null}
    </Field>
  );
}

function rowsOf(text: string): Written[] | null {
  try {
    return readHoles(text);
  } catch (error) {
    if (error instanceof OutlineTextError) return null;
    throw error;
  }
}

/** Next to the last one, clear of it; the first at a place to be changed. */
function withOneMore(now: readonly Written[]): Written {
  const before = now.at(-1);
  if (!before) return { x: '10', y: '10', diameter: '4' };
  const x = Number(before.x) + 2 * Number(before.diameter);
  return { ...before, x: Number.isFinite(x) ? String(x) : `${before.x} + 2 * (${before.diameter})` };
}
