import type { Body, PartKernel } from '../../kernels/kernel';
import { boundsOf, type TriangleMesh } from '../../mesh/mesh';
import { placedMesh } from '../../mesh/placed';
import { type Loop, sectionAcross } from '../../mesh/section';
import { circle, rectangle } from '../../outline';
import { choice, length, Refusals } from '../../recipes/fields';
import { lengthOf, type Parameters, textOf } from '../../recipes/parameters';
import type { Frame, Point3 } from '../../vector';
import { negated, scaled } from '../../vector';
import { gapTo, isInside } from '../../within';
import { AdditionGone, type AdditionKind, type Piece, type Site } from '../addition';
import { flatsFacing, frameDirections } from '../place';
import { clearanceFor, headFor, pilotFor, SCREWS } from '../screws';
import { throughAll } from '../tools';

const NORMALS: Readonly<Record<string, Point3>> = { x: [1, 0, 0], y: [0, 1, 0], z: [0, 0, 1] };
/** Plastic left around a dowel or a screw in the cut, mm. Common practice, no source. */
const LEAST_WALL = 1.2;
/** Gap between pieces on the bed, mm. */
const APART = 4;
const pinned = (p: Parameters) => p.joint === 'dowels' || p.joint === 'rod';

/** Two pieces instead of one: to fit the bed, or because layers then run the strong way. */
export const split: AdditionKind = {
  kind: 'split',
  title: 'Split in two',
  purpose:
    'Two pieces that go together again: for a bed that is too small, or layers that lie the strong way.',
  short: 'split',
  parameters: [
    choice('across', 'Cut', {
      z: 'level, into lower and upper',
      x: 'upright, into left and right',
      y: 'upright, into front and back',
    }),
    length('at', 'Where along that way', [-500, 500], '10'),
    choice('from', 'Counted from', { origin: 'the part’s own zero', middle: 'the middle of the part' }),
    choice('joint', 'Held together by', {
      dowels: 'printed dowels',
      rod: 'bought rod',
      screws: 'screws',
      glue: 'glue alone',
      seat: 'the seat it sits in',
    }),
    length('diameter', 'Dowel or rod', [1.5, 20], '4', { shown: pinned }),
    length('room', 'Room for it, across', [0, 1], '0.2', { group: 'more', shown: pinned }),
    length('deep', 'Deep in each piece', [1.5, 60], '6', { shown: pinned }),
    choice('screw', 'Screw', Object.fromEntries(SCREWS.slice(2).map(s => [s, s])), {
      shown: p => p.joint === 'screws',
    }),
    length('bite', 'Screw bites', [3, 60], '8', { shown: p => p.joint === 'screws' }),
    length('count', 'How many', [1, 8], '2', {
      measure: 'count',
      shown: p => pinned(p) || p.joint === 'screws',
    }),
    choice(
      'lay',
      'Pieces lie',
      { larger: 'on the cut, or as drawn where that is larger', cut: 'on the cut', drawn: 'as drawn' },
      { group: 'more' },
    ),
  ],
  fresh: { at: '0', from: 'middle' },
  refuse: p =>
    new Refusals().when(
      p.joint === 'rod' && lengthOf(p, 'room') > lengthOf(p, 'diameter') / 4,
      'room',
      'That much room lets the pieces shift: take less than a quarter of the rod.',
      0.2,
    ).list,
  apply(site, p) {
    const kernel = site.kernels.part;
    const normal = NORMALS[textOf(p, 'across')]!;
    const axis = normal.indexOf(1);
    const { min, max } = site.bounds();
    const middle = (min[axis]! + max[axis]!) / 2;
    const at = lengthOf(p, 'at') + (p.from === 'middle' ? middle : 0);
    if (at <= min[axis]! + 0.2 || at >= max[axis]! - 0.2)
      throw new AdditionGone(
        `The cut at ${round(at)} mm misses the part, which lies from ${round(min[axis]!)} to ${round(max[axis]!)} mm.`,
        'at',
        { label: 'Cut in the middle', text: String(round(p.from === 'middle' ? 0 : middle)) },
      );
    const { x } = frameDirections(normal);
    const frame: Frame = { at: scaled(normal, at), x, up: normal };
    const pins = pinned(p) || p.joint === 'screws' ? pinsOf(site, frame, p) : [];
    let [low, high] = halves(kernel, site.body, frame, throughAll(site));
    const d = lengthOf(p, 'diameter');
    for (const pin of pins) {
      if (p.joint === 'screws') {
        const screw = textOf(p, 'screw');
        const through = throughAll(site);
        low = kernel.cut(
          low,
          rod(kernel, frame, pin, pilotFor(screw).diameter + 0.1, -lengthOf(p, 'bite'), 0.5),
        );
        high = kernel.cut(high, rod(kernel, frame, pin, clearanceFor(screw).diameter + 0.2, -0.5, through));
        const head = headFor(screw)!;
        const left = Math.max(3, max[axis]! - at - head.height - 0.5);
        high = kernel.cut(high, rod(kernel, frame, pin, head.diameter + 0.6, left, through));
      } else {
        const deep = lengthOf(p, 'deep');
        const bore = d + lengthOf(p, 'room');
        low = kernel.cut(low, rod(kernel, frame, pin, bore, -deep - 0.25, 0.5));
        high = kernel.cut(high, rod(kernel, frame, pin, bore, -0.5, deep + 0.25));
      }
    }
    const onCut = p.lay === 'cut' || (p.lay === 'larger' && cutArea(site, frame) >= baseArea(site));
    const names = { x: ['left', 'right'], y: ['front', 'back'], z: ['lower', 'upper'] }[
      textOf(p, 'across') as 'x' | 'y' | 'z'
    ];
    const pieces: Piece[] = [
      // The lower piece's cut faces along the normal: the piece is turned over onto it.
      { body: low, name: names[0]!, lay: m => beside(onCut ? turnedDown(m, normal) : m, 'left', 0) },
      {
        body: high,
        name: names[1]!,
        lay: m => beside(onCut ? turnedDown(m, negated(normal)) : m, 'right', 0),
      },
    ];
    if (p.joint === 'dowels')
      pins.forEach((_, i) => {
        const long = 2 * lengthOf(p, 'deep');
        pieces.push({
          body: dowel(kernel, d, long),
          name: `dowel ${i + 1}`,
          extra: true,
          lay: m => moved(m, [0, -(max[1] - min[1]) - long - (max[2] - min[2]) - i * (d + APART), 0]),
        });
      });
    return { body: site.body, pieces, cut: { normal, at } };
  },
};

