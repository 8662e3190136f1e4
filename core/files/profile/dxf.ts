import DxfParser, { type IEntity, type IPoint } from 'dxf-parser';
import type { IArcEntity } from 'dxf-parser/dist/entities/arc';
import type { ICircleEntity } from 'dxf-parser/dist/entities/circle';
import type { IEllipseEntity } from 'dxf-parser/dist/entities/ellipse';
import type { ILineEntity } from 'dxf-parser/dist/entities/line';
import type { ILwpolylineEntity } from 'dxf-parser/dist/entities/lwpolyline';
import type { IPolylineEntity } from 'dxf-parser/dist/entities/polyline';
import type { ISplineEntity } from 'dxf-parser/dist/entities/spline';
import { arcsAlong } from '../../shape/biarc';
import type { Curve } from '../../shape/curve';
import type { Point2 } from '../../shape/vector';
import { distance2, unit2 } from '../../shape/vector';
import { type Profile, ProfileError } from './loops';

/** $INSUNITS of a DXF drawing (Autodesk's DXF reference, HEADER section; recalled from memory). */
const UNITS: Record<number, Profile['unit']> = { 1: 'in', 4: 'mm', 5: 'cm', 6: 'm' };
/** In the file's own units; splines and ellipses become arcs that stay this near to them. */
const TOLERANCE = 0.005;

/** @throws ProfileError */
export function readDxf(text: string): { curves: Curve[]; unit?: Profile['unit']; notes: string[] } {
  let file: ReturnType<DxfParser['parseSync']>;
  try {
    file = new DxfParser().parseSync(text);
  } catch (error) {
    throw new ProfileError(`This DXF cannot be read: ${(error as Error).message}.`);
  }
  if (!file) throw new ProfileError('This DXF is empty.');
  const left = new Map<string, number>();
  const curves = file.entities.flatMap(entity => {
    const found = curvesOfEntity(entity);
    if (!found) left.set(entity.type, (left.get(entity.type) ?? 0) + 1);
    return found ?? [];
  });
  const notes = [...left].map(
    ([type, count]) =>
      `${count} × ${type} left out: only lines, arcs, circles, polylines, ellipses and splines are read.`,
  );
  return { curves, unit: UNITS[Number(file.header?.$INSUNITS)], notes };
}

const flat = (p: IPoint): Point2 => [p.x, p.y];
/** Seen from below, which mirrors its own x axis. */
const seenFrom = (z: number | undefined) => (z !== undefined && z < 0 ? -1 : 1);

function curvesOfEntity(entity: IEntity): Curve[] | null {
  switch (entity.type) {
    case 'LINE': {
      const [a, b] = (entity as ILineEntity).vertices;
      return a && b ? [{ from: flat(a), to: flat(b) }] : [];
    }
    case 'CIRCLE': {
      const { center, radius } = entity as ICircleEntity;
      return wholeCircle(flat(center), radius);
    }
    case 'ARC': {
      const { center, radius, startAngle, endAngle, extrusionDirectionZ } = entity as IArcEntity;
      const mirror = seenFrom(extrusionDirectionZ);
      const at = (a: number): Point2 => [
        mirror * (center.x + radius * Math.cos(a)),
        center.y + radius * Math.sin(a),
      ];
      const turn = mirror > 0 ? 1 : -1;
      return [
        {
          from: at(startAngle),
          to: at(endAngle),
          arc: { centre: [mirror * center.x, center.y], radius, turn },
        },
      ];
    }
    case 'LWPOLYLINE':
    case 'POLYLINE': {
      const { vertices, shape } = entity as ILwpolylineEntity | IPolylineEntity;
      const mirror = seenFrom((entity as ILwpolylineEntity).extrusionDirectionZ);
      return vertices.flatMap((v, i) => {
        const next = vertices[i + 1] ?? (shape ? vertices[0] : undefined);
        if (!next) return [];
        return [bulged([mirror * v.x, v.y], [mirror * next.x, next.y], mirror * (v.bulge ?? 0))];
      });
    }
    case 'ELLIPSE':
      return ellipse(entity as IEllipseEntity);
    case 'SPLINE':
      return spline(entity as ISplineEntity);
    default:
      return null;
  }
}

