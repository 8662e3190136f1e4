import type { Happening } from '../../../core/job/history/try';
import { HAPPENING_WORDS } from '../../../core/learn/happened';
import { capital } from '../../../core/quantity/format';
import { adviceAfter, type HappeningAdvice } from '../../../core/work/after-happening';
import { useBench } from '../../job/bench-context';
import { Button } from '../../ui/controls';
import { Notice, Row, Stack } from '../../ui/layout';
import { useAddAddition } from '../shape/additions/use-add-addition';

/** What happened at a try, its likely causes, and where each of them is cured. */
export function WhatItMeans({ happened }: { happened: readonly Happening[] }) {
  const { resolved } = useBench('resolved');
  return adviceAfter(happened, resolved).map((advice, i) => <Advice key={i} advice={advice} />);
}

function Advice({ advice }: { advice: HappeningAdvice }) {
  const { go } = useBench('go');
  const add = useAddAddition();
  const { addition } = advice;
  return (
    <Notice level="warn">
      <Stack $gap={6}>
        <b>{capital(HAPPENING_WORDS[advice.what])}.</b>
        <ul style={{ margin: 0, paddingLeft: 18 }}>
          {advice.causes.map(cause => (
            <li key={cause}>{cause}</li>
          ))}
        </ul>
        <Row $wrap $gap={8}>
          {addition ? (
            <Button
              $small
              onPress={() => void add(addition.kind).then(id => (id ? go('shape', id) : undefined))}
            >
              {addition.words}
            </Button>
          ) : null}
          {advice.leads.map(lead => (
            <Button key={lead.words} $small $look="quiet" onPress={() => go(lead.stage, lead.key)}>
              {lead.words}
            </Button>
          ))}
        </Row>
      </Stack>
    </Notice>
  );
}
