import { FileDown } from 'lucide-react';
import styled from 'styled-components';

/** A test piece to take to a printer, in both kinds of file. @param at its address, without the ending */
export function FilesOf({ at }: { at: string }) {
  return (
    <>
      {(['3mf', 'stl'] as const).map(kind => (
        <Download key={kind} href={`${at}.${kind}`} download>
          <FileDown size={15} /> {kind.toUpperCase()}
        </Download>
      ))}
    </>
  );
}

const Download = styled.a`
  display: inline-flex; align-items: center; gap: 6px; min-height: 32px; padding: 0 10px; border: 1px solid var(--blue); border-radius: 4px; font-weight: 600; text-decoration: none;
`;
