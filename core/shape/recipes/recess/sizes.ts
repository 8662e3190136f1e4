import type { MeshKernel, Models } from '../../kernels/kernel';
import { type LaidObject, laidObject, type WidthProfile, widthsOf } from '../../laid-object';
import { cellFor, roomOf, wayUp } from '../../level-set/room';
import type { TriangleMesh } from '../../mesh/mesh';
import { sectionAtZ } from '../../mesh/section';
import type { P } from './parameters';

/**
 * A recess in which an object lies and from which it comes straight up: everything the object sweeps on its way is left
 * open, with clearance all round. The bed is z = 0; the centre of the object's box is above the origin. Lengths mm.
 */
export interface Sizes {
  object: LaidObject;
  /** Clearance on every side; below 0 where the opening is narrower than the object. */
  room: number;
  /** Height of the object's underside. */
  under: number;
  mouth: number;
  /** Width of the object, where it is widest inside the recess. */
  front: number;
  back: number;
  /** The height of that place. */
  widest: number;
}

/** A thinner wall of an open block would not hold, mm: common practice, no source. */
export const LEAST_WALL = 0.8;

/** A block may hold only the middle of an object. */
export const asideOf = (p: P): number => (p.form === 'block' ? p.long / 2 : Infinity);

/** Null where the object is not at hand. */
export function sizesOf(p: P, models?: Models): Sizes | null {
  const object = laidObject(p, models);
  if (!object) return null;
  const { room, front, back, at } = gaugeOf(p, widthsOf(object, asideOf(p)));
  const under = p.floor + Math.max(0, room);
  return { object, room, under, mouth: under + p.sunk, front, back, widest: under + at };
}

interface Gauge {
  room: number;
  front: number;
  back: number;
  at: number;
}

/** At the level of the mouth there is no section to measure, mm. */
const BELOW_MOUTH = 0.3;
/** As a share of the depth: nobody measures farther down. */
const LEAST_UP = 0.3;
/** Widths that differ by less are equal, mm. */
const ALIKE = 0.005;
/** A smaller step of the object, as a share of the clearance or of the remaining height, does not count. */
const STEPS_OUT = 0.5;

/**
 * Where the recess is measured, and the clearance that gives it the asked width there: as high up as the object is
 * widest, but not where a step of the object, smaller than the clearance above it, makes the recess wider.
 */
function gaugeOf(p: P, { step, front, back }: WidthProfile): Gauge {
  const last = front.length - 1;
  const top = Math.min(last, Math.floor((p.sunk - p.mouth - BELOW_MOUTH) / step));
  let lowest: Gauge | undefined;
  for (let k = Math.max(1, top); k >= Math.max(1, LEAST_UP * top); k--) {
    let first = k;
    while (first > 0 && front[first - 1]! < front[k]! + ALIKE && back[first - 1]! > back[k]! - ALIKE) first--;
    const wide = back[k]! - front[k]!;
    const gauge = { room: (p.opening - wide) / 2, front: front[k]!, back: back[k]!, at: first * step };
    if (gauge.room <= 0) return gauge;
    const span = (room: number) => spanAt(first, room, step, front, back);
    if (span(gauge.room) < p.opening + STEPS_OUT * gauge.room) {
      let [low, high] = [0, gauge.room];
      for (let round = 0; round < 30; round++) {
        const middle = (low + high) / 2;
        if (span(middle) < p.opening) low = middle;
        else high = middle;
      }
      return { ...gauge, room: high };
    }
    lowest = gauge;
    k = first;
  }
  return lowest ?? { room: p.opening / 2, front: 0, back: 0, at: 0 };
}

/** The extent from front to back of everything nearer than `room` to what the object sweeps up to a height. */
function spanAt(k: number, room: number, step: number, front: Float64Array, back: Float64Array): number {
  let [low, high] = [Infinity, -Infinity];
  for (let i = k; i < front.length && (i - k) * step <= room; i++) {
    const reach = Math.sqrt(room ** 2 - ((i - k) * step) ** 2);
    low = Math.min(low, front[i]! - reach);
    high = Math.max(high, back[i]! + reach);
  }
  return high - low;
}

/** Beyond the asked value the clearance is rounded up in steps, so that a small change reuses the same space. */
const stepped = (room: number) => Math.ceil(2 * room) / 2;

function space(p: P, { object: { size } }: Sizes, reach: number, cell: number) {
  const draught = p.sunk * Math.tan((p.draft * Math.PI) / 180);
  const out = reach + draught + 2 * cell;
  const half = [0, 1].map(i => size[i]! / 2 + out);
  const open = p.form === 'block' ? Math.min(half[0]!, p.long / 2 + 2 * cell) : half[0]!;
  return {
    min: [-open, -half[1]!, -reach - 2 * cell] as const,
    max: [open, half[1]!, p.sunk + 2 * cell] as const,
    draft: p.draft,
    reach,
    cell,
  };
}

const raised = ({ positions, triangles }: TriangleMesh, by: number): TriangleMesh => ({
  positions: positions.map((x, i) => (i % 3 === 2 ? x + by : x)),
  triangles,
});

const cellOf = ({ object: { size }, room }: Sizes, sagitta: number) =>
  cellFor(Math.max(...size), room, sagitta);

/** The body that is cut away for the object. @param sagitta how far a flat may be from its true surface */
export function cavity(p: P, s: Sizes, kernel: MeshKernel, sagitta: number): TriangleMesh {
  const swept = wayUp(s.object, space(p, s, stepped(s.room) + p.mouth, cellOf(s, sagitta)));
  const tool = roomOf(swept, s.room, kernel, p.mouth > 0 ? p.sunk - p.mouth : Infinity);
  // The grid is off by a few thousandths: the width that must fit is drawn exactly as asked.
  const ys = sectionAtZ(tool, s.widest - s.under)
    .flatMap(loop => loop.points)
    .filter(([x]) => Math.abs(x) <= asideOf(p))
    .map(([, y]) => y);
  const [low, high] = [Math.min(...ys), Math.max(...ys)];
  const stretch = p.opening / (high - low);
  const [middle, drawn] = [(s.front + s.back) / 2, (low + high) / 2];
  const placed = raised(tool, s.under);
  return {
    positions: placed.positions.map((x, i) => (i % 3 === 1 ? middle + stretch * (x - drawn) : x)),
    triangles: placed.triangles,
  };
}

/** The object with its clearance and a wall around it, up to any height. */
export function wallAround(p: P, s: Sizes, kernel: MeshKernel, sagitta: number): TriangleMesh {
  const reach = stepped(s.room) + p.edge;
  // No mate is on the outside: it is sampled half as finely.
  const swept = wayUp(s.object, space(p, s, reach, 2 * cellOf(s, sagitta)));
  return raised(roomOf(swept, s.room + p.edge, kernel), s.under);
}
