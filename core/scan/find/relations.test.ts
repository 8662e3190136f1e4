import { describe, expect, test } from 'vitest';
import { proofBlock } from '../../../testing/scan-objects';
import { scannedBy } from '../../bench/scanner';
import { ScanSurface } from '../scan-surface';
import { findingsOf } from './findings';
import { relationsOf } from './relations';

/** What is known of the proof block: its boss and the cone in it are on one axis, four holes are alike, its top is level. */
const findings = findingsOf(
  new ScanSurface(scannedBy(proofBlock(), { spacing: 0.5, noise: 0.03, warp: 0.03, seed: 6 })),
);
const where = (title: RegExp, value?: number) =>
  findings.findIndex(
    f => title.test(f.title) && (value === undefined || Math.abs((f.sizes[0]?.value ?? 0) - value) < 0.3),
  );
const kindsOf = (i: number) => relationsOf(findings, i).map(r => r.kind);

describe('how things on a scan lie to each other', () => {
  test('the boss stands square on the plate, and its cone is on one axis with it', () => {
    const boss = where(/outside/i, 31.7);
    expect(boss).toBeGreaterThanOrEqual(0);
    expect(kindsOf(boss)).toContain('square');
    const axes = relationsOf(findings, boss).flatMap(r => (r.kind === 'one-axis' ? [findings[r.to]!] : []));
    expect(axes.map(f => f.kind)).toContain('cone');
    for (const f of axes) expect(f.kind).not.toBe('sphere');
  });

  test('holes that are alike are one size together, no surer than the surest of them', () => {
    const hole = where(/bore|hole/i, 5.3);
    const alike = relationsOf(findings, hole).find(r => r.kind === 'one-size');
    if (alike?.kind !== 'one-size') throw new Error('The holes are not told to be alike.');
    expect(alike.of.length).toBeGreaterThanOrEqual(3);
    expect(alike.size.value).toBeCloseTo(5.3, 1);
    expect(alike.size.u).toBe(Math.min(...alike.of.map(i => findings[i]!.sizes[0]!.u)));
  });

  test('what only lies near is not said to be meant', () => {
    const round = { kind: 'cylinder' as const, title: 'Bore' };
    const size = (value: number, u: number) => [{ of: 'diameter', kind: 'inside' as const, value, u }];
    const lean = (degrees: number) =>
      [Math.sin((degrees * Math.PI) / 180), 0, Math.cos((degrees * Math.PI) / 180)] as const;
    const things = [
      { ...round, sizes: size(10, 0.02), axis: lean(0), centre: [0, 0, 0] as const },
      { ...round, sizes: size(10.2, 0.02), axis: lean(2), centre: [0, 0, 9] as const },
      { ...round, sizes: size(12, 0.02), axis: lean(0), centre: [0.4, 0, 9] as const },
      { ...round, sizes: size(10.04, 0.02), axis: lean(0), centre: [0.05, 0, 9] as const },
    ];
    expect(relationsOf(things, 0).map(r => r.kind)).toEqual(['one-size', 'one-axis']);
    expect(relationsOf(things, 1)).toEqual([]);
    expect(relationsOf(things, 9)).toEqual([]);
  });
});
