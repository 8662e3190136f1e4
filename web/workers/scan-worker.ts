import { expose, transfer } from 'comlink';
import { loopsOf, ProfileError } from '../../core/files/profile/loops';
import { writeStl } from '../../core/files/stl';
import { writeThreeMf } from '../../core/files/three-mf';
import { againstPart } from '../../core/scan/against-part';
import { aligned } from '../../core/scan/align/align';
import { backwards, posed } from '../../core/scan/align/pose';
import { findingOf, findingsOf, type ScanFinding } from '../../core/scan/find/findings';
import { fitWhere } from '../../core/scan/find/fit-where';
import { judgeScan } from '../../core/scan/judge';
import { canReduce } from '../../core/scan/mend/reduce';
import { poseOf, prepared, type StepDid } from '../../core/scan/prepare';
import { readScan } from '../../core/scan/read-scan';
import { ScanError } from '../../core/scan/scan-file';
import { ScanSurface } from '../../core/scan/scan-surface';
import { inSection } from '../../core/scan/section/cut';
import { type SectionLoop, sectionOf } from '../../core/scan/section/section';
import { type ShownMesh, shownMesh } from '../../core/scan/shown';
import { symmetryOf } from '../../core/scan/symmetry';
import { testPiece } from '../../core/scan/test-piece';
import { followed, placesUnder } from '../../core/scan/thinned';
import {
  areaOfCurves,
  flattenedPoints,
  lengthOfCurve,
  outlineOfCurves,
  scaledCurve,
} from '../../core/shape/curve';
import { type Bounds, type TriangleMesh, weld } from '../../core/shape/mesh/mesh';
import { OffsetError } from '../../core/shape/offset';
import { outlineOfText } from '../../core/shape/outline-text';
import { tidied, tidyings } from '../../core/shape/tidy/tidy';
import type { OtherScan, Progress, ScanApi, ScanAsked, ShownFinding, ShownSection } from './scan-protocol';

/** Holds one scan and answers questions about it: a million triangles never touch the page's own thread. */

let held: { asked: ScanAsked; surface: ScanSurface; shown: ShownMesh } | null = null;

const NOT_OPEN = { ok: false, message: 'The scan is not read yet: wait a moment.' } as const;

/** Floating specks do not count: without the outermost few in a thousand corners, in each direction. */
const OUTER = 0.002;
function innerBounds({ positions: p }: TriangleMesh): Bounds {
  const step = 3 * Math.max(1, Math.floor(p.length / 3 / 40_000));
  const ends = [0, 1, 2].map(i => {
    const all = new Float64Array(Math.floor((p.length - 1) / step) + 1);
    for (let k = 0; k < all.length; k++) all[k] = p[k * step + i]!;
    all.sort();
    return [
      all[Math.floor(OUTER * (all.length - 1))]!,
      all[Math.ceil((1 - OUTER) * (all.length - 1))]!,
    ] as const;
  });
  const [x, y, z] = [ends[0]!, ends[1]!, ends[2]!];
  return { min: [x[0], y[0], z[0]], max: [x[1], y[1], z[1]] };
}

async function fetched({ from }: Pick<ScanAsked, 'from'>, progress: Progress): Promise<Uint8Array> {
  if ('file' in from) return new Uint8Array(await from.file.arrayBuffer());
  const answer = await fetch(`/api/jobs/${from.jobId}/scans/${from.scanId}`);
  if (!answer.ok || !answer.body) throw new ScanError('broken', 'The scan’s file is not there any more.');
  const whole = Number(answer.headers.get('content-length')) || 0;
  const chunks: Uint8Array[] = [];
  let size = 0;
  const reader = answer.body.getReader();
  for (let part = await reader.read(); !part.done; part = await reader.read()) {
    chunks.push(part.value);
    size += part.value.length;
    if (whole > 0) progress('Fetching the file', size / whole);
  }
  const bytes = new Uint8Array(size);
  let at = 0;
  for (const chunk of chunks) {
    bytes.set(chunk, at);
    at += chunk.length;
  }
  return bytes;
}

/** Another scan by itself: scans merged with it stay merged. */
async function meshOf({ jobId, id, unit, steps }: OtherScan, progress: Progress): Promise<TriangleMesh> {
  const bytes = await fetched({ from: { jobId, scanId: id } }, progress);
  return prepared(readScan(bytes), { unit, steps: steps.filter(s => s.kind !== 'merge') });
}

