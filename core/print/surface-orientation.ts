import { type SurfaceKind, surfaceKind } from '../fit/print-bias';
import { PlaceError, readPlace } from '../shape/additions/place';
import { surfaceNameOf } from '../shape/additions/with-additions';
import type { MateSpec } from '../shape/mates';
import type { Parameters } from '../shape/recipes/parameters';
import { type Recipe, wholeOf } from '../shape/recipes/recipe';
import type { Point3 } from '../shape/vector';
import { dot } from '../shape/vector';
import { type Pose, upOf } from './pose';

/**
 * The orientation of a surface on the bed in a pose, from its true direction: a round surface by its axis, flats by
 * their width.
 */

/** A round surface that leans more than this shows layer steps: cosine of 25°. */
const LEANS = 0.9;
/** A width is built up of layers where it rises more steeply than this: sine of 25°. */
const RISES = 0.42;

export type Orientation = 'upright' | 'leaning' | 'lying' | 'in layers';

/** @param across the direction in which a width is measured; left out for a round one */
export function orientationOf({ axis, across }: { axis: Point3; across?: Point3 }, up: Point3): Orientation {
  if (across) {
    const rises = Math.abs(dot(across, up));
    return rises > LEANS ? 'in layers' : rises > RISES ? 'leaning' : 'upright';
  }
  const along = Math.abs(dot(axis, up));
  return along >= LEANS ? 'upright' : along > RISES ? 'leaning' : 'lying';
}

type WithSurfaces = Pick<Recipe, 'mates' | 'surfaces' | 'additions' | 'demo'>;

/** The kind of a mate's own surface on the bed. @param choices the part's, and the numbers that are known */
export function kindInPose(
  { side, surface }: { side: MateSpec['side']; surface: string },
  recipe: WithSurfaces,
  { pose, choices }: { pose: Pose; choices: Parameters },
): SurfaceKind {
  const spec = recipe.mates.find(m => m.id === surface);
  const form = spec?.form ?? 'round';
  const direction = spec && directionOf(spec, recipe, choices);
  return surfaceKind(side, form, direction ? orientationOf(direction, upOf(pose)) !== 'upright' : false);
}

function directionOf(
  spec: MateSpec,
  recipe: WithSurfaces,
  choices: Parameters,
): { axis: Point3; across?: Point3 } | null {
  // The maker stated it for a surface that no recipe foresaw; only upright or not is known.
  if (spec.lying !== undefined) return spec.lying ? { axis: [0, 1, 0] } : { axis: [0, 0, 1] };
  const whole = wholeOf(recipe, choices);
  const known = recipe.surfaces(whole).find(s => s.mate === spec.id);
  if (known) return { axis: known.axis, ...(spec.form === 'flats' ? { across: known.across } : {}) };
  const bound = recipe.additions?.find(b => surfaceNameOf(b.addition) === spec.id);
  const place = bound?.own(whole).place;
  if (typeof place !== 'string') return null;
  try {
    return { axis: readPlace(place, written => Number(written) || 1).up };
  } catch (error) {
    // A face that cannot be read is reported at its addition.
    if (error instanceof PlaceError) return null;
    throw error;
  }
}
