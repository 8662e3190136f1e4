import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { WorkshopAnswer } from '../../contract/workshop';
import { type PairProposal, proposePair } from '../../core/fit/pair';
import { surfaceKind } from '../../core/fit/print-bias';
import { type StandardWant, WANT_NAMES, WANT_WORDS, windowForSize } from '../../core/fit/wants';
import { FIRST_WORKSHOP, type Workshop, windowFor } from '../../core/job/workshop';
import { formatPercent, formatPlain, formatSigned } from '../../core/quantity/format';
import { Printers } from '../../core/work/printers';
import { get } from '../api/client';
import { Select, TextField } from '../ui/controls';
import { Notice, Panel, Stack } from '../ui/layout';
import { Facts, numberOf, TwoColumns } from './calculator';

const WANTS = WANT_NAMES.filter(
  (n): n is StandardWant => n !== 'own' && n !== 'stretch' && n !== 'insert' && n !== 'screw' && n !== 'bolt',
);

/** Two prints that go together: the number to draw for each. */
export function PairCalculator() {
  const query = useQuery({ queryKey: ['workshop'], queryFn: () => get('/workshop', WorkshopAnswer) });
  const workshop = query.data?.workshop ?? FIRST_WORKSHOP;
  const [text, setText] = useState('20');
  const [want, setWant] = useState<StandardWant>('slide');
  const [outer, setOuter] = useState<string | null>(null);
  const [inner, setInner] = useState<string | null>(null);
  const first = workshop.materials[0]!.id;
  const [outerId, innerId] = [outer ?? first, inner ?? first];
  const size = numberOf(text, 'length');
  const sound = size.value !== null && size.value > 0 && size.value <= 1000;
  const pair = sound ? propose(workshop, size.value!, want, outerId, innerId) : null;
  const plastics = workshop.materials.map(m => ({ value: m.id, label: m.name }));
  return (
    <TwoColumns>
      <Stack $gap={10}>
        <TextField
          label="Size of the joint, mm"
          value={text}
          onChange={setText}
          hint="Across it; the inner part is to come out at this."
          problem={size.problem ?? (sound ? undefined : 'Above 0 and at most 1000 mm.')}
          autoComplete="off"
        />
        <Select
          label="How it should feel"
          value={want}
          options={WANTS.map(w => ({ value: w, label: `${w}: ${WANT_WORDS[w]}` }))}
          onChange={w => setWant(w)}
        />
        <Select
          label="Outer part, with the hole, in"
          value={outerId}
          options={plastics}
          onChange={setOuter}
        />
        <Select label="Inner part in" value={innerId} options={plastics} onChange={setInner} />
      </Stack>
      <Panel aria-live="polite">
        {pair ? (
          <>
            <Facts
              rows={[
                { label: 'draw the hole', value: `${formatPlain(pair.female.model, 2)} mm`, id: 'pair-hole' },
                {
                  label: 'draw the inner part',
                  value: `${formatPlain(pair.male.model, 2)} mm`,
                  id: 'pair-peg',
                },
                { label: 'clearance to come', value: `${formatSigned(pair.clearance)} mm` },
                { label: 'right at the first print', value: formatPercent(pair.pRight), id: 'pair-right' },
              ]}
            />
            <Notice level="note">
              Both sides are prints: {formatPercent(pair.femaleShare)} of the doubt is the hole’s. A
              calibrated printer shrinks both.
            </Notice>
          </>
        ) : (
          <p className="soft">Fill in the numbers: the answer appears here.</p>
        )}
      </Panel>
    </TwoColumns>
  );
}

function propose(
  workshop: Workshop,
  size: number,
  want: StandardWant,
  outerId: string,
  innerId: string,
): PairProposal {
  const printers = new Printers(workshop);
  const response = (side: 'inside' | 'outside', materialId: string) => {
    const part = { printerId: workshop.printers[0]!.id, materialId };
    return printers.response(part, side, surfaceKind(side, 'round', false), size);
  };
  return proposePair({
    size,
    want: windowForSize({ name: want, window: windowFor(workshop, want) }, size),
    female: response('inside', outerId),
    male: response('outside', innerId),
  });
}
