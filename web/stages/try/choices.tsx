import { ToggleButton, ToggleButtonGroup } from 'react-aria-components';
import styled from 'styled-components';
import { FONTS } from '../../ui/theme';

interface Props<T extends string> {
  says: string;
  label?: string;
  value: T | undefined;
  options: readonly { id: T; word: string }[];
  onChange(value: T | undefined): void;
}

/** A row of small words of which one, or none, is chosen. */
export function Words<T extends string>({ says, label, value, options, onChange }: Props<T>) {
  return (
    <Line
      aria-label={says}
      selectionMode="single"
      selectedKeys={value ? [value] : []}
      onSelectionChange={keys => onChange([...keys][0] as T | undefined)}
    >
      {label === undefined ? null : <span>{label}</span>}
      {options.map(o => (
        <ToggleButton key={o.id} id={o.id}>
          {o.word}
        </ToggleButton>
      ))}
    </Line>
  );
}
const Line = styled(ToggleButtonGroup)`
  display: flex; flex-wrap: wrap; gap: 5px; align-items: center; font-size: 14px;
  span { width: 88px; color: var(--soft); }
  button {
    min-height: 32px; padding: 4px 10px; border: 1px solid var(--rule); border-radius: 4px; background: var(--raised);
    color: var(--ink); cursor: pointer; font: 14px ${FONTS.text};
  }
  button[data-selected] { border-color: var(--blue); background: var(--tint); font-weight: 600; }
`;
