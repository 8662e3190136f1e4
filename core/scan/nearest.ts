/** Points in space in a k-d tree (Bentley 1975): finds the nearest one to a place, no farther than a bound. */
export class NearestPoints {
  private readonly order: Uint32Array;
  private best = -1;
  private least = 0;

  /** @param points x, y, z each */
  constructor(private readonly points: ArrayLike<number>) {
    this.order = Uint32Array.from({ length: points.length / 3 }, (_, i) => i);
    this.part(0, this.order.length, 0);
  }

  /** Sorted so that the middle of a run splits it along one of the three directions. */
  private part(from: number, to: number, depth: number): void {
    if (to - from < 2) return;
    const middle = (from + to) >> 1;
    this.select(from, to - 1, middle, depth % 3);
    this.part(from, middle, depth + 1);
    this.part(middle + 1, to, depth + 1);
  }

  /** Hoare's quickselect. */
  private select(from: number, to: number, k: number, way: number): void {
    const { order, points } = this;
    let [low, high] = [from, to];
    while (high > low) {
      const pivot = points[3 * order[(low + high) >> 1]! + way]!;
      let [i, j] = [low, high];
      while (i <= j) {
        while (points[3 * order[i]! + way]! < pivot) i++;
        while (points[3 * order[j]! + way]! > pivot) j--;
        if (i > j) break;
        const held = order[i]!;
        order[i++] = order[j]!;
        order[j--] = held;
      }
      if (k <= j) high = j;
      else if (k >= i) low = i;
      else return;
    }
  }

  /** @param most larger distances are not searched @returns −1 where none is that near */
  nearest(x: number, y: number, z: number, most: number): number {
    this.best = -1;
    this.least = most * most;
    this.look(0, this.order.length, 0, x, y, z);
    return this.best;
  }

  /** Distance of the last point that was found. */
  get distance(): number {
    return Math.sqrt(this.least);
  }

  private look(from: number, to: number, way: number, x: number, y: number, z: number): void {
    if (from >= to) return;
    const middle = (from + to) >> 1;
    const at = this.order[middle]!;
    const { points } = this;
    const [dx, dy, dz] = [x - points[3 * at]!, y - points[3 * at + 1]!, z - points[3 * at + 2]!];
    const far = dx * dx + dy * dy + dz * dz;
    if (far < this.least) {
      this.least = far;
      this.best = at;
    }
    const side = way === 0 ? dx : way === 1 ? dy : dz;
    const next = way === 2 ? 0 : way + 1;
    if (side < 0) {
      this.look(from, middle, next, x, y, z);
      if (side * side < this.least) this.look(middle + 1, to, next, x, y, z);
    } else {
      this.look(middle + 1, to, next, x, y, z);
      if (side * side < this.least) this.look(from, middle, next, x, y, z);
    }
  }
}
