import { finding } from '../../findings/finding';
import { type Body, KernelError } from '../../kernels/kernel';
import { placedModel, SIDES_DOWN, type SideDown } from '../../model';
import { circle, rectangle } from '../../outline';
import { choice, length, Refusals } from '../../recipes/fields';
import { lengthOf, type Parameters, textOf } from '../../recipes/parameters';
import type { Frame } from '../../vector';
import { point3 } from '../../vector';
import type { AdditionKind, Site } from '../addition';
import { onSeat } from '../place';
import { cutFrom } from '../tools';

const box = (p: Parameters) => p.form === 'box';
const model = (p: Parameters) => p.form === 'model';
const plain = (p: Parameters) => !model(p);

/** Room for a neighbour: a plug, a board, a screw head, a hand. */
export const keepClear: AdditionKind = {
  kind: 'keep-clear',
  title: 'Keep clear',
  purpose: 'Takes away whatever would be where a neighbour is: a plug, a board, a nut, the way of a lever.',
  short: 'clear',
  parameters: [
    choice('form', 'The neighbour is', { box: 'a box', round: 'round', model: 'a body from a file' }),
    { kind: 'model', name: 'model', label: 'Body', group: 'main', default: '', shown: model },
    choice('lies', 'It lies', SIDES_DOWN, { shown: model }),
    length('width', 'To the right', [0.3, 400], '12', { shown: box }),
    length('depth', 'To the back', [0.3, 400], '8', { shown: box }),
    length('diameter', 'Diameter', [0.3, 400], '10', { shown: p => p.form === 'round' }),
    length('height', 'High', [0.3, 400], '6', { shown: plain }),
    length('x', 'Its middle, to the right', [-400, 400], '0'),
    length('y', 'Its middle, to the back', [-400, 400], '0'),
    length('z', 'Its underside, above the bed', [-400, 400], '0'),
    choice(
      'along',
      'Stands along',
      { z: 'upright', x: 'left to right', y: 'front to back' },
      { group: 'more', shown: plain },
    ),
    length('turn', 'Turned, seen from above', [-360, 360], '0', { measure: 'angle', group: 'more' }),
    length('room', 'Room all round, each side', [0, 20], '0.5'),
  ],
  refuse: p =>
    new Refusals().when(
      model(p) && p.model === '',
      'model',
      'Choose the body, or take one in from its STEP, STL, OBJ or 3MF file.',
    ).list,
  apply(site, p) {
    const kernel = site.kernels.part;
    const room = lengthOf(p, 'room');
    if (model(p)) return { body: cutFrom(kernel, site.body, [bodyOfModel(site, p, room)]) };
    const height = lengthOf(p, 'height');
    const upright: Frame = {
      at: [lengthOf(p, 'x'), lengthOf(p, 'y'), lengthOf(p, 'z')],
      x: [1, 0, 0],
      up: [0, 0, 1],
    };
    const frame = lyingAlong(onSeat(upright, [0, 0], lengthOf(p, 'turn')), String(p.along), height);
    const outline = box(p)
      ? rectangle(
          -lengthOf(p, 'width') / 2 - room,
          -lengthOf(p, 'depth') / 2 - room,
          lengthOf(p, 'width') / 2 + room,
          lengthOf(p, 'depth') / 2 + room,
        )
      : circle([0, 0], lengthOf(p, 'diameter') / 2 + room);
    const tool = kernel.extrude(outline, -room, height + 2 * room, frame);
    return { body: cutFrom(kernel, site.body, [tool]) };
  },
};

/** Made of triangles: the part's STEP file lacks this cut. */
function bodyOfModel({ kernels }: Site, p: Parameters, room: number): Body {
  const stance = {
    lies: textOf(p, 'lies') as SideDown,
    turn: lengthOf(p, 'turn'),
    at: [lengthOf(p, 'x'), lengthOf(p, 'y'), lengthOf(p, 'z')] as const,
  };
  const placed = placedModel(kernels.models, textOf(p, 'model'), room, stance, kernels.mesh);
  if (!placed) throw new KernelError('The body’s file is not at hand: take it in again');
  return kernels.part.ofTriangles(() => placed);
}

/** Upright, or laid down about its middle: `z` is its underside only while upright. */
function lyingAlong(frame: Frame, along: string, height: number): Frame {
  if (along === 'z') return frame;
  const { at, x } = frame;
  const y: Frame['x'] = [-x[1], x[0], 0];
  const up = along === 'x' ? x : y;
  return {
    at: point3(i => at[i] - (height / 2) * up[i]),
    x: along === 'x' ? y : x,
    up,
  };
}

/** Left and right swapped. */
export const otherHand: AdditionKind = {
  kind: 'other-hand',
  title: 'Other hand',
  purpose: 'The same part for the other side: left and right are changed, additions above it with them.',
  short: 'hand',
  parameters: [],
  refuse: () => [],
  apply(site) {
    const threaded = site.surfaces.some(s => s.kind === 'thread');
    const findings = threaded ? [finding('addition-mirrored-thread', 'warn', {})] : [];
    const mirrored = site.surfaces.map(s => ({
      ...s,
      at: [-s.at[0], s.at[1], s.at[2]] as const,
      ...turnedAxis(s),
      ...(s.across ? { across: [-s.across[0], s.across[1], s.across[2]] as const } : {}),
    }));
    return { body: site.kernels.part.mirror(site.body), moved: mirrored, findings };
  },
};

/** Extents run along the axis from the origin: they stay, since a mirrored point is as far along a mirrored axis. */
const turnedAxis = ({ axis }: { axis: readonly [number, number, number] }) => ({
  axis: [-axis[0] || 0, axis[1], axis[2]] as const,
});
