import type { ManifoldToplevel } from 'manifold-3d';
import { type TriangleMesh, weld } from '../mesh/mesh';
import { type BodyOperation, KernelError, type MeshKernel } from './kernel';

type Solid = InstanceType<ManifoldToplevel['Manifold']>;

/** Mesh kernel on Manifold, after `setup()`. Everything it makes is deleted before it answers. */
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
      const { vertProperties, triVerts, numProp } = result.getMesh();
      if (triVerts.length === 0) return null;
      if (numProp !== 3) throw new KernelError('The mesh kernel answered with more than positions.');
      return weld(vertProperties, triVerts);
    } catch (error) {
      if (error instanceof KernelError) throw error;
      throw new KernelError(`Joining triangles failed: ${codeOf(error)}`);
    } finally {
      for (const solid of held) solid.delete();
    }
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

const codeOf = (error: unknown) => (error as { code?: string }).code ?? 'it gave no reason';
