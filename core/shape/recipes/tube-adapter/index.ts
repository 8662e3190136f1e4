import { Draft } from '../../drawing/draft';
import { mirrored } from '../../drawing/drawing';
import type { Body, Outline, PartKernel } from '../../kernels/kernel';
import { Path, pointsOf } from '../../outline';
import { choice, length, Refusals, step } from '../fields';
import { lengthOf, type MateSpec, type MateSurface, type Parameters, type Recipe } from '../recipe';

/**
 * Joins two tubes or hoses in line: each end goes over, goes into, or holds a hose by barbs. One profile
 * turned about the axis, end A down on the bed; between the ends the wall runs on at 45° or steeper.
 */
type End = 'A' | 'B';
const ENDS = ['A', 'B'] as const;
const kindOf = (p: Parameters, end: End) => p[`kind${end}`] as 'over' | 'into' | 'barb';

/** One end from its mouth inwards: radii that mate, and the way through. */
interface EndSizes {
  kind: 'over' | 'into' | 'barb';
  /** Of the mating surface. */
  mate: number;
  inner: number;
  outer: number;
  length: number;
}

interface Sizes {
  A: EndSizes;
  B: EndSizes;
  /** Between the ends. */
  middle: number;
  bore: number;
  chamfer: number;
}

/** A stop that an outer tube's end rests on reaches in by this. */
const BARB_PITCH = 4;
const BARB_HEIGHT = 0.6;

function endOf(p: Parameters, end: End): EndSizes {
  const kind = kindOf(p, end);
  const mate = lengthOf(p, `${kind}${end}`) / 2;
  const wall = lengthOf(p, 'wall');
  const long = lengthOf(p, `length${end}`);
  if (kind === 'over') return { kind, mate, inner: mate, outer: mate + wall, length: long };
  // A barb's ridges are the mating size: the core between them is lower.
  const core = kind === 'barb' ? mate - BARB_HEIGHT : mate;
  return { kind, mate, inner: core - wall, outer: mate, length: long };
}

function sizesOf(p: Parameters): Sizes {
  const [A, B] = [endOf(p, 'A'), endOf(p, 'B')];
  // Narrower than neither end, so that a tube pushed in finds its stop.
  const stop = lengthOf(p, 'stop');
  const way = (e: EndSizes) => (e.kind === 'over' ? e.mate - stop : e.inner);
  const bore = Math.min(way(A), way(B));
  return { A, B, bore, middle: lengthOf(p, 'middle'), chamfer: lengthOf(p, 'leadIn') };
}

/** Radius of the outside at an end's inner side, where the middle begins. */
const rootOf = (e: EndSizes) => (e.kind === 'barb' ? e.mate - BARB_HEIGHT : e.outer);

/** Points of the outside of an end, from mouth to root: heights from the mouth. */
function outsideOf(e: EndSizes, chamfer: number): [number, number][] {
  if (e.kind === 'over')
    return [
      [e.outer, 0],
      [e.outer, e.length],
    ];
  if (e.kind === 'into')
    return [
      [e.outer - chamfer, 0],
      [e.outer, chamfer],
      [e.outer, e.length],
    ];
  const core = e.mate - BARB_HEIGHT;
  const points: [number, number][] = [];
  // Round entry, square back: each ridge rises from the mouth and drops at once.
  const count = Math.max(1, Math.floor((e.length - 1) / BARB_PITCH));
  for (let i = 0; i < count; i++) {
    const z = i * BARB_PITCH;
    points.push(
      [core, z],
      [e.mate, z + BARB_PITCH * 0.6],
      [e.mate, z + BARB_PITCH * 0.85],
      [core, z + BARB_PITCH * 0.85],
    );
  }
  points.push([core, e.length]);
  return points;
}

