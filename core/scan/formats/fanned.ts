import { ScanError } from '../scan-file';

/**
 * A face with more than three corners as triangles around its first. @param names from `at`, one for each of `sides`
 */
export function fanned(
  names: ArrayLike<number>,
  at: number,
  sides: number,
  corners: number,
  into: number[],
  what: string,
): void {
  for (let i = 0; i < sides; i++) {
    const v = names[at + i]!;
    if (!(Number.isInteger(v) && v >= 0 && v < corners))
      throw new ScanError('broken', `${what} names corner ${v}, and there are ${corners}.`);
  }
  for (let i = 1; i + 1 < sides; i++) into.push(names[at]!, names[at + i]!, names[at + i + 1]!);
}
