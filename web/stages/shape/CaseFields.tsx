import { Trash2 } from 'lucide-react';
import { CommittedField } from '../../ui/CommittedField';
import { Hinted, IconButton } from '../../ui/controls';

interface NameProps {
  label: string;
  value: string;
  /** The problem shown where it is empty. */
  empty: string;
  onCommit(value: string): void;
}

/** The name of a load, a neighbour or a zone. */
export const CaseName = ({ empty, ...field }: NameProps) => (
  <CommittedField
    {...field}
    check={text => (text.trim() === '' ? empty : text.length > 120 ? 'At most 120 characters.' : undefined)}
  />
);

export const RemoveCase = ({ name, onPress }: { name: string; onPress(): void }) => (
  <Hinted hint="Remove it; undo brings it back">
    <IconButton aria-label={`Remove “${name}”`} onPress={onPress} style={{ alignSelf: 'end' }}>
      <Trash2 size={16} />
    </IconButton>
  </Hinted>
);

/** The typed text of each number: stored only where it is more than the number itself. */
export function withText<K extends string, T>(
  texts: { readonly [key in K]?: T } | undefined,
  key: K,
  text: T | null,
): { [key in K]?: T } {
  const entries = Object.entries<T | undefined>({ ...texts }).filter(([k]) => k !== key);
  return Object.fromEntries(text === null ? entries : [...entries, [key, text]]) as { [key in K]?: T };
}
