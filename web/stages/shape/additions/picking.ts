import { createContext, useContext } from 'react';

/** Choosing a face by pressing on it: whoever asks gets its place in words. */
export interface Picking {
  /** The field that waits for a click on the part; null when none does. */
  asking: string | null;
  ask(who: string | null, then?: (place: string) => void): void;
}

export const PickingContext = createContext<Picking>({ asking: null, ask: () => {} });
export const usePicking = () => useContext(PickingContext);
