import { Draft } from '../../drawing/draft';
import type { Body, PartKernel } from '../../kernels/kernel';
import { circle, rectangle } from '../../outline';
import type { Point2 } from '../../vector';
import { PLATE } from '../advice';
import {
  defineRecipe,
  type KeysOf,
  type Measured,
  type Places,
  type SurfacePlace,
  type ValuesOf,
} from '../define-recipe';
import { choice, length, Refusals, step } from '../fields';

/** A plate that connects two bolt patterns: each a rectangle, a row or a circle of holes. Flat on the bed. */
const WHICH = ['A', 'B'] as const;
type Which = (typeof WHICH)[number];
const low = (which: Which) => which.toLowerCase() as Lowercase<Which>;
const patterns = { rectangle: 'four in a rectangle', row: 'two in a row', circle: 'on a circle' };

const parameters = [
  ...WHICH.flatMap(which => [
    choice(`pattern${which}`, `Holes ${which}`, patterns),
    length(`hole${which}`, `Hole ${which}`, [1, 60], `screw_${low(which)}.model`),
    length(`across${which}`, `${which}, apart`, [4, 400], `across_${low(which)}`),
    length(`deep${which}`, `${which}, the other way`, [4, 400], `deep_${low(which)}`),
    length(`count${which}`, `${which}, holes on the circle`, [3, 12], '3', {
      measure: 'count',
    }),
  ]),
  length('shift', 'B lies to the right by', [-300, 300], '0'),
  length('turn', 'B is turned by', [-180, 180], '0', { measure: 'angle' }),
  length('thickness', 'Thickness', [1, 60], '5', { sensible: PLATE }),
  length('margin', 'Plate beyond the holes', [1, 60], '5', { group: 'more' }),
  length('corners', 'Rounded corners', [0, 40], '4', { group: 'more' }),
];

type P = ValuesOf<typeof parameters>;
type Asked = KeysOf<typeof guide>;

function holesOf(p: P, which: Which): Point2[] {
  const [w, d] = [p[`across${which}` as const], p[`deep${which}` as const]];
  switch (p[`pattern${which}` as const]) {
    case 'row':
      return [
        [-w / 2, 0],
        [w / 2, 0],
      ];
    case 'circle': {
      const n = p[`count${which}` as const];
      return Array.from({ length: n }, (_, i): Point2 => {
        const a = (2 * Math.PI * i) / n + Math.PI / 2;
        return [(w / 2) * Math.cos(a), (w / 2) * Math.sin(a)];
      });
    }
    default:
      return [
        [-w / 2, -d / 2],
        [w / 2, -d / 2],
        [w / 2, d / 2],
        [-w / 2, d / 2],
      ];
  }
}

interface Hole {
  at: Point2;
  radius: number;
  which: Which;
}

function allHoles(p: P): Hole[] {
  const turn = (p.turn * Math.PI) / 180;
  return WHICH.flatMap(which =>
    holesOf(p, which).map(([x, y]): Hole => {
      const radius = p[`hole${which}` as const] / 2;
      if (which === 'A') return { at: [x, y], radius, which };
      const [c, s] = [Math.cos(turn), Math.sin(turn)];
      return { at: [x * c - y * s + p.shift, x * s + y * c], radius, which };
    }),
  );
}

/** The plate surrounds all holes with the same margin. */
function plateOf(p: P) {
  const margin = p.margin;
  const holes = allHoles(p);
  const edge = (pick: (h: Hole) => number, sign: number) =>
    Math.max(...holes.map(h => sign * pick(h) + h.radius + margin));
  return {
    x0: -edge(h => h.at[0], -1),
    x1: edge(h => h.at[0], 1),
    y0: -edge(h => h.at[1], -1),
    y1: edge(h => h.at[1], 1),
  };
}

function solid(p: P, kernel: PartKernel): Body {
  const { x0, y0, x1, y1 } = plateOf(p);
  const thick = p.thickness;
  let body = kernel.extrude(rectangle(x0, y0, x1, y1, p.corners), 0, thick);
  for (const { at, radius } of allHoles(p))
    body = kernel.cut(body, kernel.extrude(circle(at, radius), -1, thick + 2));
  return body;
}

function places(p: P): Places<`hole${Which}`> {
  const thick = p.thickness;
  const place = (which: Which): SurfacePlace => {
    const { at } = allHoles(p).find(h => h.which === which)!;
    return { kind: 'round', at: [at[0], at[1], thick / 2], axis: [0, 0, 1], from: 0, to: thick };
  };
  return { holeA: place('A'), holeB: place('B') };
}

function refuse(p: P) {
  const holes = allHoles(p);
  let nearest: { gap: number; which: Which } | undefined;
  holes.forEach((a, i) => {
    for (const b of holes.slice(i + 1)) {
      const gap = Math.hypot(a.at[0] - b.at[0], a.at[1] - b.at[1]) - a.radius - b.radius;
      if (!nearest || gap < nearest.gap) nearest = { gap, which: b.which };
    }
  });
  const clash = nearest !== undefined && nearest.gap < 1.2;
  return new Refusals<P>()
    .when(
      clash,
      clash && nearest!.which === 'A' ? 'acrossA' : 'shift',
      'Two holes run into each other: move the second pattern, turn it, or take smaller screws.',
    )
    .when(cornerGap(p) < 0.8, 'corners', 'The rounded corners cut into a hole: make them smaller.', p.margin)
    .list;
}