/** The area that would touch the bed, mm²: the cut itself, or the part's own underside. */
const cutArea = (site: Site, { at, up }: Frame): number =>
  sectionAcross(site.mesh(), at, up).loops.reduce((sum, l) => sum + l.area, 0);
const baseArea = (site: Site): number => flatsFacing(site.mesh(), [0, 0, -1])[0]?.area ?? 0;

const round = (x: number) => Number(x.toFixed(2));

function halves(kernel: PartKernel, body: Body, frame: Frame, all: number): [Body, Body] {
  const far = 3 * all;
  const half = (z: number) => kernel.extrude(rectangle(-far, -far, far, far), z, 2 * far, frame);
  return [kernel.cut(body, half(0)), kernel.cut(body, half(-2 * far))];
}

const rod = (
  kernel: PartKernel,
  frame: Frame,
  [a, b]: readonly [number, number],
  d: number,
  low: number,
  high: number,
) => kernel.extrude(circle([a, b], d / 2), low, high - low, frame);

/** Lying on a flat, so that its layers run along it. */
function dowel(kernel: PartKernel, d: number, long: number): Body {
  const frame: Frame = { at: [-long / 2, 0, 0.42 * d], x: [0, 1, 0], up: [1, 0, 0] };
  const whole = kernel.extrude(circle([0, 0], d / 2), 0, long, frame);
  return kernel.cut(whole, kernel.extrude(rectangle(-long, -d, long, d), -d, d));
}

