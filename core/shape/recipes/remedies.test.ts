import { describe, expect, test } from 'vitest';
import { seeded } from '../../bench/random';
import { RECIPES } from '.';
import { followsReading, refusals } from './cure';
import type { Parameters } from './parameters';
import type { Recipe } from './recipe';

/** Numbers that contradict each other: each on its own at many values, and several at once. */
function spoiled(recipe: Recipe): Parameters[] {
  const random = seeded(41);
  const lengths = recipe.parameters.flatMap(s => (s.kind === 'length' ? [s] : []));
  const alone = lengths.flatMap(({ name, min, max, measure }) => {
    const usual = recipe.demo.parameters[name] as number;
    return [min, max, 1.6 * usual, 0.5 * usual, 3 * usual].map(value => ({
      [name]: Math.min(
        max,
        Math.max(min, measure === 'count' ? Math.round(value) : Number(value.toFixed(2))),
      ),
    }));
  });
  const several = Array.from({ length: 25 }, () =>
    Object.fromEntries(
      lengths
        .filter(() => random() < 0.2)
        .map(({ name, min, max, measure }) => {
          const value = (recipe.demo.parameters[name] as number) * (0.4 + 1.6 * random());
          const kept = Math.min(max, Math.max(min, value));
          return [name, measure === 'count' ? Math.round(kept) : Number(kept.toFixed(2))];
        }),
    ),
  );
  return [...alone, ...several].map(change => ({ ...recipe.demo.parameters, ...change }));
}

const shortened = (message: string) => message.replace(/[\d.]+/g, '#');

describe.each(RECIPES.map(r => [r.id, r] as const))('%s', (_, recipe) => {
  test('every remedy cures what it is for, brings nothing else, and leaves what was read', () => {
    const refusing = {
      parameters: recipe.parameters,
      refuse: (p: Parameters) => recipe.refuse(p),
      measured: followsReading(recipe, recipe.demo.parameters),
    };
    let [refused, cured] = [0, 0];
    for (const p of spoiled(recipe)) {
      const findings = refusals(refusing, p);
      const before = findings.map(f => shortened(f.message));
      for (const { message, remedy } of findings) {
        refused++;
        if (!remedy) continue;
        cured++;
        const words = `${message} – ${remedy.label} – of ${JSON.stringify(p)}`;
        const spec = recipe.parameters.find(s => s.name === remedy.parameter)!;
        expect(followsReading(recipe, recipe.demo.parameters)(spec), words).toBe(false);
        // The button says the number and what it sets.
        expect(remedy.label, words).toContain(spec.label);
        expect(remedy.label, words).toContain(remedy.text.replace('-', '−'));
        const after = recipe
          .refuse({ ...p, [remedy.parameter]: Number(remedy.text) })
          .map(f => shortened(f.message));
        expect(after, words).not.toContain(shortened(message));
        expect(before, words).toEqual(expect.arrayContaining(after));
      }
    }
    expect(refused, 'something was refused').toBeGreaterThan(0);
    // A refusal that no single free number cures has no button; most have one.
    expect(cured / refused).toBeGreaterThan(0.05);
  });
});
