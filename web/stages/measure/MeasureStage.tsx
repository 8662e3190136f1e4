import { lazy, Suspense, useMemo, useState } from 'react';
import { useNavigate, useSearchParams } from 'react-router';
import styled from 'styled-components';
import { useBench } from '../../job/bench-context';
import { CommittedField } from '../../ui/CommittedField';
import { Button, Checkbox } from '../../ui/controls';
import { Empty, Loading, Panel, Row, TabRow } from '../../ui/layout';
import { AddDimensionDialog } from './AddDimensionDialog';
import { AddThreadDialog } from './AddThreadDialog';
import { CsvDialog } from './CsvDialog';
import { Deciding } from './Deciding';
import { DerivedPanel } from './DerivedPanel';
import { HoldPicture } from './HoldPicture';
import { Leaving } from './Leaving';
import { ReadingPanel } from './ReadingPanel';
import { ShelfDialog } from './ShelfDialog';
import { ThreadPanel } from './ThreadPanel';
import { TurnLead, useTurn } from './turn';
import { NotUsed, UsedFor } from './UsedFor';
import { Views } from './Views';
import { WorkOutDialog } from './WorkOutDialog';

const ScansPage = lazy(() => import('./scans/ScansPage').then(m => ({ default: m.ScansPage })));
const PhotosPage = lazy(() => import('./photos/PhotosPage').then(m => ({ default: m.PhotosPage })));

type Asking =
  | { what: 'add' | 'thread' | 'csv' }
  | { what: 'work-out'; id: string }
  | { what: 'shelf'; question: string };

/** Three ways to measure the object: reading by reading, off scans, and off photos. */
export function MeasureStage() {
  const { document } = useBench('document');
  const [params, setParams] = useSearchParams();
  const asked = params.get('by');
  const by = asked === SCANS || asked === PHOTOS ? asked : 'readings';
  const photos = document.traces?.length ?? 0;
  const tab = (id: string, label: string) => (
    <button
      type="button"
      role="tab"
      aria-selected={by === id}
      onClick={() => setParams(id === 'readings' ? {} : { by: id }, { replace: true })}
    >
      {label}
    </button>
  );
  return (
    <>
      <Ways>
        <div role="tablist" aria-label="How it is measured">
          {tab('readings', 'Readings')}
          {tab(SCANS, document.scans.length > 0 ? `Scans, ${document.scans.length}` : 'Scans')}
          {tab(PHOTOS, photos > 0 ? `Photos to trace, ${photos}` : 'Photos to trace')}
        </div>
      </Ways>
      {by === SCANS ? (
        <Suspense fallback={<Loading what="Opening the scans" />}>
          <ScansPage />
        </Suspense>
      ) : by === PHOTOS ? (
        <Suspense fallback={<Loading what="Opening the photos" />}>
          <PhotosPage />
        </Suspense>
      ) : (
        <Readings />
      )}
    </>
  );
}

const SCANS = 'scans';
const PHOTOS = 'photos';
const Ways = styled(TabRow)`margin: -6px 0 12px; padding-left: 0;`;

