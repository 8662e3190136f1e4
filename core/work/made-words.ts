import type { Version } from '../job/history';
import type { Material, Printer, Workshop } from '../job/workshop';

/** How a version differs in making from the next one. */
export function otherwise(
  { materialId, printerId }: Pick<Version, 'materialId' | 'printerId'>,
  { material, printer, workshop }: { material: Material; printer: Printer; workshop: Workshop },
): string {
  if (materialId !== material.id)
    return workshop.materials.find(m => m.id === materialId)?.name ?? 'another plastic';
  if (printerId !== printer.id)
    return workshop.printers.find(p => p.id === printerId)?.name ?? 'another printer';
  return 'a print that lay differently';
}
