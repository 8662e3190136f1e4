import { zodResolver } from '@hookform/resolvers/zod';
import { type ComponentProps, useEffect, useMemo, useRef } from 'react';
import { useForm, useWatch } from 'react-hook-form';
import { BenchVerdicts } from '../../../contract/bench';
import { type FitMate, isFit, type Mate, type SignedMate } from '../../../core/job/document';
import { counting, type Print, type TryMate, type Version } from '../../../core/job/history';
import { unitOfKind } from '../../../core/learn/signed';
import { MARK_OF, VERDICTS } from '../../../core/learn/verdict';
import { singleReading } from '../../../core/work/dimension';
import type { Outcome } from '../../../core/work/outcome';
import { verdictOfDepth, type Wedge, wedgeOf } from '../../../core/work/wedge';
import { post } from '../../api/client';
import { BenchPhotos } from '../../job/BenchPhotos';
import { useBench } from '../../job/bench-context';
import { useInstrumentInHand } from '../../job/instrument-in-hand';
import { MeasuredWith } from '../../job/MeasuredWith';
import { isTyping } from '../../job/use-job-keys';
import { Button } from '../../ui/controls';
import { FormField } from '../../ui/FormField';
import { Notice, Panel, Row, Stack } from '../../ui/layout';
import { FitVerdict } from './FitVerdict';
import { Happened } from './Happened';
import { SignedVerdict } from './SignedVerdict';
import {
  amountOf,
  dropDraft,
  keepDraft,
  keptDraft,
  type MateDraft,
  MOST_ABOUT,
  NO_DRAFT,
  offSaid,
  sizeOf,
  TryDraft,
  WAYS,
} from './try-draft';

interface Props {
  version: Version;
  print: Print;
  /** The outcome of the tries so far; null before the first. */
  outcome: Outcome | null;
}

/** A mate of the version that is judged, with its drawn size. */
type Judged =
  | { mate: FitMate; model: number; wedge: Wedge | null }
  | { mate: SignedMate; model: number; wedge: null };

/** A tight taper stops short of its place. */
const WAY_OF = { tight: 'less', right: 'right', loose: 'more' } as const;
type Amounted = ComponentProps<typeof SignedVerdict>['mate'];

/** The words for a taper that is not home. */
const WEDGES = { less: 'does not go in far enough', more: 'goes in too far' };