/** Points of the inside of an end, from mouth to the bore. */
function insideOf(e: EndSizes, bore: number, chamfer: number): [number, number][] {
  if (e.kind === 'over')
    return [
      [e.mate + chamfer, 0],
      [e.mate, chamfer],
      [e.mate, e.length],
    ];
  // The way narrows to the bore at 45°, so that it prints either way up.
  const run = Math.max(0, e.inner - bore);
  return run > 0
    ? [
        [e.inner, 0],
        [e.inner, e.length],
        [bore, e.length + run],
      ]
    : [
        [e.inner, 0],
        [bore, e.length],
      ];
}

function outlineOf(s: Sizes): Outline {
  const total = s.A.length + s.middle + s.B.length;
  const flip = ([r, z]: [number, number]): [number, number] => [r, total - z];
  const outside = [...outsideOf(s.A, s.chamfer), ...outsideOf(s.B, s.chamfer).map(flip).reverse()];
  const inside = [
    ...insideOf(s.B, s.bore, s.chamfer).map(flip),
    ...(s.B.kind === 'over' ? [[s.bore, total - s.B.length] as [number, number]] : []),
    ...(s.A.kind === 'over' ? [[s.bore, s.A.length] as [number, number]] : []),
    ...insideOf(s.A, s.bore, s.chamfer).reverse(),
  ];
  const path = new Path(outside[0]!);
  for (const point of [...outside.slice(1), ...inside]) path.to(point);
  return path.close();
}

const solid = (p: Parameters, kernel: PartKernel): Body => kernel.revolve(outlineOf(sizesOf(p)));

function surfaces(p: Parameters): MateSurface[] {
  const s = sizesOf(p);
  const total = s.A.length + s.middle + s.B.length;
  return ENDS.map(end => {
    const e = s[end];
    let [from, to] = [s.chamfer, e.length];
    // On a barb the last ridge's crest is what the hose sits on.
    if (e.kind === 'barb') [from, to] = [BARB_PITCH * 0.6, BARB_PITCH * 0.85];
    if (end === 'B') [from, to] = [total - to, total - from];
    return {
      mate: `${e.kind}${end}`,
      side: e.kind === 'over' ? 'inside' : 'outside',
      kind: 'round',
      size: 2 * e.mate,
      at: [0, 0, (from + to) / 2],
      axis: [0, 0, 1],
      from,
      to,
    };
  });
}

function refuse(p: Parameters) {
  const s = sizesOf(p);
  const refusals = new Refusals();
  for (const end of ENDS) {
    const e = s[end];
    const name = `${e.kind}${end}`;
    refusals
      .when(
        e.inner < 0.5 && e.kind !== 'over',
        name,
        `End ${end}: no way through is left inside its wall.`,
        2 * lengthOf(p, 'wall') + 4,
      )
      .when(
        e.length < s.chamfer * 2 + 1,
        `length${end}`,
        `End ${end} is too short to hold anything.`,
        s.chamfer * 2 + 4,
      )
      .when(
        e.kind === 'barb' && e.length < BARB_PITCH + 2,
        `length${end}`,
        `A barb needs ${BARB_PITCH + 2} mm of length.`,
        BARB_PITCH + 8,
      )
      .when(
        s.chamfer > lengthOf(p, 'wall') - 0.3,
        'leadIn',
        'The lead-in takes the whole wall.',
        Math.max(0, lengthOf(p, 'wall') - 0.5),
      );
  }
  refusals.when(s.bore < 0.5, 'stop', 'The stop closes the way through: make it smaller.');
  refusals.when(
    lengthOf(p, 'leastBore') > 2 * s.bore + 1e-9,
    'leastBore',
    `The way through is ${(2 * s.bore).toFixed(1)} mm, narrower than asked: a thinner wall, a smaller stop, or other ends.`,
  );
  // The wall between the ends: outside of one against inside of the other, along 45°.
  const [ra, rb] = [rootOf(s.A), rootOf(s.B)];
  const narrow = (e: EndSizes) => (e.kind === 'over' ? 0 : Math.max(0, e.inner - s.bore));
  refusals.when(
    s.middle < Math.abs(ra - rb) || s.middle < narrow(s.A) + narrow(s.B) + 0.5,
    'middle',
    'The part between the ends is too short: its slope would overhang, or cut through the wall.',
    Math.max(Math.abs(ra - rb), narrow(s.A) + narrow(s.B)) + 2,
  );
  if (refusals.list.length === 0) {
    const least = thinnest(s);
    refusals.when(
      least < 0.4,
      'middle',
      'Between the ends the wall runs out: make that part longer or the wall thicker.',
      s.middle + 2 * (0.8 - least) + 1,
    );
  }
  return refusals.list;
}

