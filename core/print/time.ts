import type { MeshKernel } from '../shape/kernels/kernel';
import { boundsOf, type TriangleMesh } from '../shape/mesh/mesh';
import { type Loop, polygonArea, sectionAtZ } from '../shape/mesh/section';
import { distance2, type Point2 } from '../shape/vector';
import { isInside } from '../shape/within';
import { type Columns, cellFor, columnsOf } from './columns';
import { acrossSeconds, LINK, loopSeconds, moveSeconds } from './motion';
import type { Machine, PrintSettings } from './settings';

/**
 * The time and plastic of a print, from cross-sections of the part in its pose: passes round each outline, skins above
 * and below, infill between, travel, and waiting for layers to cool. Lengths mm, times s.
 */

/**
 * Layers with equal times: how many, how long each moves at the printer's own pace, and the least time each must take.
 */
export interface LayerTime {
  count: number;
  /** Moving, s: this changes with the printer's pace. */
  motion: number;
  /** Cooling, s: this does not. */
  cooling: number;
}

export interface Estimate {
  layers: number;
  times: LayerTime[];
  /** Volume of plastic, including the links between lines, mm³. */
  plastic: number;
  /** Heating and homing, s. */
  start: number;
}

/** Uncertainty of the plastic, sd as a share. Measured on toolpaths made by the tests. */
export const PLASTIC_DOUBT = 0.03;

/** Number of sections; each stands for its neighbours. */
const SAMPLES = 40;
/** Narrower regions have no sparse infill, mm. Common practice, no source. */
const STRIP = 1.2;
/** A travel is about this share of the section's diagonal. Measured on toolpaths, see docs. */
const TRAVEL_SHARE = 0.35;
/** Chords of a region are spread around their mean by these factors, each equally often. */
const CHORDS = [0.3, 0.8, 1.2, 1.7];

/** @param mesh as it lies on the bed, mm @throws KernelError where a section cannot be made */
export function estimateOf(
  mesh: TriangleMesh,
  settings: PrintSettings,
  machine: Machine,
  kernel: Pick<MeshKernel, 'inset'>,
): Estimate {
  const { layer, firstLayer } = settings;
  const height = boundsOf(mesh).max[2];
  const layers = 1 + Math.max(0, Math.ceil((height - firstLayer) / layer - 1e-6));
  const middle = (k: number) => (k === 0 ? firstLayer / 2 : firstLayer + (k - 0.5) * layer);
  const columns = columnsOf(mesh, Math.max(0.5, cellFor(mesh)));
  let before: SectionFacts | undefined;
  const samples = samplesOf(layers).map(k => {
    const loops = sectionAtZ(mesh, Math.min(middle(k), height - 1e-4));
    // Upright walls: the same section again.
    if (!before || !sameLoops(before.loops, loops))
      before = sectionFacts(loops, settings, machine, kernel, columns);
    return { k, facts: before };
  });
  const { area, skin } = byLayer(columns, settings, layers, k => nearest(samples, k).facts.inside);
  const times: LayerTime[] = [];
  let plastic = 0;
  for (let k = 0; k < layers; k++) {
    const sample = nearest(samples, k).facts;
    const share = sample.cells > 0 ? area[k]! / sample.cells : 0;
    const cell2 = columns.cell ** 2;
    const inside = sample.rest * share;
    const solid = Math.min(inside, skin[k]! * cell2);
    const took = layerSeconds(sample, share, { inside, solid }, settings, machine, k === 0);
    plastic += took.length * settings.lineWidth * (k === 0 ? firstLayer : layer);
    const last = times.at(-1);
    const { motion, cooling } = took;
    if (last && last.motion === motion && last.cooling === cooling) last.count++;
    else times.push({ count: 1, motion, cooling });
  }
  return { layers, times, plastic, start: 60 * machine.start };
}

/** Share of a support's volume that is printed. Common practice, no source. */
const SUPPORT_SHARE = 0.15;

/** Time spent moving for supports of this volume, s. @param volume mm³ */
export const supportSeconds = (
  volume: number,
  { lineWidth, layer }: PrintSettings,
  { infill }: Machine,
): number => (SUPPORT_SHARE * volume) / (lineWidth * layer * infill);

