import { modelAsSliced } from '../job/history/print';
import type { ReworkKind } from '../job/history/rework';
import { drawnClearance } from '../learn/likelihood';
import { MARK_OF } from '../learn/verdict';
import { formatPlain } from '../quantity/format';
import type { MateLedger } from './ledger';
import type { CountedPrint, Outcome } from './outcome';
import type { ResolvedPart } from './resolved';

/** How a print that misses may be made to sit by hand: the way, the amount, and what to watch out for. */
export interface Rescue {
  mateId: string;
  name: string;
  /** The way it is done. */
  how: ReworkKind;
  words: string;
  /** Across the whole width, mm: by how much this print most likely misses. */
  amount: number;
  caution: string;
  /** Working time, minutes. */
  minutes: number;
}

/** A larger amount is not a rescue, mm of the whole width: walls get thin, wraps slip. Common practice, no source. */
const MOST: Record<ReworkKind, number> = { sand: 0.5, ream: 0.5, wrap: 0.5, shim: 2, warm: 0.2 };
const DUST = 'Sand wet or with a mask: the dust does not belong in lungs.';
const BLADE = 'A reamer or a blade turns away from the hand, with the part held in a vice.';
const HEAT = 'Warm water or air only, gloves on: softened plastic burns and warps.';

/** What would put this print right, mate by mate; the quickest first. */
export function rescuesFor(
  outcome: Outcome,
  { version, print }: Pick<CountedPrint, 'version' | 'print'>,
  { ledger, material }: Pick<ResolvedPart, 'ledger' | 'material'>,
): Rescue[] {
  return ledger.mates
    .flatMap((row): Rescue[] => {
      const verdict = outcome.said[row.mate.id]?.verdict;
      const drawn = version.mates.find(m => m.mateId === row.mate.id);
      if (!verdict || verdict === 'right' || !drawn) return [];
      const amount = missOf(row, modelAsSliced(drawn.model, row.mate.side, print));
      const tight = MARK_OF[verdict] === 'tight';
      return (tight ? easing(row, material.flexible) : filling(row))
        .filter(r => amount <= MOST[r.how])
        .map(r => ({ ...r, mateId: row.mate.id, name: row.mate.name, amount, words: r.words(amount) }));
    })
    .sort((a, b) => a.minutes - b.minutes);
}

/** How far this print's clearance most likely is from the middle of what is wanted, mm; at least outside the window. */
function missOf({ window: { min, max }, mate, reading, bias }: MateLedger, model: number): number {
  const clearance = drawnClearance({ side: mate.side, reading }, model) - bias.mean;
  return Number(Math.max((max - min) / 2, Math.abs(clearance - (min + max) / 2)).toFixed(2));
}

type Way = Pick<Rescue, 'how' | 'caution' | 'minutes'> & { words(amount: number): string };

function easing({ mate, kind }: MateLedger, flexible: boolean): Way[] {
  const round = kind.startsWith('hole') || kind.startsWith('peg');
  const per = (amount: number) =>
    `${formatPlain(amount, 2)} mm across, ${formatPlain(amount / 2, 2)} per side`;
  if (flexible)
    return [
      {
        how: 'warm',
        caution: HEAT,
        minutes: 5,
        words: a =>
          `Warm it in hot water and push it on: rubbery plastic gives about ${formatPlain(a, 2)} mm.`,
      },
    ];
  return mate.side === 'inside'
    ? [
        {
          how: round ? 'ream' : 'sand',
          caution: round ? BLADE : DUST,
          minutes: 10,
          words: a =>
            `${round ? 'Ream or scrape' : 'File'} the ${round ? 'bore' : 'slot'} larger by about ${per(a)}; try it often.`,
        },
        {
          how: 'warm',
          caution: HEAT,
          minutes: 5,
          words: a =>
            `Warm it through and push it home once: it settles by about ${formatPlain(a, 2)} mm at the most.`,
        },
      ]
    : [
        {
          how: 'sand',
          caution: DUST,
          minutes: 10,
          words: a => `Sand the outside down by about ${per(a)}; try it often.`,
        },
      ];
}

function filling({ mate }: MateLedger): Way[] {
  const around = mate.side === 'inside' ? 'round what it goes over' : 'round it';
  return [
    {
      how: 'wrap',
      caution: 'Tape creeps under load and in the heat: not where it has to hold somebody.',
      minutes: 3,
      words: a => `Wrap tape ${around}: ${formatPlain(a, 2)} mm across is ${wraps(a)} of 0.1.`,
    },
    {
      how: 'shim',
      caution: 'A loose shim falls out: glue it to one side.',
      minutes: 6,
      words: a => `Glue a strip of ${formatPlain(a, 2)} mm on one side, or half of it on two.`,
    },
  ];
}

/** A wrap counts on both sides. */
function wraps(amount: number): string {
  const count = Math.max(1, Math.round(amount / 0.2));
  return `${count} ${count === 1 ? 'wrap' : 'wraps'}`;
}
