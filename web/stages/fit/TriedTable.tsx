import styled from 'styled-components';

interface Props {
  rows: readonly { version: number; said: string; where: string }[];
}

/** The chart's earlier versions in words: for those who cannot see it, and for looking up. */
export function TriedTable({ rows }: Props) {
  if (rows.length === 0) return null;
  return (
    <Table>
      <caption>What was said of each version</caption>
      <tbody>
        {rows.map((row, i) => (
          <tr key={i}>
            <th scope="row">version {row.version}</th>
            <td>{row.said}</td>
            <td>{row.where}</td>
          </tr>
        ))}
      </tbody>
    </Table>
  );
}

const Table = styled.table`
  font-size: 14px; border-collapse: collapse; margin: 4px 0 8px;
  caption { text-align: left; color: var(--soft); } th { font-weight: 400; text-align: left; } th, td { padding: 2px 18px 2px 0; }
`;
