import { CircleAlert, Info, TriangleAlert } from 'lucide-react';
import type { ReactNode } from 'react';
import styled from 'styled-components';
import type { VerdictMark as Mark } from '../../core/learn/verdict';
import { Button } from './controls';
import { FONTS } from './theme';

export const Panel = styled.section`
  background: var(--sheet); border: 1px solid var(--rule); border-radius: 6px; padding: 14px 16px; min-width: 0;
`;
export const Row = styled.div<{ $gap?: number; $wrap?: boolean; $between?: boolean }>`
  display: flex; align-items: center; gap: ${p => p.$gap ?? 10}px; flex-wrap: ${p => (p.$wrap ? 'wrap' : 'nowrap')};
  justify-content: ${p => (p.$between ? 'space-between' : 'flex-start')}; min-width: 0;
`;
export const Stack = styled.div<{ $gap?: number }>`
  display: flex; flex-direction: column; gap: ${p => p.$gap ?? 12}px; min-width: 0;
`;
/** Views of one thing, beside each other. */
export const TabRow = styled.div`
  display: flex; align-items: center; gap: 2px; padding: 3px 6px 0; border-bottom: 1px solid var(--rule); overflow-x: auto;
  [role='tablist'] { display: flex; }
  button[role='tab'] {
    border: 0; border-bottom: 3px solid transparent; background: none; color: var(--soft); padding: 6px 10px 5px; cursor: pointer; font: 500 14.5px ${FONTS.label};
    max-width: 150px; overflow: hidden; text-overflow: ellipsis; white-space: nowrap; flex: none;
  }
  button[aria-selected='true'] { color: var(--blue); border-bottom-color: var(--blue); font-weight: 600; }
  input[type='file'] { position: absolute; width: 1px; height: 1px; opacity: 0; pointer-events: none; }
  .end { margin-left: auto; display: flex; align-items: center; }
`;
export const Big = styled.span`font: 600 26px ${FONTS.number}; font-variant-numeric: tabular-nums; margin-right: 4px;`;
export const Lead = styled.p`color: var(--soft); font-size: 14.5px; margin: 3px 0 14px; max-width: 86ch;`;

const ICON = { stop: CircleAlert, warn: TriangleAlert, note: Info };
const TONE = { stop: 'danger', warn: 'loose', note: 'blue' } as const;
const BACK = { stop: 'danger-tint', warn: 'loose-tint', note: 'tint' } as const;

/** A finding or an error as a sentence, with what to do about it. */
export function Notice({
  level,
  children,
  action,
}: {
  level: keyof typeof ICON;
  children: ReactNode;
  action?: ReactNode;
}) {
  const Icon = ICON[level];
  return (
    <NoticeBox $tone={TONE[level]} $back={BACK[level]} role={level === 'stop' ? 'alert' : 'status'}>
      <Icon size={18} aria-label={{ stop: 'Stop', warn: 'Warning', note: 'Note' }[level]} />
      <div>{children}</div>
      {action}
    </NoticeBox>
  );
}
const NoticeBox = styled.div<{ $tone: string; $back: string }>`
  display: flex; align-items: flex-start; gap: 10px; padding: 9px 12px; border-radius: 4px; font-size: 14.5px;
  background: var(--${p => p.$back}); border-left: 3px solid var(--${p => p.$tone});
  > svg { color: var(--${p => p.$tone}); flex: none; margin-top: 1px; }
  > div { flex: 1; min-width: 0; overflow-wrap: anywhere; }
`;

export function Loading({ what }: { what: string }) {
  return <Quiet role="status">{what}…</Quiet>;
}

/** An empty state says what the first step is. */
export function Empty({
  title,
  children,
  action,
}: {
  title: string;
  children: ReactNode;
  action?: ReactNode;
}) {
  return (
    <EmptyBox>
      <h2>{title}</h2>
      <p className="soft">{children}</p>
      {action}
    </EmptyBox>
  );
}
const Quiet = styled.p`color: var(--soft); padding: 28px;`;
const EmptyBox = styled.div`
  border: 1.5px dashed var(--rule); border-radius: 8px; padding: 36px; text-align: center;
  p { margin: 6px auto 16px; max-width: 56ch; }
`;

export function Failure({ error, retry }: { error: Error; retry?: () => void }) {
  return (
    <div style={{ padding: 28, maxWidth: 640 }}>
      <Notice
        level="stop"
        action={
          retry ? (
            <Button $small onPress={retry}>
              Try again
            </Button>
          ) : undefined
        }
      >
        {error.message}
      </Notice>
    </div>
  );
}

const MARK_COLOUR: Record<Mark, string> = {
  tight: 'var(--tight)',
  right: 'var(--right)',
  loose: 'var(--loose)',
};

/** Shape and colour: tight two triangles pointing in, right a solid bar, loose two pointing out, untried a dashed box. */
export function VerdictMark({
  mark,
  size = 24,
  label,
}: {
  mark: Mark | null;
  size?: number;
  label?: string;
}) {
  const name = label ?? (mark ? mark : 'not tried yet');
  return (
    <svg width={size} height={(size * 14) / 24} viewBox="0 0 24 14" role="img" aria-label={name}>
      <MarkShape mark={mark} />
    </svg>
  );
}

export function MarkShape({ mark }: { mark: Mark | null }) {
  if (mark === 'tight') return <path d="M1 1l9 6-9 6zM23 1l-9 6 9 6z" fill={MARK_COLOUR.tight} />;
  if (mark === 'loose') return <path d="M10 1l-9 6 9 6zM14 1l9 6-9 6z" fill={MARK_COLOUR.loose} />;
  if (mark === 'right') return <rect x="2" y="2" width="20" height="10" fill={MARK_COLOUR.right} />;
  return <rect x="2" y="1.5" width="20" height="11" fill="none" stroke="var(--soft)" strokeDasharray="3 2" />;
}