const api: ScanApi = {
  async open(asked, progress) {
    try {
      const bytes = await fetched(asked, progress);
      progress('Reading triangles', 0);
      const raw = readScan(bytes);
      progress('Looking at it', 0.4);
      const inMm = prepared(raw, { unit: asked.unit, steps: [] });
      const before = judgeScan(inMm);
      const others = new Map<string, TriangleMesh>();
      for (const other of asked.others ?? [])
        if (asked.steps.some(s => s.kind === 'merge' && s.scan === other.id))
          others.set(other.id, await meshOf(other, progress));
      const did: Record<string, StepDid> = {};
      await canReduce;
      const mesh =
        asked.steps.length > 0
          ? prepared(raw, asked, others, (id, what) => {
              did[id] = what;
            })
          : inMm;
      if (mesh.positions.length === 0)
        return { ok: false, message: 'Nothing of the scan is left after its steps: take one of them back.' };
      const after = asked.steps.length > 0 ? judgeScan(mesh) : before;
      const surface = new ScanSurface(mesh, after.fuzz ?? undefined);
      const shown = shownMesh(surface);
      held = { asked, surface, shown };
      const { positions, normals, triangles } = shown;
      const scan = {
        positions: positions.slice(),
        normals: normals.slice(),
        triangles: triangles.slice(),
        bounds: innerBounds(mesh),
        before,
        after,
        reduced: shown.of !== null,
        hasSurface: mesh.triangles.length > 0,
        did,
      };
      return transfer({ ok: true, scan }, [
        scan.positions.buffer,
        scan.normals.buffer,
        scan.triangles.buffer,
      ]);
    } catch (error) {
      if (error instanceof ScanError) return { ok: false, message: error.message };
      throw error;
    }
  },

  async find(progress) {
    if (!held) return NOT_OPEN;
    const { surface } = held;
    const findings = findingsOf(surface, share => progress('Looking for faces, bores and rounds', share));
    return { ok: true, findings: findings.map(toShow) };
  },

  async fit(asked) {
    if (!held) return NOT_OPEN;
    const found = fitWhere(held.surface, asked);
    if (!found)
      return {
        ok: false,
        message: `There is no ${asked.kind} at that place: press on another place of it, or choose another form.`,
      };
    return { ok: true, finding: toShow(findingOf(held.surface, found)) };
  },

  async lay(other, progress, pairs) {
    if (!held) return NOT_OPEN;
    try {
      const moving = new ScanSurface(await meshOf(other, progress));
      progress('Laying it on', 0.3);
      const found = aligned(held.surface, moving, { pairs });
      if (!found.ok) return { ok: false, message: found.message };
      const { pose, rms, overlap } = found;
      return { ok: true, turn: [...pose.turn], shift: pose.shift, rms, overlap };
    } catch (error) {
      if (error instanceof ScanError) return { ok: false, message: error.message };
      throw error;
    }
  },

  async against(part, progress) {
    if (!held) return NOT_OPEN;
    const { surface, shown } = held;
    progress('Laying it on the part', 0.05);
    const mesh = weld(
      part,
      Uint32Array.from({ length: part.length / 3 }, (_, i) => i),
    );
    const found = againstPart(mesh, surface, share => progress('Comparing', share));
    if (!found.ok) return found;
    const { offs, ...sizes } = found.deviation;
    return {
      ok: true,
      against: { ...sizes, overlap: found.overlap, back: found.back, offs: atShown(offs, shown) },
    };
  },

  async symmetry(progress) {
    if (!held) return NOT_OPEN;
    progress('Looking for a plane of symmetry', 0);
    const found = symmetryOf(held.surface);
    if (!found.ok) return found;
    const { normal, at, rms, overlap } = found;
    return { ok: true, plane: { normal, at }, rms, overlap };
  },

  async section(plane, factor, taken) {
    if (!held) return NOT_OPEN;
    const loops = sectionOf(held.surface, plane);
    if (loops.length === 0) return { ok: false, message: 'The plane does not meet the scan there.' };
    return { ok: true, section: sectionToShow(loops, plane, factor, taken) };
  },

  async testPiece({ outline, title, ...piece }) {
    try {
      const mesh = testPiece(outlineOfText(outline), piece);
      const note = 'Lay it on the object before anything is built on the scan.';
      return { ok: true, file: writeThreeMf(title, note, [{ name: 'test piece', mesh }]) };
    } catch (error) {
      if (!(error instanceof OffsetError)) throw error;
      return {
        ok: false,
        message:
          'This section is too ragged for a test piece: cut where the object is even, or smaller clearance.',
      };
    }
  },

  async under(places, { factor, ...lay }) {
    if (!held) return NOT_OPEN;
    return { ok: true, places: placesUnder(held.surface, places, lay, factor) };
  },

  async surface({ factor, ...lay }) {
    if (!held) return NOT_OPEN;
    if (held.surface.mesh.triangles.length === 0)
      return { ok: false, message: 'Points alone have no surface to follow: export triangles.' };
    const { mesh, ...sizes } = followed(held.surface, lay, factor);
    const stl = writeStl(mesh, 'surface');
    const surface = { stl, ...sizes };
    return transfer({ ok: true, surface }, [stl.buffer]);
  },
};

