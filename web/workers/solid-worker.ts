import { expose, transfer } from 'comlink';
import { partPicture } from '../../core/files/part-picture';
import { lookedAt } from '../../core/print/gcode/look';
import type { Known } from '../../core/print/gcode/match';
import { FILAMENT } from '../../core/print/gcode/on-bed';
import { rankedPoses } from '../../core/print/lay';
import { hangsOn } from '../../core/print/over-air/over-air';
import { remediesFor } from '../../core/print/over-air/remedies';
import { AS_DRAWN, posed } from '../../core/print/pose';
import { reasonsFor } from '../../core/print/reasons';
import { type SliceSays, sharedSlices, sliceOf } from '../../core/print/slice';
import { splitFor } from '../../core/print/split-where';
import { estimateOf } from '../../core/print/time';
import { faceInWords, facePressed, followed } from '../../core/shape/additions/pressed';
import { assembled } from '../../core/shape/assembly';
import { buildPart } from '../../core/shape/build';
import type { BuiltPart } from '../../core/shape/built-part';
import { inspectPart } from '../../core/shape/checks/inspect';
import { compareParts, type PartChange } from '../../core/shape/compare';
import { SAGITTA } from '../../core/shape/finish';
import { isKernelCrash, KERNEL_CRASHED } from '../../core/shape/kernels/kernel';
import { boundsOf, type TriangleMesh } from '../../core/shape/mesh/mesh';
import { moversAt } from '../../core/shape/movers';
import { recipeWith } from '../../core/shape/recipe-with';
import type { Parameters } from '../../core/shape/recipes/parameters';
import { solidOf } from '../../core/shape/solid';
import { isSpan } from '../../core/shape/span/span';
import { spanAt, spanMovers } from '../../core/shape/span/span-movers';
import { movedMost, standsAt } from '../../core/shape/span/stands';
import { shadowsOf } from '../../core/trace/overlay/sides';
import { ready } from './kernels-at-hand';
import { readSliced } from './read-sliced';
import { shown, shownIn, unshared } from './shown-solid';
import type { AskedPart, ShownChange, ShownHang, ShownPose, ShownSlice, SolidApi } from './solid-protocol';

/** Pictures of poses, pixels. */
const PICTURE = 280;

/** A face's name is found within about this time, or the face is named by its number, ms. */
const LONGEST_NAMING = 2500;

/** Numbers are tried for this long, ms; for a part that takes longer to build, the results so far are shown. */
const LONGEST_NUDGING = 6000;

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
