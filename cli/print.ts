import { closeSync, openSync, readSync } from 'node:fs';
import { z } from 'zod';
import { readStl } from '../core/files/reading-back';
import { isScrewed } from '../core/fit/wants';
import { FIRST_WORKSHOP } from '../core/job/workshop';
import { GcodeError, type GcodeFile } from '../core/print/gcode/file';
import { lookedAt } from '../core/print/gcode/look';
import type { Known } from '../core/print/gcode/match';
import { FILAMENT } from '../core/print/gcode/on-bed';
import { GcodeReader } from '../core/print/gcode/reader';
import { USUAL_RULES } from '../core/print/hangs';
import { paceOf, timeOf } from '../core/print/pace';
import { type PlanMate, planPoses } from '../core/print/plan';
import { AS_DRAWN, Pose, posed } from '../core/print/pose';
import { reasonsFor } from '../core/print/reasons';
import { Machine, PrintSettings, settingsFor, USUAL_MACHINE } from '../core/print/settings';
import { estimateOf, PLASTIC_DOUBT, withSupports } from '../core/print/time';
import type { Kernels } from '../core/shape/kernels/kernel';
import type { TriangleMesh } from '../core/shape/mesh/mesh';
import { loadOn } from '../core/shape/strength/loads';
import { PRINTED_STRENGTH } from '../core/shelf/polymers';
import { given } from '../core/shelf/table';
import { BadInput, type Command } from './command';
import { bodyFrom, PartAsked, partAsked } from './part-asked';
import { rounded } from './rounded';

/** A part by its recipe, or a file of triangles. */
const Body = z.union([z.strictObject({ file: z.string() }), PartAsked.strict()]);
const Printer = z.strictObject({
  bed: z.tuple([z.number().positive(), z.number().positive(), z.number().positive()]).optional(),
  lineWidth: PrintSettings.shape.lineWidth.optional(),
  layer: PrintSettings.shape.layer.optional(),
  /** Steepest overhang without supports, degrees from the upright. */
  overhang: z.number().min(10).max(85).optional(),
});
const Load = z.strictObject({
  kind: z.enum(['force', 'turn']),
  amount: z.number().min(0),
  towards: z.string(),
  at: z.string(),
  held: z.string(),
});
const common = {
  printer: Printer.default({}),
  loads: z.array(Load).max(10).default([]),
  settings: PrintSettings.partial()
    // More than 1 is meant in per cent.
    .extend({
      infill: z
        .number()
        .min(0)
        .max(100)
        .transform(x => (x > 1 ? x / 100 : x))
        .optional(),
    })
    .strict()
    .default({}),
  /** One speed for all moves, or one for each kind; corners by a deviation, mm, or by a jump of speed, mm/s. */
  machine: Machine.partial()
    .extend({
      speed: z.number().min(1).max(1500).optional(),
      jerk: z.number().min(0.1).max(100).optional(),
    })
    .loose()
    .default({}),
  /** Grams per cm³. */
  density: z.number().min(0.5).max(8).optional(),
};
const withBody = <S extends z.ZodRawShape>(shape: S) =>
  z.preprocess(
    asked => {
      if (typeof asked !== 'object' || asked === null) return asked;
      const rest = Object.fromEntries(Object.entries(asked).filter(([name]) => !(name in shape)));
      const own = Object.fromEntries(Object.entries(asked).filter(([name]) => name in shape));
      return { ...own, body: rest };
    },
    z.object({ ...shape, body: Body }),
  );

const PlanInput = withBody(common);
const EstimateInput = withBody({
  ...common,
  down: Pose.out.shape.down.optional(),
  turn: z.number().optional(),
});

type Asked = z.infer<typeof PlanInput>;

async function bodyOf(
  body: Asked['body'],
): Promise<{ mesh: TriangleMesh; mates: PlanMate[]; tools: Kernels }> {
  if ('file' in body) {
    const { kernels } = await import('../kernels/node');
    const tools = await kernels();
    return { mesh: readStl(await bodyFrom(body.file, 'file', tools)), mates: [], tools };
  }
  const { recipe, solid, tools } = await partAsked(body);
  const { surfaces, whole } = solid.part;
  const mates = surfaces.map((surface): PlanMate => {
    const spec = recipe.mates.find(m => m.id === surface.mate);
    return {
      surface,
      name: spec?.name ?? surface.mate,
      form: spec?.form ?? 'round',
      pRight: null,
      forgiving: spec !== undefined && isScrewed(spec.want),
    };
  });
  return { mesh: whole, mates, tools };
}