/** With supports of this volume, mm³. */
export const withSupports = (
  estimate: Estimate,
  volume: number,
  settings: PrintSettings,
  machine: Machine,
): Estimate =>
  volume === 0
    ? estimate
    : {
        ...estimate,
        plastic: estimate.plastic + SUPPORT_SHARE * volume,
        times: [
          ...estimate.times,
          { count: 1, motion: supportSeconds(volume, settings, machine), cooling: 0 },
        ],
      };

/** This many copies at once: each layer is printed that many times, and cools meanwhile. */
export const forCopies = (estimate: Estimate, pieces: number): Estimate => ({
  ...estimate,
  plastic: pieces * estimate.plastic,
  times: estimate.times.map(t => ({ ...t, motion: pieces * t.motion })),
});

/** Different parts at once: each layer prints all parts that are high enough, and all of it cools meanwhile. */
export function together(estimates: readonly Estimate[]): Estimate {
  const layers = Math.max(0, ...estimates.map(e => e.times.reduce((sum, t) => sum + t.count, 0)));
  const motion = new Float64Array(layers);
  const cooling = new Float64Array(layers);
  for (const { times } of estimates) {
    let k = 0;
    for (const t of times)
      for (let i = 0; i < t.count; i++, k++) {
        motion[k]! += t.motion;
        cooling[k] = Math.max(cooling[k]!, t.cooling);
      }
  }
  return {
    layers: Math.max(0, ...estimates.map(e => e.layers)),
    times: Array.from(motion, (m, k) => ({ count: 1, motion: m, cooling: cooling[k]! })),
    plastic: estimates.reduce((sum, e) => sum + e.plastic, 0),
    start: Math.max(0, ...estimates.map(e => e.start)),
  };
}

/** One after the other: no cooling time is saved, and the printer heats up once. */
export const inTurn = (estimates: readonly Estimate[]): Estimate => ({
  layers: estimates.reduce((sum, e) => sum + e.layers, 0),
  times: estimates.flatMap(e => e.times),
  plastic: estimates.reduce((sum, e) => sum + e.plastic, 0),
  start: Math.max(0, ...estimates.map(e => e.start)),
});

/** As few groups of layers as may be stored with a print: each is the mean of its layers. */
export function condensed(times: readonly LayerTime[], most = 24): LayerTime[] {
  const layers = times.reduce((sum, t) => sum + t.count, 0);
  const groups: LayerTime[] = [];
  let below = 0;
  for (const t of times) {
    const group = Math.floor((most * below) / layers);
    below += t.count;
    const last = groups[group];
    if (!last) groups[group] = { ...t };
    else {
      const count = last.count + t.count;
      last.motion = (last.count * last.motion + t.count * t.motion) / count;
      last.cooling = (last.count * last.cooling + t.count * t.cooling) / count;
      last.count = count;
    }
  }
  const tidy = (x: number) => Number(x.toFixed(2));
  return groups
    .filter(Boolean)
    .map(g => ({ count: g.count, motion: tidy(g.motion), cooling: tidy(g.cooling) }));
}

/** Seconds that a print takes. @param pace how many times slower than its machine was assumed */
export const secondsAt = ({ times, start }: Pick<Estimate, 'times' | 'start'>, pace = 1): number =>
  start + times.reduce((sum, t) => sum + t.count * Math.max(pace * t.motion, t.cooling), 0);

/** How long of that it only waits for layers to cool, s. */
export const coolingSeconds = ({ times }: Pick<Estimate, 'times'>, pace = 1): number =>
  times.reduce((sum, t) => sum + t.count * Math.max(0, t.cooling - pace * t.motion), 0);

function samplesOf(layers: number): number[] {
  if (layers <= SAMPLES) return Array.from({ length: layers }, (_, k) => k);
  return Array.from({ length: SAMPLES }, (_, i) => Math.round((i * (layers - 1)) / (SAMPLES - 1)));
}

const nearest = <S extends { k: number }>(samples: readonly S[], k: number): S => {
  const share = samples.length > 1 ? k / samples.at(-1)!.k : 0;
  let i = Math.min(samples.length - 1, Math.round(share * (samples.length - 1)));
  while (i > 0 && Math.abs(samples[i - 1]!.k - k) <= Math.abs(samples[i]!.k - k)) i--;
  while (i + 1 < samples.length && Math.abs(samples[i + 1]!.k - k) < Math.abs(samples[i]!.k - k)) i++;
  return samples[i]!;
};

/** Corners closer than this are the same, mm. */
const SAME = 1e-5;

