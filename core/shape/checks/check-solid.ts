import { isScrewed } from '../../fit/wants';
import { USUAL_LAYER } from '../../print/estimate';
import { bedFit, footprintOf } from '../../print/footprint';
import { posed, upOf } from '../../print/pose';
import { formatPlain } from '../../quantity/format';
import type { BuiltPart } from '../built-part';
import { type Finding, finding } from '../findings/finding';
import type { Kernels } from '../kernels/kernel';
import type { MateSurface } from '../mates';
import { bodiesOf, boundsOf, closureOf, type TriangleMesh, volumeOf } from '../mesh/mesh';
import type { Recipe } from '../recipes/recipe';
import type { LoadResult } from '../strength/loads';
import type { CheckContext } from './context';
import { checkHand } from './hand';
import { checkHoles } from './holes';
import { checkKeepOpen } from './keep-open';
import { checkLoads } from './loads';
import { measureMates } from './measure';
import { checkSize } from './size';
import { thinnestWalls } from './thickness';
import { checkPlace } from './where-it-goes';

/** A mate that differs from the ledger by more than this is wrong, mm. */
const MATE_TOLERANCE = 0.01;
/** A size within this share of twice or half the reading was typed as a radius or half-width. */
const SLIP_SHARE = 0.06;
/** No mate has a larger gap or interference than this share of its size. */
const FAR_OFF = 0.25;

/** Checks on the finished triangles that need no context; stored with the solid. */
export function checkShape({ mesh, pieces, whole, surfaces }: BuiltPart): Finding[] {
  const apart = pieces.length > 0 ? pieces.map(p => p.mesh) : [mesh];
  return [...apart.flatMap(checkClosed), ...checkHand(whole, surfaces)];
}

/** A part smaller than this in every direction has the wrong unit, mm. */
const TINY = 3;

/** Checks for any recipe against the demands on the part, all on the finished triangles. */
export function checkSolid(
  recipe: Recipe,
  part: BuiltPart,
  context: CheckContext,
  kernels: Pick<Kernels, 'mesh' | 'models'>,
  loads: readonly LoadResult[],
): Finding[] {
  const { mesh, surfaces, whole } = part;
  const pieces = part.pieces.length > 0 ? part.pieces.map(p => p.mesh) : [mesh];
  return [
    ...checkMates(recipe, surfaces, whole, context),
    ...checkSize(whole, surfaces, context, recipe.guide),
    ...pieces.flatMap(piece => checkHoles(piece, context, boresOf(recipe, surfaces))),
    ...checkPlace(whole, context, kernels),
    ...checkKeepOpen(whole, context.keepOpen, kernels.mesh),
    ...checkLoads(whole, loads, context),
    ...checkWalls(mesh, context),
    ...checkBed(mesh, context, part.pieces),
  ];
}

/** Surfaces that go over a pin or a shaft; a screw hole does not count, whatever it must fit. */
function boresOf({ mates }: Pick<Recipe, 'mates'>, surfaces: readonly MateSurface[]): MateSurface[] {
  const screwed = new Set(mates.filter(m => isScrewed(m.want)).map(m => m.id));
  return surfaces.filter(s => !screwed.has(s.mate));
}

export function checkClosed(mesh: TriangleMesh): Finding[] {
  const { openEdges, bodies } = closureOf(mesh);
  const findings: Finding[] = [];
  if (openEdges > 0) findings.push(finding('open', 'stop', { edges: openEdges }));
  else if (volumeOf(mesh) <= 0) findings.push(finding('inside-out', 'stop', {}));
  if (bodies > 1) {
    const loose = bodiesOf(mesh)
      .map(body => ({ volume: Math.abs(volumeOf(body)), at: centreOf(body) }))
      .sort((a, b) => b.volume - a.volume)
      .slice(1);
    // The smallest bodies are floating letters, or parts of letters.
    const where = loose
      .slice(0, 3)
      .map(b => `${formatPlain(b.volume / 1000, 3)} cm³ at ${b.at.map(x => formatPlain(x, 0)).join(', ')}`)
      .join('; ');
    findings.push(finding('loose-bodies', 'stop', { bodies, where }));
  }
  return findings;
}

const centreOf = (mesh: TriangleMesh): [number, number, number] => {
  const { min, max } = boundsOf(mesh);
  return [(min[0] + max[0]) / 2, (min[1] + max[1]) / 2, (min[2] + max[2]) / 2];
};

