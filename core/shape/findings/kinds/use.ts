import { formatPlain } from '../../../quantity/format';
import { define } from '../define';

const plain = (x: number, digits?: number) => formatPlain(x, digits);

/** Findings on the part in use: loads, neighbours, tipping. N, N·m, mm. */
export const useFindings = {
  'load-unknown': define<{ words: string; why: string }>({
    cost: 'to-know',
    words: f => `“${f.words}”: ${f.why}`,
  }),
  /** @param section in words @param bears times the load @param because, helps “” where there is nothing to add */
  'too-weak': define<{
    words: string;
    section: string;
    bears: number;
    plastic: string;
    wanted: number;
    because: string;
    helps: string;
  }>({
    cost: 'hurts',
    words: f =>
      `“${f.words}”: ${f.section} bears ${plain(f.bears, 1)} times this load in ${f.plastic}, and ${plain(f.wanted, 1)} times is wanted${f.because ? `, since ${f.because}` : ''}.${f.helps ? ` What helps most: ${f.helps}.` : ''}`,
  }),
  'proof-test': define<{ words: string; times: number; load: string }>({
    cost: 'hurts',
    words: f =>
      `“${f.words}”: if this fails somebody may be hurt. This sum proves nothing: prints differ. Before it is used, load the printed part with ${plain(f.times, 1)} times the load, ${f.load}, for ten minutes, where nobody can be hit; then look at it for cracks. Where rules ask for a tested part or a licensed person, take that.`,
  }),
  'sharp-root': define<{ words: string; length: number }>({
    cost: 'prints-badly',
    words: f =>
      `“${f.words}”: a sharp inner corner runs ${plain(f.length, 1)} mm along the section that is stressed most. Stress gathers there, and that is where it cracks: fillet it, by 1 mm or more.`,
  }),
  'neighbour-missing': define<{ name: string }>({
    cost: 'to-know',
    words: f =>
      `“${f.name}” has no body from a file yet: choose one, or make it a box. Until then nothing is kept off it.`,
  }),
  /** @param room clearance around it, 0 for none @param shared mm³ */
  'in-the-way': define<{ name: string; room: number; shared: number }>({
    cost: 'no-room',
    words: f =>
      `“${f.name}”${withRoom(f.room)} is where the part is: they share ${plain(f.shared / 1000, 2)} cm³. Make the part smaller there, or add “Keep clear” for it.`,
  }),
  /** @param filled mm³ */
  'zone-closed': define<{
    name: string;
    from: number;
    to: number;
    edge: string;
    end: string;
    filled: number;
  }>({
    cost: 'no-room',
    words: f =>
      `“${f.name}” must stay open from ${plain(f.from)} to ${plain(f.to)} mm from its ${f.end} end, along its ${f.edge} edge, and ${plain(f.filled / 1000, 2)} cm³ of the part is there. Open it with “Keep clear”, or move the zone.`,
  }),
  /** @param before mm before it is home */
  'recess-undercut': define<{ name: string; from: string; before: number }>({
    cost: 'no-room',
    words: f =>
      `“${f.name}”: the part comes on from the ${f.from}, and that way its body hangs in the part ${plain(f.before, 0)} mm before it is home: an undercut. Bring the part on from another side, turn the body, or cut its room through to the edge.`,
  }),
  'recess-closed': define<{ name: string }>({
    cost: 'no-room',
    words: f =>
      `“${f.name}”: its body is shut in. From none of the six sides can it be brought into its room: cut it through to one side, or split the part.`,
  }),
  /** @param long the part's length in that direction, mm */
  'zone-nowhere': define<{ name: string; long: number }>({
    cost: 'to-know',
    words: f =>
      `“${f.name}” keeps nothing open: it ends where it begins, or begins beyond the part, which is ${plain(f.long, 1)} mm long that way.`,
  }),
  'path-blocked': define<{ name: string; room: number; before: number }>({
    cost: 'no-room',
    words: f =>
      `On its way the part hits “${f.name}”${withRoom(f.room)}, ${plain(f.before, 0)} mm before it is home. Bring it on from another side, shorten what sticks out, or split the part.`,
  }),
  /** @param at degrees; 0 where it falls over by itself */
  tips: define<{ weight: number; towards: string; at: number; easily: boolean }>({
    cost: 'to-know',
    words: f => {
      const words = `With a slab of ${plain(f.weight, 0)} g`;
      if (f.at <= 0) return `${words} it falls over ${f.towards}: a longer foot on that side.`;
      return `${words} it tips ${f.towards} first, when tilted by ${plain(f.at, 0)}°.${f.easily ? ' A knock does that: a longer foot on that side.' : ''}`;
    },
  }),
  flow: define<{ through: number; share: number }>({
    cost: 'to-know',
    words: f =>
      `The way through is ${plain(f.through, 1)} mm: ${Math.round(100 * f.share)} % of what the narrower end would let through. A thinner wall or a smaller stop opens it.`,
  }),
  'step-without-thread': define({
    cost: 'to-know',
    words: () =>
      'Its STEP file has the part without the thread, which is made of triangles: print from 3MF or STL.',
  }),
};

const withRoom = (room: number) => (room > 0 ? `, with its ${plain(room)} mm of room` : '');
