import type { Dimension, MeasuredThread } from './document';

/** A thread on the object and the dimensions that hold its numbers. */

/** Which diameter was measured: the usual one where nothing else was chosen. */
export const measuredOf = ({ side, measured }: Pick<MeasuredThread, 'side' | 'measured'>) =>
  measured ?? (side === 'external' ? 'major' : 'minor');

/** The name of each diameter; its first word is the short name. */
export const DIAMETER_WORDS = {
  external: { major: 'outside over the ridges', minor: 'core between the ridges' },
  internal: { major: 'width from root to root', minor: 'hole between the ridges' },
} as const;

/** The dimensions a new thread brings with it, in measuring order. */
export function dimensionsForThread(
  thread: Pick<
    MeasuredThread,
    'label' | 'side' | 'measured' | 'diameter' | 'span' | 'ridgeHeight' | 'ridgeWidth'
  >,
  name: string,
): Dimension[] {
  const make = (
    id: string,
    suffix: string,
    label: string,
    kind: Dimension['kind'],
    critical: boolean,
  ): Dimension => ({
    id,
    name: `${name}_${suffix}`,
    label: `${thread.label}: ${label}`,
    kind,
    critical,
    guide: null,
    note: '',
    readings: [],
  });
  return [
    make(
      thread.diameter,
      measuredOf(thread) === 'major' ? 'major' : thread.side === 'external' ? 'core' : 'hole',
      DIAMETER_WORDS[thread.side][measuredOf(thread)],
      // A core is measured with the tips of the outside jaws, roots with those of the inside jaws.
      thread.side === 'external' ? 'outside' : 'inside',
      true,
    ),
    make(thread.span, 'span', 'span over turns', 'length', true),
    ...(thread.ridgeHeight ? [make(thread.ridgeHeight, 'ridge_height', 'ridge height', 'step', false)] : []),
    ...(thread.ridgeWidth ? [make(thread.ridgeWidth, 'ridge_width', 'ridge width', 'length', false)] : []),
  ];
}