/** Radial wall where the outside of the middle passes the corners of the inside, mm. */
function thinnest(s: Sizes): number {
  const [a, b] = [s.A.length, s.A.length + s.middle];
  const outsideAt = (z: number) => rootOf(s.A) + ((rootOf(s.B) - rootOf(s.A)) * (z - a)) / (b - a || 1);
  const inside: [number, number][] = [];
  for (const [e, at, sign] of [
    [s.A, a, 1],
    [s.B, b, -1],
  ] as const) {
    if (e.kind === 'over') inside.push([e.mate, at], [s.bore, at]);
    else inside.push([e.inner, at], [s.bore, at + sign * Math.max(0, e.inner - s.bore)]);
  }
  return Math.min(...inside.map(([r, z]) => outsideAt(z) - r));
}

function drawing(p: Parameters) {
  const s = sizesOf(p);
  const half = pointsOf(outlineOf(s)).slice(0, -1);
  const total = s.A.length + s.middle + s.B.length;
  const rim = Math.max(s.A.outer, s.B.outer);
  const draft = new Draft()
    .cut(half)
    .cut(mirrored(half))
    .centre([0, -3], [0, total + 3]);
  const gap = Math.max(4, rim / 3);
  for (const m of surfaces(p)) {
    const r = m.size / 2;
    draft.walls(m.mate, r, [m.from, m.to]);
    const below = m.mate.endsWith('A');
    draft.across(m.mate, m.mate.slice(0, -1), [-r, r], m.at[2], below ? -gap : total + gap, true);
  }
  draft.up('lengthA', 'end A', -rim, [0, s.A.length], -rim - gap);
  draft.up('lengthB', 'end B', -rim, [total - s.B.length, total], -rim - gap);
  return draft.done('Cut through the adapter, end A down');
}

const measuredAs = { over: 'tube', into: 'bore', barb: 'hose' } as const;

function objectDrawing(measured: Readonly<Record<string, number>>, p: Parameters) {
  const draft = new Draft();
  const far = 30;
  for (const end of ENDS) {
    const kind = kindOf(p, end);
    const key = `${measuredAs[kind]}_${end.toLowerCase()}`;
    const r = (measured[key] ?? (kind === 'over' ? 32 : 25)) / 2;
    const y0 = end === 'A' ? -far : 10;
    const y1 = y0 + far - 10;
    for (const sign of [-1, 1])
      draft.cut(
        kind === 'over'
          ? [
              [sign * (r - 2), y0],
              [sign * r, y0],
              [sign * r, y1],
              [sign * (r - 2), y1],
            ]
          : [
              [sign * r, y0],
              [sign * (r + 2), y0],
              [sign * (r + 2), y1],
              [sign * r, y1],
            ],
      );
    draft.walls(key, r, [y0, y1]);
    draft.across(
      key,
      `${end}, ${kind === 'over' ? 'outside' : 'inside'}`,
      [-r, r],
      end === 'A' ? y0 : y1,
      end === 'A' ? y0 - 6 : y1 + 6,
      true,
    );
  }
  draft.centre([0, -far - 4], [0, far + 4]);
  return draft.done('Cut through the two things to be joined');
}

