import { proxy } from 'comlink';
import { useEffect, useRef, useState } from 'react';
import type { Version } from '../../../../core/job/history';
import type { SupportRules } from '../../../../core/print/hangs';
import { openKernel } from '../../../solid/kernel-worker';
import type { Sliced } from '../../../workers/solid-protocol';

export type SlicedState =
  | { is: 'none' }
  | { is: 'reading'; name: string; share: number }
  | { is: 'refused'; name: string; message: string }
  | { is: 'read'; name: string; sliced: Sliced };

/** No sliced part is larger. */
const LARGEST = 200e6;
/** Compared with this many versions, the newest ones; each has to be built. */
const MOST_VERSIONS = 6;

/** A sliced file is read in a worker of its own, which ends with it or when it is cancelled. */
export function useSliced(planned: Version, versions: readonly Version[], rules: SupportRules) {
  const [state, setState] = useState<SlicedState>({ is: 'none' });
  const end = useRef<(() => void) | null>(null);
  useEffect(() => () => end.current?.(), []);
  const stop = () => {
    end.current?.();
    end.current = null;
    setState({ is: 'none' });
  };
  const read = async (file: File) => {
    end.current?.();
    const { name } = file;
    if (file.size > LARGEST) {
      setState({ is: 'refused', name, message: 'It is larger than 200 MB: slice fewer parts at once.' });
      return;
    }
    const worker = openKernel();
    end.current = worker.end;
    setState({ is: 'reading', name, share: 0 });
    const others = versions.filter(v => v.id !== planned.id).slice(0, MOST_VERSIONS - 1);
    const asked = [planned, ...others].map(({ id, recipe, additions, parameters }) => ({
      id,
      recipe,
      additions,
      parameters,
    }));
    const mine = worker.end;
    const set = (next: SlicedState) => {
      if (end.current === mine) setState(next);
    };
    try {
      const answer = await worker.api.sliced(
        file,
        asked,
        { id: planned.id, down: planned.pose.down },
        rules,
        proxy((share: number) => set({ is: 'reading', name, share })),
      );
      set(
        answer.ok
          ? { is: 'read', name, sliced: answer.sliced }
          : { is: 'refused', name, message: answer.message },
      );
    } catch (error) {
      set({ is: 'refused', name, message: (error as Error).message });
    } finally {
      worker.end();
    }
  };
  return { state, read, stop };
}
