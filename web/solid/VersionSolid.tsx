import { lazy, Suspense, useEffect, useState } from 'react';
import styled from 'styled-components';
import type { Version } from '../../core/job/history';
import type { Press } from '../../core/shape/additions/pressed';
import type { Place } from '../../core/shape/vector';
import { Loading, Notice } from '../ui/layout';
import type { ShownSolid } from '../workers/solid-protocol';
import { kernelLine } from './kernel-worker';

const SolidView = lazy(() => import('./SolidView'));

/** A version as it was made, with marked places. */
export function VersionSolid({
  version,
  marked,
  says,
  onPress,
}: {
  version: Pick<Version, 'id' | 'recipe' | 'additions' | 'parameters'>;
  marked: readonly Place[];
  /** The words that ask for a press. */
  says?: string;
  onPress?(press: Press): void;
}) {
  const { id, recipe, additions, parameters } = version;
  const [shown, setShown] = useState<ShownSolid | { why: string } | null>(null);
  // biome-ignore lint/correctness/useExhaustiveDependencies: a version never changes
  useEffect(() => {
    let gone = false;
    setShown(null);
    const ask = (): Promise<void> =>
      kernelLine('show')
        .ask(api => api.show({ recipe, additions, parameters }))
        .then(answer => {
          if (gone) return;
          // Another solid on this page overtook it.
          if (!answer) return ask();
          setShown(
            answer.ok
              ? answer.solid
              : { why: answer.findings[0]?.message ?? 'The solid could not be built.' },
          );
        });
    ask().catch((error: Error) => {
      if (!gone) setShown({ why: error.message });
    });
    return () => {
      gone = true;
    };
  }, [id]);
  if (!shown) return <Loading what="Building the version" />;
  if ('why' in shown) return <Notice level="stop">{shown.why}</Notice>;
  return (
    <View>
      <Suspense fallback={<Loading what="Setting up the view" />}>
        <SolidView solid={shown} lit={null} busy={false} pressed={marked} says={says} onFace={onPress} />
      </Suspense>
    </View>
  );
}

const View = styled.div`position: relative; height: 300px; border: 1px solid var(--rule); border-radius: 6px; overflow: hidden;`;
