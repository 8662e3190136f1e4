/** Glued, taped and sealed mates: what the joint holds, and whether the plastic bonds. Forces N, areas mm². */
export type Bond = 'glue' | 'tape' | 'seal';

export interface BondRule {
  takes: 'well' | 'roughened' | 'badly';
  /** What to use. */
  with: string;
}

const GLUES: Record<string, BondRule> = {
  PLA: { takes: 'well', with: 'cyanoacrylate or epoxy' },
  PETG: { takes: 'roughened', with: 'epoxy or a glue for polyester' },
  ABS: { takes: 'well', with: 'epoxy or cyanoacrylate' },
  ASA: { takes: 'well', with: 'epoxy or cyanoacrylate' },
  PC: { takes: 'well', with: 'epoxy' },
  PA: { takes: 'roughened', with: 'epoxy, on a dry part' },
  PP: { takes: 'badly', with: 'no usual glue: weld it, clip it or screw it' },
  TPU: { takes: 'roughened', with: 'a flexible polyurethane glue' },
};

/**
 * Shear stress that a joint may carry every day, N/mm², well below what fresh joints show. Common practice, no source.
 */
const CARRIES: Record<Bond, number> = { glue: 0.5, tape: 0.02, seal: 0.08 };
const ROUGHENED = 0.6;

/** How well a polymer bonds; null for one that is not in the list. Common practice, no source. */
export function bondRule(bond: Bond, polymer: string): BondRule | null {
  const family = Object.keys(GLUES).find(k => polymer === k || polymer.startsWith(k));
  if (!family) return null;
  const rule = GLUES[family]!;
  if (bond === 'glue') return rule;
  if (rule.takes === 'badly')
    return { takes: 'badly', with: bond === 'tape' ? 'tape peels off it' : 'sealant peels off it' };
  return bond === 'tape'
    ? { takes: 'well', with: 'double-sided tape on degreased faces' }
    : {
        takes: 'well',
        with: family === 'PC' ? 'a neutral silicone: acetic ones crack it' : 'a neutral silicone',
      };
}

/** The load that the joint may carry in its own plane, N. @param area mm² */
export function bondHolds(bond: Bond, area: number, rule: BondRule): number {
  if (rule.takes === 'badly') return 0;
  return area * CARRIES[bond] * (rule.takes === 'roughened' ? ROUGHENED : 1);
}
