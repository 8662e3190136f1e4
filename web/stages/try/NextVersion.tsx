import styled from 'styled-components';
import { formatPercent, formatSigned } from '../../../core/quantity/format';
import { type ProposedChange, proposedChanges } from '../../../core/work/next-version';
import { useBench } from '../../job/bench-context';
import { Checkbox } from '../../ui/controls';

/** Every change that the next version would make, each to be accepted or not. */
export function NextVersion() {
  const { resolved, edit } = useBench('resolved', 'edit');
  const changes = proposedChanges(resolved);
  if (changes.length === 0) return null;
  const set = (change: ProposedChange, take: boolean) =>
    void edit({
      kind: 'parameter',
      partId: resolved.part.id,
      name: change.parameter,
      expression: take ? change.follows : { text: change.was.toFixed(2), unit: change.unit },
    });
  return (
    <Scroll>
      <Table aria-label={`What version ${resolved.nextNumber} changes`}>
        <thead>
          <tr>
            <th scope="col">Change</th>
            <th scope="col">was</th>
            <th scope="col">would be</th>
            <th scope="col">right if left</th>
            <th scope="col">right if taken</th>
          </tr>
        </thead>
        <tbody>
          {changes.map(change => {
            const suffix = change.unit === 'deg' ? '°' : '';
            const taken = Math.abs(change.built - change.proposed) < 0.005;
            const other = !taken && Math.abs(change.built - change.was) >= 0.005;
            return (
              <tr key={change.mateId}>
                <th scope="row">
                  <Checkbox isSelected={taken} onChange={take => set(change, take)}>
                    {change.name}
                  </Checkbox>
                  {other ? (
                    <small className="soft"> your own {change.built.toFixed(2)} is built</small>
                  ) : null}
                </th>
                <td className="number">
                  {change.was.toFixed(2)}
                  {suffix}
                </td>
                <td className="number">
                  {change.proposed.toFixed(2)}
                  {suffix} <small>{formatSigned(change.proposed - change.was)}</small>
                </td>
                <td className="number">{formatPercent(change.left)}</td>
                <td className="number">{formatPercent(change.taken)}</td>
              </tr>
            );
          })}
        </tbody>
      </Table>
    </Scroll>
  );
}

const Scroll = styled.div`overflow-x: auto;`;
const Table = styled.table`
  border-collapse: collapse; width: 100%; font-size: 14.5px;
  th, td { text-align: right; font-weight: 400; padding: 4px 0 4px 16px; border-top: 1px solid var(--rule); white-space: nowrap; }
  th:first-child { text-align: left; padding-left: 0; white-space: normal; } thead th { color: var(--soft); border-top: 0; }
  small { color: var(--soft); }
`;
