import { XMLParser } from 'fast-xml-parser';
import svgpath from 'svgpath';
import { arcsAlong, type SmoothCurve } from '../../shape/biarc';
import type { Curve } from '../../shape/curve';
import type { Point2 } from '../../shape/vector';
import { distance2, unit2 } from '../../shape/vector';
import { type Profile, ProfileError } from './loops';

/** Scalable Vector Graphics 2 (W3C): shapes as paths, with all transforms above them. */
type Node = Record<string, unknown> & { ':@'?: Record<string, string> };

/** mm per unit of length (CSS Values and Units 3: 96 px an inch). */
const MM: Record<string, number> = { mm: 1, cm: 10, in: 25.4, pt: 25.4 / 72, pc: 25.4 / 6, px: 25.4 / 96 };
/** Elements that are drawn elsewhere, or not at all. */
const UNSEEN = new Set([
  'defs',
  'clipPath',
  'mask',
  'symbol',
  'pattern',
  'marker',
  'metadata',
  'style',
  'title',
  'desc',
]);
const SHAPES = new Set(['path', 'rect', 'circle', 'ellipse', 'line', 'polyline', 'polygon']);
const HOLDERS = new Set(['svg', 'g', 'a', 'switch']);
const DEEPEST = 60;
/** mm */
const TOLERANCE = 0.005;

/** Curves in mm, y up. @throws ProfileError */
export function readSvg(text: string): { curves: Curve[]; unit?: Profile['unit']; notes: string[] } {
  let tree: Node[];
  try {
    // No entities: a few lines of them can unfold into gigabytes.
    tree = new XMLParser({
      preserveOrder: true,
      ignoreAttributes: false,
      attributeNamePrefix: '',
      processEntities: false,
    }).parse(text);
  } catch (error) {
    throw new ProfileError(`This SVG cannot be read: ${(error as Error).message}.`);
  }
  const root = tree.find(n => 'svg' in n);
  if (!root) throw new ProfileError('This is not an SVG: it has no svg element.');
  const { scale, unit: said } = sizeOf(root[':@'] ?? {});
  const paths: string[] = [];
  const left = new Map<string, number>();
  const walk = (nodes: readonly Node[], transforms: readonly string[]) => {
    if (transforms.length > DEEPEST)
      throw new ProfileError('The groups of this SVG lie too deep in each other.');
    for (const node of nodes) {
      const name = Object.keys(node).find(k => k !== ':@')!;
      const given = node[':@'] ?? {};
      if (UNSEEN.has(name) || name === '#text' || name === '?xml' || hidden(given)) continue;
      const all = given.transform ? [...transforms, given.transform] : transforms;
      const own = name.replace(/^.*:/, '');
      if (HOLDERS.has(own)) walk(node[name] as Node[], all);
      else if (SHAPES.has(own)) {
        const path = pathOf(own, given);
        // Innermost first: the transform nearest to the shape acts first.
        if (path) paths.push(all.reduceRight((d, t) => svgpath(d).transform(t).toString(), path));
      } else left.set(own, (left.get(own) ?? 0) + 1);
    }
  };
  walk(root.svg as Node[], []);
  const notes = [...left]
    .filter(([name]) => ['use', 'text', 'image'].includes(name))
    .map(([name, count]) => `${count} × ${name} left out: turn it into paths first.`);
  return {
    curves: paths.flatMap(d => curvesOfPath(svgpath(d).scale(scale, -scale).toString())),
    unit: said,
    notes,
  };
}

const hidden = (given: Record<string, string>) =>
  given.display === 'none' || /display\s*:\s*none/.test(given.style ?? '') || given.visibility === 'hidden';

