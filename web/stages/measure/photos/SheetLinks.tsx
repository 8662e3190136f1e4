import styled from 'styled-components';
import { Row } from '../../../ui/layout';

const SHEETS = [
  ['a4', 'white', 'A4'],
  ['letter', 'white', 'Letter'],
  ['a4', 'dark', 'A4, dark middle for white and shiny things'],
  ['letter', 'dark', 'Letter, dark middle'],
] as const;

/** The reference sheet, to print. */
export function SheetLinks() {
  return (
    <Links $gap={14} $wrap>
      <b>The sheet to print, at 100 %:</b>
      {SHEETS.map(([paper, middle, words]) => (
        <a key={words} href={`/api/reference-sheet.pdf?paper=${paper}&middle=${middle}`}>
          {words}
        </a>
      ))}
    </Links>
  );
}

const Links = styled(Row)`margin: 14px 0; font-size: 14.5px;`;
