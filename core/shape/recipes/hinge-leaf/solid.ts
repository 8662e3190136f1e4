import type { Body, PartKernel } from '../../kernels/kernel';
import { circle, rectangle } from '../../outline';
import type { P } from './parameters';
import {
  ALONG,
  holesAt,
  leafOutline,
  lugOutline,
  onSecond,
  type Sizes,
  secondOutline,
  sizesOf,
} from './sizes';

/** Room behind the barrel where the other leaf's knuckles turn. */
const TURNING = 0.4;

export function solid(p: P, kernel: PartKernel): Body {
  const s = sizesOf(p);
  let body = s.base ? lug(s, kernel) : leaf(s, kernel);
  body = kernel.cut(body, kernel.extrude(circle([0, s.axis], s.pin), -s.long / 2 - 1, s.long + 2, ALONG));
  const holes = holesAt(s).map(at => circle(at, s.screw));
  if (holes.length > 0) body = kernel.cut(body, kernel.extrudeAll(holes, -1, s.plate + 2));
  return body;
}

function lug(s: Sizes, kernel: PartKernel): Body {
  const { long, wide } = s.base!;
  const eye = kernel.extrude(lugOutline(s), -s.long / 2, s.long, ALONG);
  if (wide <= s.long + 1e-6) return eye;
  return kernel.fuse(eye, kernel.extrude(rectangle(-long / 2, -wide / 2, long / 2, wide / 2), 0, s.plate));
}

function leaf(s: Sizes, kernel: PartKernel): Body {
  let body = kernel.extrude(leafOutline(s), -s.long / 2, s.long, ALONG);
  if (s.second) {
    body = kernel.fuse(body, kernel.extrude(secondOutline(s), -s.long / 2, s.long, ALONG));
    for (let i = 0; i < s.holes; i++) {
      const y = s.long * ((i + 0.5) / s.holes - 0.5);
      const frame = onSecond(s, (s.barrel + s.second.reach) / 2, y);
      body = kernel.cut(body, kernel.extrude(circle([0, 0], s.screw), -1, s.plate + 2, frame));
    }
  }
  if (s.knuckles) {
    const far = s.barrel + TURNING;
    for (const [i, [, to]] of s.knuckles.at.slice(0, -1).entries()) {
      const next = s.knuckles.at[i + 1]![0];
      const room = rectangle(-far - 1, to, far, next);
      body = kernel.cut(body, kernel.extrude(room, -1, s.axis + s.barrel + 2));
    }
  }
  return body;
}
