import { differenceInDays, format } from 'date-fns';
import { FileDown } from 'lucide-react';
import { useEffect, useMemo, useState } from 'react';
import { Link, useParams } from 'react-router';
import styled from 'styled-components';
import { BenchReadings } from '../../../contract/bench';
import { MINUTES_A_READING, pieceGrams, pieceMinutes } from '../../../core/calibration/estimate';
import { FEATURES } from '../../../core/calibration/piece';
import { readTyped, writeTyped } from '../../../core/calibration/typed';
import type { Calibration, Workshop } from '../../../core/job/workshop';
import { USUAL_LAYER } from '../../../core/print/estimate';
import { formatPlain } from '../../../core/quantity/format';
import { parseQuantity } from '../../../core/quantity/parse';
import { AGES_AFTER_DAYS, profileOf } from '../../../core/work/profiles';
import { post } from '../../api/client';
import { CommittedField } from '../../ui/CommittedField';
import { Button, Checkbox, Select } from '../../ui/controls';
import { Empty, Failure, Lead, Loading, Notice, Panel, Row, Stack } from '../../ui/layout';
import { TopBar } from '../../ui/TopBar';
import { PieceReading } from './PieceReading';
import { ProfileResults } from './ProfileResults';
import { useCalibration } from './use-calibration';

/** One printer with one nozzle, plastic and set of settings: print the piece, read it, see the result. */
export default function CalibrationPage() {
  const { calibrationId = '' } = useParams();
  const { query, calibration, change, error } = useCalibration(calibrationId);
  useEffect(() => {
    document.title = 'Calibration – Sagoma';
  }, []);
  return (
    <>
      <TopBar />
      {query.error ? <Failure error={query.error} retry={() => void query.refetch()} /> : null}
      {query.isPending ? <Loading what="Opening the calibration" /> : null}
      {query.data && !calibration ? (
        <div style={{ maxWidth: 620, margin: '60px auto' }}>
          <Empty title="This calibration is gone" action={<Link to="/workshop">Back to the workshop</Link>}>
            It was removed, perhaps in another window.
          </Empty>
        </div>
      ) : null}
      {query.data && calibration ? (
        <Sheet
          calibration={calibration}
          workshop={query.data.workshop}
          error={error}
          onChange={to => void change(to)}
        />
      ) : null}
    </>
  );
}

interface SheetProps {
  calibration: Calibration;
  workshop: Workshop;
  error: string | null;
  onChange(to: (now: Calibration) => Calibration): void;
}

function Sheet({ calibration, workshop, error, onChange }: SheetProps) {
  const printer = workshop.printers.find(p => p.id === calibration.printerId);
  const plastic = workshop.materials.find(m => m.id === calibration.materialId);
  const profile = useMemo(() => profileOf(calibration, workshop), [calibration, workshop]);
  const age = differenceInDays(new Date(), new Date(calibration.at));
  const worn = calibration.nozzle !== undefined && printer && calibration.nozzle !== printer.nozzle;
  return (
    <Page>
      <Row $between $wrap>
        <h1>
          {printer?.name ?? 'A printer'} with {plastic?.name ?? 'a plastic'}
        </h1>
        <Row $gap={14}>
          <a href={`/api/calibrations/${calibration.id}/profile.json`} download>
            Save as a file
          </a>
          <Link to="/workshop">Back to the workshop</Link>
        </Row>
      </Row>
      <Lead>
        Print the piece as you print parts, let it cool, read it.{' '}
        {profile.rows.length > 0
          ? `Last read ${format(new Date(calibration.at), 'd MMM yyyy')}.`
          : 'The ledger then starts from this printer instead of common practice.'}
      </Lead>
      <Stack $gap={14}>
        {error ? (
          <Notice
            level="stop"
            action={
              <Button $small onPress={() => onChange(now => now)}>
                Try again
              </Button>
            }
          >
            {error}
          </Notice>
        ) : null}
        {profile.rows.length > 0 && age > AGES_AFTER_DAYS ? (
          <Notice level="warn">
            {age} days old: nozzles wear and spools differ. Print the piece again, or read one hole and one
            peg and see whether they still agree.
          </Notice>
        ) : null}
        {worn ? (
          <Notice level="warn">
            Read with a {formatPlain(calibration.nozzle!)} mm nozzle; the printer now has {printer.nozzle} mm.
            The ledger passes this profile over until they agree.
          </Notice>
        ) : null}
        <PrintPanel calibration={calibration} workshop={workshop} onChange={onChange} />
        <Panel>
          <Row $between $wrap style={{ marginBottom: 8 }}>
            <h2>Read it</h2>
            {workshop.practiceBench ? <PracticeButton calibration={calibration} onChange={onChange} /> : null}
          </Row>
          <PieceReading
            key={calibration.id}
            calibration={calibration}
            workshop={workshop}
            onChange={onChange}
          />
        </Panel>
        <ProfileResults profile={profile} workshop={workshop} />
        <OwnSizes calibration={calibration} onChange={onChange} />
      </Stack>
    </Page>
  );
}

type PartProps = Pick<SheetProps, 'calibration' | 'workshop' | 'onChange'>;

