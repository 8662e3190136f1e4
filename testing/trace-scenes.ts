import type { PhotoScene } from '../core/bench/camera';
import { FlatObject } from '../core/bench/flat-object';
import { type FlatThing, laid } from '../core/bench/flat-thing';
import { heldCamera } from '../core/bench/held-camera';
import { gauss, seeded } from '../core/bench/random';
import type { Point2 } from '../core/shape/vector';
import { SX, SY } from '../core/trace/camera/camera';

export const THINGS: Record<string, FlatThing> = {
  plate: {
    outer: '-40, -25 round 6; 40, -25 round 6; 40, 25; -40, 25 round 10',
    holes: [
      { at: [-28, -13], diameter: 6.4 },
      { at: [28, -13], diameter: 6.4 },
      { at: [10, 8], diameter: 14 },
    ],
  },
  bracket: {
    outer: '-30, -40; 30, -40; 30, -18 round 5; -8, -18 round 4; -8, 40 round 3; -30, 40 round 3',
    holes: [
      { at: [-19, 30], diameter: 8 },
      { at: [-19, 0], diameter: 8 },
      { at: [18, -29], diameter: 10 },
    ],
  },
  wedge: { outer: '-35, -20; 35, -20; 22, 24; -12, 24', holes: [{ at: [0, 0], diameter: 16 }] },
  tongue: { outer: '-45, -12; 25, -12; 25, 12 via 37, 0; -45, 12', holes: [{ at: [22, 0], diameter: 9 }] },
};

export const COLOURS = {
  black: [0.035, 0.035, 0.04],
  dark: [0.09, 0.08, 0.07],
  blue: [0.04, 0.1, 0.3],
  red: [0.35, 0.05, 0.04],
  grey: [0.28, 0.28, 0.28],
} as const;

export interface Shot {
  scene: PhotoScene;
  thing: FlatThing;
  turn: number;
  at: Point2;
  thickness: number;
  colour: keyof typeof COLOURS;
}

/** A shot that anyone might take: everything by its seed. */
export function ordinaryShot(
  seed: number,
  given: Partial<Pick<Shot, 'thing' | 'thickness' | 'colour'> & { size: Point2 }> = {},
): Shot {
  const random = seeded(1000 + seed);
  const between = (a: number, b: number) => a + (b - a) * random();
  const names = Object.keys(THINGS);
  const thing = given.thing ?? THINGS[names[seed % names.length]!]!;
  const thickness = given.thickness ?? [0.8, 2, 3, 5, 8, 12][Math.floor(between(0, 6))]!;
  const colour = given.colour ?? (['black', 'dark', 'blue', 'red'] as const)[Math.floor(between(0, 4))]!;
  const [width, height] = given.size ?? [2250, 3000];
  const camera = heldCamera(width, height, {
    high: between(430, 500),
    tilt: between(1, 20),
    way: between(0, 360),
    turn: gauss(random, 0, 4),
    at: [between(-10, 10), between(-10, 10)],
    lens: [gauss(random, 0.04, 0.05), gauss(random, -0.02, 0.02)],
  });
  camera[SX] = gauss(random, 1, 0.004);
  camera[SY] = camera[SX]! * gauss(random, 1, 0.002);
  const turn = between(0, 360);
  const at: Point2 = [between(-15, 15), between(-40, 40)];
  const scene: PhotoScene = {
    width,
    height,
    camera,
    paper: 'a4',
    middle: 'white',
    object: new FlatObject(laid(thing, turn, at), thickness, between(0.05, 0.25)),
    colour: COLOURS[colour],
    table: [0.3, 0.22, 0.15],
    uneven: [between(-0.25, 0.25), between(-0.25, 0.25)],
    lamp: { at: [between(-300, 300), between(-300, 300)], height: 900, wide: 250, share: between(0.3, 0.6) },
    blur: between(0.7, 1.2),
    noise: 0.008,
    lift: 0,
    seed,
  };
  return { scene, thing, turn, at, thickness, colour };
}
