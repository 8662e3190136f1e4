import type { Curve } from '../../shape/curve';
import { curvesOfParted, partedLine } from '../../shape/lines-and-arcs/lines-and-arcs';
import type { Parted } from '../../shape/lines-and-arcs/pieces';
import type { ScanSurface } from '../scan-surface';
import { type CutPlane, cutAt } from './cut';

/** A section of a scan as lines and arcs, in the plane's own two directions from its point. Lengths mm. */
export interface SectionLoop {
  closed: boolean;
  curves: Curve[];
  /** The points that the curves were fitted to, for tidying. */
  parted: Parted;
}

/** How far a section's points may scatter about its lines: no scan is better than the first. */
export const toleranceOf = (scan: ScanSurface): number => Math.max(0.12, 3 * scan.fuzz);

export const sectionOf = (scan: ScanSurface, plane: CutPlane, tolerance = toleranceOf(scan)): SectionLoop[] =>
  cutAt(scan.mesh, plane, scan.spacing)
    .flatMap(({ points, closed }) => {
      const parted = partedLine(points, closed, tolerance);
      return parted ? [{ closed, curves: curvesOfParted(parted), parted }] : [];
    })
    .filter(l => l.curves.length > 0);
