import { parseArgs } from 'node:util';
import { ZodError } from 'zod';
import type { ApiError } from '../contract/errors';
import { errorOfZod } from '../contract/errors';
import { BadInput, type Command, type CommandOptions } from './command';
import { measureDerive } from './derive';
import { fitPropose } from './fit';
import { measureEvaluate } from './measure';
import { partAdditions, partBuild, partList } from './part';
import { printEstimate, printPlan, printRead } from './print';
import { ref } from './ref';
import { scanAlign, scanDeviate, scanFind, scanFit, scanInspect, scanSection, scanUndercut } from './scan';
import { threadIdentify } from './thread';
import { traceFlatbedCommand, tracePhotoCommand, traceSheet } from './trace';
import { trialNext } from './trial';

/**
 * `npm run -s sagoma -- COMMAND`: JSON in, JSON out, nothing else on standard output. Exit 2 and the one
 * error shape on standard error for bad input.
 */
const COMMANDS = [
  measureEvaluate,
  measureDerive,
  threadIdentify,
  ref,
  fitPropose,
  trialNext,
  partList,
  partAdditions,
  partBuild,
  printPlan,
  printEstimate,
  printRead,
  scanInspect,
  scanFind,
  scanFit,
  scanSection,
  scanAlign,
  scanDeviate,
  scanUndercut,
  traceSheet,
  tracePhotoCommand,
  traceFlatbedCommand,
] as Command<never>[];

interface Words {
  command: Command<never>;
  options: CommandOptions & { in?: string; jsonl: boolean; help: boolean };
  /** What followed the name of a command that takes words. */
  args: string[];
}

/** Where a command reads and writes: a process's own streams, or those of a test. */
export interface Io {
  /** The whole of a file, or of standard input. */
  read(file: string | undefined): string;
  /** The whole of standard input where something arrives at once; otherwise nothing. */
  atOnce(): Promise<string>;
  /** Standard input line by line. */
  lines(): AsyncIterable<string>;
  out(text: string): void;
  err(text: string): void;
}

/** Runs one command line. @returns its exit code */
export async function run(argv: readonly string[], io: Io): Promise<number> {
  if (argv.length === 0 || (argv.length === 1 && ['--help', '-h', 'help'].includes(argv[0]!))) {
    io.out(overview());
    return 0;
  }
  try {
    const { command, options, args } = readWords(argv);
    if (options.help) {
      io.out(help(command));
      return 0;
    }
    if (options.jsonl) return await runLines(command, options, io);
    const text = await textFor(command, options, args, io);
    io.out(`${JSON.stringify(await runOne(command, text, options, command.files ? args : []))}\n`);
    return 0;
  } catch (error) {
    io.err(`${JSON.stringify({ error: errorOf(error) })}\n`);
    return error instanceof BadInput || error instanceof ZodError || error instanceof RangeError ? 2 : 1;
  }
}

function textFor(
  command: Command<never>,
  options: Words['options'],
  args: readonly string[],
  io: Io,
): Promise<string> | string {
  if (command.words) return JSON.stringify({ args });
  if (command.input === null) return '';
  if (options.in === undefined && command.inputOptional)
    return command.inputOptional === 'maybe' ? io.atOnce() : '';
  return readInput(options.in, io);
}

const OPTIONS = {
  in: { type: 'string' },
  out: { type: 'string' },
  unit: { type: 'string' },
  jsonl: { type: 'boolean', default: false },
  help: { type: 'boolean', short: 'h', default: false },
} as const;