export function wholeCircle([x, y]: Point2, radius: number): Curve[] {
  const arc = { centre: [x, y] as Point2, radius, turn: 1 as const };
  return [
    { from: [x - radius, y], to: [x + radius, y], arc },
    { from: [x + radius, y], to: [x - radius, y], arc },
  ];
}

/** A bulge is the tangent of a quarter of the arc's angle, positive counter-clockwise. */
function bulged(from: Point2, to: Point2, bulge: number): Curve {
  const chord = distance2(from, to);
  if (Math.abs(bulge) < 1e-9 || chord < 1e-9) return { from, to };
  const radius = (chord * (1 + bulge * bulge)) / (4 * Math.abs(bulge));
  const off = (chord * (1 - bulge * bulge)) / (4 * bulge);
  const [x, y] = unit2([to[0] - from[0], to[1] - from[1]]);
  const centre: Point2 = [(from[0] + to[0]) / 2 - off * y, (from[1] + to[1]) / 2 + off * x];
  return { from, to, arc: { centre, radius, turn: bulge > 0 ? 1 : -1 } };
}

function ellipse({
  center,
  majorAxisEndPoint: major,
  axisRatio,
  startAngle,
  endAngle,
}: IEllipseEntity): Curve[] {
  const sweep = endAngle - startAngle > 1e-9 ? endAngle - startAngle : endAngle - startAngle + 2 * Math.PI;
  const angle = (t: number) => startAngle + t * sweep;
  const along = (c: number, s: number): Point2 => [
    c * major.x - s * axisRatio * major.y,
    c * major.y + s * axisRatio * major.x,
  ];
  return arcsAlong(
    {
      at: t => {
        const [x, y] = along(Math.cos(angle(t)), Math.sin(angle(t)));
        return [center.x + x, center.y + y];
      },
      heading: t => unit2(along(-Math.sin(angle(t)), Math.cos(angle(t)))),
    },
    TOLERANCE,
  );
}

/** Each stretch between knots is smooth; the reader does not return weights. */
function spline({ controlPoints, knotValues, degreeOfSplineCurve: degree }: ISplineEntity): Curve[] | null {
  if (!controlPoints || controlPoints.length <= degree || degree < 1 || degree > 5) return null;
  if (knotValues.length !== controlPoints.length + degree + 1) return null;
  const points = controlPoints.map(flat);
  const curves: Curve[] = [];
  for (let k = degree; k < points.length; k++) {
    const [a, b] = [knotValues[k]!, knotValues[k + 1]!];
    if (!(b - a > 1e-12)) continue;
    const at = (u: number) => deBoor(points, knotValues, degree, k, u);
    const step = (b - a) * 1e-4;
    curves.push(
      ...arcsAlong(
        {
          at: t => at(a + t * (b - a)),
          heading: t => {
            const u = a + t * (b - a);
            const [before, after] = [at(Math.max(a, u - step)), at(Math.min(b, u + step))];
            return unit2([after[0] - before[0], after[1] - before[1]]);
          },
        },
        TOLERANCE,
      ),
    );
  }
  return curves;
}

function deBoor(
  points: readonly Point2[],
  knots: readonly number[],
  degree: number,
  k: number,
  u: number,
): Point2 {
  const d = Array.from({ length: degree + 1 }, (_, j) => points[j + k - degree]!);
  for (let r = 1; r <= degree; r++)
    for (let j = degree; j >= r; j--) {
      const low = knots[j + k - degree]!;
      const share = (u - low) / (knots[j + 1 + k - r]! - low || 1);
      d[j] = [(1 - share) * d[j - 1]![0] + share * d[j]![0], (1 - share) * d[j - 1]![1] + share * d[j]![1]];
    }
  return d[degree]!;
}
