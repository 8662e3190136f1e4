import { useQueryClient } from '@tanstack/react-query';
import { differenceInDays, format } from 'date-fns';
import { FileUp, Plus, Trash2 } from 'lucide-react';
import { useState } from 'react';
import { FileTrigger } from 'react-aria-components';
import { Link, useNavigate } from 'react-router';
import styled from 'styled-components';
import { ImportedProfile } from '../../contract/profile';
import { WorkshopAnswer } from '../../contract/workshop';
import { printedAt } from '../../core/calibration/profile';
import type { Calibration, Workshop } from '../../core/job/workshop';
import { formatPlain } from '../../core/quantity/format';
import { AGES_AFTER_DAYS, profileOf } from '../../core/work/profiles';
import { call, post } from '../api/client';
import { fetchAnew } from '../api/fetch-anew';
import { Button, IconButton } from '../ui/controls';
import { Notice, Panel, Row } from '../ui/layout';
import { startCalibration } from './calibration/start';

const MOST_FILE = 1_000_000;

interface Props {
  workshop: Workshop;
  /** The form next to it has unsaved changes: leaving would lose them. */
  unsaved: boolean;
}

/** The workshop's calibrated printers; each has a page of its own. */
export function CalibrationPanel({ workshop, unsaved }: Props) {
  const client = useQueryClient();
  const navigate = useNavigate();
  const [problem, setProblem] = useState<string | null>(null);
  const [notes, setNotes] = useState<string[]>([]);
  const all = workshop.calibrations ?? [];
  const attempt = async (work: () => Promise<void>) => {
    setProblem(null);
    try {
      await work();
    } catch (error) {
      setProblem((error as Error).message);
    }
  };
  const add = () =>
    attempt(async () => {
      void navigate(await startCalibration(client, workshop.printers[0]!, workshop.materials[0]!.id));
    });
  const bring = (file: File) =>
    attempt(async () => {
      if (file.size > MOST_FILE) throw new Error('This file is too large for a profile.');
      const content: unknown = await file.text().then(text => {
        try {
          return JSON.parse(text);
        } catch (error) {
          if (!(error instanceof SyntaxError)) throw error;
          throw new Error('This file is not JSON: choose a profile that was saved from Sagoma.');
        }
      });
      const { notes: said } = await post('/calibrations/import', ImportedProfile, content);
      setNotes(said.length > 0 ? said : ['The profile is in the list.']);
      await fetchAnew(client, 'workshop');
    });
  const remove = (id: string) =>
    attempt(async () => {
      client.setQueryData(['workshop'], await call('DELETE', `/calibrations/${id}`, WorkshopAnswer));
    });
  return (
    <Panel>
      <Row $between $wrap>
        <h2>Calibrated printers</h2>
        <Row $gap={8}>
          <FileTrigger
            acceptedFileTypes={['application/json', '.json']}
            onSelect={files => files?.[0] && void bring(files[0])}
          >
            <Button $small isDisabled={unsaved}>
              <FileUp size={15} /> From a file
            </Button>
          </FileTrigger>
          <Button $small isDisabled={unsaved} onPress={() => void add()}>
            <Plus size={15} /> Calibrate a printer
          </Button>
        </Row>
      </Row>
      <p className="soft" style={{ fontSize: 14, margin: '2px 0 8px' }}>
        {unsaved
          ? 'Save the workshop first: a calibration has a page of its own.'
          : 'A small piece with holes, pegs, slots and ribs is printed and read once; the ledger then starts from this printer with this plastic instead of common practice.'}
      </p>
      {problem ? <Notice level="stop">{problem}</Notice> : null}
      {notes.map(n => (
        <Notice key={n} level="note">
          {n}
        </Notice>
      ))}
      {all.map(c => (
        <Line key={c.id}>
          <Summary calibration={c} workshop={workshop} unsaved={unsaved} />
          <IconButton
            aria-label="Remove this calibration"
            isDisabled={unsaved}
            onPress={() => void remove(c.id)}
          >
            <Trash2 size={16} />
          </IconButton>
        </Line>
      ))}
    </Panel>
  );
}

interface SummaryProps extends Props {
  calibration: Calibration;
}

function Summary({ calibration, workshop, unsaved }: SummaryProps) {
  const { responses } = profileOf(calibration, workshop);
  const age = differenceInDays(new Date(), new Date(calibration.at));
  const name = `${workshop.printers.find(p => p.id === calibration.printerId)?.name ?? 'A printer that is gone'} with ${
    workshop.materials.find(m => m.id === calibration.materialId)?.name ?? 'a plastic that is gone'
  }`;
  const said = responses
    .filter(r => r.kind === 'hole' || r.kind === 'peg')
    .map(r => {
      const off = printedAt(r, 20).mean - 20;
      return `${r.kind === 'hole' ? 'holes' : 'pegs'} of 20 print ${formatPlain(Math.abs(off), 2)} mm ${off < 0 ? 'small' : 'large'}`;
    });
  return (
    <div>
      {unsaved ? <b>{name}</b> : <Link to={`/workshop/calibrations/${calibration.id}`}>{name}</Link>}
      <p className="soft">
        {format(new Date(calibration.at), 'd MMM yyyy')}
        {age > AGES_AFTER_DAYS ? `, ${age} days old: print it again` : ''}
        {calibration.nozzle ? ` · ${formatPlain(calibration.nozzle)} nozzle` : ''}
        {calibration.layer ? `, ${formatPlain(calibration.layer)} layers` : ''}
        {calibration.note ? `, ${calibration.note}` : ''} ·{' '}
        {said.length > 0
          ? said.join(', ')
          : calibration.compensates
            ? 'its settings correct sizes'
            : 'not read yet'}
      </p>
    </div>
  );
}

const Line = styled.div`
  display: flex; justify-content: space-between; gap: 12px; border-top: 1px solid var(--rule); padding: 9px 0;
  a { font-weight: 600; } p { font-size: 14px; margin: 2px 0 0; overflow-wrap: anywhere; } > div { min-width: 0; }
`;
