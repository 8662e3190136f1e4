import type { Models } from '../../kernels/kernel';
import { type Body, KernelError, type Kernels, type PartKernel } from '../../kernels/kernel';
import type { TriangleMesh } from '../../mesh/mesh';
import { sectionAtZ } from '../../mesh/section';
import { circle, Path, rectangle } from '../../outline';
import type { Places } from '../define-recipe';
import type { P } from './parameters';
import { cavity, type Sizes, sizesOf, wallAround } from './sizes';

export function solid(p: P, kernel: PartKernel, { mesh, models }: Kernels): Body {
  const s = sizesOf(p, models);
  if (!s) throw new KernelError('The object’s file is not at hand: take it in again');
  const plain = withMount(p, s, around(p, s, kernel, mesh), kernel);
  let body = kernel.cut(
    plain,
    kernel.ofTriangles(sagitta => cavity(p, s, mesh, sagitta)),
  );
  for (const notch of fingerRooms(p, s, kernel)) body = kernel.cut(body, notch);
  if (p.drain > 0) {
    const [x, y] = lowestOf(s.object.mesh);
    body = kernel.cut(body, kernel.extrude(circle([x, y], p.drain / 2), -1, s.under + 2));
  }
  return body;
}

/** The recess is widest at its mouth. */
const halfAcross = (p: P, s: Sizes): number => {
  const lean = p.form === 'block' ? p.mouth + p.sunk * Math.tan((p.draft * Math.PI) / 180) : 0;
  return Math.max(s.back, -s.front) + s.room + lean + p.edge;
};

/** How far from the middle the part reaches, to the right and to the back. */
const halvesOf = (p: P, s: Sizes): [number, number] =>
  p.form === 'block'
    ? [p.long / 2, halfAcross(p, s)]
    : [s.object.size[0] / 2 + s.room + p.edge, halfAcross(p, s)];

function around(p: P, s: Sizes, kernel: PartKernel, mesh: Kernels['mesh']): Body {
  const [x, y] = halvesOf(p, s);
  if (p.form === 'block') return kernel.extrude(rectangle(-x, -y, x, y, Math.min(4, p.edge)), 0, s.mouth);
  if (p.form === 'plate')
    return kernel.ofTriangles(sagitta => {
      const loops = sectionAtZ(wallAround(p, s, mesh, sagitta), s.mouth).map(loop => loop.points);
      return mesh.extrude(loops, s.mouth);
    });
  const far = 2 * (x + y + s.mouth);
  const walls = kernel.ofTriangles(sagitta => wallAround(p, s, mesh, sagitta));
  return kernel.cut(
    kernel.cut(walls, kernel.extrude(rectangle(-far, -far, far, far), s.mouth, far)),
    kernel.extrude(rectangle(-far, -far, far, far), -far, far),
  );
}

function withMount(p: P, s: Sizes, body: Body, kernel: PartKernel): Body {
  if (p.mount === 'none') return body;
  const [x, y] = halvesOf(p, s);
  const hole = circle([0, 0], p.screw / 2);
  if (p.mount === 'ears') {
    const out = x + 3 * p.screw;
    const bar = rectangle(-out, -1.5 * p.screw, out, 1.5 * p.screw, 1.4 * p.screw);
    const eared = kernel.fuse(body, kernel.extrude(bar, 0, p.plate));
    return [-1, 1].reduce(
      (made, side) =>
        kernel.cut(
          made,
          kernel.extrude(hole, -1, p.plate + 2, {
            at: [side * (x + 1.5 * p.screw), 0, 0],
            x: [1, 0, 0],
            up: [0, 0, 1],
          }),
        ),
      eared,
    );
  }
  const half = 4 * p.screw;
  const high = s.mouth + 4 * p.screw;
  // Drawn in (to the right, up), towards the back; it overlaps the wall in front of it.
  const from = { at: [0, y - p.edge / 2, 0], x: [1, 0, 0], up: [0, 1, 0] } as const;
  const outline = new Path([-half, 0]).to([half, 0]).to([half, -high]).to([-half, -high]).close();
  const backed = kernel.fuse(body, kernel.extrude(outline, 0, p.plate + p.edge / 2, from));
  return [-1, 1].reduce(
    (made, side) =>
      kernel.cut(
        made,
        kernel.extrude(hole, -1, p.plate + p.edge / 2 + 2, {
          ...from,
          at: [side * 2.4 * p.screw, y - p.edge / 2, s.mouth + 2 * p.screw],
        }),
      ),
    backed,
  );
}

/** Notches through the walls at the ends, round at the bottom. */
function fingerRooms(p: P, s: Sizes, kernel: PartKernel): Body[] {
  if (p.fingers === 'none') return [];
  const [x] = halvesOf(p, s);
  const half = p.finger / 2;
  const round = Math.min(half, p.fingerDeep);
  const bottom = s.mouth - p.fingerDeep;
  const middle = (s.front + s.back) / 2;
  // In (to the back, up): a frame that faces right.
  const outline = rectangle(middle - half, bottom, middle + half, s.mouth + round + 2, round);
  // In as far as the object's end, and through the wall.
  const inner = Math.min(s.object.size[0] / 2, x) - 0.6 * half;
  const long = x - inner + 4 * p.screw + p.edge;
  const sides = p.fingers === 'ends' ? [-1, 1] : [p.fingers === 'left' ? -1 : 1];
  return sides.map(side =>
    kernel.extrude(outline, side > 0 ? inner : -inner - long, long, {
      at: [0, 0, 0],
      x: [0, 1, 0],
      up: [1, 0, 0],
    }),
  );
}

function lowestOf({ positions: p }: TriangleMesh): [number, number] {
  let at = 0;
  for (let v = 0; v < p.length; v += 3) if (p[v + 2]! < p[at + 2]!) at = v;
  return [p[at]!, p[at + 1]!];
}

export function places(p: P, models?: Models): Places<'opening'> {
  const s = sizesOf(p, models);
  const common = { kind: 'span', axis: [0, 0, 1], across: [0, 1, 0] } as const;
  if (!s) {
    const [from, to] = [p.floor, p.floor + p.sunk];
    return { opening: { ...common, at: [0, 0, (from + to) / 2], from, to } };
  }
  return {
    opening: {
      ...common,
      at: [0, (s.front + s.back) / 2, s.widest],
      from: s.widest,
      to: s.mouth - p.mouth,
    },
  };
}
