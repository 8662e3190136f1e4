import { z } from 'zod';
import { kindOf } from '../../shape/additions';
import { Addition, type AdditionKind, inOrder, nameForNew } from '../../shape/additions/addition';
import { PLACE } from '../../shape/additions/place';
import { longName, surfaceNameOf } from '../../shape/additions/with-additions';
import type { Parameters } from '../../shape/recipes/parameters';
import { type FitMate, isFit, type JobDocument, type Mate, ownNumberOf, type Part } from '../document';
import { Id, ParameterText } from '../fields';
import { mirroredTexts, SIDES_CHANGED } from '../mirrored-addition';
import { defineEdit, type EditWorkshop } from './define';
import { defaultWant, EditRefused, nameOf, requireDimension, requirePart, withPart } from './tools';

/** Edits of additions: features added to or cut from a part. */

const about = { partId: Id, additionId: Addition.shape.id };

function requireAddition(document: JobDocument, partId: string, id: string): Addition {
  const found = document.parts.find(p => p.id === partId)?.additions.find(a => a.id === id);
  if (!found) throw new EditRefused('That addition is no longer there.');
  return found;
}

function withChanged(
  document: JobDocument,
  partId: string,
  id: string,
  change: (a: Addition) => Addition,
): JobDocument {
  requireAddition(document, partId, id);
  return withPart(document, partId, part => ({
    ...part,
    additions: part.additions.map(a => (a.id === id ? change(a) : a)),
  }));
}

const quoted = (document: JobDocument, partId: string, id: string): string =>
  `“${document.parts.find(p => p.id === partId)?.additions.find(a => a.id === id)?.name ?? 'an addition'}”`;

export const addAddition = defineEdit(
  z.object({
    kind: z.literal('add-addition'),
    partId: Id,
    addition: Addition.omit({ order: true, fits: true }),
    /** Initial numbers, by their short names. */
    begins: z.record(z.string().max(20), ParameterText).optional(),
  }),
  {
    apply: (document, { partId, addition, begins: own = {} }) =>
      withPart(document, partId, part => {
        if (part.additions.some(a => a.id === addition.id))
          throw new EditRefused(`There is an addition “${addition.id}” already: take another name.`);
        const order = 1 + Math.max(0, ...part.additions.map(a => a.order));
        const kind = kindOf(addition.kind);
        const strange = Object.keys(own).find(name => !kind.parameters.some(p => p.name === name));
        if (strange) throw new EditRefused(`“${kind.title}” has no “${strange}”.`);
        const fresh = Object.entries(kind.fresh ?? {}).map(([name, text]) => [
          name,
          { text, unit: 'mm' as const },
        ]);
        const begins = [...fresh, ...Object.entries(own)].map(([name, text]) => [
          longName(addition, String(name)),
          text,
        ]);
        return {
          ...part,
          additions: [...part.additions, { ...addition, order }],
          parameters: { ...part.parameters, ...Object.fromEntries(begins) },
        };
      }),
    words: ({ addition }) => `Added “${addition.name}”`,
  },
);

export const changeAddition = defineEdit(
  z.object({
    kind: z.literal('addition'),
    ...about,
    change: Addition.pick({ name: true, on: true }).partial(),
  }),
  {
    apply(document, { partId, additionId, change }) {
      const addition = requireAddition(document, partId, additionId);
      const changed = withChanged(document, partId, additionId, a => ({ ...a, ...change }));
      if (change.name === undefined) return changed;
      // Its mate goes by the addition's name, in the ledger and at the try.
      const name = change.name;
      return {
        ...changed,
        mates: changed.mates.map(m => (isMateOf(m, partId, addition) ? { ...m, name } : m)),
      };
    },
    words({ partId, additionId, change }, document) {
      const name = quoted(document, partId, additionId);
      return change.on === undefined ? `Renamed ${name}` : `Switched ${name} ${change.on ? 'on' : 'off'}`;
    },
  },
);

/** The face that the original adds does not count as a new outermost face for its copy. */
function onSameFace(
  kind: Pick<AdditionKind, 'parameters'>,
  id: string,
  was: string,
  is: string = was,
): string | null {
  if (!kind.parameters.some(s => s.name === 'place' && s.kind === 'place')) return null;
  const [, plane, , at, like] = PLACE.exec(was) ?? [];
  const same = was === is && plane === undefined && at === undefined;
  return same && like === undefined ? `${was} like ${id}` : null;
}