/** The places of pins: deep inside the cut, and far from each other. In the cut's own directions. */
function pinsOf(site: Site, frame: Frame, p: Parameters): [number, number][] {
  const d = p.joint === 'screws' ? headFor(textOf(p, 'screw'))!.diameter : lengthOf(p, 'diameter');
  const { loops } = sectionAcross(site.mesh(), frame.at, frame.up);
  const need = d / 2 + LEAST_WALL;
  const count = lengthOf(p, 'count');
  const roomy = roomyPoints(loops, need);
  if (roomy.length === 0)
    throw new AdditionGone(
      `The cut has no room for ${round(d)} mm with ${LEAST_WALL} mm of plastic around it. Take a thinner one, cut elsewhere, or glue it.`,
      p.joint === 'screws' ? 'screw' : 'diameter',
    );
  const chosen: [number, number][] = [];
  const apartFrom = (q: readonly [number, number]) =>
    Math.min(...chosen.map(c => Math.hypot(c[0] - q[0], c[1] - q[1])));
  const centre = roomy.reduce(
    (sum, q) => [sum[0] + q[0] / roomy.length, sum[1] + q[1] / roomy.length] as [number, number],
    [0, 0] as [number, number],
  );
  chosen.push(
    count === 1
      ? nearestTo(roomy, centre)
      : [...roomy].sort(
          (a, b) =>
            Math.hypot(b[0] - centre[0], b[1] - centre[1]) - Math.hypot(a[0] - centre[0], a[1] - centre[1]),
        )[0]!,
  );
  while (chosen.length < count) {
    const next = roomy.map(q => ({ q, far: apartFrom(q) })).sort((a, b) => b.far - a.far)[0]!;
    if (next.far < d + LEAST_WALL)
      throw new AdditionGone(`The cut has room for ${chosen.length} of them, not ${count}.`, 'count', {
        label: `Take ${chosen.length}`,
        text: String(chosen.length),
      });
    chosen.push(next.q);
  }
  return chosen.map(q => inFrame(q, frame));
}

const nearestTo = (points: readonly [number, number][], [x, y]: readonly [number, number]) =>
  [...points].sort((a, b) => Math.hypot(a[0] - x, a[1] - y) - Math.hypot(b[0] - x, b[1] - y))[0]!;

const GRID = 61;

/** Grid points inside a section, at least this far from its edge. */
function roomyPoints(loops: readonly Loop[], need: number): [number, number][] {
  const all = loops.flatMap(l => l.points);
  if (all.length === 0) return [];
  const [x0, x1] = [Math.min(...all.map(q => q[0])), Math.max(...all.map(q => q[0]))];
  const [y0, y1] = [Math.min(...all.map(q => q[1])), Math.max(...all.map(q => q[1]))];
  // An odd number of cells in each direction, so that the middle of a narrow cut is sampled too.
  const cells = (from: number, to: number) =>
    Array.from({ length: GRID }, (_, i) => from + ((i + 0.5) * (to - from)) / GRID);
  const found: [number, number][] = [];
  for (const x of cells(x0, x1))
    for (const y of cells(y0, y1)) {
      const inside = loops.filter(l => isInside([x, y], l.points)).length % 2 === 1;
      if (inside && loops.every(l => gapTo([x, y], l.points) >= need)) found.push([x, y]);
    }
  return found;
}

/** From the section's directions (section.ts) to the frame's. */
function inFrame([a, b]: readonly [number, number], { x, up }: Frame): [number, number] {
  if (up[2] === 1) return [a, b];
  // Both have their second direction upwards; the first may point the other way.
  const flat = Math.hypot(up[0], up[1]);
  const across: Point3 = [-up[1] / flat, up[0] / flat, 0];
  return [a * (across[0] * x[0] + across[1] * x[1]), b];
}

/** Turned so that what faces `down` faces the bed. */
function turnedDown(mesh: TriangleMesh, down: Point3): TriangleMesh {
  if (down[2] === -1) return mesh;
  if (down[2] === 1) return placedMesh(mesh, { at: [0, 0, 0], x: [1, 0, 0], up: [0, 0, -1] });
  // A quarter turn about the level line square to it: what faced up then faces along it.
  const { positions: p } = mesh;
  const turned = new Float64Array(p.length);
  for (let i = 0; i < p.length; i += 3) {
    const along = p[i]! * down[0] + p[i + 1]! * down[1];
    const across = -p[i]! * down[1] + p[i + 1]! * down[0];
    const [u, v, w] = [p[i + 2]!, across, -along];
    turned[i] = u * down[0] - v * down[1];
    turned[i + 1] = u * down[1] + v * down[0];
    turned[i + 2] = w;
  }
  return { positions: turned, triangles: mesh.triangles };
}

/** Lowered onto the bed, on one side of the middle. */
function beside(mesh: TriangleMesh, side: 'left' | 'right', y: number): TriangleMesh {
  const { min, max } = boundsOf(mesh);
  const x = side === 'left' ? -APART / 2 - max[0] : APART / 2 - min[0];
  return moved(mesh, [x, y, -min[2]]);
}

const moved = ({ positions, triangles }: TriangleMesh, by: Point3): TriangleMesh => ({
  positions: positions.map((v, i) => v + by[i % 3]!),
  triangles,
});
