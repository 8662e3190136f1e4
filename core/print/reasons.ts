import { formatPlain } from '../quantity/format';
import type { MateInPose, PosePlan } from './plan';

/** The reasons for and against a pose, in words: its costs first, then its advantages. */

const SIDES_DOWN: Readonly<Record<MateInPose['lies'], string>> = {
  upright: 'upright',
  leaning: 'leaning: its layers show as steps',
  lying: 'lying: its roundness is made of layers',
  'in layers': 'across the layers: it comes in whole layers',
};

/** A shorter bridge is not mentioned, mm. */
const BRIDGE_TOLD = 4;
/** A more slender part is mentioned. */
const SLENDER_TOLD = 5;

export function reasonsFor(plan: PosePlan): string[] {
  const { supports, mates, fits, over, height, foot, weakest, pose, bridge } = plan;
  const words: string[] = [];
  if (!fits) words.push(`${formatPlain(over, 1)} mm too large for the bed, however it is turned about`);
  else if (pose.turn % 90 !== 0)
    words.push(`fits on the bed turned by ${formatPlain(pose.turn, 0)}° about the upright`);
  words.push(supportWords(plan));
  for (const m of mates.filter(m => m.supported)) words.push(`supports stand on “${m.name}”`);
  for (const m of mates.filter(m => m.lies !== 'upright')) words.push(`“${m.name}” is ${SIDES_DOWN[m.lies]}`);
  for (const m of mates.filter(m => m.onBed))
    words.push(`“${m.name}” begins on the bed: the first layer bulges into its mouth, take that edge off`);
  const upright = mates.filter(m => m.lies === 'upright' && !m.supported && !m.onBed);
  if (upright.length > 0) {
    const seam = upright.some(m => m.seam) ? ' once the ridge of the seam is off' : '';
    words.push(
      `${upright.map(m => `“${m.name}”`).join(', ')} upright: as true as this printer prints${seam}`,
    );
  }
  if (weakest)
    words.push(
      weakest.betweenLayers
        ? `its weakest section lies between layers: it bears ${formatPlain(1 / weakest.use, 1)} times its load`
        : `its layers run along the load: it bears ${formatPlain(1 / weakest.use, 1)} times that`,
    );
  const slender = height / Math.max(0.5, Math.sqrt(foot));
  if (slender > SLENDER_TOLD)
    words.push(`stands ${formatPlain(height, 0)} mm high on ${formatPlain(foot, 0)} mm²: give it a brim`);
  if (supports.area === 0 && bridge > BRIDGE_TOLD) words.push(`bridges ${formatPlain(bridge, 0)} mm freely`);
  return words;
}

const supportWords = ({ supports: { area, volume, onPart } }: PosePlan): string => {
  if (area === 0) return 'no supports';
  const marks = onPart > 1 ? ', marks on the part' : '';
  return `supports under ${formatPlain(area / 100, 1)} cm², ${formatPlain(volume / 1000, 1)} cm³${marks}`;
};
