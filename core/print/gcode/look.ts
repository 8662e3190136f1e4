import { formatPlain } from '../../quantity/format';
import type { MeshKernel } from '../../shape/kernels/kernel';
import { boundsOf } from '../../shape/mesh/mesh';
import { dot, type Point3 } from '../../shape/vector';
import { type SupportRules, USUAL_RULES } from '../hangs';
import { isSameDirection } from '../pose';
import { poseInWords } from '../pose-words';
import { supportsIn } from '../supports';
import { type GcodeFile, ROLES } from './file';
import { type Known, type Match, matchOf, type Planned } from './match';
import { type MateInFile, matesIn } from './mates-in-file';
import { type Bed, bedOf } from './on-bed';
import { unitSlip } from './poses';

/** Which version a sliced file is, and what is wrong with it: each mismatch says what to do. Lengths mm. */

export interface Looked {
  /** Without supports, brims and other helpers. */
  layers: number;
  layerHeight: number;
  firstLayer: number;
  bounds: { min: Point3; max: Point3 } | null;
  lineWidth: number;
  match: Match | null;
  /** The surfaces that must fit, as the file will print them; only where one version was recognised. */
  mates: MateInFile[];
  findings: GcodeFinding[];
}

export type GcodeCode =
  | 'scaled'
  | 'stretched'
  | 'mirrored'
  | 'other-pose'
  | 'other-version'
  | 'unknown-part'
  | 'incomplete'
  | 'no-support'
  | 'moved-outline'
  | 'support-on-mate'
  | 'thick-layers';

export interface GcodeFinding {
  code: GcodeCode;
  /** Whether the print would be useless. */
  level: 'stop' | 'warn';
  message: string;
  /** The surface that it is about. */
  surface?: string;
}

/** A scale nearer to 1 than this is right. */
const RIGHT_SCALE = 0.003;
const RIGHT_STRETCH = 0.004;
/** A correction of outlines by less than this per side counts as none, mm. */
const RIGHT_PLACE = 0.03;
/** A smaller area over air is a lip or the last line of a bridge, mm². */
const LITTLE_SUPPORT = 20;

/** @throws KernelError where a version's section cannot be drawn in */
export function lookedAt(
  file: GcodeFile,
  versions: readonly Known[],
  planned: Planned,
  kernel: Pick<MeshKernel, 'inset' | 'hull'>,
  /** Of the printer that it is for. */
  rules: SupportRules = USUAL_RULES,
): Looked {
  const bed = bedOf(file);
  const match = matchOf(file, bed, versions, planned, kernel);
  const facts = factsOf(bed);
  const known = match ?? bySize(bed, versions, planned, kernel);
  if (!known)
    return { ...facts, match: null, mates: [], findings: [farOff(bed, versions) ?? unknownPart(file)] };
  // Where several versions are alike, each has its own sizes: then none is reported.
  const version = match && versions.find(v => v.id === match.id);
  const mates = version ? matesIn(file, bed, match, version) : [];
  const findings = findingsOf(file, bed, known, versions, planned, rules);
  for (const { surface, supported } of mates)
    if (supported)
      findings.push({
        code: 'support-on-mate',
        level: 'warn',
        surface,
        message:
          'Supports stand on a surface that must fit: it comes out rough there, and not as read. Block supports there where you slice it, or lay it another way.',
      });
  if (version) findings.push(...tooThick(version, match, facts.layerHeight));
  return { ...facts, match: known, mates, findings };
}

/**
 * A surface needs at least this many layers, or its height is not what was drawn; a lip loses up to half a layer at
 * each end.
 */
const LEAST_LAYERS = 2;

/** Lips and other surfaces that are only a layer or two high. */
function tooThick({ surfaces }: Known, { down, upright }: Match, layer: number): GcodeFinding[] {
  return surfaces
    .filter(({ axis, from, to }) => {
      const up = Math.abs(dot(axis, down));
      return up > UPRIGHT && layer * LEAST_LAYERS > (to - from) * up * upright + SAME_LAYER;
    })
    .map(({ mate, from, to }) => ({
      code: 'thick-layers',
      level: 'warn',
      surface: mate,
      message: `A surface that must fit is ${formatPlain(to - from, 2)} mm high, and a layer ${formatPlain(layer, 2)}: slice it with layers of ${formatPlain(Math.floor((50 * (to - from)) / LEAST_LAYERS) / 50, 2)} or thinner.`,
    }));
}
/** A surface is upright within 25°: cosine. Heights are equal within this, mm. */
const [UPRIGHT, SAME_LAYER] = [0.9, 0.005];