export function checkMates(
  recipe: Pick<Recipe, 'mates'>,
  surfaces: readonly MateSurface[],
  mesh: TriangleMesh,
  context: CheckContext,
): Finding[] {
  const findings: Finding[] = [];
  for (const mate of measureMates(mesh, surfaces)) {
    const asked = context.ledger[mate.id];
    const spec = recipe.mates.find(m => m.id === mate.id);
    if (!asked || !spec) continue;
    const { name, parameter, dimension } = spec;
    const about = { parameter };
    const bound = { name, parameter, dimension, model: asked.proposed ?? asked.model, size: mate.size };
    const slip = slipOf(mate.size, asked.reading);
    if (!Number.isFinite(mate.size)) findings.push(finding('mate-missing', 'stop', { name }, about));
    else if (slip) findings.push(finding('slip', 'stop', { ...bound, reading: asked.reading, slip }, about));
    else if (Math.abs(mate.size - asked.model) > MATE_TOLERANCE)
      findings.push(finding('mate-off', 'warn', bound, about));
  }
  return findings;
}

function slipOf(size: number, reading: number): string | undefined {
  const ratio = size / reading;
  const near = (target: number) => Math.abs(ratio / target - 1) < SLIP_SHARE;
  if (near(2)) return 'twice';
  if (near(0.5)) return 'half';
  if (near(25.4) || near(1 / 25.4)) return 'inches';
  if (Math.abs(ratio - 1) > FAR_OFF) return 'far';
  return undefined;
}

/** A flat of this many layers is thin: one layer is a sheet, two may not close. Common practice, no source. */
const FEWEST_LAYERS = 3;

export function checkWalls(mesh: TriangleMesh, context: CheckContext): Finding[] {
  const { upright, flat } = thinnestWalls(mesh, upOf(context.pose));
  const line = context.lineWidth;
  const findings: Finding[] = [];
  if (flat && flat.thickness < (FEWEST_LAYERS - 0.05) * USUAL_LAYER) {
    const { thickness, at } = flat;
    findings.push(
      finding('thin-flat', thickness < 1.5 * USUAL_LAYER ? 'stop' : 'warn', {
        thickness,
        height: at[2],
        layer: USUAL_LAYER,
      }),
    );
  }
  if (!upright) return findings;
  const { thickness, at } = upright;
  const passes = thickness / line;
  if (passes < 1.95)
    findings.push(finding('thin-wall', passes < 0.95 ? 'stop' : 'warn', { thickness, height: at[2], line }));
  // Over six passes the count does not matter; printing with variable line width evens out small differences.
  else if (passes < 6 && Math.abs(passes - Math.round(passes)) > 0.2)
    findings.push(finding('part-pass', 'note', { thickness, line }));
  return findings;
}

/** A piece that is printed by itself; the part as a whole has no name of its own. */
interface BedPiece {
  name: string;
  mesh: TriangleMesh;
}

const extentOf = (mesh: TriangleMesh): [number, number, number] => {
  const { min, max } = boundsOf(mesh);
  return [max[0] - min[0], max[1] - min[1], max[2] - min[2]];
};

/** @param pieces the pieces of the part: each may be printed by itself */
export function checkBed(
  mesh: TriangleMesh,
  context: CheckContext,
  pieces: readonly BedPiece[] = [],
): Finding[] {
  const { width, depth, height } = context.bed;
  const findings: Finding[] = [];
  for (const piece of pieces.length > 0 ? pieces : [{ name: '', mesh: posed(mesh, context.pose) }]) {
    const [x, y, z] = extentOf(piece.mesh);
    const { fits, turn, over } = bedFit(footprintOf(piece.mesh), context.bed);
    if (!fits || z > height)
      findings.push(
        finding('bed', 'stop', {
          what: piece.name,
          x,
          y,
          z,
          width,
          depth,
          height,
          over: Math.max(over, z - height),
        }),
      );
    // A right angle is harmless.
    else if (turn % 90 !== 0) findings.push(finding('bed-turned', 'warn', { turn }));
  }
  const { min } = boundsOf(mesh);
  const [x, y, z] = extentOf(mesh);
  if (Math.max(x, y, z) < TINY) findings.push(finding('tiny', 'stop', { x, y, z }));
  // Recipes are drawn on the bed: only additions move the lowest point.
  if (Math.abs(min[2]) > 0.001) findings.push(finding('off-the-bed', 'warn', { by: min[2] }));
  return findings;
}
