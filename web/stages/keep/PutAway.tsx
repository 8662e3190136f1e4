import { useState } from 'react';
import { useNavigate } from 'react-router';
import { JobAnswer } from '../../../contract/jobs';
import type { Away } from '../../../core/job/document';
import { post } from '../../api/client';
import { useBench } from '../../job/bench-context';
import { Button, Dialog, TextField } from '../../ui/controls';
import { Notice, Panel, Row, Stack } from '../../ui/layout';

/** What becomes of a job that is done: made again for another object, put away, removed. */
export function PutAway() {
  const { document, job, edit } = useBench('document', 'job', 'edit');
  const [again, setAgain] = useState(false);
  const [removing, setRemoving] = useState(false);
  const { away } = document;
  const put = (how: Away | null) =>
    void edit({ kind: 'put-away', away: how === null ? null : { how, at: new Date().toISOString() } });
  return (
    <Panel>
      <Stack $gap={10}>
        <Row $between $wrap>
          <h2>The next one</h2>
          <Button $small onPress={() => setAgain(true)}>
            Make it for another object
          </Button>
        </Row>
        <p className="soft">
          Once it sits right it stands among the recipes of every new job. For another workshop:{' '}
          <a href={`/api/jobs/${job.id}/recipe`} download>
            save it as a recipe
          </a>
          , with its shape, wants and additions and nothing that was measured.
        </p>
        {away ? (
          <Notice
            level={away.how === 'removed' ? 'warn' : 'note'}
            action={
              <Button $small onPress={() => put(null)}>
                Hang it on the rack again
              </Button>
            }
          >
            {AWAY_WORDS[away.how]}
          </Notice>
        ) : removing ? (
          <Notice
            level="warn"
            action={
              <Row $gap={6} $wrap>
                <a href={`/api/jobs/${job.id}/bundle`} download>
                  Export it first
                </a>
                <Button
                  $small
                  $look="danger"
                  onPress={() => {
                    setRemoving(false);
                    put('removed');
                  }}
                >
                  Remove it
                </Button>
                <Button $small $look="quiet" onPress={() => setRemoving(false)}>
                  Keep it
                </Button>
              </Row>
            }
          >
            It leaves the rack now, and goes for good in 30 days with its readings, prints and photos. Undo
            brings it back.
          </Notice>
        ) : (
          <Row $gap={6}>
            <Button $small $look="quiet" onPress={() => put('archived')}>
              Put it away
            </Button>
            <Button $small $look="quiet" onPress={() => setRemoving(true)}>
              Remove it…
            </Button>
          </Row>
        )}
      </Stack>
      {again ? <AgainDialog onClose={() => setAgain(false)} /> : null}
    </Panel>
  );
}

const AWAY_WORDS: Readonly<Record<Away, string>> = {
  removed: 'Removed from the rack: 30 days after that it goes for good.',
  archived: 'Put away: it hangs on the rack no more, and is found there under “put away”.',
  recipe: 'A recipe of your own: a new job begins from it. It is found on the rack under “kept as recipes”.',
};

/** Everything but the readings: only the names are asked. */
function AgainDialog({ onClose }: { onClose(): void }) {
  const { document, job } = useBench('document', 'job');
  const navigate = useNavigate();
  const [title, setTitle] = useState(document.title.slice(0, 280));
  const [object, setObject] = useState('');
  const [problem, setProblem] = useState<string>();
  const [busy, setBusy] = useState(false);
  const make = async () => {
    if (title.trim() === '') {
      setProblem('Give the job a name.');
      return;
    }
    setBusy(true);
    try {
      const made = await post(`/jobs/${job.id}/again`, JobAnswer, {
        title: title.trim(),
        object: object.trim(),
      });
      await navigate(`/jobs/${made.id}/measure`);
    } catch (error) {
      setProblem((error as Error).message);
      setBusy(false);
    }
  };
  return (
    <Dialog title="Make it for another object" isOpen onClose={onClose}>
      <Stack $gap={12}>
        <p className="soft">
          Shape, wants, additions and what it has to bear come along; readings, photos and prints stay here.
          What was decided and not measured comes along too.
        </p>
        <TextField
          label="What do you make?"
          value={title}
          onChange={text => setTitle(text.slice(0, 300))}
          problem={problem}
          autoFocus
        />
        <TextField
          label="For which object?"
          placeholder="the other boat’s port"
          value={object}
          onChange={text => setObject(text.slice(0, 300))}
        />
        <Row style={{ justifyContent: 'flex-end' }} $gap={8}>
          <Button $look="quiet" onPress={onClose}>
            Cancel
          </Button>
          <Button $look="main" isDisabled={busy} onPress={() => void make()}>
            Start measuring
          </Button>
        </Row>
      </Stack>
    </Dialog>
  );
}
