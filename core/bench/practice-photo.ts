import type { Point2 } from '../shape/vector';
import { SX, SY } from '../trace/camera/camera';
import type { Picture } from '../trace/picture';
import { BAR } from '../trace/sheet/layout';
import { photographed } from './camera';
import { FlatObject } from './flat-object';
import { type FlatThing, laid } from './flat-thing';
import { heldCamera } from './held-camera';
import { gauss, seeded, seedOf } from './random';
import type { World } from './world';

/** A photo of a job's hidden object on the sheet, with the readings a maker takes along with it. Lengths mm. */
export interface PracticePhoto {
  picture: Picture;
  /** Read by caliper. */
  thickness: number;
  bars: { across: number; along: number };
  f35: number;
}

/** Half of a phone's pixels in each direction: a practice photo is drawn in seconds. */
const SIZE: Point2 = [1500, 2000];
const F35 = 50;
/** Scatter of the hand that closes the caliper on a bar, sd. */
const HAND = 0.03;

type Sizes = Readonly<Record<string, number>>;

/** The flat face of a recipe's object; null where it has none that can lie on a sheet. */
function flatFace(recipe: string, s: Sizes): { thing: FlatThing; thickness: number } | null {
  const round = (outside: number, bore: number, thickness: number) => {
    const r = outside / 2;
    return {
      thing: {
        outer: `${-r}, 0; ${r}, 0 via 0, ${-r}; ${-r}, 0 via 0, ${r}`,
        holes: bore > 0 ? [{ at: [0, 0] as const, diameter: bore }] : [],
      },
      thickness,
    };
  };
  if (recipe === 'profile-part' && s.seat_width && s.seat_height) {
    const [half, high] = [s.seat_width / 2, s.seat_height / 2];
    const [low, shoulder] = [-high, 6 - high];
    return {
      thing: {
        outer: `${-half}, ${low}; ${half}, ${low}; ${half}, ${shoulder}; ${-half}, ${shoulder} via 0, ${high}`,
        holes: [{ at: [0, 11 - high], diameter: 4.2 }],
      },
      thickness: 3,
    };
  }
  // Rings lie flat: their faces are what a cap, a sleeve or a bush fits.
  if (s.rim && s.bore) return round(s.rim, s.bore, 4);
  if (s.outside && s.bore) return round(s.outside, s.bore, 4);
  return null;
}

/** @param count the number of photos taken before @returns null where the object has no flat face */
export function practicePhoto(
  recipe: string,
  { sizes, seed }: World,
  count: number,
  size: Point2 = SIZE,
): PracticePhoto | null {
  const face = flatFace(recipe, sizes);
  if (!face) return null;
  const random = seeded(seedOf('photo', seed, count));
  const between = (a: number, b: number) => a + (b - a) * random();
  const [width, height] = size;
  const camera = heldCamera(width, height, {
    f35: F35,
    high: between(430, 480),
    tilt: between(3, 14),
    way: between(0, 360),
    turn: gauss(random, 0, 3),
    at: [between(-8, 8), between(-8, 8)],
    lens: [gauss(random, 0.03, 0.04), gauss(random, -0.02, 0.02)],
  });
  // Belongs to one printer, whatever it prints.
  const printer = seeded(seedOf('sheet printer'));
  camera[SX] = gauss(printer, 0.994, 0.003);
  camera[SY] = gauss(printer, 0.991, 0.003);
  const object = new FlatObject(
    laid(face.thing, between(-40, 40), [between(-12, 12), between(-25, 25)]),
    face.thickness,
    0.12,
  );
  const picture = photographed({
    width,
    height,
    camera,
    paper: 'a4',
    middle: 'white',
    object,
    colour: [0.07, 0.1, 0.16],
    table: [0.36, 0.26, 0.17],
    uneven: [between(-0.2, 0.2), between(-0.2, 0.2)],
    lamp: { at: [between(-250, 250), between(-250, 250)], height: 1000, wide: 350, share: 0.4 },
    blur: 0.8,
    noise: 0.007,
    lift: 0,
    seed: seedOf('noise', seed, count),
  });
  const read = (true_: number) => Number((true_ + gauss(random, 0, HAND)).toFixed(2));
  return {
    picture,
    thickness: read(face.thickness),
    bars: { across: read(BAR * camera[SX]!), along: read(BAR * camera[SY]!) },
    f35: F35,
  };
}
