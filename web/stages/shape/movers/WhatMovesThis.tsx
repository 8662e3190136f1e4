import { useState } from 'react';
import type { Press } from '../../../../core/shape/additions/pressed';
import { useBench } from '../../../job/bench-context';
import { Button } from '../../../ui/controls';
import { AddMateDialog } from '../../fit/AddMateDialog';
import { leadTo } from '../lead-to';
import { MoversPanel } from './MoversPanel';

/** A place that was pressed on Shape: which number it is, and that it must fit. */
export function WhatMovesThis({ press, onClose }: { press: Press; onClose(): void }) {
  const { select, go } = useBench('select', 'go');
  const [fitting, setFitting] = useState<string | null>(null);
  return (
    <>
      <MoversPanel
        press={press}
        title="What moves this place"
        onClose={onClose}
        actions={({ name }) => (
          <>
            <Button
              $small
              onPress={() => {
                select(name);
                leadTo(name);
              }}
            >
              To its field
            </Button>
            <Button $small $look="quiet" onPress={() => setFitting(name)}>
              It must fit…
            </Button>
          </>
        )}
      />
      {fitting ? (
        <AddMateDialog
          preset={{ number: fitting }}
          onClose={id => {
            setFitting(null);
            if (id) go('fit', id);
          }}
        />
      ) : null}
    </>
  );
}
