import { z } from 'zod';
import type { SurfaceForm } from '../../fit/print-bias';
import type { Side, SoftSide, StandardWant } from '../../fit/wants';
import { PlaceError, readPlace } from '../additions/place';
import type { BoundAddition } from '../additions/with-additions';
import type { Drawing } from '../drawing/drawing';
import type { Body, PartKernel, Point3 } from '../kernels/kernel';
import type { TriangleMesh } from '../mesh/mesh';
import { type Lies, MODEL_REFERENCE } from '../model';
import { holesOfText, LONGEST_OUTLINE, outlineOfText } from '../outline-text';

/**
 * A family of parametric parts. A recipe is one folder; nothing outside knows its name except the list.
 */
export interface Recipe {
  id: string;
  /** Part of every solid's key: raise it when the same parameters give another solid. */
  version: number;
  family: 'replacement' | 'adapter' | 'mount';
  title: string;
  /** What it is for, one sentence. */
  purpose: string;
  /** The object's dimensions, in the order in which they are measured. */
  guide: readonly GuideStep[];
  mates: readonly MateSpec[];
  parameters: readonly ParameterSpec[];
  /** What cannot be built or makes no sense, before the kernel sees it. */
  refuse(p: Parameters): Finding[];
  /** The part, dimensioned. */
  drawing(p: Parameters): Drawing;
  /** The object with its guide dimensions; what is not measured yet is drawn at its example size. */
  objectDrawing(measured: Readonly<Record<string, number>>, p: Parameters): Drawing;
  /** Deterministic. Lies on the bed at z = 0 in its usual pose. */
  solid(p: Parameters, kernel: PartKernel): Body;
  /** Where each mate is on the solid, by analytic description. */
  surfaces(p: Parameters): MateSurface[];
  /** Recipe's own reading of the finished triangles. */
  checks(p: Parameters, solid: BuiltSolid, context: CheckContext): Finding[];
  /** What makes it go on, off and stay home more easily or less, at the same size. */
  levers?(p: Parameters): EffortLever[];
  demo: DemoObject;
  /** What a maker put on it, in order; see additions/. */
  additions?: readonly BoundAddition[];
}

/** Numbers by parameter name; a choice is its text, a flag a boolean. */
export type Parameters = Readonly<Record<string, number | string | boolean>>;

/** How the instrument is held: each has its picture. */
export type Hold =
  | 'outside-jaws'
  | 'jaw-tips'
  | 'inside-jaws'
  | 'depth-rod'
  | 'step'
  | 'span'
  | 'protractor'
  | 'tape';

export interface GuideStep {
  key: string;
  label: string;
  kind: 'outside' | 'inside' | 'depth' | 'step' | 'length';
  critical: boolean;
  hold: Hold;
  /** One or two sentences at the bench. */
  how: string;
  /** Whether these parameters need it. */
  needed(p: Parameters): boolean;
}

export interface MateSpec {
  id: string;
  name: string;
  /** The object's dimension. */
  dimension: string;
  /** The parameter that carries the model number. */
  parameter: string;
  side: Side;
  want: StandardWant;
  /** Offered when the plastic is flexible. */
  flexibleWant: StandardWant;
  /** The object itself gives, whatever our plastic: a hose, a boot. */
  soft?: 'theirs';
  /** Round unless said. */
  form?: SurfaceForm;
  /** Read by a tape around it: its size is the circle of equal girth, so that all sums are those of a circle. */
  around?: true;
  /** Its axis lies along the bed as drawn, so that its section is built up of layers. */
  lying?: boolean;
  active(p: Parameters): boolean;
}

interface ParameterBase {
  name: string;
  label: string;
  group: 'main' | 'more';
  shown?(p: Parameters): boolean;
  /** Whose it is, where it is an addition's. */
  addition?: string;
}

/** A range that most parts keep to, mm, and what goes wrong on either side of it, after the number. */
export interface Sensible {
  least: number;
  most: number;
  usual: number;
  below: string;
  above: string;
}

export type ParameterSpec = ParameterBase &
  (
    | {
        kind: 'length';
        /** mm unless said: an angle in degrees, or a whole number of things. */
        measure?: 'angle' | 'count';
        min: number;
        max: number;
        /** An expression over dimensions, mates and parameters, or a number. */
        default: string;
        /** What most parts take, and why: outside it the maker is told, not stopped. */
        sensible?: Sensible;
      }
    | { kind: 'choice'; options: readonly { value: string; label: string }[]; default: string }
    | { kind: 'flag'; default: boolean }
    /** Written out, see outline-text.ts; each number in it may be an expression. */
    | {
        kind: 'outline';
        default: string;
        /** Dimensions for which its width and height stand until they are read. */
        read?: { width: string; height: string };
      }
    | { kind: 'holes'; default: string }
    /** Where an addition sits, in words: see additions/place.ts. Numbers in it may be expressions. */
    | { kind: 'place'; default: string }
    /** Letters on the part, or what something is called. */
    | { kind: 'words'; default: string; most: number }
    /** A body from a file, by its reference (model.ts); empty for none. */
    | { kind: 'model'; default: string }
    /** One of the part's mates, by its name; empty for the first that will do. */
    | { kind: 'surface'; default: string }
  );

