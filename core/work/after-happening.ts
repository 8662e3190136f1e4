import type { Happening } from '../job/history/try';
import { BREAKS, type HappeningKind } from '../learn/happened';
import type { AdditionKindName } from '../shape/additions/addition';
import type { ResolvedPart } from './resolved';
import type { Stage } from './stages';

/** Likely causes of something that happened at a try, and what to do about it. */
export interface HappeningAdvice {
  what: HappeningKind;
  /** By cause, the likeliest first. */
  causes: string[];
  /** The stages where the cures are. */
  leads: { words: string; stage: Stage; key?: string }[];
  /** An addition that cures it at once. */
  addition?: { words: string; kind: AdditionKindName };
}

type Said = Omit<HappeningAdvice, 'what'>;

/** Common practice, no source. */
const BY_KIND: Record<HappeningKind, (happening: Happening, part: ResolvedPart) => Said> = {
  cracked: ({ originalToo }, { part, material }) => ({
    causes: [
      ...(originalToo
        ? [
            'The original broke there too: it carries more there than that shape bears. Copy the seat, but make the root thicker and rounder than it was.',
          ]
        : []),
      'At an inner corner the corner is the cause: round it, the larger the better.',
      'Across a thin wall the wall is: more passes, or more of it.',
      'In a clean line all along a layer it is the way it lay: turn it, so that no load pulls layers apart.',
      `If it snapped without bending, ${material.name} is too brittle for this, or its filament was damp: dry it, or take a tougher one.`,
    ],
    leads: [
      ...(part.loads.length === 0 ? [{ words: 'Say what it has to bear', stage: 'shape' as const }] : []),
      { words: 'Make it thicker', stage: 'shape' },
      { words: 'Lay it another way, or another plastic', stage: 'print' },
    ],
    addition: { words: 'Round its edges', kind: 'edges' },
  }),
  'layers-parted': ({ originalToo }) => ({
    causes: [
      ...(originalToo ? ['The original failed there too: that place carries the load.'] : []),
      'The load pulls across the layers: lay it so that they run along the pull.',
      'Layers that barely stick were printed too cool, too fast or from damp filament.',
      'Three passes of wall and more hold layers together better than any infill.',
    ],
    leads: [{ words: 'Lay it another way', stage: 'print' }],
  }),
  warped: () => ({
    causes: [
      'A corner that lifted lost the bed: clean it, give it a brim, keep draughts away.',
      'Sharp corners and long flat sides lift first: round them in the footprint.',
    ],
    leads: [{ words: 'Another way to lie, or another plastic', stage: 'print' }],
    addition: { words: 'Round its edges', kind: 'edges' },
  }),
  'wrong-hand': (_, { part }) => {
    const isOther = part.additions.some(a => a.kind === 'other-hand');
    return {
      causes: [
        'The hand is not a size: every number stays, and what the surfaces taught stays with them.',
        ...(isOther ? ['This part has the other hand already: take that addition off again.'] : []),
      ],
      leads: isOther ? [{ words: 'Take “other hand” off', stage: 'shape' }] : [],
      ...(isOther ? {} : { addition: { words: 'Make it the other hand', kind: 'other-hand' } }),
    };
  },
  'cannot-get-on': (_, { part }) => ({
    causes: [
      part.goesOn
        ? 'Its way on is drawn: add whatever stands in it as a neighbour, and Sagoma says where it touches.'
        : 'Nobody has said how it goes on: draw the way, and what stands in it.',
      'Where something goes on first, a split part with dowels can be put around it.',
    ],
    leads: [{ words: part.goesOn ? 'Draw what stands in the way' : 'Say how it goes on', stage: 'shape' }],
    addition: { words: 'Split it', kind: 'split' },
  }),
  'cannot-get-off': () => ({
    causes: [
      'An undercut holds it: something is narrower at the mouth than inside.',
      'Walls without draft stick over their whole depth: one degree is enough.',
    ],
    leads: [
      { words: 'Look for the undercut', stage: 'shape' },
      { words: 'A looser want', stage: 'fit' },
    ],
    addition: { words: 'Give its walls draft', kind: 'draft' },
  }),
  tilts: () => ({
    causes: [
      'A short seat tilts however well it fits: make it at least as deep as it is wide, or give it a second one.',
      'A loose one rocks: say “loose” of the surface, then its number moves.',
    ],
    leads: [{ words: 'Make the seat deeper', stage: 'shape' }],
  }),
  leaks: () => ({
    causes: [
      'Through the wall: four passes and more, a little hotter, and no gaps between passes.',
      'Along the seam: keep it off the sealing face, or put it where it can be filed.',
      'Past the joint: leave room for a bead of sealant, or for an O-ring from the shelf.',
    ],
    leads: [
      { words: 'Want a seal there', stage: 'fit' },
      { words: 'Thicker walls', stage: 'shape' },
    ],
  }),
  turns: () => ({
    causes: [
      'A round seat holds by friction alone: a flat, a key or a pin holds it for good.',
      'If it may be tighter, say “loose” of the surface.',
    ],
    leads: [{ words: 'Add a flat or a pin', stage: 'shape' }],
  }),
  covers: () => ({
    causes: ['Draw what must stay reachable as a stretch that stays open: from then on it is checked.'],
    leads: [{ words: 'Keep it open', stage: 'shape' }],
  }),
};

/** One for each thing that happened, in the order in which they were noted. */
export const adviceAfter = (happened: readonly Happening[], part: ResolvedPart): HappeningAdvice[] =>
  happened.map(h => ({ what: h.what, ...BY_KIND[h.what](h, part) }));

export const isBreak = (what: HappeningKind): boolean => BREAKS.includes(what);
