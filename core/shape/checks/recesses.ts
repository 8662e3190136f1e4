import type { BoundAddition } from '../additions/addition';
import { DIRECTIONS } from '../additions/place';
import { type Finding, finding, ofAddition } from '../findings/finding';
import type { Kernels } from '../kernels/kernel';
import type { TriangleMesh } from '../mesh/mesh';
import { modelOf, type SideDown, stood } from '../model';
import { lengthOf, type Parameters, textOf } from '../recipes/parameters';
import type { CheckContext } from './context';
import { firstHit, legsOf } from './where-it-goes';

/** How far a body is drawn out where it is not stated how the part goes on, mm. */
const DRAWN_OUT = 60;

/**
 * Whether a body from a file comes out of the room that was cut for it: along the part's path or, where none is stated,
 * in any of the six directions. The part is moved and the body stays, as on the bench.
 */
export function checkRecesses(
  mesh: TriangleMesh,
  additions: readonly BoundAddition[],
  parameters: Parameters,
  { goesOn }: Pick<CheckContext, 'goesOn'>,
  { mesh: kernel, models }: Pick<Kernels, 'mesh' | 'models'>,
): Finding[] {
  return additions.flatMap(({ addition, own }): Finding[] => {
    const p = own(parameters);
    if (addition.kind !== 'keep-clear' || !addition.on || p.form !== 'model') return [];
    const bare = modelOf(models, textOf(p, 'model'));
    if (!bare) return [];
    const body = stood(bare, {
      lies: textOf(p, 'lies') as SideDown,
      turn: lengthOf(p, 'turn'),
      at: [lengthOf(p, 'x'), lengthOf(p, 'y'), lengthOf(p, 'z')],
    });
    const hit = (from: string, distance: number) =>
      legsOf({ from, distance }).map(leg => firstHit(mesh, body, leg, false, kernel))[0] ?? null;
    const about = (found: Finding) => ofAddition(found, addition, name => name);
    if (goesOn) {
      const before = hit(goesOn.from, goesOn.distance);
      return before === null
        ? []
        : [about(finding('recess-undercut', 'warn', { name: addition.name, from: goesOn.from, before }))];
    }
    const open = Object.keys(DIRECTIONS).some(from => hit(from, DRAWN_OUT) === null);
    return open ? [] : [about(finding('recess-closed', 'warn', { name: addition.name }))];
  });
}
