import { z } from 'zod';
import { surfaceNameOf } from '../../shape/additions/with-additions';
import { carriesMate } from '../../shape/own-mates';
import {
  type FitMate,
  isFit,
  type JobDocument,
  Mate,
  MateSide,
  numberOfMate,
  ownNumberOf,
  SignedMate,
  Want,
} from '../document';
import { Id, ParameterText, Title } from '../fields';
import { matesOf } from '../new-job';
import { recipeOf } from '../parts';
import { defineEdit } from './define';
import { EditRefused, nameOf, requireDimension, requirePart, withPart } from './tools';

/** Edits of how surfaces should feel, and of what they mate with. */

function requireMate(document: JobDocument, id: string): Mate {
  const found = document.mates.find(m => m.id === id);
  if (!found) throw new EditRefused('That mate is no longer there.');
  return found;
}

function requireFit(document: JobDocument, id: string): FitMate {
  const found = requireMate(document, id);
  if (!isFit(found)) throw new EditRefused(`“${found.name}” is judged by an amount: it has no feel.`);
  return found;
}

const withFit = (document: JobDocument, id: string, change: (m: FitMate) => FitMate): JobDocument => ({
  ...document,
  mates: document.mates.map(m => (m.id === id && isFit(m) ? change(m) : m)),
});

/** A strain window needs an elastic side; switching to a clearance window changes nothing else. */
const softFor = (soft: FitMate['soft'], want: Want) =>
  want.window.unit === 'strain' && soft === 'none' ? 'ours' : soft;

export const want = defineEdit(
  z.object({
    kind: z.literal('want'),
    mateId: Id,
    want: Want,
    soft: z.enum(['none', 'ours', 'theirs']).optional(),
  }),
  {
    apply(document, edit) {
      requireFit(document, edit.mateId);
      return withFit(document, edit.mateId, m => ({
        ...m,
        want: edit.want,
        soft: edit.soft ?? softFor(m.soft, edit.want),
      }));
    },
    words: (edit, document) => `${nameOf.mate(document, edit.mateId)} should be ${edit.want.name}`,
  },
);

const mateOfSurface = (document: JobDocument, part: string, surface: string): Mate | undefined =>
  document.mates.find(m => m.ours.part === part && m.ours.surface === surface);

/** Refuses a partner that has no such surface, is on the same side, or leads back to this mate. */
function requirePartner(
  document: JobDocument,
  mate: FitMate,
  other: Extract<MateSide, { of: 'part' }>,
): void {
  const part = document.parts.find(p => p.id === other.part);
  const surface = part && recipeOf(part).mates.find(m => m.id === other.surface);
  if (!part || !surface) throw new EditRefused('That part has no such surface.');
  if (part.id === mate.ours.part) throw new EditRefused('A part cannot go on itself: choose another part.');
  if (surface.side === mate.side)
    throw new EditRefused(
      `Both are ${mate.side === 'inside' ? 'holes' : 'outsides'}: one of the two must go into the other.`,
    );
  const seen = new Set([mate.id]);
  for (let next: Mate | undefined = mateOfSurface(document, other.part, other.surface); next; ) {
    if (seen.has(next.id))
      throw new EditRefused('That goes round in a circle: one of them must fit the object.');
    seen.add(next.id);
    const beyond: MateSide = next.other;
    next = beyond.of === 'part' ? mateOfSurface(document, beyond.part, beyond.surface) : undefined;
  }
}

/** Sets a mate's other side: the object, or another of our parts. */
export const mateWith = defineEdit(z.object({ kind: z.literal('mate-with'), mateId: Id, other: MateSide }), {
  apply(document, { mateId, other }) {
    const mate = requireFit(document, mateId);
    if (other.of === 'object') requireDimension(document, other.dimension);
    else requirePartner(document, mate, other);
    return withFit(document, mateId, m => ({ ...m, other }));
  },
  words: ({ mateId, other }, document) =>
    `${nameOf.mate(document, mateId)} goes with ${other.of === 'part' ? nameOf.part(document, other.part) : 'the object'}`,
});

const numberOf = (document: JobDocument, partId: string, number: string) => {
  const spec = recipeOf(requirePart(document, partId)).parameters.find(p => p.name === number);
  if (!spec || !carriesMate(spec)) throw new EditRefused('That part has no such length or angle.');
  return spec;
};

/** Every mate of a part on one of its numbers: proposed ones, those of additions and the maker's own. */
function matesOn(document: JobDocument, partId: string, number: string): Mate[] {
  const { mates } = recipeOf(requirePart(document, partId));
  return document.mates.filter(m => m.ours.part === partId && numberOfMate(m, mates) === number);
}

const withNumber = (
  document: JobDocument,
  partId: string,
  number: string,
  text: z.infer<typeof ParameterText> | null,
): JobDocument =>
  withPart(document, partId, part => {
    const { [number]: _, ...rest } = part.parameters;
    return { ...part, parameters: text === null ? rest : { ...rest, [number]: text } };
  });

