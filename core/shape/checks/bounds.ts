import { formatPlain } from '../../quantity/format';
import { type Finding, finding } from '../findings/finding';
import type { Parameters } from '../recipes/parameters';
import type { Recipe } from '../recipes/recipe';
import type { CheckContext } from './context';

/** Readings scatter by this much, mm. */
const READ_TO = 0.05;
/** Clearance to what must not be touched, mm. Common practice, no source. */
const AIR = 0.2;

/** Numbers that exceed a size that was read as their limit. */
export function checkBounds(
  { guide, parameters: specs, mates }: Pick<Recipe, 'guide' | 'parameters' | 'mates'>,
  parameters: Parameters,
  { measured }: Pick<CheckContext, 'measured'>,
): Finding[] {
  return guide.flatMap((step): Finding[] => {
    const spec = specs.find(s => s.name === step.bounds);
    const most = measured[step.key];
    const is = spec && parameters[spec.name];
    if (!spec || most === undefined || typeof is !== 'number' || is <= most + READ_TO) return [];
    if (!(spec.shown?.(parameters) ?? true) || !step.needed(parameters)) return [];
    const text = String(Number((most - AIR).toFixed(2)));
    const free = !mates.some(m => m.parameter === spec.name) && most > AIR;
    const remedy = {
      label: `Make “${spec.label}” ${formatPlain(most - AIR)} mm`,
      parameter: spec.name,
      text,
    };
    return [
      finding(
        'beyond-reading',
        'stop',
        { what: spec.label, is, read: step.label, most },
        { parameter: spec.name, ...(free ? { remedy } : {}) },
      ),
    ];
  });
}
