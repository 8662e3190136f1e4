import { Draft } from '../../drawing/draft';
import type { DrawPoint } from '../../drawing/drawing';
import { circle } from '../../outline';
import type { Measured } from '../define-recipe';
import type { Asked } from './guide';
import type { P } from './parameters';
import { hasKnuckles, isLug, leafOutline, lugOutline, type Mate, secondOutline, sizesOf } from './sizes';

type Drawn = keyof P | Mate;

export function drawing(p: P) {
  const s = sizesOf(p);
  const draft = new Draft<Drawn>().cut(s.base ? lugOutline(s) : leafOutline(s));
  if (s.second) draft.cut(secondOutline(s));
  draft.edge(circle([0, s.axis], s.pin)).mateLoop('pin', circle([0, s.axis], s.pin));
  draft.across('pin', 'pin', [-s.pin, s.pin], s.axis, s.axis + s.barrel + 5, true);
  if (s.base) {
    draft.across('baseLong', 'base', [-s.base.long / 2, s.base.long / 2], 0, -6);
    draft.up('pinHeight', 'pin', s.pin, [0, s.axis], s.base.long / 2 + 6);
  } else {
    draft.across('reach', 'reach', [0, s.reach], 0, -6);
    draft.up('plate', 'plate', s.reach, [0, s.plate], s.reach + 5);
  }
  if (s.knuckles) {
    // Along the pin, from above, under the section.
    const y = -14 - 2 * s.barrel;
    const loops = s.knuckles.at.map(([from, to]): DrawPoint[] => [
      [from, y],
      [to, y],
      [to, y - 2 * s.barrel],
      [from, y - 2 * s.barrel],
    ]);
    for (const loop of loops) draft.edge(loop);
    const [from, to] = [s.knuckles.at[0]![1], s.knuckles.at[1]![0]];
    draft.mate(
      'gap',
      [
        [from, y],
        [from, y - 2 * s.barrel],
      ],
      [
        [to, y],
        [to, y - 2 * s.barrel],
      ],
    );
    draft.across('gap', 'gap', [from, to], y - 2 * s.barrel, y - 2 * s.barrel - 6);
  }
  return draft.done('From the end of the pin');
}

export function objectDrawing(measured: Measured<Asked>, p: P) {
  const pin = (measured.pin ?? 5) / 2;
  const wide = measured.between ?? 30;
  const centre = isLug(p) ? (measured.pin_height ?? 22) : 4 * pin;
  const draft = new Draft<Asked>().cut(circle([0, centre], pin)).mateLoop('pin', circle([0, centre], pin));
  draft.across('pin', 'pin', [-pin, pin], centre, centre + 3 * pin + 3, true);
  if (isLug(p)) {
    draft.cut([
      [-6 * pin, -3],
      [6 * pin, -3],
      [6 * pin, 0],
      [-6 * pin, 0],
    ]);
    draft.up('pin_height', 'height', -pin, [0, centre], -6 * pin - 5);
  }
  // From the side: the two lugs of the object with the gap that the leaf fills.
  const x = 8 * pin + 4;
  for (const at of [x, x + wide + 5])
    draft.cut([
      [at, 0],
      [at + 5, 0],
      [at + 5, 8 * pin],
      [at, 8 * pin],
    ]);
  draft.across('between', 'between lugs', [x + 5, x + 5 + wide], 0, -6);
  const screw = (measured.screw ?? 4) / 2;
  const sx = x + wide + 18;
  draft.cut([
    [sx - screw, 0],
    [sx + screw, 0],
    [sx + screw, 14],
    [sx - screw, 14],
  ]);
  draft.across('screw', 'screw', [sx - screw, sx + screw], 14, 19, true);
  if (hasKnuckles(p)) {
    const k = (measured.knuckle ?? 8) / 2;
    const kx = sx + screw + 16 + k;
    draft.cut([
      [kx - k, 0],
      [kx + k, 0],
      [kx + k, 4 * pin],
      [kx - k, 4 * pin],
    ]);
    draft.mate(
      'knuckle',
      [
        [kx - k, 0],
        [kx - k, 4 * pin],
      ],
      [
        [kx + k, 0],
        [kx + k, 4 * pin],
      ],
    );
    draft.across('knuckle', 'knuckle', [kx - k, kx + k], 4 * pin, 4 * pin + 6);
  }
  return draft.done('The pin, what it sits between, and the screw');
}