/** Adds a mate that no recipe foresaw: from then on its number follows the ledger. */
export const addMate = defineEdit(z.object({ kind: z.literal('add-mate'), mate: Mate }), {
  apply(document, { mate }) {
    const number = ownNumberOf(mate);
    if (number === undefined) throw new EditRefused('A mate of your own says which number it is about.');
    if (document.mates.some(m => m.id === mate.id)) throw new EditRefused('That mate is there already.');
    const { part: partId } = mate.ours;
    const spec = numberOf(document, partId, number);
    if (mate.other.of !== 'object') throw new EditRefused('Make it fit the object first, then another part.');
    const dimension = requireDimension(document, mate.other.dimension);
    const isAngle = spec.measure === 'angle';
    if (isAngle !== (dimension.kind === 'angle') || isAngle !== (mate.kind === 'angle'))
      throw new EditRefused(
        isAngle
          ? 'That number is an angle: it goes with an angle, and is judged as one.'
          : 'That number is a length: it cannot be an angle.',
      );
    const taken = matesOn(document, partId, number).length > 0;
    const added = { ...document, mates: [...document.mates, mate] };
    // Where another mate already sets the number, they share it.
    if (taken) return added;
    return withNumber(added, partId, number, {
      text: `${dimension.name}.model`,
      unit: isAngle ? 'deg' : 'mm',
    });
  },
  words: ({ mate }, document) => `${mate.name} of ${nameOf.part(document, mate.ours.part)} must fit`,
});

/** Only what the maker may change of any mate; its number and its dimension stay. */
export const changeMate = defineEdit(
  z.object({
    kind: z.literal('change-mate'),
    mateId: Id,
    name: Title.max(120).optional(),
    tolerance: SignedMate.shape.tolerance.optional(),
    sense: SignedMate.shape.sense.optional(),
  }),
  {
    apply(document, { mateId, name, tolerance, sense }) {
      const mate = requireMate(document, mateId);
      if (isFit(mate) && (tolerance || sense))
        throw new EditRefused(`“${mate.name}” is judged by a feel: it has a want, not a tolerance.`);
      return {
        ...document,
        mates: document.mates.map((m): Mate => {
          if (m.id !== mateId) return m;
          const named = { ...m, name: name ?? m.name };
          return isFit(named)
            ? named
            : { ...named, tolerance: tolerance ?? named.tolerance, sense: sense ?? named.sense };
        }),
      };
    },
    words: ({ mateId, name }, document) =>
      name === undefined
        ? `Changed what is right for ${nameOf.mate(document, mateId)}`
        : `${nameOf.mate(document, mateId)} is called ${name}`,
  },
);

/**
 * It need not fit anything any more. Its number keeps its drawn value, since a number that follows nothing would jump
 * to the example size.
 */
export const dropMate = defineEdit(
  z.object({
    kind: z.literal('drop-mate'),
    mateId: Id,
    /** What sets its number from now on; null where another mate already does. */
    stays: ParameterText.nullable(),
  }),
  {
    apply(document, { mateId, stays }) {
      const mate = requireMate(document, mateId);
      const { part: partId, surface } = mate.ours;
      const user = document.mates.find(
        m => m.other.of === 'part' && m.other.part === partId && m.other.surface === surface,
      );
      if (user)
        throw new EditRefused(
          `“${user.name}” of another part goes with it: make that fit the object again first.`,
        );
      const part = requirePart(document, partId);
      const spec = recipeOf(part).mates.find(s => s.id === surface);
      const number = ownNumberOf(mate) ?? spec?.parameter;
      const without = { ...document, mates: document.mates.filter(m => m.id !== mateId) };
      const addition = part.additions.find(a => surfaceNameOf(a) === surface);
      const loose = addition
        ? withPart(without, partId, p => ({
            ...p,
            additions: p.additions.map(({ fits, ...a }) => (a.id === addition.id ? a : { ...a, fits })),
          }))
        : without;
      if (number === undefined || matesOn(loose, partId, number).length > 0) return loose;
      return withNumber(loose, partId, number, stays);
    },
    words: ({ mateId }, document) => `${nameOf.mate(document, mateId)} need not fit any more`,
  },
);

/** A surface of the recipe that was dropped must fit again, as the recipe proposes. */
export const proposeMate = defineEdit(
  z.object({ kind: z.literal('propose-mate'), partId: Id, surface: z.string().max(40) }),
  {
    apply(document, { partId, surface }, workshop) {
      const part = requirePart(document, partId);
      const recipe = recipeOf(part);
      const spec = recipe.mates.find(s => s.id === surface);
      if (!spec) throw new EditRefused('That part has no such surface.');
      if (mateOfSurface(document, partId, surface)) throw new EditRefused('It must fit already.');
      const material = workshop.materials.find(m => m.id === part.materialId);
      const ids = new Set(document.mates.map(m => m.id));
      const [proposed] = matesOf(
        part,
        { ...recipe, mates: [spec] },
        { flexible: material?.flexible ?? false },
        workshop,
        ids.has(spec.id) ? `${partId}-` : '',
      );
      return withNumber({ ...document, mates: [...document.mates, proposed!] }, partId, spec.parameter, null);
    },
    words: ({ partId, surface }, document) => {
      const spec = recipeOf(requirePart(document, partId)).mates.find(s => s.id === surface);
      return `${spec?.name ?? 'A surface'} must fit again`;
    },
  },
);
