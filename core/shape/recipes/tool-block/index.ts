import { box, Draft } from '../../drawing/draft';
import type { Body, PartKernel } from '../../kernels/kernel';
import { circle, rectangle } from '../../outline';
import type { Frame } from '../../vector';
import { defineRecipe, type KeysOf, type Measured, type Places, type ValuesOf } from '../define-recipe';
import { length, Refusals, step } from '../fields';

const parameters = [
  length('hole', 'Hole', [1.5, 120], 'tool.model'),
  length('count', 'How many', [1, 16], '4', { measure: 'count' }),
  length('pitch', 'Apart, centre to centre', [3, 200], 'hole + 10'),
  length('lean', 'They lean back by', [0, 45], '0', { measure: 'angle' }),
  length('height', 'Height of the block', [4, 200], '30'),
  length('blade', 'Lower hole (0 is none)', [0, 110], '0'),
  length('step', 'Upper hole is deep', [2, 180], 'height * 0.5'),
  length('floor', 'Floor (0 is open)', [0, 60], '3', { group: 'more' }),
  length('edge', 'Around the holes', [1.2, 60], '4', { group: 'more' }),
];

type P = ValuesOf<typeof parameters>;
type Mate = 'hole';
type Drawn = keyof P | Mate;
type Asked = KeysOf<typeof guide>;

/**
 * A block with a row of holes for tools, leaning back if wanted, each wide for the handle above and narrow for
 * the blade below. Flat on the bed; the row runs along x, the holes lean towards the back.
 */
interface Sizes {
  tool: number;
  blade: number;
  count: number;
  pitch: number;
  lean: number;
  height: number;
  width: number;
  depth: number;
  floor: number;
  step: number;
}

function sizesOf(p: P): Sizes {
  const tool = p.hole / 2;
  const count = p.count;
  const pitch = p.pitch;
  const lean = (p.lean * Math.PI) / 180;
  const height = p.height;
  const edge = p.edge;
  return {
    tool,
    blade: p.blade / 2,
    count,
    pitch,
    lean,
    height,
    width: (count - 1) * pitch + 2 * (tool + edge),
    // A leaning hole leaves the block farther forward below than above.
    depth: height * Math.tan(lean) + (2 * tool) / Math.cos(lean) + 2 * edge,
    floor: p.floor,
    step: p.step,
  };
}

/** Where the axis of hole i meets the top, and which way is down it. */
function frameOf(s: Sizes, i: number): Frame {
  const x = (i - (s.count - 1) / 2) * s.pitch;
  // Half of the lean's run behind the middle at the top.
  const y = (s.height * Math.tan(s.lean)) / 2;
  return { at: [x, y, s.height], x: [1, 0, 0], up: [0, -Math.sin(s.lean), -Math.cos(s.lean)] };
}

/** Along the axis from the top to the step, and to the floor. */
function reachOf(s: Sizes) {
  const along = (z: number) => (s.height - z) / Math.cos(s.lean);
  return {
    step: s.step,
    floor: s.floor > 0 ? along(s.floor) - s.tool * Math.tan(s.lean) : along(0) + 2 * s.tool + 2,
  };
}

function solid(p: P, kernel: PartKernel): Body {
  const s = sizesOf(p);
  const corners = Math.min(4, s.depth / 4, s.width / 4);
  let body = kernel.extrude(
    rectangle(-s.width / 2, -s.depth / 2, s.width / 2, s.depth / 2, corners),
    0,
    s.height,
  );
  const { step: to, floor } = reachOf(s);
  const above = s.tool * Math.tan(s.lean) + 1;
  for (let i = 0; i < s.count; i++) {
    const frame = frameOf(s, i);
    const wide = s.blade > 0 ? to : floor;
    body = kernel.cut(body, kernel.extrude(circle([0, 0], s.tool), -above, wide + above, frame));
    if (s.blade > 0)
      body = kernel.cut(body, kernel.extrude(circle([0, 0], s.blade), wide - 0.5, floor - wide + 0.5, frame));
  }
  return body;
}

/** Along the axis from the top, where a section across it shows the whole hole: between slanting top and step. */
function wholeRing(s: Sizes): [number, number] {
  const { step: to, floor } = reachOf(s);
  const slant = s.tool * Math.tan(s.lean);
  return [slant, s.blade > 0 ? to : Math.min(floor, s.height / Math.cos(s.lean) - slant)];
}

