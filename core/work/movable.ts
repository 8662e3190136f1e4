import type { Expression } from '../quantity/expression';
import { isPlainNumber, movedEdge } from '../shape/outline-edit';
import { type Corner, OutlineTextError, readCorners, writeCorners } from '../shape/outline-text';
import { carriesMate, isAngleOf } from '../shape/own-mates';
import type { ResolvedPart } from './resolved';

/**
 * A number that moves a place when it is made larger: a parameter of the part, or an edge of a written or traced
 * outline.
 */
export interface Movable {
  name: string;
  /** The field that holds it. */
  parameter: string;
  label: string;
  /** mm or degrees; for an edge, how far it was moved outwards. */
  now: number;
  isAngle: boolean;
  /** Whether a mate can use it. An edge has no number of its own. */
  carriesMate: boolean;
  /** Its limits. */
  min: number;
  max: number;
  /** The edit that makes it so large. */
  set(to: number): { name: string; expression: Expression };
}

type About = Pick<ResolvedPart, 'recipe' | 'parameters' | 'expressions'>;

/** An edge is not moved farther than this at once, mm. */
const FARTHEST = 100;
/** In a traced outline with more edges than this only the longest are tried. */
const MOST_EDGES = 40;

/** Everything movable in a part, with its current choices. */
export function movablesOf(about: About): Movable[] {
  const { recipe, parameters } = about;
  const shown = recipe.parameters.filter(spec => spec.shown?.(parameters) ?? true);
  return [
    ...shown.flatMap((spec): Movable[] => {
      const now = parameters[spec.name];
      if (!carriesMate(spec) || typeof now !== 'number') return [];
      const isAngle = isAngleOf([spec], spec.name);
      const unit = isAngle ? ('deg' as const) : ('mm' as const);
      return [
        {
          name: spec.name,
          parameter: spec.name,
          label: spec.label,
          now,
          isAngle,
          carriesMate: true,
          min: spec.min,
          max: spec.max,
          set: to => ({ name: spec.name, expression: { text: to.toFixed(4).replace(/\.?0+$/, ''), unit } }),
        },
      ];
    }),
    ...shown.flatMap(spec => (spec.kind === 'outline' ? edgesOf(spec, about) : [])),
  ];
}

/** Edges between corners that are plain numbers: others are made from sizes and move with those. */
function edgesOf({ name, label }: { name: string; label: string }, { expressions }: About): Movable[] {
  let corners: Corner<string>[];
  try {
    corners = readCorners(expressions[name]?.text ?? '');
  } catch (error) {
    if (error instanceof OutlineTextError) return [];
    throw error;
  }
  const before = (i: number) => corners[(i + corners.length - 1) % corners.length]!;
  const edges = corners.flatMap((corner, at) => {
    const [from, to] = [before(at), corner];
    if (![from.x, from.y, to.x, to.y, corner.trim ?? '0'].every(isPlainNumber)) return [];
    return [{ at, long: Math.hypot(Number(to.x) - Number(from.x), Number(to.y) - Number(from.y)) }];
  });
  return edges
    .sort((a, b) => b.long - a.long)
    .slice(0, MOST_EDGES)
    .map(({ at }): Movable => {
      const now = Number(corners[at]!.trim ?? 0);
      return {
        name: `${name}/${at + 1}`,
        parameter: name,
        label: `${label}, edge into corner ${at + 1}`,
        now,
        isAngle: false,
        carriesMate: false,
        min: now - FARTHEST,
        max: now + FARTHEST,
        set: to => ({
          name,
          expression: { text: writeCorners(movedEdge(corners, at, to)), unit: 'mm' },
        }),
      };
    });
}
