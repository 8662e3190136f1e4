import { writeFileSync } from 'node:fs';
import { writeOutline } from '../core/files/outline-file';
import { type Curve, sweepOf } from '../core/shape/curve';
import { BadInput } from './command';
import { rounded } from './rounded';

const flat = (p: readonly number[]) => p.map(c => rounded(c, 5));

/** A line or an arc in the output of commands. */
export const segmentOf = (c: Curve) =>
  c.arc
    ? {
        kind: 'arc',
        from: flat(c.from),
        to: flat(c.to),
        centre: flat(c.arc.centre),
        radius: rounded(c.arc.radius, 5),
        sweep: rounded((c.arc.turn * sweepOf(c) * 180) / Math.PI, 4),
      }
    : { kind: 'line', from: flat(c.from), to: flat(c.to) };

/** Lines and arcs as a drawing's file. @param path ends in .svg or .dxf */
export function writeLines(
  path: string,
  title: string,
  loops: readonly { curves: readonly Curve[]; closed: boolean }[],
): void {
  const kind = /\.(svg|dxf)$/i.exec(path)?.[1]?.toLowerCase();
  if (kind !== 'svg' && kind !== 'dxf') throw new BadInput('--out is a .svg or a .dxf file.', 'out');
  writeFileSync(path, writeOutline(kind, title, loops));
}
