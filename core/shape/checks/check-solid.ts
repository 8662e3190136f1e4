import { formatPlain } from '../../quantity/format';
import type { BuiltPart } from '../built-part';
import type { Finding } from '../findings/finding';
import type { Kernels } from '../kernels/kernel';
import type { MateSurface } from '../mates';
import { bodiesOf, boundsOf, closureOf, type TriangleMesh, volumeOf } from '../mesh/mesh';
import type { Recipe } from '../recipes/recipe';
import type { LoadResult } from '../strength/loads';
import type { CheckContext } from './context';
import { checkHand } from './hand';
import { checkHoles } from './holes';
import { checkLoads } from './loads';
import { measureMates } from './measure';
import { checkSize } from './size';
import { thinnestWall } from './thickness';
import { checkPlace } from './where-it-goes';

/** A mate further than this from the ledger is not what was asked for, mm. */
const MATE_TOLERANCE = 0.01;
/** A size within this share of twice or half the reading is a radius or half-width slip. */
const SLIP_SHARE = 0.06;
/** Nothing mates across a larger gap or interference than this share of its size. */
const FAR_OFF = 0.25;

/** What can be said of the finished triangles whatever they are for: part of the solid's own record. */
export function checkShape({ mesh, pieces, whole, surfaces }: BuiltPart): Finding[] {
  const apart = pieces.length > 0 ? pieces.map(p => p.mesh) : [mesh];
  return [...apart.flatMap(checkClosed), ...checkHand(whole, surfaces)];
}

/** Checks for any recipe against what is asked of the part, all on the finished triangles. */
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
    ...checkLoads(whole, loads, context),
    ...checkWalls(mesh, context),
    ...checkBed(mesh, context),
  ];
}

/** What goes over a pin or a shaft; a screw's hole is none, whatever it must fit. */
function boresOf({ mates }: Pick<Recipe, 'mates'>, surfaces: readonly MateSurface[]): MateSurface[] {
  const screwed = new Set(mates.filter(m => ['bolt', 'insert', 'screw'].includes(m.want)).map(m => m.id));
  return surfaces.filter(s => !screwed.has(s.mate));
}

export function checkClosed(mesh: TriangleMesh): Finding[] {
  const { openEdges, bodies } = closureOf(mesh);
  const findings: Finding[] = [];
  if (openEdges > 0) {
    findings.push({
      code: 'open',
      level: 'stop',
      message: `The solid has ${openEdges} open edges: it has no inside. Take the last change back.`,
    });
  } else if (volumeOf(mesh) <= 0) {
    findings.push({
      code: 'inside-out',
      level: 'stop',
      message: 'The solid is inside out. Take the last change back.',
    });
  }
  if (bodies > 1) {
    const loose = bodiesOf(mesh)
      .map(body => ({ volume: Math.abs(volumeOf(body)), at: centreOf(body) }))
      .sort((a, b) => b.volume - a.volume)
      .slice(1);
    // The least bodies are letters whose inner islands, or whole words, hang in the air.
    const where = loose
      .slice(0, 3)
      .map(b => `${formatPlain(b.volume / 1000, 3)} cm³ at ${b.at.map(x => formatPlain(x, 0)).join(', ')}`)
      .join('; ');
    findings.push({
      code: 'loose-bodies',
      level: 'stop',
      message: `The part falls into ${bodies} loose bodies: something does not reach the rest (${where}). Move it until it meets the part, or switch it off; raised letters must stand on a face.`,
    });
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
    const bind = {
      label: `Use ${formatPlain(asked.model)} from the ledger`,
      parameter: spec.parameter,
      text: `${spec.dimension}.model`,
    };
    if (!Number.isFinite(mate.size)) {
      findings.push({
        code: 'mate-missing',
        level: 'stop',
        message: `${spec.name}: the solid has no surface there.`,
        parameter: spec.parameter,
      });
      continue;
    }
    const slip = slipOf(mate.size, asked.reading);
    if (slip) {
      findings.push({
        code: 'slip',
        level: 'stop',
        message: `${spec.name} measures ${formatPlain(mate.size)} on the solid and ${formatPlain(asked.reading)} on the object: ${slip}`,
        parameter: spec.parameter,
        remedy: bind,
      });
    } else if (Math.abs(mate.size - asked.model) > MATE_TOLERANCE) {
      findings.push({
        code: 'mate-off',
        level: 'warn',
        message: `${spec.name} measures ${formatPlain(mate.size)} on the solid; the ledger asks for ${formatPlain(asked.model)}.`,
        parameter: spec.parameter,
        remedy: bind,
      });
    }
  }
  return findings;
}