const sameLoops = (a: readonly Loop[], b: readonly Loop[]): boolean =>
  a.length === b.length &&
  a.every(
    ({ points }, i) =>
      points.length === b[i]!.points.length && points.every((p, n) => distance2(p, b[i]!.points[n]!) < SAME),
  );

interface SectionFacts {
  loops: Loop[];
  /**
   * Once round all outlines, s: in the first layer, then in the others; at the outermost pass's speed and the inner
   * ones'.
   */
  round: { outer: number; inner: number }[];
  area: number;
  perimeter: number;
  /** Inside the passes and wide enough for infill: its area, outline length, and the cells in it. */
  rest: number;
  restPerimeter: number;
  inside: Uint8Array;
  /** Inside the passes, narrower: strips that are always solid. */
  strips: number;
  stripsPerimeter: number;
  /** Narrower than a line: filled by one pass along it, of this length. */
  gaps: number;
  /** Cells of the whole section. */
  cells: number;
  islands: number;
  diagonal: number;
}

function sectionFacts(
  loops: Loop[],
  { walls, lineWidth }: PrintSettings,
  machine: Machine,
  kernel: Pick<MeshKernel, 'inset'>,
  columns: Columns,
): SectionFacts {
  const within =
    loops.length > 0
      ? kernel.inset(
          loops.map(l => l.points),
          walls * lineWidth,
        )
      : [];
  const rest: [number, number][][] = [];
  let [restArea, restPerimeter, strips, stripsPerimeter, gaps] = [0, 0, 0, 0, 0];
  for (const region of regionsOf(within)) {
    const area = region.reduce((sum, r) => sum + polygonArea(r), 0);
    const round = region.reduce((sum, r) => sum + lengthOf(r), 0);
    const width = (2 * area) / round;
    if (width < lineWidth) gaps += round / 2;
    else if (width < STRIP) {
      strips += area;
      stripsPerimeter += round;
    } else {
      rest.push(...region);
      restArea += area;
      restPerimeter += round;
    }
  }
  const box = [Infinity, Infinity, -Infinity, -Infinity] as [number, number, number, number];
  for (const { points } of loops)
    for (const [x, y] of points) {
      box[0] = Math.min(box[0], x);
      box[1] = Math.min(box[1], y);
      box[2] = Math.max(box[2], x);
      box[3] = Math.max(box[3], y);
    }
  const onceRound = (v: number) => loops.reduce((sum, l) => sum + loopSeconds(l.points, v, machine), 0);
  return {
    loops,
    round: [machine.first, Infinity].map(most => ({
      outer: onceRound(Math.min(most, machine.outer)),
      inner: onceRound(Math.min(most, machine.inner)),
    })),
    area: loops.reduce((sum, l) => sum + l.area, 0),
    perimeter: loops.reduce((sum, l) => sum + lengthOf(l.points), 0),
    rest: restArea,
    restPerimeter,
    inside: cellsIn(rest, columns).mask,
    strips,
    stripsPerimeter,
    gaps,
    cells: cellsIn(
      loops.map(l => l.points),
      columns,
    ).count,
    islands: loops.filter(l => l.area > 0).length,
    diagonal: loops.length > 0 ? Math.hypot(box[2] - box[0], box[3] - box[1]) : 0,
  };
}

/** Each outer loop with its holes. */
function regionsOf(loops: readonly [number, number][][]): [number, number][][][] {
  const outer = loops.filter(l => polygonArea(l) > 0).map(l => [l]);
  for (const hole of loops) {
    if (polygonArea(hole) > 0) continue;
    // The loop that contains it and lies in no other loop that does.
    outer
      .filter(([o]) => isInside(hole[0]!, o!))
      .sort(([a], [b]) => polygonArea(a!) - polygonArea(b!))[0]
      ?.push(hole);
  }
  return outer;
}

const lengthOf = (points: readonly Point2[]): number =>
  points.reduce((sum, p, i) => sum + distance2(p, points[(i + 1) % points.length]!), 0);

