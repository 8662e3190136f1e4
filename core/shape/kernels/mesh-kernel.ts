import type { ManifoldToplevel } from 'manifold-3d';
import { closureOf, type TriangleMesh, weld } from '../mesh/mesh';
import { type BodyOperation, KernelError, type MeshKernel } from './kernel';

/** Folds up to these sizes are removed, the smallest first, mm. */
const FOLDS = [0, 1e-4, 1e-3, 3e-3];

type Solid = InstanceType<ManifoldToplevel['Manifold']>;

/** Mesh kernel on Manifold, after `setup()`. Everything it makes is deleted before it returns. */
export function meshKernel(wasm: ManifoldToplevel): MeshKernel {
  const solidOf = (mesh: TriangleMesh): Solid =>
    new wasm.Manifold(
      new wasm.Mesh({
        numProp: 3,
        vertProperties: Float32Array.from(mesh.positions),
        triVerts: mesh.triangles,
      }),
    );
  const joined = (
    by: BodyOperation | 'common',
    from: TriangleMesh,
    other: TriangleMesh,
  ): TriangleMesh | null => {
    const held: Solid[] = [];
    try {
      const a = solidOf(from);
      held.push(a);
      const b = solidOf(other);
      held.push(b);
      const result = by === 'fuse' ? a.add(b) : by === 'cut' ? a.subtract(b) : a.intersect(b);
      held.push(result);
      if (result.numTri() === 0) return null;
      return unfolded(result, held);
    } catch (error) {
      if (error instanceof KernelError) throw error;
      throw new KernelError(`Joining triangles failed: ${codeOf(error)}`);
    } finally {
      for (const solid of held) solid.delete();
    }
  };
  /** As if it had been one body from the start: only then do coplanar flats become one flat. */
  const keptOriginal = (solid: Solid, held: Solid[]): Solid => {
    const original = solid.asOriginal();
    held.push(original);
    return original;
  };
  /**
   * As triangles. Coplanar flats may be folded over each other by a tiny amount: closed for the kernel, but with an
   * edge that four triangles share. Removing what is smaller than any printer shows unfolds them.
   */
  const unfolded = (solid: Solid, held: Solid[]): TriangleMesh => {
    let first: TriangleMesh | undefined;
    for (const tolerance of FOLDS) {
      const plain = tolerance === 0 ? solid : keptOriginal(solid, held).simplify(tolerance);
      if (plain !== solid) held.push(plain);
      const { vertProperties, triVerts, numProp } = plain.getMesh();
      if (numProp !== 3) throw new KernelError('The mesh kernel answered with more than positions.');
      const mesh = weld(vertProperties, triVerts);
      if (triVerts.length > 0 && closureOf(mesh).openEdges === 0) return mesh;
      first ??= mesh;
    }
    return first!;
  };
  return {
    version: 'manifold-3d 3.5.4',
    combine(by, from, other) {
      const mesh = joined(by, from, other);
      if (!mesh) throw new KernelError('Nothing is left of the part: the cuts take all of it.');
      return mesh;
    },
    beyond: (mesh, other) => joined('cut', mesh, other),
    common: (a, b) => joined('common', a, b),
    grown: (mesh, by) =>
      held(keep => {
        const whole = keep(solidOf(mesh));
        // A simplified body may be that much smaller, and so it is grown by that more.
        const reach = (tolerance: number) => around(by + tolerance);
        for (const tolerance of [0, by / 10, by / 4, by / 2, by]) {
          const solid = tolerance === 0 ? whole : keep(whole.simplify(tolerance));
          if (solid.numTri() <= MOST_SUMMED)
            return meshOf(keep(solid.minkowskiSum(keep(wasm.Manifold.hull(reach(tolerance))))));
          // Too many triangles for a Minkowski sum: copies all around it, and half-way ones for bodies thinner than the
          // clearance.
          const few = solid.numTri() <= MOST_COPIED_TWICE;
          if (few || (tolerance >= by / 2 && solid.numTri() <= MOST_COPIED)) {
            const ways = [...reach(tolerance), ...(few ? reach((tolerance - by) / 2) : [])];
            const copies = ways.map(way => keep(solid.translate(way)));
            return meshOf(keep(wasm.Manifold.union([solid, ...copies])));
          }
        }
        const convex = keep(whole.hull());
        return meshOf(keep(convex.minkowskiSum(keep(wasm.Manifold.hull(reach(0))))));
      }),
    hull: mesh =>
      held(keep => {
        const points: Vector[] = [];
        for (let i = 0; i < mesh.positions.length; i += 3)
          points.push([mesh.positions[i]!, mesh.positions[i + 1]!, mesh.positions[i + 2]!]);
        const solid = keep(wasm.Manifold.hull(points));
        if (!(solid.volume() > 1e-6)) throw new KernelError('Its points lie in one plane: it has no inside');
        return meshOf(solid);
      }),
    reduced: (mesh, most) =>
      held(keep => {
        let solid = keep(solidOf(mesh));
        for (const tolerance of [0.01, 0.02, 0.05, 0.1]) {
          if (solid.numTri() <= most) break;
          solid = keep(solid.simplify(tolerance));
        }
        return meshOf(solid);
      }),
    inset: (loops, by) =>
      held(keep => {
        const plane = keep(
          new wasm.CrossSection(
            loops.map(l => l.map(([x, y]): [number, number] => [x, y])),
            'NonZero',
          ),
        );
        return keep(plane.offset(-by, 'Miter', 2)).toPolygons() as [number, number][][];
      }),
    shadow: mesh => held(keep => keep(keep(solidOf(mesh)).project()).toPolygons() as [number, number][][]),
    extrude(loops, height) {
      const held: { delete(): void }[] = [];
      try {
        const plane = new wasm.CrossSection(
          loops.map(l => l.map(([x, y]): [number, number] => [x, y])),
          'NonZero',
        );
        held.push(plane);
        const solid = plane.extrude(height);
        held.push(solid);
        const { vertProperties, triVerts } = solid.getMesh();
        return weld(vertProperties, triVerts);
      } finally {
        for (const made of held) made.delete();
      }
    },
    facts(mesh) {
      let solid: Solid | undefined;
      try {
        solid = solidOf(mesh);
        const volume = solid.volume();
        if (!(volume > 0)) return { ok: false, message: 'The solid is inside out.' };
        const pieces = solid.decompose();
        const bodies = pieces.length;
        for (const piece of pieces) piece.delete();
        return { ok: true, facts: { volume, area: solid.surfaceArea(), genus: solid.genus(), bodies } };
      } catch (error) {
        const code = codeOf(error);
        return {
          ok: false,
          message:
            code === 'NotManifold' ? 'The surface is not closed.' : `The mesh kernel refused it (${code}).`,
        };
      } finally {
        solid?.delete();
      }
    },
  };
}

