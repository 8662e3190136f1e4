/** A part's parameters: how they are declared, and their values. Lengths mm, angles degrees. */

/** Numbers by parameter name; a choice is its text, a flag a boolean. */
export type Parameters = Readonly<Record<string, number | string | boolean>>;

interface ParameterBase {
  name: string;
  label: string;
  group: 'main' | 'more';
  shown?(p: Parameters): boolean;
  /** The addition that it belongs to, if any. */
  addition?: string;
}

/** The usual range of most parts, mm, and what goes wrong outside it; the text follows the number. */
export interface Sensible {
  least: number;
  most: number;
  usual: number;
  below: string;
  above: string;
}

export type ParameterSpec = ParameterBase &
  (
    | {
        kind: 'length';
        /** mm unless stated: an angle in degrees, or a whole number of things. */
        measure?: 'angle' | 'count';
        min: number;
        max: number;
        /** An expression over dimensions, mates and parameters, or a number. */
        default: string;
        /** Where its default depends on choices: for these choices, instead of `default`. */
        defaultFor?(choices: Parameters): string;
        /** The usual range, and why; a number outside it gets a remark but is built. */
        sensible?: Sensible;
      }
    | {
        kind: 'choice';
        options: readonly { value: string; label: string }[];
        default: string;
        /** It depends on the object: the maker is asked, and the usual value is never taken silently. */
        ask?: true;
      }
    | { kind: 'flag'; default: boolean }
    /** Written out, see outline-text.ts; each number in it may be an expression. */
    | {
        kind: 'outline';
        default: string;
        /** Dimensions that its width and height stand in for until they are read. */
        read?: { width: string; height: string };
      }
    | { kind: 'holes'; default: string }
    /** The place of an addition, in words: see additions/place.ts. Numbers in it may be expressions. */
    | { kind: 'place'; default: string }
    /** Letters on the part, or what something is called. */
    | { kind: 'words'; default: string; most: number }
    /** A body from a file, by its reference (model.ts); empty for none. */
    | {
        kind: 'model';
        default: string;
        /** A surface with holes is accepted: the part follows it. */
        surface?: true;
      }
    /** One of the part's mates, by name; empty for the first suitable one. */
    | { kind: 'surface'; default: string }
  );

/** What a number is made from while nobody sets it, with these choices. */
export const usualText = (spec: Extract<ParameterSpec, { kind: 'length' }>, choices: Parameters): string =>
  spec.defaultFor?.(choices) ?? spec.default;

/** As it follows a number. */
export const unitOf = ({ measure }: { measure?: 'angle' | 'count' }): string =>
  measure === 'angle' ? '°' : measure === 'count' ? '' : ' mm';

export const lengthOf = (p: Parameters, name: string): number => {
  const value = p[name];
  if (typeof value !== 'number') throw new RangeError(`Got no length for “${name}”: give it in mm.`);
  return value;
};

export const textOf = (p: Parameters, name: string): string => String(p[name] ?? '');