/** Least plastic between a hole and a rounded corner. */
function cornerGap(p: P): number {
  const { x0, y0, x1, y1 } = plateOf(p);
  const r = Math.min(p.corners, (x1 - x0) / 2, (y1 - y0) / 2);
  return Math.min(
    ...allHoles(p).map(({ at, radius }) => {
      const dx = Math.min(at[0] - x0, x1 - at[0]);
      const dy = Math.min(at[1] - y0, y1 - at[1]);
      // Only within a corner's own square is its arc the nearest edge.
      return dx < r && dy < r ? r - Math.hypot(r - dx, r - dy) - radius : Math.min(dx, dy) - radius;
    }),
  );
}

function drawing(p: P) {
  const { x0, y0, x1, y1 } = plateOf(p);
  const draft = new Draft<keyof P>().edge(rectangle(x0, y0, x1, y1, p.corners));
  for (const h of allHoles(p)) draft.mateLoop(`hole${h.which}`, circle(h.at, h.radius));
  const gap = Math.max(5, (y1 - y0) / 8);
  WHICH.forEach((which, i) => {
    const { at, radius } = allHoles(p).find(h => h.which === which)!;
    draft.across(
      `hole${which}`,
      `hole ${which}`,
      [at[0] - radius, at[0] + radius],
      at[1],
      i === 0 ? y0 - gap : y1 + gap,
      true,
    );
  });
  const low = Math.min(...holesOf(p, 'A').map(at => at[1]));
  draft.across('acrossA', 'A', [-p.acrossA / 2, p.acrossA / 2], low, y0 - 2 * gap);
  return draft.done('From above');
}

function objectDrawing(measured: Measured<Asked>, p: P) {
  const draft = new Draft<Asked>();
  let x = 0;
  for (const which of WHICH) {
    const w = measured[`across_${low(which)}` as const] ?? (which === 'A' ? 40 : 60);
    const d = measured[`deep_${low(which)}` as const] ?? w * 0.7;
    const r = (measured[`screw_${low(which)}` as const] ?? 4) / 2;
    const kind = p[`pattern${which}` as const];
    const at: Point2[] =
      kind === 'row'
        ? [
            [x, 0],
            [x + w, 0],
          ]
        : kind === 'circle'
          ? [
              [x, d / 2],
              [x + w, d / 2],
              [x + w / 2, d / 2 + w / 2],
            ]
          : [
              [x, 0],
              [x + w, 0],
              [x + w, d],
              [x, d],
            ];
    draft.edge(rectangle(x - 8, -8, x + w + 8, Math.max(d, kind === 'circle' ? d / 2 + w / 2 : 0) + 8, 3));
    for (const c of at) draft.mateLoop(`screw_${low(which)}`, circle(c, r));
    draft.across(`across_${low(which)}`, `${which}, apart`, [x, x + w], at[0]![1], -14);
    draft.across(`screw_${low(which)}`, 'screw', [x - r, x + r], at[0]![1], -22, true);
    if (kind === 'rectangle')
      draft.up(`deep_${low(which)}`, `${which}, deep`, x, [0, d], which === 'A' ? x - 14 : x + w + 14);
    x += w + 50;
  }
  return draft.done('The two patterns from above');
}

const mate = <W extends Which>(which: W) =>
  ({
    name: `Screw ${which} in its hole`,
    dimension: `screw_${low(which)}`,
    parameter: `hole${which}`,
    side: 'inside',
    want: 'bolt',
  }) as const;
const isKind = (which: Which, kind: keyof typeof patterns) => (p: P) =>
  p[`pattern${which}` as const] === kind;

const guide = WHICH.flatMap(which => [
  step(
    `screw_${low(which)}`,
    `Screw ${which}, over its thread`,
    'outside-jaws',
    'The screw that goes through; its hole is made for it.',
  ),
  step(
    `across_${low(which)}`,
    `Holes ${which}, apart`,
    'span',
    'Centre to centre: inside edge to inside edge and outside to outside, halved. On a circle its diameter.',
  ),
  step(`deep_${low(which)}`, `Holes ${which}, the other way`, 'span', 'Centre to centre, across the first.', {
    needed: isKind(which, 'rectangle'),
  }),
]);

export const plateAdapter = defineRecipe({
  id: 'plate-adapter',
  version: 1,
  family: 'adapter',
  title: 'Plate between bolt patterns',
  purpose: 'Carries something with one set of screw holes on something with another.',
  guide,
  mates: { holeA: mate('A'), holeB: mate('B') },
  parameters,
  shown: {
    deepA: isKind('A', 'rectangle'),
    countA: isKind('A', 'circle'),
    deepB: isKind('B', 'rectangle'),
    countB: isKind('B', 'circle'),
  },
  refuse,
  drawing,
  objectDrawing,
  solid,
  places,
  demo: {
    name: 'a rowlock plate on a wing rigger',
    sizes: { screw_a: 4, across_a: 40, deep_a: 28, screw_b: 6, across_b: 64, deep_b: 44 },
    parameters: {
      patternA: 'rectangle',
      holeA: 4.6,
      acrossA: 40,
      deepA: 28,
      countA: 3,
      patternB: 'rectangle',
      holeB: 6.6,
      acrossB: 64,
      deepB: 44,
      countB: 3,
      shift: 0,
      turn: 0,
      thickness: 5,
      margin: 5,
      corners: 4,
    },
  },
});
