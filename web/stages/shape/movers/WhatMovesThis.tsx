import { useState } from 'react';
import type { Press } from '../../../../core/shape/additions/pressed';
import type { Span } from '../../../../core/shape/span/span';
import { useBench } from '../../../job/bench-context';
import { Button } from '../../../ui/controls';
import { Row } from '../../../ui/layout';
import { AddMateDialog, type Preset } from '../../fit/AddMateDialog';
import { leadTo } from '../lead-to';
import { MoversPanel } from './MoversPanel';
import { SpanPanel } from './SpanPanel';

interface Props {
  /** One place, or the two faces of a size. */
  presses: readonly Press[];
  onClose(): void;
  /** The next press is the second face. */
  onSecond(): void;
  /** A size was found between them, or no longer exists. */
  onFound(span: Span | null): void;
}

/** Places that were pressed on Shape: the numbers that move them, and making them a mate. */
export function WhatMovesThis({ presses, onClose, onSecond, onFound }: Props) {
  const { select, go } = useBench('select', 'go');
  const [fitting, setFitting] = useState<Preset | null>(null);
  const [across, setAcross] = useState<readonly Press[] | null>(null);
  const [first, second] = presses;
  const places = second ? presses : across?.[0] === first ? across : null;
  if (!first) return null;
  return (
    <>
      {places ? (
        <SpanPanel
          places={places}
          onClose={onClose}
          onFound={onFound}
          onFit={(span, { name, rate }, wanted) =>
            setFitting({ number: name, on: { places: places.map(placeOf), span, rate, wanted } })
          }
        />
      ) : (
        <MoversPanel
          press={first}
          title="What moves this place"
          onClose={onClose}
          actions={({ name }, { carriesMate, parameter }) => (
            <>
              <Button
                $small
                onPress={() => {
                  select(parameter);
                  leadTo(parameter);
                }}
              >
                To its field
              </Button>
              {carriesMate ? (
                <Button $small $look="quiet" onPress={() => setFitting({ number: name })}>
                  It must fit…
                </Button>
              ) : (
                TO_FIT
              )}
            </>
          )}
        >
          <Row $gap={8} $wrap style={{ marginTop: 6 }}>
            <Button $small onPress={onSecond}>
              From here to another face…
            </Button>
            <Button $small onPress={() => setAcross([first])}>
              Across this hole or boss
            </Button>
          </Row>
        </MoversPanel>
      )}
      {fitting ? (
        <AddMateDialog
          preset={fitting}
          onClose={id => {
            setFitting(null);
            if (id) go('fit', id);
          }}
        />
      ) : null}
    </>
  );
}

const TO_FIT = <small className="soft">to make it fit, write a size into its corners</small>;

const placeOf = ({ point, normal }: Press) => ({ point, normal });
