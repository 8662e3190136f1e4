import { Camera, MapPin, Trash2 } from 'lucide-react';
import { useEffect, useRef, useState } from 'react';
import type { Dimension, Mark, MeasuredThread } from '../../../core/job/document';
import { measuredOf } from '../../../core/job/threads';
import { deriveKind } from '../../../core/measure/derive';
import { deriveFigure } from '../../../core/measure/figures';
import type { DrawDimension, Drawing } from '../../../core/shape/drawing/drawing';
import { threadFigure } from '../../../core/shelf/threads/figure';
import { showSize } from '../../../core/work/show';
import { DrawingView } from '../../drawing/DrawingView';
import { useBench } from '../../job/bench-context';
import { Button, Hinted, IconButton } from '../../ui/controls';
import { Panel, TabRow } from '../../ui/layout';
import { PhotoView } from './PhotoView';
import { sendPhoto } from './photos';

const DRAWING = 'drawing';
const THREAD = 'thread';
const FIGURE = 'figure';
const HEIGHT = 352;
/** The thread's name is below it and must be visible too. */
const THREAD_HEIGHT = 250;

interface Props {
  /** Sizes by dimension id. */
  measured: Readonly<Record<string, number>>;
  turn: Dimension;
  thread: MeasuredThread | undefined;
}

/** The place of the current dimension: on the recipe's drawing, on a thread, or on a photo of the object. */
export function Views({ measured, turn, thread }: Props) {
  const { document, resolved, select, unit, edit, job, say, session } = useBench(
    'document',
    'resolved',
    'select',
    'unit',
    'edit',
    'job',
    'say',
    'session',
  );
  const figure = figureFor(turn, document.dimensions);
  const home = thread ? THREAD : (turn.mark?.on ?? (figure ? FIGURE : DRAWING));
  const [picked, setPicked] = useState<{ for: string; view: string } | null>(null);
  const [placing, setPlacing] = useState(false);
  const [busy, setBusy] = useState(false);
  const file = useRef<HTMLInputElement>(null);
  const view = picked?.for === turn.id ? picked.view : home;
  const photo = document.photos.find(p => p.id === view);
  const show = (to: string) => setPicked({ for: turn.id, view: to });
  useEffect(() => {
    if (turn.id) setPlacing(false);
  }, [turn.id]);

  const send = async (chosen: File) => {
    setBusy(true);
    try {
      const sent = await sendPhoto(job.id, chosen);
      await session.refresh();
      show(sent.photo.id);
    } catch (error) {
      say((error as Error).message, 'stop');
    } finally {
      setBusy(false);
      if (file.current) file.current.value = '';
    }
  };
  const place = (on: string) => (from: [number, number], to: [number, number]) => {
    setPlacing(false);
    void edit({
      kind: 'describe-dimension',
      dimensionId: turn.id,
      mark: { on, from: rounded(from), to: rounded(to) },
    });
  };
  const marks = document.dimensions.flatMap(d => (d.mark ? [{ dimension: d, mark: d.mark }] : []));
  const size = (d: Dimension) =>
    measured[d.id] === undefined ? '?' : showSize(d.kind, measured[d.id]!, unit);
  const critical = new Set(document.dimensions.flatMap(d => (d.critical ? [d.id] : [])));
  const markable = view !== THREAD && view !== FIGURE && !turn.guide && !turn.derived;
  const drawing =
    view === THREAD && thread
      ? threadFigure({ ...thread, measured: measuredOf(thread) })
      : view === FIGURE && figure
        ? figure
        : withMarks(resolved.objectDrawing, marks, critical);
  return (
    <Panel style={{ padding: 0, overflow: 'hidden' }}>
      <TabRow>
        <div role="tablist" aria-label="Views">
          {[
            ...(thread ? [{ id: THREAD, label: 'Thread' }] : []),
            ...(figure ? [{ id: FIGURE, label: 'Figure' }] : []),
            { id: DRAWING, label: 'Drawing' },
            ...document.photos.map(p => ({ id: p.id, label: p.label })),
          ].map(tab => (
            <button
              key={tab.id}
              type="button"
              role="tab"
              aria-selected={tab.id === view}
              onClick={() => show(tab.id)}
              title={tab.label}
            >
              {tab.label}
            </button>
          ))}
        </div>
        <input
          ref={file}
          type="file"
          accept="image/*"
          aria-label="Photo of the object"
          tabIndex={-1}
          onChange={event => {
            const chosen = event.target.files?.[0];
            if (chosen) void send(chosen);
          }}
        />
        <Button $small $look="quiet" isDisabled={busy} onPress={() => file.current?.click()}>
          <Camera size={16} /> {busy ? 'Sending…' : 'Photo'}
        </Button>
        <span className="end">
          {markable ? (
            <Button $small $look={placing ? 'main' : 'quiet'} onPress={() => setPlacing(on => !on)}>
              <MapPin size={16} />{' '}
              {placing ? 'Press both ends' : turn.mark ? 'Mark it again' : 'Mark where it is'}
            </Button>
          ) : null}
          {photo ? (
            <Hinted hint="Remove this photo and its marks">
              <IconButton
                aria-label={`Remove the photo ${photo.label}`}
                onPress={() => {
                  show(DRAWING);
                  void edit({ kind: 'remove-photo', photoId: photo.id });
                }}
              >
                <Trash2 size={16} />
              </IconButton>
            </Hinted>
          ) : null}
        </span>
      </TabRow>
      {photo ? (
        <PhotoView
          photo={photo}
          marks={marks
            .filter(m => m.mark.on === photo.id)
            .map(m => ({
              key: m.dimension.id,
              words: `${m.dimension.label} ${size(m.dimension)}`,
              mark: m.mark,
            }))}
          lit={turn.id}
          onPick={select}
          onPlace={placing ? place(photo.id) : null}
          height={HEIGHT}
        />
      ) : (
        <DrawingView
          drawing={drawing}
          valueFor={d => {
            // A guide's drawing uses steps, a figure uses the dimensions themselves.
            const state = view === DRAWING ? resolved.dimensionAt(d.key) : resolved.dimensions.get(d.key);
            return state?.evaluation ? size(state.dimension) : null;
          }}
          lit={turn.id}
          onPick={select}
          onPlace={placing && view === DRAWING ? place(DRAWING) : null}
          height={view === THREAD ? THREAD_HEIGHT : HEIGHT}
          caption={
            view === THREAD
              ? 'Not to scale; count the turns between the two ends of the span'
              : view === FIGURE
                ? 'Not to scale: where each number is taken'
                : `${drawing.title}; ${CRITICAL} the fit depends on it, ? not read yet`
          }
        />
      )}
    </Panel>
  );
}