const [PRINTER, MATERIAL] = [FIRST_WORKSHOP.printers[0]!, FIRST_WORKSHOP.materials[0]!];

function settingsAsked({ settings, printer }: Asked): PrintSettings {
  const lineWidth = settings.lineWidth ?? printer.lineWidth ?? PRINTER.lineWidth;
  const usual = settingsFor('usual', lineWidth);
  const layer = settings.layer ?? printer.layer ?? usual.layer;
  return { ...usual, layer, firstLayer: layer, ...settings, lineWidth };
}

function machineAsked({ machine: { speed, jerk, ...own } }: Asked): Machine {
  const all = speed === undefined ? {} : { outer: speed, inner: speed, infill: speed, skin: speed };
  const machine = { ...USUAL_MACHINE, ...all, ...own };
  // Round a right angle each axis jumps by the whole speed: the deviation that allows the same speed there.
  const deviation =
    jerk === undefined ? machine.deviation : (jerk ** 2 * (Math.SQRT2 - 1)) / machine.acceleration;
  return { ...machine, deviation };
}

const bedOf = ({ printer }: Asked) => {
  const [width, depth, height] = printer.bed ?? [PRINTER.bed.width, PRINTER.bed.depth, PRINTER.bed.height];
  return { width, depth, height };
};

export const printPlan: Command<Asked> = {
  name: 'print plan',
  about: 'Ways to lay a part on the bed, the best first, with what each needs and takes.',
  example: {
    recipe: 'cradle',
    parameters: {},
    printer: { bed: [220, 220, 250], lineWidth: 0.42, layer: 0.2 },
  },
  input: PlanInput,
  async run(asked) {
    const { mesh, mates, tools } = await bodyOf(asked.body);
    const [settings, machine] = [settingsAsked(asked), machineAsked(asked)];
    const strength = PRINTED_STRENGTH.find(r => r.key === MATERIAL.polymer);
    const loads = asked.loads.map((load, i) => {
      try {
        return loadOn(
          mesh,
          mates.map(m => m.surface),
          load,
        );
      } catch (error) {
        throw new BadInput((error as Error).message, `loads.${i}`);
      }
    });
    const plans = planPoses({
      mesh,
      hull: tools.mesh.hull(mesh),
      mates,
      bed: bedOf(asked),
      rules: { ...USUAL_RULES, overhang: asked.printer.overhang ?? USUAL_RULES.overhang },
      settings,
      machine,
      loads,
      strength: strength ? { along: given(strength, 'along'), across: given(strength, 'across') } : null,
      margin: 2,
      now: AS_DRAWN,
      sagitta: 0.01,
    });
    return {
      poses: plans.map(plan => {
        const { pose, supports, foot, height, footprint, fits } = plan;
        const bare = estimateOf(posed(mesh, pose), settings, machine, tools.mesh);
        const estimate = withSupports(bare, supports.volume, settings, machine);
        return {
          down: pose.down,
          turn: rounded(pose.turn),
          supportArea: rounded(supports.area),
          supportVolume: rounded(supports.volume),
          bedArea: rounded(foot),
          height: rounded(height, 3),
          footprint: footprint.map(x => rounded(x, 3)),
          fits,
          minutes: rounded(timeOf(estimate, paceOf([], 'described')).seconds / 60),
          grams: rounded((estimate.plastic / 1000) * (asked.density ?? MATERIAL.density)),
          reasons: reasonsFor(plan),
        };
      }),
    };
  },
};

export const printEstimate: Command<z.infer<typeof EstimateInput>> = {
  name: 'print estimate',
  about: 'What a print takes: minutes and grams with their standard uncertainty, and its layers.',
  example: {
    recipe: 'round-cap',
    parameters: {},
    settings: { layer: 0.2, walls: 3, infill: 0.2 },
    machine: { speed: 60, acceleration: 1500 },
  },
  input: EstimateInput,
  async run(asked) {
    const { mesh, tools } = await bodyOf(asked.body);
    const [settings, machine] = [settingsAsked(asked), machineAsked(asked)];
    const pose = { down: asked.down ?? AS_DRAWN.down, turn: asked.turn ?? 0 };
    const estimate = estimateOf(posed(mesh, pose), settings, machine, tools.mesh);
    const described = Object.keys(asked.machine).length > 0;
    const { seconds, u } = timeOf(estimate, paceOf([], described ? 'described' : 'unknown'));
    const grams = (estimate.plastic / 1000) * (asked.density ?? MATERIAL.density);
    return {
      minutes: { value: rounded(seconds / 60), u: rounded(u / 60) },
      grams: { value: rounded(grams), u: rounded(PLASTIC_DOUBT * grams, 3) },
      layers: estimate.layers,
    };
  },
};

