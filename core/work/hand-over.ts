import { counting } from '../job/history';
import { formatPlain } from '../quantity/format';
import { wholePrints } from './outcome';
import type { PartWork } from './part-work';
import { lookAgainAt, lookFor } from './service';
import type { Work } from './work';

/** The sheet that goes with the part to its user, as plain data. Lengths mm, angles degrees. */
export interface HandOver {
  title: string;
  object: string;
  purpose: string;
  parts: {
    name: string;
    /** “Version 3, PETG, printed on 2 November 2026.” */
    made: string;
    /** The surfaces that must fit, with their drawn sizes and verdicts. */
    fits: { name: string; drawn: string; sat: string }[];
  }[];
  limits: string[];
  cautions: string[];
  /** When to look again; empty while nothing is in service. */
  lookAt: string;
  lookFor: string[];
}

const day = (at: string) => at.slice(0, 10);

export function handOverOf(work: Work): HandOver {
  const { document } = work;
  const { brief } = document;
  const parts = work.parts;
  const at = parts.map(p => lookAgainAt(p)).find(x => x !== null) ?? null;
  return {
    title: document.title,
    object: document.object.name,
    purpose: brief.purpose,
    parts: parts.map(partOf),
    limits: limitsOf(work),
    cautions: [...new Set(parts.flatMap(p => p.cautions.map(c => c.message)))],
    lookAt: at === null ? '' : day(at),
    lookFor: [...new Set(parts.flatMap(p => lookFor(p)))],
  };
}

function partOf(part: PartWork): HandOver['parts'][number] {
  const standing = wholePrints(counting(part.history));
  // The print that sat right is handed over; otherwise the last one that came out.
  const shown = standing.findLast(p => p.outcome?.right) ?? standing.at(-1);
  if (!shown) return { name: part.part.name, made: 'Not printed yet.', fits: [] };
  const { print, version, outcome } = shown;
  const plastic = part.workshop.materials.find(m => m.id === version.materialId)?.name ?? 'unknown plastic';
  const nameOf = (id: string) => part.document.mates.find(m => m.id === id)?.name;
  return {
    name: part.part.name,
    made: `Version ${version.number}, ${plastic}, printed on ${day(print.at)}${
      print.pieces > 1 ? `, ${print.pieces} pieces` : ''
    }.`,
    fits: [
      ...version.mates.map(m => ({
        name: nameOf(m.mateId) ?? m.surface,
        drawn: m.model.toFixed(2),
        sat: outcome?.said[m.mateId]?.verdict ?? 'not judged',
      })),
      ...version.signed.map(m => {
        const off = outcome?.said[m.mateId]?.off;
        return {
          name: nameOf(m.mateId) ?? m.name,
          drawn: m.model.toFixed(2),
          sat: off ? `off by ${formatPlain(off.value, 2)}` : 'not judged',
        };
      }),
    ],
  };
}

function limitsOf(work: Work): string[] {
  const { brief } = work.document;
  const softest = work.parts.map(p => p.material).sort((a, b) => a.softensC - b.softensC)[0];
  return [
    ...(brief.hottestC === null ? [] : [`Made for up to ${formatPlain(brief.hottestC, 0)} °C.`]),
    ...(softest
      ? [`Its plastic, ${softest.name}, softens at about ${formatPlain(softest.softensC, 0)} °C.`]
      : []),
    ...brief.loads.map(l =>
      l.forceN === null ? `Load: ${l.words}.` : `Load: ${l.words}, ${formatPlain(l.forceN, 0)} N.`,
    ),
    brief.outdoors ? 'Made for outdoors.' : 'Not made for outdoors.',
    ...(brief.mustHold.length > 0 ? [`It has to hold ${brief.mustHold.join(' and ')}.`] : []),
  ];
}
