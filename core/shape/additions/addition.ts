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
 * What a maker adds to a recipe's part or cuts from it. Additions are listed in the order in which they are carried
 * out. Each is a small recipe of its own: its numbers are parameters of the part, with the addition's name in front.
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
  /** Its name in expressions: its numbers are `tab1_width`, `tab1_rise`. */
  id: z.string().regex(/^[a-z][a-z]{0,11}[0-9]{1,3}$/, 'Letters, then a number: “tab1”.'),
  kind: z.enum(ADDITION_KINDS),
  name: z.string().trim().min(1, 'Give it a name.').max(80, 'At most 80 characters.'),
  /** Its place in the list: lower ones are carried out first. */
  order: z.number().min(-1e6).max(1e6),
  /** When switched off it stays in the list, with its numbers. */
  on: z.boolean(),
  /** The object's dimension that one of its numbers must fit, and the kind of that surface. */
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

/** A name that is still free: “Vent”, “Vent 2”. */
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

/** The part at an addition's turn. */
export interface Site {
  kernels: Kernels;
  body: Body;
  /** For the screen: flats lie 0.03 mm from the true surface at most. */
  mesh(): TriangleMesh;
  bounds(): Bounds;
  /** The faces that earlier additions sit on, in the words of a place, by addition. */
  seats: ReadonlyMap<string, number>;
  /** Records the face that this addition sits on. */
  sitsAt(coordinate: number): void;
  /** Mates of the part so far. */
  surfaces: readonly MateSurface[];
}

export interface Applied {
  body: Body;
  /** Its own surface, where it fits something; the addition's id is filled in. */
  surface?: Omit<MateSurface, 'mate'>;
  /** Where earlier surfaces are now; left out when they have not moved. */
  moved?: readonly MateSurface[];
  findings?: readonly AdditionFinding[];
  /** The pieces of the part, each lying on the bed; only the last addition may return them. */
  pieces?: readonly Piece[];
  /** Where it was cut apart. */
  cut?: { normal: Point3; at: number };
}

/** One of the pieces of a split part, and how its triangles are placed on the bed. */
export interface Piece {
  body: Body;
  name: string;
  /** A dowel: it belongs to neither side of the part. */
  extra?: true;
  lay(mesh: TriangleMesh): TriangleMesh;
}

/** A finding about one of its parameters, by its short name. */
export type AdditionFinding = Finding;

export interface AdditionKind {
  kind: AdditionKindName;
  title: string;
  /** Its purpose, in one sentence. */
  purpose: string;
  /** The name of the first of its kind in expressions, without its number. */
  short: string;
  /** Short names. */
  parameters: readonly ParameterSpec[];
  /** Initial values of a new one where they differ from the parameter's default: older ones stay as they are. */
  fresh?: Readonly<Record<string, string>>;
  /** Its surface that may have to fit something of the object. */
  fit?: {
    /** The number that a reading sets; null where these choices have none. */
    parameter(p: Parameters): string | null;
    side(p: Parameters): Side;
    form(p: Parameters): SurfaceForm;
    /** Its usual want; a slide unless stated. */
    want?: StandardWant;
  };
  refuse(p: Parameters): AdditionFinding[];
  /** @throws AdditionGone where what it sits on no longer exists, KernelError where it cannot be made */
  apply(site: Site, p: Parameters): Applied;
}

/** An addition in its place on a recipe. */
export interface BoundAddition {
  addition: Addition;
  kind: AdditionKind;
  /** Its own parameters, by their short names. */
  own(p: Parameters): Parameters;
}

/** What the addition sits on no longer exists; the message says what, for the maker. */
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
