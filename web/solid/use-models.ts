import { useQueries } from '@tanstack/react-query';
import { readStl } from '../../core/files/reading-back';
import type { Models } from '../../core/shape/kernels/kernel';
import type { TriangleMesh } from '../../core/shape/mesh/mesh';
import { referencesIn, shaOf } from '../../core/shape/model';

/** Triangles of the neighbours' bodies from files; those that have not arrived yet are left out. */
export function useModels(neighbours: readonly { model?: string }[]): Models {
  const shas = [...new Set(referencesIn({}, neighbours).map(shaOf))];
  return useQueries({
    queries: shas.map(sha256 => ({
      queryKey: ['model', sha256],
      staleTime: Number.POSITIVE_INFINITY,
      queryFn: async (): Promise<TriangleMesh> => {
        const answer = await fetch(`/api/models/${sha256}`);
        if (!answer.ok) throw new Error('That body is not there.');
        return readStl(new Uint8Array(await answer.arrayBuffer()));
      },
    })),
    combine: results => new Map(results.flatMap((r, i) => (r.data ? [[shas[i]!, r.data] as const] : []))),
  });
}
