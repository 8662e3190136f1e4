import {
  type DrawDimension,
  type Drawing,
  type DrawPoint,
  type DrawShape,
  frameOf,
  mirrored,
} from '../../drawing/drawing';
import { pointsOf } from '../../outline';
import { lengthOf, type Parameters } from '../parameters';
import { has } from './parameters';
import { capOutline, mateSurfaces, sizesOf, tabThickness } from './solid';

/** A cut through the cap, mouth down as it sits on the object, with the numbers that are drawn. */
export function capDrawing(p: Parameters): Drawing {
  const s = sizesOf(p);
  const height = Math.max(s.skirt?.top ?? 0, s.plug?.top ?? 0);
  // Turned over: on the bed its mouth is up, on the object down.
  const flip = ([x, z]: DrawPoint): DrawPoint => [x, height - z];
  // The half outline runs from the axis back to the axis: with its mirror image it is one closed line.
  const half = pointsOf(capOutline(p)).slice(0, -1).map(flip);
  const shapes: DrawShape[] = [
    { ink: 'cut', points: [...half, ...mirrored(half).reverse()], closed: true },
    {
      ink: 'centre',
      points: [
        [0, -3],
        [0, height + 4],
      ],
    },
  ];
  if (has.tab(p)) {
    const tip = s.rim + lengthOf(p, 'tabLength');
    const box: DrawPoint[] = [
      [s.rim, 0],
      [tip, 0],
      [tip, tabThickness(p)],
      [s.rim, tabThickness(p)],
    ];
    shapes.push({ ink: 'edge', points: box.map(flip), closed: true });
  }
  if (s.strap) {
    const { at, outer, thickness } = s.strap;
    const strip: DrawPoint[] = [
      [at - outer, 0],
      [-s.rim, 0],
      [-s.rim, thickness],
      [at - outer, thickness],
    ];
    shapes.push({ ink: 'edge', points: strip.map(flip), closed: true });
  }
  if (s.slots) {
    const { from, mouth, width, outer } = s.slots;
    for (const sign of [-1, 1]) {
      const slot: DrawPoint[] = [
        [sign * (outer - width), from],
        [sign * outer, from],
        [sign * outer, mouth],
        [sign * (outer - width), mouth],
      ];
      shapes.push({ ink: 'ghost', points: slot.map(flip), closed: true });
    }
  }
  const dimensions: DrawDimension[] = [];
  const gap = Math.max(5, s.rim / 4);
  let below = -gap;
  for (const surface of mateSurfaces(p)) {
    if (surface.mate === 'ring') {
      const { at, hole, thickness } = s.strap!;
      for (const sign of [-1, 1])
        shapes.push({
          ink: 'mate',
          key: 'ring',
          points: [flip([at + sign * hole, 0]), flip([at + sign * hole, thickness])],
        });
      const y = height - thickness / 2;
      dimensions.push({
        key: 'ring',
        label: 'ring',
        from: [at - hole, y],
        to: [at + hole, y],
        line: height - thickness - gap,
        direction: 'across',
        diameter: true,
      });
      continue;
    }
    for (const sign of [-1, 1]) {
      shapes.push({
        ink: 'mate',
        key: surface.mate,
        points: [
          flip([(sign * surface.size) / 2, surface.from]),
          flip([(sign * surface.size) / 2, surface.to]),
        ],
      });
    }
    const y = height - surface.at[2];
    dimensions.push(across(surface.mate, surface.mate, surface.size, y, below));
    below -= gap;
  }
  const left = -s.rim - 0.7 * gap;
  if (s.skirt) dimensions.push(up('skirtDepth', 'depth', -s.skirt.outer, 0, s.skirt.top - s.end, left));
  else if (s.plug) dimensions.push(up('plugDepth', 'depth', -s.plug.outer, 0, s.plug.top - s.end, left));
  dimensions.push(up('endThickness', 'end', -s.rim, height - s.end, height, left));
  return {
    title: 'Cut through the cap, as it sits',
    shapes,
    dimensions,
    frame: frameOf(shapes, dimensions, 2),
  };
}

