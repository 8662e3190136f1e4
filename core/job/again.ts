import { namesIn } from '../quantity/expression';
import { type JobDocument, ownNumberOf, type Part } from './document';
import { recipeOf } from './parts';

/**
 * A job as a recipe of the maker's own: the same parts, additions, mates, wants and what has to be borne, for another
 * object that is still to be read. What was decided stays; what was measured of the old object goes.
 */
export function forAnotherObject(document: JobDocument, title: string, object: string): JobDocument {
  // Pictures that show where a dimension is read help with the next object too.
  const marked = new Set(document.dimensions.flatMap(d => (d.mark ? [d.mark.on] : [])));
  const { away: _, traces: __, ...kept } = document;
  return {
    ...kept,
    title,
    object: {
      name: object,
      note: '',
      leaves: false,
      goneAt: null,
      toRead: document.object.toRead.map(t => ({ ...t, done: false })),
    },
    // Each new object needs its own cautions read.
    brief: { ...document.brief, cautionsRead: [] },
    parts: document.parts.map(part => followingAgain(document, part)),
    dimensions: document.dimensions.map(d => {
      return {
        ...d,
        readings: d.readings.filter(r => r.source === 'said' && r.u === 0 && r.struck === null),
      };
    }),
    photos: document.photos.filter(p => marked.has(p.id)),
    scans: [],
    // Which standard a thread is follows from its readings.
    threads: document.threads.map(t => ({ ...t, standard: null })),
    service: { since: null, notes: [] },
  };
}

/**
 * The same job as a recipe to keep or share: it is not on the rack; new jobs are started from it in the list of
 * recipes.
 */
export const asOwnRecipe = (document: JobDocument, at: string): JobDocument => ({
  ...forAnotherObject(document, document.title, ''),
  away: { how: 'recipe', at },
});

/** A number the maker set by hand for a mating surface belonged to the old object: it follows the ledger again. */
function followingAgain(document: JobDocument, part: Part): Part {
  const recipe = recipeOf(part);
  const parameters = { ...part.parameters };
  for (const mate of document.mates) {
    if (mate.ours.part !== part.id || mate.other.of !== 'object') continue;
    const { dimension } = mate.other;
    const spec = recipe.mates.find(m => m.id === mate.ours.surface);
    const number = ownNumberOf(mate) ?? spec?.parameter;
    const text = number === undefined ? undefined : parameters[number];
    if (number === undefined || !text || namesIn(text, mate.kind === 'angle' ? 'angle' : 'length').length > 0)
      continue;
    const name = document.dimensions.find(d => d.id === dimension)?.name;
    const bound =
      ownNumberOf(mate) !== undefined ||
      recipe.parameters.find(p => p.name === number)?.addition !== undefined;
    if (bound && name) parameters[number] = { text: `${name}.model`, unit: text.unit };
    else delete parameters[number];
  }
  const { base: _, ...rest } = part;
  return { ...rest, parameters };
}