export function TryForm({ version, print, outcome }: Props) {
  const { job, session, say, workshop } = useBench('job', 'session', 'say', 'workshop');
  const judged = useJudged(version, outcome);
  const instrument = useInstrumentInHand(workshop.instruments, false);
  const { control, handleSubmit, setValue, getValues, formState, reset } = useForm({
    resolver: zodResolver(
      TryDraft.superRefine((draft, context) => {
        for (const { id, field, message } of problemsOf(draft, judged))
          context.addIssue({ code: 'custom', path: ['mates', id, field], message });
        if (nothingIn(draft)) context.addIssue({ code: 'custom', path: ['mates'], message: NOTHING });
      }),
    ),
    defaultValues: keptDraft(print.id),
  });
  const draft = useWatch({ control }) as TryDraft;
  useEffect(() => keepDraft(print.id, draft), [print.id, draft]);
  const draftOf = (id: string): MateDraft => draft.mates[id] ?? NO_DRAFT;
  const change = (id: string, next: Partial<MateDraft>) =>
    setValue(
      'mates',
      { ...getValues().mates, [id]: { ...(getValues().mates?.[id] ?? NO_DRAFT), ...next } },
      { shouldValidate: formState.isSubmitted },
    );
  useVerdictKeys(judged, id => draftOf(id), change);
  const record = handleSubmit(async said => {
    try {
      const { happened, photos, by, note } = said;
      const mates = saidOf(said, judged, typed =>
        singleReading(typed.value, typed.side, instrument.instrument?.id ?? null, workshop),
      );
      await session.append('tries', () => ({ printId: print.id, mates, happened, photos, by, note }));
      dropDraft(print.id);
      // Who judges stays the same person.
      reset({ ...TryDraft.parse({}), by });
    } catch (error) {
      say((error as Error).message, 'stop');
    }
  });
  const practice = async () => {
    try {
      const { verdicts } = await post(`/bench/jobs/${job.id}/try-on`, BenchVerdicts, { printId: print.id });
      for (const [id, verdict] of Object.entries(verdicts))
        change(
          id,
          judged.some(j => j.mate.id === id && j.wedge) ? { way: WAY_OF[MARK_OF[verdict]] } : { verdict },
        );
    } catch (error) {
      say((error as Error).message, 'stop');
    }
  };
  const gaugesOf = useGauges();
  const open = outcome?.unjudged.length ?? 0;
  // Shown once recording was attempted, then updated with every key.
  const problems = formState.isSubmitted ? problemsOf(draft, judged) : [];
  const problemOf = (id: string, field: keyof MateDraft) =>
    problems.find(p => p.id === id && p.field === field)?.message;
  return (
    <form onSubmit={event => void record(event)}>
      <Stack $gap={12} style={{ maxWidth: 780 }}>
        {outcome ? (
          <h2>{open > 0 ? 'How does the rest of it sit?' : 'Try it again, or more carefully'}</h2>
        ) : null}
        {judged.map(({ mate, model, wedge }) =>
          isFit(mate) && !wedge ? (
            <FitVerdict
              key={mate.id}
              mate={mate}
              model={model}
              draft={draftOf(mate.id)}
              problems={{ about: problemOf(mate.id, 'about'), printed: problemOf(mate.id, 'printed') }}
              gauges={gaugesOf(mate.id)}
              onChange={next => change(mate.id, next)}
            />
          ) : (
            <SignedVerdict
              key={mate.id}
              mate={asAmount(mate, wedge)}
              model={model}
              draft={draftOf(mate.id)}
              problem={problemOf(mate.id, 'amount')}
              onChange={next => change(mate.id, next)}
            />
          ),
        )}
        <Happened happened={draft.happened} onChange={happened => setValue('happened', happened)} />
        <Panel>
          <Stack $gap={10}>
            <FormField
              control={control}
              name="note"
              label="Anything else?"
              placeholder="goes on straight, turns freely"
              rows={2}
              maxLength={2000}
            />
            <Row $wrap $gap={16} style={{ alignItems: 'flex-end' }}>
              <div style={{ maxWidth: 220 }}>
                <FormField
                  control={control}
                  name="by"
                  label="Who tried it?"
                  placeholder="the boat-keeper"
                  maxLength={60}
                />
              </div>
              {judged.some(({ mate }) => draftOf(mate.id).printed.trim() !== '') ? (
                <MeasuredWith inHand={instrument} />
              ) : null}
              <BenchPhotos photos={draft.photos} onChange={photos => setValue('photos', photos)} />
            </Row>
          </Stack>
        </Panel>
        {formState.isSubmitted && nothingIn(draft) ? <Notice level="stop">{NOTHING}</Notice> : null}
        <Row $wrap>
          <Button type="submit" $look={outcome ? 'plain' : 'main'} isDisabled={formState.isSubmitting}>
            Record the try
          </Button>
          {workshop.practiceBench ? <Button onPress={() => void practice()}>Practice hands</Button> : null}
        </Row>
      </Stack>
    </form>
  );
}

/** A taper is judged like a position: by how far off it is along its axis. */
const asAmount = (mate: Mate, wedge: Wedge | null): Amounted =>
  isFit(mate)
    ? {
        ...mate,
        kind: 'position',
        sense: WEDGES,
        tolerance: { min: Number(wedge!.min.toFixed(1)), max: Number(wedge!.max.toFixed(1)) },
      }
    : mate;

const NOTHING = 'Say how at least one surface feels, or what happened.';

/**
 * The mates of a version that are judged: unjudged ones come first. A surface that the job no longer has is left out.
 */
function useJudged(version: Version, outcome: Outcome | null): Judged[] {
  const { document, work, resolved } = useBench('document', 'work', 'resolved');
  const open = new Set(outcome?.unjudged.map(m => m.mateId));
  const surfaces = useMemo(() => work.recipeOfVersion(version).surfaces(version.parameters), [work, version]);
  return [...version.mates, ...version.signed]
    .toSorted((a, b) => Number(open.has(b.mateId)) - Number(open.has(a.mateId)))
    .flatMap(({ mateId, model }): Judged[] => {
      const mate = document.mates.find(m => m.id === mateId);
      if (!mate) return [];
      if (!isFit(mate)) return [{ mate, model, wedge: null }];
      const window = resolved.ledger.mates.find(m => m.mate.id === mateId)?.window;
      return [{ mate, model, wedge: window ? wedgeOf(surfaces, mate.ours.surface, window) : null }];
    });
}

/** Measured gauges of a mate's object, with their sizes. */
function useGauges(): (mateId: string) => { id: string; value: number }[] {
  const { history } = useBench('resolved').resolved;
  const { gauges, gaugeSizes } = counting(history);
  return mateId =>
    gauges.flatMap(({ id, mateId: of }) => {
      const size = gaugeSizes.findLast(s => s.gaugeId === id);
      return of === mateId && size ? [{ id, value: size.value }] : [];
    });
}

