import { formatPlain } from '../quantity/format';
import { BEARINGS, INCH_BEARINGS, ISO_15 } from './bearings';
import * as fasteners from './fasteners';
import { AS568, cordTolerance, O_RINGS, ringTolerance } from './o-rings';
import { PIPES } from './pipes';
import { POLYMER_SOURCE, POLYMERS } from './polymers';
import { given, type Row, type Source, sourceLine } from './table';
import { ISO_2306, TAP_DRILLS } from './tap-drills';
import { THREADS } from './threads';

/** The kind of a size, so that “22 outside” does not find a bore of 22. */
export type SizeRole = 'outside' | 'inside' | 'width' | 'flats' | 'pitch' | 'corners';

export interface ShelfSize {
  label: string;
  role: SizeRole;
  /** mm. */
  value: number;
  /** How far a real item may differ, ± mm. */
  tolerance: number;
}

/** One standard thing: a row of one of the shelf's tables. */
export interface ShelfItem {
  id: string;
  /** The drawer it is in: "Nuts", "Bearings". */
  family: string;
  name: string;
  /** Words that it can be found by, lower case. */
  words: string;
  sizes: readonly ShelfSize[];
  /** Properties that are not lengths, in words. */
  facts?: string;
  source: string;
}

const size = (label: string, role: SizeRole, value: number, tolerance: number): ShelfSize => ({
  label,
  role,
  value: Number(value.toFixed(4)),
  tolerance,
});

interface Spec<K extends string> {
  family: string;
  name(key: string): string;
  words: string;
  source: Source;
  rows: readonly Row<K>[];
  sizes(row: Row<K>): ShelfSize[];
}

function itemsOf<K extends string>(spec: Spec<K>): ShelfItem[] {
  return spec.rows.map(row => ({
    id: slug(`${spec.family} ${spec.name(row.key)}`),
    family: spec.family,
    name: spec.name(row.key),
    words: `${spec.words} ${row.key}`.toLowerCase(),
    sizes: spec.sizes(row),
    source: sourceLine(spec.source),
  }));
}

const slug = (text: string) =>
  text
    .toLowerCase()
    .replace(/[^a-z0-9.]+/g, '-')
    .replace(/^-|-$/g, '');
/** A hexagon across its corners. */
const corners = (flats: number) => (2 * flats) / Math.sqrt(3);
const hexagon = (flats: number, tolerance: number) => [
  size('across flats', 'flats', flats, tolerance),
  size('across corners', 'corners', corners(flats), 1.15 * tolerance),
];
const inch = (name: string) => `${name.replace('-', ' ')}${name.startsWith('#') ? '' : ' in'}`;

