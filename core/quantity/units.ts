/**
 * Internally lengths are millimetres and angles degrees; other units exist only where a person types or reads. Factors
 * are exact by definition (the international inch, 1959: 25.4 mm).
 */
export type LengthUnit = 'mm' | 'cm' | 'm' | 'in' | 'thou';
export type AngleUnit = 'deg' | 'rad';
export type Unit = LengthUnit | AngleUnit | 'none' | 'percent';

/** The kind of a number, which decides the units it may be typed in. */
export type QuantityKind = 'length' | 'angle' | 'count' | 'strain';

const MM_PER: Record<LengthUnit, number> = { mm: 1, cm: 10, m: 1000, in: 25.4, thou: 0.0254 };

/** Accepted spellings, lower case. */
const SPELLINGS: Record<string, Unit> = {
  mm: 'mm',
  millimetre: 'mm',
  millimetres: 'mm',
  millimeter: 'mm',
  millimeters: 'mm',
  cm: 'cm',
  m: 'm',
  in: 'in',
  inch: 'in',
  inches: 'in',
  '"': 'in',
  '”': 'in',
  '″': 'in',
  thou: 'thou',
  mil: 'thou',
  mils: 'thou',
  '°': 'deg',
  deg: 'deg',
  degree: 'deg',
  degrees: 'deg',
  rad: 'rad',
  '%': 'percent',
};

export function unitFromSpelling(text: string): Unit | undefined {
  return SPELLINGS[text.toLowerCase()];
}

export function isLengthUnit(unit: Unit): unit is LengthUnit {
  return unit in MM_PER;
}

/** Multiply a number typed in `unit` by this to get mm, degrees or a plain ratio. */
export function factorOf(unit: Unit): number {
  if (isLengthUnit(unit)) return MM_PER[unit];
  if (unit === 'rad') return 180 / Math.PI;
  if (unit === 'percent') return 0.01;
  return 1;
}

/** Whether a number in `unit` can stand for a quantity of `kind`. */
export function unitSuits(unit: Unit, kind: QuantityKind): boolean {
  if (kind === 'length') return isLengthUnit(unit);
  if (kind === 'angle') return unit === 'deg' || unit === 'rad';
  if (kind === 'strain') return unit === 'percent' || unit === 'none';
  return unit === 'none';
}

/** The unit a bare number takes in a field of this kind. */
export function ownUnit(kind: QuantityKind): Unit {
  if (kind === 'length') return 'mm';
  if (kind === 'angle') return 'deg';
  if (kind === 'strain') return 'percent';
  return 'none';
}
