import type { Point3 } from '../../core/shape/vector';

/** Half the length of each of its arms, mm. */
const ARM = 3;

/** A cross at a place, as one line. */
export const crossAt = ([x, y, z]: Point3): Float32Array =>
  Float32Array.from(
    [
      [x - ARM, y, z],
      [x + ARM, y, z],
      [x, y, z],
      [x, y - ARM, z],
      [x, y + ARM, z],
      [x, y, z],
      [x, y, z - ARM],
      [x, y, z + ARM],
    ].flat(),
  );