/** A cut through the port with the dimensions to measure. */
export function portDrawing(measured: Readonly<Record<string, number>>, p: Parameters): Drawing {
  const rim = measured.rim ?? 31.7;
  const scale = rim / 31.7;
  const height = has.skirt(p) ? (measured.rim_height ?? 14 * scale) : 14 * scale;
  const bore = Math.min(measured.bore ?? 24.2 * scale, 0.95 * rim);
  const from = Math.min(measured.groove_from ?? 0.4 * height, 0.8 * height);
  const width = Math.min(measured.groove_width ?? 0.2 * height, height - from);
  const groove = has.lip(p) ? Math.min(measured.groove ?? rim - 2.3 * scale, rim) : rim;
  const inner = has.bead(p) ? Math.max(measured.inner_groove ?? bore + 1.4 * scale, bore) : bore;
  const [R, B, G, I] = [rim / 2, bore / 2, groove / 2, inner / 2];
  const base = 0.28 * height;
  const flange = R + 0.3 * rim;
  const ring: DrawPoint[] = [
    [B, -base],
    [flange, -base],
    [flange, 0],
    [R, 0],
    [R, height - from - width],
    [G, height - from - width],
    [G, height - from],
    [R, height - from],
    [R, height],
    [B, height],
    [B, height - from],
    [I, height - from],
    [I, height - from - width],
    [B, height - from - width],
  ];
  const shapes: DrawShape[] = [
    { ink: 'cut', points: ring, closed: true },
    { ink: 'cut', points: mirrored(ring), closed: true },
    {
      ink: 'centre',
      points: [
        [0, -base - 4],
        [0, height + 5],
      ],
    },
  ];
  const gap = Math.max(4, rim / 6);
  /** Upright dimensions run beside the rim, above the flange. */
  const side = R + 0.17 * rim;
  const dimensions: DrawDimension[] = [];
  let above = height + gap;
  const mark = (key: string, label: string, half: number, low: number, high: number, at: number) => {
    for (const sign of [-1, 1])
      shapes.push({
        ink: 'mate',
        key,
        points: [
          [sign * half, low],
          [sign * half, high],
        ],
      });
    dimensions.push(across(key, label, 2 * half, (low + high) / 2, at));
  };
  if (has.plug(p)) {
    mark('bore', 'bore', B, has.bead(p) ? height - from : 0.2 * height, height, above);
    above += gap;
  }
  if (has.skirt(p)) mark('rim', 'rim', R, has.lip(p) ? height - from : 0.2 * height, height, above);
  if (has.lip(p)) mark('groove', 'groove', G, height - from - width, height - from, -base - gap);
  if (has.bead(p))
    mark(
      'inner_groove',
      'inner groove',
      I,
      height - from - width,
      height - from,
      -base - (has.lip(p) ? 2 : 1) * gap,
    );
  if (has.strap(p)) {
    const neck = Math.min(measured.neck ?? 20 * scale, 1.9 * R) / 2;
    mark('neck', 'neck', neck, -base, -0.4 * base, -base - 3 * gap);
  }
  if (has.ridge(p)) {
    const x = has.lip(p) ? R : B;
    dimensions.push(up('groove_from', 'from top', x, height - from, height, side));
    dimensions.push(up('groove_width', 'width', x, height - from - width, height - from, side));
  }
  if (has.skirt(p)) dimensions.push(up('rim_height', 'height', -R, 0, height, -side));
  return { title: 'Cut through the object', shapes, dimensions, frame: frameOf(shapes, dimensions, 2) };
}

function across(key: string, label: string, size: number, y: number, line: number): DrawDimension {
  return { key, label, from: [-size / 2, y], to: [size / 2, y], line, direction: 'across', diameter: true };
}

function up(key: string, label: string, x: number, low: number, high: number, line: number): DrawDimension {
  return { key, label, from: [x, low], to: [x, high], line, direction: 'up' };
}
