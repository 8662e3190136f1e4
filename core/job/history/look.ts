import { z } from 'zod';
import { PressedPlace } from '../document';
import { Id, MOST_PIECES } from '../fields';
import { defineRow, Voidable } from './kind';

/** The condition in which a piece was found in service. */
export const LOOKED = ['holds', 'worn', 'cracked', 'broke', 'came-off', 'leaks', 'taken-off'] as const;
export type Looked = (typeof LOOKED)[number];

export const LOOKED_WORDS: Record<Looked, string> = {
  holds: 'it holds',
  worn: 'it is worn',
  cracked: 'it has cracked',
  broke: 'it broke',
  'came-off': 'it came off',
  leaks: 'it leaks',
  'taken-off': 'it was taken off',
};

/** A piece found in one of these conditions no longer serves, whatever its try said. */
export const FAILED_IN_SERVICE: readonly Looked[] = ['cracked', 'broke', 'came-off', 'leaks'];

/** A look at one piece in service. */
export const Look = z.object({
  ...Voidable,
  printId: Id,
  /** Which piece of the print. */
  piece: z.number().int().min(1).max(MOST_PIECES),
  found: z.enum(LOOKED),
  /** The place on the part and the supposed cause; empty where not stated. */
  where: z.string().trim().max(200).default(''),
  cause: z.string().trim().max(400).default(''),
  /** The same place, pressed on the solid of its version. */
  place: PressedPlace.optional(),
  /** Photos of the job that were taken then. */
  photos: z.array(Id).max(10).default([]),
  by: z.string().trim().max(60).default(''),
  note: z.string().trim().max(2000).default(''),
});
export type Look = z.infer<typeof Look>;

export const look = defineRow({
  kind: 'look',
  list: 'looks',
  schema: Look,
  about: row => ({ list: 'prints', id: row.printId }),
  words: (row, version) =>
    `Looked at version ${version} in service: ${LOOKED_WORDS[row.found]}${row.where ? `, ${row.where}` : ''}`,
});
