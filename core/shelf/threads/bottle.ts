import type { Thread } from './thread';

const SOURCE = {
  standard: 'common practice, no source',
  obtained: 'from memory; bottle necks differ between makers',
};

/** Bottle necks that repairs often involve: outside over the ridge and pitch; coarse, shallow, rounded. From memory. */
const NECKS = [
  { designation: 'bottle neck 28 mm, short', major: 27.43, pitch: 2.7, core: 24.94 },
  { designation: 'bottle neck 28 mm, tall', major: 27.43, pitch: 3.18, core: 24.94 },
  { designation: 'bottle neck 38 mm', major: 37.5, pitch: 4.23, core: 35.1 },
  { designation: 'laboratory neck 45 mm (GL 45)', major: 45, pitch: 4, core: 42.2 },
];

export const BOTTLE: readonly Thread[] = NECKS.map(neck => ({
  designation: neck.designation,
  family: 'bottle' as const,
  standard: SOURCE.standard,
  major: neck.major,
  pitch: neck.pitch,
  turnsPerInch: null,
  pitchDiameter: (neck.major + neck.core) / 2,
  minorInternal: neck.core + 0.3,
  flankAngle: 60,
  taper: false,
  externalUnder: { least: -0.15, most: 0.4 },
  internalOver: { least: -0.1, most: 0.5 },
  commonness: 0.15,
  source: SOURCE,
}));
