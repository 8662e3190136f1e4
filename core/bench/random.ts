/** A small seeded random generator (mulberry32): the same seed gives the same world on every machine. */
export function seeded(seed: number): () => number {
  let state = seed >>> 0;
  return () => {
    state = (state + 0x6d2b79f5) >>> 0;
    let t = state;
    t = Math.imul(t ^ (t >>> 15), t | 1);
    t ^= t + Math.imul(t ^ (t >>> 7), t | 61);
    return ((t ^ (t >>> 14)) >>> 0) / 2 ** 32;
  };
}

/** Box and Muller (1958). */
export function gauss(random: () => number, mean: number, sd: number): number {
  const u = Math.max(random(), 1e-12);
  return mean + sd * Math.sqrt(-2 * Math.log(u)) * Math.cos(2 * Math.PI * random());
}

/** A seed from a text, so that each job and each print has its own. FNV-1a. */
export function seedOf(...words: (string | number)[]): number {
  let hash = 0x811c9dc5;
  for (const c of words.join('/')) hash = Math.imul(hash ^ c.codePointAt(0)!, 0x01000193);
  return hash >>> 0;
}
