import { FileDown } from 'lucide-react';
import { FileLink } from './FileLink';

/** A test piece to take to a printer, in both kinds of file. @param at its address, without the ending */
export const FilesOf = ({ at }: { at: string }) => (
  <>
    {(['3mf', 'stl'] as const).map(kind => (
      <FileLink key={kind} href={`${at}.${kind}`} download>
        <FileDown size={15} aria-hidden /> {kind.toUpperCase()}
      </FileLink>
    ))}
  </>
);
