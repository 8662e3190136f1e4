export interface Weighed {
  value: number;
  weight: number;
}

/** The value that a share of the weight does not exceed; null for an empty list. */
export function weighedQuantile(all: readonly Weighed[], share: number): number | null {
  const sorted = [...all].sort((a, b) => a.value - b.value);
  const whole = sorted.reduce((sum, w) => sum + w.weight, 0);
  let passed = 0;
  for (const { value, weight } of sorted) {
    passed += weight;
    if (passed >= share * whole) return value;
  }
  return null;
}
