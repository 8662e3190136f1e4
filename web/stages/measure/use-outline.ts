import { writeHoles } from '../../../core/shape/outline-text';
import { requireRecipe } from '../../../core/shape/recipes';
import { freePartId } from '../../job/AddPartDialog';
import { useBench } from '../../job/bench-context';

interface Measured {
  outline: string;
  holes: readonly { x: number; y: number; diameter: number }[];
}

/** The recipe that takes any outline. */
const OF_AN_OUTLINE = 'profile-part';

/** A measured outline becomes the part's, or a new part where the recipe takes none. */
export function useOutline() {
  const { document, resolved, edit, setPart, go, say } = useBench(
    'document',
    'resolved',
    'edit',
    'setPart',
    'go',
    'say',
  );
  const outlineOf = (recipe: typeof resolved.recipe) => recipe.parameters.find(p => p.kind === 'outline');
  const takes = outlineOf(resolved.recipe) !== undefined;
  return {
    /** The label of the button. */
    words: takes ? 'Use it as the outline' : 'Make a profile part of it',
    async use({ outline, holes }: Measured, name: string, said: string): Promise<void> {
      const recipe = takes ? resolved.recipe : requireRecipe(OF_AN_OUTLINE);
      const partId = takes ? resolved.part.id : freePartId(document.parts);
      if (!takes && !(await edit({ kind: 'add-part', id: partId, name, recipe: recipe.id, share: false })))
        return;
      const put = (parameter: string, text: string) =>
        edit({ kind: 'parameter', partId, name: parameter, expression: { text, unit: 'mm' } });
      if (!(await put(outlineOf(recipe)!.name, outline))) return;
      if (recipe.parameters.some(p => p.name === 'holes') && holes.length > 0)
        await put('holes', writeHoles(holes));
      if (!takes) setPart(partId);
      say(said);
      go('shape');
    },
  };
}