/** From the drawing's own units to mm. */
function sizeOf(given: Record<string, string>): { scale: number; unit?: Profile['unit'] } {
  const width = /^\s*([\d.]+(?:e-?\d+)?)\s*(mm|cm|in|pt|pc|px)?\s*$/.exec(given.width ?? '');
  const box = (given.viewBox ?? '')
    .trim()
    .split(/[\s,]+/)
    .map(Number);
  const across = box.length === 4 && box[2]! > 0 ? box[2]! : undefined;
  const named = width?.[2] && width[2] !== 'px' ? (width[2] as Profile['unit']) : undefined;
  const unit = named && ['mm', 'cm', 'in'].includes(named) ? named : named ? 'mm' : undefined;
  if (!width) return { scale: MM.px!, unit: undefined };
  const mm = Number(width[1]) * MM[width[2] ?? 'px']!;
  return { scale: across ? mm / across : MM[width[2] ?? 'px']!, unit };
}

const n = (given: Record<string, string>, name: string) => Number.parseFloat(given[name] ?? '0') || 0;

function pathOf(name: string, given: Record<string, string>): string | null {
  switch (name) {
    case 'path':
      return given.d ?? null;
    case 'rect': {
      const [x, y, w, h] = [n(given, 'x'), n(given, 'y'), n(given, 'width'), n(given, 'height')];
      if (!(w > 0 && h > 0)) return null;
      const rx = Math.min(n(given, 'rx') || n(given, 'ry'), w / 2);
      const ry = Math.min(n(given, 'ry') || n(given, 'rx'), h / 2);
      if (rx === 0) return `M${x} ${y}h${w}v${h}h${-w}z`;
      const arc = (dx: number, dy: number) => `a${rx} ${ry} 0 0 1 ${dx} ${dy}`;
      return `M${x + rx} ${y}h${w - 2 * rx}${arc(rx, ry)}v${h - 2 * ry}${arc(-rx, ry)}h${2 * rx - w}${arc(-rx, -ry)}v${2 * ry - h}${arc(rx, -ry)}z`;
    }
    case 'circle':
    case 'ellipse': {
      const rx = n(given, name === 'circle' ? 'r' : 'rx');
      const ry = name === 'circle' ? rx : n(given, 'ry');
      if (!(rx > 0 && ry > 0)) return null;
      const [x, y] = [n(given, 'cx'), n(given, 'cy')];
      return `M${x - rx} ${y}A${rx} ${ry} 0 0 1 ${x + rx} ${y}A${rx} ${ry} 0 0 1 ${x - rx} ${y}z`;
    }
    case 'line':
      return `M${n(given, 'x1')} ${n(given, 'y1')}L${n(given, 'x2')} ${n(given, 'y2')}`;
    default:
      return given.points ? `M${given.points}${name === 'polygon' ? 'z' : ''}` : null;
  }
}

function curvesOfPath(d: string): Curve[] {
  const curves: Curve[] = [];
  let start: Point2 = [0, 0];
  const line = (from: Point2, to: Point2) => {
    if (distance2(from, to) > 1e-9) curves.push({ from, to });
  };
  // Broken paths are drawn up to the break, as browsers do: svgpath keeps what it could read.
  svgpath(d)
    .abs()
    .unshort()
    .iterate((segment, _, x, y) => {
      const from: Point2 = [x, y];
      // The package's types declare its numbers as texts.
      const [command, ...n] = segment as [string, ...(string | number)[]];
      const s = [0, ...n.map(Number)];
      const to: Point2 = [s.at(-2)!, s.at(-1)!];
      switch (command) {
        case 'M':
          start = to;
          break;
        case 'L':
          line(from, to);
          break;
        case 'H':
          line(from, [s[1]!, y]);
          break;
        case 'V':
          line(from, [x, s[1]!]);
          break;
        case 'Z':
        case 'z':
          line(from, start);
          break;
        case 'A':
          curves.push(...ellipticalArc(from, s, to));
          break;
        case 'Q': {
          const c: Point2 = [s[1]!, s[2]!];
          const third = (p: Point2): Point2 => [
            p[0] + (2 / 3) * (c[0] - p[0]),
            p[1] + (2 / 3) * (c[1] - p[1]),
          ];
          curves.push(...arcsAlong(bezier(from, third(from), third(to), to), TOLERANCE));
          break;
        }
        case 'C':
          curves.push(...arcsAlong(bezier(from, [s[1]!, s[2]!], [s[3]!, s[4]!], to), TOLERANCE));
          break;
      }
    });
  return curves;
}

