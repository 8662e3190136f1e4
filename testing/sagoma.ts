import { readFileSync } from 'node:fs';
import { Readable } from 'node:stream';
import { run } from '../cli/run';

/** The command line in this process. */
export async function sagoma(words: string, input: unknown = '', lines = false) {
  const text = textOf(input, lines);
  let out = '';
  let err = '';
  const code = await run(words.split(' ').filter(Boolean), {
    read: file => (file === undefined ? text : readFileSync(file, 'utf8')),
    atOnce: () => Promise.resolve(text),
    lines: () => Readable.from(text.split('\n')),
    out: said => (out += said),
    err: said => (err += said),
  });
  return { code, out, err };
}

/** As given to the command line. @param lines one question a line */
export function textOf(input: unknown, lines: boolean): string {
  if (typeof input === 'string') return input;
  if (!lines) return JSON.stringify(input);
  return (input as unknown[])
    .map(line => (typeof line === 'string' ? line : JSON.stringify(line)))
    .join('\n');
}

/** Its answer, parsed. */
export const answer = async (words: string, input: unknown) => JSON.parse((await sagoma(words, input)).out);
