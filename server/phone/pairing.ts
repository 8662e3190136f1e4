import { createHash, randomInt } from 'node:crypto';
import type { PairingCode } from '../../contract/phone';
import { HttpError } from '../errors';

/**
 * The one code that lets the next phone in. It is taken once, for a few minutes, and only the newest one; after some wrong
 * guesses none is. Only its hash is kept.
 */

/** Letters and figures that are not taken for each other: 32, so that ten of them are 50 bits. */
const LETTERS = '0123456789ABCDEFGHJKMNPQRSTVWXYZ';
const LENGTH = 10;
const LASTS = 5 * 60_000;
/** A code that is guessed at is withdrawn after so many. */
const MOST_WRONG = 10;

export class Pairing {
  private waiting: { hash: string; until: number; wrong: number } | null = null;

  /** @param now ms */
  constructor(private readonly now: () => number = Date.now) {}

  /** A new code; an older one is no longer taken. */
  make(): PairingCode {
    const code = Array.from({ length: LENGTH }, () => LETTERS[randomInt(LETTERS.length)]!).join('');
    this.waiting = { hash: hashOf(code), until: this.now() + LASTS, wrong: 0 };
    return { code, lasts: LASTS / 1000 };
  }

  withdraw(): void {
    this.waiting = null;
  }

  /** Takes a code, once. @throws HttpError where it is not the one */
  redeem(typed: string): void {
    const { waiting } = this;
    if (!waiting || this.now() > waiting.until) {
      this.waiting = null;
      throw new HttpError(
        403,
        'no-code',
        'No phone is waited for: show a new code on the workshop page and try again.',
      );
    }
    if (hashOf(asShown(typed)) !== waiting.hash) {
      if (++waiting.wrong >= MOST_WRONG) this.waiting = null;
      throw new HttpError(
        403,
        'wrong-code',
        'That is not the code on the workshop page. Each is taken once: show a new one there if this was it.',
      );
    }
    this.waiting = null;
  }
}

/** As it stands on the screen, whatever was typed between and for it. */
const asShown = (typed: string) =>
  typed.toUpperCase().replace(/[\s-]/g, '').replace(/O/g, '0').replace(/[IL]/g, '1');

/** Compared by hashes, so that the time it takes tells nothing of the code. */
const hashOf = (code: string) => createHash('sha256').update(code).digest('hex');
