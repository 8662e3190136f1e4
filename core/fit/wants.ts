/**
 * How a mate should feel, as a window of clearance. Clearance is female minus male across the whole
 * diameter or width: positive is a gap, negative an interference. Where one side is elastic the window
 * is a strain instead: how far the soft side is stretched (or squeezed) from its free size, as a ratio.
 */
export const WANT_NAMES = [
  'drop-on',
  'slide',
  'snug',
  'press',
  'stretch',
  'click',
  'jam',
  'screw',
  'bolt',
  'insert',
  'glue',
  'tape',
  'seal',
  'own',
] as const;
export type WantName = (typeof WANT_NAMES)[number];

/** Wants whose window the workshop knows. */
export type StandardWant = Exclude<WantName, 'own'>;

export interface Window {
  min: number;
  max: number;
  unit: 'mm' | 'strain';
}

export type SoftSide = 'none' | 'ours' | 'theirs';
export type Side = 'inside' | 'outside';
/** Which miss is the lesser evil. */
export type Preference = 'none' | 'loose' | 'tight';

/** Wants that hold screws: such a hole tolerates more than one that goes over something. */
export const isScrewed = (want: WantName): boolean =>
  want === 'screw' || want === 'bolt' || want === 'insert';

/** Default windows for rigid filament prints, mm of clearance. Common practice, no source. */
export const DEFAULT_WINDOWS: Record<StandardWant, Window> = {
  'drop-on': { min: 0.5, max: 1, unit: 'mm' },
  slide: { min: 0.2, max: 0.45, unit: 'mm' },
  snug: { min: 0.05, max: 0.2, unit: 'mm' },
  press: { min: -0.15, max: 0, unit: 'mm' },
  stretch: { min: 0.015, max: 0.04, unit: 'strain' },
  click: { min: 0.05, max: 0.35, unit: 'mm' },
  jam: { min: -0.05, max: 0.1, unit: 'mm' },
  screw: { min: 0.25, max: 0.55, unit: 'mm' },
  // ISO 273 medium leaves M3 to M8 0.4 to 1.0.
  bolt: { min: 0.3, max: 0.8, unit: 'mm' },
  // Relative to the insert's outside: 4.6 brass in a 4.0 hole.
  insert: { min: -0.7, max: -0.45, unit: 'mm' },
  glue: { min: 0.1, max: 0.3, unit: 'mm' },
  // Double-sided tape on both sides, pressed.
  tape: { min: 0.3, max: 0.6, unit: 'mm' },
  seal: { min: 0.6, max: 1.6, unit: 'mm' },
};

export const WANT_WORDS: Record<WantName, string> = {
  'drop-on': 'falls on by itself, rattles a little',
  slide: 'slides by hand, no rattle to speak of',
  snug: 'goes on with a light push, stays where it is',
  press: 'needs a firm push or a vice, stays for good',
  stretch: 'flexible: stretches over and grips',
  click: 'a lip snaps into a groove and turns freely',
  jam: 'a taper that wedges as it goes in',
  screw: 'runs down a thread by hand',
  bolt: 'a screw or bolt passes through without touching',
  insert: 'a brass insert is melted into it',
  glue: 'leaves a thin gap that glue fills',
  tape: 'leaves room for double-sided tape all round',
  seal: 'leaves room for a bead of sealant',
  own: 'a window of your own',
};

/** The usual windows apply up to this size, mm; beyond it they widen. Common practice, no source. */
export const USUAL_SIZE = 50;
/** Like tolerances, a window grows more slowly than the size. Common practice, no source. */
const WIDENING = 0.6;

/**
 * The window that a want means for something of this size: the usual ones widen with size (a slab of 77.5 gets 78 to
 * slide); a maker's own window and a stretch stay as they are.
 * @param size mm
 */
export function windowForSize(want: { name: WantName; window: Window }, size: number): Window {
  const { name, window } = want;
  if (name === 'own' || window.unit === 'strain' || size <= USUAL_SIZE) return window;
  const factor = (size / USUAL_SIZE) ** WIDENING;
  return { ...window, min: window.min * factor, max: window.max * factor };
}

/**
 * A strain window as clearances on this object. With the free size F of the soft side and the size S it
 * is forced to, strain is |S − F| / F; the rigid side keeps its size.
 * Ours inside (a ring over a spigot): S = object, F = printed, so c = F − S = −ε·S/(1 + ε).
 * Ours outside (a soft plug in a bore): squeezed, c = S − F = −ε·S/(1 − ε).
 * Theirs soft: F = object; either way c = −ε·F.
 * @param size the object's, mm
 */
export function clearanceWindow(
  window: Window,
  size: number,
  side: Side,
  soft: SoftSide,
): { min: number; max: number } {
  if (window.unit === 'mm') return { min: window.min, max: window.max };
  const clearance = (strain: number) => {
    if (soft === 'theirs') return -strain * size;
    return side === 'inside' ? (-strain * size) / (1 + strain) : (-strain * size) / (1 - strain);
  };
  return { min: clearance(window.max), max: clearance(window.min) };
}

/** The strain that goes with a clearance: the inverse of `clearanceWindow`. */
export function strainAt(clearance: number, size: number, side: Side, soft: SoftSide): number {
  if (soft === 'theirs') return -clearance / size;
  return side === 'inside' ? -clearance / (size + clearance) : -clearance / (size - clearance);
}
