import { zodResolver } from '@hookform/resolvers/zod';
import { addDays, format } from 'date-fns';
import { useState } from 'react';
import { useForm, useWatch } from 'react-hook-form';
import { z } from 'zod';
import { PressedPlace } from '../../../core/job/document';
import { counting } from '../../../core/job/history';
import { FAILED_IN_SERVICE, LOOKED, LOOKED_WORDS, type Looked } from '../../../core/job/history/look';
import { type Press, placeInWords } from '../../../core/shape/additions/pressed';
import { wholePrints } from '../../../core/work/outcome';
import { failedPiece, lookAgainAt, lookFor, piecesOf } from '../../../core/work/service';
import { BenchPhotos } from '../../job/BenchPhotos';
import { useBench } from '../../job/bench-context';
import { VersionSolid } from '../../solid/VersionSolid';
import { Button, MenuButton, Select } from '../../ui/controls';
import { FormField } from '../../ui/FormField';
import { Notice, Panel, Row, Stack } from '../../ui/layout';
import { dayWords } from './FailedPanel';
import { lookWords } from './log-words';

/** Since when it serves, when and what to look at again, and what was seen. */
export function InService() {
  const { document, resolved, edit } = useBench('document', 'resolved', 'edit');
  const { service } = document;
  const failed = failedPiece(resolved.history, service.since);
  const stands = failed === null || failed.mended;
  const looks = counting(resolved.history).looks;
  const prints = wholePrints(counting(resolved.history));
  return (
    <Panel>
      <Stack $gap={10}>
        <Row $between>
          <h2>
            {service.since
              ? `In service since ${format(new Date(service.since), 'd MMMM yyyy')}`
              : 'Not in service yet'}
          </h2>
          {service.since || stands ? (
            <Button
              $small
              data-next
              onPress={() =>
                void edit({ kind: 'in-service', since: service.since ? null : new Date().toISOString() })
              }
            >
              {service.since ? 'Take it out of service' : 'Put it in service'}
            </Button>
          ) : null}
        </Row>
        {resolved.cautions.map(f => (
          <Notice key={`${f.code}${f.load ?? ''}`} level={f.level}>
            {f.message}
          </Notice>
        ))}
        <Pieces serves={service.since !== null} />
        <LookAgain />
        {prints.length > 0 ? <LookForm /> : null}
        {looks.toReversed().map(l => (
          <p key={l.id} style={{ overflowWrap: 'anywhere' }}>
            <span className="soft">{format(new Date(l.at), 'd MMM yyyy')}</span>{' '}
            {lookWords(l, prints.find(p => p.print.id === l.printId)?.print.pieces ?? 1)}
          </p>
        ))}
        {service.notes.toReversed().map(n => (
          <p key={n.id} style={{ overflowWrap: 'anywhere' }}>
            <span className="soft">{format(new Date(n.at), 'd MMM yyyy')}</span> {n.words}
          </p>
        ))}
      </Stack>
    </Panel>
  );
}

/** How many pieces there are besides the one in service. */
function Pieces({ serves }: { serves: boolean }) {
  const { resolved } = useBench('resolved');
  const { right, gone } = piecesOf(resolved.history);
  if (right < 2) return null;
  const left = right - gone;
  const spare = serves ? left - 1 : left;
  return (
    <p className="soft">
      {right} pieces sat right
      {gone > 0 ? `, ${gone} of them no longer ${gone === 1 ? 'serves' : 'serve'}` : ''}:{' '}
      {spare > 0
        ? `${spare} ${serves ? 'beside one in service' : 'at hand'}`
        : 'no spare is left: print another before it is needed'}
      .
    </p>
  );
}

const LATER = [
  { id: '3', label: 'in 3 days' },
  { id: '7', label: 'in a week' },
  { id: '30', label: 'in a month' },
  { id: '90', label: 'after the season' },
  { id: 'brief', label: 'as the brief says' },
] as const;

function LookAgain() {
  const { document, resolved, edit } = useBench('document', 'resolved', 'edit');
  const at = lookAgainAt(resolved);
  if (at === null) return null;
  const now = new Date();
  const due = new Date(at) <= now;
  return (
    <Notice
      level={due ? 'warn' : 'note'}
      action={
        <MenuButton
          label="Another day"
          items={LATER}
          onChoose={days =>
            void edit({
              kind: 'look-again',
              at: days === 'brief' ? null : addDays(now, Number(days)).toISOString(),
            })
          }
        />
      }
    >
      Look at it {due ? 'now' : `on ${format(new Date(at), 'd MMMM yyyy')}`} ({due ? 'due ' : ''}
      {dayWords(at, now)}
      {document.brief.ifItBreaks === null ? '' : `; if it breaks: ${document.brief.ifItBreaks}`}). Look for{' '}
      {lookFor(resolved).join('; ')}.
    </Notice>
  );
}

