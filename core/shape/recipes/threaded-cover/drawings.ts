import { box, Draft } from '../../drawing/draft';
import type { DrawPoint } from '../../drawing/drawing';
import { crestOf, type ThreadForm } from '../../thread';
import type { Measured } from '../define-recipe';
import type { Asked } from './guide';
import type { P } from './parameters';
import { isCoupler, isPlug, type Mate, type Sizes, sizesOf } from './sizes';

type Drawn = keyof P | Mate;

/** More turns than this cannot be told apart on paper: a plain line is drawn. */
const MOST_TURNS = 60;

/** One side of a section: the thread's teeth in (radius, height), starting at the seam. */
function teeth({ major, minor, pitch, foot, from, to }: ThreadForm, crest: number): DrawPoint[] {
  const points: DrawPoint[] = [[minor / 2, from]];
  const flank = (foot - crest) / 2;
  const drawn = pitch > 0 && foot > 0 && (to - from) / pitch <= MOST_TURNS;
  for (let z = from + pitch * 0.2; drawn && z + foot < to; z += pitch)
    points.push(
      [minor / 2, z],
      [major / 2, z + flank],
      [major / 2, z + flank + crest],
      [minor / 2, z + foot],
    );
  points.push([minor / 2, to]);
  return points;
}

const flip = (points: readonly DrawPoint[], sign: number): DrawPoint[] =>
  points.map(([x, y]) => [sign * x, y]);

const lineOf = (thread: ThreadForm) => teeth(thread, Math.max(0.1, crestOf(thread)));

/** Around one half of the section, from the foot of the first thread. */
function wallOf(s: Sizes, plug: boolean): DrawPoint[] {
  const line = lineOf(s.thread);
  const inner = s.through / 2;
  if (plug) return [...line, [inner, s.top], [inner, 0], [s.outer, 0], [s.outer, s.floor]];
  const outside: DrawPoint[] = [
    [s.outer, s.top],
    [s.outer, 0],
  ];
  if (s.second) {
    const { to } = s.second;
    return [...line, ...outside, ...lineOf(s.second), [inner, to], [inner, s.floor]];
  }
  const end: DrawPoint[] =
    s.floor > 0
      ? [
          [0, 0],
          [0, s.floor],
        ]
      : [[s.thread.minor / 2, 0]];
  return [...line, ...outside, ...end];
}

export function drawing(p: P) {
  const s = sizesOf(p);
  const main = isPlug(p) ? 'plug' : 'cover';
  const draft = new Draft<Drawn>();
  for (const sign of [-1, 1]) {
    draft.cut(flip(wallOf(s, isPlug(p)), sign));
    draft.mate(main, flip(lineOf(s.thread), sign));
    if (s.second) draft.mate('coverB', flip(lineOf(s.second), sign));
  }
  draft.centre([0, -3], [0, s.top + 3]);
  const gap = Math.max(5, s.outer / 4);
  const r = s.thread.major / 2;
  draft.across(main, isPlug(p) ? 'over ridges' : 'over grooves', [-r, r], s.top, s.top + gap, true);
  draft.up('length', 'thread', s.outer, [s.floor, s.top], s.outer + gap);
  if (s.second) {
    const rb = s.second.major / 2;
    draft.across('coverB', 'B, over grooves', [-rb, rb], 0, -gap, true);
    draft.up('lengthB', 'thread B', s.outer, [0, s.second.to], s.outer + gap);
  }
  return draft.done('Cut through the thread, its end on the bed');
}

export function objectDrawing(measured: Measured<Asked>, p: P) {
  const inside = isPlug(p);
  const major = measured[inside ? 'socket' : 'neck'] ?? (inside ? 100 : 108);
  const pitch = measured.pitch ?? 13;
  const ridge = measured.ridge_height ?? 3.5;
  const high = measured.neck_height ?? 2.4 * pitch;
  const form: ThreadForm = {
    major,
    minor: Math.max(1, major - 2 * ridge),
    pitch,
    starts: 1,
    hand: 'right',
    foot: pitch * 0.5,
    flankAngle: 40,
    from: 0,
    to: high,
  };
  const line = teeth(form, pitch * 0.25);
  const back = inside ? major / 2 + 6 : form.minor / 2 - 4;
  const draft = new Draft<Asked>();
  const key = inside ? 'socket' : 'neck';
  for (const sign of [-1, 1]) {
    const points: DrawPoint[] = [...line, [back, high], [back, 0]];
    draft.cut(points.map(([x, y]): DrawPoint => [sign * x, y]));
    draft.mate(
      key,
      line.map(([x, y]): DrawPoint => [sign * x, y]),
    );
  }
  draft.cut(box(-major * 0.62, -8, major * 0.62, 0));
  draft.centre([0, -12], [0, high + 8]);
  draft.across(key, inside ? 'over grooves' : 'over ridges', [-major / 2, major / 2], high, high + 8, true);
  draft.up('neck_height', 'height', -major / 2, [0, high], -major / 2 - 10);
  draft.up('pitch', 'pitch', major / 2, [pitch * 0.2, pitch * 1.2], major / 2 + 8);
  draft.across('ridge_height', 'ridge', [form.minor / 2, major / 2], 0, -16);
  if (isCoupler(p)) {
    // The second neck beside the first, by its outside and pitch.
    const [b, pitchB] = [measured.neck_b ?? 60, measured.pitch_b ?? 6];
    const x = major * 0.62 + 30 + b / 2;
    const second: ThreadForm = {
      ...form,
      major: b,
      minor: b - 3,
      pitch: pitchB,
      foot: pitchB / 2,
      to: 3.4 * pitchB,
    };
    for (const sign of [-1, 1]) {
      const side = teeth(second, pitchB * 0.25).map(([px, py]): DrawPoint => [x + sign * px, py]);
      const inner = x + sign * (b / 2 - 5);
      draft.cut([...side, [inner, second.to], [inner, 0]]);
      draft.mate('neck_b', side);
    }
    draft.across('neck_b', 'B, over ridges', [x - b / 2, x + b / 2], second.to, second.to + 8, true);
    draft.up('pitch_b', 'B, pitch', x + b / 2, [pitchB * 0.2, pitchB * 1.2], x + b / 2 + 8);
  }
  return draft.done('Cut through the neck');
}
