import { readFileSync, statSync, writeFileSync } from 'node:fs';
import { z } from 'zod';
import { areaOfCurves, lengthOfCurve } from '../core/shape/curve';
import { adviceOn } from '../core/trace/advice';
import type { Doubt, Outlines } from '../core/trace/doubt';
import { type PhotoFile, PhotoFileError, readPhotoFile } from '../core/trace/file/decode';
import { circleOf } from '../core/trace/outline';
import { BAR, MIDDLES, PAPERS, SHEETS } from '../core/trace/sheet/layout';
import { traceDimensions } from '../core/trace/trace-dimensions';
import { traceFlatbed } from '../core/trace/trace-flatbed';
import { tracePhoto } from '../core/trace/trace-photo';
import type { TraceAnswer, TracedPlane } from '../core/trace/trace-plane';
import { traceRectangle } from '../core/trace/trace-rectangle';
import { USUAL_BROKEN, USUAL_TOLERANCE } from '../core/trace/usual';
import { referenceSheet } from '../server/sheet/reference-sheet';
import { BadInput, type Command } from './command';
import { rounded } from './rounded';
import { segmentOf, writeLines } from './segments';

const SheetInput = z.strictObject({
  paper: z.enum(PAPERS).default('a4'),
  middle: z.enum(MIDDLES).default('white'),
});

export const traceSheet: Command<z.infer<typeof SheetInput>> = {
  name: 'trace sheet',
  about: 'Writes the reference sheet for photos as a PDF (--out), for A4 or Letter.',
  example: { paper: 'a4' },
  input: SheetInput,
  async run({ paper, middle }, { out }) {
    if (out !== undefined && !/\.pdf$/i.test(out)) throw new BadInput('--out is a .pdf file.', 'out');
    if (out !== undefined) writeFileSync(out, await referenceSheet(paper, middle));
    return { markers: SHEETS[paper].markers.length, bar: { length: BAR } };
  },
};

const Pixel = z.tuple([z.number(), z.number()]);
const Length = z.number().positive().max(2000);
const Shared = {
  file: z.string(),
  inside: Pixel.optional(),
  /** Between a hundredth and a millimetre: anything finer is noise, anything coarser not an outline. */
  tolerance: z.number().min(0.01).max(1).default(USUAL_TOLERANCE),
};
const PhotoInput = z.strictObject({
  ...Shared,
  sheet: z.enum(PAPERS).optional(),
  middle: z.enum(MIDDLES).default('white'),
  /** A sheet shrunk to half, or enlarged to double, is not a print of ours. */
  bars: z
    .strictObject({ across: z.number().min(70).max(280), along: z.number().min(70).max(280) })
    .optional(),
  thickness: z.number().min(0).max(60).default(0),
  broken: z.number().min(0).max(5).default(USUAL_BROKEN),
  f35: z.number().min(5).max(500).optional(),
  rectangle: z
    .strictObject({ corners: z.tuple([Pixel, Pixel, Pixel, Pixel]), width: Length, height: Length })
    .optional(),
  /** One, or two across each other, on the upper face. */
  lengths: z
    .array(z.strictObject({ from: Pixel, to: Pixel, length: Length }))
    .min(1)
    .max(2)
    .optional(),
});

export const tracePhotoCommand: Command<z.infer<typeof PhotoInput>> = {
  name: 'trace photo',
  files: ['file'],
  about:
    'Traces the object of a photo on the reference sheet: lines, arcs and holes in mm; --out writes .svg or .dxf.',
  example: { sheet: 'a4', bars: { across: 140.2, along: 139.9 }, thickness: 3 },
  input: PhotoInput,
  async run(
    { file, sheet, middle, bars, thickness, broken, f35, rectangle, lengths, inside, tolerance },
    { out },
  ) {
    if ([sheet, rectangle, lengths].filter(given => given !== undefined).length !== 1)
      throw new BadInput(
        'Give one of these: the sheet that was photographed, a rectangle of known size, or one or two lengths.',
        'sheet',
      );
    const { picture, f35: said } = await fileAt(file);
    const asked = {
      f35: f35 ?? said,
      thickness: { height: thickness, broken: Math.min(broken, thickness) },
      inside: inside ?? null,
      tolerance,
    };
    const answer: TraceAnswer<Traced & { tilt?: number }> = rectangle
      ? traceRectangle(picture, { ...asked, ...rectangle })
      : lengths
        ? traceDimensions(picture, { ...asked, lines: lengths })
        : tracePhoto(picture, { ...asked, paper: sheet!, middle, bars: bars ?? null });
    const traced = tracedOf(answer);
    write(out, traced);
    return {
      ...shown(traced),
      // Lengths alone do not determine the tilt.
      tilt: traced.tilt === undefined ? null : rounded(traced.tilt, 2),
      advice: adviceOn(traced, { barsRead: Boolean(bars ?? rectangle ?? lengths), thickness }),
    };
  },
};