/** Another one like it, or its mirror image, after all others: with its numbers, its mate and a name of its own. */
export const copyAddition = defineEdit(
  z.object({
    kind: z.literal('copy-addition'),
    ...about,
    id: Addition.shape.id,
    mirror: z.enum(SIDES_CHANGED).optional(),
  }),
  {
    apply(document, { partId, additionId, id, mirror }) {
      const from = requireAddition(document, partId, additionId);
      const part = requirePart(document, partId);
      if (part.additions.some(a => a.id === id))
        throw new EditRefused(`There is an addition “${id}” already: take another name.`);
      const name = nameForNew(from.name, part.additions);
      const [was, is] = [longName(from, ''), longName({ id }, '')];
      const itself = new RegExp(`\\b${was}`, 'g');
      const numbers = Object.entries(part.parameters)
        .filter(([key]) => key.startsWith(was))
        .map(([key, said]) => [
          is + key.slice(was.length),
          // References to the addition itself become references to the copy.
          { ...said, text: said.text.replace(itself, is) },
        ]);
      const kind = kindOf(from.kind);
      const said = (short: string) =>
        part.parameters[longName(from, short)]?.text ??
        String(kind.parameters.find(s => s.name === short)?.default ?? '0');
      const mirrored = mirror ? mirroredTexts(kind, said, mirror) : {};
      const beside = onSameFace(kind, from.id, said('place'), mirrored.place);
      const changed =
        mirror || beside
          ? Object.entries({ ...mirrored, ...(beside ? { place: beside } : {}) }).map(([short, text]) => [
              longName({ id }, short),
              { text: text.replace(itself, is), unit: short === 'turn' ? ('deg' as const) : ('mm' as const) },
            ])
          : [];
      const copy = { ...from, id, name, order: 1 + Math.max(...part.additions.map(a => a.order)) };
      return {
        ...withPart(document, partId, p => ({
          ...p,
          additions: [...p.additions, copy],
          parameters: { ...p.parameters, ...Object.fromEntries([...numbers, ...changed]) },
        })),
        mates: document.mates.flatMap(m =>
          isFit(m) && isMateOf(m, partId, from)
            ? [m, { ...m, id: `${partId}-${id}`, name, ours: { ...m.ours, surface: surfaceNameOf(copy) } }]
            : [m],
        ),
      };
    },
    words: ({ partId, additionId, mirror }, document) =>
      `${mirror ? 'Mirrored' : 'Copied'} ${quoted(document, partId, additionId)}`,
  },
);

/** Moves it past its neighbour in the list. */
export const moveAddition = defineEdit(
  z.object({ kind: z.literal('move-addition'), ...about, by: z.union([z.literal(-1), z.literal(1)]) }),
  {
    apply(document, { partId, additionId, by }) {
      const own = requireAddition(document, partId, additionId);
      return withPart(document, partId, part => {
        const list = inOrder(part.additions);
        const other = list[list.findIndex(a => a.id === additionId) + by];
        if (!other) throw new EditRefused(by < 0 ? 'It is the first already.' : 'It is the last already.');
        const orders: Record<string, number> = { [own.id]: other.order, [other.id]: own.order };
        return { ...part, additions: part.additions.map(a => ({ ...a, order: orders[a.id] ?? a.order })) };
      });
    },
    words: ({ partId, additionId }, document) => `Moved ${quoted(document, partId, additionId)}`,
  },
);

/** Moves it between two others, wherever they are: this is what dragging in the list does. */
export const placeAddition = defineEdit(
  z.object({
    kind: z.literal('place-addition'),
    ...about,
    /** The one it comes before; null for the end of the list. */
    before: Addition.shape.id.nullable(),
  }),
  {
    apply(document, { partId, additionId, before }) {
      requireAddition(document, partId, additionId);
      if (before !== null) requireAddition(document, partId, before);
      return withPart(document, partId, part => {
        const others = inOrder(part.additions).filter(a => a.id !== additionId);
        const at = before === null ? others.length : others.findIndex(a => a.id === before);
        if (at < 0) return part;
        const [low, high] = [others[at - 1]?.order, others[at]?.order];
        const order = low === undefined ? (high ?? 1) - 1 : high === undefined ? low + 1 : (low + high) / 2;
        return {
          ...part,
          additions: part.additions.map(a => (a.id === additionId ? { ...a, order } : a)),
        };
      });
    },
    words: ({ partId, additionId }, document) => `Moved ${quoted(document, partId, additionId)}`,
  },
);

