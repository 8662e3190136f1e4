import type { TracedPlane } from './trace-plane';

/** The share of the outer line that deserves a remark: see MOST_SHADOW. */
const SHADOW = 0.12;

/** What would make a trace better, in words, the most important first. */
export function adviceOn(
  traced: TracedPlane & { tilt?: number },
  { barsRead, thickness }: { barsRead: boolean; thickness: number },
): string[] {
  const advice: string[] = [];
  if (!barsRead)
    advice.push(
      'The scale is the printer’s or the scanner’s word only: read both lengths by caliper, across and along, and give them.',
    );
  if (traced.inShadow > SHADOW)
    advice.push(
      'A shadow lies along a part of it and may have been taken for the object: look at its edges there, and light it from all sides.',
    );
  const deep = traced.unseen.filter(h => h.diameter > 0).length;
  if (deep > 0)
    advice.push(
      `${deep === 1 ? 'One hole is' : `${deep} holes are`} deeper than wide, or dark to the bottom: read ${deep === 1 ? 'its' : 'their'} size by caliper.`,
    );
  if (traced.unseen.length > deep)
    advice.push(
      'Something lighter shows within the object that is not clearly a hole: a deep hole, or a place that shines.',
    );
  if (!traced.clean)
    advice.push(
      'Lines and arcs do not make up the whole of it: look where it misses, and compare two sizes with the caliper.',
    );
  if ((traced.tilt ?? 0) > 25) advice.push('The photo was taken far off square: within 25° it is surer.');
  if (thickness > 15)
    advice.push(
      'So thick an object hides its own edges: lay it face down on a scanner, or hold the phone higher and zoom.',
    );
  return advice;
}
