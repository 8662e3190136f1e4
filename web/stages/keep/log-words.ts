import type { Look, Try, Version } from '../../../core/job/history';
import { LOOKED_WORDS } from '../../../core/job/history/look';
import { HAPPENING_WORDS } from '../../../core/learn/happened';
import { VERDICT_WORDS } from '../../../core/learn/verdict';
import { formatPlain, formatSigned } from '../../../core/quantity/format';

/** A try in a line: each surface with its drawn size and verdict, what else happened, who judged. */
export function tryWords(row: Try, version: Version, nameOf: (mateId: string) => string): string {
  const drawn = new Map([...version.mates, ...version.signed].map(m => [m.mateId, m.model]));
  const said = Object.entries(row.mates).map(([id, mate]) => {
    const model = drawn.get(id);
    const words = mate.depth
      ? depthWords(mate.depth.value)
      : mate.verdict
        ? VERDICT_WORDS[mate.verdict]
        : mate.off
          ? mate.off.value === 0
            ? 'just right'
            : `off by ${formatSigned(mate.off.value)}`
          : 'measured';
    const effort = Object.entries(mate.effort ?? {})
      .filter(([, e]) => e !== 'good')
      .map(([when, e]) => `${e!.replace('-', ' ')} ${when === 'home' ? 'when home' : `going ${when}`}`);
    const about = mate.about ? ` by ${mate.about.amount}` : '';
    return [
      `${nameOf(id)}${model === undefined ? '' : ` at ${model.toFixed(2)}`} ${words}${about}`,
      ...effort,
    ].join(', ');
  });
  const happened = row.happened.map(
    h =>
      `${HAPPENING_WORDS[h.what]}${h.where ? ` (${h.where})` : ''}${h.originalToo ? ', as the original did' : ''}`,
  );
  return (
    [...said, ...happened].join('; ') +
    (row.by ? `; judged by ${row.by}` : '') +
    (row.note ? `. ${row.note}` : '')
  );
}

/** How far a taper went in. @param depth mm beyond its place */
const depthWords = (depth: number) =>
  depth === 0
    ? 'went in to its place'
    : depth < 0
      ? `stopped ${formatPlain(-depth)} mm short`
      : `went in ${formatPlain(depth)} mm too far`;

export const lookWords = (row: Look, pieces: number): string =>
  [
    `${pieces > 1 ? `piece ${row.piece}: ` : ''}${LOOKED_WORDS[row.found]}`,
    row.where,
    row.cause ? `cause: ${row.cause}` : '',
    row.by ? `seen by ${row.by}` : '',
    row.note,
  ]
    .filter(Boolean)
    .join('; ');
