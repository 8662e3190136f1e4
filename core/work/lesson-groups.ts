import { beliefFor, type SurfaceKind } from '../fit/print-bias';
import type { Workshop } from '../job/workshop';
import { HAND_PRIOR, handOfLesson } from '../learn/hand';
import { beliefAfter, countingOf, type Drift, driftIn, type Evidence, type Muted } from '../learn/lessons';

/** What the workshop's jobs taught about one kind of surface on one printer in one plastic. mm */
export interface LessonGroup {
  printerId: string | null;
  materialId: string | null;
  /** A kind of surface, or a hand. */
  surface: string;
  /** Whose hand it is; null for a printer's surfaces. */
  hand: string | null;
  /** “Holes, on the filament printer, in PETG”. */
  words: string;
  /** The oldest first, including those that are left out. */
  evidence: Evidence[];
  counting: Evidence[];
  muted: Muted[];
  /** The belief without lessons, and with those that count. */
  before: { mean: number; sd: number };
  after: { mean: number; sd: number };
  drift: Drift | null;
}

const SURFACES: Record<string, string> = {
  hole: 'Holes',
  slot: 'Slots',
  peg: 'Pegs and plugs',
  rib: 'Ribs and outside widths',
};
const surfaceWords = (surface: string): string =>
  surface.endsWith('-on-side')
    ? `${SURFACES[surface.slice(0, -8)] ?? surface}, lying on the bed`
    : (SURFACES[surface] ?? surface);

/** @param now an ISO date */
export function lessonGroups(evidence: readonly Evidence[], workshop: Workshop, now: string): LessonGroup[] {
  const groups = new Map<string, Evidence[]>();
  for (const e of evidence) {
    const key = [e.surface, e.printerId, e.materialId].join('/');
    groups.set(key, [...(groups.get(key) ?? []), e]);
  }
  return [...groups.values()].map(all => {
    const [{ printerId, materialId, surface }] = all as [Evidence];
    const kind = surface as SurfaceKind;
    const muted = (workshop.lessonsMuted ?? []).filter(
      m => m.printerId === printerId && m.materialId === materialId && m.surface === surface,
    );
    const counting = countingOf(all, muted, { printerId, materialId, surface });
    const hand = handOfLesson(surface);
    const side = kind.startsWith('hole') || kind.startsWith('slot') ? 'inside' : 'outside';
    const before = hand === null ? beliefFor(workshop.belief, side, kind) : HAND_PRIOR;
    const printer = workshop.printers.find(p => p.id === printerId)?.name ?? 'a printer that is gone';
    const plastic = workshop.materials.find(m => m.id === materialId)?.name ?? 'a plastic that is gone';
    return {
      printerId,
      materialId,
      surface,
      hand,
      words: hand === null ? `${surfaceWords(surface)}: ${printer}, ${plastic}` : `The hand of “${hand}”`,
      evidence: all.toSorted((a, b) => (a.at < b.at ? -1 : 1)),
      counting,
      muted,
      before: { mean: before.mean, sd: before.sd },
      after: beliefAfter(before, counting, now),
      drift: driftIn(counting),
    };
  });
}
