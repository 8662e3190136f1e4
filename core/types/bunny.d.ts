declare module 'bunny' {
  /** x, y, z of each corner. */
  export const positions: [number, number, number][];
  /** Three corners of each triangle. */
  export const cells: [number, number, number][];
}
