import { type Finding, finding } from '../findings/finding';
import type { ParameterSpec, Parameters, Sensible } from './parameters';
import type { GuideStep, Hold } from './recipe';

/** Short ways to write a recipe's lists. */
type Group = 'main' | 'more';
type When = (p: Parameters) => boolean;

interface LengthOptions {
  group?: Group;
  shown?: When;
  measure?: 'angle' | 'count';
  sensible?: Sensible;
}

/** A number with bounds; its default is an expression over dimensions, mates and parameters. */
export const length = (
  name: string,
  label: string,
  [min, max]: readonly [number, number],
  usual: string,
  { group = 'main', shown, measure, sensible }: LengthOptions = {},
): ParameterSpec => ({
  kind: 'length',
  name,
  label,
  group,
  min,
  max,
  default: usual,
  ...(shown ? { shown } : {}),
  ...(measure ? { measure } : {}),
  ...(sensible ? { sensible } : {}),
});

/** The first option is the usual one. */
export const choice = (
  name: string,
  label: string,
  options: Readonly<Record<string, string>>,
  { group = 'main', shown }: { group?: Group; shown?: When } = {},
): ParameterSpec => ({
  kind: 'choice',
  name,
  label,
  group,
  options: Object.entries(options).map(([value, words]) => ({ value, label: words })),
  default: Object.keys(options)[0]!,
  ...(shown ? { shown } : {}),
});

export const flag = (
  name: string,
  label: string,
  usual: boolean,
  { group = 'main', shown }: { group?: Group; shown?: When } = {},
): ParameterSpec => ({ kind: 'flag', name, label, group, default: usual, ...(shown ? { shown } : {}) });

/** Plain text: letters on the part, or a name. */
export const words = (
  name: string,
  label: string,
  usual: string,
  most: number,
  shown?: When,
): ParameterSpec => ({
  kind: 'words',
  name,
  label,
  group: 'main',
  default: usual,
  most,
  ...(shown ? { shown } : {}),
});

/** Holes, written out: see outline-text.ts. */
export const holes = (name: string, label: string, usual: string): ParameterSpec => ({
  kind: 'holes',
  name,
  label,
  group: 'main',
  default: usual,
});

/** Corners, written out: see outline-text.ts. */
export const outline = (
  name: string,
  label: string,
  usual: string,
  { shown, read }: { shown?: When; read?: { width: string; height: string } } = {},
): ParameterSpec => ({
  kind: 'outline',
  name,
  label,
  group: 'main',
  default: usual,
  ...(shown ? { shown } : {}),
  ...(read ? { read } : {}),
});

const KIND: Record<Hold, GuideStep['kind']> = {
  'outside-jaws': 'outside',
  'jaw-tips': 'outside',
  'inside-jaws': 'inside',
  'depth-rod': 'depth',
  step: 'step',
  span: 'length',
  protractor: 'length',
  tape: 'length',
};

/** A dimension of the object; what mates hang on is critical. */
export const step = (
  key: string,
  label: string,
  hold: Hold,
  how: string,
  { critical = false, needed = () => true }: { critical?: boolean; needed?: When } = {},
): GuideStep => ({ key, label, kind: KIND[hold], critical, hold, how, needed });

/** What cannot be built, gathered in the order in which it is looked at. */
export class Refusals {
  readonly list: Finding[] = [];
  /** @param value what would do, where one number does */
  when(bad: boolean, parameter: string, message: string, value?: number): this {
    if (!bad) return this;
    const text = value === undefined ? null : String(Number(value.toFixed(2)));
    this.list.push(
      finding(
        'cannot-build',
        'stop',
        { why: message, make: value ?? 0 },
        {
          parameter,
          ...(text !== null && value! > 0 ? { remedy: { label: `Make it ${text}`, parameter, text } } : {}),
        },
      ),
    );
    return this;
  }
}