/** The figure of what is derived from the current dimension, or of its own derivation; labels by dimension id. */
function figureFor(turn: Dimension, dimensions: readonly Dimension[]): Drawing | null {
  const owner = [turn, ...dimensions].find(
    d =>
      d.derived?.by === 'formula' &&
      (d === turn || Object.values(d.derived.inputs).some(i => i.of === 'dimension' && i.id === turn.id)),
  );
  if (owner?.derived?.by !== 'formula') return null;
  const { kind, inputs } = owner.derived;
  if (!deriveKind(kind)) return null;
  const figure = deriveFigure(kind);
  const keyOf = (slot: string) => {
    const input = inputs[slot];
    return input?.of === 'dimension' ? input.id : slot;
  };
  return { ...figure, dimensions: figure.dimensions.map(d => ({ ...d, key: keyOf(d.key) })) };
}

const rounded = ([x, y]: [number, number]): [number, number] => [Number(x.toFixed(4)), Number(y.toFixed(4))];

/** Next to the label of a dimension that the fit depends on. */
const CRITICAL = '◆';

/** The maker's own marks appear in the recipe's drawing as dimensions along their line. */
function withMarks(
  drawing: Drawing,
  marks: readonly { dimension: Dimension; mark: Mark }[],
  critical: ReadonlySet<string>,
): Drawing {
  const own: DrawDimension[] = marks
    .filter(m => m.mark.on === DRAWING)
    .map(({ dimension, mark }) => ({
      key: dimension.id,
      label: dimension.label,
      from: mark.from,
      to: mark.to,
      line: 0,
      direction: 'along',
    }));
  return {
    ...drawing,
    dimensions: [...drawing.dimensions, ...own].map(d =>
      critical.has(d.key) ? { ...d, label: `${CRITICAL} ${d.label}` } : d,
    ),
  };
}
