import { finding } from '../../findings/finding';
import { KernelError } from '../../kernels/kernel';
import { placedMesh } from '../../mesh/placed';
import { choice, length, words as wordsField } from '../../recipes/fields';
import { lengthOf, textOf } from '../../recipes/parameters';
import { textOutlines } from '../../text';
import { point3 } from '../../vector';
import type { AdditionFinding, AdditionKind } from '../addition';
import { FROM_MIDDLE, place, position, turning } from '../fields';
import { onSeat } from '../place';
import { INTO, seatAt } from '../tools';

/** Smaller letters are lost between two lines of a usual nozzle, mm. Common practice, no source. */
const LEAST_HEIGHT = 4;

/** Raised or sunk letters; made of triangles, so they come after everything exact. */
export const words: AdditionKind = {
  kind: 'words',
  title: 'Words',
  purpose: 'What it is, for which boat, which way up: raised or sunk letters on a face.',
  short: 'words',
  parameters: [
    wordsField('text', 'Words', 'PORT', 60),
    place('top'),
    choice('does', 'They are', { sunk: 'sunk in', raised: 'raised' }),
    length('height', 'Height of capitals', [2, 100], '6'),
    length('deep', 'Deep, or proud', [0.2, 10], '0.6'),
    ...position(),
    turning(),
  ],
  fresh: FROM_MIDDLE,
  refuse: p =>
    textOf(p, 'text').trim() === ''
      ? [
          finding(
            'cannot-build',
            'stop',
            { why: 'Write what it should say.', make: 0 },
            { parameter: 'text' },
          ),
        ]
      : [],
  apply(site, p) {
    const { kernels, body } = site;
    const { font, part, mesh } = kernels;
    if (!font) throw new KernelError('The letters are not there: reload the page');
    const [height, deep] = [lengthOf(p, 'height'), lengthOf(p, 'deep')];
    let loops: ReturnType<typeof textOutlines>;
    try {
      loops = textOutlines(textOf(p, 'text').trim(), height, font);
    } catch (error) {
      if (error instanceof RangeError) throw new KernelError(error.message.replace(/\.$/, ''));
      throw error;
    }
    const { frame } = seatAt(site, p);
    const seat = onSeat(frame, [lengthOf(p, 'x'), lengthOf(p, 'y')], lengthOf(p, 'turn'));
    const raised = p.does === 'raised';
    const [low, high] = raised ? [-INTO, deep] : [-deep, INTO];
    const letters = part.ofTriangles(() =>
      placedMesh(mesh.extrude(loops, high - low), {
        ...seat,
        at: point3(i => seat.at[i] + low * seat.up[i]),
      }),
    );
    const findings: AdditionFinding[] =
      height < LEAST_HEIGHT
        ? [finding('addition-small-words', 'warn', { height, least: LEAST_HEIGHT }, { parameter: 'height' })]
        : [];
    return { body: raised ? part.fuse(body, letters) : part.cut(body, letters), findings };
  },
};
