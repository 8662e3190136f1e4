import { z } from 'zod';
import { Pose } from '../../print/pose';
import { Quality } from '../../print/settings';
import { softSideOf } from '../../shape/mates';
import { recipeById } from '../../shape/recipes';
import { withRecipe } from '../change-recipe';
import { same } from '../changes';
import { type JobDocument, Part } from '../document';
import { Id, ParameterText } from '../fields';
import { withLearned, withNewPart } from '../new-job';
import { isOfUse, recipeOf } from '../parts';
import { defineEdit, type EditWorkshop } from './define';
import { defaultWant, EditRefused, nameOf, requirePart, withPart } from './tools';

/** Edits of the parts of a job and of how each is made. */

export const addPart = defineEdit(
  z.object({
    kind: z.literal('add-part'),
    id: Id,
    name: Part.shape.name,
    recipe: z.string().max(60),
    /** Whether it is measured on the same object as the other parts. */
    share: z.boolean(),
  }),
  {
    apply(document, edit, workshop) {
      if (document.parts.some(p => p.id === edit.id)) throw new EditRefused('This part is already there.');
      if (!recipeById(edit.recipe))
        throw new EditRefused(`There is no recipe “${edit.recipe}”: choose one from the list.`);
      return withNewPart(document, edit, workshop);
    },
    words: ({ name }) => `Added the part ${name}`,
  },
);

export const renamePart = defineEdit(
  z.object({ kind: z.literal('rename-part'), partId: Id, name: Part.shape.name }),
  {
    apply: (document, { partId, name }) => withPart(document, partId, part => ({ ...part, name })),
    words: ({ name }) => `Renamed the part to “${name}”`,
  },
);

export const changeRecipe = defineEdit(
  z.object({
    kind: z.literal('change-recipe'),
    partId: Id,
    recipe: z.string().max(60),
    /** Dimensions of the job that answer steps of the new recipe, by the step. */
    takes: z.record(z.string().max(40), Id),
    /** New to this job; new mates get ids that begin with it. */
    prefix: Id.max(12),
  }),
  {
    apply: withRecipe,
    words: ({ recipe }) =>
      `Made the part as another shape, ${recipeById(recipe)?.title ?? recipe}: what was read stays`,
  },
);

/** Its mates are removed with it; readings stay, since nobody likes to take them twice. */
export const removePart = defineEdit(z.object({ kind: z.literal('remove-part'), partId: Id }), {
  apply(document, { partId }) {
    requirePart(document, partId);
    if (document.parts.length === 1)
      throw new EditRefused('A job has at least one part: remove the job instead.');
    const user = document.mates.find(
      m => m.ours.part !== partId && m.other.of === 'part' && m.other.part === partId,
    );
    if (user)
      throw new EditRefused(
        `“${user.name}” of another part goes with it: make that fit the object again first.`,
      );
    const without = {
      ...document,
      parts: document.parts.filter(p => p.id !== partId),
      mates: document.mates.filter(m => m.ours.part !== partId),
    };
    return { ...without, dimensions: document.dimensions.filter(d => isOfUse(d, without)) };
  },
  words: ({ partId }, document) => `Removed ${nameOf.part(document, partId)}`,
});

export const parameter = defineEdit(
  z.object({
    kind: z.literal('parameter'),
    partId: Id,
    name: z.string().max(40),
    expression: ParameterText.nullable(),
  }),
  {
    apply(document, { partId, name, expression }, workshop) {
      const part = requirePart(document, partId);
      if (!recipeOf(part).parameters.some(p => p.name === name))
        throw new EditRefused(`This part has no parameter “${name}”.`);
      return withPart(withLearned(document, part, workshop), partId, () => {
        const { [name]: _, ...rest } = part.parameters;
        return { ...part, parameters: expression ? { ...rest, [name]: expression } : rest };
      });
    },
    words: ({ name, expression }) =>
      expression ? `Set ${name} to ${expression.text}` : `Let ${name} follow the recipe again`,
  },
);

