import { box, Draft } from '../../drawing/draft';
import type { Body, Outline, PartKernel } from '../../kernels/kernel';
import { circle, Path, rectangle } from '../../outline';
import type { Point2 } from '../../vector';
import { PLATE } from '../advice';
import { defineRecipe, type KeysOf, type Measured, type Places, type ValuesOf } from '../define-recipe';
import { choice, length, Refusals, step } from '../fields';

const parameters = [
  choice('style', 'It is', { keyholes: 'hung by keyholes', screwed: 'screwed on, heads sunk' }),
  length('slot', 'Slot or hole for the screw', [1.2, 20], 'screw.model'),
  length('headHole', 'Hole for the head', [2.5, 40], 'head + 1'),
  length('count', 'Screws', [1, 6], '2', { measure: 'count' }),
  length('pitch', 'Apart', [4, 400], 'apart'),
  length('drop', 'The plate drops by', [2, 60], 'headHole'),
  length('width', 'Plate, width', [10, 400], '(count - 1) * pitch + headHole + 14'),
  length('height', 'Plate, height', [10, 400], 'max(50; 2 * (drop + headHole) + 6)'),
  length('thickness', 'Thickness', [1.2, 40], '4', { sensible: PLATE }),
  length('corners', 'Rounded corners', [0, 40], '4', { group: 'more' }),
];

type P = ValuesOf<typeof parameters>;
type Mate = 'slot';
type Drawn = keyof P | Mate;
type Asked = KeysOf<typeof guide>;

/**
 * A wall plate that hangs on screws already in the wall (keyholes) or is screwed on. Its back is on the bed; up on the
 * wall is +y. Other parts are screwed or glued to its face.
 */
const isKeyhole = (p: P) => p.style === 'keyholes';

interface Sizes {
  width: number;
  height: number;
  thick: number;
  apart: number;
  count: number;
  shank: number;
  head: number;
  drop: number;
}

function sizesOf(p: P): Sizes {
  return {
    width: p.width,
    height: p.height,
    thick: p.thickness,
    apart: p.pitch,
    count: p.count,
    shank: p.slot / 2,
    head: p.headHole / 2,
    drop: p.drop,
  };
}

function placesOf(s: Sizes): Point2[] {
  return Array.from({ length: s.count }, (_, i): Point2 => [(i - (s.count - 1) / 2) * s.apart, 0]);
}

/** The shank's slot, open at the bottom into the head's hole; the plate comes down onto the screws. */
function keyhole(s: Sizes, [x, y]: Point2): Outline {
  // Where the slot's sides meet the head's circle.
  const joint = Math.sqrt(s.head ** 2 - s.shank ** 2);
  const low = y - s.drop;
  return new Path([x + s.shank, y])
    .arc([x - s.shank, y], [x, y + s.shank])
    .to([x - s.shank, low + joint])
    .arc([x + s.shank, low + joint], [x, low - s.head])
    .to([x + s.shank, y])
    .close();
}

function solid(p: P, kernel: PartKernel): Body {
  const s = sizesOf(p);
  const r = p.corners;
  let body = kernel.extrude(rectangle(-s.width / 2, -s.height / 2, s.width / 2, s.height / 2, r), 0, s.thick);
  for (const at of placesOf(s)) {
    if (isKeyhole(p)) body = kernel.cut(body, kernel.extrude(keyhole(s, at), -1, s.thick + 2));
    else {
      body = kernel.cut(body, kernel.extrude(circle(at, s.shank), -1, s.thick + 2));
      // Countersunk from the face for a flat head: 90° between its sides.
      const deep = Math.min(s.head - s.shank, s.thick - 0.6);
      const sink = new Path([0, s.thick - deep])
        .to([s.shank, s.thick - deep])
        .to([s.shank + deep + 1, s.thick + 1])
        .to([0, s.thick + 1])
        .close();
      body = kernel.cut(body, kernel.revolve(sink, { at: [at[0], at[1], 0], x: [1, 0, 0], up: [0, 0, 1] }));
    }
  }
  return body;
}

function places(p: P): Places<Mate> {
  const s = sizesOf(p);
  const [x, y] = placesOf(s)[0]!;
  const keyed = isKeyhole(p);
  const to = keyed ? s.thick : Math.max(0.6, s.thick - (s.head - s.shank));
  const common = { axis: [0, 0, 1] as const, from: 0, to };
  return {
    slot: keyed
      ? { ...common, kind: 'flats', at: [x, y - 0.01, to / 2], across: [1, 0, 0] }
      : { ...common, kind: 'round', at: [x, y, to / 2] },
  };
}