const Seen = z.object({
  piece: z.string(),
  found: z.enum(LOOKED),
  where: z.string().trim().max(200, 'At most 200 characters.'),
  cause: z.string().trim().max(400, 'At most 400 characters.'),
  place: PressedPlace.nullable(),
  by: z.string().trim().max(60, 'At most 60 characters.'),
  note: z.string().trim().max(2000, 'At most 2000 characters.'),
  photos: z.array(z.string()),
});

/** What was seen of one piece: in a word and, where it failed, at which place and why. */
function LookForm() {
  const { resolved, session, say } = useBench('resolved', 'session', 'say');
  const prints = wholePrints(counting(resolved.history));
  const pieces = prints.toReversed().flatMap(({ print, version }) =>
    Array.from({ length: print.pieces }, (_, i) => ({
      value: `${print.id} ${i + 1}`,
      label: `version ${version.number}, print ${print.number}${print.pieces > 1 ? `, piece ${i + 1}` : ''}`,
    })),
  );
  const empty = {
    piece: pieces[0]!.value,
    found: 'holds' as Looked,
    where: '',
    cause: '',
    place: null as z.infer<typeof PressedPlace> | null,
    by: '',
    note: '',
    photos: [] as string[],
  };
  const [pressing, setPressing] = useState(false);
  const { control, handleSubmit, setValue, getValues, reset, formState } = useForm({
    resolver: zodResolver(Seen),
    defaultValues: empty,
  });
  const { found = 'holds', piece = empty.piece, photos = [] } = useWatch({ control });
  const place = useWatch({ control, name: 'place' }) ?? null;
  const { version } = prints.find(p => p.print.id === piece.split(' ')[0]) ?? prints.at(-1)!;
  /** The words follow the press until the maker writes others. */
  const press = (pressed: Press) => {
    const before = getValues('place');
    setValue('place', { point: [...pressed.point], normal: [...pressed.normal] });
    const own = getValues('where').trim();
    if (own === '' || (before && own === placeInWords(before))) setValue('where', placeInWords(pressed));
  };
  const failing = FAILED_IN_SERVICE.includes(found);
  const record = handleSubmit(async ({ piece: which, place: marked, ...seen }) => {
    const [printId, number] = which.split(' ');
    try {
      await session.append('looks', () => ({
        ...seen,
        ...(marked ? { place: marked } : {}),
        printId,
        piece: Number(number),
      }));
      reset({ ...empty, by: seen.by });
      setPressing(false);
    } catch (error) {
      say((error as Error).message, 'stop');
    }
  });
  return (
    <form onSubmit={event => void record(event)}>
      <Stack $gap={8}>
        <Row $gap={10} $wrap style={{ alignItems: 'flex-end' }}>
          <Select
            label="How does it hold?"
            value={found}
            options={LOOKED.map(value => ({ value, label: LOOKED_WORDS[value] }))}
            onChange={value => setValue('found', value)}
          />
          {pieces.length > 1 ? (
            <Select
              label="Which piece"
              value={piece}
              options={pieces}
              onChange={v => {
                setValue('piece', v);
                // The place was marked on another version's solid.
                setValue('place', null);
              }}
            />
          ) : null}
        </Row>
        {failing || found === 'worn' ? (
          <>
            <FormField
              control={control}
              name="where"
              label="Where on the part"
              placeholder="at the root of the lip"
            />
            <Row $gap={10}>
              <Button $small $look="quiet" onPress={() => setPressing(!pressing)}>
                {pressing ? 'Close the solid' : 'Press it on the solid'}
              </Button>
              {place ? <span className="soft">The place is marked.</span> : null}
            </Row>
            {pressing ? (
              <VersionSolid
                version={version}
                marked={place ? [place] : []}
                says={
                  place ? 'Press another place to mark that instead.' : 'Press the place where it failed.'
                }
                onPress={press}
              />
            ) : null}
            <FormField
              control={control}
              name="cause"
              label="What was the cause, if you know"
              placeholder="pulled off cold, by one side"
            />
          </>
        ) : null}
        <FormField
          control={control}
          name="note"
          label="Anything else"
          placeholder="after a week: still clicks, no whitening at the lip"
          rows={2}
        />
        <Row $gap={10} $wrap style={{ alignItems: 'flex-end' }}>
          <div style={{ maxWidth: 200 }}>
            <FormField control={control} name="by" label="Who looked" placeholder="the boat-keeper" />
          </div>
          <BenchPhotos photos={photos} onChange={next => setValue('photos', next)} />
          <Button $small type="submit" isDisabled={formState.isSubmitting}>
            Note it
          </Button>
        </Row>
      </Stack>
    </form>
  );
}
