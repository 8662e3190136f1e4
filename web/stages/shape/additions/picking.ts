import { createContext, useContext } from 'react';

/** Choosing a face by pressing on it: whoever asked gets its place in words. */
export interface Picking {
  /** The field that waits for a press on the part; null when none does. */
  asking: string | null;
  /** The field whose pressed face is being named. */
  naming: string | null;
  ask(who: string | null, then?: (place: string) => void): void;
}

export const PickingContext = createContext<Picking>({ asking: null, naming: null, ask: () => {} });
export const usePicking = () => useContext(PickingContext);
