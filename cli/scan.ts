import { readFileSync, statSync } from 'node:fs';
import { z } from 'zod';
import { aligned } from '../core/scan/align/align';
import { deviationOf } from '../core/scan/deviate';
import { findAll } from '../core/scan/find/find';
import { fitWhere } from '../core/scan/find/fit-where';
import { prismsOf } from '../core/scan/find/prisms';
import { acrossOf, patternsOf, slotsOf } from '../core/scan/find/sets';
import type { Found } from '../core/scan/fit/fit';
import { isPrism, PRIMITIVE_KINDS } from '../core/scan/fit/primitive';
import { judgeScan } from '../core/scan/judge';
import { readScan } from '../core/scan/read-scan';
import { MOST_BYTES, type RawScan, ScanError } from '../core/scan/scan-file';
import { ScanSurface } from '../core/scan/scan-surface';
import { sectionOf } from '../core/scan/section/section';
import { undercutOf } from '../core/scan/undercut';
import { SCAN_UNITS, type ScanUnit } from '../core/scan/unit';
import { lengthOfCurve } from '../core/shape/curve';
import { basisOf, scaled } from '../core/shape/vector';
import { BadInput, type Command, type CommandOptions } from './command';
import { rounded } from './rounded';
import { segmentOf, writeLines } from './segments';

const FileAsked = z.strictObject({ file: z.string() });

export const scanInspect: Command<z.infer<typeof FileAsked>> = {
  name: 'scan inspect',
  files: ['file'],
  inputOptional: true,
  about: 'Reads a scan and judges it: size, unit, bodies, borders, broken edges, scatter.',
  example: {},
  input: FileAsked,
  run({ file }, options) {
    const { bounds, fuzz, islands, holes, unseen, double, ...judged } = judgeScan(scanFrom(file, options));
    const rounded3 = (p: readonly number[]) => p.map(x => rounded(x, 4));
    return {
      ...judged,
      bounds: { min: rounded3(bounds.min), max: rounded3(bounds.max) },
      fuzz: fuzz === null ? null : rounded(fuzz, 5),
      // Beyond the contract.
      islands,
      holes,
      unseen: unseen.map(({ side, area, share }) => ({
        side,
        area: rounded(area, 2),
        share: rounded(share, 3),
      })),
      double: double && { share: rounded(double.share, 3), apart: rounded(double.apart, 3) },
    };
  },
};

const FitInput = z.strictObject({
  file: z.string(),
  kind: z.enum(PRIMITIVE_KINDS),
  near: z.tuple([z.number(), z.number(), z.number()]),
  radius: z.number().positive(),
});

export const scanFit: Command<z.infer<typeof FitInput>> = {
  name: 'scan fit',
  files: ['file'],
  about:
    'Fits a plane, cylinder, cone, sphere or hexagon to a scan where a point names it, and says how sure its size is.',
  example: { kind: 'cylinder', near: [15.85, 0, 5], radius: 6 },
  input: FitInput,
  run({ file, ...asked }, options) {
    const found = fitWhere(surfaceFrom(file, options), asked);
    if (!found)
      throw new BadInput(
        `There is no ${asked.kind} at that place: name a point on it, or a larger region to start from.`,
        'near',
        'nothing-there',
      );
    return shown(found);
  },
};