const fastenerItems: ShelfItem[] = [
  ...itemsOf({
    family: 'Clearance holes',
    name: key => `hole for ${key}`,
    words: 'clearance hole for screw bolt through',
    source: fasteners.ISO_273,
    rows: fasteners.CLEARANCE_HOLES,
    sizes: row => [
      size('fine', 'inside', given(row, 'fine'), 0.05),
      size('medium', 'inside', given(row, 'medium'), 0.1),
      size('coarse', 'inside', given(row, 'coarse'), 0.15),
    ],
  }),
  ...itemsOf({
    family: 'Nuts',
    name: key => `${key} nut`,
    words: 'nut hexagon hex full',
    source: fasteners.ISO_4032,
    rows: fasteners.HEXAGON_NUTS,
    sizes: row => [
      ...hexagon(given(row, 'acrossFlats'), given(row, 'acrossFlats') - given(row, 'acrossFlatsMin')),
      size('height', 'width', given(row, 'height'), given(row, 'height') - given(row, 'heightMin')),
    ],
  }),
  ...itemsOf({
    family: 'Nuts',
    name: key => `${key} thin nut`,
    words: 'nut hexagon hex thin jam lock half',
    source: fasteners.ISO_4035,
    rows: fasteners.THIN_NUTS,
    sizes: row => [
      ...hexagon(given(fasteners.HEXAGON_NUTS.find(n => n.key === row.key)!, 'acrossFlats'), 0.3),
      size('height', 'width', given(row, 'height'), 0.3),
    ],
  }),
  ...itemsOf({
    family: 'Nuts',
    name: key => `${inch(key)} nut`,
    words: 'nut hexagon hex inch unc unf',
    source: fasteners.B18_2_2,
    rows: fasteners.INCH_NUTS,
    sizes: row => [
      ...hexagon(25.4 * given(row, 'acrossFlats'), 0.25),
      size('height', 'width', 25.4 * given(row, 'height'), 0.4),
    ],
  }),
  ...itemsOf({
    family: 'Screw heads',
    name: key => `${key} hexagon head`,
    words: 'bolt screw hexagon hex head',
    source: fasteners.ISO_4017,
    rows: fasteners.HEXAGON_HEADS,
    sizes: row => [
      ...hexagon(given(row, 'acrossFlats'), 0.3),
      size('head height', 'width', given(row, 'height'), 0.2),
    ],
  }),
  ...itemsOf({
    family: 'Screw heads',
    name: key => `${key} socket head`,
    words: 'bolt screw socket cap cylinder head',
    source: fasteners.ISO_4762,
    rows: fasteners.SOCKET_HEADS,
    sizes: row => [
      size('head', 'outside', given(row, 'head'), 0.25),
      size('head height', 'width', given(row, 'height'), 0.2),
      size('key', 'flats', given(row, 'socket'), 0.06),
    ],
  }),
  ...itemsOf({
    family: 'Screw heads',
    name: key => `${key} countersunk socket head`,
    words: 'bolt screw countersunk flat socket head',
    source: fasteners.ISO_10642,
    rows: fasteners.COUNTERSUNK_SOCKET_HEADS,
    sizes: row => [
      size('head to the sharp edge', 'outside', given(row, 'head'), 0.3),
      size('head, least', 'outside', given(row, 'headMin'), 0.3),
      size('head height', 'width', given(row, 'height'), 0.1),
      size('key', 'flats', given(row, 'socket'), 0.06),
    ],
  }),
  ...itemsOf({
    family: 'Screw heads',
    name: key => `${key} button head`,
    words: 'bolt screw button round socket head',
    source: fasteners.ISO_7380,
    rows: fasteners.BUTTON_HEADS,
    sizes: row => [
      size('head', 'outside', given(row, 'head'), 0.25),
      size('head height', 'width', given(row, 'height'), 0.15),
      size('key', 'flats', given(row, 'socket'), 0.06),
    ],
  }),
  ...itemsOf({
    family: 'Screw heads',
    name: key => `${key} pan head`,
    words: 'screw pan cross recess head',
    source: fasteners.ISO_7045,
    rows: fasteners.PAN_HEADS,
    sizes: row => [
      size('head', 'outside', given(row, 'head'), 0.3),
      size('head height', 'width', given(row, 'height'), 0.15),
    ],
  }),
  ...itemsOf({
    family: 'Screw heads',
    name: key => `${key} countersunk head`,
    words: 'screw countersunk flat cross recess head',
    source: fasteners.ISO_7046,
    rows: fasteners.COUNTERSUNK_HEADS,
    sizes: row => [
      size('head to the sharp edge', 'outside', given(row, 'head'), 0.2),
      size('head', 'outside', given(row, 'headMax'), 0.3),
      size('head height', 'width', given(row, 'height'), 0.1),
    ],
  }),
  ...itemsOf({
    family: 'Washers',
    name: key => `${key} washer`,
    words: 'washer plain normal',
    source: fasteners.ISO_7089,
    rows: fasteners.WASHERS,
    sizes: washerSizes,
  }),
  ...itemsOf({
    family: 'Washers',
    name: key => `${key} large washer`,
    words: 'washer plain large penny fender',
    source: fasteners.ISO_7093,
    rows: fasteners.LARGE_WASHERS,
    sizes: washerSizes,
  }),
  ...itemsOf({
    family: 'Washers',
    name: key =>
      `${inch(key.replace(/[NW]$/, ''))} washer${key.endsWith('W') ? ', wide' : key.endsWith('N') ? ', narrow' : ''}`,
    words: 'washer plain inch sae',
    source: fasteners.B18_22_1,
    rows: fasteners.INCH_WASHERS,
    sizes: row => [
      size('hole', 'inside', 25.4 * given(row, 'hole'), 0.25),
      size('outside', 'outside', 25.4 * given(row, 'outside'), 0.3),
      size('thickness', 'width', 25.4 * given(row, 'thickness'), 0.4),
    ],
  }),
  ...itemsOf({
    family: 'Screws for wood and sheet',
    name: key => `tapping screw ${key}`,
    words: 'sheet metal tapping self screw pilot plastic',
    source: fasteners.ISO_1478,
    rows: fasteners.TAPPING_SCREWS,
    sizes: row => [
      size('outside', 'outside', given(row, 'outside'), 0.1),
      size('pitch', 'pitch', given(row, 'pitch'), 0.03),
      size('pilot in a print', 'inside', fasteners.PLASTIC_PILOT_RATIO * given(row, 'outside'), 0.1),
    ],
  }),
  ...itemsOf({
    family: 'Screws for wood and sheet',
    name: key => `wood screw ${key} mm`,
    words: 'wood screw pilot chipboard',
    source: fasteners.PRACTICE,
    rows: fasteners.WOOD_SCREW_PILOTS,
    sizes: row => [
      size('outside', 'outside', Number(row.key), 0.15),
      size('pilot in soft wood', 'inside', given(row, 'soft'), 0.2),
      size('pilot in hard wood', 'inside', given(row, 'hard'), 0.2),
      size('shank hole', 'inside', given(row, 'shank'), 0.2),
    ],
  }),
  ...itemsOf({
    family: 'Heat-set inserts',
    name: key => `${key} heat-set insert`,
    words: 'insert heat set brass melt hole for',
    source: fasteners.PRACTICE,
    rows: fasteners.HEAT_SET_INSERTS,
    sizes: row => [
      size('hole', 'inside', given(row, 'hole'), 0.1),
      size('least depth', 'width', given(row, 'depth'), 0.5),
      size('least boss', 'outside', given(row, 'boss'), 0.5),
    ],
  }),
];

