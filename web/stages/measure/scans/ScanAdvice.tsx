import { Advice } from '../Advice';

/** How to scan so that sizes can be trusted. Common practice, no source. */
const ADVICE = [
  [
    'Dull it',
    'Scanners do not see black, clear or shiny places. A thin coat of chalk spray or talc with a brush helps; keep it off what must stay clean, and do not breathe it in.',
  ],
  [
    'Mark it',
    'On plain round things the scanner loses its way. Stick a few paper dots on, unevenly, or lay the thing on a printed sheet with a pattern.',
  ],
  [
    'Plug its holes',
    'A scanner looks a hole only a little way down. A straight peg in each hole shows where its axis is: scan the pegs, and read the hole with calipers.',
  ],
  [
    'Go round once, slowly',
    'The same face scanned again and again becomes a double, swollen skin. Go round once, from two heights, and stop when everything that matters is seen.',
  ],
  [
    'Scan what is beside it',
    'A flat beside a short rim tells the way of the rim’s axis, which the rim itself hardly does.',
  ],
  [
    'Read two sizes with calipers',
    'Large ones, in two directions: only they tell whether the scan is as large as the thing.',
  ],
] as const;

export const ScanAdvice = ({ open = false }: { open?: boolean }) => (
  <Advice summary="How to get a scan that can be measured on" advice={ADVICE} open={open} />
);
