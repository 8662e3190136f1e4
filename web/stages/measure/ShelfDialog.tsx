import type { Dimension } from '../../../core/job/document';
import { formatPlain } from '../../../core/quantity/format';
import { useBench } from '../../job/bench-context';
import { ShelfSearch } from '../../shelf/ShelfSearch';
import { Dialog } from '../../ui/controls';
import { shelfReading } from './shelf-reading';

/** A standard size for the current dimension: a stated value, with its tolerance as uncertainty. */
export function ShelfDialog({
  dimension,
  question,
  onClose,
}: {
  dimension: Dimension;
  question: string;
  onClose(): void;
}) {
  const { edit, say } = useBench('edit', 'say');
  return (
    <Dialog title={`From the shelf: ${dimension.label}`} isOpen onClose={onClose} width={860}>
      <ShelfSearch
        question={question}
        autoFocus
        use={{
          label: 'Use',
          onUse: (item, size) => {
            const reading = shelfReading(item, size);
            void edit({ kind: 'add-reading', dimensionId: dimension.id, reading }).then(done => {
              if (!done) return;
              say(
                `${dimension.label}: ${formatPlain(size.value, 3)} mm, ${size.label} of ${item.name}. A reading of the seat outranks it.`,
              );
              onClose();
            });
          },
        }}
      />
    </Dialog>
  );
}
