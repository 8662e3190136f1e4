import { buildPart } from '../build';
import type { BuiltPart } from '../built-part';
import { type Finding, finding } from '../findings/finding';
import type { Kernels } from '../kernels/kernel';
import { facing } from '../mesh/mesh';
import { RayTree } from '../mesh/rays';
import { placesOn, wentTo } from '../movers';
import type { Parameters } from '../recipes/parameters';
import type { Recipe } from '../recipes/recipe';
import { dot, lengthOfVector, moved, negated, type Point3 } from '../vector';
import type { OwnMateAsked } from './context';

/** The number is made so much larger to see what it moves, mm. */
const NUDGE = 0.4;
/** What is measured across facets is this much less than what was drawn at the most, mm. */
const OFF_BY = 0.08;
/** Faces that look away from each other, or at each other: cosine. */
const OPPOSITE = -0.98;
const PARALLEL = 0.9995;
const START = 0.01;

/**
 * Whether each size that the maker said must fit stands on the finished solid: two faces that far apart, of which the
 * number moves the distance one to one. Found by building the part with that number a little larger.
 */
export function checkOwnMates(
  own: readonly OwnMateAsked[],
  recipe: Recipe,
  parameters: Parameters,
  kernels: Kernels,
): Finding[] {
  if (own.length === 0) return [];
  const build = (p: Parameters) => {
    const outcome = buildPart(recipe, p, kernels, 'screen');
    return outcome.ok ? outcome.part : null;
  };
  const now = build(parameters);
  if (!now) return [];
  return own.flatMap(({ name, number }): Finding[] => {
    const size = parameters[number];
    if (typeof size !== 'number') return [];
    const spec = recipe.parameters.find(p => p.name === number);
    const by = spec?.kind === 'length' && size + NUDGE > spec.max ? -NUDGE : NUDGE;
    const then = build({ ...parameters, [number]: size + by });
    // What cannot be built so much larger is not judged by it.
    if (!then || isThere(now, then, Math.abs(size), by)) return [];
    return [
      finding('own-mate-not-there', 'note', { name, size: Number(size.toFixed(2)) }, { parameter: number }),
    ];
  });
}

function isThere(now: BuiltPart, then: BuiltPart, size: number, by: number): boolean {
  const [before, after] = [new RayTree(now.whole), new RayTree(then.whole)];
  const places = placesOn(now.whole).flatMap(place => {
    const way = wentTo(then.whole, after, place.point, place.normal, by);
    return way === null ? [] : [{ ...place, way }];
  });
  const fits = (d: number, d1: number) => Math.abs(d - size) < OFF_BY && Math.abs(d1 - d - by) < OFF_BY;
  return places.some(({ point, normal, way }) => {
    if (way === 0) return false;
    const there = moved(point, normal, way);
    // A diameter: through the part, or through the air.
    const across = [negated(normal), normal].some(along => {
      const [d, d1] = [acrossTo(now, before, point, along), acrossTo(then, after, there, along)];
      return d !== null && d1 !== null && fits(d, d1);
    });
    // A thickness, a gap or a step: two parallel faces, wherever they are.
    return (
      across ||
      places.some(other => {
        const turned = dot(normal, other.normal);
        if (Math.abs(turned) < PARALLEL) return false;
        const apart = dot(moved(point, other.point, -1), normal);
        return fits(Math.abs(apart), Math.abs(apart + way - turned * other.way));
      })
    );
  });
}

/** How far the face on the other side is, mm; null where there is none that looks the other way. */
function acrossTo(part: BuiltPart, tree: RayTree, point: Point3, along: Point3): number | null {
  const hit = tree.firstHit(moved(point, along, START), along);
  if (!hit) return null;
  const looks = facing(part.whole, hit.triangle);
  const facingBack = Math.abs(dot(looks, along)) / (lengthOfVector(looks) || 1);
  return facingBack > -OPPOSITE ? hit.distance + START : null;
}
