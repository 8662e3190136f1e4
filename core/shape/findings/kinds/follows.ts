import { formatPlain } from '../../../quantity/format';
import { define } from '../define';

const mm = (x: number, digits?: number) => formatPlain(x, digits);
const at = ({ x, y, z }: { x: number; y: number; z: number }) => [x, y, z].map(v => mm(v, 0)).join(', ');

/** Findings on parts that follow a scanned object. Lengths mm. */
export const followFindings = {
  'stands-in': define({
    cost: 'no-fit',
    words: () =>
      'An example stands in for your object: choose its scan, or its file, before anything is printed.',
  }),
  'step-without-object': define({
    cost: 'to-know',
    words: () =>
      'A STEP file goes without what follows the object: those faces are triangles. STL and 3MF have them.',
  }),
  'held-in': define<{ x: number; y: number; z: number }>({
    cost: 'no-fit',
    words: f =>
      `The object does not come out: drawn straight up it meets the part at ${at(f)}. Move or switch off what was put on there.`,
  }),
  'goes-not-in': define<{ by: number; x: number; y: number; z: number }>({
    cost: 'no-fit',
    words: f =>
      `The part reaches ${mm(f.by)} mm into the object at ${at(f)}: it does not go home. Move or switch off what was put on there.`,
  }),
  /** Shown so that nobody has to take it on trust. */
  'comes-out': define<{ followed: number; room: number }>({
    cost: 'to-know',
    words: f =>
      `Drawn straight up on the finished triangles, the object comes free: ${f.followed.toLocaleString('en')} corners were followed. Least room as it lies there: ${mm(f.room)} mm.`,
  }),
  /** @param area cm² */
  undercut: define<{ area: number; share: number; depth: number }>({
    cost: 'to-know',
    words: f =>
      `${mm(f.area, 1)} cm² of the object, ${mm(100 * f.share, 0)} % of what lies in the recess, lie under a wider place, up to ${mm(f.depth, 1)} mm back. The recess stays open above them, so that the object comes out; it does not hold there. Lie it another way up to have less of that.`,
  }),
};
