import type { Print, Version } from '../../../core/job/history';
import { formatPercent } from '../../../core/quantity/format';
import { type Outcome, restWaits } from '../../../core/work/outcome';
import { namesOf } from '../../../core/work/overview';
import { useBench } from '../../job/bench-context';
import { EffortNotes } from '../../job/EffortNotes';
import { Button } from '../../ui/controls';
import { Empty, Notice, Panel, Row, Stack } from '../../ui/layout';
import { Contradictions } from './Contradictions';
import { NextVersion } from './NextVersion';
import { PressAndSay } from './PressAndSay';
import { PrintInHand, usePrintInHand } from './print-in-hand';
import { Rescue } from './Rescue';
import { TryForm } from './TryForm';
import { WhatItMeans } from './WhatItMeans';

/** A verdict on every surface, and what to change. */
export function TryStage() {
  const { resolved, go, overview } = useBench('resolved', 'go', 'overview');
  const inHand = usePrintInHand();
  const { shown, choose, isLast } = inHand;
  if (!shown) {
    return (
      <Empty
        title="Nothing to try yet"
        action={
          <Button $look="main" onPress={() => go(overview.next.stage, overview.next.key)}>
            {overview.next.action}
          </Button>
        }
      >
        Once a version is printed, put it on here and say how each surface feels. Every verdict narrows the
        next number.
      </Empty>
    );
  }
  const { print, version, outcome } = shown;
  return (
    <>
      <PrintInHand {...inHand} shown={shown} />
      <Contradictions onTry={choose} />
      {outcome ? (
        <Lesson
          outcome={outcome}
          version={version}
          print={print}
          next={resolved.nextNumber}
          isLast={isLast}
        />
      ) : null}
      <TryForm key={print.id} version={version} print={print} outcome={outcome} />
      <PressAndSay />
    </>
  );
}

interface LessonProps {
  outcome: Outcome;
  version: Version;
  print: Print;
  /** The number of the version that would follow. */
  next: number;
  isLast: boolean;
}

function Lesson({ outcome, version, print, next, isLast }: LessonProps) {
  const { resolved, go } = useBench('resolved', 'go');
  const { right, saved, unjudged } = outcome;
  const waits = restWaits(outcome);
  const { ledger } = resolved;
  return (
    <Panel style={{ marginBottom: 14 }}>
      <Stack $gap={10}>
        {right ? (
          <Notice level="note">
            Every surface sits right. Put it in service on Keep; the numbers stay for the next one.
          </Notice>
        ) : (
          <>
            {unjudged.length > 0 ? (
              <Notice level={waits ? 'warn' : 'note'}>
                Not judged yet: {namesOf(resolved, unjudged)}.{' '}
                {waits ? 'Say below how it sits; until then the part is not done.' : ''}
              </Notice>
            ) : null}
            <WhatItMeans happened={outcome.happened} />
            <ul style={{ margin: 0, paddingLeft: 20 }}>
              {[...ledger.mates, ...ledger.signed].map(m => (
                <li key={m.mate.id}>{m.reason}</li>
              ))}
            </ul>
          </>
        )}
        <EffortNotes />
        {isLast && !right ? <NextVersion /> : null}
        {isLast && !right ? <Rescue outcome={outcome} of={{ version, print }} /> : null}
        {isLast ? (
          <Row $wrap>
            {right || saved ? (
              <Button $look="main" onPress={() => go('keep')}>
                Put it in service
              </Button>
            ) : null}
            {right || waits ? null : (
              <Button $look={saved ? undefined : 'main'} onPress={() => go('print')}>
                Make version {next}
              </Button>
            )}
            {!right && !waits && ledger.pAllRight !== null ? (
              <span className="soft">{formatPercent(ledger.pAllRight)} likely to sit right</span>
            ) : null}
          </Row>
        ) : null}
      </Stack>
    </Panel>
  );
}
