import { lusolve } from 'mathjs';

/**
 * Solves a · x = b; where there are many solutions, one of them. @returns null where the equations contradict each
 * other
 */
export function solved(a: readonly (readonly number[])[], b: readonly number[]): number[] | null {
  try {
    return (lusolve(a as number[][], b as number[]) as number[][]).map(([x]) => x!);
  } catch (error) {
    if (error instanceof Error && /singular/i.test(error.message)) return null;
    throw error;
  }
}
