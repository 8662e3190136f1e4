import type { SurfaceForm } from '../fit/print-bias';
import type { Side, SoftSide, StandardWant } from '../fit/wants';
import type { Parameters } from './recipes/parameters';
import type { Point3 } from './vector';

/** A part's surfaces that must fit something: their sizes, and their places on the solid. */

export interface MateSpec {
  id: string;
  name: string;
  /** The object's dimension. */
  dimension: string;
  /** The parameter that carries the model number. */
  parameter: string;
  side: Side;
  want: StandardWant;
  /** Offered when the plastic is flexible. */
  flexibleWant: StandardWant;
  /** The object itself is soft, for example a hose or a boot; our plastic does not matter. */
  soft?: 'theirs';
  /** Round unless stated. */
  form?: SurfaceForm;
  /** Read by a tape around it: its size is the circle of equal girth, so that all formulas are those of a circle. */
  around?: true;
  /**
   * For a surface named by the maker: its cross-section is built up of layers as drawn. Others follow from the pose.
   */
  lying?: boolean;
  active(p: Parameters): boolean;
}

export interface MateSurface {
  mate: string;
  side: Side;
  /**
   * A thread's size is over its ridges, or over its grooves for a nut. A span is the whole loop from end to end; a
   * girth is the diameter of a circle with the length of the loop.
   */
  kind: 'round' | 'flats' | 'thread' | 'span' | 'girth';
  /** Diameter, or width across the flats, as drawn. */
  size: number;
  /** A point midway along it, where a section across `axis` shows the mating loop; on the axis of a round one. */
  at: Point3;
  axis: Point3;
  /** The direction in which a width across flats, or a span, is measured; only for these. */
  across?: Point3;
  /** For a tapered round one: how much its radius grows per mm along the axis; its size is at `at`. */
  taper?: number;
  /** Round, but divided by slots where it is measured. */
  parted?: true;
  /** For a thread: its minor diameter. */
  core?: number;
  /** Flats around the axis: 2 unless it is a polygon. */
  flats?: number;
  /** Extent along the axis: from and to are positions along it, from the origin. */
  from: number;
  to: number;
  /** For a thread: the hand that it must have. */
  hand?: 'right' | 'left';
}

/** Which side of a mate gives, with a plastic that is flexible or not. */
export const softSideOf = (spec: Pick<MateSpec, 'soft'>, flexible: boolean): SoftSide =>
  spec.soft ?? (flexible ? 'ours' : 'none');
