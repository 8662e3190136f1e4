import { formatPlain } from '../../../quantity/format';
import { define } from '../define';

/** Walls of fewer passes weep. Common practice, no source. */
const LEAST_PASSES = 4;

/** Cautions to show before anybody relies on a part. */
export const cautionFindings = {
  injury: define({
    cost: 'hurts',
    words: () =>
      'You said a failure may injure somebody. A printed part must not be the only thing that prevents that: ask somebody licensed for this kind of work, and keep to the local rules.',
  }),
  damage: define({
    cost: 'hurts',
    words: () =>
      'You said a failure does damage. Test it beyond what it will bear before use, where nothing can be harmed, and look at it again after a week.',
  }),
  /**
   * @param holds what it must hold: 'water', 'air' or both @param floats whether the brief mentions something afloat
   * @param passes of its quality; left out in old acceptances. How to print it: common practice.
   */
  tight: define<{ holds: string; floats: boolean; passes?: number }>({
    cost: 'to-know',
    words: f =>
      `You said it must hold ${f.holds}: printed walls weep, and seams leak first. Print it with ${LEAST_PASSES} passes or more${f.passes !== undefined && f.passes < LEAST_PASSES ? ` (this quality has ${f.passes})` : ''}, flats of five solid layers, the nozzle 5 to 10 °C hotter, the fan low, and the seam on the dry side. Test it under water or with soap before anything depends on it.${f.floats ? ' Something afloat hangs on it: a compartment that keeps it up keeps its maker’s own closure.' : ''}`,
  }),
  'proof-load': define<{ words: string; load: string; times: number }>({
    cost: 'hurts',
    words: f =>
      `Proof test before use, since you said a failure hurts or does damage, for “${f.words}”: load it in the way it will be loaded with ${f.load}, ${formatPlain(f.times, 1)} times the load, where nothing can be harmed, for ten minutes; look for white lines and cracks, and again after a week in use.`,
  }),
  mains: define({
    cost: 'hurts',
    words: () =>
      'It touches mains. Printed plastic burns and creeps: only a licensed electrician may decide on parts there, by the local rules.',
  }),
  food: define({
    cost: 'hurts',
    words: () =>
      'It touches food. Layers hold germs and most filaments and nozzles are not made for food: keep it to dry, short contact, or line it, and follow the local rules.',
  }),
  heat: define<{ plastic: string; softensC: number; meetsC: number; marginC: number }>({
    cost: 'prints-badly',
    words: f =>
      `${f.plastic} softens at about ${formatPlain(f.softensC)} °C; it will meet ${formatPlain(f.meetsC)} °C. Choose a plastic that keeps at least ${f.marginC} °C of distance.`,
  }),
};
