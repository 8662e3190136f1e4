import type { DrawPoint } from './drawing';

const ROUND = 48;

/** About the origin, by its half widths. */
export const ellipse = (x: number, y: number): DrawPoint[] =>
  Array.from({ length: ROUND }, (_, i): DrawPoint => {
    const a = (2 * Math.PI * i) / ROUND;
    return [x * Math.cos(a), y * Math.sin(a)];
  });
