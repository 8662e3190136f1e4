import { describe, expect, test } from 'vitest';
import { readEdit } from '../../testing/read-edit';
import { type Brief, fitsOf } from '../job/document';
import { applyEdit, type Edit } from '../job/edits';
import { emptyHistory } from '../job/history';
import { newJob } from '../job/new-job';
import { FIRST_WORKSHOP, type Material } from '../job/workshop';
import { requireRecipe } from '../shape/recipes';
import { suitabilityOf } from './suitability';
import { Work } from './work';

const recipe = requireRecipe('round-cap');
const job = (materialId = 'pla') => newJob('Cap', recipe, FIRST_WORKSHOP, materialId);
const spool = (polymer: string, more: Partial<Material> = {}): Material => ({
  ...FIRST_WORKSHOP.materials[0]!,
  polymer,
  softensC: 95,
  ...more,
});
const verdict = (material: Material, brief: Partial<Brief>) =>
  suitabilityOf(material, { ...job().brief, ...brief }, []);

describe('which plastic suits', () => {
  test('a plastic that softens at 55 is not for a heated appliance, and doubtful near it', () => {
    const pla = FIRST_WORKSHOP.materials[0]!;
    expect(verdict(pla, { hottestC: 60 }).verdict).toBe('no');
    expect(verdict(pla, { hottestC: 50 }).verdict).toBe('doubtful');
    expect(verdict(pla, { hottestC: 30 }).verdict).toBe('suitable');
    expect(verdict(pla, { outdoors: true }).verdict).toBe('doubtful');
    expect(verdict(spool('ASA'), { outdoors: true }).verdict).toBe('suitable');
    expect(verdict(spool('ABS'), { outdoors: true }).reasons[0]!.words).toContain('brittle');
  });
  test('water, food, fuel and mains', () => {
    expect(verdict(spool('PA6'), { mustHold: ['water'] }).reasons[0]!.words).toContain('swells');
    expect(verdict(spool('PP'), { touches: ['fuel'] }).verdict).toBe('suitable');
    expect(verdict(spool('ABS'), { touches: ['solvent'] }).verdict).toBe('no');
    expect(verdict(spool('PETG'), { touches: ['fuel'] }).verdict).toBe('doubtful');
    expect(verdict(spool('PETG'), { touches: ['food'] }).verdict).toBe('doubtful');
    expect(verdict(spool('PA-CF'), { touches: ['mains'] }).reasons[0]!.words).toContain('conducts');
  });
  test('the worst reason comes first', () => {
    const { reasons, verdict: v } = verdict(FIRST_WORKSHOP.materials[0]!, { outdoors: true, hottestC: 80 });
    expect(v).toBe('no');
    expect(reasons.map(r => r.verdict)).toEqual(['no', 'doubtful']);
  });
  test('a stretch is held against what the plastic bears, a press against creep', () => {
    const stretched = job('tpu');
    expect(suitabilityOf(FIRST_WORKSHOP.materials[2]!, stretched.brief, fitsOf(stretched)).verdict).toBe(
      'suitable',
    );
    const stiff = suitabilityOf(FIRST_WORKSHOP.materials[0]!, stretched.brief, fitsOf(stretched));
    expect(stiff.reasons.some(r => r.words.includes('stretched up to 4 %'))).toBe(true);
    const pressed = [{ ...fitsOf(job())[0]!, want: { ...fitsOf(job())[0]!.want, name: 'press' as const } }];
    expect(suitabilityOf(FIRST_WORKSHOP.materials[0]!, job().brief, pressed).reasons[0]!.words).toContain(
      'creeps',
    );
  });
});

describe('what a fit does', () => {
  const effects = (materialId: string, want: object | null, brief: Partial<Brief> = {}) => {
    let now = [readEdit('rim', 31.7), readEdit('rim_height', 14)].reduce(
      (j, e) => applyEdit(j, e, FIRST_WORKSHOP),
      job(materialId),
    );
    if (want) now = applyEdit(now, { kind: 'want', mateId: 'skirt', want } as Edit, FIRST_WORKSHOP);
    now = applyEdit(now, { kind: 'brief', brief }, FIRST_WORKSHOP);
    const resolved = new Work(now, FIRST_WORKSHOP, emptyHistory()).part('part-1');
    return { list: resolved.effectsOf(resolved.ledger.mates[0]!), resolved };
  };

  test('a flexible cap: strain within what it bears, a pull in newtons', () => {
    const { list, resolved } = effects('tpu', null);
    expect(list.map(e => e.label)).toEqual(['stretches by', 'presses with', 'pulls off with about']);
    expect(list[0]!.level).toBe('ok');
    // Thin ring: p = E ε t / r. In the middle of the wall's range it agrees within the thick-wall correction.
    const strain = -resolved.ledger.mates[0]!.clearance / (31.7 + resolved.ledger.mates[0]!.clearance);
    const thin = (40 * strain * (resolved.parameters.wall as number)) / (31.7 / 2);
    const low = Number(/^([\d.]+) to/.exec(list[1]!.value)![1]);
    expect(low / thin).toBeGreaterThan(0.8);
    expect(low / thin).toBeLessThan(1.2);
  });
  test('a press that bursts a stiff ring is a stop with a remedy', () => {
    const want = { name: 'own', window: { min: -1.4, max: -1.2, unit: 'mm' }, prefer: 'none' };
    const { list } = effects('pla', want);
    expect(list[0]).toMatchObject({ level: 'stop' });
    expect(list[0]!.words).toContain('A looser want');
  });
  test('in stiff plastic a gap, in flexible a stretch: both as a first print would be drawn', () => {
    const { resolved } = effects('tpu', null);
    const both = resolved.bothWays(resolved.ledger.mates[0]!)!;
    // Snug: the middle of the window; its hole drawn 0.22 larger than that.
    expect(both.stiff).toMatchObject({ want: 'snug' });
    expect(both.stiff.clearance).toBeCloseTo(0.125, 3);
    expect(both.stiff.model).toBeCloseTo(31.7 + 0.125 + 0.22, 3);
    expect(both.flexible.want).toBe('stretch');
    expect(both.flexible.clearance).toBeLessThan(-0.4);
    // The plastic in use agrees with the ledger, apart from rounding to hundredths.
    expect(both.flexible.model).toBeCloseTo(resolved.ledger.mates[0]!.model, 1);
  });
  test('a gap presses nothing', () => expect(effects('pla', null).list).toEqual([]));
  test('heat moves the gap, and says so where it leaves the window', () => {
    const { list } = effects('petg', null, { hottestC: 60 });
    expect(list[0]!.label).toBe('at 60 °C the gap changes by');
    // 31.7 · (60 − 12) · 40 µm/m on steel.
    expect(list[0]!.value).toContain('+0.06');
    expect(effects('petg', null, { hottestC: 25 }).list).toEqual([]);
  });

  test('a failure that does damage asks for a proof test with its load; mains and food are cautioned', () => {
    const { resolved } = effects('pla', null, {
      ifItBreaks: 'damage',
      touches: ['mains', 'food'],
      loads: [{ id: 'l', words: 'the bag hangs on it', forceN: 98.1, direction: 'down' }],
    });
    const said = resolved.cautions;
    expect(said.find(f => f.code === 'proof-load' && f.load === 'l')!.message).toContain(
      '245 N, as much as 25 kg pull down, 2.5 times the load',
    );
    expect(said.find(f => f.code === 'mains')!.level).toBe('stop');
    expect(said.some(f => f.code === 'food')).toBe(true);
  });
});
