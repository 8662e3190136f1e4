/** Places x, y in the form that a drawing takes. */
export function pointsOf(line: Float32Array): string {
  const out: string[] = [];
  for (let i = 0; i + 1 < line.length; i += 2) out.push(`${line[i]!.toFixed(1)},${line[i + 1]!.toFixed(1)}`);
  return out.join(' ');
}
