import type { Body, Outline, PartKernel } from '../../kernels/kernel';
import { circle, Path, polyline, rectangle } from '../../outline';
import type { Point2 } from '../../vector';
import type { Places, SurfacePlace } from '../define-recipe';
import { has, type P, slottedWall } from './parameters';

/**
 * Frame: the axis is z. The end is on the bed with its outer face at z = 0; skirt and plug rise from its inner face and
 * open upwards. Outlines are (radius, height).
 */

/** Lead of a lip towards the mouth, run per rise: 60° to the axis would scrape, 30° slides. */
const LEAD_RUN = Math.sqrt(3);
/** Behind the lip: 45°, which prints without support and still holds. */
const HOLD_RUN = 1;
/** The same as angles against the axis. */
export const LIP_SLOPES = { leads: 30, holds: 45 };
/** A tab as thick as the end never reaches into the cavity. */
export const tabThickness = (p: P) => p.endThickness;

export interface CapSizes {
  skirt?: { inner: number; outer: number; top: number };
  plug?: { outer: number; inner: number; top: number };
  /** Cut from the mouth down through one wall, between two radii. */
  slots?: { count: number; from: number; width: number; inner: number; outer: number; mouth: number };
  /** Flat on the bed, out along −x: where its ring is, and its radii. */
  strap?: { at: number; hole: number; outer: number; half: number; thickness: number };
  /** Radius and heights of the snap lip: hold slope from..low, flat low..high, lead high..lead. */
  ridge?: { radius: number; from: number; low: number; high: number; lead: number };
  end: number;
  /** Radius of the end disc. */
  rim: number;
  leadIn: number;
  fillet: number;
}

/** Radii and heights that follow from the parameters. */
export function sizesOf(p: P): CapSizes {
  const end = p.endThickness;
  const sizes: CapSizes = { end, rim: 0, leadIn: p.leadIn, fillet: p.outerFillet };
  if (has.skirt(p)) {
    const inner = p.skirtDiameter / 2;
    const outer = inner + p.wall;
    sizes.skirt = { inner, outer, top: end + p.skirtDepth };
    sizes.rim = outer;
  } else {
    sizes.rim = p.endDiameter / 2;
  }
  if (has.plug(p)) {
    const outer = p.plugDiameter / 2;
    const wall = p.plugWall;
    sizes.plug = {
      outer,
      inner: wall > 0 ? Math.max(0, outer - wall) : 0,
      top: end + p.plugDepth,
    };
  }
  if (has.ridge(p)) {
    const radius = (has.lip(p) ? p.lipDiameter : p.beadDiameter) / 2;
    const height = Math.abs(radius - (has.lip(p) ? sizes.skirt!.inner : sizes.plug!.outer));
    const low = end + p.lipFrom;
    const high = low + p.lipWidth;
    sizes.ridge = { radius, from: low - HOLD_RUN * height, low, high, lead: high + LEAD_RUN * height };
  }
  if (has.slots(p)) sizes.slots = slotsOf(p, sizes);
  if (has.strap(p)) {
    const hole = p.ringDiameter / 2;
    const width = p.strapWidth;
    const outer = hole + width;
    sizes.strap = {
      at: -(sizes.rim + p.strapLength + outer),
      hole,
      outer,
      half: width / 2,
      thickness: p.strapThickness,
    };
  }
  return sizes;
}

/** Cuts slightly beyond both faces of the wall and what stands out from it. */
const BEYOND = 0.3;

function slotsOf(p: P, s: CapSizes): CapSizes['slots'] {
  const wall = slottedWall(p) === 'skirt' ? s.skirt : s.plug;
  if (!wall) return undefined;
  const ridge = s.ridge?.radius ?? wall.outer;
  if (has.lipSlots(p) && s.ridge) {
    const inward = has.lip(p);
    const face = inward ? wall.inner : wall.outer;
    return {
      count: p.slots,
      from: s.ridge.from - BEYOND,
      width: p.slotWidth,
      // With its corners on the wall's face: the wall itself is not touched.
      inner: inward ? ridge - BEYOND : face,
      outer: inward ? Math.sqrt(Math.max(0, face ** 2 - (p.slotWidth / 2) ** 2)) : ridge + BEYOND,
      mouth: s.ridge.lead,
    };
  }
  return {
    count: p.slots,
    from: wall.top - p.slotDepth,
    width: p.slotWidth,
    inner: Math.min(wall.inner, ridge) - BEYOND,
    outer: Math.max(wall.outer, ridge) + BEYOND,
    mouth: wall.top,
  };
}

/** Seen from above, all about the axis; a tab, at 0°, has an uncut piece of wall behind it. */
export function slotOutlines({ count, width, inner, outer }: NonNullable<CapSizes['slots']>): Outline[] {
  return Array.from({ length: count }, (_, i) => {
    const a = (2 * Math.PI * (i + 0.5)) / count;
    const at = (r: number, off: number): Point2 => [
      r * Math.cos(a) - off * Math.sin(a),
      r * Math.sin(a) + off * Math.cos(a),
    ];
    return polyline([
      at(inner, -width / 2),
      at(outer, -width / 2),
      at(outer, width / 2),
      at(inner, width / 2),
    ]);
  });
}

