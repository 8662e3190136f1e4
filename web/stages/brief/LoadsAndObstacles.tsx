import { zodResolver } from '@hookform/resolvers/zod';
import { Plus, Trash2 } from 'lucide-react';
import { useForm } from 'react-hook-form';
import styled from 'styled-components';
import { ulid } from 'ulid';
import { z } from 'zod';
import { formatPlain } from '../../../core/quantity/format';
import { readLoad } from '../../../core/quantity/load';
import { parseQuantity } from '../../../core/quantity/parse';
import { useBench } from '../../job/bench-context';
import { Button, IconButton } from '../../ui/controls';
import { FormField } from '../../ui/FormField';
import { Panel, Row, Stack } from '../../ui/layout';

/** What pulls or pushes on it, and what stands in the way. */
export function LoadsAndObstacles() {
  const { document, edit } = useBench('document', 'edit');
  const { brief } = document;
  return (
    <Panel>
      <Stack $gap={16}>
        <List
          title="What pulls or pushes on it?"
          empty="Nothing said yet: a hand, a strap, a wave?"
          wordsLabel="In words"
          wordsExample="pulled off by the tab, one hand"
          sizeLabel="About"
          sizeExample="30 N, 3 kg"
          readSize={readForce}
          rows={brief.loads.map(l => ({
            id: l.id,
            words: l.words,
            size: l.forceN === null ? '' : `${formatPlain(l.forceN)} N`,
          }))}
          onAdd={(words, size) =>
            edit({
              kind: 'brief',
              brief: { loads: [...brief.loads, { id: ulid(), words, forceN: size, direction: '' }] },
            })
          }
          onRemove={id =>
            void edit({ kind: 'brief', brief: { loads: brief.loads.filter(l => l.id !== id) } })
          }
        />
        <List
          title="What stands in the way?"
          empty="Nothing said yet: a rail, a hose, a lid that must close?"
          wordsLabel="In words"
          wordsExample="gunwale above the port"
          sizeLabel="Clear, mm"
          sizeExample="22"
          readSize={readClear}
          rows={brief.obstacles.map(o => ({
            id: o.id,
            words: o.words,
            size: o.clear === null ? '' : `${formatPlain(o.clear)} mm`,
          }))}
          onAdd={(words, size) =>
            edit({
              kind: 'brief',
              brief: { obstacles: [...brief.obstacles, { id: ulid(), words, clear: size }] },
            })
          }
          onRemove={id =>
            void edit({ kind: 'brief', brief: { obstacles: brief.obstacles.filter(o => o.id !== id) } })
          }
        />
      </Stack>
    </Panel>
  );
}

/** `30`, `30 N`, `3 kg`, `a full bag`. */
function readForce(text: string): { value: number } | { problem: string } {
  const load = readLoad(text);
  return load.ok ? { value: load.newtons } : { problem: load.message };
}

function readClear(text: string): { value: number } | { problem: string } {
  const typed = parseQuantity(text, 'length');
  if (!typed.ok) return { problem: typed.message };
  const { value } = typed.quantity;
  return value >= 0 && value <= 5000 ? { value } : { problem: 'Between 0 and 5000 mm.' };
}

interface ListProps {
  title: string;
  empty: string;
  wordsLabel: string;
  wordsExample: string;
  sizeLabel: string;
  sizeExample: string;
  /** The typed text in N or mm; null where nothing was typed. */
  readSize(text: string): { value: number | null } | { problem: string };
  rows: { id: string; words: string; size: string }[];
  onAdd(words: string, size: number | null): Promise<boolean>;
  onRemove(id: string): void;
}

function List({
  title,
  empty,
  wordsLabel,
  wordsExample,
  sizeLabel,
  sizeExample,
  readSize,
  rows,
  onAdd,
  onRemove,
}: ListProps) {
  const sizeIn = (text: string) => (text.trim() === '' ? { value: null } : readSize(text));
  const { control, handleSubmit, reset } = useForm({
    resolver: zodResolver(
      z.object({
        words: z.string().trim().min(1, 'Say it in a few words.').max(120, 'At most 120 characters.'),
        size: z.string().superRefine((text, ctx) => {
          const read = sizeIn(text);
          if ('problem' in read) ctx.addIssue({ code: 'custom', message: read.problem });
        }),
      }),
    ),
    defaultValues: { words: '', size: '' },
  });
  const add = handleSubmit(async ({ words, size }) => {
    const read = sizeIn(size);
    if (!('problem' in read) && (await onAdd(words.trim(), read.value))) reset();
  });
  return (
    <div>
      <h3>{title}</h3>
      {rows.length === 0 ? <p className="soft">{empty}</p> : null}
      {rows.map(row => (
        <Row key={row.id} $between>
          <span style={{ overflowWrap: 'anywhere' }}>{row.words}</span>
          <Row $gap={6}>
            <span className="number">{row.size}</span>
            <IconButton aria-label={`Remove ${row.words}`} onPress={() => onRemove(row.id)}>
              <Trash2 size={16} />
            </IconButton>
          </Row>
        </Row>
      ))}
      <Adder onSubmit={event => void add(event)}>
        <FormField control={control} name="words" label={wordsLabel} placeholder={wordsExample} />
        <FormField control={control} name="size" label={sizeLabel} placeholder={sizeExample} />
        <Button type="submit" aria-label={`Add: ${title}`}>
          <Plus size={16} /> Add
        </Button>
      </Adder>
    </div>
  );
}

const Adder = styled.form`
  display: grid; grid-template-columns: 1fr 100px auto; gap: 10px; align-items: start; margin-top: 8px;
  > button { margin-top: 21px; min-height: 38px; }
`;
