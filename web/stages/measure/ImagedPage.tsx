import type { ReactNode } from 'react';
import styled from 'styled-components';
import { Lead, Row, TabRow } from '../../ui/layout';

interface Kept {
  id: string;
  label: string;
}

/** A file may be dropped anywhere on the content. */
export const FileDrop = ({ onFile, children }: { onFile(file: File): void; children: ReactNode }) => (
  // The button beside does the same for a keyboard.
  // biome-ignore lint/a11y/noStaticElementInteractions: see above
  <div
    onDragOver={event => event.preventDefault()}
    onDrop={event => {
      event.preventDefault();
      const [file] = event.dataTransfer.files;
      if (file) onFile(file);
    }}
  >
    {children}
  </div>
);

interface Props<T extends Kept> {
  title: string;
  lead: string;
  kept: readonly T[];
  shown: T;
  onShow(id: string): void;
  /** The control that adds another one. */
  adding: ReactNode;
  children: ReactNode;
}

/** Scans, or photos, of the object: one of them is open. */
export function ImagedPage<T extends Kept>({ title, lead, kept, shown, onShow, adding, children }: Props<T>) {
  return (
    <>
      <h1>{title}</h1>
      <Lead>{lead}</Lead>
      <Which>
        <div role="tablist" aria-label={title}>
          {kept.map(({ id, label }) => (
            <button
              key={id}
              type="button"
              role="tab"
              aria-selected={id === shown.id}
              title={label}
              onClick={() => onShow(id)}
            >
              {label}
            </button>
          ))}
        </div>
        <span className="end">
          <Row $gap={8}>{adding}</Row>
        </span>
      </Which>
      {children}
    </>
  );
}

const Which = styled(TabRow)`margin-bottom: 12px;`;
