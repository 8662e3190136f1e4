import { expose, transfer } from 'comlink';
import fontUrl from 'dejavu-fonts-ttf/ttf/DejaVuSans-Bold.ttf?url';
import ManifoldInit from 'manifold-3d';
import manifoldWasm from 'manifold-3d/manifold.wasm?url';
import opentype, { type Font } from 'opentype.js';
import opencascade from 'replicad-opencascadejs';
import opencascadeWasm from 'replicad-opencascadejs/wasm?url';
import { BufferAttribute, BufferGeometry, EdgesGeometry } from 'three';
import { toCreasedNormals } from 'three/examples/jsm/utils/BufferGeometryUtils.js';
import { partPicture } from '../../core/files/part-picture';
import { readStl } from '../../core/files/reading-back';
import { GcodeError, type GcodeFile } from '../../core/print/gcode/file';
import { lookedAt } from '../../core/print/gcode/look';
import type { Known } from '../../core/print/gcode/match';
import { FILAMENT } from '../../core/print/gcode/on-bed';
import { GcodeReader } from '../../core/print/gcode/reader';
import { rankedPoses } from '../../core/print/lay';
import { hangsOn } from '../../core/print/over-air/over-air';
import { remediesFor } from '../../core/print/over-air/remedies';
import { AS_DRAWN, frameOf, lowestOf, type Pose, posed } from '../../core/print/pose';
import { reasonsFor } from '../../core/print/reasons';
import { type SliceSays, sharedSlices, sliceOf } from '../../core/print/slice';
import { splitFor } from '../../core/print/split-where';
import { estimateOf } from '../../core/print/time';
import { faceInWords, facePressed, followed } from '../../core/shape/additions/pressed';
import { assembled } from '../../core/shape/assembly';
import { buildPart } from '../../core/shape/build';
import type { BuiltPart } from '../../core/shape/built-part';
import type { CheckContext } from '../../core/shape/checks/context';
import { inspectPart } from '../../core/shape/checks/inspect';
import { trianglesOfMates } from '../../core/shape/checks/measure';
import { compareParts, type PartChange } from '../../core/shape/compare';
import { SAGITTA } from '../../core/shape/finish';
import { isKernelCrash, KERNEL_CRASHED, type Kernels } from '../../core/shape/kernels/kernel';
import { meshKernel } from '../../core/shape/kernels/mesh-kernel';
import { partKernel } from '../../core/shape/kernels/part-kernel';
import { inkedEdges } from '../../core/shape/mesh/inked';
import { boundsOf, type TriangleMesh } from '../../core/shape/mesh/mesh';
import { referencesIn, shaOf } from '../../core/shape/model';
import { moversAt } from '../../core/shape/movers';
import { recipeWith } from '../../core/shape/recipe-with';
import type { Parameters } from '../../core/shape/recipes/parameters';
import { solidOf } from '../../core/shape/solid';
import { isSpan } from '../../core/shape/span/span';
import { spanAt, spanMovers } from '../../core/shape/span/span-movers';
import { movedMost, standsAt } from '../../core/shape/span/stands';
import { dot, type Point3 } from '../../core/shape/vector';
import { shadowsOf } from '../../core/trace/overlay/sides';
import type {
  AskedPart,
  ShownChange,
  ShownHang,
  ShownPose,
  ShownSlice,
  ShownSolid,
  SolidApi,
} from './solid-protocol';

/** Edges sharper than this are inked, and shading breaks there: degrees. */
const CREASE = 28;

/** Progress on a file is reported every so many bytes. */
const PROGRESS = 4e6;

/** Pictures of poses, pixels. */
const PICTURE = 280;

/** A face's name is found within about this time, or the face is named by its number, ms. */
const LONGEST_NAMING = 2500;

/** Numbers are tried for this long, ms; for a part that takes longer to build, the results so far are shown. */
const LONGEST_NUDGING = 6000;

const starting = start();

/** The kernels with the font and the bodies that these parts need. */
async function ready(parts: readonly AskedPart[], context?: CheckContext): Promise<Kernels> {
  const kernels = await starting;
  if (parts.some(p => p.additions.some(a => a.kind === 'words'))) kernels.font ??= await letters();
  await bodies(parts, context, kernels);
  return kernels;
}