function refuse(p: P) {
  const s = sizesOf(p);
  const below = isKeyhole(p) ? s.drop + s.head : s.head;
  return new Refusals<P>()
    .when(
      s.head < s.shank + 0.4,
      'headHole',
      'The head must be wider than the slot, or the plate falls off.',
      2 * s.shank + 4,
    )
    .when(
      isKeyhole(p) && s.drop < s.head + 0.5,
      'drop',
      'The plate must drop by more than the head’s radius, or the head never leaves its hole.',
      s.head + 2,
    )
    .when(
      s.count > 1 && s.apart < 2 * s.head + 1.2,
      'pitch',
      'The screws are so near that their holes run into each other.',
      2 * s.head + 6,
    )
    .when(
      (s.count - 1) * s.apart + 2 * s.head > s.width - 3,
      'width',
      'The plate is narrower than its screws: make it wider.',
      (s.count - 1) * s.apart + 2 * s.head + 10,
    )
    .when(
      s.height / 2 < Math.max(below, s.shank) + 1.5,
      'height',
      'The plate is lower than its holes: make it higher.',
      2 * below + 8,
    )
    .when(
      p.corners > Math.min(s.width, s.height) / 3,
      'corners',
      'The corners are rounder than the plate allows.',
      Math.min(s.width, s.height) / 4,
    ).list;
}

function drawing(p: P) {
  const s = sizesOf(p);
  const draft = new Draft<Drawn>().edge(
    rectangle(-s.width / 2, -s.height / 2, s.width / 2, s.height / 2, p.corners),
  );
  for (const at of placesOf(s)) {
    if (isKeyhole(p)) draft.mateLoop('slot', keyhole(s, at));
    else draft.edge(circle(at, s.head)).mateLoop('slot', circle(at, s.shank));
  }
  const [x, y] = placesOf(s)[0]!;
  const gap = Math.max(5, s.height / 8);
  draft.across('slot', 'screw', [x - s.shank, x + s.shank], y, s.height / 2 + gap);
  if (s.count > 1) draft.across('pitch', 'apart', [x, x + s.apart], y, -s.height / 2 - gap);
  draft.up('height', 'height', s.width / 2, [-s.height / 2, s.height / 2], s.width / 2 + gap);
  return draft.done('From its face, as it hangs');
}

function objectDrawing(measured: Measured<Asked>) {
  const shank = (measured.screw ?? 4) / 2;
  const head = Math.max(shank + 0.5, (measured.head ?? 8) / 2);
  const apart = measured.apart ?? 60;
  const draft = new Draft<Asked>();
  for (const sign of [-1, 1]) {
    const x = (sign * apart) / 2;
    draft.cut(box(x - shank, 0, x + shank, 8)).cut(box(x - head, 8, x + head, 11));
  }
  draft.cut(box(-apart / 2 - 12, -6, apart / 2 + 12, 0));
  draft.mate(
    'screw',
    [
      [-apart / 2 - shank, 0],
      [-apart / 2 - shank, 8],
    ],
    [
      [-apart / 2 + shank, 0],
      [-apart / 2 + shank, 8],
    ],
  );
  draft.across('screw', 'screw', [-apart / 2 - shank, -apart / 2 + shank], 4, -12, true);
  draft.across('head', 'head', [-apart / 2 - head, -apart / 2 + head], 11, 17, true);
  draft.across('apart', 'apart', [-apart / 2, apart / 2], 11, 24);
  return draft.done('Two screws standing out of the wall, from above');
}

const guide = [
  step('screw', 'Screw, over its thread', 'outside-jaws', 'Just under the head, where the plate will hang.'),
  step('head', 'Screw’s head', 'outside-jaws', 'Across its widest.'),
  step(
    'apart',
    'Screws, apart',
    'span',
    'Centre to centre: inside edge to inside edge and outside to outside, halved.',
  ),
];

export const wallPlate = defineRecipe({
  id: 'wall-plate',
  version: 1,
  family: 'mount',
  title: 'Wall plate',
  purpose: 'Hangs on screws that stand out of a wall by keyholes, or is screwed on with countersunk heads.',
  guide,
  mates: {
    slot: {
      name: 'Slot over the screw',
      dimension: 'screw',
      parameter: 'slot',
      side: 'inside',
      want: 'bolt',
      flexibleWant: 'bolt',
      form: 'flats',
    },
  },
  parameters,
  shown: {
    drop: isKeyhole,
  },
  refuse,
  drawing,
  objectDrawing,
  solid,
  places,
  demo: {
    name: 'two screws by the boathouse door',
    sizes: { screw: 4, head: 8, apart: 60 },
    parameters: {
      style: 'keyholes',
      slot: 4.6,
      headHole: 9,
      count: 2,
      pitch: 60,
      drop: 9,
      width: 83,
      height: 50,
      thickness: 4,
      corners: 4,
    },
  },
});
