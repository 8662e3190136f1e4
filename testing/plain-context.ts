import { type CheckContext, NO_DEMANDS } from '../core/shape/checks/context';

/** A usual printer and a stiff plastic, and no demands on the part. */
export const PLAIN_CONTEXT: CheckContext = {
  lineWidth: 0.4,
  density: 1.27,
  bed: { width: 300, depth: 300, height: 300 },
  flexible: false,
  strainLimit: 0.02,
  ledger: {},
  measured: {},
  ...NO_DEMANDS,
};
