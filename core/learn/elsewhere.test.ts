import { describe, expect, test } from 'vitest';
import type { Elsewhere, LearnMate, Observation } from './likelihood';
import { groupPosterior } from './posterior';
import { verdictScale } from './verdict-scale';

const scale = verdictScale({ min: 0.1, max: 0.3 }, 'mm');
const S = 0.03;
const mate = (elsewhere: readonly Elsewhere[], u = 0.1): LearnMate => ({
  id: 'bore',
  side: 'inside',
  group: 'g',
  reading: { value: 30, u },
  scale,
  elsewhere,
});
const prior = { mean: 0.1, sd: 0.05 };
const posterior = (elsewhere: readonly Elsewhere[], u?: number) =>
  groupPosterior([mate(elsewhere, u)], prior, S, []).mates.get('bore')!;
const there = (seen: readonly Observation[], sd = 0.04): Elsewhere => ({
  prior: { mean: 0.15, sd },
  scatter: S,
  seen,
});

describe('what was seen in another plastic', () => {
  test('says of the reading what a normal would: closed form, but for the few that are wrong altogether', () => {
    // Drawn 0.4 loose, and it was 0.05 loose: the other b and δ add up to 0.35.
    const found = posterior([there([{ model: 30.4, off: { value: 0.05, u: 0.02 } }])]);
    const noise = 0.04 ** 2 + S ** 2 + 0.02 ** 2;
    const gain = 0.1 ** 2 / (0.1 ** 2 + noise);
    const delta = gain * (0.35 - 0.15);
    expect(found.mean).toBeCloseTo(prior.mean + delta, 1);
    expect(Math.abs(found.mean - prior.mean - delta)).toBeLessThan(0.02);
    expect(found.sd).toBeGreaterThan(Math.hypot(prior.sd, Math.sqrt(0.1 ** 2 * (1 - gain))) - 0.005);
    expect(found.sd).toBeLessThan(0.95 * Math.hypot(prior.sd, 0.1));
  });

  test('three verdicts that were tight say that the object is tighter than it was read', () => {
    const tight = (model: number): Observation => ({ model, verdict: 'tight' });
    const none = posterior([]);
    const found = posterior([there([tight(30.35), tight(30.45), tight(30.5)])]);
    expect(found.mean).toBeGreaterThan(none.mean + 0.08);
    // Loose verdicts say the opposite.
    const loose = posterior([there([{ model: 30.35, verdict: 'loose' }])]);
    expect(loose.mean).toBeLessThan(none.mean - 0.02);
  });

  test('of a printer that nobody knows it says little, and of a sure reading too', () => {
    const seen: Observation[] = [{ model: 30.4, off: { value: 0.05, u: 0.02 } }];
    const moved = (e: Elsewhere, u: number) => posterior([e], u).mean - prior.mean;
    expect(Math.abs(moved(there(seen, 1.5), 0.1))).toBeLessThan(0.02);
    // Close to the printer's known behaviour: the reading is believed.
    const near: Observation[] = [{ model: 30.4, off: { value: 0.22, u: 0.02 } }];
    expect(Math.abs(moved(there(near), 0.005))).toBeLessThan(0.02);
  });

  test('three prints of one printer are no three printers', () => {
    const seen: Observation = { model: 30.4, off: { value: 0.05, u: 0.005 } };
    const [one, three] = [posterior([there([seen])]), posterior([there([seen, seen, seen])])];
    // However many there are: the error common to that printer's prints stays unknown.
    expect(three.sd).toBeGreaterThan(0.9 * Math.hypot(prior.sd, 0.037));
    expect(three.sd).toBeLessThanOrEqual(one.sd + 1e-3);
  });
});

describe('what was tried on a gauge', () => {
  const loose = (gauge?: { value: number; u: number }): Observation => ({
    model: 30.4,
    off: { value: 0.05, u: 0.02 },
    ...(gauge ? { gauge } : {}),
  });
  const taughtBy = (seen: Observation, u = 0.1) =>
    groupPosterior([mate([], u)], prior, S, [{ mates: { bore: seen } }]);

  test('says what the printer does, and of the reading nothing: closed form', () => {
    // On a gauge of 30.2 and drawn 0.2 loose it was 0.05 loose: b is 0.15, whatever the reading.
    const found = taughtBy(loose({ value: 30.2, u: 0.01 }));
    const noise = S ** 2 + 0.02 ** 2 + 0.01 ** 2;
    const gain = prior.sd ** 2 / (prior.sd ** 2 + noise);
    expect(Math.abs(found.shared.mean - (prior.mean + gain * (0.15 - prior.mean)))).toBeLessThan(0.01);
    // The reading is exactly as uncertain as before.
    expect(found.mates.get('bore')!.sd).toBeGreaterThan(0.1);
  });

  test('the same try on the object tells of both together', () => {
    const [object, gauge] = [taughtBy(loose()), taughtBy(loose({ value: 30, u: 0.01 }))];
    expect(object.mates.get('bore')!.sd).toBeLessThan(0.6 * gauge.mates.get('bore')!.sd);
  });

  test('a gauge that was measured badly says little', () => {
    const moved = (u: number) => Math.abs(taughtBy(loose({ value: 30.0, u })).shared.mean - prior.mean);
    expect(moved(0.5)).toBeLessThan(0.2 * moved(0.005));
  });
});