/** A program error becomes a sentence that says what to do. */
async function told<T>(work: () => Promise<T>): Promise<T> {
  try {
    return await work();
  } catch (error) {
    if (isKernelCrash(error)) throw new Error(KERNEL_CRASHED);
    const reason = error instanceof Error ? error.message : 'it gave no reason';
    throw new Error(`The geometry kernel failed: ${reason}. Reload the page to start it again.`);
  }
}

/** Builds the part as it is, and with other numbers while there is time. */
const nudged = <T>(
  part: AskedPart,
  look: (now: BuiltPart, build: (parameters: Parameters) => BuiltPart | null) => T,
) =>
  told(async () => {
    const kernels = await ready([part]);
    const recipe = recipeOf(part);
    const now = buildPart(recipe, part.parameters, kernels, 'screen');
    if (!now.ok) return { ok: false as const, findings: now.findings, heap: kernels.part.memory() };
    const until = performance.now() + LONGEST_NUDGING;
    let tried = 0;
    const seen = look(now.part, parameters => {
      if (performance.now() > until) return null;
      tried++;
      const outcome = buildPart(recipe, parameters, kernels, 'screen');
      return outcome.ok ? outcome.part : null;
    });
    return { ok: true as const, ...seen, tried, heap: kernels.part.memory() };
  });

const recipeOf = ({ recipe, additions }: AskedPart) => recipeWith(recipe, additions);

