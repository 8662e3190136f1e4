import type { Outline } from '../kernels/kernel';
import { pointsOf } from '../outline';
import {
  type AS_DRAWN,
  type DrawDimension,
  type Drawing,
  type DrawPoint,
  type DrawShape,
  frameOf,
} from './drawing';

/**
 * A drawing under construction: shapes in mm, then its dimensions, then the sheet's frame. K are the keys of the
 * parameters, mates or dimensions that it shows.
 */
export class Draft<K extends string = string> {
  readonly shapes: DrawShape<K>[] = [];
  readonly dimensions: DrawDimension<K>[] = [];

  /** A cut face, hatched. */
  cut(shape: Outline | readonly DrawPoint[]): this {
    return this.put('cut', shape);
  }
  /** An edge seen beyond the cut, filled with the sheet's colour: it hides what was drawn before. */
  edge(shape: Outline | readonly DrawPoint[]): this {
    return this.put('edge', shape);
  }
  ghost(shape: Outline | readonly DrawPoint[]): this {
    return this.put('ghost', shape);
  }
  /** Each part of a mating surface is its own line. */
  mate(key: K, ...lines: (readonly DrawPoint[])[]): this {
    for (const points of lines) this.shapes.push({ ink: 'mate', key, points });
    return this;
  }
  /** Both sides of a bore or an outside cut along its axis, at equal distances from it. */
  walls(key: K, radius: number, [from, to]: readonly [number, number]): this {
    const wall = (x: number): DrawPoint[] => [
      [x, from],
      [x, to],
    ];
    return this.mate(key, wall(-radius), wall(radius));
  }
  /** A closed mating line, such as a bore seen along its axis. */
  mateLoop(key: K, shape: Outline): this {
    this.shapes.push({ ink: 'mate', key, points: pointsOf(shape), closed: true });
    return this;
  }
  centre(from: DrawPoint, to: DrawPoint): this {
    this.shapes.push({ ink: 'centre', points: [from, to] });
    return this;
  }
  across(
    key: K | typeof AS_DRAWN,
    label: string,
    x: readonly [number, number],
    y: number,
    line: number,
    diameter = false,
  ): this {
    this.dimensions.push({ key, label, from: [x[0], y], to: [x[1], y], line, direction: 'across', diameter });
    return this;
  }
  up(key: K | typeof AS_DRAWN, label: string, x: number, y: readonly [number, number], line: number): this {
    this.dimensions.push({ key, label, from: [x, y[0]], to: [x, y[1]], line, direction: 'up' });
    return this;
  }
  /** A dimension between two points, with its line through both. */
  along(key: K | typeof AS_DRAWN, label: string, from: DrawPoint, to: DrawPoint, diameter = false): this {
    this.dimensions.push({ key, label, from, to, line: 0, direction: 'along', diameter });
    return this;
  }
  done(title: string): Drawing<K> {
    const { shapes, dimensions } = this;
    return { title, shapes, dimensions, frame: frameOf(shapes, dimensions, 2) };
  }

  private put(ink: DrawShape['ink'], shape: Outline | readonly DrawPoint[]): this {
    const points = 'edges' in shape ? pointsOf(shape) : shape;
    this.shapes.push({ ink, points, closed: true });
    return this;
  }
}

/** A rectangle by its corners, for shapes of drawings. */
export const box = (x0: number, y0: number, x1: number, y1: number): DrawPoint[] => [
  [x0, y0],
  [x1, y0],
  [x1, y1],
  [x0, y1],
];
