import fontUrl from 'dejavu-fonts-ttf/ttf/DejaVuSans-Bold.ttf?url';
import ManifoldInit from 'manifold-3d';
import manifoldWasm from 'manifold-3d/manifold.wasm?url';
import type { Font } from 'opentype.js';
import opencascade from 'replicad-opencascadejs';
import opencascadeWasm from 'replicad-opencascadejs/wasm?url';
import { readStl } from '../../core/files/reading-back';
import type { CheckContext } from '../../core/shape/checks/context';
import type { Kernels } from '../../core/shape/kernels/kernel';
import { meshKernel } from '../../core/shape/kernels/mesh-kernel';
import { partKernel } from '../../core/shape/kernels/part-kernel';
import type { TriangleMesh } from '../../core/shape/mesh/mesh';
import { referencesIn, shaOf } from '../../core/shape/model';
import type { AskedPart } from './solid-protocol';

const starting = start();

/** The kernels with the font and the bodies that these parts need. */
export async function ready(parts: readonly AskedPart[], context?: CheckContext): Promise<Kernels> {
  const kernels = await starting;
  if (parts.some(p => p.additions.some(a => a.kind === 'words'))) kernels.font ??= await letters();
  await bodies(parts, context, kernels);
  return kernels;
}

async function start(): Promise<Kernels> {
  const [oc, manifold] = await Promise.all([
    opencascade({
      locateFile: (path: string) => (path.endsWith('.wasm') ? opencascadeWasm : path),
      print: () => {},
    }),
    ManifoldInit({ locateFile: () => manifoldWasm }),
  ]);
  manifold.setup();
  return { part: partKernel(oc), mesh: meshKernel(manifold) };
}

/** Bodies from files that were used in this window; their triangles never change. */
const fetched = new Map<string, TriangleMesh>();

async function bodies(
  parts: readonly AskedPart[],
  context: CheckContext | undefined,
  kernels: Kernels,
): Promise<void> {
  const named = [
    ...parts.flatMap(p => referencesIn(p.parameters)),
    ...referencesIn({}, context?.neighbours),
  ].map(shaOf);
  for (const sha256 of new Set(named)) {
    if (fetched.has(sha256)) continue;
    const answer = await fetch(`/api/models/${sha256}`);
    // Missing: the part then says that the body is not at hand.
    if (answer.ok) fetched.set(sha256, readStl(new Uint8Array(await answer.arrayBuffer())));
  }
  kernels.models = fetched;
}

/** Only parts with words on them need a font. */
async function letters(): Promise<Font> {
  const answer = await fetch(fontUrl);
  if (!answer.ok) throw new Error('the letters could not be loaded');
  const { default: opentype } = await import('opentype.js');
  return opentype.parse(await answer.arrayBuffer());
}
