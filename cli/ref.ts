import { z } from 'zod';
import { parseQuantity } from '../core/quantity/parse';
import { bearingNamed, ISO_15 } from '../core/shelf/bearings';
import * as fasteners from '../core/shelf/fasteners';
import { fitOf, ISO_286, limitsOf } from '../core/shelf/iso286/limits';
import { AS568, cordTolerance, glandFor, O_RINGS, ringTolerance } from '../core/shelf/o-rings';
import { PIPES } from '../core/shelf/pipes';
import { POLYMER_SOURCE, POLYMERS } from '../core/shelf/polymers';
import { searchShelf } from '../core/shelf/search';
import { type Row, type Source, sourceLine } from '../core/shelf/table';
import { ISO_2306, TAP_DRILLS } from '../core/shelf/tap-drills';
import { threadNamed } from '../core/shelf/threads';
import { ISO_965, usualLimits } from '../core/shelf/threads/iso965';
import { BadInput, type Command } from './command';

const Input = z.object({ args: z.array(z.coerce.string()).min(1, 'Say what: fit, thread, nut, …') });

/** One subject of the shelf: from the words after its name to an answer. */
type Answer = (words: string[]) => object;

const tabled =
  <K extends string>(what: string, rows: readonly Row<K>[], source: Source): Answer =>
  words => {
    const name = words.join(' ').trim();
    const row = rows.find(r => r.key.toLowerCase() === name.toLowerCase());
    if (!row)
      throw unknown(
        what,
        name,
        rows.map(r => r.key),
      );
    const { key: _, ...numbers } = row;
    return {
      ...Object.fromEntries(Object.entries(numbers).filter(([, v]) => v !== null)),
      source: sourceLine(source),
    };
  };

const inInches =
  <K extends string>(what: string, rows: readonly Row<K>[], source: Source): Answer =>
  words => {
    const { source: line, ...inches } = tabled(what, rows, source)(words) as { source: string };
    const mm = Object.entries(inches).map(([k, v]) => [k, Number((25.4 * Number(v)).toFixed(3))]);
    return { ...Object.fromEntries(mm), inches, source: line };
  };

function unknown(what: string, name: string, known: readonly string[]): BadInput {
  const some =
    known.length > 12 ? `${known.slice(0, 4).join(', ')} … ${known.slice(-2).join(', ')}` : known.join(', ');
  return new BadInput(`The shelf has no ${what} “${name}”: it has ${some}.`, 'args.1', 'not-on-the-shelf');
}