type Vector = [number, number, number];

/** Faces, edges and corners of a cube, unit length. */
const AROUND: readonly Vector[] = [-1, 0, 1].flatMap(x =>
  [-1, 0, 1].flatMap(y =>
    [-1, 0, 1].flatMap((z): Vector[] => {
      const long = Math.hypot(x, y, z);
      return long === 0 ? [] : [[x / long, y / long, z / long]];
    }),
  ),
);
/** Whatever direction a face has, one of them moves outwards along it by at least this share. */
const LEAST_OUT = 0.8867;
/** Far enough out that no direction gets less than `by`. */
const around = (by: number): Vector[] => AROUND.map(way => way.map(w => (w * by) / LEAST_OUT) as Vector);
/** A Minkowski sum takes some 5 ms a triangle, 26 copies some 1.5 ms: neither may take more than seconds. */
const MOST_SUMMED = 300;
const MOST_COPIED_TWICE = 1500;
const MOST_COPIED = 4500;

const meshOf = (solid: Solid): TriangleMesh => {
  const { vertProperties, triVerts } = solid.getMesh();
  return weld(vertProperties, triVerts);
};

/** All intermediate objects are deleted before the answer. */
function held<T>(run: (keep: <S extends { delete(): void }>(made: S) => S) => T): T {
  const all: { delete(): void }[] = [];
  try {
    return run(made => {
      all.push(made);
      return made;
    });
  } catch (error) {
    if (error instanceof KernelError) throw error;
    throw new KernelError(`Working on triangles failed: ${codeOf(error)}`);
  } finally {
    for (const made of all) made.delete();
  }
}

const codeOf = (error: unknown) => (error as { code?: string }).code ?? 'it gave no reason';
