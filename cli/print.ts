import { z } from 'zod';
import { readStl } from '../core/files/reading-back';
import { FIRST_WORKSHOP } from '../core/job/workshop';
import { USUAL_RULES } from '../core/print/columns';
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
  settings: PrintSettings.partial().strict().default({}),
  /** One speed for all moves, or each kind's own. */
  machine: Machine.partial()
    .extend({ speed: z.number().min(1).max(1500).optional() })
    .strict()
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
      forgiving: ['screw', 'bolt', 'insert'].includes(spec?.want ?? ''),
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

function machineAsked({ machine: { speed, ...own } }: Asked): Machine {
  const all = speed === undefined ? {} : { outer: speed, inner: speed, infill: speed, skin: speed };
  return { ...USUAL_MACHINE, ...all, ...own };
}

const bedOf = ({ printer }: Asked) => {
  const [width, depth, height] = printer.bed ?? [PRINTER.bed.width, PRINTER.bed.depth, PRINTER.bed.height];
  return { width, depth, height };
};

const rounded = (x: number, digits = 2) => Number(x.toFixed(digits));

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