/** The cells whose centres lie within loops, without holes. */
function cellsIn(
  loops: readonly (readonly Point2[])[],
  { cell, across, deep, at }: Columns,
): { mask: Uint8Array; count: number } {
  const rows: number[][] = Array.from({ length: deep }, () => []);
  for (const points of loops)
    for (let i = 0; i < points.length; i++) {
      const [a, b] = [points[i]!, points[(i + 1) % points.length]!];
      const [low, high] = a[1] < b[1] ? [a, b] : [b, a];
      const from = Math.max(0, Math.ceil((low[1] - at[1]) / cell));
      for (let row = from; row < deep; row++) {
        const y = at[1] + row * cell;
        if (y >= high[1]) break;
        rows[row]!.push(low[0] + ((y - low[1]) / (high[1] - low[1])) * (high[0] - low[0]));
      }
    }
  const mask = new Uint8Array(across * deep);
  let count = 0;
  rows.forEach((xs, row) => {
    xs.sort((a, b) => a - b);
    for (let i = 0; i + 1 < xs.length; i += 2) {
      const from = Math.max(0, Math.ceil((xs[i]! - at[0]) / cell));
      for (let c = from; c < across && at[0] + c * cell < xs[i + 1]!; c++) {
        mask[row * across + c] = 1;
        count++;
      }
    }
  });
  return { mask, count };
}

/** By layer: cells that are solid, and cells within the passes that are skin. */
function byLayer(
  { first, height, across, deep }: Columns,
  { layer, firstLayer, top, bottom }: PrintSettings,
  layers: number,
  insideAt: (k: number) => Uint8Array,
): { area: Uint32Array; skin: Uint32Array } {
  const area = new Uint32Array(layers);
  const skin = new Uint32Array(layers);
  const masks = Array.from({ length: layers }, (_, k) => insideAt(k));
  // The first layer whose middle is at or above a height.
  const from = (z: number) =>
    z <= firstLayer / 2 ? 0 : Math.max(1, Math.ceil((z - firstLayer) / layer + 0.5));
  for (let c = 0; c < across * deep; c++)
    for (let n = first[c]!; n + 1 < first[c + 1]!; n += 2) {
      const [low, high] = [from(height[n]!), Math.min(layers, from(height[n + 1]!))];
      for (let k = low; k < high; k++) {
        area[k]!++;
        if ((k < low + bottom || k >= high - top) && masks[k]![c]) skin[k]!++;
      }
    }
  return { area, skin };
}

function layerSeconds(
  section: SectionFacts,
  share: number,
  { inside, solid }: { inside: number; solid: number },
  { walls, lineWidth, infill }: PrintSettings,
  machine: Machine,
  first: boolean,
): Omit<LayerTime, 'count'> & { length: number } {
  const { loops, perimeter, diagonal } = section;
  if (loops.length === 0 || share === 0) return { motion: 0, cooling: 0, length: 0 };
  const speed = (usual: number) => (first ? Math.min(usual, machine.first) : usual);
  // Passes fill what is left, a line's width each; the outermost runs slowest.
  const passes = (section.area - section.rest - section.strips) / lineWidth + section.gaps;
  const outermost = Math.min(perimeter, passes);
  const round = section.round[first ? 0 : 1]!;
  let motion = round.outer * (outermost / perimeter);
  motion += round.inner * (Math.max(0, passes - outermost) / perimeter);
  let length = passes;
  // Lines across a region: their number and length by Cauchy and Crofton (Santaló, Integral Geometry).
  const across = (area: number, round: number, spacing: number, v: number) => {
    if (area < 0.05) return 0;
    const lines = Math.max(1, round / (Math.PI * spacing));
    const chord = (Math.PI * area) / round;
    length += area / spacing + lines * LINK * spacing;
    const mean = CHORDS.reduce((sum, c) => sum + acrossSeconds(c * chord, v, machine), 0) / CHORDS.length;
    return lines * (mean + acrossSeconds(LINK * spacing, v, machine));
  };
  const roundOf = (area: number) => section.restPerimeter * Math.sqrt(area / section.rest);
  if (section.rest > 0.05) {
    motion += across(solid / share, roundOf(solid / share), lineWidth, speed(machine.skin));
    const sparse = (inside - solid) / share;
    if (infill > 0) motion += across(sparse, roundOf(sparse), lineWidth / infill, speed(machine.infill));
  }
  motion += across(section.strips, section.stripsPerimeter, lineWidth, speed(machine.skin));
  const travels = (loops.length - section.islands) * walls + section.islands + 1.5;
  motion += travels * (moveSeconds(TRAVEL_SHARE * diagonal, machine.travel, machine) + machine.retraction);
  motion *= share;
  length *= share;
  return { motion, cooling: Math.min(machine.leastLayer, length / machine.slowest), length };
}