export interface MateSurface {
  mate: string;
  side: Side;
  /**
   * A thread's size is over its ridges, or over its grooves where it is a nut. A span is the whole loop from
   * end to end; a girth is the diameter of a circle as long as the loop.
   */
  kind: 'round' | 'flats' | 'thread' | 'span' | 'girth';
  /** Diameter, or width across the flats, as drawn. */
  size: number;
  /** A point midway where a section across `axis` shows the mating loop; on the axis of a round one. */
  at: Point3;
  axis: Point3;
  /** The way a width across flats, or a span, is measured; only theirs. */
  across?: Point3;
  /** Of a tapered round one: how much its radius grows for each mm along the axis; its size is at `at`. */
  taper?: number;
  /** Round, but parted by slots where it is measured. */
  parted?: true;
  /** Of a thread: its minor diameter. */
  core?: number;
  /** Flats around the axis: 2 unless it is a polygon. */
  flats?: number;
  /** Extent along the axis: from and to are positions along it, from the origin. */
  from: number;
  to: number;
  /** Of a thread: the hand it must have. */
  hand?: 'right' | 'left';
}

export interface Finding {
  code: string;
  /** stop: do not print. warn: will cost a print. note: worth knowing. */
  level: 'stop' | 'warn' | 'note';
  /** Cause, and what to do, as sentences. */
  message: string;
  parameter?: string;
  remedy?: { label: string; parameter: string; text: string };
  /** The addition it is about. */
  addition?: string;
  /** The load it is about. */
  load?: string;
  /** The neighbour it is about. */
  neighbour?: string;
}

/** A parameter that sets the effort of a mate but not its size. */
export interface EffortLever {
  mate: string;
  parameter: string;
  /** In the middle of a sentence. */
  label: string;
  /** grip: on, off and home alike; entry: only while it goes on. */
  acts: 'grip' | 'entry';
  /** Effort grows with this power of it. */
  power: number;
  least: number;
  most: number;
}

export interface BuiltSolid {
  mesh: TriangleMesh;
}

export interface CheckContext {
  lineWidth: number;
  bed: { width: number; depth: number; height: number };
  flexible: boolean;
  /** g/cm³ */
  density: number;
  /** Largest strain the plastic bears once, ratio. */
  strainLimit: number;
  /** By mate: what the ledger asks for and what was read. */
  ledger: Readonly<Record<string, { model: number; reading: number }>>;
  /** Measured dimensions by key. */
  measured: Readonly<Record<string, number>>;
  loads: readonly LoadAsked[];
  /** Null where the plastic's figures are not known. */
  strength: PrintStrength | null;
  /** Other plastics of the workshop. */
  otherStrengths: readonly PrintStrength[];
  /** How many times what it has to bear it should bear, and why. */
  margin: { times: number; why: string };
  /** Whether somebody may be hurt when it fails. */
  mayHurt: boolean;
  /** The way its layers are stacked, in the part's own coordinates. */
  stacked: Point3;
  neighbours: readonly NeighbourAsked[];
  /** The last straight piece of the way on, and the one before it if there is one. */
  goesOn: { from: string; distance: number; before?: { from: string; distance: number } } | null;
}

/** Of a part nobody asked anything of. */
export const NO_DEMANDS = {
  loads: [],
  strength: null,
  otherStrengths: [],
  margin: { times: 1.5, why: '' },
  mayHurt: false,
  stacked: [0, 0, 1],
  neighbours: [],
  goesOn: null,
} satisfies Partial<CheckContext>;

/** What the part has to bear, as its maker says it. */
export interface LoadAsked {
  id: string;
  words: string;
  /** N, or N·m for a turn. */
  kind: 'force' | 'turn';
  amount: number;
  towards: string;
  /** Faces in words (additions/place.ts), or “mate ID”. */
  at: string;
  held: string;
}

/** What stands around the part where it sits. mm, in the part's coordinates */
export interface NeighbourAsked {
  id: string;
  name: string;
  form: 'box' | 'round' | 'model';
  /** Of a model: its reference, and how it stands. */
  model?: string;
  lies?: Lies;
  turn?: number;
  width: number;
  depth: number;
  height: number;
  x: number;
  y: number;
  z: number;
  room: number;
}

