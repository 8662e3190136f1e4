import { kindOf } from '../shape/additions';
import { type Addition, inOrder } from '../shape/additions/addition';
import { longName, surfaceNameOf } from '../shape/additions/with-additions';
import { usersOf } from './derived';
import type { Dimension, JobDocument, Mate } from './document';
import { defaultWant, EditRefused, requireDimension, withPart } from './edit-tools';
import type { Edit } from './edits';
import { dimensionOf, recipeOf } from './parts';
import type { Workshop } from './workshop';

/** Edits of what is put on a part, of the parts of a job, and of what goes with what. */

function requireAddition(document: JobDocument, partId: string, id: string): Addition {
  const found = document.parts.find(p => p.id === partId)?.additions.find(a => a.id === id);
  if (!found) throw new EditRefused('That addition is no longer there.');
  return found;
}

export function withAddition(
  document: JobDocument,
  edit: Extract<Edit, { kind: 'add-addition' }>,
): JobDocument {
  return withPart(document, edit.partId, part => {
    if (part.additions.some(a => a.id === edit.addition.id))
      throw new EditRefused(`There is an addition “${edit.addition.id}” already: take another name.`);
    const order = 1 + Math.max(0, ...part.additions.map(a => a.order));
    return { ...part, additions: [...part.additions, { ...edit.addition, order }] };
  });
}