const SUBJECTS: Record<string, Answer> = {
  fit: ([size = '', ...spelled]) => {
    const typed = parseQuantity(size, 'length');
    if (!typed.ok)
      throw new BadInput(`Say the size and the class: ref fit 25 H7. ${typed.message}`, 'args.1');
    const name = spelled.join('');
    const source = sourceLine(ISO_286);
    if (name.includes('/')) return { ...fitOf(typed.quantity.value, name), source };
    const { upper, lower } = limitsOf(typed.quantity.value, name);
    return { upper, lower, source };
  },
  'clearance-hole': tabled('clearance hole for', fasteners.CLEARANCE_HOLES, fasteners.ISO_273),
  nut: words => {
    const name = words.join(' ');
    return /^m/i.test(name)
      ? tabled('nut', fasteners.HEXAGON_NUTS, fasteners.ISO_4032)(words)
      : inInches('nut', fasteners.INCH_NUTS, fasteners.B18_2_2)([name.replace(' ', '-')]);
  },
  'thin-nut': tabled('thin nut', fasteners.THIN_NUTS, fasteners.ISO_4035),
  'hexagon-head': tabled('hexagon head', fasteners.HEXAGON_HEADS, fasteners.ISO_4017),
  'socket-head': tabled('socket head', fasteners.SOCKET_HEADS, fasteners.ISO_4762),
  'countersunk-socket-head': tabled(
    'countersunk head',
    fasteners.COUNTERSUNK_SOCKET_HEADS,
    fasteners.ISO_10642,
  ),
  'countersunk-head': tabled('countersunk head', fasteners.COUNTERSUNK_HEADS, fasteners.ISO_7046),
  'button-head': tabled('button head', fasteners.BUTTON_HEADS, fasteners.ISO_7380),
  'pan-head': tabled('pan head', fasteners.PAN_HEADS, fasteners.ISO_7045),
  washer: words =>
    /^m/i.test(words[0] ?? '')
      ? tabled('washer', fasteners.WASHERS, fasteners.ISO_7089)(words)
      : inInches('washer', fasteners.INCH_WASHERS, fasteners.B18_22_1)(words),
  'large-washer': tabled('large washer', fasteners.LARGE_WASHERS, fasteners.ISO_7093),
  insert: tabled('insert', fasteners.HEAT_SET_INSERTS, fasteners.PRACTICE),
  'tapping-screw': tabled('tapping screw', fasteners.TAPPING_SCREWS, fasteners.ISO_1478),
  'wood-screw': tabled('wood screw', fasteners.WOOD_SCREW_PILOTS, fasteners.PRACTICE),
  'tap-drill': words => {
    const thread = threadNamed(words.join(' '));
    const found = TAP_DRILLS.find(t => t.designation === thread?.designation);
    if (!found)
      throw unknown(
        'tap drill for',
        words.join(' '),
        TAP_DRILLS.map(t => t.designation),
      );
    return { designation: found.designation, drill: found.drill, source: sourceLine(ISO_2306) };
  },
  thread: words => {
    const thread = threadNamed(words.join(' '));
    if (!thread)
      throw new BadInput(
        `The shelf has no thread “${words.join(' ')}”: write it like M10, M10x1.25, G 1/4, 1/4 NPT or 1/4-20 UNC.`,
        'args.1',
        'not-on-the-shelf',
      );
    const {
      designation,
      standard,
      major,
      pitch,
      pitchDiameter,
      minorInternal,
      turnsPerInch,
      flankAngle,
      taper,
    } = thread;
    const metric = thread.family.startsWith('metric');
    return {
      designation,
      standard,
      major,
      pitch,
      pitchDiameter,
      minorInternal,
      turnsPerInch,
      flankAngle,
      taper,
      ...(metric ? { limits: { ...usualLimits(thread), source: sourceLine(ISO_965) } } : {}),
      source: sourceLine(thread.source),
    };
  },
  bearing: words => {
    const bearing = bearingNamed(words.join(' '));
    if (!bearing)
      throw new BadInput(
        `The shelf has no bearing “${words.join(' ')}”: search by size with ref find, such as “22 outside 8 bore”.`,
        'args.1',
        'not-on-the-shelf',
      );
    return { ...bearing, source: sourceLine(ISO_15) };
  },
  'o-ring': words => {
    const dash = `-${words.join('').replace(/\D/g, '').padStart(3, '0')}`;
    const ring = O_RINGS.find(r => r.dash === dash);
    if (!ring)
      throw unknown(
        'O-ring',
        words.join(' '),
        O_RINGS.map(r => r.dash),
      );
    return {
      ...ring,
      tolerance: { inside: ringTolerance(ring.inside), cord: cordTolerance(ring.cord) },
      gland: glandFor(ring.cord, 'static'),
      source: sourceLine(AS568),
    };
  },
  pipe: words => {
    const name = words.join(' ').toLowerCase();
    const group = PIPES.find(p =>
      p.sizes.some(s => `${p.family} ${s.name}`.toLowerCase() === name || s.name.toLowerCase() === name),
    );
    const size = group?.sizes.find(s => name.endsWith(s.name.toLowerCase()));
    if (!group || !size)
      throw unknown(
        'pipe',
        words.join(' '),
        PIPES.flatMap(p => p.sizes.map(s => `${p.family} ${s.name}`)),
      );
    return { ...size, tolerance: group.tolerance, source: `${group.standard}; ${group.obtained}` };
  },
  plastic: words => {
    const name = words.join('').toUpperCase().replace(/\s/g, '');
    const found = POLYMERS.find(p => p.key === name);
    if (!found)
      throw unknown(
        'plastic',
        words.join(' '),
        POLYMERS.map(p => p.key),
      );
    return { ...found, source: sourceLine(POLYMER_SOURCE) };
  },
  find: words => ({
    found: searchShelf(words.join(' '))
      .slice(0, 20)
      .map(({ item, matched }) => ({
        name: item.name,
        family: item.family,
        sizes: item.sizes,
        matched: matched.map(m => m.size.label),
        facts: item.facts,
        source: item.source,
      })),
  }),
};

export const ref: Command<z.infer<typeof Input>> = {
  name: 'ref',
  about: `The shelf: ${Object.keys(SUBJECTS).join(', ')}.`,
  example: { args: ['fit', '25', 'H7'] },
  input: Input,
  words: true,
  run({ args: [subject, ...words] }) {
    const answer = Object.hasOwn(SUBJECTS, subject!) ? SUBJECTS[subject!] : undefined;
    if (!answer)
      throw new BadInput(
        `The shelf has no “${subject}”: ask for ${Object.keys(SUBJECTS).join(', ')}.`,
        'args.0',
      );
    return answer(words);
  },
};