function readWords(argv: readonly string[]): Words {
  const named = COMMANDS.find(c => c.name === argv.slice(0, c.name.split(' ').length).join(' '));
  if (!named)
    throw new BadInput(
      `There is no command “${argv.slice(0, 2).join(' ')}”. There are: ${COMMANDS.map(c => c.name).join(', ')}.`,
      undefined,
      'unknown-command',
    );
  const rest = argv.slice(named.name.split(' ').length);
  try {
    const { values, positionals } = parseArgs({ args: rest, options: OPTIONS, allowPositionals: true });
    const [stray] = named.words ? [] : positionals.slice(named.files?.length ?? 0);
    if (stray !== undefined) throw new BadInput(`Unknown word “${stray}”.`);
    return { command: named, options: values, args: positionals };
  } catch (error) {
    const { code, message } = error as NodeJS.ErrnoException;
    if (!code?.startsWith('ERR_PARSE_ARGS')) throw error;
    throw new BadInput(
      code === 'ERR_PARSE_ARGS_UNKNOWN_OPTION'
        ? `Unknown word “${rest.find(w => w.startsWith('-') && !(w.replace(/^--?/, '') in OPTIONS)) ?? ''}”.`
        : `${message}`,
    );
  }
}

/** @param files named after the command, for one that takes files */
async function runOne(
  command: Command<never>,
  text: string,
  options: CommandOptions,
  files: readonly string[] = [],
): Promise<unknown> {
  if (command.input === null) return command.run(undefined as never, options);
  let json: unknown;
  try {
    json = command.files && text.trim() === '' ? {} : JSON.parse(text);
  } catch (error) {
    if (!(error instanceof SyntaxError)) throw error;
    throw new BadInput('The input is not JSON.', undefined, 'bad-json');
  }
  const named = Object.fromEntries(files.map((file, i) => [command.files![i]!, file]));
  const asked = typeof json === 'object' && json !== null ? { ...json, ...named } : json;
  const given = typeof asked === 'object' && asked !== null ? Object.keys(asked) : [];
  const missing = command.files?.find(key => !given.includes(key));
  if (missing) throw new BadInput(`Name its files: ${command.name} ${filesOf(command)}`, missing);
  return command.run(command.input.parse(asked), options);
}

const isSystemError = (error: unknown) => error instanceof Error && 'code' in error && 'syscall' in error;

function readInput(file: string | undefined, io: Io): string {
  try {
    return io.read(file);
  } catch (error) {
    if (!isSystemError(error)) throw error;
    throw new BadInput(`${file ?? 'Standard input'} cannot be read.`, 'in', 'cannot-read');
  }
}

/** One request a line, one answer a line, in order; a bad line is answered with its error and the rest continues. */
async function runLines(command: Command<never>, options: Words['options'], io: Io): Promise<number> {
  const lines = options.in === undefined ? io.lines() : readInput(options.in, io).split('\n');
  for await (const line of lines) {
    if (line.trim() === '') continue;
    let answer: unknown;
    try {
      answer = await runOne(command, line, options);
    } catch (error) {
      answer = { error: errorOf(error) };
    }
    io.out(`${JSON.stringify(answer)}\n`);
  }
  return 0;
}

function errorOf(error: unknown): ApiError['error'] {
  if (error instanceof BadInput) return { code: error.code, message: error.message, path: error.path };
  if (error instanceof ZodError) return errorOfZod(error);
  const message = error instanceof Error ? error.message : 'Something failed.';
  return { code: error instanceof RangeError ? 'bad-input' : 'failed', message };
}

const overview = () =>
  `Sagoma on the command line. JSON in (--in FILE or standard input), JSON out.\n\n${COMMANDS.map(c => `  ${c.name.padEnd(18)} ${c.about}`).join('\n')}\n\n--jsonl: one request a line. --help after a command shows an example that runs.\n`;

const filesOf = ({ files = [] }: Command<never>) => files.map(f => f.toUpperCase()).join(' ');

function help(command: Command<never>): string {
  const run = `npm run -s sagoma -- ${command.name}`;
  const example =
    command.example === null
      ? run
      : command.inputOptional
        ? `${run} ${filesOf(command)}`
        : command.words
          ? `${run} ${(command.example as { args: string[] }).args.join(' ')}`
          : `echo '${JSON.stringify(command.example)}' | ${run}${command.files ? ` ${filesOf(command)}` : ''}`;
  return `${command.name}: ${command.about}\n\n  ${example}\n`;
}
