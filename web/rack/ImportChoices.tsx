import { useState } from 'react';
import styled from 'styled-components';
import type { ImportChoice, ImportLook } from '../../contract/import';
import { Button, Dialog, Select } from '../ui/controls';
import { Lead, Row, Stack } from '../ui/layout';

interface Props {
  look: ImportLook;
  busy: boolean;
  onClose(): void;
  onTake(choices: Record<string, ImportChoice>): void;
}

const WORDS: Record<ImportChoice, string> = {
  theirs: 'Take what the bundle has; nothing of yours is lost by it',
  merge: 'Make one of the two; where both say something, yours stays',
  both: 'Keep both, side by side on the rack',
  ours: 'Leave this job as it is here',
};

/** Jobs that already exist but differ: both sides are shown, and nothing is written before a choice. */
export function ImportChoices({ look, busy, onClose, onTake }: Props) {
  const otherwise = look.jobs.filter(job => job.here === 'otherwise');
  const [choices, setChoices] = useState<Record<string, ImportChoice>>(() =>
    Object.fromEntries(otherwise.map(job => [job.id, job.choices[0]!])),
  );
  const others = look.jobs.length - otherwise.length;
  return (
    <Dialog title="Already here, but different" isOpen onClose={onClose} width={860}>
      <Lead>
        Nothing has been written yet. No choice loses a reading, a print or a try.
        {others > 0
          ? ` The other ${others === 1 ? 'job' : `${others} jobs`} in the bundle need no choice.`
          : ''}
      </Lead>
      <Stack $gap={18}>
        {otherwise.map(job => (
          <section key={job.id} aria-label={job.title}>
            <h3>{job.title}</h3>
            <Scroll>
              <Sides>
                <thead>
                  <tr>
                    <th scope="col">What</th>
                    <th scope="col">Here</th>
                    <th scope="col">In the bundle</th>
                  </tr>
                </thead>
                <tbody>
                  {job.differences.map((d, i) => (
                    <tr key={i}>
                      <th scope="row">{d.what}</th>
                      <td>{d.here}</td>
                      <td>{d.there}</td>
                    </tr>
                  ))}
                </tbody>
              </Sides>
            </Scroll>
            <Select
              label={`What to do with “${job.title}”`}
              value={choices[job.id]!}
              options={job.choices.map(value => ({ value, label: WORDS[value] }))}
              onChange={choice => setChoices({ ...choices, [job.id]: choice })}
            />
            {job.clash ? <p className="soft">They cannot be made one: {job.clash}.</p> : null}
          </section>
        ))}
      </Stack>
      <Row $gap={8} style={{ marginTop: 18, justifyContent: 'flex-end' }}>
        <Button $look="quiet" onPress={onClose}>
          Import nothing
        </Button>
        <Button $look="main" isDisabled={busy} onPress={() => onTake(choices)}>
          {busy ? 'Importing…' : 'Import'}
        </Button>
      </Row>
    </Dialog>
  );
}

const Scroll = styled.div`max-height: 34vh; overflow: auto; margin: 6px 0 10px;`;
const Sides = styled.table`
  width: 100%; border-collapse: collapse; font-size: 14.5px; table-layout: fixed;
  th, td { text-align: left; padding: 5px 10px 5px 0; border-bottom: 1px solid var(--rule); vertical-align: top; overflow-wrap: anywhere; }
  thead th { position: sticky; top: 0; background: var(--sheet); color: var(--soft); font-weight: 600; }
  tbody th { font-weight: 400; width: 30%; }
`;