function withStrap(
  body: Body,
  { at, hole, outer, half, thickness }: NonNullable<CapSizes['strap']>,
  rim: number,
  kernel: PartKernel,
): Body {
  // It begins inside the end and ends inside the ring.
  const strip = rectangle(at + (hole + outer) / 2, -half, -0.5 * rim, half);
  const all = kernel.fuse(
    kernel.fuse(body, kernel.extrude(strip, 0, thickness)),
    kernel.extrude(circle([at, 0], outer), 0, thickness),
  );
  return kernel.cut(all, kernel.extrude(circle([at, 0], hole), -1, thickness + 2));
}

/** The section through one half, counter-clockwise from the centre of the outer face. */
export function capOutline(p: P): Outline {
  const s = sizesOf(p);
  const path = new Path([0, 0]);
  path.to([s.rim - s.fillet, 0]);
  path.arc([s.rim, s.fillet], [s.rim - s.fillet * (1 - Math.SQRT1_2), s.fillet * (1 - Math.SQRT1_2)]);
  if (s.skirt) {
    const { inner, outer, top } = s.skirt;
    path
      .to([outer, top])
      .to([inner + s.leadIn, top])
      .to([inner, top - s.leadIn]);
    if (s.ridge && has.lip(p)) {
      const { radius, from, low, high, lead } = s.ridge;
      path.to([inner, lead]).to([radius, high]).to([radius, low]).to([inner, from]);
    }
    path.to([inner, s.end]);
  } else {
    path.to([s.rim, s.end]);
  }
  if (s.plug) {
    const { outer, inner, top } = s.plug;
    path.to([outer, s.end]);
    if (s.ridge && has.bead(p)) {
      const { radius, from, low, high, lead } = s.ridge;
      path.to([outer, from]).to([radius, low]).to([radius, high]).to([outer, lead]);
    }
    path.to([outer, top - s.leadIn]).to([outer - s.leadIn, top]);
    path.to([inner, top]);
    if (inner > 0) path.to([inner, s.end]).to([0, s.end]);
  } else {
    path.to([0, s.end]);
  }
  return path.close();
}

/** The pull tab seen from above: from inside the end disc out along +x, with a round end. */
export function tabOutline(p: P): Outline {
  const s = sizesOf(p);
  const half = p.tabWidth / 2;
  const tip = s.rim + p.tabLength;
  return new Path([0, -half])
    .to([tip - half, -half])
    .arc([tip - half, half], [tip, 0])
    .to([0, half])
    .close();
}

export function capSolid(p: P, kernel: PartKernel): Body {
  const s = sizesOf(p);
  let body = kernel.revolve(capOutline(p));
  if (has.tab(p)) body = kernel.fuse(body, kernel.extrude(tabOutline(p), 0, tabThickness(p)));
  if (s.strap) body = withStrap(body, s.strap, s.rim, kernel);
  if (s.slots)
    body = kernel.cut(
      body,
      kernel.extrudeAll(slotOutlines(s.slots), s.slots.from, s.slots.mouth - s.slots.from + 1),
    );
  return body;
}

export type Mate = 'skirt' | 'lip' | 'plug' | 'bead' | 'ring';

export function places(p: P): Places<Mate> {
  const s = sizesOf(p);
  const { skirt, plug, ridge, strap } = s;
  const at = (wall: 'skirt' | 'plug', [from, to]: readonly [number, number]): SurfacePlace => {
    const slotted =
      s.slots !== undefined && has.wallSlots(p) && slottedWall(p) === wall ? s.slots.from : Infinity;
    // Measured where it is whole, if it is whole anywhere.
    const middle = (from + (slotted > from + 0.4 ? Math.min(to, slotted) : to)) / 2;
    const parted = middle > slotted ? { parted: true as const } : {};
    return { kind: 'round', at: [0, 0, middle], axis: [0, 0, 1], ...parted, from, to };
  };
  const lipParted = has.lipSlots(p) ? { parted: true as const } : {};
  return {
    skirt: skirt ? at('skirt', longer([s.end, skirt.top - s.leadIn], has.lip(p) ? ridge : undefined)) : null,
    plug: plug ? at('plug', longer([s.end, plug.top - s.leadIn], has.bead(p) ? ridge : undefined)) : null,
    lip: ridge && has.lip(p) ? { ...at('skirt', [ridge.low, ridge.high]), ...lipParted } : null,
    bead: ridge && has.bead(p) ? { ...at('plug', [ridge.low, ridge.high]), ...lipParted } : null,
    ring: strap
      ? {
          kind: 'round',
          at: [strap.at, 0, strap.thickness / 2],
          axis: [0, 0, 1],
          from: 0,
          to: strap.thickness,
        }
      : null,
  };
}

/** A ridge divides a wall in two: the longer stretch is measured. */
function longer(wall: [number, number], ridge: CapSizes['ridge']): [number, number] {
  if (!ridge) return wall;
  const below: [number, number] = [wall[0], ridge.from];
  const above: [number, number] = [ridge.lead, wall[1]];
  return above[1] - above[0] > below[1] - below[0] ? above : below;
}
