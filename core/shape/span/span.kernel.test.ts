import { beforeAll, describe, expect, test } from 'vitest';
import { kernels as startKernels } from '../../../kernels/node';
import { applyEdit, type Edit } from '../../job/edits';
import { emptyHistory } from '../../job/history';
import { newJob } from '../../job/new-job';
import { FIRST_WORKSHOP } from '../../job/workshop';
import { nudgesOf } from '../../work/nudges';
import { Work } from '../../work/work';
import { buildPart } from '../build';
import type { BuiltPart } from '../built-part';
import type { Kernels } from '../kernels/kernel';
import { moversAt } from '../movers';
import { requireRecipe } from '../recipes';
import type { Parameters } from '../recipes/parameters';
import type { Place } from '../vector';
import { spanMovers } from './span-movers';
import { movedMost, standsAt } from './stands';

let kernels: Kernels;
beforeAll(async () => {
  kernels = await startKernels();
});

/** A job's part as drawn before anything is read. */
function begun(id: string) {
  const recipe = requireRecipe(id);
  const work = new Work(newJob('Any', recipe, FIRST_WORKSHOP), FIRST_WORKSHOP, emptyHistory());
  const p = work.part('part-1').parameters as Record<string, number>;
  const build = (parameters: Parameters): BuiltPart | null => {
    const outcome = buildPart(recipe, parameters, kernels, 'screen');
    return outcome.ok ? outcome.part : null;
  };
  const now = build(p)!;
  const between = (...places: Place[]) => spanMovers(places, now, nudgesOf(work, 'part-1'), build);
  const stands = (number: string, angle = false) => {
    const nudge = nudgesOf(work, 'part-1', number)[0]!;
    return { size: p[number]!, by: nudge.by, angle, now, larger: build(nudge.parameters)! };
  };
  return { p, between, stands };
}

type Found = ReturnType<typeof spanMovers>;
const rates = (found: Found) =>
  'movers' in found ? Object.fromEntries(found.movers.map(m => [m.name, Number(m.rate.toFixed(2))])) : found;
const sizeOf = (found: Found) => ('span' in found ? found.span.size : Number.NaN);

describe('a wall plate with two keyholes: closed formulas from its drawing', () => {
  const { plate, hole } = {
    plate: () => begun('wall-plate'),
    hole: (p: Record<string, number>, side: 1 | -1): Place => ({
      point: [(side * p.pitch!) / 2 + (side * p.headHole!) / 2, -p.drop!, 1],
      normal: [-side, 0, 0],
    }),
  };

  test('a hole alone is its diameter, moved by its own number one to one', () => {
    const { p, between } = plate();
    const found = between(hole(p, 1));
    expect(sizeOf(found)).toBeCloseTo(p.headHole!, 3);
    expect(rates(found)).toEqual({ headHole: 1 });
  });

  test('two holes: from axis to axis, moved by the pitch alone and not by their size', () => {
    const { p, between } = plate();
    const found = between(hole(p, 1), hole(p, -1));
    expect(sizeOf(found)).toBeCloseTo(p.pitch!, 3);
    expect(rates(found)).toEqual({ pitch: 1 });
  });

  test('an end and a hole: half of the width less half of the pitch', () => {
    const { p, between } = plate();
    const end: Place = { point: [p.width! / 2, 0, 2], normal: [1, 0, 0] };
    const found = between(hole(p, 1), end);
    expect(sizeOf(found)).toBeCloseTo((p.width! - p.pitch!) / 2, 3);
    // The width follows pitch and heads while nobody sets it.
    expect(rates(found)).toMatchObject({ width: 0.5, headHole: 0.5 });
  });

  test('both ends: the width; both broad faces: the thickness', () => {
    const { p, between } = plate();
    const end = (side: 1 | -1): Place => ({ point: [(side * p.width!) / 2, 0, 2], normal: [side, 0, 0] });
    expect(rates(between(end(1), end(-1)))).toMatchObject({ width: 1 });
    const top: Place = { point: [0, 20, p.thickness!], normal: [0, 0, 1] };
    const under: Place = { point: [0, 20, 0], normal: [0, 0, -1] };
    expect(sizeOf(between(top, under))).toBeCloseTo(p.thickness!, 3);
    expect(rates(between(top, under))).toEqual({ thickness: 1 });
  });

  test('a flat alone, one face twice, and an axis that runs into a face are refused in words', () => {
    const { p, between } = plate();
    const top: Place = { point: [0, 20, p.thickness!], normal: [0, 0, 1] };
    expect(between(top)).toMatchObject({ why: expect.stringContaining('second face') });
    expect(between(top, { ...top, point: [5, 20, p.thickness!] })).toMatchObject({
      why: expect.stringContaining('one plane'),
    });
    expect(between(hole(p, 1), top)).toMatchObject({ why: expect.stringContaining('runs into') });
  });

  test('a place where there is no surface any more asks for another press', () => {
    const { between } = plate();
    expect(between({ point: [0, 0, 80], normal: [0, 0, 1] })).toMatchObject({
      why: expect.stringContaining('press it again'),
    });
  });
});

test('a hole in a boss about the same axis: the wall between them', () => {
  const { p, between } = begun('round-cap');
  const high = p.endThickness! + p.skirtDepth! / 2;
  const found = between(
    { point: [p.skirtDiameter! / 2, 0, high], normal: [-1, 0, 0] },
    { point: [p.skirtDiameter! / 2 + p.wall!, 0, high], normal: [1, 0, 0] },
  );
  expect(sizeOf(found)).toBeCloseTo(p.wall!, 2);
  expect(rates(found)).toEqual({ wall: 1 });
});