function problemsOf(draft: TryDraft, judged: readonly Judged[]) {
  return judged.flatMap(({ mate, wedge }) => {
    const said = draft.mates[mate.id];
    if (!said) return [];
    const found: { id: string; field: keyof MateDraft; message: string }[] = [];
    const add = (field: keyof MateDraft, message: string | undefined) => {
      if (message) found.push({ id: mate.id, field, message });
    };
    if (isFit(mate) && !wedge) {
      add('printed', sizeOf(said.printed).problem);
      add('about', amountOf(said.about, 'mm', MOST_ABOUT).problem);
    } else {
      const off = offSaid(said, isFit(mate) ? 'mm' : unitOfKind(mate.kind));
      if (off && 'problem' in off) add('amount', off.problem);
    }
    return found;
  });
}

const nothingIn = (draft: TryDraft): boolean =>
  draft.happened.length === 0 &&
  Object.values(draft.mates).every(m => !m.verdict && !m.way && !m.printed.trim() && !m.amount.trim());

type Typed = { value: number; side: FitMate['side'] };

/** What is recorded, by mate. @param sizeWith a size of the print with the uncertainty of its instrument */
function saidOf(
  draft: TryDraft,
  judged: readonly Judged[],
  sizeWith: (typed: Typed) => NonNullable<TryMate['printed']>,
): Record<string, TryMate> {
  const said: Record<string, TryMate> = {};
  for (const { mate, wedge } of judged) {
    const own = draft.mates[mate.id];
    if (!own) continue;
    const entry: TryMate = wedge
      ? wedgedOf(own, wedge)
      : isFit(mate)
        ? feltOf(own, mate, sizeWith)
        : seenOf(own, mate);
    if (Object.keys(entry).length > 0) said[mate.id] = entry;
  }
  return said;
}

function feltOf(
  own: MateDraft,
  { side }: FitMate,
  sizeWith: (typed: Typed) => NonNullable<TryMate['printed']>,
): TryMate {
  const { verdict, binds, marks, aboutBy } = own;
  const printed = sizeOf(own.printed).value;
  const amount = amountOf(own.about, 'mm', MOST_ABOUT).value;
  const effort = Object.fromEntries(Object.entries(own.effort).filter(([, e]) => e !== undefined));
  return {
    ...(verdict ? { verdict } : {}),
    ...(verdict && own.gauge ? { gauge: own.gauge } : {}),
    ...(verdict && verdict !== 'right' && amount ? { about: { amount, by: aboutBy } } : {}),
    ...(binds ? { binds } : {}),
    ...(marks ? { marks } : {}),
    ...(printed === null ? {} : { printed: sizeWith({ value: printed, side }) }),
    ...(Object.keys(effort).length > 0 ? { effort } : {}),
  };
}

function wedgedOf(own: MateDraft, wedge: Wedge): TryMate {
  const depth = offSaid(own, 'mm');
  return depth && !('problem' in depth) ? { depth, verdict: verdictOfDepth(depth.value, wedge) } : {};
}

function seenOf(own: MateDraft, { kind }: SignedMate): TryMate {
  const off = offSaid(own, unitOfKind(kind));
  return off && !('problem' in off) ? { off } : {};
}

/** Keys 1 to 5 enter a verdict for the focused surface, otherwise for the first one without a verdict. */
function useVerdictKeys(
  judged: readonly Judged[],
  draftOf: (id: string) => MateDraft,
  change: (id: string, next: Partial<MateDraft>) => void,
): void {
  const latest = useRef({ judged, draftOf, change });
  latest.current = { judged, draftOf, change };
  useEffect(() => {
    const say = (event: KeyboardEvent) => {
      const number = Number(event.key);
      if (!(number >= 1 && number <= 5) || event.ctrlKey || event.metaKey || event.altKey) return;
      if (isTyping(event.target)) return;
      const { judged: all, draftOf: of, change: set } = latest.current;
      const inFocus = (event.target as HTMLElement).closest<HTMLElement>('[data-mate]')?.dataset.mate;
      const next =
        all.find(j => j.mate.id === inFocus) ??
        all.find(j => !of(j.mate.id).verdict && !of(j.mate.id).way) ??
        all[0];
      if (!next) return;
      event.preventDefault();
      if (isFit(next.mate) && !next.wedge) set(next.mate.id, { verdict: VERDICTS[number - 1] });
      else set(next.mate.id, { way: WAYS[number < 3 ? 0 : number === 3 ? 1 : 2] });
    };
    window.addEventListener('keydown', say);
    return () => window.removeEventListener('keydown', say);
  }, []);
}
