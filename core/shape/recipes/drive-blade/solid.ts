import type { Body, PartKernel } from '../../kernels/kernel';
import { circle, Path, polygon, rectangle } from '../../outline';
import type { P } from './parameters';
import { type Prism, sizesOf } from './sizes';

/** Sections in series overlap by this. */
const INTO = 0.5;

const across = ({ sides, thick, wide }: Pick<Prism, 'sides' | 'thick' | 'wide'>) =>
  sides === 6 ? polygon(6, thick) : rectangle(-wide / 2, -thick / 2, wide / 2, thick / 2);

export function solid(p: P, kernel: PartKernel): Body {
  const s = sizesOf(p);
  const { shank, step, fork, rib } = s;
  // The round sections are one outline, turned: the end of the last one is under the tip, or is the fork.
  const round = step ?? shank;
  const end = fork ? fork.to : round.to;
  const low = s.head ? shank.from - INTO : shank.from;
  const path = new Path([0, low]).to([shank.r + shank.cone, low]);
  path.to([shank.r + shank.cone, shank.from]).to([shank.r, shank.from + shank.cone]);
  if (step) path.to([shank.r, shank.to]).to([step.r, shank.to]);
  let body = kernel.revolve(path.to([round.r, end]).to([0, end]).close());
  if (s.head) {
    const outline = s.head.hex ? polygon(6, s.head.across) : circle([0, 0], s.head.across / 2);
    body = kernel.fuse(kernel.extrude(outline, 0, s.head.to), body);
  }
  if (s.other) body = kernel.fuse(body, kernel.extrude(across(s.other), 0, s.other.to + INTO));
  if (s.tip) {
    const { from, to } = s.tip;
    body = kernel.fuse(body, kernel.extrude(across(s.tip), from - INTO, to - from + INTO));
  }
  if (rib) {
    const bar = rectangle(0, -rib.wide / 2, shank.r + rib.out, rib.wide / 2);
    body = kernel.fuse(body, kernel.extrude(bar, rib.from, rib.to - rib.from));
  }
  if (fork) {
    const far = round.r + 1;
    const slot = rectangle(-far, -fork.slot / 2, far, fork.slot / 2);
    body = kernel.cut(body, kernel.extrude(slot, fork.from, fork.to - fork.from + 1));
  }
  if (s.socket) {
    const { sides, deep, long } = s.socket;
    const hole = across({ sides, thick: s.socket.across, wide: sides === 2 ? long : s.socket.across });
    body = kernel.cut(body, kernel.extrude(hole, -1, deep + 1));
  }
  return body;
}
