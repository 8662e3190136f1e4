import { zodResolver } from '@hookform/resolvers/zod';
import { format } from 'date-fns';
import { Trash2 } from 'lucide-react';
import { useForm } from 'react-hook-form';
import styled from 'styled-components';
import { ulid } from 'ulid';
import { z } from 'zod';
import { useBench } from '../../job/bench-context';
import { Button, Checkbox, IconButton } from '../../ui/controls';
import { FormField } from '../../ui/FormField';
import { Notice, Panel, Row } from '../../ui/layout';

const ToRead = z.object({
  words: z.string().trim().min(1, 'Say what to look at.').max(120, 'At most 120 characters.'),
});

/** A borrowed or far-away object: what is still to be read, checked off before it leaves. */
export function Leaving() {
  const { document, resolved, edit } = useBench('document', 'resolved', 'edit');
  const { control, handleSubmit, reset, formState } = useForm({
    resolver: zodResolver(ToRead),
    defaultValues: { words: '' },
  });
  const { object } = document;
  if (!object.leaves) return null;
  const own = new Set(object.toRead.map(t => t.words));
  const open = resolved.stillToRead;
  const measured = open.filter(w => !own.has(w));
  const describe = (change: { toRead?: typeof object.toRead; goneAt?: string | null }) =>
    edit({ kind: 'describe-object', ...change });
  const add = handleSubmit(async ({ words }) => {
    if (await describe({ toRead: [...object.toRead, { id: ulid(), words, done: false }] })) reset();
  });
  if (object.goneAt) {
    return (
      <Panel>
        <Row $between $wrap>
          <p>
            The object left on {format(new Date(object.goneAt), 'd MMMM, HH:mm')}
            {open.length > 0 ? `, with ${open.length} left unread.` : ', with everything read.'}
          </p>
          <Button $small onPress={() => void describe({ goneAt: null })}>
            It is back
          </Button>
        </Row>
      </Panel>
    );
  }
  return (
    <Panel aria-label="Before it goes">
      <Row $between $wrap>
        <h2>Before it goes</h2>
        <Button
          $small
          $look={open.length === 0 ? 'main' : 'plain'}
          onPress={() => void describe({ goneAt: new Date().toISOString() })}
        >
          {open.length === 0 ? 'It may go' : `Let it go with ${open.length} open`}
        </Button>
      </Row>
      {open.length === 0 ? <Notice level="note">Everything is read: the object may go.</Notice> : null}
      <List>
        {measured.map(w => (
          <li key={w}>{w}</li>
        ))}
        {object.toRead.map(t => (
          <li key={t.id} className="own">
            <Checkbox
              isSelected={t.done}
              onChange={done =>
                void describe({ toRead: object.toRead.map(x => (x.id === t.id ? { ...x, done } : x)) })
              }
            >
              {t.words}
            </Checkbox>
            <IconButton
              aria-label={`Take “${t.words}” off the list`}
              onPress={() => void describe({ toRead: object.toRead.filter(x => x.id !== t.id) })}
            >
              <Trash2 size={15} />
            </IconButton>
          </li>
        ))}
      </List>
      <form onSubmit={event => void add(event)}>
        <Row $gap={8} style={{ alignItems: 'flex-end' }}>
          <div style={{ flex: 1 }}>
            <FormField
              control={control}
              name="words"
              label="Something else to look at"
              placeholder="A photo of the underside"
            />
          </div>
          <Button type="submit" isDisabled={formState.isSubmitting}>
            Add
          </Button>
        </Row>
      </form>
    </Panel>
  );
}

const List = styled.ul`
  margin: 8px 0 10px; padding-left: 20px;
  li { padding: 2px 0; } .own { list-style: none; margin-left: -20px; display: flex; align-items: center; justify-content: space-between; }
`;