const api: SolidApi = {
  show: part =>
    told(async () => {
      const began = performance.now();
      const kernels = await ready([part]);
      const outcome = buildPart(recipeOf(part), part.parameters, kernels, 'screen');
      const heap = kernels.part.memory();
      if (!outcome.ok) return { ok: false, findings: outcome.findings, heap };
      const solid = shown(outcome.part);
      return transfer({ ok: true as const, solid, ms: performance.now() - began, heap }, [
        solid.positions.buffer,
        solid.normals.buffer,
        solid.edges.buffer,
      ]);
    }),

  shadows: part =>
    told(async () => {
      const kernels = await ready([part]);
      const solid = solidOf(part, kernels);
      const heap = kernels.part.memory();
      return solid.ok
        ? { ok: true as const, shadows: shadowsOf(solid.part.mesh, kernels.mesh), heap }
        : { ok: false as const, findings: solid.findings, heap };
    }),

  check: (part, context) =>
    told(async () => {
      const kernels = await ready([part], context);
      const solid = solidOf(part, kernels);
      const { findings, loads } = solid.ok
        ? inspectPart(recipeOf(part), part.parameters, solid.part, context, kernels, solid.findings)
        : { findings: solid.findings, loads: [] };
      return { ok: solid.ok, findings, loads, heap: kernels.part.memory() };
    }),

  nameFace: (part, press) =>
    told(async () => {
      const kernels = await ready([part]);
      const recipe = recipeOf(part);
      const until = performance.now() + LONGEST_NAMING;
      const build = (parameters: Parameters) => {
        if (performance.now() > until) return null;
        const outcome = buildPart(recipe, parameters, kernels, 'screen');
        return outcome.ok ? outcome.part.mesh : null;
      };
      const outcome = buildPart(recipe, part.parameters, kernels, 'screen');
      if (!outcome.ok) return { ok: false, findings: outcome.findings, heap: kernels.part.memory() };
      const face = facePressed(outcome.part.mesh, press);
      const { up, offset } = face;
      const follows = offset === null ? null : followed({ up, offset }, recipe, part.parameters, build);
      return { ok: true as const, place: faceInWords(face, follows), heap: kernels.part.memory() };
    }),

  movers: (part, press, nudges) =>
    nudged(part, (now, build) => ({ movers: moversAt(press, now, nudges, build) })),

  span: (part, places, nudges) =>
    nudged(part, (now, build) => ({ found: spanMovers(places, now, nudges, build) })),

  stands: (part, { size, angle, nudge, pressed }) =>
    nudged(part, (now, build) => {
      // In pieces it is shown as they lie on the bed, not in their places.
      if (now.pieces.length > 0) return { stands: null };
      const again = pressed && spanAt(now, pressed, nudge.by);
      if (again && isSpan(again)) return { stands: { is: 'span' as const, span: again } };
      const larger = build(nudge.parameters);
      if (!larger) return { stands: null };
      const enlarged = { size, by: nudge.by, angle, now, larger };
      const span = standsAt(enlarged);
      if (span) return { stands: { is: 'span' as const, span } };
      const place = movedMost(enlarged);
      return { stands: place && { is: 'place' as const, ...place } };
    }),

  poses: (part, asked) =>
    told(async () => {
      const kernels = await ready([part]);
      const outcome = buildPart(recipeOf(part), part.parameters, kernels, 'screen');
      const heap = kernels.part.memory();
      if (!outcome.ok) return { ok: false, findings: outcome.findings, heap };
      const { whole, pieces } = outcome.part;
      const found = pieces.length > 0 ? [] : rankedPoses(outcome.part, asked, kernels);
      const laid =
        pieces.length > 0 ? estimateOf(outcome.part.mesh, asked.settings, asked.machine, kernels.mesh) : null;
      const poses = found.map(
        (ranked): ShownPose => ({
          ...ranked,
          reasons: reasonsFor(ranked.plan),
          picture: partPicture([posed(whole, ranked.plan.pose)], PICTURE),
        }),
      );
      return transfer(
        { ok: true as const, poses, pieces: pieces.length, laid, heap },
        poses.map(p => p.picture.buffer),
      );
    }),

  overAir: (part, asked) =>
    told(async () => {
      const kernels = await ready([part]);
      const outcome = buildPart(recipeOf(part), part.parameters, kernels, 'screen');
      const heap = kernels.part.memory();
      if (!outcome.ok) return { ok: false, findings: outcome.findings, heap };
      const hangs = hangsOn(outcome.part, asked).map(
        ({ places: _, carriedAt: __, mates, ...hang }): ShownHang => ({
          ...hang,
          mates: mates.map(m => outcome.part.surfaces[m]!.mate),
        }),
      );
      const pose = outcome.part.pieces.length > 0 ? AS_DRAWN : asked.now;
      const solid = shownIn(outcome.part, pose);
      return transfer(
        { ok: true as const, solid, hangs, heap },
        hangs.map(h => h.patch.buffer),
      );
    }),

  remedies: (part, asked, found) =>
    told(async () => {
      const kernels = await ready([part]);
      const outcome = buildPart(recipeOf(part), part.parameters, kernels, 'screen');
      if (!outcome.ok) return { ok: false, findings: outcome.findings, heap: kernels.part.memory() };
      const remedies = remediesFor(part, outcome.part, asked, kernels, found);
      return { ok: true as const, remedies, heap: kernels.part.memory() };
    }),

  split: (part, asked) =>
    told(async () => {
      const kernels = await ready([part]);
      const outcome = buildPart(recipeOf(part), part.parameters, kernels, 'screen');
      const heap = kernels.part.memory();
      if (!outcome.ok) return { ok: false, findings: outcome.findings, heap };
      return { ok: true as const, attempt: splitFor(part, outcome.part, asked, kernels), heap };
    }),

  slices: (part, surfaces, { now, settings, machine }) =>
    told(async () => {
      const kernels = await ready([part]);
      const solid = solidOf(part, kernels);
      const heap = kernels.part.memory();
      if (!solid.ok) return { ok: false, findings: solid.findings, heap };
      const takes = (mesh: TriangleMesh) => estimateOf(posed(mesh, now), settings, machine, kernels.mesh);
      const shown = (
        of: string[],
        { mesh, says }: { mesh: TriangleMesh; says: SliceSays[] },
      ): ShownSlice => ({
        surfaces: of,
        ok: true,
        estimate: takes(mesh),
        says,
        picture: partPicture([posed(mesh, now)], PICTURE),
      });
      const slices = surfaces.map((surface): ShownSlice => {
        const slice = sliceOf(solid.part, [surface], now, kernels.mesh, SAGITTA.file);
        return slice.ok ? shown([surface], slice) : { surfaces: [surface], ok: false, why: slice.why };
      });
      const single = slices.flatMap(s => (s.ok ? s.surfaces : []));
      for (const { mates, slice } of sharedSlices(solid.part, single, now, kernels.mesh, SAGITTA.file))
        slices.push(shown(mates, slice));
      return { ok: true as const, slices, whole: takes(solid.part.whole), heap };
    }),

  sliced: (file, versions, planned, rules, progress) =>
    told(async () => {
      const kernels = await ready(versions);
      const read = await readSliced(file, progress);
      if (!read.ok) return { ...read, heap: kernels.part.memory() };
      const known = versions.flatMap(({ id, ...part }): Known[] => {
        const solid = solidOf(part, kernels);
        // A version that can no longer be built cannot be compared.
        return solid.ok ? [{ id, mesh: solid.part.whole, surfaces: solid.part.surfaces }] : [];
      });
      const { gcode } = read;
      const sliced = {
        looked: lookedAt(gcode, known, planned, kernels.mesh, rules),
        minutes: gcode.seconds / 60,
        volume: (gcode.filament * Math.PI * (gcode.said.diameter ?? FILAMENT) ** 2) / 4,
        said: gcode.said,
        rolesKnown: gcode.rolesKnown,
      };
      return { ok: true as const, sliced, heap: kernels.part.memory() };
    }),

  compare: (part, before) =>
    told(async () => {
      const kernels = await ready([part, before]);
      const outcome = compareParts(
        { recipe: recipeOf(part), parameters: part.parameters },
        { recipe: recipeOf(before), parameters: before.parameters },
        kernels,
      );
      const heap = kernels.part.memory();
      if (!outcome.ok) return { ok: false, findings: outcome.findings, heap };
      const flat = (change: PartChange['grown']): ShownChange | null =>
        change && { positions: unshared(change.mesh), volume: change.volume };
      const [grown, shrunk] = [flat(outcome.change.grown), flat(outcome.change.shrunk)];
      return transfer(
        { ok: true as const, grown, shrunk, heap },
        [grown, shrunk].flatMap(c => (c ? [c.positions.buffer] : [])),
      );
    }),

  together: (parts, joints) =>
    told(async () => {
      const kernels = await ready(parts);
      const built: { id: string; part: BuiltPart }[] = [];
      for (const p of parts) {
        const outcome = buildPart(recipeOf(p), p.parameters, kernels, 'screen');
        if (!outcome.ok) return { ok: false, findings: outcome.findings, heap: kernels.part.memory() };
        built.push({ id: p.id, part: outcome.part });
      }
      const { parts: placed, shared } = assembled(built, joints, kernels.mesh);
      const assembly = {
        parts: placed.map(p => ({ id: p.id, positions: unshared(p.mesh), ...boundsOf(p.mesh), off: p.off })),
        shared,
      };
      return transfer(
        { ok: true as const, assembly, heap: kernels.part.memory() },
        assembly.parts.map(p => p.positions.buffer),
      );
    }),
};
expose(api);

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

