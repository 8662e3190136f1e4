import fontUrl from 'dejavu-fonts-ttf/ttf/DejaVuSans-Bold.ttf?url';
import ManifoldInit from 'manifold-3d';
import manifoldWasm from 'manifold-3d/manifold.wasm?url';
import opentype, { type Font } from 'opentype.js';
import opencascade from 'replicad-opencascadejs';
import opencascadeWasm from 'replicad-opencascadejs/wasm?url';
import { BufferAttribute, BufferGeometry, EdgesGeometry } from 'three';
import { toCreasedNormals } from 'three/examples/jsm/utils/BufferGeometryUtils.js';
import { readStl } from '../../core/files/reading-back';
import { assembled } from '../../core/shape/assembly';
import { buildPart } from '../../core/shape/build';
import type { BuiltPart } from '../../core/shape/built-part';
import { inspectPart } from '../../core/shape/checks/inspect';
import { trianglesOfMates } from '../../core/shape/checks/measure';
import { compareParts, type PartChange } from '../../core/shape/compare';
import { SAGITTA } from '../../core/shape/finish';
import type { Kernels } from '../../core/shape/kernels/kernel';
import { meshKernel } from '../../core/shape/kernels/mesh-kernel';
import { type OpenCascade, partKernel } from '../../core/shape/kernels/part-kernel';
import { boundsOf, type TriangleMesh } from '../../core/shape/mesh/mesh';
import { referencesIn, shaOf } from '../../core/shape/model';
import { recipeWith } from '../../core/shape/recipe-with';
import type { ShownChange, ShownSolid, SolidReply, SolidRequest } from './solid-protocol';

/** Edges sharper than this are inked, and shading breaks there: degrees. */
const CREASE = 28;

const starting = start();

addEventListener('message', async (message: MessageEvent<SolidRequest>) => {
  const request = message.data;
  try {
    const kernels = await starting;
    const all = [
      ...request.additions,
      ...(request.before?.additions ?? []),
      ...(request.parts ?? []).flatMap(p => p.additions),
    ];
    if (all.some(a => a.kind === 'words')) kernels.font ??= await letters();
    await bodies(request, kernels);
    if (request.want === 'show') show(request, kernels);
    else if (request.want === 'check') check(request, kernels);
    else if (request.want === 'together') together(request, kernels);
    else compare(request, kernels);
  } catch (error) {
    // Every request is answered: the line behind waits for it.
    const reason = error instanceof Error ? error.message : 'it gave no reason';
    const finding = {
      code: 'kernel',
      level: 'stop' as const,
      message: `The geometry kernel failed: ${reason}. Reload the page to start it again.`,
    };
    reply({ id: request.id, kind: 'failed', findings: [finding], heap: 0 });
  }
});

function show({ id, recipe: name, additions, parameters }: SolidRequest, kernels: Kernels): void {
  const began = performance.now();
  const recipe = recipeWith(name, additions);
  const outcome = buildPart(recipe, parameters, kernels, 'screen');
  const heap = kernels.part.memory();
  if (!outcome.ok) {
    reply({ id, kind: 'failed', findings: outcome.findings, heap });
    return;
  }
  const solid = shown(outcome.part);
  reply({ id, kind: 'shown', solid, ms: performance.now() - began, heap }, [
    solid.positions.buffer,
    solid.normals.buffer,
    solid.edges.buffer,
  ]);
}

function check({ id, recipe: name, additions, parameters, context }: SolidRequest, kernels: Kernels): void {
  const recipe = recipeWith(name, additions);
  const outcome = buildPart(recipe, parameters, kernels, 'file');
  const { findings, loads } = outcome.ok
    ? inspectPart(recipe, parameters, outcome.part, context, kernels, outcome.findings)
    : { findings: outcome.findings, loads: [] };
  reply({ id, kind: 'checked', findings, loads, heap: kernels.part.memory() });
}

function compare({ id, recipe, additions, parameters, before }: SolidRequest, kernels: Kernels): void {
  if (!before) throw new RangeError('Nothing was given to compare with.');
  const outcome = compareParts(
    { recipe: recipeWith(recipe, additions), parameters },
    { recipe: recipeWith(before.recipe, before.additions), parameters: before.parameters },
    kernels,
  );
  const heap = kernels.part.memory();
  if (!outcome.ok) {
    reply({ id, kind: 'failed', findings: outcome.findings, heap });
    return;
  }
  const flat = (part: PartChange['grown']): ShownChange | null =>
    part && {
      positions: unshared(part.mesh),
      volume: part.volume,
    };
  const [grown, shrunk] = [flat(outcome.change.grown), flat(outcome.change.shrunk)];
  reply(
    { id, kind: 'compared', grown, shrunk, heap },
    [grown, shrunk].flatMap(c => (c ? [c.positions.buffer] : [])),
  );
}

