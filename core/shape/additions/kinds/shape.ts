import { finding } from '../../findings/finding';
import type { Level, Outline, PartKernel } from '../../kernels/kernel';
import { KernelError } from '../../kernels/kernel';
import { OffsetError, offsetOutline } from '../../offset';
import { circle, polygon, rectangle, slot } from '../../outline';
import { outlineOfText } from '../../outline-text';
import { choice, flag, length, outline, Refusals } from '../../recipes/fields';
import { lengthOf, type Parameters, textOf } from '../../recipes/parameters';
import type { Frame } from '../../vector';
import { type AdditionFinding, AdditionGone, type AdditionKind } from '../addition';
import { copies, FROM_MIDDLE, place, position, turning } from '../fields';
import { onSeat, placeInWords, readPlace } from '../place';
import {
  ABOVE,
  cutFrom,
  depthBelow,
  framesOf,
  INTO,
  joinedTo,
  seatAt,
  surfaceOf,
  throughAll,
} from '../tools';

const adds = (p: Parameters) => p.does === 'add';
const cuts = (p: Parameters) => p.does === 'cut';
const section =
  (...names: string[]) =>
  (p: Parameters) =>
    names.includes(textOf(p, 'section'));

/** Number of steps of a root fillet: at usual sizes each is no coarser than a layer. */
const ROOT_STEPS = 6;

const twoSizes = section('rectangle', 'slot');

/** The number that a reading sets, by section; an outline has no single width. */
function fitting(p: Parameters): string | null {
  if (twoSizes(p)) return textOf(p, 'sets');
  return { round: 'diameter', polygon: 'flats' }[textOf(p, 'section')] ?? null;
}

/** Any section, added to a face or cut into it. */
export const shape: AdditionKind = {
  kind: 'shape',
  title: 'Shape on a face',
  purpose: 'A tab, stub, rail, block or clip put on any face, or a pocket or window cut into it.',
  short: 'shape',
  parameters: [
    choice('does', 'It is', { add: 'put on', cut: 'cut in' }),
    place('top'),
    choice('section', 'Section', {
      rectangle: 'rectangle',
      round: 'round',
      slot: 'slot, round ends',
      polygon: 'polygon',
      outline: 'outline of your own',
    }),
    length('width', 'Width', [0.3, 400], '12', { shown: twoSizes }),
    length('depth', 'Depth on the face', [0.3, 400], '6', { shown: twoSizes }),
    length('corner', 'Corner radius', [0, 50], '0', { group: 'more', shown: section('rectangle') }),
    length('diameter', 'Diameter', [0.3, 400], '8', { shown: section('round') }),
    length('flats', 'Across flats', [0.3, 400], '10', { shown: section('polygon') }),
    length('sides', 'Sides', [4, 24], '6', { measure: 'count', shown: section('polygon') }),
    outline('outline', 'Outline', '-6, 0; 6, 0; 6, 8 round 2; -6, 8 round 2', {
      shown: section('outline'),
    }),
    length('rise', 'Stands out by', [0.2, 400], '10', { shown: adds }),
    flag('through', 'Right through', false, { shown: cuts }),
    length('deep', 'Deep', [0.1, 400], '3', { shown: p => cuts(p) && p.through === false }),
    choice(
      'sets',
      'What may have to fit',
      { width: 'its width', depth: 'its depth on the face' },
      { group: 'more', shown: twoSizes },
    ),
    ...position(),
    turning(),
    length('lean', 'Leans back', [-60, 60], '0', { measure: 'angle', group: 'more' }),
    length('draft', 'Draft, each side', [-30, 45], '0', { measure: 'angle', group: 'more' }),
    length('root', 'Fillet at its root', [0, 30], '0', { group: 'more', shown: adds }),
    ...copies(),
  ],
  fresh: FROM_MIDDLE,
  fit: {
    parameter: fitting,
    side: p => (p.does === 'cut' ? 'inside' : 'outside'),
    form: p => (p.section === 'round' ? 'round' : 'flats'),
  },
  refuse(p) {
    const r = new Refusals();
    const s = textOf(p, 'section');
    if (s === 'slot')
      r.when(
        lengthOf(p, 'depth') > lengthOf(p, 'width'),
        'depth',
        'A slot is longer than it is wide: its width is its length over all.',
        lengthOf(p, 'width'),
      );
    if (s === 'rectangle') {
      const most = Math.min(lengthOf(p, 'width'), lengthOf(p, 'depth')) / 2;
      r.when(
        lengthOf(p, 'corner') > most,
        'corner',
        `Corners of more than ${Number(most.toFixed(2))} mm do not fit on it.`,
        most,
      );
    }
    if (s === 'polygon')
      r.when(lengthOf(p, 'sides') % 2 === 1, 'sides', 'Across flats needs an even number of sides.', 6);
    if (lengthOf(p, 'lean') !== 0) {
      r.when(lengthOf(p, 'draft') !== 0, 'draft', 'What leans is drawn without draft: set one of them to 0.');
      r.when(
        adds(p) && lengthOf(p, 'root') > 0,
        'root',
        'The root of what leans cannot be filleted here: stand it straight, or put a rib beside it.',
      );
    }
    return r.list;
  },
  apply(site, p) {
    const kernel = site.kernels.part;
    const seat = seatAt(site, p);
    const frames = framesOf(seat, p, lengthOf(p, 'lean'));
    const drawn = sectionOf(p);
    const findings: AdditionFinding[] = [];
    if (cuts(p)) {
      const deep = p.through === true ? throughAll(site) : lengthOf(p, 'deep');
      const tools = frames.map(f => pulled(kernel, drawn, f, -deep, ABOVE, -lengthOf(p, 'draft')));
      const first = frames[0]!;
      return {
        body: cutFrom(kernel, site.body, tools),
        surface: fitted(p, first, 'inside', [-Math.min(deep, 2), 0]),
      };
    }
    const rise = lengthOf(p, 'rise');
    const tools = frames.map((f, i) => {
      const reach = Math.max(5, throughAll(site) / 3);
      const below = depthBelow(site.mesh(), f, drawn, reach);
      if (!below)
        throw new AdditionGone(
          `${i === 0 ? 'It' : `Copy ${i + 1} of it`} stands beside the part, not on ${placeInWords(readPlace(textOf(p, 'place')))}: move it, or choose another face.`,
          'x',
        );
      if (below.over > 0.4)
        findings.push(finding('addition-over-edge', 'warn', { share: below.over }, { parameter: 'x' }));
      const lean = (lengthOf(p, 'lean') * Math.PI) / 180;
      const tilt = Math.tan(Math.abs(lean)) * (widest(drawn) / 2);
      return standingTool(kernel, drawn, f, below.depth + INTO + tilt, rise, p);
    });
    return {
      body: joinedTo(kernel, site.body, tools),
      surface: fitted(p, frames[0]!, 'outside', [lengthOf(p, 'root'), rise]),
      findings,
    };
  },
};

