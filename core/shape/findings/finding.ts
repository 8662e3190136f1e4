import { COSTS, type FieldValue, type FindingKind, type Remedy } from './define';
import { FINDINGS, type FieldsOf, type FindingCode } from './register';

export type Fields = Readonly<Record<string, FieldValue>>;

/** What a finding is about, so that it is shown beside it. */
export interface About {
  parameter?: string;
  /** The addition it is about, by its id; its name is put before the words. */
  addition?: string;
  /** The load, or the neighbour, it is about. */
  load?: string;
  neighbour?: string;
}

/** Something that was found on a part: plain data, its sentence made from its fields. */
export interface Finding extends About {
  code: FindingCode;
  /** stop: do not print. warn: will cost a print. note: worth knowing. */
  level: 'stop' | 'warn' | 'note';
  fields: Fields;
  /** Cause, and what to do. Nothing reads it but the maker. */
  message: string;
  remedy?: Remedy;
}

const kindOf = (code: FindingCode) => FINDINGS[code] as FindingKind<Record<string, FieldValue>>;

/** @param rest what it is about, and a remedy where the kind's own cure does not know it */
export function finding<C extends FindingCode>(
  code: C,
  level: Finding['level'],
  fields: FieldsOf<C>,
  rest: About & { remedy?: Remedy } = {},
): Finding {
  const kind = kindOf(code);
  const given = fields ?? {};
  const remedy = rest.remedy ?? kind.cure?.(given);
  return { ...rest, code, level, fields: given, message: kind.words(given), ...(remedy ? { remedy } : {}) };
}

/** The same finding about an addition: by its name in words, its parameters by their long names. */
export const ofAddition = (
  found: Finding,
  { id, name }: { id: string; name: string },
  longName: (short: string) => string,
): Finding => ({
  ...found,
  addition: id,
  message: `${name}: ${kindOf(found.code).words(found.fields as Record<string, FieldValue>)}`,
  ...(found.parameter === undefined ? {} : { parameter: longName(found.parameter) }),
  ...(found.remedy ? { remedy: { ...found.remedy, parameter: longName(found.remedy.parameter) } } : {}),
});

/**
 * By cost: findings that stop the part, then those that cost a print, then remarks; within
 * those, what hurts before what does not fit, and that before what looks odd.
 */
export function ranked(findings: readonly Finding[]): Finding[] {
  const level = { stop: 0, warn: 1, note: 2 };
  const cost = (f: Finding) => COSTS.indexOf(kindOf(f.code).cost);
  return [...findings].sort((a, b) => level[a.level] - level[b.level] || cost(a) - cost(b));
}

/** A stop that a maker overruled, with the reason why. */
export interface Accepted extends About {
  code: string;
  message: string;
  reason: string;
  /** What was the case then; left out in versions from before, which nothing is measured against any more. */
  fields?: Fields;
}

/** What of a finding is kept where a maker accepts it. */
export const acceptedAs = (found: Finding, reason: string): Accepted => {
  const { code, message, fields, parameter, addition, load, neighbour } = found;
  return {
    code,
    message,
    reason,
    fields,
    ...(parameter === undefined ? {} : { parameter }),
    ...(addition === undefined ? {} : { addition }),
    ...(load === undefined ? {} : { load }),
    ...(neighbour === undefined ? {} : { neighbour }),
  };
};

/** What was accepted of just this cause: the same code about the same thing, with the same numbers. */
export const acceptedFor = (found: Finding, accepted: readonly Accepted[]): Accepted | undefined =>
  accepted.find(
    a =>
      a.code === found.code &&
      a.parameter === found.parameter &&
      a.addition === found.addition &&
      a.load === found.load &&
      a.neighbour === found.neighbour &&
      sameFields(a.fields, found.fields),
  );

/** Words of whoever found it are no cause: “why” is left out. */
function sameFields(a: Fields | undefined, b: Fields): boolean {
  if (!a) return false;
  const names = new Set([...Object.keys(a), ...Object.keys(b)]);
  names.delete('why');
  return [...names].every(name => {
    const [x, y] = [a[name], b[name]];
    return typeof x === 'number' && typeof y === 'number' ? Math.abs(x - y) < 1e-6 : x === y;
  });
}

export const isAccepted = (found: Finding, accepted: readonly Accepted[]): boolean =>
  acceptedFor(found, accepted) !== undefined;
