import { expose } from 'comlink';
import { writeOutline } from '../../core/files/outline-file';
import { loopsOf } from '../../core/files/profile/loops';
import { formatPlain } from '../../core/quantity/format';
import { boxOf, type Curve, flattenedPoints, lengthOfCurve, outlineOfCurves } from '../../core/shape/curve';
import { tidyings } from '../../core/shape/tidy/tidy';
import type { Point2 } from '../../core/shape/vector';
import { adviceOn } from '../../core/trace/advice';
import type { Doubt } from '../../core/trace/doubt';
import { circleOf, type TracedLoop } from '../../core/trace/outline';
import { differences } from '../../core/trace/overlay/differences';
import type { Picture } from '../../core/trace/picture';
import { type Picked, sizesOf } from '../../core/trace/sizes';
import { asSaid, type TracedJob, traceAsRead } from '../../core/trace/trace-job';
import { laidUpright } from '../../core/trace/upright';
import { contactAt, keyOf, shownLaid } from './shown-laid';
import type { ShownPiece, ShownTrace, TraceApi, TraceAsked } from './trace-protocol';

/** Holds one picture and its trace: twelve million pixels never touch the page's own thread. */

let picture: Picture | null = null;
let loaded: Loaded | null = null;

interface Loaded {
  asked: TraceAsked;
  /** As it was found. */
  found: TracedJob;
  /** With all corrections of its lines and arcs. */
  traced: TracedJob;
  lost: number;
  doubt: Doubt;
}

function loadedAs(found: TracedJob, asked: TraceAsked): Loaded {
  const { traced, lost } = asSaid(found, asked.parting ?? []);
  return { asked, found, traced, lost, doubt: traced.doubt.with(asked.tidy) };
}

const NOT_OPEN = { ok: false, message: 'The photo is not read yet: wait a moment.' } as const;
const NOT_TRACED = { ok: false, message: 'Nothing is traced yet.' } as const;
/** Arcs as short lines on the picture, mm. */
const SHOWN = 0.02;

const api: TraceApi = {
  async open({ jobId, photoId }) {
    const answer = await fetch(`/api/jobs/${jobId}/photos/${photoId}`);
    if (!answer.ok)
      return { ok: false, message: 'The photo is not on this machine: it did not come with the job.' };
    try {
      const image = await createImageBitmap(await answer.blob());
      const { width, height } = image;
      const canvas = new OffscreenCanvas(width, height);
      const context = canvas.getContext('2d', { willReadFrequently: true });
      if (!context) return { ok: false, message: 'This browser gives no picture to read: use another one.' };
      context.drawImage(image, 0, 0);
      image.close();
      const { data } = context.getImageData(0, 0, width, height);
      picture = { width, height, data };
      return { ok: true, width, height };
    } catch (error) {
      if (!(error instanceof Error)) throw error;
      return {
        ok: false,
        message: 'The photo is broken, or larger than this machine’s memory: add it again, smaller.',
      };
    }
  },

  async trace(asked, progress) {
    if (!picture) return NOT_OPEN;
    const answer = traceAsRead(picture, asked, progress);
    if (!answer.ok) {
      loaded = null;
      return answer;
    }
    loaded = loadedAs(answer.traced, asked);
    return { ok: true, trace: shown() };
  },

  async shape(said) {
    if (!loaded) return NOT_TRACED;
    loaded = loadedAs(loaded.found, { ...loaded.asked, ...said });
    return { ok: true, trace: shown() };
  },

  async sizes(picked) {
    if (!loaded) return NOT_TRACED;
    const { doubt } = loaded;
    return {
      ok: true,
      sizes: sizesOf(doubt.outlines, picked).flatMap(size => {
        const found = doubt.of(size.read);
        return found ? [{ of: size.of, words: size.words, kind: size.kind, ...found }] : [];
      }),
    };
  },

  async lay(shadows, how) {
    if (!loaded) return NOT_TRACED;
    const { traced, doubt } = loaded;
    const laid = differences(doubt, shadows, how);
    return laid
      ? { ok: true, laid: shownLaid(laid, traced, doubt.outlines) }
      : { ok: false, message: 'The part shows no outline from any side: see Shape.' };
  },

  async file(kind, title) {
    if (!loaded) return NOT_TRACED;
    const loops = laidUpright(loaded.doubt.outlines).map(curves => ({ curves, closed: true }));
    return { ok: true, text: writeOutline(kind, title, loops) };
  },
};

expose(api);

function shown(): ShownTrace {
  const { asked, traced, lost, doubt } = loaded!;
  const outlines = doubt.outlines;
  const { by } = asked;
  const barsRead =
    by.kind === 'sheet' ? by.bars !== undefined : by.kind === 'flatbed' ? by.known !== undefined : true;
  const notes: string[] = [];
  const upright = laidUpright(outlines);
  const profile = loopsOf(upright.flat(), notes);
  const [outer, ...inner] = profile;
  const [x0, y0, x1, y1] = boxOf(outlineOfCurves(upright[0]!));
  return {
    pieces: outlines.flatMap((curves, loop) => piecesOf(traced.loops[loop]!, curves, loop)),
    size: [x1 - x0, y1 - y0],
    unseen: traced.unseen.map(({ at, diameter }) => ({ at: traced.shown(at, 'foot'), diameter })),
    clean: traced.clean,
    advice: adviceOn(traced, { barsRead, thickness: asked.thickness }),
    lost,
    offers: tidyings(traced.loops.map(l => l.parted)).map(({ key, words }) => ({ key, words })),
    ...(traced.tilt === undefined ? {} : { tilt: traced.tilt }),
    sigma: traced.sigma,
    outline: outer?.outline ?? '',
    holes: inner.flatMap(l => (l.circle ? [l.circle] : [])),
    others: inner.filter(l => !l.circle).length,
  };
}

function piecesOf(loop: TracedLoop, curves: readonly Curve[], at: number): ShownPiece[] {
  if (circleOf(curves)) return [pieceOf(loop, curves, { loop: at, piece: null })];
  return curves.map((c, piece) => pieceOf(loop, [c], { loop: at, piece }));
}

function pieceOf(loop: TracedLoop, curves: readonly Curve[], picked: Picked): ShownPiece {
  const { traced, doubt } = loaded!;
  const [size] = sizesOf(doubt.outlines, [picked]);
  const found = size && doubt.of(size.read);
  const sign = size?.of === 'diameter' ? 'Ø ' : size?.of === 'radius' ? 'R ' : '';
  const line = curves.flatMap(c => placesOn(c).flatMap(p => traced.shown(p, contactAt([loop], p))));
  return {
    ...picked,
    key: keyOf(picked),
    kind: picked.piece === null ? 'round' : curves[0]!.arc ? 'rounding' : 'side',
    hole: picked.loop > 0,
    line: Float32Array.from(line),
    words: found ? `${sign}${formatPlain(found.value, 2)} ± ${formatPlain(found.u, 2)} mm` : '',
  };
}

/** Places along a curve, its end included. */
function placesOn(c: Curve): Point2[] {
  if (c.arc) return [...flattenedPoints(outlineOfCurves([c]), SHOWN), c.to];
  const count = Math.max(1, Math.ceil(lengthOfCurve(c) / 4));
  return Array.from(
    { length: count + 1 },
    (_, i): Point2 => [
      c.from[0] + (i / count) * (c.to[0] - c.from[0]),
      c.from[1] + (i / count) * (c.to[1] - c.from[1]),
    ],
  );
}