export const scanFind: Command<z.infer<typeof FileAsked>> = {
  name: 'scan find',
  files: ['file'],
  inputOptional: true,
  about:
    'Finds every plane, cylinder, cone, sphere, even prism and slot of a scan, and the patterns of its holes.',
  example: {},
  input: FileAsked,
  run({ file }, options) {
    const scan = surfaceFrom(file, options);
    const smooth = findAll(scan);
    const prisms = prismsOf(scan, smooth);
    const all = [...prisms, ...smooth];
    const named = (f: Found) => all.indexOf(f);
    return {
      primitives: [
        ...all.map(shown),
        ...slotsOf(scan, smooth).map(s => ({
          kind: s.kind,
          axis: way(s.axis),
          centre: way(s.centre),
          width: rounded(s.width, 5),
          length: rounded(s.length, 5),
          u: rounded(s.u, 5),
          rms: rounded(Math.hypot(...s.ends.map(e => e.rms)) / Math.SQRT2, 5),
          area: rounded(
            s.ends.reduce((sum, e) => sum + e.area, 0),
            2,
          ),
          coverage: rounded(
            s.ends.reduce((sum, e) => sum + e.coverage, 0),
            0,
          ),
        })),
      ],
      // Beyond the contract: by their places in the list above.
      patterns: patternsOf(scan, smooth).map(p => ({
        kind: p.kind,
        ...(p.kind === 'pitch-circle'
          ? { diameter: rounded(p.diameter, 5), centre: way(p.centre) }
          : { pitch: p.pitch.map(x => rounded(x, 5)) }),
        u: rounded(p.u, 5),
        holes: p.holes.map(named),
      })),
      across: acrossOf(scan, smooth).map(a => ({
        faces: a.faces.map(named),
        size: rounded(a.size, 5),
        u: rounded(a.u, 5),
        material: a.isMaterial,
      })),
    };
  },
};

const Vector = z.tuple([z.number(), z.number(), z.number()]);
const Way = Vector.refine(
  v => Math.hypot(...v) > 1e-9,
  'A direction cannot be nothing: give one of any length.',
);
const SectionInput = z.strictObject({
  file: z.string(),
  point: Vector,
  normal: Way,
  tolerance: z.number().positive().optional(),
});

export const scanSection: Command<z.infer<typeof SectionInput>> = {
  name: 'scan section',
  files: ['file'],
  about: 'Cuts a scan by a plane and tells the lines and arcs of it; --out writes .svg or .dxf.',
  example: { point: [0, 0, 10], normal: [0, 0, 1] },
  input: SectionInput,
  run({ file, point, normal, tolerance }, options) {
    const scan = surfaceFrom(file, options);
    const plane = { at: point, normal: scaled(normal, 1 / Math.hypot(...normal)) };
    const loops = sectionOf(scan, plane, tolerance);
    if (loops.length === 0)
      throw new BadInput(
        'The plane does not meet the scan: give a point inside its bounds.',
        'point',
        'no-section',
      );
    if (options.out !== undefined) writeLines(options.out, 'Section', loops);
    const { x, y } = basisOf(plane.normal);
    return {
      loops: loops.map(({ closed, curves }) => ({
        closed,
        length: rounded(
          curves.reduce((sum, c) => sum + lengthOfCurve(c), 0),
          4,
        ),
        segments: curves.map(segmentOf),
      })),
      // Beyond the contract: the plane's own two directions, in which the segments are given, from the point.
      frame: { at: point, x: way(x), y: way(y) },
    };
  },
};

const AlignInput = z.strictObject({
  fixed: z.string(),
  moving: z.string(),
  pairs: z
    .array(z.tuple([Vector, Vector]))
    .min(3)
    .optional(),
});

export const scanAlign: Command<z.infer<typeof AlignInput>> = {
  name: 'scan align',
  files: ['fixed', 'moving'],
  inputOptional: 'maybe',
  about: 'Lays one scan onto another, whatever way they lie; an uncertain answer is refused with its reason.',
  example: {},
  input: AlignInput,
  run({ fixed, moving, pairs }, options) {
    const found = aligned(surfaceFrom(fixed, options), surfaceFrom(moving, options), { pairs });
    if (!found.ok) throw new BadInput(found.message, found.code === 'pairs' ? 'pairs' : 'moving', found.code);
    const { turn: m, shift: s } = found.pose;
    const rows = [0, 1, 2].flatMap(i => [m[3 * i]!, m[3 * i + 1]!, m[3 * i + 2]!, s[i as 0]!]);
    return {
      matrix: [...rows, 0, 0, 0, 1].map(x => rounded(x, 8)),
      rms: rounded(found.rms, 5),
      overlap: rounded(found.overlap, 4),
    };
  },
};

const DeviateInput = z.strictObject({ model: z.string(), scan: z.string() });

