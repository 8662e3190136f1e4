import { checkSolid } from './checks/check-solid';
import { type MeasuredMate, measureMates } from './checks/measure';
import { finished, joinedMesh, type Quality, SAGITTA } from './finish';
import type { Body, Kernels } from './kernels/kernel';
import { areaOf, type Bounds, boundsOf, closureOf, joined, type TriangleMesh, volumeOf } from './mesh/mesh';
import type { CheckContext, Finding, MateSurface, Parameters, Recipe } from './recipes/recipe';
import { type LoadResult, loadResults } from './strength/loads';

export interface BuiltPart {
  mesh: TriangleMesh;
  /** mm³ and mm². */
  volume: number;
  area: number;
  bounds: Bounds;
  watertight: boolean;
  mates: MeasuredMate[];
  /** Where its mates are, additions and all. */
  surfaces: MateSurface[];
  /** Of a part that was split: each piece as it lies on the bed; `mesh` is all of them. */
  pieces: { name: string; mesh: TriangleMesh }[];
  /** The pieces where they belong, for looking at mates; the part itself where it is one. */
  whole: TriangleMesh;
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
    }
    const mesh = pieces.length > 0 ? joined(laid.map(p => p.mesh)) : whole;
    return {
      ok: true,
      part: {
        mesh,
        volume: volumeOf(mesh),
        area: areaOf(mesh),
        bounds: boundsOf(mesh),
        // The mesh kernel takes only closed surfaces; for a file every edge is walked once more by ourselves.
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

export interface Inspection {
  findings: Finding[];
  loads: LoadResult[];
}

/** Everything that can be read off the finished triangles, costliest first. @param found what the build had to say */
export function inspectPart(
  recipe: Recipe,
  parameters: Parameters,
  part: BuiltPart,
  context: CheckContext,
  kernels: Pick<Kernels, 'mesh' | 'models'>,
  found: readonly Finding[] = [],
): Inspection {
  const loads = loadResults(part.whole, part.surfaces, context);
  const findings = [
    ...found,
    ...checkSolid(recipe, part, context, kernels, loads),
    ...recipe.checks(parameters, part, context),
  ];
  return { findings: ranked(findings), loads };
}

/**
 * By what they would cost: what cannot be used at all, then what costs a print, then what is worth knowing; within
 * those, what hurts before what does not fit, and that before what looks odd.
 */
export function ranked(findings: readonly Finding[]): Finding[] {
  const level = { stop: 0, warn: 1, note: 2 };
  const cost = (f: Finding) => {
    const at = COSTLIEST.indexOf(f.code);
    return at < 0 ? COSTLIEST.length : at;
  };
  return [...findings].sort((a, b) => level[a.level] - level[b.level] || cost(a) - cost(b));
}

const COSTLIEST: readonly string[] = [
  'too-weak',
  'proof-test',
  'not-solid',
  'open',
  'inside-out',
  'loose-bodies',
  'bed',
  'unit-slip',
  'tiny',
  'hand',
  'slip',
  'mate-missing',
  'smaller-than-mate',
  'in-the-way',
  'path-blocked',
  'addition-gone',
  'addition-failed',
  'addition-order',
  'mate-off',
  'thin-wall',
  'sharp-root',
  'hole-near-edge',
];

function kernelFinding(error: unknown): Finding {
  const message = error instanceof Error ? error.message : 'The kernel gave no reason.';
  return {
    code: 'kernel',
    level: 'stop',
    message: `This shape could not be made. ${message}. Take the last change back, or try a slightly different number.`,
  };
}