const mate = (kind: 'over' | 'into' | 'barb', end: End): MateSpec => ({
  id: `${kind}${end}`,
  name: { over: `End ${end} over its tube`, into: `End ${end} in its bore`, barb: `Hose on end ${end}` }[
    kind
  ],
  dimension: `${measuredAs[kind]}_${end.toLowerCase()}`,
  parameter: `${kind}${end}`,
  side: kind === 'over' ? 'inside' : 'outside',
  want: kind === 'barb' ? 'stretch' : 'snug',
  flexibleWant: kind === 'into' ? 'snug' : 'stretch',
  ...(kind === 'barb' ? { soft: 'theirs' as const } : {}),
  active: p => kindOf(p, end) === kind,
});
const KINDS = ['over', 'into', 'barb'] as const;
const ways = { over: 'goes over a tube', into: 'goes into a bore', barb: 'holds a hose' };
const when = (kind: string, end: End) => (p: Parameters) => kindOf(p, end) === kind;

export const tubeAdapter: Recipe = {
  id: 'tube-adapter',
  version: 1,
  family: 'adapter',
  title: 'Tube adapter',
  purpose: 'Joins two tubes, outlets or hoses in line: each end over, into, or barbed for a hose.',
  guide: ENDS.flatMap(end => [
    step(
      `tube_${end.toLowerCase()}`,
      `Tube ${end}, outside`,
      'outside-jaws',
      'Two centimetres from its end, where it is still round; turn it between readings.',
      { critical: true, needed: when('over', end) },
    ),
    step(
      `bore_${end.toLowerCase()}`,
      `Bore ${end}, inside`,
      'inside-jaws',
      'As deep as the jaws reach; rock them and keep the largest.',
      { critical: true, needed: when('into', end) },
    ),
    step(
      `hose_${end.toLowerCase()}`,
      `Hose ${end}, inside`,
      'inside-jaws',
      'Not pressed oval: cut the end square and let it hang free.',
      { critical: true, needed: when('barb', end) },
    ),
  ]),
  mates: ENDS.flatMap(end => KINDS.map(kind => mate(kind, end))),
  parameters: [
    ...ENDS.flatMap(end => [
      choice(
        `kind${end}`,
        `End ${end}`,
        end === 'A' ? ways : { into: ways.into, over: ways.over, barb: ways.barb },
      ),
      ...KINDS.map(kind =>
        length(
          `${kind}${end}`,
          `End ${end}, ${kind === 'over' ? 'inside' : kind === 'into' ? 'outside' : 'over the ridges'}`,
          [2, 300],
          `${measuredAs[kind]}_${end.toLowerCase()}.model`,
          { shown: when(kind, end) },
        ),
      ),
      length(`length${end}`, `End ${end}, length`, [2, 200], '20'),
    ]),
    length('middle', 'Between the ends', [0.5, 200], '12'),
    length('wall', 'Wall', [0.8, 20], '2'),
    length('stop', 'Stop reaches in by', [0, 20], '1.5', { group: 'more' }),
    length('leastBore', 'Way through, at least', [0, 290], '0', { group: 'more' }),
    length('leadIn', 'Lead-in chamfers', [0, 4], '0.6', { group: 'more' }),
  ],
  refuse,
  drawing,
  objectDrawing,
  solid,
  surfaces,
  checks: () => [],
  demo: {
    name: 'a dehumidifier’s outlet and a drain pipe',
    sizes: { tube_a: 32, bore_a: 28, hose_a: 25, tube_b: 40, bore_b: 36, hose_b: 19 },
    parameters: {
      kindA: 'over',
      overA: 32.35,
      intoA: 27.8,
      barbA: 26,
      lengthA: 20,
      kindB: 'into',
      overB: 40.35,
      intoB: 35.8,
      barbB: 20,
      lengthB: 18,
      middle: 10,
      wall: 2,
      stop: 1.5,
      leastBore: 0,
      leadIn: 0.6,
    },
  },
};
