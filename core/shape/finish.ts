import { AdditionGone, type Applied, type BoundAddition, type Piece, type Site } from './additions/addition';
import { longName, surfaceNameOf } from './additions/with-additions';
import { type Finding, finding, ofAddition } from './findings/finding';
import { type Body, hasTriangles, joinsAsTriangles, KernelError, type Kernels } from './kernels/kernel';
import type { MateSurface } from './mates';
import { type Bounds, boundsOf, type TriangleMesh, volumeOf } from './mesh/mesh';
import { refusals } from './recipes/cure';
import type { Parameters } from './recipes/parameters';
import type { Recipe } from './recipes/recipe';
import { dot } from './vector';

/**
 * For the screen, operations between bodies are done on triangles; a file, and every check, comes from the exact
 * surfaces.
 */
export type Quality = 'screen' | 'file';

/** How far a flat may be from the true surface, mm: a file's mates must measure right. */
export const SAGITTA: Record<Quality, number> = { screen: 0.03, file: 0.0025 };

/** A recipe's body with its additions. */
export interface Finished {
  body: Body;
  /** Where it was split; then `body` is the part before the split. */
  pieces: readonly Piece[];
  surfaces: MateSurface[];
  /** Problems of an addition that was left out, and other findings of additions. */
  findings: Finding[];
}

/**
 * The solid with its additions in order. An addition that cannot be made is left out with a finding: the rest of the
 * part can still be looked at.
 * @throws KernelError when the recipe itself cannot be built
 */
export function finished(recipe: Recipe, parameters: Parameters, kernels: Kernels): Finished {
  const seats = new Map<string, number>();
  const made: Finished = {
    body: recipe.solid(parameters, kernels.part, kernels),
    pieces: [],
    surfaces: recipe.surfaces(parameters, kernels.models),
    findings: [],
  };
  for (const bound of recipe.additions ?? []) {
    if (made.pieces.length > 0) {
      made.findings.push(about(bound, finding('addition-order', 'stop', {})));
      continue;
    }
    const refused = refusals(
      {
        parameters: bound.kind.parameters,
        refuse: p => bound.kind.refuse(p),
        measured: spec => spec.name === bound.addition.fits?.parameter,
      },
      bound.own(parameters),
    );
    if (refused.length > 0) {
      made.findings.push(...refused.map(f => about(bound, { ...f, level: 'stop' })));
      continue;
    }
    try {
      const site = siteOf(made, kernels, seats, at => seats.set(bound.addition.id, at));
      const applied = bound.kind.apply(site, bound.own(parameters));
      take(made, bound, applied);
      if (applied.cut) noteCut(made, bound, applied.cut, recipe);
      if (made.body !== site.body) noteIdle(made, bound, volumeOf(site.mesh()), kernels);
    } catch (error) {
      if (error instanceof AdditionGone) {
        const { parameter, remedy } = error;
        const found = finding(
          'addition-gone',
          'stop',
          { why: error.message },
          {
            parameter,
            ...(remedy ? { remedy: { ...remedy, parameter } } : {}),
          },
        );
        made.findings.push(about(bound, found));
      } else if (error instanceof KernelError)
        made.findings.push(about(bound, finding('addition-failed', 'stop', { why: error.message })));
      else throw error;
    }
  }
  return made;
}

function take(made: Finished, bound: BoundAddition, applied: Applied): void {
  noteTriangles(made, bound, applied);
  made.body = applied.body;
  made.pieces = applied.pieces ?? [];
  if (applied.moved) made.surfaces = [...applied.moved];
  if (applied.surface && bound.addition.fits)
    made.surfaces.push({ ...applied.surface, mate: surfaceNameOf(bound.addition) });
  for (const f of applied.findings ?? []) made.findings.push(about(bound, f));
}

/** A mate that the cut goes through becomes two halves: this is reported, since it may be by accident. */
function noteCut(
  made: Finished,
  bound: BoundAddition,
  { normal, at }: NonNullable<Applied['cut']>,
  { mates }: Pick<Recipe, 'mates'>,
): void {
  for (const { mate, axis, from, to, at: middle, size } of made.surfaces) {
    const along = Math.abs(dot(axis, normal)) > 0.99;
    const [low, high] = along
      ? [from, to].map(x => x * Math.sign(dot(axis, normal))).sort((a, b) => a - b)
      : [dot(middle, normal) - size / 2, dot(middle, normal) + size / 2];
    if (at <= low! + 0.01 || at >= high! - 0.01) continue;
    const name = mates.find(m => m.id === mate)?.name ?? mate;
    made.findings.push(about(bound, finding('cut-through-mate', 'warn', { name, along })));
  }
}

/** Letters, threads and bodies from files are triangles: the exact file leaves them out, and the maker is told. */
function noteTriangles(made: Finished, bound: BoundAddition, applied: Applied): void {
  if (hasTriangles(made.body) || !hasTriangles(applied.body)) return;
  made.findings.push(about(bound, finding('step-without', 'note', {})));
}

/** An addition that changes less than this missed the part or is wholly inside it, mm³. */
const NOTHING = 0.01;

function noteIdle(made: Finished, bound: BoundAddition, before: number, kernels: Kernels): void {
  if (bound.kind.kind === 'other-hand') return;
  const after = volumeOf(joinedMesh(made.body, kernels, SAGITTA.screen, true));
  if (Math.abs(after - before) > NOTHING) return;
  made.findings.push(about(bound, finding('addition-idle', 'warn', {})));
}

const about = ({ addition }: BoundAddition, found: Finding): Finding =>
  ofAddition(found, addition, short => longName(addition, short));

function siteOf(
  { body, surfaces }: Finished,
  kernels: Kernels,
  seats: Site['seats'],
  sitsAt: Site['sitsAt'],
): Site {
  let mesh: TriangleMesh | undefined;
  let bounds: Bounds | undefined;
  const look = () => {
    mesh ??= joinedMesh(body, kernels, SAGITTA.screen, true);
    return mesh;
  };
  return {
    kernels,
    body,
    surfaces,
    seats,
    sitsAt,
    mesh: look,
    bounds: () => {
      bounds ??= boundsOf(look());
      return bounds;
    },
  };
}

/** Each addition sees the part before it: bodies joined for that are not joined again. */
const looked = new WeakMap<Body, TriangleMesh>();

/**
 * Joined as triangles: a thread can be joined in no other way; a bend or a wall between two sections only very slowly;
 * and for the screen, exact surfaces of curved bodies take ten times as long to join. For a file everything else is
 * joined exactly.
 */
export function joinedMesh(body: Body, kernels: Kernels, sagitta: number, always: boolean): TriangleMesh {
  const kept = always && sagitta === SAGITTA.screen;
  const known = kept ? looked.get(body) : undefined;
  if (known) return known;
  const mesh = freshMesh(body, kernels, sagitta, always);
  if (kept) looked.set(body, mesh);
  return mesh;
}

function freshMesh(body: Body, kernels: Kernels, sagitta: number, always: boolean): TriangleMesh {
  if (body.triangles) return body.triangles(sagitta);
  if (body.asTriangles) return body.asTriangles(sagitta);
  if (!body.made || (!always && !joinsAsTriangles(body))) return kernels.part.mesh(body, sagitta);
  const { by, from, with: other } = body.made;
  const part = (of: Body) => joinedMesh(of, kernels, sagitta, always);
  return kernels.mesh.combine(by, part(from), part(other));
}