function washerSizes(row: Row<'hole' | 'outside' | 'thickness'>): ShelfSize[] {
  return [
    size('hole', 'inside', given(row, 'hole'), 0.2),
    size('outside', 'outside', given(row, 'outside'), 0.4),
    size('thickness', 'width', given(row, 'thickness'), 0.1 + 0.05 * given(row, 'thickness')),
  ];
}

const FAMILY_WORDS: Record<string, string> = {
  'metric-coarse': 'metric coarse iso screw',
  'metric-fine': 'metric fine iso screw',
  unified: 'unified inch unc unf screw',
  'pipe-parallel': 'pipe gas parallel bsp bspp tap hose water',
  'pipe-taper': 'pipe gas taper bspt npt rc water',
  hose: 'garden hose water ght',
  trapezoidal: 'trapezoidal lead screw spindle vice',
  whitworth: 'whitworth inch old camera',
  association: 'old instrument switch small',
  bottle: 'bottle neck cap jar',
};

const threadItems: ShelfItem[] = THREADS.map(t => ({
  id: slug(`thread ${t.designation.replace('#', 'no ')}`),
  family: 'Threads',
  name: t.designation,
  words: `thread ${FAMILY_WORDS[t.family]} ${t.designation}`.toLowerCase(),
  sizes: [
    size(t.taper ? 'outside (tapers)' : 'outside', 'outside', t.major, Math.max(0.05, t.externalUnder.most)),
    size('pitch', 'pitch', t.pitch, 0.02),
    size('pitch diameter', 'width', t.pitchDiameter, 0.05),
    size('hole before threading', 'inside', t.minorInternal, Math.max(0.05, t.internalOver.most)),
  ],
  facts: [
    t.turnsPerInch ? `${formatPlain(t.turnsPerInch)} turns an inch` : '',
    `${formatPlain(t.flankAngle, 1)}° between the flanks`,
    t.taper ? 'taper 1 in 16' : '',
  ]
    .filter(Boolean)
    .join(', '),
  source: sourceLine(t.source),
}));

