import { z } from 'zod';
import type { JobDocument } from '../document';
import { Id } from '../fields';
import { Refusal, Scan } from '../scans';
import { defineEdit } from './define';
import { EditRefused } from './tools';

/** Edits of the scans of the object, and of how they are prepared before anything is measured on them. */

function requireScan(document: JobDocument, id: string): Scan {
  const scan = document.scans.find(s => s.id === id);
  if (!scan) throw new EditRefused('That scan is no longer there.');
  return scan;
}

export const addScan = defineEdit(z.object({ kind: z.literal('add-scan'), scan: Scan }), {
  apply(document, { scan }) {
    if (document.scans.some(s => s.id === scan.id)) throw new EditRefused('This scan is already there.');
    return { ...document, scans: [...document.scans, scan] };
  },
  words: ({ scan }) => `Took in the scan ${scan.label}`,
});

const STEP_WORDS = {
  'without-islands': 'Left out the specks of',
  crop: 'Cropped',
  put: 'Put upright',
  merge: 'Put another together with',
  fill: 'Closed holes of',
  smooth: 'Smoothed',
  reduce: 'Thinned out',
  mirror: 'Completed by symmetry',
} as const;

const piecesWords = (more: number): string =>
  more > 0 ? 'Made a test piece of' : more < 0 ? 'Removed a test piece of' : 'Tried a test piece of';

export const changeScan = defineEdit(
  z.object({
    kind: z.literal('scan'),
    scanId: Id,
    change: Scan.pick({ label: true, unit: true, steps: true, pieces: true }).partial().extend({
      trust: Scan.shape.trust.unwrap().nullable().optional(),
      refused: Refusal.nullable().optional(),
    }),
  }),
  {
    apply(document, { scanId, change: { trust, refused, ...change } }) {
      requireScan(document, scanId);
      const scans = document.scans.map(s => {
        if (s.id !== scanId) return s;
        const { trust: before, refused: was, pieces, ...rest } = { ...s, ...change };
        const why = refused === undefined ? was : (refused ?? undefined);
        // In another unit its scale must be checked again, and its test pieces had another size.
        const isOther = change.unit !== undefined && change.unit !== s.unit;
        const kept = isOther ? undefined : before;
        const now = trust === undefined ? kept : (trust ?? undefined);
        return {
          ...rest,
          ...(pieces && !isOther ? { pieces } : {}),
          ...(now ? { trust: now } : {}),
          ...(why ? { refused: why } : {}),
        };
      });
      return { ...document, scans };
    },
    words({ scanId, change }, document) {
      const scan = document.scans.find(s => s.id === scanId);
      const name = scan?.label ?? 'a scan';
      if (change.refused !== undefined)
        return change.refused === null ? `Used the scan ${name} again` : `Left out the scan ${name}`;
      if (change.trust) return `Settled how large the scan ${name} is`;
      if (change.trust === null) return `Reopened how large the scan ${name} is`;
      if (change.pieces)
        return `${piecesWords(change.pieces.length - (scan?.pieces?.length ?? 0))} the scan ${name}`;
      if (change.unit) return `Said the unit of the scan ${name}`;
      if (change.steps && scan) {
        const last = change.steps.at(-1);
        return last && change.steps.length > scan.steps.length
          ? `${STEP_WORDS[last.kind]} the scan ${name}`
          : `Took back a step on the scan ${name}`;
      }
      return `Named the scan ${name}`;
    },
  },
);

export const removeScan = defineEdit(z.object({ kind: z.literal('remove-scan'), scanId: Id }), {
  apply(document, { scanId }) {
    requireScan(document, scanId);
    const user = document.dimensions.find(d =>
      d.readings.some(r => r.scanned?.scan === scanId && r.struck === null),
    );
    if (user) throw new EditRefused(`${user.label} was read off it: strike or take back that reading first.`);
    const host = document.scans.find(s => s.steps.some(t => t.kind === 'merge' && t.scan === scanId));
    if (host) throw new EditRefused(`It was put together with ${host.label}: take that step back first.`);
    return { ...document, scans: document.scans.filter(s => s.id !== scanId) };
  },
  words: ({ scanId }, document) =>
    `Removed the scan ${document.scans.find(s => s.id === scanId)?.label ?? ''}`.trim(),
});
