import type { ManifoldToplevel } from 'manifold-3d';
import type { MeshKernel } from './kernel';

/** Mesh kernel on Manifold, after `setup()`. */
export function meshKernel(wasm: ManifoldToplevel): MeshKernel {
  return {
    version: 'manifold-3d 3.5.4',
    facts(mesh) {
      let solid: InstanceType<ManifoldToplevel['Manifold']> | undefined;
      try {
        solid = new wasm.Manifold(
          new wasm.Mesh({
            numProp: 3,
            vertProperties: Float32Array.from(mesh.positions),
            triVerts: mesh.triangles,
          }),
        );
        const volume = solid.volume();
        if (!(volume > 0)) return { ok: false, message: 'The solid is inside out.' };
        const pieces = solid.decompose();
        const bodies = pieces.length;
        for (const piece of pieces) piece.delete();
        return { ok: true, facts: { volume, area: solid.surfaceArea(), genus: solid.genus(), bodies } };
      } catch (error) {
        const code = (error as { code?: string }).code;
        return {
          ok: false,
          message:
            code === 'NotManifold'
              ? 'The surface is not closed.'
              : `The mesh kernel refused it (${code ?? 'unknown'}).`,
        };
      } finally {
        solid?.delete();
      }
    },
  };
}
