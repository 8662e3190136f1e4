import { checkSolid } from './checks/check-solid';
import { type MeasuredMate, measureMates } from './checks/measure';
import { type Body, joinsAsTriangles, type Kernels } from './kernels/kernel';
import { areaOf, type Bounds, boundsOf, closureOf, type TriangleMesh, volumeOf } from './mesh/mesh';
import type { CheckContext, Finding, Parameters, Recipe } from './recipes/recipe';

/**
 * For the screen, operations between bodies are done on triangles; a file, and every check, comes from
 * the exact surfaces.
 */
export type Quality = 'screen' | 'file';

/** How far a flat may lie from the true surface, mm: a file's mates must measure right. */
export const SAGITTA: Record<Quality, number> = { screen: 0.03, file: 0.0025 };

export interface BuiltPart {
  mesh: TriangleMesh;
  /** mm³ and mm². */
  volume: number;
  area: number;
  bounds: Bounds;
  watertight: boolean;
  mates: MeasuredMate[];
}

export type BuildOutcome =
  | { ok: true; part: BuiltPart; findings: Finding[] }
  | { ok: false; findings: Finding[] };

/**
 * Parameters to triangles. A recipe's refusals and a kernel that fails both come back as findings; the
 * kernel's bodies are released before this returns.
 */
export function buildPart(
  recipe: Recipe,
  parameters: Parameters,
  kernels: Kernels,
  quality: Quality,
): BuildOutcome {
  const refused = recipe.refuse(parameters);
  if (refused.length > 0) return { ok: false, findings: refused };
  try {
    const body = recipe.solid(parameters, kernels.part);
    const mesh = joinedMesh(body, kernels, SAGITTA[quality], quality === 'screen');
    return acceptMesh(recipe, parameters, mesh, kernels, quality);
  } catch (error) {
    return { ok: false, findings: [kernelFinding(error)] };
  } finally {
    kernels.part.release();
  }
}

/**
 * Joined as triangles: a thread can be joined in no other way, a bend or a wall between two sections only at
 * great length, and for the screen
 * exact surfaces of curved bodies take ten times as long to join. All else is joined by them for a file.
 */
function joinedMesh(body: Body, kernels: Kernels, sagitta: number, always: boolean): TriangleMesh {
  if (body.triangles) return body.triangles(sagitta);
  if (body.asTriangles) return body.asTriangles(sagitta);
  if (!body.made || (!always && !joinsAsTriangles(body))) return kernels.part.mesh(body, sagitta);
  const { by, from, with: other } = body.made;
  const part = (of: Body) => joinedMesh(of, kernels, sagitta, always);
  return kernels.mesh.combine(by, part(from), part(other));
}

function acceptMesh(
  recipe: Recipe,
  parameters: Parameters,
  mesh: TriangleMesh,
  kernels: Kernels,
  quality: Quality,
): BuildOutcome {
  const facts = kernels.mesh.facts(mesh);
  // A B-rep operation that does not throw can still be wrong: what has no sound solid is not shown.
  if (!facts.ok)
    return {
      ok: false,
      findings: [
        {
          code: 'not-solid',
          level: 'stop',
          message: `${facts.message} Change the last number back and tell us which it was.`,
        },
      ],
    };
  return {
    ok: true,
    part: {
      mesh,
      volume: volumeOf(mesh),
      area: areaOf(mesh),
      bounds: boundsOf(mesh),
      // The mesh kernel takes only closed surfaces; for a file every edge is walked once more by ourselves.
      watertight: quality === 'screen' || closureOf(mesh).openEdges === 0,
      mates: measureMates(mesh, recipe.surfaces(parameters)),
    },
    findings: [],
  };
}

/** Everything that can be read off the finished triangles, worst first. */
export function inspectPart(
  recipe: Recipe,
  parameters: Parameters,
  part: Pick<BuiltPart, 'mesh'>,
  context: CheckContext,
): Finding[] {
  const order = { stop: 0, warn: 1, note: 2 };
  return [
    ...checkSolid(recipe, parameters, part.mesh, context),
    ...recipe.checks(parameters, part, context),
  ].sort((a, b) => order[a.level] - order[b.level]);
}

function kernelFinding(error: unknown): Finding {
  const message = error instanceof Error ? error.message : 'The kernel gave no reason.';
  return {
    code: 'kernel',
    level: 'stop',
    message: `This shape could not be made. ${message}. Take the last change back, or try a slightly different number.`,
  };
}