function slipOf(size: number, reading: number): string | undefined {
  const ratio = size / reading;
  const near = (target: number) => Math.abs(ratio / target - 1) < SLIP_SHARE;
  if (near(2)) return 'twice as much. Was a diameter used where a radius was meant?';
  if (near(0.5)) return 'half as much. Was a radius typed for a diameter?';
  if (near(25.4) || near(1 / 25.4)) return 'inches and millimetres are mixed up.';
  if (Math.abs(ratio - 1) > FAR_OFF) return 'these cannot mate. Check the reading and the number.';
  return undefined;
}

export function checkWalls(mesh: TriangleMesh, context: CheckContext): Finding[] {
  const thinnest = thinnestWall(mesh);
  if (!thinnest) return [];
  const { thickness } = thinnest;
  const passes = thickness / context.lineWidth;
  const where = `at ${formatPlain(thinnest.at[2], 1)} mm above the bed`;
  if (passes < 1.95) {
    const least = 2 * context.lineWidth;
    return [
      {
        code: 'thin-wall',
        level: passes < 0.95 ? 'stop' : 'warn',
        message: `The thinnest wall is ${formatPlain(thickness)} mm, ${where}: less than two passes of a ${formatPlain(context.lineWidth)} mm line. Make it ${formatPlain(least)} mm or more.`,
      },
    ];
  }
  const whole = Math.round(passes);
  // Beyond six passes nobody counts them; variable-width printing forgives small differences.
  if (passes < 6 && Math.abs(passes - whole) > 0.2) {
    const better = Math.ceil(passes) * context.lineWidth;
    return [
      {
        code: 'part-pass',
        level: 'note',
        message: `The thinnest wall is ${formatPlain(thickness)} mm: ${formatPlain(passes, 1)} passes of a ${formatPlain(context.lineWidth)} mm line. ${formatPlain(better)} mm would be whole passes.`,
      },
    ];
  }
  return [];
}

export function checkBed(mesh: TriangleMesh, context: CheckContext): Finding[] {
  const { min, max } = boundsOf(mesh);
  const size = [max[0] - min[0], max[1] - min[1], max[2] - min[2]] as const;
  const { bed } = context;
  const words = size.map(x => formatPlain(x, 1)).join(' × ');
  const fits =
    (size[0] <= bed.width && size[1] <= bed.depth) || (size[1] <= bed.width && size[0] <= bed.depth);
  const findings: Finding[] = [];
  if (!fits || size[2] > bed.height) {
    findings.push({
      code: 'bed',
      level: 'stop',
      message: `The part is ${words} mm; the printer takes ${bed.width} × ${bed.depth} × ${bed.height} mm. Choose another printer, or split the part.`,
    });
  }
  if (Math.max(...size) < 3) {
    findings.push({
      code: 'tiny',
      level: 'stop',
      message: `The part is only ${words} mm. Were inches read as millimetres?`,
    });
  }
  // Recipes lie on the bed: only what was put on or cut off moves the lowest point.
  if (Math.abs(min[2]) > 0.001) {
    const by = formatPlain(Math.abs(min[2]));
    findings.push({
      code: 'off-the-bed',
      level: 'warn',
      message:
        min[2] < 0
          ? `Something put on it reaches ${by} mm below its underside: its files are lifted so that it stands on that. See on Print whether it lies better turned over or on its side.`
          : `What is left of it begins ${by} mm above the bed: its files are lowered onto it.`,
    });
  }
  return findings;
}