function factsOf({
  things,
  layer,
  firstLayer,
  lineWidth,
}: Bed): Omit<Looked, 'match' | 'mates' | 'findings'> {
  const heights = new Set(things.flatMap(t => t.layers.map(l => Math.round(1000 * l.z))));
  const boxes = things.map(t => t.box);
  const half = lineWidth / 2;
  const bounds = boxes.length > 0 && {
    min: [Math.min(...boxes.map(b => b[0])) - half, Math.min(...boxes.map(b => b[1])) - half, 0] as Point3,
    max: [
      Math.max(...boxes.map(b => b[2])) + half,
      Math.max(...boxes.map(b => b[3])) + half,
      Math.max(...heights) / 1000,
    ] as Point3,
  };
  return { layers: heights.size, layerHeight: layer, firstLayer, bounds: bounds || null, lineWidth };
}

function findingsOf(
  file: GcodeFile,
  bed: Bed,
  match: Match,
  versions: readonly Known[],
  planned: Planned,
  rules: SupportRules,
): GcodeFinding[] {
  const found: GcodeFinding[] = [];
  const add = (code: GcodeCode, level: GcodeFinding['level'], message: string) =>
    found.push({ code, level, message });
  if (planned.id !== undefined && match.id !== null && match.id !== planned.id)
    add(
      'other-version',
      'stop',
      'This is not the version that was meant: export its file again and slice that.',
    );
  if (match.mirrored)
    add(
      'mirrored',
      'stop',
      'It is mirrored: left and right are exchanged. Take the mirroring out where you slice it, unless this is to be the other hand.',
    );
  const off = match.scale - 1;
  if (Math.abs(off) > RIGHT_SCALE)
    add('scaled', Math.abs(off) > 0.02 ? 'stop' : 'warn', scaleWords(match.scale, bed));
  const upright = match.upright / match.scale;
  if (Math.abs(match.stretch - 1) > RIGHT_STRETCH)
    add(
      'stretched',
      'stop',
      `It is stretched: ${percent(match.stretch - 1)} more along one side than along the other. Scale it alike in all directions, or better not at all.`,
    );
  else if (match.whole && upright !== 1)
    add(
      'stretched',
      'stop',
      `Its height is scaled by ${percent(upright - 1)} beyond its width and depth. Take that out where you slice it.`,
    );
  if (Math.abs(match.moved) > RIGHT_PLACE) add('moved-outline', 'warn', movedWords(match.moved));
  if (planned.down && !isSameDirection(planned.down, match.down))
    add(
      'other-pose',
      'warn',
      `It lies ${poseInWords({ down: match.down, turn: 0 })}; planned was ${poseInWords({ down: planned.down, turn: 0 })}. Its sizes were worked out for the planned way.`,
    );
  if (!match.whole || !file.endedWhole)
    add('incomplete', 'stop', 'The file ends too early: export it again, and copy it whole.');
  const version = versions.find(v => v.id === match.id) ?? versions[0];
  if (version && file.rolesKnown && !file.role.includes(ROLES.indexOf('support'))) {
    const { area } = supportsIn(version.mesh, { down: match.down, turn: 0 }, rules, version.surfaces);
    if (area > LITTLE_SUPPORT)
      add(
        'no-support',
        'warn',
        `About ${formatPlain(area / 100, 1)} cm² of it hang over air, and there are no supports in the file: switch them on, or lay it another way.`,
      );
  }
  return found;
}

const percent = (share: number) => `${share > 0 ? '+' : '−'}${formatPlain(Math.abs(100 * share), 1)} %`;

