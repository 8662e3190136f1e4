import { describe, expect, test } from 'vitest';
import { gauss, seeded } from '../bench/random';
import { beliefAfter, countingOf, driftIn, type Evidence, toldBy } from './lessons';

const NOW = '2026-11-01T00:00:00.000Z';
const evidence = (mean: number, sd: number, at = NOW, jobId = at): Evidence => ({
  jobId,
  title: jobId,
  printerId: 'p',
  materialId: 'petg',
  surface: 'hole',
  mean,
  sd,
  prints: 2,
  at,
});
const general = { mean: 0.22, sd: 0.14 };

describe('what tries told', () => {
  // Normal beliefs multiply: dividing the prior out leaves the share of the tries.
  test('is what makes the belief before them into the one after them', () => {
    const told = { mean: 0.3, sd: 0.05 };
    const precision = 1 / general.sd ** 2 + 1 / told.sd ** 2;
    const after = {
      mean: (general.mean / general.sd ** 2 + told.mean / told.sd ** 2) / precision,
      sd: 1 / Math.sqrt(precision),
    };
    const back = toldBy(general, after)!;
    expect(back.mean).toBeCloseTo(0.3, 9);
    expect(back.sd).toBeCloseTo(0.05, 9);
  });

  test('is nothing where they made nothing surer', () => {
    expect(toldBy(general, general)).toBeNull();
    expect(toldBy(general, { mean: 0.3, sd: 0.2 })).toBeNull();
  });
});

describe('what is believed for the next job', () => {
  test('goes to what jobs taught as they become more, and never becomes surer than jobs are alike', () => {
    const one = beliefAfter(general, [evidence(0.3, 0.05)], NOW);
    const many = beliefAfter(
      general,
      Array.from({ length: 30 }, () => evidence(0.3, 0.05)),
      NOW,
    );
    expect(one.mean).toBeGreaterThan(0.28);
    expect(many.mean).toBeCloseTo(0.3, 2);
    expect(many.sd).toBeLessThan(one.sd);
    expect(many.sd).toBeGreaterThan(0.03);
  });

  test('old jobs count for less', () => {
    const young = beliefAfter(general, [evidence(0.4, 0.03)], NOW);
    const old = beliefAfter(general, [evidence(0.4, 0.03, '2022-11-01T00:00:00.000Z')], NOW);
    expect(old.mean).toBeLessThan(young.mean);
    expect(old.sd).toBeGreaterThan(young.sd);
  });

  test('without any it stays what it was', () => {
    expect(beliefAfter(general, [], NOW)).toEqual(general);
  });

  test('holds the truth as often as it says, over made-up printers', () => {
    const random = seeded(3);
    let inside = 0;
    const worlds = 400;
    for (let i = 0; i < worlds; i++) {
      const printer = gauss(random, general.mean, general.sd);
      const jobs = Array.from({ length: 4 }, () =>
        evidence(gauss(random, gauss(random, printer, 0.03), 0.05), 0.05),
      );
      const { mean, sd } = beliefAfter(general, jobs, NOW);
      if (Math.abs(gauss(random, printer, 0.03) - mean) < sd) inside++;
    }
    expect(inside / worlds).toBeGreaterThan(0.6);
    expect(inside / worlds).toBeLessThan(0.76);
  });
});

describe('drift', () => {
  const month = (n: number) => `2026-${String(n).padStart(2, '0')}-15T00:00:00.000Z`;
  test('is noticed where jobs since a day come out otherwise', () => {
    const jobs = [1, 2, 3, 4].map(n => evidence(0.2, 0.03, month(n)));
    const since = [6, 7, 8].map(n => evidence(0.32, 0.03, month(n)));
    const drift = driftIn([...jobs, ...since])!;
    expect(drift.since).toBe(month(6));
    expect(drift.by).toBeCloseTo(0.12, 6);
  });

  test('is none where they only scatter, or where one job alone is off', () => {
    const random = seeded(9);
    const scatter = Array.from({ length: 8 }, (_, n) =>
      evidence(gauss(random, 0.2, 0.04), 0.03, month(n + 1)),
    );
    expect(driftIn(scatter)).toBeNull();
    expect(
      driftIn([1, 2, 3].map(n => evidence(0.2, 0.03, month(n))).concat(evidence(0.5, 0.03, month(9)))),
    ).toBeNull();
  });
});

test('what is muted does not count, all of it or what is older', () => {
  const all = [evidence(0.2, 0.03, '2026-01-01T00:00:00.000Z'), evidence(0.3, 0.03)];
  const group = { printerId: 'p', materialId: 'petg', surface: 'hole' };
  expect(countingOf(all, [], group)).toHaveLength(2);
  expect(countingOf(all, [], { ...group, materialId: 'pla' })).toEqual([]);
  const muted = { ...group, reason: 'new nozzle' };
  expect(countingOf(all, [{ ...muted, before: null }], group)).toEqual([]);
  expect(countingOf(all, [{ ...muted, before: '2026-06-01T00:00:00.000Z' }], group)).toEqual([all[1]]);
});