const FlatbedInput = z.strictObject({
  ...Shared,
  dpi: z.number().min(50).max(9600).optional(),
  known: z.strictObject({ x: z.number().min(0.5).max(2), y: z.number().min(0.5).max(2) }).optional(),
  from: z.enum(['above', 'glass']).default('above'),
});

export const traceFlatbedCommand: Command<z.infer<typeof FlatbedInput>> = {
  name: 'trace flatbed',
  files: ['file'],
  inputOptional: 'maybe',
  about:
    'Traces the object of a flatbed scan, as seen from above (the glass shows its other hand); --out writes .svg or .dxf.',
  example: { dpi: 300, known: { x: 1.001, y: 0.998 } },
  input: FlatbedInput,
  async run({ file, dpi, known, from, inside, tolerance }, { out }) {
    const read = await fileAt(file);
    const asked = dpi ? { x: dpi, y: dpi } : read.dpi;
    if (!asked)
      throw new BadInput(
        'The file does not say its pixels per inch: give dpi, as it was set when scanning.',
        'dpi',
        'no-resolution',
      );
    const traced = tracedOf(
      traceFlatbed(read.picture, {
        dpi: asked,
        known: known ?? null,
        from,
        inside: inside ?? null,
        tolerance,
      }),
    );
    write(out, traced);
    return {
      ...shown(traced),
      tilt: 0,
      advice: adviceOn(traced, { barsRead: known !== undefined, thickness: 0 }),
    };
  },
};

type Traced = TracedPlane & { doubt: Doubt };

function tracedOf<T extends Traced>(answer: TraceAnswer<T>): T {
  if (!answer.ok) throw new BadInput(answer.message, undefined, answer.code);
  return answer.traced;
}

function shown({ loops, doubt, unseen, clean }: Traced) {
  return {
    loops: loops.map(({ hole, curves }) => ({
      hole,
      segments: curves.map(segmentOf),
      area: rounded(Math.abs(areaOfCurves(curves)), 4),
    })),
    circles: loops.flatMap(({ curves, hole }, i) => {
      const circle = circleOf(curves);
      const size = circle && doubt.of(o => circleOf(o[i]!)?.diameter ?? null);
      return circle && size
        ? [
            {
              centre: circle.centre.map(c => rounded(c, 5)),
              diameter: rounded(circle.diameter, 5),
              u: rounded(size.u, 5),
              // Beyond the contract.
              hole,
            },
          ]
        : [];
    }),
    uLength: rounded(lengthDoubt(doubt), 5),
    // Beyond the contract.
    clean,
    unseen: unseen.map(({ at, diameter }) => ({
      at: at.map(c => rounded(c, 2)),
      diameter: rounded(diameter, 2),
    })),
  };
}

/** ± 95 % of the outer line's longest straight piece; of its longest arc where it has none. */
function lengthDoubt(doubt: Doubt): number {
  const outer = doubt.outlines[0]!;
  const straight = outer.filter(c => !c.arc);
  const [longest] = [...(straight.length > 0 ? straight : outer)].sort(
    (a, b) => lengthOfCurve(b) - lengthOfCurve(a),
  );
  const at = outer.indexOf(longest!);
  return doubt.of((o: Outlines) => (o[0]?.[at] ? lengthOfCurve(o[0][at]) : null))?.u ?? 0;
}

function write(out: string | undefined, { loops }: Traced): void {
  if (out !== undefined)
    writeLines(
      out,
      'Outline',
      loops.map(({ curves }) => ({ curves, closed: true })),
    );
}

/** Larger files cannot be pictures for this command, MB. */
const MOST_FILE = 120;

async function fileAt(path: string): Promise<PhotoFile> {
  let bytes: Uint8Array;
  try {
    if (statSync(path).size > MOST_FILE * 1e6)
      throw new BadInput(
        `The file is larger than ${MOST_FILE} MB: give the picture itself.`,
        'file',
        'photo-too-large',
      );
    bytes = readFileSync(path);
  } catch (error) {
    if (error instanceof BadInput || !(error instanceof Error)) throw error;
    throw new BadInput(`There is no file to read at “${path}”.`, 'file', 'no-file');
  }
  try {
    return await readPhotoFile(bytes);
  } catch (error) {
    if (error instanceof PhotoFileError) throw new BadInput(error.message, 'file', error.code);
    throw error;
  }
}