/** Reads the file as a stream: it may be larger than memory. */
async function readSliced(
  file: File,
  progress: (share: number) => void,
): Promise<{ ok: true; gcode: GcodeFile } | { ok: false; message: string }> {
  const reader = new GcodeReader();
  try {
    let [done, told] = [0, 0];
    const stream = file.stream().getReader();
    for (let piece = await stream.read(); !piece.done; piece = await stream.read()) {
      reader.push(piece.value);
      done += piece.value.length;
      if (done - told < PROGRESS) continue;
      told = done;
      progress(done / file.size);
    }
    return { ok: true, gcode: reader.end() };
  } catch (error) {
    if (error instanceof GcodeError) return { ok: false, message: error.message };
    throw error;
  }
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
  return opentype.parse(await answer.arrayBuffer());
}

/**
 * Three separate corners for each triangle, as the view needs them. @param order of the triangles; by default as they
 * are
 */
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

/** A solid for the screen, in a pose on the bed. */
function shownIn(part: BuiltPart, pose: Pose): ShownSolid {
  const solid = shown(part);
  const { x, y, up } = frameOf(pose);
  const rise = -lowestOf(part.mesh, up);
  const laid = (points: Float32Array, by: number) => {
    const turned = new Float32Array(points.length);
    for (let i = 0; i < points.length; i += 3) {
      const v: Point3 = [points[i]!, points[i + 1]!, points[i + 2]!];
      turned.set([dot(v, x), dot(v, y), dot(v, up) + by], i);
    }
    return turned;
  };
  return {
    ...solid,
    positions: laid(solid.positions, rise),
    normals: laid(solid.normals, 0),
    edges: laid(solid.edges, rise),
    bounds: boundsOf(posed(part.mesh, pose)),
  };
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
  const sharp = new EdgesGeometry(geometry, CREASE).getAttribute('position').array as Float32Array;
  const edges = inkedEdges(sharp);
  return {
    positions: flat,
    normals: creased.getAttribute('normal').array as Float32Array,
    edges,
    groups,
    bounds: part.bounds,
    volume: part.volume,
  };
}