const widest = ({ start, edges }: Outline) => {
  const reach = [start, ...edges.flatMap(e => [e.to, ...(e.via ? [e.via] : [])])].map(([x, y]) =>
    Math.hypot(x, y),
  );
  return 2 * Math.max(...reach);
};

export function sectionOf(p: Parameters): Outline {
  const [w, d] = [lengthOf(p, 'width'), lengthOf(p, 'depth')];
  switch (p.section) {
    case 'round':
      return circle([0, 0], lengthOf(p, 'diameter') / 2);
    case 'slot':
      return slot([0, 0], w, d);
    case 'polygon':
      return polygon(lengthOf(p, 'sides'), lengthOf(p, 'flats'));
    case 'outline':
      return outlineOfText(textOf(p, 'outline'));
    default:
      return rectangle(-w / 2, -d / 2, w / 2, d / 2, lengthOf(p, 'corner'));
  }
}

/** Its outline, larger by this all round (smaller below 0). */
function grown(outline: Outline, by: number): Outline {
  if (Math.abs(by) < 1e-9) return outline;
  try {
    return offsetOutline(outline, by);
  } catch (error) {
    if (error instanceof OffsetError)
      throw new KernelError(
        `Its draft leaves nothing of the section at one end: make the draft smaller. ${error.message}`,
      );
    throw error;
  }
}

/** From `low` to `high` along the frame; `outline` is as drawn at 0, with draft it is smaller farther up. */
function pulled(
  kernel: PartKernel,
  outline: Outline,
  frame: Frame,
  low: number,
  high: number,
  draft: number,
) {
  if (draft === 0) return kernel.extrude(outline, low, high - low, frame);
  const slope = Math.tan((draft * Math.PI) / 180);
  const level = (z: number): Level => ({ outline: grown(outline, -slope * z), z });
  return stacked(kernel, [level(low), level(high)], frame);
}

/** The added body: from inside the part upwards, wider at its root where it has a fillet. */
function standingTool(
  kernel: PartKernel,
  outline: Outline,
  frame: Frame,
  sunk: number,
  rise: number,
  p: Parameters,
) {
  const draft = lengthOf(p, 'draft');
  const root = Math.min(lengthOf(p, 'root'), rise);
  if (root === 0) {
    if (draft === 0) return kernel.extrude(outline, -sunk, rise + sunk, frame);
    const slope = Math.tan((draft * Math.PI) / 180);
    // Straight inside the part: no wider than where it comes out.
    const top: Level = { outline: grown(outline, -slope * rise), z: rise };
    return stacked(kernel, [{ outline, z: -sunk }, { outline, z: 0 }, top], frame);
  }
  const slope = Math.tan((draft * Math.PI) / 180);
  const steps = Array.from({ length: ROOT_STEPS + 1 }, (_, i): Level => {
    const a = ((i / ROOT_STEPS) * Math.PI) / 2;
    const z = root * (1 - Math.cos(a));
    return { outline: grown(outline, root * (1 - Math.sin(a)) - slope * z), z };
  });
  const foot: Level = { outline: grown(outline, root), z: -sunk };
  const top: Level[] = rise > root ? [{ outline: grown(outline, -slope * rise), z: rise }] : [];
  return stacked(kernel, [foot, ...steps, ...top], frame);
}

function stacked(kernel: PartKernel, levels: readonly Level[], frame: Frame) {
  const edges = new Set(levels.map(l => l.outline.edges.length));
  if (edges.size > 1)
    throw new KernelError(
      'An edge of the outline vanishes where it grows or shrinks: make the draft or the root fillet smaller, or round the corner',
    );
  return kernel.stack(levels, frame);
}

function fitted(p: Parameters, frame: Frame, side: 'inside' | 'outside', along: readonly [number, number]) {
  if (p.section === 'round')
    return surfaceOf(frame, side, { kind: 'round', size: lengthOf(p, 'diameter') }, along);
  if (p.section === 'polygon')
    return surfaceOf(
      frame,
      side,
      { kind: 'flats', size: lengthOf(p, 'flats'), flats: lengthOf(p, 'sides') },
      along,
    );
  if (p.section === 'outline') return undefined;
  const deep = p.sets === 'depth';
  const across = deep ? onSeat(frame, [0, 0], 90) : frame;
  return surfaceOf(across, side, { kind: 'flats', size: lengthOf(p, deep ? 'depth' : 'width') }, along);
}
