import { formatPlain } from '../../../quantity/format';
import { define } from '../define';

const mm = (x: number, digits?: number) => formatPlain(x, digits);

/** Findings on the solid itself, its walls and its place on the bed. Lengths mm. */
export const solidFindings = {
  /** Supports stand on a surface that must fit, in the part's pose. */
  'supports-on-mate': define<{ name: string }>({
    cost: 'no-fit',
    words: f =>
      `As it lies, supports stand on “${f.name}”: they leave marks where it must fit. Lay it another way, or see what would do without them under “What hangs over air”.`,
  }),
  /** @param area supported area, mm² */
  'needs-supports': define<{ area: number }>({
    cost: 'to-know',
    words: f =>
      `As it lies it needs supports under ${f.area} mm²; none stands on a surface that must fit. “What hangs over air” says what would do without.`,
  }),
  /** The recipe's own refusal: its words are the recipe's. */
  'cannot-build': define<{ why: string; make: number }>({
    cost: 'no-solid',
    words: f => f.why,
  }),
  kernel: define<{ why: string }>({
    cost: 'no-solid',
    words: f =>
      `This shape could not be made. ${f.why}. Take the last change back, or try a slightly different number.`,
  }),
  'kernel-broken': define<{ why: string }>({ cost: 'no-solid', words: f => f.why }),
  'not-solid': define<{ why: string }>({
    cost: 'no-solid',
    words: f => `${f.why} Change the last number back and tell us which it was.`,
  }),
  open: define<{ edges: number }>({
    cost: 'no-solid',
    words: f => `The solid has ${f.edges} open edges: it has no inside. Take the last change back.`,
  }),
  'inside-out': define({
    cost: 'no-solid',
    words: () => 'The solid is inside out. Take the last change back.',
  }),
  'loose-bodies': define<{ bodies: number; where: string }>({
    cost: 'no-solid',
    words: f =>
      `The part falls into ${f.bodies} loose bodies: something does not reach the rest (${f.where}). Move it until it meets the part, or switch it off; raised letters must stand on a face.`,
  }),
  'thin-wall': define<{ thickness: number; height: number; line: number }>({
    cost: 'prints-badly',
    words: f =>
      `The thinnest wall is ${mm(f.thickness)} mm, at ${mm(f.height, 1)} mm above the bed: less than two passes of a ${mm(f.line)} mm line. Make it ${mm(2 * f.line)} mm or more.`,
  }),
  /** For what lies flat: it is built up of layers. */
  'thin-flat': define<{ thickness: number; height: number; layer: number }>({
    cost: 'prints-badly',
    words: f =>
      `The thinnest flat is ${mm(f.thickness)} mm, at ${mm(f.height, 1)} mm above the bed: ${mm(f.thickness / f.layer, 1)} layers of ${mm(f.layer)} mm. Make it three layers or more.`,
  }),
  'part-pass': define<{ thickness: number; line: number }>({
    cost: 'to-know',
    words: f =>
      `The thinnest wall is ${mm(f.thickness)} mm: ${mm(f.thickness / f.line, 1)} passes of a ${mm(f.line)} mm line. ${mm(Math.ceil(f.thickness / f.line) * f.line)} mm would be whole passes.`,
  }),
  /** @param what a piece's name; empty for the part as a whole */
  bed: define<{
    what: string;
    x: number;
    y: number;
    z: number;
    width: number;
    depth: number;
    height: number;
    /** How much is missing at the best turn; left out in old acceptances. */
    over?: number;
  }>({
    cost: 'no-solid',
    words: f => {
      const size = [f.x, f.y, f.z].map(x => mm(x, 1)).join(' × ');
      const over = f.over ? `, ${mm(f.over, 1)} mm too little however it is turned about` : '';
      const bed = `the printer takes ${f.width} × ${f.depth} × ${f.height} mm${over}`;
      return f.what
        ? `The ${f.what} piece is ${size} mm; ${bed}. Cut elsewhere, or choose another printer.`
        : `The part is ${size} mm as it lies; ${bed}. Lay it another way on Print, choose another printer, or split the part.`;
    },
  }),
  /** @param turn degrees, anticlockwise from above */
  'bed-turned': define<{ turn: number }>({
    cost: 'to-know',
    words: f =>
      `It fits on the bed only turned by ${mm(f.turn, 0)}° about the upright: take the pose that says so on Print, and its files lie that way.`,
  }),
  tiny: define<{ x: number; y: number; z: number }>({
    cost: 'no-solid',
    words: f =>
      `The part is only ${[f.x, f.y, f.z].map(x => mm(x, 1)).join(' × ')} mm. Were inches read as millimetres?`,
  }),
  /** @param by negative: below the underside */
  'off-the-bed': define<{ by: number }>({
    cost: 'to-know',
    words: f =>
      f.by < 0
        ? `Something put on it reaches ${mm(-f.by)} mm below its underside: its files are lifted so that it stands on that. Check on Print whether it prints better turned over or on its side.`
        : `What is left of it begins ${mm(f.by)} mm above the bed: its files are lowered onto it.`,
  }),
  /** @param count of equal holes; left out in old acceptances */
  'hole-near-edge': define<{ diameter: number; gap: number; leave: number; count?: number }>({
    cost: 'prints-badly',
    words: f =>
      `${(f.count ?? 1) > 1 ? `One of ${f.count} holes` : 'A hole'} of ${mm(f.diameter, 1)} mm has only ${mm(f.gap)} mm of plastic beside it: a screw in it tears out or splits the edge. Leave half its diameter, ${mm(f.leave, 1)} mm, or more.`,
  }),
};