function toShow({ corners, ...finding }: ScanFinding): ShownFinding {
  const { asked, shown } = held!;
  const cells = shown.of ? [...new Set(corners.map(v => shown.of![v]!))] : corners;
  return {
    ...finding,
    placeAsCame: posed(backwards(poseOf(asked.steps)), finding.near),
    shown: Uint32Array.from(cells),
  };
}

/** Arcs as short lines on the screen, mm. */
const SAGITTA = 0.02;

function sectionToShow(
  all: readonly SectionLoop[],
  plane: Parameters<ScanApi['section']>[0],
  factor: number,
  taken: readonly string[],
): ShownSection {
  const notes: string[] = [];
  const areaOf = (l: SectionLoop) => Math.abs(areaOfCurves(l.curves));
  // The outline first: suggestions refer to places in this list.
  const whole = all.filter(l => l.closed).sort((a, b) => areaOf(b) - areaOf(a));
  const parted = whole.map(l => l.parted);
  const tidy = tidied(parted, taken);
  const loops = [
    ...whole.map((l, i) => ({ closed: l.closed, curves: tidy[i]! })),
    ...all.filter(l => !l.closed),
  ];
  const closed = tidy.flat();
  return {
    offers: whole.length > 0 ? tidyings(parted).map(({ key, words }) => ({ key, words })) : [],
    loops: loops.map(({ closed: isClosed, curves }) => {
      const points = flattenedPoints(outlineOfCurves(curves), SAGITTA);
      const line = isClosed && points[0] ? [...points, points[0]] : points;
      return {
        closed: isClosed,
        line: Float32Array.from(line.flatMap(p => inSection(plane, p))),
        length: curves.reduce((sum, c) => sum + lengthOfCurve(c), 0),
        words: wordsOf(curves),
      };
    }),
    profile: profileOf(
      closed.map(c => scaledCurve(c, factor)),
      notes,
    ),
    notes,
  };
}

/** For each corner that is shown, the last of the compared corners in its place. */
function atShown(offs: Float32Array, { of, positions, triangles }: ShownMesh): Float32Array {
  const out = new Float32Array(positions.length / 3).fill(Number.NaN);
  for (let v = 0; v < offs.length; v++) if (!Number.isNaN(offs[v]!)) out[of ? of[v]! : v] = offs[v]!;
  // For those in between, a neighbour's value.
  for (let round = 0; round < 3; round++)
    for (let t = 0; t < triangles.length; t += 3)
      for (let e = 0; e < 3; e++) {
        const [a, b] = [triangles[t + e]!, triangles[t + ((e + 1) % 3)]!];
        if (Number.isNaN(out[a]!)) out[a] = out[b]!;
      }
  return out;
}

function wordsOf(curves: SectionLoop['curves']): string {
  const arcs = curves.filter(c => c.arc);
  const [first] = arcs;
  if (first?.arc && curves.length === arcs.length && arcs.every(c => c.arc!.radius === first.arc!.radius))
    return `${arcs.length === 2 ? 'a circle' : 'an arc'} of Ø ${(2 * first.arc.radius).toFixed(2)}`;
  const many = (count: number, what: string) =>
    count === 0 ? [] : [`${count} ${what}${count === 1 ? '' : 's'}`];
  return [...many(curves.length - arcs.length, 'line'), ...many(arcs.length, 'arc')].join(', ');
}

function profileOf(curves: Parameters<typeof loopsOf>[0], notes: string[]): ShownSection['profile'] {
  if (curves.length === 0) return null;
  try {
    const [main, ...others] = loopsOf(curves, notes);
    if (!main) return null;
    const [x0, y0, x1, y1] = main.box;
    return {
      outline: main.outline,
      width: x1 - x0,
      depth: y1 - y0,
      circles: others.flatMap(l => (l.circle ? [l.circle] : [])),
    };
  } catch (error) {
    if (!(error instanceof ProfileError)) throw error;
    notes.push(error.message);
    return null;
  }
}

expose(api);