function places(p: P): Places<Mate> {
  const s = sizesOf(p);
  const { at, up } = frameOf(s, 0);
  const axis = [-up[0], -up[1], -up[2]] as const;
  const [near, far] = wholeRing(s);
  const middle = (near + far) / 2;
  const along = at[0] * axis[0] + at[1] * axis[1] + at[2] * axis[2];
  return {
    hole: {
      kind: 'round',
      at: [at[0] + middle * up[0], at[1] + middle * up[1], at[2] + middle * up[2]],
      axis,
      from: along - far,
      to: along - near,
    },
  };
}

function refuse(p: P) {
  const s = sizesOf(p);
  const { step: to, floor } = reachOf(s);
  const slant = s.tool * Math.tan(s.lean);
  return new Refusals<P>()
    .when(
      s.count > 1 && s.pitch < 2 * s.tool + 1.2,
      'pitch',
      'The holes run into each other: set them farther apart.',
      2 * s.tool + 6,
    )
    .when(
      s.blade >= s.tool - 0.1 && s.blade > 0,
      'blade',
      'The lower hole must be narrower than the upper one; 0 leaves it out.',
      1.2 * s.tool,
    )
    .when(
      s.blade > 0 && (to > floor - 1 || to < 2 * slant + 2),
      'step',
      'The step lies outside the block: between a few millimetres and the floor.',
      Math.max(2 * slant + 3, 0.6 * s.height),
    )
    .when(s.floor > s.height - 3, 'floor', 'The floor fills the block: make it thinner.', 3)
    .when(
      wholeRing(s)[1] - wholeRing(s)[0] < 1,
      'height',
      'The block is too low for a hole that leans so far.',
      s.height + 2 * slant + 6,
    ).list;
}

function drawing(p: P) {
  const s = sizesOf(p);
  const draft = new Draft<Drawn>().edge(rectangle(-s.width / 2, -s.depth / 2, s.width / 2, s.depth / 2, 3));
  for (let i = 0; i < s.count; i++) {
    const { at } = frameOf(s, i);
    draft.mateLoop('hole', circle([at[0], at[1]], s.tool));
  }
  const first = frameOf(s, 0).at;
  const gap = Math.max(5, s.depth / 5);
  draft.across('hole', 'hole', [first[0] - s.tool, first[0] + s.tool], first[1], s.depth / 2 + gap, true);
  if (s.count > 1)
    draft.across('pitch', 'apart', [first[0], first[0] + s.pitch], first[1], -s.depth / 2 - gap);
  draft.up('as-drawn', 'deep', s.width / 2, [-s.depth / 2, s.depth / 2], s.width / 2 + gap);
  return draft.done('From above');
}

function objectDrawing(measured: Measured<Asked>) {
  const r = (measured.tool ?? 12) / 2;
  const b = (measured.blade_width ?? 6) / 2;
  const long = measured.reach ?? 40;
  const draft = new Draft<Asked>()
    .cut(box(-r * 1.6, long, r * 1.6, long + 20))
    .cut(box(-r, long * 0.4, r, long))
    .cut(box(-b, 0, b, long * 0.4));
  draft.centre([0, -4], [0, long + 24]);
  draft.walls('tool', r, [long * 0.4, long]);
  draft.across('tool', 'shank', [-r, r], long, long + 26, true);
  draft.across('blade_width', 'blade', [-b, b], 0, -6, true);
  draft.up('reach', 'length', -r * 1.6, [0, long], -r * 1.6 - 6);
  return draft.done('The tool, standing');
}

const guide = [
  step(
    'tool',
    'Tool’s shank, outside',
    'outside-jaws',
    'The thickest part that goes in; turn it between readings.',
  ),
  step('blade_width', 'Its blade, widest', 'outside-jaws', 'What must pass the lower part of the hole.'),
  step('reach', 'Length that goes in', 'step', 'From the handle’s shoulder to the tip.'),
];

export const toolBlock = defineRecipe({
  id: 'tool-block',
  version: 1,
  family: 'mount',
  title: 'Tool block',
  purpose: 'Stands or hangs with a row of holes for tools, straight or leaning, stepped for shank and blade.',
  guide,
  mates: {
    hole: {
      name: 'Tool in its hole',
      dimension: 'tool',
      parameter: 'hole',
      side: 'inside',
      want: 'drop-on',
      flexibleWant: 'drop-on',
    },
  },
  parameters,
  shown: {
    step: p => p.blade !== 0,
  },
  refuse,
  drawing,
  objectDrawing,
  solid,
  places,
  demo: {
    name: 'rigger spanners and drivers',
    sizes: { tool: 12, blade_width: 6, reach: 40 },
    parameters: {
      hole: 12.7,
      count: 4,
      pitch: 23,
      lean: 15,
      height: 30,
      blade: 7,
      step: 15,
      floor: 3,
      edge: 4,
    },
  },
});