export function changedAddition(
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

/** Past its neighbour in the list. */
export function movedAddition(document: JobDocument, partId: string, id: string, by: -1 | 1): JobDocument {
  const own = requireAddition(document, partId, id);
  return withPart(document, partId, part => {
    const list = inOrder(part.additions);
    const other = list[list.findIndex(a => a.id === id) + by];
    if (!other) throw new EditRefused(by < 0 ? 'It is the first already.' : 'It is the last already.');
    const orders: Record<string, number> = { [own.id]: other.order, [other.id]: own.order };
    return { ...part, additions: part.additions.map(a => ({ ...a, order: orders[a.id] ?? a.order })) };
  });
}

/** Its numbers and its mate go with it; what was measured for it stays. */
export function withoutAddition(document: JobDocument, partId: string, id: string): JobDocument {
  const addition = requireAddition(document, partId, id);
  const own = new Set(kindOf(addition.kind).parameters.map(spec => longName(addition, spec.name)));
  const without = withPart(document, partId, part => ({
    ...part,
    additions: part.additions.filter(a => a.id !== id),
    parameters: Object.fromEntries(Object.entries(part.parameters).filter(([name]) => !own.has(name))),
  }));
  return {
    ...without,
    mates: without.mates.filter(m => m.ours.part !== partId || m.ours.surface !== surfaceNameOf(addition)),
  };
}

/** One of its numbers follows a reading, as a mate of its own; or no longer. */
export function withFit(
  document: JobDocument,
  { partId, additionId, dimensionId }: Extract<Edit, { kind: 'addition-fits' }>,
  workshop: Pick<Workshop, 'materials' | 'windows'>,
): JobDocument {
  const addition = requireAddition(document, partId, additionId);
  const part = document.parts.find(p => p.id === partId)!;
  const isItsOwn = (m: Mate) => m.ours.part === partId && m.ours.surface === surfaceNameOf(addition);
  const before = addition.fits;
  const loose = changedAddition(document, partId, additionId, ({ fits: _, ...a }) => a);
  const name = before && longName(addition, before.parameter);
  const without = {
    ...withPart(loose, partId, p => ({
      ...p,
      parameters: Object.fromEntries(Object.entries(p.parameters).filter(([key]) => key !== name)),
    })),
    mates: document.mates.filter(m => !isItsOwn(m)),
  };
  if (dimensionId === null) return without;
  const dimension = requireDimension(document, dimensionId);
  const { fit, parameters } = kindOf(addition.kind);
  const own = Object.fromEntries(
    parameters.flatMap(spec => {
      if (spec.kind !== 'choice' && spec.kind !== 'flag') return [];
      const text = part.parameters[longName(addition, spec.name)]?.text;
      return [
        [
          spec.name,
          spec.kind === 'flag'
            ? text === undefined
              ? spec.default
              : text === 'yes'
            : (text ?? spec.default),
        ],
      ];
    }),
  );
  const parameter = fit?.parameter(own);
  if (!fit || !parameter) throw new EditRefused('No number of it, as it is now, can be set by a reading.');
  const fits = { dimension: dimensionId, parameter, side: fit.side(own), form: fit.form(own) };
  const flexible = workshop.materials.find(m => m.id === part.materialId)?.flexible ?? false;
  const mate: Mate = {
    id: `${partId}-${additionId}`,
    name: addition.name,
    kind: 'fit',
    ours: { of: 'part', part: partId, surface: surfaceNameOf(addition) },
    other: { of: 'object', dimension: dimensionId },
    side: fits.side,
    soft: flexible ? 'ours' : 'none',
    want: defaultWant(fit.want ?? (flexible && fits.form === 'round' ? 'stretch' : 'slide'), workshop),
  };
  const fitted = changedAddition(without, partId, additionId, a => ({ ...a, fits }));
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

/** Its mates go with it; what was measured stays, since readings are not made twice gladly. */
export function withoutPart(document: JobDocument, id: string): JobDocument {
  const part = document.parts.find(p => p.id === id);
  if (!part) throw new EditRefused('That part is no longer there.');
  if (document.parts.length === 1)
    throw new EditRefused('A job has at least one part: remove the job instead.');
  const user = document.mates.find(m => m.ours.part !== id && m.other.of === 'part' && m.other.part === id);
  if (user)
    throw new EditRefused(
      `“${user.name}” of another part goes with it: let that fit the object again first.`,
    );
  const others = document.parts.filter(p => p.id !== id);
  const used = (d: Dimension) =>
    d.guide === null ||
    d.readings.length > 0 ||
    usersOf(d.id, document).length > 0 ||
    others.some(p => recipeOf(p).guide.some(step => dimensionOf(p, step.key) === d.id));
  return {
    ...document,
    parts: others,
    mates: document.mates.filter(m => m.ours.part !== id),
    dimensions: document.dimensions.filter(used),
  };
}

/** What a mate's other side is: the object, or another of our parts. */
export function mateWith(document: JobDocument, mateId: string, other: Mate['other']): JobDocument {
  const mate = document.mates.find(m => m.id === mateId);
  if (!mate) throw new EditRefused('That mate is no longer there.');
  if (other.of === 'object') requireDimension(document, other.dimension);
  else {
    const part = document.parts.find(p => p.id === other.part);
    const surface = part && recipeOf(part).mates.find(m => m.id === other.surface);
    if (!part || !surface) throw new EditRefused('That part has no such surface.');
    if (part.id === mate.ours.part) throw new EditRefused('A part cannot go on itself: choose another part.');
    if (surface.side === mate.side)
      throw new EditRefused(
        `Both are ${mate.side === 'inside' ? 'holes' : 'outsides'}: one of the two must go into the other.`,
      );
    const seen = new Set([mateId]);
    for (let next: Mate | undefined = mateOfSurface(document, other.part, other.surface); next; ) {
      if (seen.has(next.id))
        throw new EditRefused('That goes round in a circle: one of them must fit the object.');
      seen.add(next.id);
      const beyond: Mate['other'] = next.other;
      next = beyond.of === 'part' ? mateOfSurface(document, beyond.part, beyond.surface) : undefined;
    }
  }
  return { ...document, mates: document.mates.map(m => (m.id === mateId ? { ...m, other } : m)) };
}

const mateOfSurface = (document: JobDocument, part: string, surface: string): Mate | undefined =>
  document.mates.find(m => m.ours.part === part && m.ours.surface === surface);