const tapItems: ShelfItem[] = TAP_DRILLS.map(({ designation, drill }) => ({
  id: slug(`tap drill ${designation.replace('#', 'no ')}`),
  family: 'Tap drills',
  name: `drill for tapping ${designation}`,
  words: `tap drill core hole tapping for ${designation}`.toLowerCase(),
  sizes: [size('drill', 'inside', drill, 0.05)],
  source: sourceLine(ISO_2306),
}));

const bearingItems: ShelfItem[] = [...BEARINGS, ...INCH_BEARINGS].map(b => ({
  id: slug(`bearing ${b.designation}`),
  family: 'Bearings',
  name: `bearing ${b.designation}`,
  words: `ball bearing deep groove wheel ${b.designation}`.toLowerCase(),
  sizes: [
    size('bore', 'inside', b.bore, 0.01),
    size('outside', 'outside', b.outside, 0.015),
    size('width', 'width', b.width, 0.12),
  ],
  source: sourceLine(ISO_15),
}));

const ringItems: ShelfItem[] = O_RINGS.map(r => ({
  id: slug(`o-ring ${r.dash}`),
  family: 'O-rings',
  name: `O-ring ${r.dash}`,
  words: `o-ring oring seal gasket as568 ${r.dash} ${r.dash.slice(1)}`,
  sizes: [
    size('inside', 'inside', r.inside, ringTolerance(r.inside)),
    size('cord', 'width', r.cord, cordTolerance(r.cord)),
    size('outside', 'outside', r.inside + 2 * r.cord, ringTolerance(r.inside) + 2 * cordTolerance(r.cord)),
  ],
  facts: `${r.insideInch.toFixed(3)} in inside`,
  source: sourceLine(AS568),
}));

const pipeItems: ShelfItem[] = PIPES.flatMap(group =>
  group.sizes.map(p => ({
    id: slug(`${group.family} ${p.name}`),
    family: 'Pipes and hoses',
    name: `${group.family} ${p.name}`,
    words: `pipe tube hose ${group.family} ${p.name}`.toLowerCase(),
    sizes: [
      size('outside', 'outside', p.outside, group.tolerance),
      ...(p.bore === undefined ? [] : [size('bore', 'inside', p.bore, group.tolerance)]),
    ],
    source: sourceLine(group),
  })),
);

const polymerItems: ShelfItem[] = POLYMERS.map(p => ({
  id: slug(`plastic ${p.key}`),
  family: 'Plastics',
  name: p.key,
  words: `plastic filament polymer material ${p.key}`.toLowerCase(),
  sizes: [],
  facts: `${given(p, 'density')} g/cm³, modulus ${given(p, 'modulusLow')} to ${given(p, 'modulusHigh')} MPa, stretches ${given(p, 'strainOnce')} % once and ${given(p, 'strainOften')} % often, softens at ${given(p, 'softensC')} °C, grows ${given(p, 'expansion')} µm per m and °C, outdoors ${p.uv}, takes up ${p.moisture} water${p.key.includes('CF') ? ', conducts: never over contacts' : ''}`,
  source: sourceLine(POLYMER_SOURCE),
}));

/** The whole shelf, drawer by drawer. */
export const SHELF: readonly ShelfItem[] = [
  ...fastenerItems,
  ...threadItems,
  ...tapItems,
  ...bearingItems,
  ...ringItems,
  ...pipeItems,
  ...polymerItems,
];
export const DRAWERS = [...new Set(SHELF.map(i => i.family))];
