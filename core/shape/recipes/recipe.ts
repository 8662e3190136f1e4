import type { GripWall } from '../../fit/grip';
import type { BoundAddition } from '../additions/addition';
import type { CheckContext } from '../checks/context';
import type { Drawing } from '../drawing/drawing';
import type { Finding } from '../findings/finding';
import type { Body, Kernels, Models, PartKernel } from '../kernels/kernel';
import type { MateSpec, MateSurface } from '../mates';
import type { TriangleMesh } from '../mesh/mesh';
import type { ParameterSpec, Parameters } from './parameters';

/**
 * A family of parametric parts. A recipe is one folder; nothing outside knows its name except the list.
 */
export interface Recipe {
  id: string;
  /** Part of every solid's key: raise it when the same parameters give another solid. */
  version: number;
  family: 'replacement' | 'adapter' | 'mount';
  title: string;
  /** Its purpose, in one sentence. */
  purpose: string;
  /** The object's dimensions, in the order in which they are measured. */
  guide: readonly GuideStep[];
  mates: readonly MateSpec[];
  parameters: readonly ParameterSpec[];
  /**
   * Numbers that cannot be built or make no sense, found before the kernel is asked. @param models left out, only
   * numbers are judged
   */
  refuse(p: Parameters, models?: Models): Finding[];
  /** The drawing of the part, with its dimensions. */
  drawing(p: Parameters): Drawing;
  /** The object with its guide dimensions; dimensions not measured yet are drawn at their example size. */
  objectDrawing(measured: Readonly<Record<string, number>>, p: Parameters): Drawing;
  /** Deterministic. Lies on the bed at z = 0 in its usual pose. */
  solid(p: Parameters, kernel: PartKernel, kernels: Kernels): Body;
  /**
   * The place of each mate on the solid, by analytic description.
   * @param models left out, one that follows an object is in its usual place
   */
  surfaces(p: Parameters, models?: Models): MateSurface[];
  /** The recipe's own checks on the finished triangles. */
  checks(p: Parameters, solid: BuiltSolid, context: CheckContext, models?: Models): Finding[];
  /** What makes it go on, come off and stay home more or less easily, at the same size. */
  levers?(p: Parameters): EffortLever[];
  /** Its round surfaces that grip on one axis, so that their forces add up. */
  grips?(p: Parameters): RoundGrip[];
  demo: DemoObject;
  /** The maker's additions, in order; see additions/. */
  additions?: readonly BoundAddition[];
}

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
  /** One or two sentences for the maker at the bench. */
  how: string;
  /** Whether it is needed with these parameters. */
  needed(p: Parameters): boolean;
  /** The parameter that must not exceed it: beyond it there is something in the way. */
  bounds?: string;
}

/** A parameter that changes the effort of a mate but not its size. */
export interface EffortLever {
  mate: string;
  parameter: string;
  /** In the middle of a sentence. */
  label: string;
  /** grip: on, off and home alike; entry: only while it goes on. */
  acts: 'grip' | 'entry';
  /** Effort is proportional to this power of it. */
  power: number;
  least: number;
  most: number;
}

/** A round surface that grips, with our wall behind it. */
export interface RoundGrip extends GripWall {
  mate: string;
  /** For a ridge: the object's dimension that it passes before it is home, and its slopes. */
  passes?: { dimension: string; width: number; leads: number; holds: number };
}

/** In one piece in its drawn place, whatever hand it was made for. */
export interface BuiltSolid {
  mesh: TriangleMesh;
}

export interface DemoObject {
  name: string;
  /** Sizes of the object, by guide key. */
  sizes: Readonly<Record<string, number>>;
  parameters: Parameters;
}

/**
 * A version stores the numbers that its recipe had at the time: parameters that the recipe got later take the demo
 * object's value, which is how it was before.
 */
export const wholeOf = ({ demo }: Pick<Recipe, 'demo'>, kept: Parameters): Parameters => ({
  ...demo.parameters,
  ...kept,
});
