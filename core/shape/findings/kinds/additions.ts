import { define } from '../define';

/** Findings on additions; the addition's name is put in front of the words. Lengths mm. */
export const additionFindings = {
  'addition-gone': define<{ why: string }>({ cost: 'missing', words: f => f.why }),
  'addition-failed': define<{ why: string }>({ cost: 'missing', words: f => `${f.why}.` }),
  'addition-order': define({
    cost: 'missing',
    words: () => 'The part is in pieces by now: move this above the split.',
  }),
  'addition-idle': define({
    cost: 'to-know',
    words: () =>
      'It changes nothing: it lies where the part has nothing to take away, or wholly inside it. Move it, or choose another face.',
  }),
  'step-without': define({
    cost: 'to-know',
    words: () =>
      'It is made of triangles: the STEP file has the part without it, and without such additions after it. Print from 3MF or STL.',
  }),
  'addition-small-words': define<{ height: number; least: number }>({
    cost: 'prints-badly',
    words: f => `Letters ${f.height} mm high blur with a usual nozzle: make them ${f.least} mm or more.`,
  }),
  'addition-mirrored-thread': define({
    cost: 'no-fit',
    words: () =>
      'Its thread is mirrored too: right-hand becomes left-hand, and will not go on the object. Change the recipe’s hand of thread back, or leave the part as it is.',
  }),
  'addition-teardrop': define({
    cost: 'to-know',
    words: () => 'This hole stands upright as it is drawn: printed so, it comes out round without a point.',
  }),
  /** @param share of its outline */
  'addition-over-edge': define<{ share: number }>({
    cost: 'prints-badly',
    words: f =>
      `About ${Math.round(100 * f.share)} % of its outline stands over the edge of the face it sits on. Move it inwards, or make it smaller.`,
  }),
  /** @param along whether the cut goes across its axis, so that each half keeps a length of it */
  'cut-through-mate': define<{ name: string; along: boolean }>({
    cost: 'no-fit',
    words: f =>
      f.along
        ? `The cut goes across “${f.name}”: each half has a part of its length, and the joint runs around it. Cut where it ends, or leave it if the joint may be there.`
        : `The cut goes along “${f.name}”: it is then made of two halves, and the joint is in it. Cut elsewhere if it must be whole.`,
  }),
};
