import type { FitMate } from '../../../core/job/document';
import { dimensionOf, recipeOf } from '../../../core/job/parts';
import { useBench } from '../../job/bench-context';
import { Select } from '../../ui/controls';

const OBJECT = 'object';

/** Whether a surface fits the object, or another of the job's parts. With one part there is nothing to choose. */
export function GoesWith({ mate }: { mate: FitMate }) {
  const { document, resolved, edit } = useBench('document', 'resolved', 'edit');
  const others = document.parts.filter(p => p.id !== resolved.part.id);
  if (others.length === 0) return null;
  const options = others.flatMap(p =>
    recipeOf(p)
      .mates.filter(m => m.side !== mate.side)
      .map(m => ({ value: `${p.id}/${m.id}`, label: `${p.name}: ${m.name.toLowerCase()}` })),
  );
  const spec = resolved.recipe.mates.find(m => m.id === mate.ours.surface);
  const value = mate.other.of === 'part' ? `${mate.other.part}/${mate.other.surface}` : OBJECT;
  const choose = (chosen: string) => {
    const [part, surface] = chosen.split('/');
    void edit({
      kind: 'mate-with',
      mateId: mate.id,
      other:
        chosen === OBJECT
          ? { of: 'object', dimension: dimensionOf(resolved.part, spec?.dimension ?? '') }
          : { of: 'part', part: part!, surface: surface! },
    });
  };
  return (
    <div style={{ maxWidth: 420, marginBottom: 12 }}>
      <Select
        label="It goes with"
        value={value}
        options={[{ value: OBJECT, label: 'the object, as it was measured' }, ...options]}
        onChange={choose}
      />
    </div>
  );
}
