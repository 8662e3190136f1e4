import type { Mate } from '../../../core/job/document';
import type { ResolvedPart } from '../../../core/work/resolved';

/** The selected mate: itself, its surface on the solid, or its dimension. */
export function chosenMate(
  { mates, signed }: Pick<ResolvedPart, 'mates' | 'signed'>,
  selected: string | null,
): Mate | undefined {
  if (selected === null) return undefined;
  const all: readonly Mate[] = [...mates, ...signed];
  return all.find(
    ({ id, ours, other }) =>
      id === selected || ours.surface === selected || (other.of === 'object' && other.dimension === selected),
  );
}
