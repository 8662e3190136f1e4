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
  /** What it is for, one sentence. */
  purpose: string;
  /** The object's dimensions, in the order in which they are measured. */
  guide: readonly GuideStep[];
  mates: readonly MateSpec[];
  parameters: readonly ParameterSpec[];
  /** What cannot be built or makes no sense, before the kernel sees it. @param models left out, only numbers are judged */
  refuse(p: Parameters, models?: Models): Finding[];
  /** The part, dimensioned. */
  drawing(p: Parameters): Drawing;
  /** The object with its guide dimensions; dimensions not measured yet are drawn at their example size. */
  objectDrawing(measured: Readonly<Record<string, number>>, p: Parameters): Drawing;
  /** Deterministic. Lies on the bed at z = 0 in its usual pose. */
  solid(p: Parameters, kernel: PartKernel, kernels: Kernels): Body;
  /**
   * Where each mate is on the solid, by analytic description.
   * @param models left out, one that follows an object is where it usually is
   */
  surfaces(p: Parameters, models?: Models): MateSurface[];
  /** Recipe's own reading of the finished triangles. */
  checks(p: Parameters, solid: BuiltSolid, context: CheckContext, models?: Models): Finding[];
  /** What makes it go on, off and stay home more easily or less, at the same size. */
  levers?(p: Parameters): EffortLever[];
  /** Its round surfaces that grip on one axis, so that what they ask of the hand adds up. */
  grips?(p: Parameters): RoundGrip[];
  demo: DemoObject;
  /** What a maker put on it, in order; see additions/. */
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
  /** One or two sentences at the bench. */
  how: string;
  /** Whether these parameters need it. */
  needed(p: Parameters): boolean;
  /** The parameter that must not be larger: beyond it there is something in the way. */
  bounds?: string;
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

/** A round surface that grips, with our wall behind it. */
export interface RoundGrip extends GripWall {
  mate: string;
  /** Of a ridge: the object's dimension it passes before it is home, and its slopes. */
  passes?: { dimension: string; width: number; leads: number; holds: number };
}

/** In one piece where it is drawn, whatever hand it was made for. */
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
 * A version is kept with the numbers its recipe had then: what the recipe got since takes the demo object's value,
 * which is the way it was before.
 */
export const wholeOf = ({ demo }: Pick<Recipe, 'demo'>, kept: Parameters): Parameters => ({
  ...demo.parameters,
  ...kept,
});
