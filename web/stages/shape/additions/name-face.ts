import type { Part } from '../../../../core/job/document';
import { faceInWords, type Press } from '../../../../core/shape/additions/pressed';
import type { Parameters } from '../../../../core/shape/recipes/parameters';
import { kernelLine } from '../../../solid/kernel-worker';

/** The name of a pressed face; only its direction where the kernel has no answer. */
export async function nameFace(
  { recipe, additions }: Part,
  parameters: Parameters,
  press: Press,
): Promise<string> {
  const answer = await kernelLine('nameFace')
    .ask(api => api.nameFace({ recipe, additions, parameters }, press))
    // A kernel error is reported where the solid is shown.
    .catch(() => null);
  return answer?.ok ? answer.place : faceInWords({ up: press.normal, offset: null });
}