function together({ id, parts = [], joints = [] }: SolidRequest, kernels: Kernels): void {
  const built: { id: string; part: BuiltPart }[] = [];
  for (const p of parts) {
    const outcome = buildPart(recipeWith(p.recipe, p.additions), p.parameters, kernels, 'screen');
    if (!outcome.ok) {
      reply({ id, kind: 'failed', findings: outcome.findings, heap: kernels.part.memory() });
      return;
    }
    built.push({ id: p.id, part: outcome.part });
  }
  const { parts: placed, shared } = assembled(built, joints, kernels.mesh);
  const assembly = {
    parts: placed.map(p => ({ id: p.id, positions: unshared(p.mesh), ...boundsOf(p.mesh), off: p.off })),
    shared,
  };
  reply(
    { id, kind: 'together', assembly, heap: kernels.part.memory() },
    assembly.parts.map(p => p.positions.buffer),
  );
}

function reply(message: SolidReply, transfer: ArrayBufferLike[] = []): void {
  postMessage(message, { transfer: transfer as ArrayBuffer[] });
}

async function start(): Promise<Kernels> {
  const open = opencascade as unknown as (options: object) => Promise<OpenCascade>;
  const [oc, manifold] = await Promise.all([
    open({
      locateFile: (path: string) => (path.endsWith('.wasm') ? opencascadeWasm : path),
      print: () => {},
    }),
    ManifoldInit({ locateFile: () => manifoldWasm }),
  ]);
  manifold.setup();
  return { part: partKernel(oc), mesh: meshKernel(manifold) };
}

/** Bodies from files that were asked for in this window; their triangles never change. */
const fetched = new Map<string, TriangleMesh>();

async function bodies(request: SolidRequest, kernels: Kernels): Promise<void> {
  const named = [
    ...referencesIn(request.parameters, request.context.neighbours),
    ...referencesIn(request.before?.parameters ?? {}),
    ...(request.parts ?? []).flatMap(p => referencesIn(p.parameters)),
  ].map(shaOf);
  for (const sha256 of new Set(named)) {
    if (fetched.has(sha256)) continue;
    const answer = await fetch(`/api/models/${sha256}`);
    // Not there: the part then says that the body is not at hand.
    if (answer.ok) fetched.set(sha256, readStl(new Uint8Array(await answer.arrayBuffer())));
  }
  kernels.models = fetched;
}

/** Only parts with words on them need letters. */
async function letters(): Promise<Font> {
  const answer = await fetch(fontUrl);
  if (!answer.ok) throw new Error('the letters could not be loaded');
  return opentype.parse(await answer.arrayBuffer());
}

/** Each triangle's own three corners, as the view takes them. @param order of the triangles; as they are unless said */
function unshared({ positions, triangles }: TriangleMesh, order?: readonly number[]): Float32Array {
  const flat = new Float32Array(3 * triangles.length);
  for (let place = 0; place < triangles.length / 3; place++) {
    const t = order ? order[place]! : place;
    for (let corner = 0; corner < 3; corner++) {
      const v = 3 * triangles[3 * t + corner]!;
      for (let i = 0; i < 3; i++) flat[9 * place + 3 * corner + i] = positions[v + i]!;
    }
  }
  return flat;
}

function shown(part: BuiltPart): ShownSolid {
  const { mesh, surfaces } = part;
  const owner = trianglesOfMates(mesh, surfaces, SAGITTA.screen);
  const order = Array.from(owner.keys()).sort((a, b) => owner[a]! - owner[b]!);
  const flat = unshared(mesh, order);
  const groups: ShownSolid['groups'] = [];
  order.forEach((t, place) => {
    const mate = surfaces[owner[t]!]?.mate ?? null;
    const last = groups.at(-1);
    if (last && last.mate === mate) last.count += 3;
    else groups.push({ mate, start: 3 * place, count: 3 });
  });
  const geometry = new BufferGeometry();
  geometry.setAttribute('position', new BufferAttribute(flat, 3));
  const creased = toCreasedNormals(geometry, (CREASE * Math.PI) / 180);
  const edges = new EdgesGeometry(geometry, CREASE).getAttribute('position').array as Float32Array;
  return {
    positions: flat,
    normals: creased.getAttribute('normal').array as Float32Array,
    edges,
    groups,
    bounds: part.bounds,
    volume: part.volume,
  };
}
