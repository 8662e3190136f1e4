import { solidMinutes } from '../print/estimate';
import { polygonArea } from '../shape/mesh/section';
import { FEATURES, PLATE, plateOutlines } from './piece';

/** What the piece costs, from plain areas; a test compares its volume with the solid's. */

/** mm³, without the raised figures. */
export function pieceVolume(): number {
  const { foot, deck } = plateOutlines();
  const { thickness, relief, proud } = PLATE;
  let volume = polygonArea(foot) * PLATE.foot + polygonArea(deck) * (thickness - PLATE.foot);
  for (const f of FEATURES) {
    if (!f.text) continue;
    const area = (more: number) => {
      if (f.centre) return Math.PI * (f.size / 2 + more) ** 2;
      const [x0, y0, x1, y1] = f.box!;
      return (x1 - x0 + 2 * more) * (y1 - y0 + 2 * more);
    };
    if (f.kind === 'hole' || f.kind === 'slot')
      volume -= area(relief) * PLATE.foot + area(0) * (thickness - PLATE.foot);
    else volume += area(0) * (f.kind === 'height' ? f.size - thickness : proud);
  }
  return volume;
}

/** Minutes to print the piece. @param nozzle and layer, mm */
export const pieceMinutes = (nozzle: number, layer: number): number =>
  solidMinutes(pieceVolume(), nozzle, layer);

/** @param density g/cm³ */
export const pieceGrams = (density: number): number => (pieceVolume() / 1000) * density;

/** Time to read one feature, minutes. Common practice, no source. */
export const MINUTES_A_READING = 0.2;
