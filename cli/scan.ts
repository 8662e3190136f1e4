import { readFileSync, statSync } from 'node:fs';
import { z } from 'zod';
import { type Found, fitAt } from '../core/scan/fit/fit';
import { PRIMITIVE_KINDS } from '../core/scan/fit/primitive';
import { judgeScan } from '../core/scan/judge';
import { readScan } from '../core/scan/read-scan';
import { MOST_BYTES, type RawScan, ScanError } from '../core/scan/scan-file';
import { ScanSurface } from '../core/scan/scan-surface';
import { BadInput, type Command, type CommandOptions } from './command';

/** What one of a file's units is, mm. */
const UNITS = { mm: 1, in: 25.4, m: 1000 } as const;

const FileAsked = z.strictObject({ file: z.string() });

export const scanInspect: Command<z.infer<typeof FileAsked>> = {
  name: 'scan inspect',
  file: true,
  inputOptional: true,
  about: 'Reads a scan and judges it: size, unit, bodies, borders, broken edges, scatter.',
  example: {},
  input: FileAsked,
  run({ file }, options) {
    const { bounds, fuzz, islands, holes, ...judged } = judgeScan(scanFrom(file, options));
    const rounded3 = (p: readonly number[]) => p.map(x => rounded(x, 4));
    return {
      ...judged,
      bounds: { min: rounded3(bounds.min), max: rounded3(bounds.max) },
      fuzz: fuzz === null ? null : rounded(fuzz, 5),
      // Beyond the contract.
      islands,
      holes,
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
  file: true,
  about:
    'Fits a plane, cylinder, cone or sphere to a scan where a point names it, and says how sure its size is.',
  example: { kind: 'cylinder', near: [15.85, 0, 5], radius: 6 },
  input: FitInput,
  run({ file, ...asked }, options) {
    const scan = scanFrom(file, options);
    if (scan.triangles.length === 0)
      throw new BadInput(
        'A list of points has no surface to grow over: export triangles.',
        'file',
        'no-surface',
      );
    const found = fitAt(new ScanSurface(scan), asked);
    if (!found)
      throw new BadInput(
        `There is no ${asked.kind} at that place: name a point on it, or a larger region to start from.`,
        'near',
        'nothing-there',
      );
    return shown(found);
  },
};

function shown({ surface, u, rms, area, coverage }: Found) {
  const way = (p: readonly number[]) => p.map(x => rounded(x, 6));
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
        diameter: rounded(2 * surface.radius, 5),
        ...(surface.kind === 'cone' ? { halfAngle: rounded(Math.abs(surface.halfAngle), 5) } : {}),
        ...facts,
      };
  }
}

function scanFrom(path: string | undefined, { unit = 'mm' }: CommandOptions): RawScan {
  if (path === undefined) throw new BadInput('Name the file: scan inspect FILE', 'file');
  if (!(unit in UNITS)) throw new BadInput(`--unit is mm, in or m, not “${unit}”.`, 'unit');
  const times = UNITS[unit as keyof typeof UNITS];
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

const rounded = (x: number, decimals: number) => Number(x.toFixed(decimals));
