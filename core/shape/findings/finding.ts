import { COSTS, type FieldValue, type FindingKind, type Remedy } from './define';
import { FINDINGS, type FieldsOf, type FindingCode } from './register';

export type Fields = Readonly<Record<string, FieldValue>>;

/** The subject of a finding, so that it is shown beside it. */
export interface About {
  parameter?: string;
  /** The addition it is about, by id; its name is put in front of the words. */
  addition?: string;
  /** The load, or the neighbour, it is about. */
  load?: string;
  neighbour?: string;
}

/** A finding on a part: plain data; its sentence is made from its fields. */
export interface Finding extends About {
  code: FindingCode;
  /** stop: do not print. warn: will cost a print. note: worth knowing. */
  level: 'stop' | 'warn' | 'note';
  fields: Fields;
  /** The cause and what to do. Only the maker reads it; no code depends on it. */
  message: string;
  remedy?: Remedy;
}

const kindOf = (code: FindingCode) => FINDINGS[code] as FindingKind<Record<string, FieldValue>>;

/** @param rest its subject, and a remedy where the kind's own cure does not know it */
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

/** The same finding for an addition: with its name in words and its parameters by their long names. */
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
 * In order of cost: findings that stop the part, then those that cost a print, then remarks; within those, injury
 * before misfit, and misfit before looks.
 */
export function ranked(findings: readonly Finding[]): Finding[] {
  const level = { stop: 0, warn: 1, note: 2 };
  const cost = (f: Finding) => COSTS.indexOf(kindOf(f.code).cost);
  return [...findings].sort((a, b) => level[a.level] - level[b.level] || cost(a) - cost(b));
}

/** A stop that a maker overruled, with the reason. */
export interface Accepted extends About {
  code: string;
  message: string;
  reason: string;
  /** The finding's fields at the time; left out in old versions, which are no longer compared with anything. */
  fields?: Fields;
}

/** What is stored of a finding when a maker accepts it. */
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

/** The acceptance of exactly this cause: the same code about the same subject, with the same numbers. */
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

/** The words of whoever found it are not part of the cause: “why” is left out. */
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
