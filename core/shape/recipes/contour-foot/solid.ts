import { type Body, KernelError, type Kernels, type PartKernel } from '../../kernels/kernel';
import { circle, rectangle } from '../../outline';
import { holesOfText } from '../../outline-text';
import type { Point3 } from '../../vector';
import type { Places } from '../define-recipe';
import { isPosts, type P } from './parameters';
import { gaugeOf, halvesOf, outlinesOf, overhead, type Sizes, sizesOf } from './sizes';

/** Bodies reach this far into the body they are joined to. */
const INTO = 0.4;

export function solid(p: P, kernel: PartKernel, { mesh, models }: Kernels): Body {
  const s = sizesOf(p, models);
  if (!s) throw new KernelError('No surface is over the foot: move it, or take the surface’s file in again');
  const columns = columnsOf(p, s, kernel);
  const cut = kernel.cut(
    columns,
    kernel.ofTriangles(sagitta => overhead(p, s, mesh, sagitta).tool),
  );
  return withHoles(p, s, p.plate > 0 ? kernel.fuse(plateOf(p, kernel), cut) : cut, kernel);
}

/** Taller than the surface: the surface cuts their tops off. */
function columnsOf(p: P, s: Sizes, kernel: PartKernel): Body {
  const from = isPosts(p) ? p.plate - INTO : 0;
  const top = s.highest + 0.5;
  const [first, ...others] = outlinesOf(p).map(outline => kernel.extrude(outline, from, top - from));
  return others.reduce((body, other) => kernel.fuse(body, other), first!);
}

function plateOf(p: P, kernel: PartKernel): Body {
  const [x, y] = halvesOf(p);
  const { beyond } = p;
  const outline =
    p.form === 'round'
      ? circle([0, 0], x + beyond)
      : rectangle(-x - beyond, -y - beyond, x + beyond, y + beyond, Math.min(p.corner + beyond, x, y));
  return kernel.extrude(outline, 0, p.plate);
}

/** Through everything, along one way. */
function withHoles(p: P, s: Sizes, body: Body, kernel: PartKernel): Body {
  const [u, v] = [p.leanRight, p.leanBack].map(a => Math.tan((a * Math.PI) / 180)) as [number, number];
  const long = Math.hypot(u, v, 1);
  const up: Point3 = [u / long, v / long, 1 / long];
  const flat = Math.hypot(1, u);
  const x: Point3 = [1 / flat, 0, -u / flat];
  // From the bed to the highest place, along its lean, and the same again for the slant of its end.
  const high = (s.highest + 2) * long + Math.max(0, ...holesOfText(p.holes).map(h => h.diameter)) * long;
  return holesOfText(p.holes).reduce(
    (made, h) =>
      kernel.cut(
        made,
        kernel.extrude(circle([0, 0], h.diameter / 2), -high, 2 * high, { at: [h.x, h.y, 0], x, up }),
      ),
    body,
  );
}

export function places(p: P): Places<'height'> {
  const [x, y] = gaugeOf(p);
  return {
    height: {
      kind: 'flats',
      axis: [1, 0, 0],
      across: [0, 0, 1],
      at: [x, y, p.height / 2],
      from: x - 0.5,
      to: x + 0.5,
    },
  };
}
