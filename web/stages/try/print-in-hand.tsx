import { useState } from 'react';
import styled from 'styled-components';
import { counting } from '../../../core/job/history';
import { pieceWords } from '../../../core/job/history/print';
import { type CountedPrint, countedPrints } from '../../../core/work/outcome';
import { versionWords } from '../../../core/work/show';
import { useBench } from '../../job/bench-context';
import { Select } from '../../ui/controls';
import { Lead } from '../../ui/layout';

/** The print that is tried: the last one, until another is chosen. */
export function usePrintInHand() {
  const { resolved } = useBench('resolved');
  const standing = countedPrints(counting(resolved.history));
  const [chosen, choose] = useState<string | null>(null);
  const shown = standing.find(p => p.print.id === chosen) ?? standing.at(-1);
  return { standing, shown, choose, isLast: shown === standing.at(-1) };
}

/** The question about it, or what it taught; and which one it is, where there are several. */
export function PrintInHand({
  standing,
  shown,
  choose,
}: ReturnType<typeof usePrintInHand> & { shown: CountedPrint }) {
  const { document } = useBench('document');
  const { print, version, outcome } = shown;
  const words = `${pieceWords(print).replace(/^a /, 'the ')}${versionWords(version.number, version.partId, document)}`;
  return (
    <>
      <h1>{outcome ? `What ${words} taught` : `How does ${words} sit?`}</h1>
      <Lead>
        {outcome ? (
          'The verdict is in the ledger; the next numbers follow from it.'
        ) : (
          <>
            Put it on the object. One word for each surface is enough<Keyed>, keys 1 to 5</Keyed>; a caliper
            on the print says more.
          </>
        )}
      </Lead>
      {standing.length > 1 ? (
        <div style={{ maxWidth: 360, marginBottom: 14 }}>
          <Select
            label="Which print is it?"
            value={print.id}
            options={standing.toReversed().map(p => ({ value: p.print.id, label: printWords(p) }))}
            onChange={choose}
          />
        </div>
      ) : null}
    </>
  );
}

/** A phone has no keys. */
const Keyed = styled.span`@media (max-width: 760px) { display: none; }`;

const printWords = ({ print, version, outcome }: CountedPrint) =>
  `print ${print.number}, ${pieceWords(print).replace(/^(a|the) /, '')}version ${version.number}: ${
    outcome === null ? 'not tried yet' : outcome.right ? 'sat right' : 'tried'
  }`;
