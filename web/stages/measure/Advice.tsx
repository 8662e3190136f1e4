import styled from 'styled-components';

/** Advice before measuring, each in a word or two and a sentence. */
export function Advice({
  summary,
  advice,
  open,
}: {
  summary: string;
  advice: readonly (readonly [what: string, words: string])[];
  open: boolean;
}) {
  return (
    <Box open={open}>
      <summary>{summary}</summary>
      <dl>
        {advice.map(([what, words]) => (
          <div key={what}>
            <dt>{what}</dt>
            <dd>{words}</dd>
          </div>
        ))}
      </dl>
    </Box>
  );
}

const Box = styled.details`
  margin-top: 16px; font-size: 14.5px;
  summary { cursor: pointer; color: var(--blue); font-weight: 600; padding: 4px 0; }
  dl { display: grid; grid-template-columns: repeat(auto-fill, minmax(260px, 1fr)); gap: 10px 22px; margin: 8px 0 0; }
  dt { font-weight: 600; } dd { margin: 0; color: var(--soft); }
`;
