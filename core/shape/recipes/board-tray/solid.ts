import type { Body, PartKernel } from '../../kernels/kernel';
import { circle, Path, rectangle } from '../../outline';
import type { P } from './parameters';
import { chordAt, postFrame, profileOf, type Sizes, sizesOf, topOf } from './sizes';

/** Bodies reach this far into the body they are joined to. */
const INTO = 0.4;

export function solid(p: P, kernel: PartKernel): Body {
  const s = sizesOf(p);
  let body = kernel.extrude(profileOf(s), 0, s.long);
  // An end wall stops the board; a hole in it takes cables.
  if (s.endWall > 0) {
    const top = topOf(s);
    const x = chordAt(s, top);
    const disc = new Path([-x, top]).arc([x, top], [0, -s.radius]).close();
    body = kernel.fuse(body, kernel.extrude(disc, 0, s.endWall));
  }
  if (s.opening > 0)
    body = kernel.cut(
      body,
      kernel.extrude(rectangle(-s.opening, s.seat - 1, s.opening, s.radius), -1, s.endWall + 2),
    );
  if (s.posts)
    for (const at of s.posts.at) {
      const frame = postFrame(s, at);
      const high = s.seat - s.well;
      body = kernel.fuse(body, kernel.extrude(circle([0, 0], s.posts.radius), -INTO, high + INTO, frame));
      body = kernel.cut(body, kernel.extrude(circle([0, 0], s.posts.pilot), 0.4, high + 1, frame));
    }
  if (s.slots)
    for (const z of s.slots.at) {
      const { half, long } = s.slots;
      const slot = kernel.extrude(rectangle(-half, -s.radius - 1, half, s.well + 0.3), z - long / 2, long);
      body = kernel.cut(body, slot);
    }
  return s.tab ? kernel.fuse(body, tongue(s, s.tab, kernel)) : body;
}

/** On the floor of the well, reaching beyond its end, with a hole for a finger or a cord. */
function tongue(s: Sizes, { half, long, thick, hole }: NonNullable<Sizes['tab']>, kernel: PartKernel): Body {
  const bar = kernel.extrude(rectangle(-half, s.well - thick, half, s.well), s.long - 3, long + 3);
  const frame = postFrame(s, [0, s.long + long - 2 * hole]);
  return kernel.cut(bar, kernel.extrude(circle([0, 0], hole), -thick - 1, thick + 2, frame));
}