/** One dimension at a time: the drawing shows where, the field takes the number. */
function Readings() {
  const { document, resolved, select, go, job, edit } = useBench(
    'document',
    'resolved',
    'select',
    'go',
    'job',
    'edit',
  );
  const navigate = useNavigate();
  const [asking, setAsking] = useState<Asking | null>(null);
  const { turn, place, needed, way, done, following, next } = useTurn();
  const measured = useMemo(() => {
    const sizes: Record<string, number> = {};
    for (const [id, state] of resolved.dimensions) if (state.evaluation) sizes[id] = state.evaluation.value;
    return sizes;
  }, [resolved.dimensions]);
  const tools = (
    <Tools>
      <Button $small onPress={() => setAsking({ what: 'add' })}>
        Add a dimension
      </Button>
      <Button $small onPress={() => setAsking({ what: 'thread' })}>
        Measure a thread
      </Button>
      <Button $small onPress={() => setAsking({ what: 'csv' })}>
        Readings from a table
      </Button>
      <Button $small onPress={() => void navigate(`/jobs/${job.id}/sheet`)}>
        Sheet to print
      </Button>
    </Tools>
  );
  const dialogs = (
    <>
      {asking?.what === 'add' ? (
        <AddDimensionDialog
          onClose={() => setAsking(null)}
          onAdded={(dimension, workOut) => {
            select(dimension.id);
            setAsking(workOut ? { what: 'work-out', id: dimension.id } : null);
          }}
        />
      ) : null}
      {asking?.what === 'thread' ? (
        <AddThreadDialog
          onClose={() => setAsking(null)}
          onAdded={thread => {
            select(thread.diameter);
            setAsking(null);
          }}
        />
      ) : null}
      {asking?.what === 'csv' ? <CsvDialog onClose={() => setAsking(null)} /> : null}
    </>
  );
  if (!turn || !way)
    return (
      <>
        <Empty title="Nothing to measure" action={tools}>
          This recipe asks for no dimension with the choices made on Shape. You can add dimensions of your
          own.
        </Empty>
        {dialogs}
      </>
    );
  const { dimension } = turn;
  const { hold, how } = way;
  const thread = document.threads.find(t =>
    [t.diameter, t.span, t.ridgeHeight, t.ridgeWidth].includes(dimension.id),
  );
  const workingOut =
    asking?.what === 'work-out' ? document.dimensions.find(d => d.id === asking.id) : undefined;
  return (
    <>
      <h1>{dimension.label}</h1>
      <TurnLead state={turn} place={place} of={needed.length} />
      <Used>
        <UsedFor state={turn} />
      </Used>
      {dimension.derived ? null : <PhoneHow>{how}</PhoneHow>}
      <Bench>
        <Left>
          <Views measured={measured} turn={dimension} thread={thread} />
          <Foot>
            {dimension.derived ? null : <HoldPicture hold={hold} />}
            {dimension.derived ? null : (
              <div>
                <h2>How to hold it</h2>
                <p className="soft">{how}</p>
              </div>
            )}
            {done ? (
              <Button onPress={() => go('fit')}>All read: say how it should fit</Button>
            ) : following ? (
              <Button $look="quiet" onPress={() => next(1)}>
                Next: {following}
              </Button>
            ) : null}
          </Foot>
          {thread ? (
            <Below>
              <ThreadPanel thread={thread} />
            </Below>
          ) : null}
          <Below>
            <Deciding />
            <NotUsed />
          </Below>
          <Below>
            <Leaving />
          </Below>
          <Below>
            <Panel>
              <Row $wrap $gap={6}>
                {tools}
                {dimension.derived ? null : (
                  <Button $small onPress={() => setAsking({ what: 'work-out', id: dimension.id })}>
                    Cannot be measured: work it out
                  </Button>
                )}
                {dimension.guide || thread ? null : (
                  <Button
                    $small
                    $look="danger"
                    onPress={() => void edit({ kind: 'remove-dimension', dimensionId: dimension.id })}
                  >
                    Remove {dimension.label}
                  </Button>
                )}
              </Row>
              {dimension.guide || thread ? null : (
                <Row $wrap $gap={16} style={{ marginTop: 10, alignItems: 'flex-end' }}>
                  <div style={{ flex: 1, minWidth: 180 }}>
                    <CommittedField
                      key={dimension.id}
                      label="What it is called"
                      value={dimension.label}
                      check={text =>
                        text.trim() === ''
                          ? 'Give it a name.'
                          : text.length > 120
                            ? 'At most 120 characters.'
                            : undefined
                      }
                      onCommit={label =>
                        void edit({
                          kind: 'describe-dimension',
                          dimensionId: dimension.id,
                          label: label.trim(),
                        })
                      }
                    />
                  </div>
                  <Checkbox
                    isSelected={dimension.critical}
                    onChange={critical =>
                      void edit({ kind: 'describe-dimension', dimensionId: dimension.id, critical })
                    }
                  >
                    The fit depends on it
                  </Checkbox>
                </Row>
              )}
              <div style={{ marginTop: 10 }}>
                <CommittedField
                  key={dimension.id}
                  label={`Note on ${dimension.label}`}
                  value={dimension.note}
                  rows={2}
                  check={text => (text.length > 4000 ? 'At most 4000 characters.' : undefined)}
                  onCommit={note =>
                    void edit({ kind: 'describe-dimension', dimensionId: dimension.id, note })
                  }
                />
              </div>
              <div style={{ marginTop: 10 }}>
                <CommittedField
                  label="Notes on the object"
                  value={document.object.note}
                  rows={2}
                  check={text => (text.length > 4000 ? 'At most 4000 characters.' : undefined)}
                  onCommit={note => void edit({ kind: 'describe-object', note })}
                />
              </div>
            </Panel>
          </Below>
        </Left>
        {dimension.derived ? (
          <DerivedPanel key={dimension.id} state={turn} />
        ) : (
          <ReadingPanel
            key={dimension.id}
            state={turn}
            next={following}
            onNext={next}
            onShelf={question => setAsking({ what: 'shelf', question })}
          />
        )}
      </Bench>
      {dialogs}
      {workingOut ? (
        <WorkOutDialog
          dimension={workingOut}
          onClose={() => setAsking(null)}
          onDone={fresh => {
            setAsking(null);
            if (fresh) select(fresh);
          }}
        />
      ) : null}
      {asking?.what === 'shelf' ? (
        <ShelfDialog dimension={dimension} question={asking.question} onClose={() => setAsking(null)} />
      ) : null}
    </>
  );
}

const Bench = styled.div`
  h2 { font-size: 16px; }
  display: grid; grid-template-columns: minmax(0, 1.45fr) minmax(290px, 1fr); gap: 14px; align-items: start;
  @media (max-width: 760px) { grid-template-columns: minmax(0, 1fr); > :last-child { order: -1; } }
`;
/** On a phone the drawing is below the field: the words come first. */
const PhoneHow = styled.p`display: none; margin: -6px 0 12px; font-size: 14.5px; @media (max-width: 760px) { display: block; }`;
const Left = styled.div`min-width: 0;`;
const Used = styled.div`margin: -8px 0 12px;`;
const Tools = styled.div`display: contents;`;
const Below = styled.div`margin-top: 14px; display: flex; flex-direction: column; gap: 12px; &:empty { display: none; }`;
const Foot = styled(Panel)`
  display: flex; align-items: center; gap: 16px; margin-top: 14px; flex-wrap: wrap;
  > div { flex: 1; min-width: 180px; }
  &:empty { display: none; }
`;
