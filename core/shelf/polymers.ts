import { given, readTable, type Source } from './table';

export const POLYMER_SOURCE: Source = {
  standard: 'common practice, no source',
  obtained: 'from memory; makers’ data sheets differ, printed parts are weaker',
};

/** Below this modulus a plastic feels flexible, MPa. Common practice, no source. */
const FLEXIBLE_BELOW = 300;

/** Filament polymers, ranges from memory: density g/cm³, modulus MPa, strain once and often %, softens °C, expansion µm/m·K. */
const COLUMNS = [
  'density',
  'modulusLow',
  'modulusHigh',
  'strainOnce',
  'strainOften',
  'softensC',
  'expansion',
] as const;
const POLYMERS_TABLE = readTable(
  COLUMNS,
  `
  PLA     1.24 2300 3600 2    1    55  70
  PETG    1.27 1700 2200 3.5  2    70  60
  ABS     1.04 1800 2300 3    1.8  95  90
  ASA     1.07 1800 2200 3    1.8  95  95
  PC      1.20 2000 2400 4    2    110 68
  PA6     1.13 1000 2600 6    4    70  85
  PA12    1.01 900  1600 8    5    80  110
  PP      0.90 700  1300 8    5    75  140
  TPU95A  1.21 40   150  25   15   75  150
  TPU85A  1.19 15   40   60   40   65  150
  PLA-CF  1.29 4000 7000 1    0.5  55  30
  PA-CF   1.17 4000 8000 1.8  1    90  30
  PETG-CF 1.32 3500 5500 1.3  0.7  70  30
  `,
);
const OUTDOORS: Record<string, { uv: 'good' | 'fair' | 'poor'; moisture: 'little' | 'some' | 'much' }> = {
  PLA: { uv: 'fair', moisture: 'some' },
  PETG: { uv: 'fair', moisture: 'some' },
  ABS: { uv: 'poor', moisture: 'little' },
  ASA: { uv: 'good', moisture: 'little' },
  PC: { uv: 'fair', moisture: 'some' },
  PA6: { uv: 'fair', moisture: 'much' },
  PA12: { uv: 'fair', moisture: 'some' },
  PP: { uv: 'poor', moisture: 'little' },
  TPU95A: { uv: 'fair', moisture: 'some' },
  TPU85A: { uv: 'fair', moisture: 'some' },
  'PLA-CF': { uv: 'fair', moisture: 'some' },
  'PA-CF': { uv: 'fair', moisture: 'much' },
  'PETG-CF': { uv: 'fair', moisture: 'some' },
};
/**
 * Tensile strength of prints, MPa, pulled along the layers and across them. From memory of makers' data sheets: lower
 * ends of the ranges, all walls, no infill; prints scatter by a third.
 */
export const PRINTED_STRENGTH = readTable(
  ['along', 'across'],
  `
  PLA     45 25
  PETG    40 20
  ABS     32 14
  ASA     34 16
  PC      55 28
  PA6     50 28
  PA12    40 25
  PP      20 12
  TPU95A  28 14
  TPU85A  22 11
  PLA-CF  45 14
  PA-CF   60 22
  PETG-CF 42 14
  `,
);

/**
 * Linear shrinkage from the nozzle to room temperature, %, as in moulding. From memory of data sheets: middles of
 * ranges.
 */
export const SHRINKAGE = readTable(
  ['percent'],
  `
  PLA     0.3
  PETG    0.4
  ABS     0.7
  ASA     0.6
  PC      0.7
  PA6     1.2
  PA12    1.2
  PP      1.8
  TPU95A  0.8
  TPU85A  1.0
  PLA-CF  0.2
  PA-CF   0.4
  PETG-CF 0.2
  `,
);

export const POLYMERS = POLYMERS_TABLE.map(row => ({ ...row, ...OUTDOORS[row.key]! }));
export type Polymer = (typeof POLYMERS)[number];

/** A spool's own figures, as far as the shelf knows them: they follow the chosen polymer. */
export function spoolFigures(key: string): {
  density: number;
  strainLimit: number;
  softensC: number;
  flexible: boolean;
} | null {
  const row = POLYMERS.find(p => p.key === key);
  if (!row) return null;
  return {
    density: given(row, 'density'),
    strainLimit: given(row, 'strainOnce') / 100,
    softensC: given(row, 'softensC'),
    flexible: given(row, 'modulusHigh') < FLEXIBLE_BELOW,
  };
}