test('two sides of an outline: the numbers that its corners are written with', () => {
  const recipe = requireRecipe('profile-part');
  const set = (name: string, text: string): Edit => ({
    kind: 'parameter',
    partId: 'part-1',
    name,
    expression: { text, unit: 'mm' },
  });
  const document = [
    set('outline', '0, 0; seat_width, 0; seat_width, thickness + 20; 0, thickness + 20'),
    set('thickness', '6'),
  ].reduce((job, edit) => applyEdit(job, edit, FIRST_WORKSHOP), newJob('Any', recipe, FIRST_WORKSHOP));
  const work = new Work(document, FIRST_WORKSHOP, emptyHistory());
  const { parameters } = work.part('part-1');
  const build = (p: Parameters): BuiltPart | null => {
    const outcome = buildPart(recipe, p, kernels, 'screen');
    return outcome.ok ? outcome.part : null;
  };
  const now = build(parameters)!;
  const { min, max } = now.bounds;
  const side = (y: number, normal: Place['normal']): Place => ({
    point: [(min[0] + max[0]) / 2, y, max[2] / 3],
    normal,
  });
  const places = [side(min[1], [0, -1, 0]), side(max[1], [0, 1, 0])];
  const found = spanMovers(places, now, nudgesOf(work, 'part-1'), build);
  // All of the outline is made smaller by the fit of its width.
  expect(sizeOf(found)).toBeCloseTo(max[1] - min[1], 3);
  expect(rates(found)).toMatchObject({ thickness: 1 });
});

describe('edges of an outline that was written in numbers', () => {
  /** A plate of this outline, fitted by one of its sizes. */
  function plate(outline: string, fits: 'width' | 'height', size: number) {
    const recipe = requireRecipe('profile-part');
    const texts = { fits, outline, [`${fits}Size`]: String(size), thickness: '6' };
    const document = Object.entries(texts)
      .map(
        ([name, text]): Edit => ({
          kind: 'parameter',
          partId: 'part-1',
          name,
          expression: { text, unit: name === 'fits' ? 'none' : 'mm' },
        }),
      )
      .reduce((job, edit) => applyEdit(job, edit, FIRST_WORKSHOP), newJob('Any', recipe, FIRST_WORKSHOP));
    const work = new Work(document, FIRST_WORKSHOP, emptyHistory());
    const build = (p: Parameters): BuiltPart | null => {
      const outcome = buildPart(recipe, p, kernels, 'screen');
      return outcome.ok ? outcome.part : null;
    };
    return { now: build(work.part('part-1').parameters)!, nudges: nudgesOf(work, 'part-1'), build };
  }
  test('between two of them each counts one to one', () => {
    const { now, nudges, build } = plate('0, 0; 40, 0; 40, 25; 0, 25', 'height', 25);
    const { min, max } = now.bounds;
    const y = (min[1] + max[1]) / 2;
    const found = spanMovers(
      [
        { point: [min[0], y, 2], normal: [-1, 0, 0] },
        { point: [max[0], y, 2], normal: [1, 0, 0] },
      ],
      now,
      nudges,
      build,
    );
    expect(sizeOf(found)).toBeCloseTo(40, 3);
    // The height’s number moves all sides by half; its edges too, the other way, since the height is kept.
    expect(rates(found)).toMatchObject({ 'outline/1': 1, 'outline/3': 1, heightSize: 1 });
  });
  test('a slanted one that is moved out goes out by as much, and nothing that fits changes', () => {
    const { now, nudges, build } = plate('0, 0; 40, 0; 40, 25; 0, 15', 'width', 40);
    const { min } = now.bounds;
    const slant: Place = { point: [min[0] + 20, min[1] + 20, 2], normal: [-10, 40, 0] };
    const [first] = moversAt(slant, now, nudges, build);
    expect(first).toMatchObject({ name: 'outline/4', disturbs: [] });
    expect(first!.rate).toBeCloseTo(1, 2);
  });
});

describe('where a number stands', () => {
  test('an angle between the faces that it turns', () => {
    const recipe = requireRecipe('hinge-leaf');
    const at = (angle: number) => {
      const p = { ...recipe.demo.parameters, second: true, angle };
      const outcome = buildPart(recipe, p, kernels, 'screen');
      if (!outcome.ok) throw new Error(outcome.findings[0]!.message);
      return outcome.part;
    };
    const found = standsAt({ size: 110, by: 1, angle: true, now: at(110), larger: at(111) });
    expect(found?.kind).toBe('angle');
    expect(found?.size).toBeCloseTo(110, 1);
  });

  test('a thickness between two faces, a bore across it', () => {
    const { p, stands } = begun('hinge-leaf');
    for (const number of ['plate', 'pinBore'])
      expect(standsAt(stands(number))?.size).toBeCloseTo(p[number]!, 1);
  });

  test('a number that is no size of two faces is shown by what it moves', () => {
    const { stands } = begun('round-cap');
    const rounding = stands('outerFillet');
    expect(standsAt(rounding)).toBeNull();
    expect(movedMost(stands('skirtDepth'))?.along[2]).toBeCloseTo(1, 3);
  });
});
