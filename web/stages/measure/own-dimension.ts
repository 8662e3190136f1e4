import { ulid } from 'ulid';
import type { Dimension } from '../../../core/job/document';

/** Its name in expressions: its label in small letters, unlike any other in the job. */
export function nameFor(label: string, taken: readonly { name: string }[]): string {
  const plain = label
    .normalize('NFKD')
    .toLowerCase()
    .replace(/[^a-z0-9]+/g, '_')
    .replace(/^[^a-z]+|_+$/g, '')
    .slice(0, 34);
  const base = plain || 'size';
  let name = base;
  for (let n = 2; taken.some(d => d.name === name); n++) name = `${base}_${n}`;
  return name;
}

export const ownDimension = (
  label: string,
  kind: Dimension['kind'],
  taken: readonly Dimension[],
  more: Partial<Dimension> = {},
): Dimension => ({
  id: ulid(),
  name: nameFor(label, taken),
  label: label.slice(0, 120),
  kind,
  critical: false,
  guide: null,
  note: '',
  readings: [],
  ...more,
});
