import type { Point2 } from '../shape/vector';
import { projection, ray, SX, SY, tiltOf } from './camera/camera';
import { contactsOf, type Thickness } from './contact';
import { doubtOf, placingsOf } from './doubt';
import { ALONG } from './find/edge-points';
import { placingBy, shownBy, upwards } from './outline';
import type { Picture } from './picture';
import { type Middle, type Paper, SHEETS } from './sheet/layout';
import { type Sighted, sightSheet } from './sight/sight-sheet';
import { type DrawnStroke, strokesOn } from './strokes';
import {
  type Refusal,
  refused,
  type TraceAnswer,
  type TraceProgress,
  tracePlane,
  type Weigh,
  type Weighed,
  weighed,
} from './trace-plane';

export interface PhotoAsked {
  paper: Paper;
  middle: Middle;
  /** Both bars as measured on the printed sheet, mm. */
  bars: { across: number; along: number } | null;
  /** 35 mm equivalent focal length from the file. */
  f35: number | null;
  /** How far it stands up from the sheet. */
  thickness: Thickness;
  /** A pixel of the object, where several things lie there. */
  inside: Point2 | null;
  /** How far edges may scatter about a line, mm. */
  tolerance: number;
  strokes?: readonly DrawnStroke[];
}

/** The result for a photo on the reference sheet. Lengths mm, from above, y up. */
export interface TracedPhoto extends Weighed {
  sighted: Sighted;
  thickness: Thickness;
  /** Degrees off square. */
  tilt: number;
}

/** The blank middle is used up to this far from its ring, mm. */
const INSET = 0.8;

export function tracePhoto(
  picture: Picture,
  asked: PhotoAsked,
  progress: TraceProgress = () => {},
): TraceAnswer<TracedPhoto> {
  progress('Looking for the sheet');
  const answer = sightSheet(picture, asked.paper, asked);
  if (!answer.ok) return answer;
  const { sighted } = answer;
  const { camera } = sighted;
  const no = refusalOf(sighted, asked);
  if (no) return no;
  const project = projection(camera);
  const back = ray(camera);
  const blank = SHEETS[asked.paper].blank;
  const [hx, hy] = [blank[0] * camera[SX]! - INSET, blank[1] * camera[SY]! - INSET];
  const answered = tracePlane(
    picture,
    {
      seen: (x, y) => project(x, y, 0),
      box: [-hx, -hy, hx, hy],
      middle: asked.middle,
      contacts: points => contactsOf(points, camera, asked.thickness, ALONG),
      place: placingBy(camera, asked.thickness),
      turned: upwards,
      shown: shownBy(project, asked.thickness),
      height: asked.thickness.height,
    },
    {
      inside: asked.inside && back(...asked.inside, 0),
      tolerance: asked.tolerance,
      drawn: strokesOn(asked.strokes ?? [], (u, v) => back(u, v, 0)),
    },
    progress,
  );
  if (!answered.ok) return answered;
  progress('Weighing doubts');
  const weigh: Weigh = loops =>
    doubtOf(loops, placingsOf(sighted, asked.thickness), 1 / sighted.scale, asked.thickness.height);
  return {
    ok: true,
    traced: {
      ...weighed(answered.traced, weigh),
      sighted,
      thickness: asked.thickness,
      tilt: tiltOf(camera),
    },
  };
}

/** How well corners must agree, px, and how many must: a curled sheet shows in both. Some may be covered. */
const [MOST_RMS, LEAST_USED] = [0.12, 0.75];
const [MOST_TILT, LEAST_SCALE] = [32, 3.5];
/** Without a focal length a thing may be at most this high, mm. */
const MOST_UNSAID = 3;

function refusalOf(s: Sighted, asked: PhotoAsked): Refusal | null {
  const tilt = tiltOf(s.camera);
  if (tilt > MOST_TILT)
    return refused(
      'too-oblique',
      `The photo was taken ${tilt.toFixed(0)}° off square: hold the phone flat over the sheet, within 25°.`,
    );
  if (s.scale < LEAST_SCALE)
    return refused(
      'too-small',
      `A millimetre is ${s.scale.toFixed(1)} pixels wide: go nearer until the sheet fills the picture, or take the file as the camera saved it.`,
    );
  if (s.rms > MOST_RMS || s.used < LEAST_USED * s.found)
    return refused(
      'not-flat',
      'The sheet does not lie flat, or the picture was squeezed: its corners miss where they should be. Tape its ends down, and take the file as the camera saved it.',
    );
  if (asked.f35 === null && asked.thickness.height > MOST_UNSAID)
    return refused(
      'no-focal-length',
      `The file does not say its focal length, and the object is thicker than ${MOST_UNSAID} mm: how much larger its upper edge shows cannot be told. Take the file as the camera saved it, or type the focal length in terms of 35 mm film.`,
    );
  return null;
}
