import { useEffect, useRef, useState } from 'react';
import { TextField } from './controls';

interface Props {
  label: string;
  value: string;
  onCommit(value: string): void;
  /** Says what is wrong with the text, or undefined. Wrong text stays in the field and is not sent. */
  check?: (text: string) => string | undefined;
  hint?: string;
  placeholder?: string;
  rows?: number;
}

const PAUSE = 900;

/** Text that is an edit once its writer pauses or leaves the field. */
export function CommittedField({ label, value, onCommit, check, hint, placeholder, rows }: Props) {
  const [text, setText] = useState<string | null>(null);
  const timer = useRef<ReturnType<typeof setTimeout>>(undefined);
  const latest = useRef({ text, onCommit, check });
  latest.current = { text, onCommit, check };
  useEffect(
    () => () => {
      clearTimeout(timer.current);
      send(latest.current);
    },
    [],
  );
  const commit = () => {
    clearTimeout(timer.current);
    if (send(latest.current)) setText(null);
  };
  return (
    <TextField
      label={label}
      value={text ?? value}
      onChange={typed => {
        setText(typed);
        clearTimeout(timer.current);
        timer.current = setTimeout(commit, PAUSE);
      }}
      onBlur={commit}
      problem={text === null ? undefined : check?.(text)}
      hint={hint}
      placeholder={placeholder}
      rows={rows}
    />
  );
}

/** Whether there was something to send and it was sound. */
function send({
  text,
  onCommit,
  check,
}: {
  text: string | null;
  onCommit(value: string): void;
  check?: (text: string) => string | undefined;
}): boolean {
  if (text === null || check?.(text)) return false;
  onCommit(text);
  return true;
}
