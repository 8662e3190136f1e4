import type { CheckContext } from '../../checks/context';
import { checkFollows } from '../../checks/follows-object';
import type { Finding } from '../../findings/finding';
import type { Models } from '../../kernels/kernel';
import type { BuiltSolid } from '../recipe';
import type { P } from './parameters';
import { sizesOf } from './sizes';

export function checks(p: P, { mesh }: BuiltSolid, _context: CheckContext, models?: Models): Finding[] {
  const s = sizesOf(p, models);
  return checkFollows(mesh, p.object, s?.object.mesh, [-p.right, -p.back, p.surface - (s?.over ?? 0)]);
}
