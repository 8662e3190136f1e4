import type { SurfaceKind } from '../fit/print-bias';
import type { FitMate } from '../job/document';
import { kindInPose } from '../print/surface-orientation';
import type { Recipe } from '../shape/recipes/recipe';
import { knownOf, type Made } from './choices';

/** The kind of our surface for the printer, where the part is printed in its pose. */
export const kindOn = (mate: Pick<FitMate, 'side' | 'ours'>, recipe: Recipe, made: Made): SurfaceKind =>
  kindInPose({ side: mate.side, surface: mate.ours.surface }, recipe, {
    pose: made.pose,
    choices: knownOf(recipe, made),
  });
