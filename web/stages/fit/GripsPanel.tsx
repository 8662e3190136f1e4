import styled from 'styled-components';
import type { Force } from '../../../core/fit/grip';
import { formatPlain } from '../../../core/quantity/format';
import type { Grip, Grips } from '../../../core/work/grips';
import { useBench } from '../../job/bench-context';
import { Notice, Panel } from '../../ui/layout';
import { FONTS } from '../../ui/theme';

/** Skirt, plug and lip grip at the same time: what they ask of plastic and hand together. */
export function GripsPanel() {
  const { resolved } = useBench('resolved');
  const { grips } = resolved;
  if (!grips) return null;
  return (
    <Panel>
      <h2>All that grips, together</h2>
      <Table>
        <thead>
          <tr>
            <th scope="col">Surface</th>
            <th scope="col">Strain</th>
            <th scope="col">Push on, N</th>
            <th scope="col">Pull off, N</th>
          </tr>
        </thead>
        <tbody>
          {grips.grips.map(g => (
            <tr key={g.mate.id}>
              <th scope="row">{g.mate.name}</th>
              <td>
                {formatPlain(100 * g.strain, 1)} %{strainWords(g, grips)}
              </td>
              <td>{range(g.on)}</td>
              <td>{range(g.off)}</td>
            </tr>
          ))}
        </tbody>
        <tfoot>
          <tr>
            <th scope="row">Together</th>
            <td />
            <td>{range(grips.on)}</td>
            <td>{range(grips.off)}</td>
          </tr>
        </tfoot>
      </Table>
      {grips.left.map(({ mate, why }) => (
        <p key={mate.id} className="soft" style={{ fontSize: 14 }}>
          {mate.name} is not in the sum. {why}
        </p>
      ))}
      {grips.tooHard ? (
        <Notice level="warn">
          {grips.tooHard === 'on'
            ? 'Together they take more push than a hand gives'
            : 'Together they take more pull than a hand gives'}
          , even at best: a thinner wall, slots, or a looser want for one of them.
        </Notice>
      ) : null}
      <p className="soft" style={{ fontSize: 12.5 }}>
        On a smooth, dry object to a rough one, in {resolved.material.name} from soft to stiff. A ridge counts
        as it passes, all round at once; peeled from one side it takes far less, and at home it no longer
        pushes.
      </p>
    </Panel>
  );
}

const range = ({ low, high }: Force): string =>
  Number.isFinite(high)
    ? `${formatPlain(low, 0)} to ${formatPlain(high, 0)}`
    : `${formatPlain(low, 0)} or more`;

const strainWords = ({ strain }: Grip, { strainLimits }: Grips): string =>
  strain > strainLimits.once
    ? ', more than it bears'
    : strain > strainLimits.often
      ? ', once, not often'
      : '';

const Table = styled.table`
  width: 100%; border-collapse: collapse; margin: 8px 0; font-size: 14.5px;
  th { text-align: left; font-weight: 500; } thead th { color: var(--soft); font-weight: 400; font-size: 13px; }
  td { font-family: ${FONTS.number}; } th, td { padding: 5px 10px 5px 0; border-top: 1px solid var(--rule); }
  thead th { border-top: 0; } tfoot th, tfoot td { font-weight: 600; border-top: 1px solid var(--ink); }
`;
