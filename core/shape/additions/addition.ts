import { z } from 'zod';
import type { SurfaceForm } from '../../fit/print-bias';
import type { Side, StandardWant } from '../../fit/wants';
import type { Finding } from '../findings/finding';
import type { Body, Kernels } from '../kernels/kernel';
import type { MateSurface } from '../mates';
import type { Bounds, TriangleMesh } from '../mesh/mesh';
import type { ParameterSpec, Parameters } from '../recipes/parameters';
import type { Point3 } from '../vector';

/**
 * What a maker puts on a recipe's part or takes off it. Additions are listed in the order in which they are
 * done. Each is a small recipe of its own: its numbers are parameters of the part, called after it.
 */
export const ADDITION_KINDS = [
  'shape',
  'hole',
  'band',
  'thread',
  'slot',
  'tie',
  'edges',
  'flutes',
  'rib',
  'words',
  'lead-in',
  'draft',
  'keep-clear',
  'other-hand',
  'split',
] as const;
export type AdditionKindName = (typeof ADDITION_KINDS)[number];

export const Addition = z.object({
  /** What expressions call it: its numbers are `tab1_width`, `tab1_rise`. */
  id: z.string().regex(/^[a-z][a-z]{0,11}[0-9]{1,3}$/, 'Letters, then a number: “tab1”.'),
  kind: z.enum(ADDITION_KINDS),
  name: z.string().trim().min(1, 'Give it a name.').max(80, 'At most 80 characters.'),
  /** Its place in the list: lower ones are done first. */
  order: z.number().min(-1e6).max(1e6),
  /** Switched off it stays in the list, with its numbers. */
  on: z.boolean(),
  /** The object's dimension that one of its numbers must fit, and what kind of surface that is. */
  fits: z
    .object({
      dimension: z
        .string()
        .min(1)
        .max(40)
        .regex(/^[\w-]+$/),
      /** Short name of the number. */
      parameter: z.string().max(20),
      side: z.enum(['inside', 'outside']),
      form: z.enum(['round', 'flats']),
    })
    .optional(),
});
export type Addition = z.infer<typeof Addition>;

export const inOrder = (additions: readonly Addition[]): Addition[] =>
  [...additions].sort((a, b) => a.order - b.order || (a.id < b.id ? -1 : 1));

/** A longer list cannot be read. */
export const MOST_ADDITIONS = 40;

/** A name that no other one has: “Vent”, “Vent 2”. */
export function nameForNew(wish: string, taken: readonly Pick<Addition, 'name'>[]): string {
  const has = (name: string) => taken.some(a => a.name === name);
  if (!has(wish)) return wish;
  const stem = wish.replace(/ \d+$/, '').slice(0, 74);
  for (let n = 2; ; n++) if (!has(`${stem} ${n}`)) return `${stem} ${n}`;
}

export const Additions = z
  .array(Addition)
  .max(MOST_ADDITIONS, `At most ${MOST_ADDITIONS} additions.`)
  .refine(list => new Set(list.map(a => a.id)).size === list.length, 'Two additions have the same name.');

/** The part as it is when an addition's turn comes. */
export interface Site {
  kernels: Kernels;
  body: Body;
  /** For looking at: flats lie 0.03 mm from the true surface at most. */
  mesh(): TriangleMesh;
  bounds(): Bounds;
  /** Where the faces lie that earlier additions sit on, as a place says it, by the addition. */
  seats: ReadonlyMap<string, number>;
  /** Notes the face that this addition sits on. */
  sitsAt(coordinate: number): void;
  /** Mates of what there is so far. */
  surfaces: readonly MateSurface[];
}

export interface Applied {
  body: Body;
  /** Its own surface, where it fits something; the addition's id is put in. */
  surface?: Omit<MateSurface, 'mate'>;
  /** Where earlier surfaces are now; left out when they have not moved. */
  moved?: readonly MateSurface[];
  findings?: readonly AdditionFinding[];
  /** The part falls into these, each lying on the bed; only by the last one. */
  pieces?: readonly Piece[];
  /** Where it was cut apart. */
  cut?: { normal: Point3; at: number };
}

/** One of the pieces of a part that was split, and how its triangles are laid on the bed. */
export interface Piece {
  body: Body;
  name: string;
  /** A dowel: it belongs to no side of the part. */
  extra?: true;
  lay(mesh: TriangleMesh): TriangleMesh;
}

/** A finding about one of its parameters, by its short name. */
export type AdditionFinding = Finding;

export interface AdditionKind {
  kind: AdditionKindName;
  title: string;
  /** What it is for, one sentence. */
  purpose: string;
  /** What the first of its kind is called in expressions, without its number. */
  short: string;
  /** Short names. */
  parameters: readonly ParameterSpec[];
  /** What a new one begins with where that is not the parameter's default: those of older ones stay as they are. */
  fresh?: Readonly<Record<string, string>>;
  /** What may have to fit something of the object. */
  fit?: {
    /** The number that a reading sets; null where these choices have none. */
    parameter(p: Parameters): string | null;
    side(p: Parameters): Side;
    form(p: Parameters): SurfaceForm;
    /** What is usual for it; a slide unless said. */
    want?: StandardWant;
  };
  refuse(p: Parameters): AdditionFinding[];
  /** @throws AdditionGone where what it sits on is no longer there, KernelError where it cannot be made */
  apply(site: Site, p: Parameters): Applied;
}

/** An addition in its place on a recipe. */
export interface BoundAddition {
  addition: Addition;
  kind: AdditionKind;
  /** Its own parameters, by their short names. */
  own(p: Parameters): Parameters;
}

/** What the addition sits on is not there; the message says what, for the maker. */
export class AdditionGone extends Error {
  override name = 'AdditionGone';
  constructor(
    message: string,
    readonly parameter: string,
    readonly remedy?: { label: string; text: string },
  ) {
    super(message);
  }
}