export const scanDeviate: Command<z.infer<typeof DeviateInput>> = {
  name: 'scan deviate',
  files: ['model', 'scan'],
  inputOptional: true,
  about: 'Tells how far a scan lies off the model that it is laid on: above 0 outside of it.',
  example: {},
  input: DeviateInput,
  run({ model, scan }, options) {
    const solid = scanFrom(model, options);
    if (solid.triangles.length === 0)
      throw new BadInput(
        'A list of points is not a model: give triangles first, the scan second.',
        'model',
        'no-surface',
      );
    const found = deviationOf(solid, scanFrom(scan, options));
    if (!found)
      throw new BadInput(
        'The scan lies nowhere near the model: lay it on with scan align first.',
        'scan',
        'far-apart',
      );
    const { offs, area, ...sizes } = found;
    return { ...mapped(sizes, x => rounded(x, 5)), area: rounded(area, 2) };
  },
};

const mapped = (from: Record<string, number>, by: (x: number) => number) =>
  Object.fromEntries(Object.entries(from).map(([key, x]) => [key, by(x)]));

const UndercutInput = z.strictObject({ file: z.string(), pull: Way });

export const scanUndercut: Command<z.infer<typeof UndercutInput>> = {
  name: 'scan undercut',
  files: ['file'],
  about: 'Tells what of a scanned object would hold it in a recess when it is pulled out that way.',
  example: { pull: [0, 0, 1] },
  input: UndercutInput,
  run({ file, pull }, options) {
    const { area, fraction, maxDepth, suggestedDraft } = undercutOf(surfaceFrom(file, options), pull);
    return {
      undercutArea: rounded(area, 2),
      fraction: rounded(fraction, 5),
      maxDepth: rounded(maxDepth, 4),
      suggestedDraft: rounded(suggestedDraft, 2),
    };
  },
};

function surfaceFrom(file: string | undefined, options: CommandOptions): ScanSurface {
  const scan = scanFrom(file, options);
  if (scan.triangles.length === 0)
    throw new BadInput('A list of points has no surface to look at: export triangles.', 'file', 'no-surface');
  return new ScanSurface(scan);
}

const way = (p: readonly number[]) => p.map(x => rounded(x, 6));

function shown({ surface, u, rms, area, coverage }: Found) {
  const facts = {
    u: rounded(u, 5),
    rms: rounded(rms, 5),
    area: rounded(area, 2),
    coverage: rounded(coverage, 0),
  };
  switch (surface.kind) {
    case 'plane':
      return { kind: surface.kind, normal: way(surface.normal), centre: way(surface.at), ...facts };
    case 'sphere':
      return {
        kind: surface.kind,
        centre: way(surface.centre),
        diameter: rounded(2 * surface.radius, 5),
        ...facts,
      };
    default:
      return {
        kind: surface.kind,
        axis: way(surface.axis),
        centre: way(surface.at),
        ...(isPrism(surface) ? {} : { diameter: rounded(2 * surface.radius, 5) }),
        ...(isPrism(surface) ? { acrossFlats: rounded(2 * surface.radius, 5), sides: surface.sides } : {}),
        ...(surface.kind === 'cone' ? { halfAngle: rounded(Math.abs(surface.halfAngle), 5) } : {}),
        ...facts,
      };
  }
}

function scanFrom(path: string | undefined, { unit = 'mm' }: CommandOptions): RawScan {
  if (path === undefined) throw new BadInput('Name the file: scan inspect FILE', 'file');
  if (!(unit in SCAN_UNITS)) throw new BadInput(`--unit is mm, cm, in or m, not “${unit}”.`, 'unit');
  const times = SCAN_UNITS[unit as ScanUnit];
  try {
    if (statSync(path).size > MOST_BYTES)
      throw new BadInput(
        `${path} is larger than ${MOST_BYTES / 1e6} MB: export it coarser.`,
        'file',
        'too-large',
      );
    const scan = readScan(readFileSync(path));
    return times === 1 ? scan : { ...scan, positions: scan.positions.map(x => times * x) };
  } catch (error) {
    if (error instanceof ScanError) throw new BadInput(error.message, 'file', error.code);
    if (error instanceof Error && 'syscall' in error)
      throw new BadInput(`${path} cannot be read.`, 'file', 'cannot-read');
    throw error;
  }
}
