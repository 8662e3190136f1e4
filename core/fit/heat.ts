/** How a fit changes as it warms. Sizes mm, temperatures °C, expansion µm per m and °C. */

/** Fits are measured and printed parts are read at about this temperature, °C. Common practice, no source. */
export const ROOM_C = 20;

/**
 * Change of clearance: nominal diameter · (α female − α male) · ΔT.
 * @param serviceC its temperature in use
 */
export function clearanceChange(
  nominal: number,
  femaleExpansion: number,
  maleExpansion: number,
  serviceC: number,
): number {
  return nominal * (femaleExpansion - maleExpansion) * 1e-6 * (serviceC - ROOM_C);
}

/** Thermal expansion of usual objects, µm per m and °C; from memory of handbooks. */
export const OBJECT_EXPANSION = {
  steel: 12,
  aluminium: 23,
  brass: 19,
  glass: 9,
  wood: 5,
  'hard plastic': 70,
  'rigid foam or composite': 25,
} as const;