function PrintPanel({ calibration, workshop, onChange }: PartProps) {
  const printer = workshop.printers.find(p => p.id === calibration.printerId);
  const plastic = workshop.materials.find(m => m.id === calibration.materialId);
  const nozzle = calibration.nozzle ?? printer?.nozzle ?? 0.4;
  const layer = calibration.layer ?? USUAL_LAYER;
  const number = (label: string, value: number, low: number, high: number, put: (v: number) => void) => (
    <CommittedField
      label={label}
      value={formatPlain(value, 3)}
      check={text => {
        const typed = parseQuantity(text, 'length');
        if (!typed.ok) return typed.message;
        return typed.quantity.value < low || typed.quantity.value > high
          ? `From ${low} to ${high} mm.`
          : undefined;
      }}
      onCommit={text => {
        const typed = parseQuantity(text, 'length');
        if (typed.ok && typed.quantity.value !== value) put(typed.quantity.value);
      }}
    />
  );
  return (
    <Panel>
      <Row $between $wrap style={{ marginBottom: 8 }}>
        <h2>Print it</h2>
        <Row $gap={12} $wrap>
          <span className="soft">
            about {formatPlain(pieceMinutes(nozzle, layer), 0)} min and{' '}
            {formatPlain(pieceGrams(plastic?.density ?? 1.25), 0)} g by our estimate, reading{' '}
            {formatPlain(2 * FEATURES.length * MINUTES_A_READING, 0)} min
          </span>
          <FileLink href="/api/calibrations/piece.3mf" download>
            <FileDown size={16} /> The piece, 3MF
          </FileLink>
          <FileLink href="/api/calibrations/piece.stl" download>
            <FileDown size={16} /> STL
          </FileLink>
        </Row>
      </Row>
      <Fields>
        <Select
          label="Printer"
          value={calibration.printerId}
          options={workshop.printers.map(p => ({ value: p.id, label: p.name }))}
          onChange={printerId => onChange(now => ({ ...now, printerId }))}
        />
        <Select
          label="Plastic"
          value={calibration.materialId}
          options={workshop.materials.map(m => ({ value: m.id, label: m.name }))}
          onChange={materialId => onChange(now => ({ ...now, materialId }))}
        />
        {number('Nozzle, mm', nozzle, 0.1, 2, to => onChange(now => ({ ...now, nozzle: to })))}
        {number('Layers, mm', layer, 0.02, 2, to => onChange(now => ({ ...now, layer: to })))}
        <CommittedField
          label="Other settings"
          value={calibration.note}
          placeholder="walls, speed, fan"
          check={text => (text.length > 300 ? 'At most 300 characters.' : undefined)}
          onCommit={note => onChange(now => ({ ...now, note }))}
        />
      </Fields>
      <Checkbox
        isSelected={calibration.compensates ?? false}
        onChange={compensates => onChange(now => ({ ...now, compensates }))}
      >
        These settings already correct sizes. Keep them on: read with them, the ledger adds only what is left.
      </Checkbox>
    </Panel>
  );
}

/** The practice printer makes the piece and reads all of it twice. */
function PracticeButton({ calibration, onChange }: Pick<SheetProps, 'calibration' | 'onChange'>) {
  const [busy, setBusy] = useState(false);
  const [failed, setFailed] = useState<string | null>(null);
  const read = async () => {
    setBusy(true);
    setFailed(null);
    try {
      const { readings } = await post(`/bench/calibrations/${calibration.id}/read`, BenchReadings, {
        featureIds: FEATURES.map(f => f.id),
        times: 2,
      });
      onChange(now => ({
        ...now,
        at: new Date().toISOString(),
        piece: { instrumentId: now.piece?.instrumentId ?? null, readings },
      }));
    } catch (error) {
      setFailed((error as Error).message);
    } finally {
      setBusy(false);
    }
  };
  return (
    <Row $gap={10}>
      {failed ? <span style={{ color: 'var(--danger)' }}>{failed}</span> : null}
      <Button $small isDisabled={busy} onPress={() => void read()}>
        Practice bench: print it and read all twice
      </Button>
    </Row>
  );
}

/** Sizes of the maker's own pieces. */
function OwnSizes({ calibration, onChange }: Pick<SheetProps, 'calibration' | 'onChange'>) {
  return (
    <Panel>
      <h2>Pieces of your own</h2>
      <p className="soft" style={{ margin: '2px 0 8px' }}>
        Other things you printed with these settings and read count too.
      </p>
      <CommittedField
        label="What was drawn and what was read, mm"
        value={writeTyped(calibration.rows)}
        rows={4}
        placeholder={'hole 8 7.78\npeg 12 12.06'}
        hint="A line each: hole, slot, peg, rib or height; the drawn size, then the printed one."
        check={text => {
          const { rows, problems } = readTyped(text);
          if (problems[0]) return `Line ${problems[0].line}: ${problems[0].message}`;
          return rows.length > 200 ? 'At most 200 lines.' : undefined;
        }}
        onCommit={text =>
          onChange(now => ({ ...now, rows: readTyped(text).rows, at: new Date().toISOString() }))
        }
      />
    </Panel>
  );
}

const Page = styled.main`padding: 22px 28px 60px; max-width: 1180px; margin: 0 auto;`;
const Fields = styled.div`
  display: grid; grid-template-columns: repeat(2, minmax(150px, 1fr)) 110px 110px minmax(150px, 1.2fr); gap: 12px; align-items: start; margin-bottom: 10px;
  @media (max-width: 860px) { grid-template-columns: 1fr 1fr; }
`;
const FileLink = styled.a`
  display: inline-flex; align-items: center; gap: 7px; min-height: 36px; padding: 0 12px; border: 1px solid var(--blue); border-radius: 4px; font-weight: 600; text-decoration: none; background: var(--sheet); white-space: nowrap;
`;
