import { Select } from '../ui/controls';
import type { useInstrumentInHand } from './instrument-in-hand';

/** The instrument for a size that is typed next to it; nothing where the workshop has none. */
export function MeasuredWith({ inHand }: { inHand: ReturnType<typeof useInstrumentInHand> }) {
  const { instrument, all, take } = inHand;
  if (!instrument) return null;
  return (
    <div style={{ maxWidth: 250 }}>
      <Select
        label="Measured with"
        value={instrument.id}
        options={all.map(i => ({ value: i.id, label: i.name }))}
        onChange={take}
      />
    </div>
  );
}