/** What a print bears, MPa: pulled along its layers, and across them. */
export interface PrintStrength {
  name: string;
  along: number;
  across: number;
}

export interface DemoObject {
  name: string;
  /** Sizes of the object, by guide key. */
  sizes: Readonly<Record<string, number>>;
  parameters: Parameters;
}

/** The parameters as a Zod schema: bounds from the list, unknown names refused. */
export function parameterSchema(recipe: Pick<Recipe, 'parameters' | 'demo'>) {
  const shape: Record<string, z.ZodType> = {};
  for (const spec of recipe.parameters) {
    const usual = recipe.demo.parameters[spec.name];
    if (spec.kind === 'length') {
      const unit = unitOf(spec);
      const number = z
        .number({ error: `${spec.label} must be a number${unit && `, ${unit.trim()}`}.` })
        .min(spec.min, `${spec.label} must be at least ${spec.min}${unit}.`)
        .max(spec.max, `${spec.label} must be at most ${spec.max}${unit}.`);
      shape[spec.name] = (
        spec.measure === 'count' ? number.int(`${spec.label} must be a whole number.`) : number
      )
        .default(usual as number)
        .describe(`${spec.label}${unit && `, ${unit.trim()}`}`);
    } else if (spec.kind === 'choice') {
      const values = spec.options.map(o => o.value) as [string, ...string[]];
      shape[spec.name] = z.enum(values).default(String(usual)).describe(spec.label);
    } else if (spec.kind === 'words' || spec.kind === 'surface') {
      shape[spec.name] = z
        .string()
        .max(spec.kind === 'words' ? spec.most : 40)
        .default(String(usual))
        .describe(spec.label);
    } else if (spec.kind === 'model') {
      shape[spec.name] = z
        .string()
        .refine(text => text === '' || MODEL_REFERENCE.test(text), `${spec.label}: no such body.`)
        .default(String(usual))
        .describe(`${spec.label}: the name of one of the models`);
    } else if (spec.kind === 'place') {
      shape[spec.name] = z
        .string()
        .max(120)
        .superRefine((text, ctx) => {
          try {
            readPlace(text);
          } catch (error) {
            if (!(error instanceof PlaceError)) throw error;
            ctx.addIssue({ code: 'custom', message: `${spec.label}: ${error.message}` });
          }
        })
        .default(String(usual))
        .describe(`${spec.label}: top, underside, left, right, front, back; “top at 5”; “plane top at 5”`);
    } else if (spec.kind === 'outline' || spec.kind === 'holes') {
      shape[spec.name] = z
        .string()
        .max(LONGEST_OUTLINE, `${spec.label} may have at most ${LONGEST_OUTLINE} letters.`)
        .superRefine((text, ctx) => {
          try {
            if (spec.kind === 'outline') outlineOfText(text);
            else holesOfText(text);
          } catch (error) {
            ctx.addIssue({ code: 'custom', message: `${spec.label}: ${(error as Error).message}` });
          }
        })
        .default(String(usual))
        .describe(`${spec.label}, ${HOW_WRITTEN[spec.kind]}`);
    } else {
      shape[spec.name] = z.boolean().default(Boolean(usual)).describe(spec.label);
    }
  }
  return z.strictObject(shape);
}

const HOW_WRITTEN = {
  outline:
    'corners in order, mm: “0, 0; 40, 0 round 3; 40, 25 chamfer 2; 20, 30 via 32, 29; 0, 25 trim -3”; round and chamfer take the corner off, via makes the edge that arrives there an arc through that point, trim moves that edge outwards',
  holes: 'mm: “x, y, diameter; x, y, diameter deep 3”; none if empty',
};

/**
 * A version is kept with the numbers its recipe had then: what the recipe got since takes the demo object's value,
 * which is the way it was before.
 */
export const wholeOf = ({ demo }: Pick<Recipe, 'demo'>, kept: Parameters): Parameters => ({
  ...demo.parameters,
  ...kept,
});

/** As it follows a number. */
export const unitOf = ({ measure }: { measure?: 'angle' | 'count' }): string =>
  measure === 'angle' ? '°' : measure === 'count' ? '' : ' mm';

/** Which side of a mate gives, with a plastic that is flexible or not. */
export const softSideOf = (spec: Pick<MateSpec, 'soft'>, flexible: boolean): SoftSide =>
  spec.soft ?? (flexible ? 'ours' : 'none');

export const lengthOf = (p: Parameters, name: string): number => {
  const value = p[name];
  if (typeof value !== 'number') throw new RangeError(`Got no length for “${name}”: give it in mm.`);
  return value;
};

export const textOf = (p: Parameters, name: string): string => String(p[name] ?? '');
