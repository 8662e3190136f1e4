import { useRef } from 'react';

/** Changes to a list that is sent whole: two may follow each other faster than the page renders. */
export function useLatestList<T extends { id: string }>(kept: readonly T[], send: (list: T[]) => void) {
  const latest = useRef(kept);
  latest.current = kept;
  const put = (list: T[]) => {
    latest.current = list;
    send(list);
  };
  return {
    add: (item: T) => put([...latest.current, item]),
    change: (id: string, change: Partial<T>) =>
      put(latest.current.map(item => (item.id === id ? { ...item, ...change } : item))),
    remove: (id: string) => put(latest.current.filter(item => item.id !== id)),
  };
}
