import type { Thread } from '../shelf/threads/thread';
import type { Body, PartKernel } from './kernels/kernel';
import type { TriangleMesh } from './mesh/mesh';
import { placedMesh } from './mesh/placed';
import { circle } from './outline';
import { BED, type Frame } from './vector';

/** Drawn this far off its standard it is another thread, mm: more than a want and a printer together ever ask for. */
export const OFF_STANDARD = 1.5;

/**
 * Threads as triangles: exact helices are slow in a B-rep kernel and sometimes silently lost. Lengths mm, angles
 * degrees; the axis is z, and the thread runs up from `from` to `to` and slightly beyond both.
 */
export interface ThreadForm {
  /** Over the ridges and between them. */
  major: number;
  minor: number;
  pitch: number;
  starts: number;
  hand: 'right' | 'left';
  /** Width of a ridge at its foot, along the axis. */
  foot: number;
  /** Between the flanks. */
  flankAngle: number;
  /** Of crest and root, radius; left out, both are flat with sharp corners. */
  rounding?: number;
  from: number;
  to: number;
}

/** Along the axis at the ridge's crest. */
export const crestOf = ({ major, minor, foot, flankAngle }: ThreadForm): number =>
  foot - (major - minor) * Math.tan(((flankAngle / 2) * Math.PI) / 180);

/**
 * A standard thread's basic profile, with the asked size over its ridges: moved outwards or inwards as a whole. On its
 * pitch line ridge and groove are half a pitch wide each.
 */
export function basicForm(
  standard: Pick<Thread, 'major' | 'minorInternal' | 'pitchDiameter' | 'pitch' | 'flankAngle'>,
  major: number,
): Omit<ThreadForm, 'hand' | 'from' | 'to'> {
  const { pitch, flankAngle } = standard;
  const below = standard.pitchDiameter - standard.minorInternal;
  return {
    major,
    minor: major - (standard.major - standard.minorInternal),
    pitch,
    starts: 1,
    foot: pitch / 2 + below * Math.tan(((flankAngle / 2) * Math.PI) / 180),
    flankAngle,
  };
}

/** The largest radius of crest and root: its arcs just meet on the crest, in the root, or on the flank. */
export function mostRounding(form: ThreadForm): number {
  const { major, minor, pitch, foot, flankAngle } = form;
  const half = ((flankAngle / 2) * Math.PI) / 180;
  const flats = Math.min(crestOf(form), pitch - foot) / 2;
  const flank = (major - minor) / 4 / Math.cos(half);
  // A tiny flat remains between two arcs: coincident points make triangles without area.
  return (0.98 * Math.min(flats, flank)) / Math.tan(cornerTurn(flankAngle) / 2);
}

/** How far the outline turns at each corner, from flat to flank, radians. */
const cornerTurn = (flankAngle: number): number => Math.PI / 2 - ((flankAngle / 2) * Math.PI) / 180;

/** Chords of a rounded corner. */
const ROUND_STEPS = 4;

/** One turn of the outline in (z, r), upwards: four corners, each rounded where asked. */
function profileOf(form: ThreadForm): { z: number; r: number }[] {
  const { major, minor, foot, flankAngle, rounding = 0 } = form;
  const crest = crestOf(form);
  const flank = (foot - crest) / 2;
  const sharp = [
    { z: 0, r: minor / 2 },
    { z: flank, r: major / 2 },
    { z: flank + crest, r: major / 2 },
    { z: foot, r: minor / 2 },
  ];
  if (rounding <= 0) return sharp;
  if (rounding > mostRounding(form) + 1e-9)
    throw new RangeError('The rounding does not fit on the ridge: make it smaller.');
  const turn = cornerTurn(flankAngle);
  const reach = rounding * Math.tan(turn / 2);
  return sharp.flatMap((corner, i) => {
    const crestSide = i === 1 || i === 2;
    // Root to flank and flank to root turn outwards; both crest corners turn inwards.
    const middle = {
      z: corner.z + (i === 0 || i === 2 ? -reach : reach),
      r: corner.r + (crestSide ? -rounding : rounding),
    };
    const begins = i === 0 || i === 2 ? 0 : turn;
    const ends = turn - begins;
    return Array.from({ length: ROUND_STEPS + 1 }, (_, k) => {
      const a = begins + ((ends - begins) * k) / ROUND_STEPS;
      const side = i === 0 || i === 2 ? 1 : -1;
      return {
        z: middle.z + side * rounding * Math.sin(a),
        r: middle.r + (crestSide ? 1 : -1) * rounding * Math.cos(a),
      };
    });
  });
}

/** No coarser than this, or a small thread would be a prism; no finer, or a large one would take for ever. */
const SIDES = { least: 48, most: 720 };

/**
 * A threaded rod, closed. Its flats are half inside and half outside the true surface, so that a section measures its
 * number to half of `sagitta`.
 * @throws RangeError for a thread without a ridge
 */
