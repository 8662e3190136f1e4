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
  defaultFor?(choices: Parameters): string;
}

type Length<N> = Extract<ParameterSpec, { kind: 'length' }> & { name: N };
type Choice<N, V> = Omit<Extract<ParameterSpec, { kind: 'choice' }>, 'options'> & {
  name: N;
  options: readonly { value: V; label: string }[];
};
type Written<K, N> = Extract<ParameterSpec, { kind: K }> & { name: N };

/** A number with bounds; its default is an expression over dimensions, mates and parameters. */
export const length = <const N extends string>(
  name: N,
  label: string,
  [min, max]: readonly [number, number],
  usual: string,
  { group = 'main', shown, measure, sensible, defaultFor }: LengthOptions = {},
): Length<N> => ({
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
  ...(defaultFor ? { defaultFor } : {}),
});

/** The first option is the default. */
export const choice = <const N extends string, V extends string>(
  name: N,
  label: string,
  options: Readonly<Record<V, string>>,
  { group = 'main', shown, ask }: { group?: Group; shown?: When; ask?: true } = {},
): Choice<N, V> => {
  const values = Object.keys(options) as V[];
  return {
    kind: 'choice',
    name,
    label,
    group,
    options: values.map(value => ({ value, label: options[value] })),
    default: values[0]!,
    ...(shown ? { shown } : {}),
    ...(ask ? { ask } : {}),
  };
};

/** For a thread: drawn with the wrong hand it never goes on, and most threads, but not all, are right-handed. */
export const hand = <const N extends string>(name: N, label: string) =>
  choice(
    name,
    label,
    { right: 'right: clockwise goes on', left: 'left: anticlockwise goes on' },
    { ask: true },
  );

export const flag = <const N extends string>(
  name: N,
  label: string,
  usual: boolean,
  { group = 'main', shown }: { group?: Group; shown?: When } = {},
): Written<'flag', N> => ({ kind: 'flag', name, label, group, default: usual, ...(shown ? { shown } : {}) });

/** Plain text: letters on the part, or a name. */
export const words = <const N extends string>(
  name: N,
  label: string,
  usual: string,
  most: number,
  shown?: When,
): Written<'words', N> => ({
  kind: 'words',
  name,
  label,
  group: 'main',
  default: usual,
  most,
  ...(shown ? { shown } : {}),
});

/** A scanned object, or a body from a file; until one is chosen an example stands in. */
export const model = <const N extends string>(
  name: N,
  label: string,
  standsIn: string,
): Written<'model', N> => ({
  kind: 'model',
  name,
  label,
  group: 'main',
  default: standsIn,
  surface: true,
});

/** Holes, written out: see outline-text.ts. */
export const holes = <const N extends string>(
  name: N,
  label: string,
  usual: string,
): Written<'holes', N> => ({
  kind: 'holes',
  name,
  label,
  group: 'main',
  default: usual,
});

/** Corners, written out: see outline-text.ts. */
export const outline = <const N extends string>(
  name: N,
  label: string,
  usual: string,
  { shown, read }: { shown?: When; read?: { width: string; height: string } } = {},
): Written<'outline', N> => ({
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

interface StepOptions {
  /** A fit depends on it, though no mate is made for it. */
  critical?: boolean;
  /** A method, so that it may refer to the recipe's own parameters. */
  needed?(p: Parameters): boolean;
  /** The number that must not exceed it: there is something in the way. */
  bounds?: string;
}

/** A dimension of the object. */
export const step = <const K extends string>(
  key: K,
  label: string,
  hold: Hold,
  how: string,
  { critical = false, needed, bounds }: StepOptions = {},
): GuideStep & { key: K } => ({
  key,
  label,
  kind: KIND[hold],
  critical,
  hold,
  how,
  needed: p => !needed || Boolean(needed(p)),
  ...(bounds ? { bounds } : {}),
});

/** What cannot be built, collected in order. */
export class Refusals<P = Parameters> {
  readonly list: Finding[] = [];
  /** @param value a number that would work, if a single one does */
  when(bad: boolean, parameter: keyof P & string, message: string, value?: number): this {
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