/** Changing from stiff to flexible plastic, or back, changes the wants that still have their usual value. */
function withMaterial(
  document: JobDocument,
  partId: string,
  materialId: string,
  workshop: EditWorkshop,
): JobDocument {
  const chosen = workshop.materials.find(m => m.id === materialId);
  if (!chosen) throw new EditRefused('That material is no longer in the workshop.');
  const changed = withPart(document, partId, part => ({ ...part, materialId }));
  const recipe = recipeOf(requirePart(changed, partId));
  return {
    ...changed,
    mates: changed.mates.map(mate => {
      const spec = mate.ours.part === partId ? recipe.mates.find(m => m.id === mate.ours.surface) : undefined;
      if (!spec || mate.kind !== 'fit') return mate;
      const untouched =
        same(mate.want, defaultWant(spec.want, workshop)) ||
        same(mate.want, defaultWant(spec.flexibleWant, workshop));
      if (!untouched) return mate;
      return {
        ...mate,
        want: defaultWant(chosen.flexible ? spec.flexibleWant : spec.want, workshop),
        soft: softSideOf(spec, chosen.flexible),
      };
    }),
  };
}

export const material = defineEdit(z.object({ kind: z.literal('material'), partId: Id, materialId: Id }), {
  apply: (document, { partId, materialId }, workshop) => withMaterial(document, partId, materialId, workshop),
  words: () => 'Chose another plastic',
});

export const printer = defineEdit(z.object({ kind: z.literal('printer'), partId: Id, printerId: Id }), {
  apply(document, { partId, printerId }, workshop) {
    if (!workshop.printers.some(p => p.id === printerId))
      throw new EditRefused('That printer is no longer in the workshop.');
    return withPart(document, partId, part => ({ ...part, printerId }));
  },
  words: () => 'Chose another printer',
});

export const pose = defineEdit(z.object({ kind: z.literal('pose'), partId: Id, pose: Pose }), {
  apply: (document, edit) => withPart(document, edit.partId, part => ({ ...part, pose: edit.pose })),
  words: () => 'Turned the part on the bed',
});

export const quality = defineEdit(z.object({ kind: z.literal('quality'), partId: Id, quality: Quality }), {
  apply: (document, edit) => withPart(document, edit.partId, part => ({ ...part, quality: edit.quality })),
  words: edit => `Chose to print it in ${edit.quality} quality`,
});

export const partLoads = defineEdit(
  z.object({ kind: z.literal('part-loads'), partId: Id, loads: Part.shape.loads }),
  {
    apply: (document, { partId, loads }) => withPart(document, partId, part => ({ ...part, loads })),
    words: () => 'Said what the part has to bear',
  },
);

export const partNeighbours = defineEdit(
  z.object({ kind: z.literal('part-neighbours'), partId: Id, neighbours: Part.shape.neighbours }),
  {
    apply: (document, { partId, neighbours }) =>
      withPart(document, partId, part => ({ ...part, neighbours })),
    words: () => 'Said what stands around the part',
  },
);

export const partKeepOpen = defineEdit(
  z.object({ kind: z.literal('part-keep-open'), partId: Id, keepOpen: Part.shape.keepOpen.unwrap() }),
  {
    apply: (document, { partId, keepOpen }) => withPart(document, partId, part => ({ ...part, keepOpen })),
    words: () => 'Said what of the part’s edges stays open',
  },
);

export const goesOn = defineEdit(
  z.object({ kind: z.literal('goes-on'), partId: Id, goesOn: Part.shape.goesOn }),
  {
    apply: (document, edit) => withPart(document, edit.partId, part => ({ ...part, goesOn: edit.goesOn })),
    words: edit => (edit.goesOn ? 'Said how the part goes on' : 'Left open how the part goes on'),
  },
);

/**
 * Restores an earlier version: its shape, plastic and pose. What tries taught since then stays, so its surfaces may be
 * drawn differently.
 */
export const backTo = defineEdit(
  z.object({
    kind: z.literal('back-to'),
    partId: Id,
    /** The version's number, for the words. */
    version: z.number().int().min(1),
    parameters: Part.shape.parameters,
    additions: Part.shape.additions,
    materialId: Part.shape.materialId,
    printerId: Part.shape.printerId,
    pose: Pose,
    base: Part.shape.base,
  }),
  {
    apply: (document, { partId, parameters, additions, materialId, printerId, pose, base }) =>
      withPart(document, partId, part => ({
        ...part,
        parameters,
        additions,
        materialId,
        printerId,
        pose,
        ...(base ? { base } : {}),
      })),
    words: ({ partId, version }, document) =>
      `Went back to version ${version} of ${nameOf.part(document, partId)}`,
  },
);
