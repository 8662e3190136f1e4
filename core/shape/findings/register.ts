import { additionFindings } from './kinds/additions';
import { cautionFindings } from './kinds/cautions';
import { followFindings } from './kinds/follows';
import { mateFindings } from './kinds/mates';
import { solidFindings } from './kinds/solid';
import { useFindings } from './kinds/use';

/** Every kind of finding: its fields, cost, words and cure are in one object each. */
export const FINDINGS = {
  ...solidFindings,
  ...mateFindings,
  ...useFindings,
  ...additionFindings,
  ...cautionFindings,
  ...followFindings,
};

export type FindingCode = keyof typeof FINDINGS;
export type FieldsOf<C extends FindingCode> = Parameters<(typeof FINDINGS)[C]['words']>[0];
