import type { TriangleMesh } from '../shape/mesh/mesh';
import { lathe } from './lathe';

/**
 * The object of a practice job as a scanner sees it, built from the sizes that the practice caliper reads. Lengths mm.
 */

type Sizes = Readonly<Record<string, number>>;
type Section = readonly (readonly [number, number])[];

/** A turned body needs some width on its axis. */
const AXIS = 0.01;

const tube = (outside: number, bore: number, long: number): Section => [
  [Math.max(AXIS, bore / 2), 0],
  [outside / 2, 0],
  [outside / 2, long],
  [Math.max(AXIS, bore / 2), long],
];

/** On its piece of deck, as seen from outside. */
function ventPort(s: Sizes): Section {
  const half = (name: string) => s[name]! / 2;
  const top = 3 + s.rim_height!;
  const groove = top - s.groove_from!;
  const low = groove - s.groove_width!;
  const deck = half('rim') + 17;
  return [
    [half('bore'), 0],
    [deck, 0],
    [deck, 3],
    [half('rim'), 3],
    [half('rim'), low],
    [half('groove'), low],
    [half('groove'), groove],
    [half('rim'), groove],
    [half('rim'), top],
    [half('bore'), top],
  ];
}

/** A hexagon is turned with six corners. */
const hexagon = (flats: number, long: number): TriangleMesh =>
  lathe(tube((2 * flats) / Math.sqrt(3), 0, long), 6);

const PARTS = 48;

/** Thickest in its middle. */
function pebble({ length, width, high }: Sizes): TriangleMesh {
  const round = lathe(
    Array.from({ length: PARTS + 1 }, (_, i): [number, number] => {
      const a = Math.PI * (i / PARTS - 0.5);
      return [Math.max(AXIS, Math.cos(a)), Math.sin(a)];
    }),
  );
  const half = [length! / 2, width! / 2, high! / 2];
  return { positions: round.positions.map((x, i) => x * half[i % 3]!), triangles: round.triangles };
}

/** Round to 0.02 mm on what calipers take. */
const AROUND = 96;

/** Its lines are divided so that triangles are about as high as wide: slivers make a scan slow. */
const turned = (section: (s: Sizes) => Section) => (s: Sizes) => {
  const line = section(s);
  const step = (2 * Math.PI * Math.max(...line.map(([r]) => r))) / AROUND;
  const parted = line.flatMap(([r, z], i): [number, number][] => {
    const [next, high] = line[(i + 1) % line.length]!;
    const pieces = Math.max(1, Math.round(Math.hypot(next - r, high - z) / step));
    return Array.from({ length: pieces }, (_, k) => [
      r + (k / pieces) * (next - r),
      z + (k / pieces) * (high - z),
    ]);
  });
  return lathe(parted, AROUND);
};

/** By recipe: those whose object is in one piece and described by its sizes. */
const OBJECTS: Readonly<Record<string, (s: Sizes) => TriangleMesh>> = {
  'round-cap': turned(ventPort),
  'tube-adapter': turned(s => tube(s.tube_a!, 0.85 * s.tube_a!, 1.2 * s.tube_a!)),
  'tube-clip': turned(s => tube(s.tube!, 0.85 * s.tube!, 2 * s.tube!)),
  bush: turned(s => tube(s.seat! + 16, s.seat!, 20)),
  'stepped-sleeve': turned(s => tube(s.bore! + 12, s.bore!, s.bore_depth!)),
  'board-tray': turned(s => tube(s.tube! + 5, s.tube!, 70)),
  'tool-block': turned(s => tube(s.tool!, 0, 5 * s.tool!)),
  'socket-knob': s => hexagon(s.flats!, s.flats!),
  recess: pebble,
  'contour-foot': s => pebble({ length: 8 * s.rise!, width: 6 * s.rise!, high: 2 * s.rise! }),
};

/** Null where there is none. */
export const objectOf = (recipe: string, sizes: Sizes): TriangleMesh | null =>
  OBJECTS[recipe]?.(sizes) ?? null;
