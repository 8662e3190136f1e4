/** A factor with all its possible values. */
export type Factors<V> = Readonly<Record<string, readonly V[]>>;

/** Names two values of two different factors, in the factors' order. */
export const pairName = (a: string, x: unknown, b: string, y: unknown): string => `${a}=${x} ${b}=${y}`;

/** All pairs of values of two different factors that a set of choices contains. */
export function pairsIn<V>(factors: Factors<V>, row: Readonly<Record<string, V>>): string[] {
  const names = Object.keys(factors);
  return names.flatMap((a, i) => names.slice(i + 1).map(b => pairName(a, row[a], b, row[b])));
}

/**
 * A mixed-level covering array of strength two: few enough sets of choices to try all of them, in which every value of
 * every factor meets every value of every other one. Greedy, and deterministic.
 */
export function coveringArray<V>(factors: Factors<V>): Record<string, V>[] {
  const names = Object.keys(factors);
  const open = new Set<string>();
  names.forEach((a, i) => {
    for (const b of names.slice(i + 1))
      for (const x of factors[a]!) for (const y of factors[b]!) open.add(pairName(a, x, b, y));
  });
  const rows: Record<string, V>[] = [];
  while (open.size > 0) {
    const row: Record<string, V> = {};
    // The most open pairs first: each factor takes the value that covers most pairs with the factors before it.
    const [seed] = open;
    for (const part of seed!.split(' ')) {
      const [name, value] = part.split('=') as [string, string];
      row[name] = factors[name]!.find(v => String(v) === value)!;
    }
    for (const name of names) {
      if (name in row) continue;
      const closes = (value: V) =>
        Object.entries(row).filter(([other, chosen]) => {
          const [a, b] = names.indexOf(name) < names.indexOf(other) ? [name, other] : [other, name];
          const [x, y] = a === name ? [value, chosen] : [chosen, value];
          return open.has(pairName(a, x, b, y));
        }).length;
      row[name] = factors[name]!.reduce((best, v) => (closes(v) > closes(best) ? v : best));
    }
    for (const pair of pairsIn(factors, row)) open.delete(pair);
    rows.push(row);
  }
  return rows;
}