const Against = z.preprocess(
  asked => {
    if (typeof asked !== 'object' || asked === null) return asked;
    const { id, ...body } = asked as { id?: unknown };
    return { id, body };
  },
  z.object({ id: z.string().min(1).max(80), body: Body }),
);

const ReadInput = z.strictObject({
  /** The .gcode file; on the command line it comes after the command's name. */
  file: z.string().optional(),
  against: z.array(Against).max(20).default([]),
  planned: z.strictObject({ id: z.string().optional(), down: Pose.out.shape.down.optional() }).default({}),
  density: z.number().min(0.5).max(8).optional(),
});

/** Read in pieces of this size, bytes. */
const PIECE = 1 << 20;

function gcodeFrom(path: string): GcodeFile {
  const reader = new GcodeReader();
  let file: number;
  try {
    file = openSync(path, 'r');
  } catch (error) {
    throw new BadInput(`${path} cannot be read: ${(error as Error).message}`, 'file', 'cannot-read');
  }
  try {
    const piece = new Uint8Array(PIECE);
    for (let n = readSync(file, piece); n > 0; n = readSync(file, piece)) reader.push(piece.subarray(0, n));
    return reader.end();
  } catch (error) {
    if (error instanceof GcodeError) throw new BadInput(error.message, 'file', error.code);
    throw error;
  } finally {
    closeSync(file);
  }
}

export const printRead: Command<z.infer<typeof ReadInput>> = {
  name: 'print read',
  files: ['file'],
  about:
    'Reads a sliced file back: what it prints, which version that is, how it lies, and what is wrong with it.',
  example: {
    against: [{ id: 'v1', recipe: 'bush', parameters: {} }],
    planned: { id: 'v1', down: [0, 0, -1] },
  },
  input: ReadInput,
  async run({ file: path, against, planned, density }) {
    if (path === undefined) throw new BadInput('Name the file: print read FILE.gcode', 'file');
    const file = gcodeFrom(path);
    const known: Known[] = [];
    let tools: Kernels | undefined;
    for (const { id, body } of against) {
      const { mesh, mates, tools: own } = await bodyOf(body);
      tools = own;
      known.push({ id, mesh, surfaces: mates.map(m => m.surface) });
    }
    const kernel = tools ?? (await (await import('../kernels/node')).kernels());
    const looked = lookedAt(file, known, planned, kernel.mesh);
    const area = (Math.PI * (file.said.diameter ?? FILAMENT) ** 2) / 4;
    const { match } = looked;
    return {
      layers: looked.layers,
      layerHeight: rounded(looked.layerHeight, 3),
      firstLayer: rounded(looked.firstLayer, 3),
      bounds: looked.bounds && {
        min: looked.bounds.min.map(x => rounded(x, 3)),
        max: looked.bounds.max.map(x => rounded(x, 3)),
      },
      filamentLength: rounded(file.filament, 2),
      grams: rounded(((file.filament * area) / 1000) * (density ?? MATERIAL.density)),
      minutes: rounded(file.seconds / 60),
      said: { minutes: file.said.minutes && rounded(file.said.minutes), grams: file.said.grams },
      match: match && {
        id: match.id,
        scale: rounded(match.scale, 5),
        mirrored: match.mirrored,
        down: match.down,
        turn: rounded(match.turn),
        copies: match.copies,
        // Beyond the contract: how far outlines are outside where they were drawn, per side.
        moved: rounded(match.moved, 3),
      },
      // Beyond the contract: its surfaces as the file prints them; supports that stand on one are reported here.
      mates: looked.mates.map(({ surface, size, drawn, passes, supported }) => ({
        id: surface,
        size: size === null ? null : rounded(size, 3),
        drawn: rounded(drawn, 3),
        passes,
        supported,
      })),
      // Without versions to compare with there is no mismatch.
      findings:
        against.length > 0
          ? looked.findings
              // Fields that the contract does not have.
              .filter(f => f.code !== 'support-on-mate' && f.code !== 'thick-layers')
              .map(({ code, message }) => ({ code, message }))
          : [],
    };
  },
};