function scaleWords(scale: number, { things }: Bed): string {
  const [thing] = things;
  const size = thing
    ? `${formatPlain(thing.box[2] - thing.box[0], 1)} × ${formatPlain(thing.box[3] - thing.box[1], 1)} × ${formatPlain(thing.layers.at(-1)!.z, 1)} mm: `
    : '';
  const unit = [
    [1 / 25.4, '25.4 times too small; the file was read in inches'],
    [25.4, '25.4 times too large; millimetres were taken for inches'],
    [1 / 10, 'ten times too small; the file was read in another unit'],
    [10, 'ten times too large; the file was read in another unit'],
    [1 / 1000, 'a thousand times too small; the file was read in metres'],
    [1000, 'a thousand times too large; the file was read in metres'],
  ].find(([factor]) => Math.abs(Math.log(scale / (factor as number))) < 0.06);
  if (unit) return `${size}${unit[1]}. Load it in millimetres.`;
  const by = `${size}scaled by ${percent(scale - 1)}`;
  return Math.abs(scale - 1) < 0.06
    ? `${by}: is a correction for shrinkage on where you slice it? Its sizes are corrected already: take it out.`
    : `${by}. Set it back to 100 %.`;
}

const movedWords = (moved: number): string => {
  const by = formatPlain(Math.abs(moved), 2);
  return moved > 0
    ? `Its outlines lie ${by} mm per side farther out than drawn: outsides ${formatPlain(2 * moved, 2)} larger across the whole, holes smaller by as much. A correction of outlines is on where you slice it; the ledger has its own, so take it out.`
    : `Its outlines lie ${by} mm per side farther in than drawn: outsides ${formatPlain(-2 * moved, 2)} smaller across the whole, holes larger by as much. A correction of outlines is on where you slice it; the ledger has its own, so take it out.`;
};

/** A wrong unit leaves too little, or too much, to compare: the three dimensions show it. */
function bySize(
  bed: Bed,
  versions: readonly Known[],
  planned: Planned,
  kernel: Pick<MeshKernel, 'hull'>,
): Match | null {
  const [thing] = bed.things;
  if (!thing) return null;
  const slips = versions.flatMap(({ id, mesh, surfaces }) => {
    const slip = unitSlip({ hull: kernel.hull(mesh), surfaces }, thing, bed);
    return slip ? [{ id, ...slip }] : [];
  });
  const one = slips.find(s => s.id === planned.id) ?? slips[0];
  if (!one) return null;
  return {
    ...one,
    id: one.id === planned.id || slips.length === 1 ? one.id : null,
    upright: one.scale,
    mirrored: false,
    copies: bed.copies,
    whole: true,
    turn: 0,
    stretch: 1,
    moved: 0,
    found: 0,
    belongs: 0,
    off: Number.NaN,
    place: [one.scale, 0, 0, 0, one.scale, 0],
    half: bed.lineWidth / 2,
    cost: Number.POSITIVE_INFINITY,
  };
}

/** A thing that is smaller or larger than every version by such a factor is not another part but a wrong unit. */
const FAR_OFF = 8;

/** For a part too small for its walls to be printed at all, nothing else can be told. */
function farOff({ things }: Bed, versions: readonly Known[]): GcodeFinding | null {
  const [thing] = things;
  if (versions.length === 0) return null;
  if (!thing)
    return {
      code: 'scaled',
      level: 'stop',
      message:
        'Nothing of a part is in the file: what is thinner than a line is left out. Was it read in inches or metres? Load it in millimetres.',
    };
  const size = Math.hypot(thing.box[2] - thing.box[0], thing.box[3] - thing.box[1], thing.layers.at(-1)!.z);
  const sizes = versions.map(({ mesh }) => {
    const { min, max } = boundsOf(mesh);
    return Math.hypot(max[0] - min[0], max[1] - min[1], max[2] - min[2]);
  });
  const small = size * FAR_OFF < Math.min(...sizes);
  if (!small && size < FAR_OFF * Math.max(...sizes)) return null;
  return {
    code: 'scaled',
    level: 'stop',
    message: `What is in the file is ${formatPlain(size, 1)} mm across, every version ${formatPlain(Math.min(...sizes), 0)} mm or more: far too ${small ? 'small' : 'large'}. Was it read in inches or metres? Load it in millimetres.`,
  };
}

const unknownPart = ({ endedWhole }: GcodeFile): GcodeFinding =>
  endedWhole
    ? {
        code: 'unknown-part',
        level: 'stop',
        message:
          'This is not one of the versions here: it is another part, or was changed where it was sliced.',
      }
    : {
        code: 'incomplete',
        level: 'stop',
        message: 'The file ends too early to tell what it is: export it again, and copy it whole.',
      };
