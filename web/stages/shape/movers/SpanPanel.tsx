import { useEffect, useEffectEvent, useState } from 'react';
import { formatPlain } from '../../../../core/quantity/format';
import { parseQuantity } from '../../../../core/quantity/parse';
import type { Span } from '../../../../core/shape/span/span';
import type { SpanMover } from '../../../../core/shape/span/span-movers';
import type { Place } from '../../../../core/shape/vector';
import type { Movable } from '../../../../core/work/movable';
import { useBench } from '../../../job/bench-context';
import { spanOn } from '../../../solid/movers';
import { Button, TextField } from '../../../ui/controls';
import { Loading, Notice } from '../../../ui/layout';
import { MoverList, makeWords } from './MoverList';
import { PressedPanel } from './MoversPanel';
import { useFoundOut } from './use-found-out';

const WHAT: Record<Span['kind'], string> = {
  length: 'Between the two',
  angle: 'Angle between the two faces',
  diameter: 'Across it',
};

/** A size on the solid between two pressed faces, or across one hole or boss, and the numbers that change it. */
export function SpanPanel({
  places,
  onClose,
  onFit,
  onFound,
}: {
  places: readonly Place[];
  onClose(): void;
  /** The two points of the measurement, for showing it. */
  onFound(span: Span | null): void;
  /** It must fit, by this number. @param wanted the typed target, if any */
  onFit(span: Span, mover: SpanMover, wanted: number | null): void;
}) {
  const { resolved, edit } = useBench('resolved', 'edit');
  const { part } = resolved;
  const answer = useFoundOut(places, (work, partId) => spanOn(work, partId, places));
  const [text, setText] = useState('');
  const found = answer && !(answer instanceof Error) ? answer.found : null;
  const span = found && 'span' in found ? found.span : null;
  const tell = useEffectEvent(onFound);
  useEffect(() => {
    tell(span);
    return () => tell(null);
  }, [span]);
  const unit = span?.kind === 'angle' ? '°' : ' mm';
  const typed = text.trim() === '' ? null : parseQuantity(text, span?.kind === 'angle' ? 'angle' : 'length');
  const wanted = typed?.ok ? typed.quantity.value : null;
  const title = span ? `${WHAT[span.kind]}: ${formatPlain(span.size, 2)}${unit}` : 'The size between them';
  return (
    <PressedPanel title={title} onClose={onClose}>
      {answer === null ? (
        <Loading what="Trying every number" />
      ) : answer instanceof Error ? (
        <Notice level="stop">{answer.message}</Notice>
      ) : 'why' in answer.found ? (
        <Notice level="warn">{answer.found.why}</Notice>
      ) : (
        <>
          <div style={{ maxWidth: 220, margin: '8px 0' }}>
            <TextField
              label={`It should be,${unit}`}
              value={text}
              onChange={setText}
              placeholder={formatPlain(answer.found.span.size, 2)}
              problem={typed && !typed.ok ? typed.message : undefined}
            />
          </div>
          <MoverList
            movers={answer.found.movers}
            untried={answer.untried}
            words={({ rate }, of) => rateWords(rate, of, unit)}
            actions={(mover, of) => {
              const by = wanted === null || !span ? null : (wanted - span.size) / mover.rate;
              return (
                <>
                  {by === null ? null : (
                    <Button
                      $small
                      onPress={() =>
                        void edit({
                          kind: 'parameter',
                          partId: part.id,
                          ...of.set(Number((of.now + by).toFixed(2))),
                        }).then(done => done && onClose())
                      }
                    >
                      {makeWords(of, of.now + by)}
                    </Button>
                  )}
                  {/* What is judged as an angle is moved by an angle. */}
                  {span && of.carriesMate && of.isAngle === (span.kind === 'angle') ? (
                    <Button $small $look="quiet" onPress={() => onFit(span, mover, wanted)}>
                      It must fit…
                    </Button>
                  ) : null}
                </>
              );
            }}
          />
        </>
      )}
    </PressedPanel>
  );
}

function rateWords(rate: number, { isAngle, carriesMate }: Movable, unit: string): string {
  const gets = `${formatPlain(Math.abs(rate), 2)}${unit} ${rate > 0 ? 'larger' : 'smaller'}`;
  if (!carriesMate) return `Moved out by one mm, it makes it ${gets}.`;
  return `${isAngle ? 'One degree' : 'One mm'} more makes it ${gets}.`;
}
