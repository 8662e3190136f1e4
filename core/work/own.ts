import { fitsOf, isSigned, type JobDocument, type Mate, ownNumberOf, type Part } from '../job/document';
import type { OwnMateAsked } from '../shape/checks/context';
import type { OwnSurface } from '../shape/own-mates';
import type { LedgerState } from './ledger';
import type { ResolvedPart } from './resolved';

/** What a maker set or named beyond the proposals of the recipe and the ledger. */

/** Mates of a part that no recipe foresaw. */
export const ownSurfaces = (document: JobDocument, part: Part): OwnSurface[] =>
  fitsOf(document).flatMap(({ own, ours, other, name, side }) =>
    own && ours.part === part.id
      ? [
          {
            ...own,
            name,
            side,
            surface: ours.surface,
            dimension: other.of === 'object' ? other.dimension : '',
          },
        ]
      : [],
  );

/** Shape and ledger agree to this, mm: numbers are shown to a hundredth. */
const SAME_NUMBER = 0.005;

/** Numbers where Shape differs from what the ledger would draw, by mate. */
export function ownNumbers(
  { recipe, parameters, problems }: Pick<ResolvedPart, 'recipe' | 'parameters' | 'problems'>,
  proposal: LedgerState,
): Map<string, number> {
  const own = new Map<string, number>();
  for (const { mate, model } of proposal.mates) {
    const spec = recipe.mates.find(m => m.id === mate.ours.surface);
    // A number that cannot be worked out belongs to nobody.
    const drawn = spec && !problems[spec.parameter] && parameters[spec.parameter];
    if (typeof drawn === 'number' && Math.abs(drawn - model) > SAME_NUMBER) own.set(mate.id, drawn);
  }
  for (const { mate, model } of proposal.signed) {
    const drawn = !problems[mate.number] && parameters[mate.number];
    if (typeof drawn === 'number' && Math.abs(drawn - model) > SAME_NUMBER) own.set(mate.id, drawn);
  }
  return own;
}

/** What is to be measured on the finished solid for the maker's own mates. */
export const ownMatesAsked = (mates: readonly Mate[]): OwnMateAsked[] =>
  mates.flatMap(mate => {
    const number = ownNumberOf(mate);
    if (number === undefined) return [];
    const { name, kind, pressed } = mate;
    return [{ name, number, kind, rate: isSigned(mate) ? mate.rate : 1, ...(pressed ? { pressed } : {}) }];
  });
