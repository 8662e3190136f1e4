import { AS_DRAWN, type Pose } from '../../print/pose';
import type { SideDown } from '../model';
import type { Side } from '../sides';
import type { PressedSpan } from '../span/span';

/** What the checks on the finished triangles need besides the solid. Lengths mm. */

export interface CheckContext {
  lineWidth: number;
  bed: { width: number; depth: number; height: number };
  flexible: boolean;
  /** g/cm³ */
  density: number;
  /** The largest strain that the plastic bears once, ratio. */
  strainLimit: number;
  /** By mate: the ledger's number and the reading. */
  ledger: Readonly<Record<string, AskedMate>>;
  /** Measured dimensions by key. */
  measured: Readonly<Record<string, number>>;
  loads: readonly LoadAsked[];
  /** Null where the plastic's figures are not known. */
  strength: PrintStrength | null;
  /** Other plastics of the workshop. */
  otherStrengths: readonly PrintStrength[];
  /** How many times its load it should bear, and why. */
  margin: { times: number; why: string };
  /** Whether somebody may be hurt when it fails. */
  mayHurt: boolean;
  /** Its pose on the bed. */
  pose: Pose;
  neighbours: readonly NeighbourAsked[];
  keepOpen: readonly OpenZoneAsked[];
  /** The last leg of its path, and the one before if there is one. */
  goesOn: { from: string; distance: number; before?: { from: string; distance: number } } | null;
  /** The maker's own mates. */
  ownMates: readonly OwnMateAsked[];
}

/** What the ledger asks of a mate. */
export interface AskedMate {
  /** The number that is built. */
  model: number;
  /** The ledger's number, where the maker set another. */
  proposed?: number;
  reading: number;
  /** The object's side is the one that gives. */
  theirsGives?: boolean;
}

/** For a part without any demands. */
export const NO_DEMANDS = {
  loads: [],
  strength: null,
  otherStrengths: [],
  margin: { times: 1.5, why: '' },
  mayHurt: false,
  pose: AS_DRAWN,
  neighbours: [],
  keepOpen: [],
  goesOn: null,
  ownMates: [],
} satisfies Partial<CheckContext>;

/** A mate of the maker's own, by its number. Lengths mm, angles in degrees. */
export interface OwnMateAsked {
  name: string;
  number: string;
  kind: 'fit' | 'length' | 'position' | 'angle' | 'flush';
  /** How far it moves per mm or degree of its number. */
  rate: number;
  pressed?: PressedSpan;
}

/** A load that the part has to bear, as the maker stated it. */
export interface LoadAsked {
  id: string;
  words: string;
  /** N, or N·m for a torque. */
  kind: 'force' | 'turn';
  amount: number;
  towards: string;
  /** Faces in words (additions/place.ts), or “mate ID”. */
  at: string;
  held: string;
}

/** The neighbours of the part at its place, mm, in the part's coordinates. */
export interface NeighbourAsked {
  id: string;
  name: string;
  form: 'box' | 'round' | 'model';
  /** For a model: its reference and its orientation. */
  model?: string;
  lies?: SideDown;
  turn?: number;
  width: number;
  depth: number;
  height: number;
  x: number;
  y: number;
  z: number;
  room: number;
  /** It is printed for the other side: left and right of the part and of its surroundings are swapped. */
  mirrored?: boolean;
}

/** A stretch of an edge that must stay open, measured from one of its ends, mm. */
export interface OpenZoneAsked {
  id: string;
  name: string;
  edge: Side;
  end: Side;
  from: number;
  to: number;
  deep: number;
}

/** The strength of a print, MPa: pulled along its layers, and across them. */
export interface PrintStrength {
  name: string;
  along: number;
  across: number;
}
