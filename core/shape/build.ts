import type { BuiltPart } from './built-part';
import { measureMates } from './checks/measure';
import { type Finding, finding } from './findings/finding';
import { finished, joinedMesh, type Quality, SAGITTA } from './finish';
import type { Body, Kernels } from './kernels/kernel';
import { areaOf, boundsOf, closureOf, joined, volumeOf } from './mesh/mesh';
import { followsReading, refusals } from './recipes/cure';
import type { Parameters } from './recipes/parameters';
import type { Recipe } from './recipes/recipe';

export type BuildOutcome =
  | { ok: true; part: BuiltPart; findings: Finding[] }
  | { ok: false; findings: Finding[] };

/**
 * From parameters to triangles. A recipe's refusals and failures of the kernel both come back as findings; the kernel's
 * bodies are released before this returns.
 */
export function buildPart(
  recipe: Recipe,
  parameters: Parameters,
  kernels: Kernels,
  quality: Quality,
): BuildOutcome {
  const refused = refusals(
    {
      parameters: recipe.parameters.filter(spec => spec.addition === undefined),
      refuse: p => recipe.refuse(p, kernels.models ?? new Map()),
      measured: followsReading(recipe, parameters),
    },
    parameters,
  );
  if (refused.length > 0) return { ok: false, findings: refused };
  try {
    const made = finished(recipe, parameters, kernels);
    const meshOf = (body: Body) => joinedMesh(body, kernels, SAGITTA[quality], quality === 'screen');
    const pieces = made.pieces.map(piece => {
      const mesh = meshOf(piece.body);
      return { name: piece.name, mesh, laid: piece.lay(mesh), extra: piece.extra ?? false };
    });
    const whole =
      pieces.length > 0 ? joined(pieces.filter(p => !p.extra).map(p => p.mesh)) : meshOf(made.body);
    const laid = pieces.map(({ name, laid: mesh }) => ({ name, mesh }));
    for (const mesh of pieces.length > 0 ? laid.map(p => p.mesh) : [whole]) {
      const facts = kernels.mesh.facts(mesh);
      // A B-rep operation that does not throw can still be wrong: an unsound solid is not shown.
      if (!facts.ok) return { ok: false, findings: [finding('not-solid', 'stop', { why: facts.message })] };
    }
    const mesh = pieces.length > 0 ? joined(laid.map(p => p.mesh)) : whole;
    return {
      ok: true,
      part: {
        mesh,
        volume: volumeOf(mesh),
        area: areaOf(mesh),
        bounds: boundsOf(mesh),
        // The mesh kernel takes only closed surfaces; for a file we check every edge ourselves as well.
        watertight: quality === 'screen' || closureOf(mesh).openEdges === 0,
        mates: measureMates(whole, made.surfaces),
        surfaces: made.surfaces,
        pieces: laid,
        whole,
      },
      findings: made.findings,
    };
  } catch (error) {
    return { ok: false, findings: [kernelFinding(error)] };
  } finally {
    kernels.part.release();
  }
}

function kernelFinding(error: unknown): Finding {
  const why = error instanceof Error ? error.message : 'The kernel gave no reason';
  return finding('kernel', 'stop', { why });
}
