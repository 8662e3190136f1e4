import type { Neighbour, OpenZone } from '../job/document';
import { zoneBox } from '../shape/checks/keep-open';
import type { Bounds } from '../shape/mesh/mesh';

type Text = { text: string; unit: 'mm' | 'none' };
type Begins = Record<string, Text>;

const mm = (x: number): Text => ({ text: String(Number(x.toFixed(3))), unit: 'mm' });
const word = (text: string): Text => ({ text, unit: 'none' });

/** The initial numbers of a “Keep clear” that cuts away a neighbour's room: its body, place, turn and clearance. */
export function clearOfNeighbour(n: Neighbour): Begins {
  const own = (key: 'width' | 'depth' | 'height' | 'x' | 'y' | 'z' | 'room'): Text =>
    n.texts?.[key] ? { text: n.texts[key].text, unit: 'mm' } : mm(n[key]);
  const place = { x: own('x'), y: own('y'), z: own('z'), room: own('room') };
  if (n.form === 'model')
    return {
      ...place,
      form: word('model'),
      model: word(n.model ?? ''),
      lies: word(n.lies ?? 'drawn'),
      turn: mm(n.turn ?? 0),
    };
  if (n.form === 'round')
    return { ...place, form: word('round'), diameter: own('width'), height: own('height') };
  return { ...place, form: word('box'), width: own('width'), depth: own('depth'), height: own('height') };
}

/** Reaches beyond the part by this, so that no thin skin is left, mm. */
const BEYOND = 1;

/** The same for a stretch of an edge. @param bounds of the part */
export function clearOfZone(zone: OpenZone, bounds: Bounds): Begins {
  const zoned = zoneBox(zone, bounds, BEYOND);
  // Cuts end a little beyond the part's own faces.
  const low = zoned.min.map((x, i) => (x === bounds.min[i] ? x - BEYOND : x)) as [number, number, number];
  const high = zoned.max.map((x, i) => (x === bounds.max[i] ? x + BEYOND : x)) as [number, number, number];
  return {
    form: word('box'),
    width: mm(high[0] - low[0]),
    depth: mm(high[1] - low[1]),
    height: mm(high[2] - low[2]),
    x: mm((low[0] + high[0]) / 2),
    y: mm((low[1] + high[1]) / 2),
    z: mm(low[2]),
    room: mm(0),
  };
}
