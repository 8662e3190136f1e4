import { createHash, randomInt } from 'node:crypto';
import type { PairingCode } from '../../contract/phone';
import { HttpError } from '../errors';

/**
 * The one code that lets the next phone in. It is accepted once, for a few minutes, and only the newest one; after some
 * wrong guesses none is. Only its hash is stored.
 */

/** Letters and figures that are not confused with each other: 32, so that ten of them are 50 bits. */
const LETTERS = '0123456789ABCDEFGHJKMNPQRSTVWXYZ';
const LENGTH = 10;
const LASTS = 5 * 60_000;
/** A code is withdrawn after this many wrong guesses. */
const MOST_WRONG = 10;

export class Pairing {
  private waiting: { hash: string; until: number; wrong: number } | null = null;

  /** @param now ms */
  constructor(private readonly now: () => number = Date.now) {}

  /** A new code; an older one is no longer accepted. */
  make(): PairingCode {
    const code = Array.from({ length: LENGTH }, () => LETTERS[randomInt(LETTERS.length)]!).join('');
    this.waiting = { hash: hashOf(code), until: this.now() + LASTS, wrong: 0 };
    return { code, lasts: LASTS / 1000 };
  }

  withdraw(): void {
    this.waiting = null;
  }

  /** Accepts a code, once. @throws HttpError where it is wrong */
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

/** In the form on the screen, whatever was typed in between or instead. */
const asShown = (typed: string) =>
  typed.toUpperCase().replace(/[\s-]/g, '').replace(/O/g, '0').replace(/[IL]/g, '1');

/** Compared by hashes, so that the timing reveals nothing about the code. */
const hashOf = (code: string) => createHash('sha256').update(code).digest('hex');
