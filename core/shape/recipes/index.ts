import { boardTray } from './board-tray';
import { bush } from './bush';
import { contourFoot } from './contour-foot';
import { cradle } from './cradle';
import { driveBlade } from './drive-blade';
import { ductAdapter } from './duct-adapter';
import { hingeLeaf } from './hinge-leaf';
import { plateAdapter } from './plate-adapter';
import { profilePart } from './profile-part';
import { recess } from './recess';
import type { Recipe } from './recipe';
import { rimFork } from './rim-fork';
import { roundCap } from './round-cap';
import { screwHandle } from './screw-handle';
import { sectionCap } from './section-cap';
import { socketKnob } from './socket-knob';
import { steppedSleeve } from './stepped-sleeve';
import { threadedCover } from './threaded-cover';
import { toolBlock } from './tool-block';
import { tubeAdapter } from './tube-adapter';
import { tubeClip } from './tube-clip';
import { wallPlate } from './wall-plate';

/** Every recipe there is, in the order in which they are offered. */
export const RECIPES: readonly Recipe[] = [
  roundCap,
  sectionCap,
  socketKnob,
  bush,
  hingeLeaf,
  driveBlade,
  screwHandle,
  profilePart,
  tubeAdapter,
  ductAdapter,
  steppedSleeve,
  threadedCover,
  plateAdapter,
  cradle,
  tubeClip,
  rimFork,
  toolBlock,
  boardTray,
  wallPlate,
  recess,
  contourFoot,
];

export const recipeById = (id: string): Recipe | undefined => RECIPES.find(recipe => recipe.id === id);

/** @throws RangeError when the recipe is unknown */
export function requireRecipe(id: string): Recipe {
  const recipe = recipeById(id);
  if (!recipe)
    throw new RangeError(`There is no recipe “${id}”: take one of ${RECIPES.map(r => r.id).join(', ')}.`);
  return recipe;
}
