import type { Body, PartKernel } from '../../kernels/kernel';
import { circle, polyline, rectangle } from '../../outline';
import { keyed, type Places } from '../define-recipe';
import { holeName, type Mate, type P, SIZES } from './parameters';
import { frameOf, type Place, reachOf, type Sizes, sizesOf, veeDepth, wholeRing } from './sizes';

export function solid(p: P, kernel: PartKernel): Body {
  const s = sizesOf(p);
  const corners = Math.min(4, s.depth / 4, s.width / 4);
  const block = kernel.extrude(
    rectangle(-s.width / 2, -s.depth / 2, s.width / 2, s.depth / 2, corners),
    0,
    s.height,
  );
  return s.places.reduce(
    (body, place) => (s.vee ? withVee(body, s, place, kernel) : withHole(body, s, place, kernel)),
    block,
  );
}

function withHole(body: Body, s: Sizes, place: Place, kernel: PartKernel): Body {
  const { step: to, floor } = reachOf(s, place);
  const above = place.radius * Math.hypot(place.right, place.back) + 1;
  const frame = frameOf(s, place);
  const wide = s.blade > 0 ? to : floor;
  const bored = kernel.cut(body, kernel.extrude(circle([0, 0], place.radius), -above, wide + above, frame));
  if (s.blade === 0) return bored;
  return kernel.cut(bored, kernel.extrude(circle([0, 0], s.blade), wide - 0.5, floor - wide + 0.5, frame));
}

function withVee(body: Body, s: Sizes, place: Place, kernel: PartKernel): Body {
  const deep = veeDepth(place);
  const wide = deep + 1;
  // From the back to the front, outlines in (x, up).
  const frame = { at: [place.x, s.depth / 2 + 1, s.height - deep], x: [1, 0, 0], up: [0, -1, 0] } as const;
  const groove = polyline([
    [0, 0],
    [wide, wide],
    [-wide, wide],
  ]);
  return kernel.cut(body, kernel.extrude(groove, 0, s.depth + 2, frame));
}

/** The first hole of each size. */
export function places(p: P): Places<Mate> {
  const s = sizesOf(p);
  return keyed(
    SIZES.map(size => {
      const place = s.vee ? undefined : s.places.find(q => q.mate === holeName(size));
      return [holeName(size), place ? surfaceOf(s, place) : null] as const;
    }),
  );
}

function surfaceOf(s: Sizes, place: Place) {
  const { at, up } = frameOf(s, place);
  const axis = [-up[0], -up[1], -up[2]] as const;
  const [near, far] = wholeRing(s, place);
  const middle = (near + far) / 2;
  const along = at[0] * axis[0] + at[1] * axis[1] + at[2] * axis[2];
  return {
    kind: 'round' as const,
    at: [at[0] + middle * up[0], at[1] + middle * up[1], at[2] + middle * up[2]] as const,
    axis,
    from: along - far,
    to: along - near,
  };
}
