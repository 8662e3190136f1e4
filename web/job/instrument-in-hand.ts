import { useState } from 'react';
import type { Instrument } from '../../core/job/workshop';

const KEY = 'sagoma.instrument';

/** The instrument that was used last in this window, for lengths or for angles; undefined when there is none. */
export function useInstrumentInHand(
  instruments: readonly Instrument[],
  angle: boolean,
): { all: readonly Instrument[]; instrument: Instrument | undefined; take(id: string): void } {
  const [id, setId] = useState(() => sessionStorage.getItem(KEY));
  const all = instruments.filter(i => (i.kind === 'protractor') === angle);
  return {
    all,
    instrument: all.find(i => i.id === id) ?? all[0],
    take(next) {
      sessionStorage.setItem(KEY, next);
      setId(next);
    },
  };
}
