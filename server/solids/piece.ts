import ManifoldInit from 'manifold-3d';
import { pieceSolid } from '../../core/calibration/piece-solid';
import { writeStl } from '../../core/files/stl';
import { type ThreeMfBody, writeThreeMf } from '../../core/files/three-mf';
import type { GaugeAsked } from '../../core/print/gauge';
import { gaugeSolid } from '../../core/print/gauge-solid';
import { ladderSolids, rungSolid } from '../../core/print/ladder-solid';
import { laidOut } from '../../core/print/plate/rows';
import { joined, type TriangleMesh } from '../../core/shape/mesh/mesh';
import { readFont } from '../../kernels/font';
import type { PieceFiles, Tasks } from './tasks';

/** Test pieces: made of triangles alone, with their sizes or numbers raised on them. */
const NAME = 'Calibration piece';

/** The calibration piece as files; it is drawn true to size for every printer. */
export async function buildPiece(): Promise<PieceFiles> {
  const { wasm, font } = await tools();
  const note = 'As drawn, compensated for no printer: print it, then read it.';
  return filesOf(NAME, note, [{ name: NAME, mesh: pieceSolid(wasm, font) }]);
}

export async function buildLadder({ side, sizes, name, bed }: Tasks['ladder']['asked']): Promise<PieceFiles> {
  const { wasm, font } = await tools();
  const bodies = ladderSolids(wasm, font, side, sizes).map((mesh, i) => ({
    name: `Ring ${i + 1}: ${sizes[i]!.toFixed(2)}`,
    mesh,
  }));
  return filesOf(
    name,
    'Rings in steps: try each on the object.',
    laidOut(bodies, bed.width, bed.depth) ?? bodies,
  );
}

export async function buildGauge({ name, ...asked }: Tasks['gauge']['asked']): Promise<PieceFiles> {
  const note = 'It stands in for the object: print it, measure it, then try the part on it.';
  return filesOf(name, note, [{ name, mesh: await gaugeBody(asked) }]);
}

/** A gauge on the bed. */
export async function gaugeBody(asked: GaugeAsked): Promise<TriangleMesh> {
  const { wasm, font } = await tools();
  return gaugeSolid(wasm, font, asked);
}

/** One ring of a ladder, its number counted from 1. */
export async function ladderRing({
  side,
  sizes,
  number,
}: Pick<Tasks['ladder']['asked'], 'side' | 'sizes'> & { number: number }): Promise<TriangleMesh> {
  const { wasm, font } = await tools();
  return rungSolid(wasm, font, side, sizes[number - 1]!, number);
}

function filesOf(name: string, note: string, bodies: readonly ThreeMfBody[]): PieceFiles {
  return { stl: writeStl(joined(bodies.map(b => b.mesh)), name), '3mf': writeThreeMf(name, note, bodies) };
}

async function tools() {
  const wasm = await ManifoldInit();
  wasm.setup();
  return { wasm, font: readFont() };
}