/** Its numbers and its mate are removed with it; dimensions that were measured for it stay. */
export const removeAddition = defineEdit(z.object({ kind: z.literal('remove-addition'), ...about }), {
  apply(document, { partId, additionId }) {
    const addition = requireAddition(document, partId, additionId);
    const own = new Set(kindOf(addition.kind).parameters.map(spec => longName(addition, spec.name)));
    const without = withPart(document, partId, part => ({
      ...part,
      additions: part.additions.filter(a => a.id !== additionId),
      parameters: Object.fromEntries(Object.entries(part.parameters).filter(([name]) => !own.has(name))),
    }));
    const gone = (m: Mate) =>
      isMateOf(m, partId, addition) || (m.ours.part === partId && own.has(ownNumberOf(m) ?? ''));
    return { ...without, mates: without.mates.filter(m => !gone(m)) };
  },
  words: ({ partId, additionId }, document) => `Removed ${quoted(document, partId, additionId)}`,
});

const isMateOf = (mate: Mate, partId: string, addition: Addition): boolean =>
  mate.ours.part === partId && mate.ours.surface === surfaceNameOf(addition);

/** The addition's choices and flags as they are set, by short name. */
function choicesOf(part: Part, addition: Addition): Parameters {
  const choices: Record<string, string | boolean> = {};
  for (const spec of kindOf(addition.kind).parameters) {
    const text = part.parameters[longName(addition, spec.name)]?.text;
    if (spec.kind === 'choice') choices[spec.name] = text ?? spec.default;
    else if (spec.kind === 'flag') choices[spec.name] = text === undefined ? spec.default : text === 'yes';
  }
  return choices;
}

/** The addition no longer has to fit anything: its number and its mate are removed. */
function withoutFit(document: JobDocument, partId: string, addition: Addition): JobDocument {
  const name = addition.fits && longName(addition, addition.fits.parameter);
  const loose = withChanged(document, partId, addition.id, ({ fits: _, ...a }) => a);
  return {
    ...withPart(loose, partId, p => ({
      ...p,
      parameters: Object.fromEntries(Object.entries(p.parameters).filter(([key]) => key !== name)),
    })),
    mates: document.mates.filter(m => !isMateOf(m, partId, addition)),
  };
}

function withFit(
  document: JobDocument,
  partId: string,
  addition: Addition,
  dimensionId: string,
  workshop: EditWorkshop,
): JobDocument {
  const part = requirePart(document, partId);
  const dimension = requireDimension(document, dimensionId);
  const { fit } = kindOf(addition.kind);
  const own = choicesOf(part, addition);
  const parameter = fit?.parameter(own);
  if (!fit || !parameter) throw new EditRefused('No number of it, as it is now, can be set by a reading.');
  const fits = { dimension: dimensionId, parameter, side: fit.side(own), form: fit.form(own) };
  const flexible = workshop.materials.find(m => m.id === part.materialId)?.flexible ?? false;
  const mate: FitMate = {
    id: `${partId}-${addition.id}`,
    name: addition.name,
    kind: 'fit',
    ours: { of: 'part', part: partId, surface: surfaceNameOf(addition) },
    other: { of: 'object', dimension: dimensionId },
    side: fits.side,
    soft: flexible ? 'ours' : 'none',
    want: defaultWant(fit.want ?? (flexible && fits.form === 'round' ? 'stretch' : 'slide'), workshop),
  };
  const fitted = withChanged(withoutFit(document, partId, addition), partId, addition.id, a => ({
    ...a,
    fits,
  }));
  return {
    ...withPart(fitted, partId, p => ({
      ...p,
      parameters: {
        ...p.parameters,
        [longName(addition, parameter)]: { text: `${dimension.name}.model`, unit: 'mm' },
      },
    })),
    mates: [...fitted.mates, mate],
  };
}

/** Makes one of its numbers follow a reading, as a mate of its own, or stops that. */
export const additionFits = defineEdit(
  z.object({
    kind: z.literal('addition-fits'),
    ...about,
    /** The object's dimension; null to fit nothing any more. */
    dimensionId: Id.nullable(),
  }),
  {
    apply(document, { partId, additionId, dimensionId }, workshop) {
      const addition = requireAddition(document, partId, additionId);
      return dimensionId === null
        ? withoutFit(document, partId, addition)
        : withFit(document, partId, addition, dimensionId, workshop);
    },
    words({ partId, additionId, dimensionId }, document) {
      const name = quoted(document, partId, additionId);
      return dimensionId === null
        ? `Let ${name} fit nothing`
        : `Let ${name} fit ${nameOf.dimension(document, dimensionId)}`;
    },
  },
);
