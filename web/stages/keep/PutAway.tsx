import { useState } from 'react';
import type { Away } from '../../../core/job/document';
import { useBench } from '../../job/bench-context';
import { Button } from '../../ui/controls';
import { Notice, Panel, Row, Stack } from '../../ui/layout';
import { AgainDialog } from './AgainDialog';

/** What to do with a finished job: make it again for another object, put it away, remove it. */
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
  archived: 'Put away: it no longer hangs on the rack, and is found there under “put away”.',
  recipe: 'A recipe of your own: a new job begins from it. It is found on the rack under “kept as recipes”.',
};