function bezier(a: Point2, b: Point2, c: Point2, d: Point2): SmoothCurve {
  const mix = (w: readonly [number, number, number, number]): Point2 => [
    w[0] * a[0] + w[1] * b[0] + w[2] * c[0] + w[3] * d[0],
    w[0] * a[1] + w[1] * b[1] + w[2] * c[1] + w[3] * d[1],
  ];
  return {
    at: t => mix([(1 - t) ** 3, 3 * t * (1 - t) ** 2, 3 * t * t * (1 - t), t ** 3]),
    heading: t => {
      // A handle of zero length takes its direction from slightly farther along.
      const h = Math.min(1 - 1e-4, Math.max(1e-4, t));
      const at = (x: number) =>
        mix([-((1 - x) ** 2), (1 - x) ** 2 - 2 * x * (1 - x), 2 * x * (1 - x) - x * x, x * x]);
      const v = at(t);
      return unit2(Math.hypot(v[0], v[1]) > 1e-9 ? v : at(h));
    },
  };
}

/** SVG 2, appendix B.2: from end points to the centre. */
function ellipticalArc(from: Point2, s: readonly number[], to: Point2): Curve[] {
  let [rx, ry] = [Math.abs(s[1]!), Math.abs(s[2]!)];
  if (rx < 1e-9 || ry < 1e-9) return [{ from, to }];
  const phi = (s[3]! * Math.PI) / 180;
  const [c, si] = [Math.cos(phi), Math.sin(phi)];
  const half: Point2 = [(from[0] - to[0]) / 2, (from[1] - to[1]) / 2];
  const [px, py] = [c * half[0] + si * half[1], -si * half[0] + c * half[1]];
  const grow = (px / rx) ** 2 + (py / ry) ** 2;
  if (grow > 1) [rx, ry] = [rx * Math.sqrt(grow), ry * Math.sqrt(grow)];
  const top = (rx * ry) ** 2 - (rx * py) ** 2 - (ry * px) ** 2;
  const factor = (s[4] === s[5] ? -1 : 1) * Math.sqrt(Math.max(0, top / ((rx * py) ** 2 + (ry * px) ** 2)));
  const [ux, uy] = [(factor * rx * py) / ry, (-factor * ry * px) / rx];
  const centre: Point2 = [c * ux - si * uy + (from[0] + to[0]) / 2, si * ux + c * uy + (from[1] + to[1]) / 2];
  if (Math.abs(rx - ry) < 1e-6 * rx) return [{ from, to, arc: { centre, radius: rx, turn: s[5] ? 1 : -1 } }];
  const angle = (x: number, y: number) => Math.atan2(y / ry, x / rx);
  const start = angle(px - ux, py - uy);
  let sweep = angle(-px - ux, -py - uy) - start;
  if (s[5] && sweep < 0) sweep += 2 * Math.PI;
  if (!s[5] && sweep > 0) sweep -= 2 * Math.PI;
  const turned = (x: number, y: number): Point2 => [c * x - si * y, si * x + c * y];
  return arcsAlong(
    {
      at: t => {
        const [x, y] = turned(rx * Math.cos(start + t * sweep), ry * Math.sin(start + t * sweep));
        return [centre[0] + x, centre[1] + y];
      },
      heading: t => {
        const sense = Math.sign(sweep);
        const [x, y] = turned(-rx * Math.sin(start + t * sweep), ry * Math.cos(start + t * sweep));
        return unit2([sense * x, sense * y]);
      },
    },
    TOLERANCE,
  );
}
