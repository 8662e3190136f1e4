import type { JobDocument } from '../job/document';
import { type History, logbook } from '../job/history';
import { recipeById } from '../shape/recipes';

/** The search looks at no more of one job than this, characters. */
const MOST = 20_000;

/** All text of a job in lower case: the search goes through this. */
export function searchWords(document: JobDocument, history: History): string {
  const { brief, object, service } = document;
  const tries = history.tries.flatMap(t => [t.note, t.by, ...t.happened.map(h => h.where)]);
  const looks = history.looks.flatMap(l => [l.note, l.by, l.where, l.cause]);
  return [
    document.title,
    object.name,
    object.note,
    brief.purpose,
    ...object.toRead.map(t => t.words),
    ...brief.loads.map(l => l.words),
    ...brief.obstacles.map(o => o.words),
    ...document.parts.flatMap(p => [
      p.name,
      recipeById(p.recipe)?.title ?? '',
      ...p.additions.map(a => a.name),
      ...p.loads.map(l => l.words),
      ...p.neighbours.map(n => n.name),
    ]),
    ...document.dimensions.flatMap(d => [d.label, d.name, d.note]),
    ...document.mates.map(m => m.name),
    ...document.photos.map(p => p.label),
    ...service.notes.map(n => n.words),
    ...history.prints.map(p => p.note),
    ...tries,
    ...looks,
    ...logbook(history).map(l => l.words),
  ]
    .filter(Boolean)
    .join('\n')
    .toLowerCase()
    .slice(0, MOST);
}

/** Whether it contains every word that is looked for. */
export const foundIn = (words: string, wanted: string): boolean =>
  wanted
    .toLowerCase()
    .split(/\s+/)
    .every(word => words.includes(word));
