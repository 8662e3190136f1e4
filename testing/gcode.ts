import type { ToolLayer, ToolPath } from './toolpaths';

/** Writes the tests' own toolpaths as G-code in several dialects. */

export interface Dialect {
  relativeE?: boolean;
  inches?: boolean;
  numbered?: boolean;
  /** No comments at all. */
  bare?: boolean;
  /** Circles as G2 and G3 where a path is one. */
  arcs?: boolean;
  digits?: number;
  lowerCase?: boolean;
  hops?: boolean;
}

const WORDS: Readonly<Record<ToolPath['role'], string>> = {
  outer: 'TYPE:Outer wall',
  inner: 'TYPE:Inner wall',
  skin: 'TYPE:Solid infill',
  infill: 'TYPE:Sparse infill',
  support: 'TYPE:Support',
  skirt: 'TYPE:Skirt',
};

/** Of filament 1.75 thick. */
const FILAMENT = (Math.PI * 1.75 ** 2) / 4;

export interface Placing {
  /** Turned, degrees, then moved, mm. */
  turn?: number;
  at?: [number, number];
  scale?: number;
  /** Left and right changed. */
  mirror?: boolean;
}

/** @param lineWidth of every line, mm; the plastic of a line is width × height × length */
export function gcodeOf(
  layers: readonly ToolLayer[],
  lineWidth: number,
  dialect: Dialect = {},
  placing: Placing | readonly Placing[] = {},
): string {
  const { relativeE, inches, numbered, bare, digits = 3, lowerCase, hops } = dialect;
  const unit = inches ? 25.4 : 1;
  const out: string[] = [];
  let line = 0;
  const put = (text: string) => {
    const whole = lowerCase && !text.startsWith(';') ? text.toLowerCase() : text;
    if (numbered && !text.startsWith(';')) {
      const body = `N${++line} ${whole}`;
      const sum = [...body].reduce((s, c) => s ^ c.charCodeAt(0), 0);
      out.push(`${body}*${sum}`);
    } else out.push(whole);
  };
  const say = (text: string) => {
    if (!bare) put(`;${text}`);
  };
  const n = (x: number, d = digits) => (x / unit).toFixed(inches ? d + 2 : d);
  say('FLAVOR:any');
  say('estimated printing time = 12m 30s');
  put(inches ? 'G20' : 'G21');
  put('G90');
  put(relativeE ? 'M83' : 'M82');
  put('G28');
  put(`G92 E0`);
  // The nozzle is primed along the bed's edge.
  put(`G1 X${n(5)} Y${n(5)} Z${n(0.3)} F${n(5000)}`);
  let e = 0;
  const push = (by: number) => {
    e += by;
    const shown = relativeE ? by : e;
    return (shown / unit).toFixed(5);
  };
  put(`G1 X${n(60)} Y${n(5)} E${push(4)} F${n(1200)}`);
  let retracted = false;
  for (const { z, height, paths } of layers) {
    for (const place of Array.isArray(placing) ? placing : [placing as Placing]) {
      const { turn = 0, at = [110, 110], scale = 1, mirror = false } = place;
      const a = (turn * Math.PI) / 180;
      const go = ([px, py]: readonly [number, number]): [number, number] => {
        const [x, y] = [(mirror ? -px : px) * scale, py * scale];
        return [Math.cos(a) * x - Math.sin(a) * y + at[0], Math.sin(a) * x + Math.cos(a) * y + at[1]];
      };
      for (const path of paths) {
        say(WORDS[path.role]);
        const points = path.points.map(go);
        if (!retracted) {
          put(`G1 E${push(-0.8)} F${n(2400)}`);
          retracted = true;
        }
        if (hops) {
          put('G91');
          put(`G1 Z${n(0.4)} F${n(6000)}`);
          put('G90');
        }
        put(`G0 X${n(points[0]![0])} Y${n(points[0]![1])} Z${n(z * scale)} F${n(9000)}`);
        put(`G1 E${push(0.8)} F${n(2400)}`);
        retracted = false;
        for (let i = 1; i < points.length; i++) {
          const [x, y] = points[i]!;
          const long = Math.hypot(x - points[i - 1]![0], y - points[i - 1]![1]);
          put(`G1 X${n(x)} Y${n(y)} E${push((lineWidth * height * scale * long) / FILAMENT)} F${n(3000)}`);
        }
      }
    }
  }
  put(`G1 E${push(-2)} F${n(2400)}`);
  put(`G1 Z${n((layers.at(-1)?.z ?? 0) + 20)}`);
  put('M104 S0');
  return `${out.join('\n')}\n`;
}
