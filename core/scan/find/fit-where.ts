import type { Point3 } from '../../shape/vector';
import { type Found, fitAt } from '../fit/fit';
import type { PrimitiveKind } from '../fit/primitive';
import type { ScanSurface } from '../scan-surface';
import { prismAt } from './prisms';

/** A surface of any kind at a pressed place. Lengths mm. @param radius of the region to start from */
export function fitWhere(
  scan: ScanSurface,
  { kind, near, radius }: { kind: PrimitiveKind; near: Point3; radius: number },
): Found | null {
  if (kind === 'hexagon') return prismAt(scan, near, radius, 6);
  if (kind === 'prism') return prismAt(scan, near, radius, null);
  return fitAt(scan, { kind, near, radius });
}
