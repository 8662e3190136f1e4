import type { ZodType } from 'zod';

/** One command of the command line: plain data in, plain data out. */
export interface Command<In = unknown> {
  /** As typed: "fit propose". */
  name: string;
  /** Takes words after its name instead of JSON; in a line of `--jsonl` they are given as `args`. */
  words?: boolean;
  /** Takes file names after its own name, which become these fields of its input. */
  files?: readonly string[];
  /**
   * The files are all that it needs: it does not wait for standard input; `maybe`: read if something arrives at once.
   */
  inputOptional?: boolean | 'maybe';
  /** One line. */
  about: string;
  /** Example input that runs unchanged; null when it takes no input. */
  example: unknown;
  /** null: takes no input. */
  input: ZodType<In> | null;
  run(input: In, options: CommandOptions): Promise<unknown> | unknown;
}

export interface CommandOptions {
  /** File to write, where the command writes one. */
  out?: string;
  /** Unit of lengths in a file that states none: mm unless given. */
  unit?: string;
}

/** What the caller did wrong: exit 2 and the one error shape. */
export class BadInput extends Error {
  constructor(
    message: string,
    readonly path?: string,
    readonly code = 'bad-input',
  ) {
    super(message);
  }
}
