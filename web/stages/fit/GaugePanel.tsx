import { zodResolver } from '@hookform/resolvers/zod';
import { useForm } from 'react-hook-form';
import { z } from 'zod';
import { counting, type Gauge } from '../../../core/job/history';
import { USUAL_LAYER } from '../../../core/print/estimate';
import { gaugeAsked, gaugeMinutes, hasGauge } from '../../../core/print/gauge';
import { formatPlain, formatSigned } from '../../../core/quantity/format';
import { singleReading } from '../../../core/work/dimension';
import type { MateLedger } from '../../../core/work/ledger';
import { useBench } from '../../job/bench-context';
import { useInstrumentInHand } from '../../job/instrument-in-hand';
import { MeasuredWith } from '../../job/MeasuredWith';
import { Button } from '../../ui/controls';
import { FilesOf } from '../../ui/FilesOf';
import { FormField } from '../../ui/FormField';
import { Panel, Row } from '../../ui/layout';
import { lengthIn, typedLength } from '../../ui/typed-length';

const Measured = z.object({ size: typedLength(x => (x <= 0 ? 'A size is above 0.' : undefined)) });

/** A printed stand-in for an object that is away: its files, and the measured size of the print. */
export function GaugePanel({ ledger }: { ledger: MateLedger }) {
  const { resolved, session, say, document } = useBench('resolved', 'session', 'say', 'document');
  const { leaves, goneAt } = document.object;
  const { gauges } = counting(resolved.history);
  const gauge = gauges.findLast(g => g.mateId === ledger.mate.id);
  if (gauge) return <OneGauge key={gauge.id} gauge={gauge} ledger={ledger} />;
  if (!hasGauge(ledger)) return null;
  const minutes = gaugeMinutes(
    gaugeAsked(ledger, resolved.recipe.mates),
    resolved.printer.nozzle,
    USUAL_LAYER,
  );
  return (
    <Panel>
      <Row $between $wrap>
        <div>
          <h3>
            {goneAt
              ? 'The object is away'
              : leaves
                ? 'The object will go'
                : 'Is the object away, or hard to reach?'}
          </h3>
          <p className="soft" style={{ fontSize: 14 }}>
            A gauge has its surface at the size that was read. Print it, measure it (about{' '}
            {formatPlain(minutes, 0)} minutes), and try the part on it.
          </p>
        </div>
        <Button
          $small
          onPress={() =>
            void session
              .append('gauges', () => ({ mateId: ledger.mate.id, partId: resolved.part.id }))
              .catch((error: Error) => say(error.message, 'stop'))
          }
        >
          Make a gauge of it
        </Button>
      </Row>
    </Panel>
  );
}

function OneGauge({ gauge, ledger }: { gauge: Gauge; ledger: MateLedger }) {
  const { job, resolved, session, say, workshop } = useBench('job', 'resolved', 'session', 'say', 'workshop');
  const size = counting(resolved.history).gaugeSizes.findLast(s => s.gaugeId === gauge.id);
  const instrument = useInstrumentInHand(workshop.instruments, false);
  const { control, handleSubmit, reset, formState } = useForm({
    resolver: zodResolver(Measured),
    defaultValues: { size: '' },
  });
  const record = handleSubmit(async ({ size: text }) => {
    const read = singleReading(lengthIn(text)!, gauge.side, instrument.instrument?.id ?? null, workshop);
    await session
      .append('gauge-sizes', () => ({ gaugeId: gauge.id, ...read }))
      .then(
        () => reset(),
        (error: Error) => say(error.message, 'stop'),
      );
  });
  const off = size ? size.value - ledger.reading.value : null;
  return (
    <Panel aria-label="Gauge of the object">
      <Row $between $wrap>
        <h2>Gauge of the object</h2>
        <Row $gap={10} $wrap>
          <FilesOf at={`/api/jobs/${job.id}/gauges/${gauge.id}/gauge`} />
          <Button
            $small
            $look="quiet"
            onPress={() =>
              void session
                .append('void', () => ({ kind: 'gauge', id: gauge.id, reason: 'put away by the maker' }))
                .catch((error: Error) => say(error.message, 'stop'))
            }
          >
            Put it away
          </Button>
        </Row>
      </Row>
      <p className="soft" style={{ margin: '2px 0 8px' }}>
        {gauge.side === 'outside' ? 'Its outside' : gauge.form === 'round' ? 'Its hole' : 'Its gap'} is drawn{' '}
        <span className="number">{gauge.drawn.toFixed(2)}</span> mm, as the object was read.{' '}
        {size && off !== null ? (
          <>
            The print measures <b className="number">{formatPlain(size.value, 2)}</b> mm
            {Math.abs(off) < 0.005 ? '' : `, ${formatSigned(off)} against the object`}: a try on it counts by
            that. On Try, say of a surface that it was tried on the gauge.
          </>
        ) : (
          'Measure the print before you try anything on it: it comes out as the printer makes it.'
        )}
      </p>
      <form onSubmit={event => void record(event)}>
        <Row $wrap $gap={12} style={{ alignItems: 'flex-end' }}>
          <div style={{ maxWidth: 220 }}>
            <FormField
              control={control}
              name="size"
              label={size ? 'Measured again, mm' : 'The gauge measures, mm'}
              placeholder={gauge.drawn.toFixed(2)}
            />
          </div>
          <MeasuredWith inHand={instrument} />
          <Button type="submit" isDisabled={formState.isSubmitting}>
            Note its size
          </Button>
        </Row>
      </form>
    </Panel>
  );
}