export function threadMesh(form: ThreadForm, sagitta: number): TriangleMesh {
  const { major, minor, pitch, starts, hand, foot, from, to } = form;
  const crest = crestOf(form);
  if (!(major > minor && minor > 0))
    throw new RangeError('A thread’s major diameter lies above its minor one.');
  if (!(crest > 0 && foot < pitch && starts >= 1))
    throw new RangeError('The ridge does not fit in its pitch: a smaller foot, or steeper flanks.');
  const wish = Math.PI / Math.acos(1 - Math.min(sagitta, major / 4) / (major / 2));
  const sides = Math.min(SIDES.most, Math.max(SIDES.least, Math.ceil(wish)));
  const grow = (1 / Math.cos(Math.PI / sides) + 1) / 2;
  const profile = profileOf(form).map(({ z, r }) => ({ z, r: r * grow }));
  const lead = pitch * starts;
  const turn = hand === 'right' ? 1 : -1;
  // Every column begins low enough and ends high enough, whichever way it is shifted.
  const low = from - 2 * lead;
  const pitches = Math.ceil((to - from + 4 * lead) / pitch);
  const rows = profile.length * pitches;
  const perLead = profile.length * starts;
  const positions: number[] = [];
  for (let i = 0; i < sides; i++) {
    const angle = (2 * Math.PI * i) / sides;
    const shift = turn * lead * (i / sides);
    for (let j = 0; j < rows; j++) {
      const { z, r } = profile[j % profile.length]!;
      positions.push(
        r * Math.cos(angle),
        r * Math.sin(angle),
        low + Math.floor(j / profile.length) * pitch + z + shift,
      );
    }
  }
  const at = (i: number, j: number) => i * rows + j;
  const triangles: number[] = [];
  const quad = (a: number, b: number, c: number, d: number) => triangles.push(a, b, c, a, c, d);
  for (let i = 0; i < sides - 1; i++)
    for (let j = 0; j < rows - 1; j++) quad(at(i, j), at(i + 1, j), at(i + 1, j + 1), at(i, j + 1));
  // Once around, a column has climbed (or fallen) by the lead: it meets the first one that many rows on.
  const last = sides - 1;
  const step = turn * perLead;
  for (let j = Math.max(0, -step); j + 1 < rows - Math.max(0, step); j++)
    quad(at(last, j), at(0, j + step), at(0, j + step + 1), at(last, j + 1));
  const heights = positions.filter((_, k) => k % 3 === 2);
  const bottom = positions.push(0, 0, Math.min(...boundsOf(heights)) - 1) / 3 - 1;
  const top = positions.push(0, 0, Math.max(...boundsOf(heights)) + 1) / 3 - 1;
  cap(bottomLoop(), bottom, false);
  cap(topLoop(), top, true);
  return { positions: Float64Array.from(positions), triangles: Uint32Array.from(triangles) };

  function cap(loop: number[], centre: number, upwards: boolean): void {
    loop.forEach((a, k) => {
      const b = loop[(k + 1) % loop.length]!;
      if (upwards) triangles.push(centre, a, b);
      else triangles.push(centre, b, a);
    });
  }

  /** The lower rim counter-clockwise from above, with the seam's free column. */
  function bottomLoop(): number[] {
    const around = Array.from({ length: sides }, (_, i) => at(i, 0));
    if (step > 0) return [...around, ...Array.from({ length: step }, (_, k) => at(0, step - k))];
    return [...around.slice(0, -1), ...Array.from({ length: -step + 1 }, (_, k) => at(last, k))];
  }

  function topLoop(): number[] {
    const end = rows - 1;
    const around = Array.from({ length: sides }, (_, i) => at(i, end));
    if (step > 0)
      return [...around.slice(0, -1), ...Array.from({ length: step + 1 }, (_, k) => at(last, end - k))];
    return [...around, ...Array.from({ length: -step }, (_, k) => at(0, end + step + k))];
  }
}

/** Minimum and maximum, without spreading a long list over a call. */
function boundsOf(values: readonly number[]): [number, number] {
  let [least, most] = [Infinity, -Infinity];
  for (const v of values) {
    least = Math.min(least, v);
    most = Math.max(most, v);
  }
  return [least, most];
}

/** The thread as a body between `from` and `to` along a frame's way up, square at both ends. */
export function threadBody(form: ThreadForm, kernel: PartKernel, frame: Frame = BED): Body {
  const { major, pitch, starts, from, to } = form;
  const beyond = 4 * pitch * starts + 4 * pitch + 4;
  const slab = (z: number) => kernel.extrude(circle([0, 0], major), z, beyond, frame);
  const long = kernel.ofTriangles(sagitta => placedMesh(threadMesh(form, sagitta), frame));
  return kernel.cut(kernel.cut(long, slab(to)), slab(from - beyond));
}
