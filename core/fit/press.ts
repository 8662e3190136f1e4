/**
 * Press fits by Lamé's thick cylinders: a ring (the hub) forced over a solid or hollow core. Sizes mm,
 * stresses and moduli MPa, forces N. Source: any machine-design handbook's chapter on press fits (Lamé 1852).
 */
export interface Cylinder {
  /** Inner diameter; 0 for a solid core. */
  inner: number;
  outer: number;
  modulus: number;
  poisson: number;
}

export interface PressFit {
  /** Contact pressure, MPa. */
  pressure: number;
  /** Largest tension in the hub, at its bore, MPa. */
  hubHoop: number;
  /** Hub's stretch at the bore, ratio. */
  hubStrain: number;
  /** Along the axis, to slide it, N. */
  pushOff: number;
}

/**
 * @param interference whole-diameter, female smaller than male, mm, 0 or more
 * @param at the common diameter, mm @param length of contact, mm @param friction coefficient
 * @throws RangeError for rings without a wall
 */
export function pressFit(
  hub: Cylinder,
  core: Cylinder,
  at: number,
  interference: number,
  length: number,
  friction: number,
): PressFit {
  if (!(hub.outer > at))
    throw new RangeError('The ring has no wall: its outside must be larger than its bore.');
  if (!(core.inner >= 0 && core.inner < at))
    throw new RangeError('The core’s bore must be smaller than its outside.');
  if (!(interference >= 0)) throw new RangeError('An interference is 0 or more: a gap presses nothing.');
  const { hubTerm, coreTerm } = complianceTerms(hub, core, at);
  const pressure = interference / (at * (hubTerm + coreTerm));
  const hubHoop = (pressure * (hub.outer ** 2 + at ** 2)) / (hub.outer ** 2 - at ** 2);
  return {
    pressure,
    hubHoop,
    hubStrain: pressure * hubTerm,
    pushOff: friction * pressure * Math.PI * at * length,
  };
}

/** How much each side gives, as a strain of the common diameter per MPa. */
function complianceTerms(hub: Cylinder, core: Cylinder, at: number) {
  const ratio = (outer: number, inner: number) => (outer ** 2 + inner ** 2) / (outer ** 2 - inner ** 2);
  return {
    hubTerm: (ratio(hub.outer, at) + hub.poisson) / hub.modulus,
    coreTerm: (ratio(at, core.inner) - core.poisson) / core.modulus,
  };
}
