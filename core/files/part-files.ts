import { strToU8 } from 'fflate';
import { type Pose, posed } from '../print/pose';
import type { BuiltPart } from '../shape/built-part';
import { finished } from '../shape/finish';
import { exactOf, KernelError, type Kernels } from '../shape/kernels/kernel';
import { joined } from '../shape/mesh/mesh';
import { recipeWith } from '../shape/recipe-with';
import { wholeOf } from '../shape/recipes/recipe';
import type { SolidSpec } from '../shape/solid-key';
import { writeStl } from './stl';
import { type ThreeMfBody, writeThreeMf } from './three-mf';

/** A part's files. Those made of triangles are written from the finished solid; STEP needs the kernel once more. */
export const FILE_KINDS = ['3mf', 'step', 'stl'] as const;
export type FileKind = (typeof FILE_KINDS)[number];

/** The texts that are written into files. */
export interface FileWords {
  name: string;
  /** The printer that the sizes are compensated for. */
  note: string;
}

/** Bodies by name: the part as it lies on the bed, or its pieces, each already laid there. */
const bodiesOfPart = ({ mesh, pieces }: BuiltPart, name: string, pose: Pose): ThreeMfBody[] =>
  pieces.length > 0
    ? pieces.map(p => ({ name: `${name}, ${p.name}`, mesh: p.mesh }))
    : [{ name, mesh: posed(mesh, pose) }];

export const partThreeMf = (part: BuiltPart, { name, note }: FileWords, pose: Pose): Uint8Array =>
  writeThreeMf(name, note, bodiesOfPart(part, name, pose));

export const partStl = (part: BuiltPart, name: string, pose: Pose): Uint8Array =>
  writeStl(joined(bodiesOfPart(part, name, pose).map(b => b.mesh)), name);

/** A placeholder for the part's name in a stored STEP text: one solid may be given several names. */
const NAME = 'SAGOMA-PART-NAME';

/** The exact surfaces as STEP text, still without a name. @throws KernelError when the part has none */
export async function partStep(spec: SolidSpec, kernels: Kernels): Promise<string> {
  const recipe = recipeWith(spec.recipe, spec.additions);
  try {
    const made = finished(recipe, wholeOf(recipe, spec.parameters), kernels);
    const bodies = (made.pieces.length > 0 ? made.pieces : [{ body: made.body, name: '' }]).flatMap(p => {
      const body = exactOf(p.body, kernels.part);
      return body ? [{ body, name: [NAME, asciiName(p.name)].filter(Boolean).join(', ') }] : [];
    });
    if (bodies.length === 0)
      throw new KernelError('Nothing of this part has exact surfaces: take 3MF or STL');
    return await kernels.part.step(bodies);
  } finally {
    kernels.part.release();
  }
}

/** A stored STEP text with the part's name filled in. */
export const namedStep = (step: string, name: string): Uint8Array =>
  strToU8(step.replaceAll(NAME, asciiName(name).replace(/['\\]/g, '$&$&') || 'part'));

/** The STEP writer handles names byte by byte, so only letters that every reader agrees on are used. */
const asciiName = (name: string): string =>
  name
    .normalize('NFKD')
    .replace(/[^\x20-\x7e]/g, '')
    .trim()
    .slice(0, 60);
