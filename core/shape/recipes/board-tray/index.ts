import { Draft } from '../../drawing/draft';
import type { Body, Outline, PartKernel } from '../../kernels/kernel';
import { circle, Path, pointsOf, rectangle } from '../../outline';
import { length, Refusals, step } from '../fields';
import { lengthOf, type MateSurface, type Parameters, type Recipe } from '../recipe';

/**
 * A tray that carries a circuit board inside a tube: part of a round bar with two rails whose slots hold the
 * board's edges. One profile across the tube pulled along it; it stands on its end on the bed.
 */
interface Sizes {
  radius: number;
  board: number;
  edge: number;
  /** Height of the board's underside over the tube's axis; below it is negative. */
  seat: number;
  rail: number;
  floor: number;
  long: number;
  tab: number;
}

function sizesOf(p: Parameters): Sizes {
  return {
    radius: lengthOf(p, 'outside') / 2,
    board: lengthOf(p, 'boardSlot') / 2,
    edge: lengthOf(p, 'edgeSlot'),
    seat: -lengthOf(p, 'below'),
    rail: lengthOf(p, 'rail'),
    floor: lengthOf(p, 'floor'),
    long: lengthOf(p, 'length'),
    tab: lengthOf(p, 'pull') / 2,
  };
}

/** How far the rails reach in over the board's edges. */
const OVER = 1.2;

/** Bottom of the well under the board, never less than a little below it. */
const wellOf = (s: Sizes) => Math.min(s.seat - 0.6, s.floor - s.radius);

/** Across the tube: the bar below, cut flat under the board, and a rail at each side. */
function profileOf(s: Sizes): Outline {
  const top = s.seat + s.edge + s.rail;
  const at = (y: number) => Math.sqrt(Math.max(0, s.radius ** 2 - y ** 2));
  const inner = s.board - OVER;
  const well = wellOf(s);
  return new Path([-at(top), top])
    .arc([at(top), top], [0, -s.radius])
    .to([inner, top])
    .to([inner, s.seat + s.edge])
    .to([s.board, s.seat + s.edge])
    .to([s.board, s.seat])
    .to([inner, s.seat])
    .to([inner, well])
    .to([-inner, well])
    .to([-inner, s.seat])
    .to([-s.board, s.seat])
    .to([-s.board, s.seat + s.edge])
    .to([-inner, s.seat + s.edge])
    .to([-inner, top])
    .close();
}

function solid(p: Parameters, kernel: PartKernel): Body {
  const s = sizesOf(p);
  let body = kernel.extrude(profileOf(s), 0, s.long);
  // An end wall stops the board; a hole in it takes cables.
  const wall = lengthOf(p, 'endWall');
  if (wall > 0) {
    const top = s.seat + s.edge + s.rail;
    const at = Math.sqrt(Math.max(0, s.radius ** 2 - top ** 2));
    const disc = new Path([-at, top]).arc([at, top], [0, -s.radius]).close();
    body = kernel.fuse(body, kernel.extrude(disc, 0, wall));
  }
  if (s.tab > 0)
    body = kernel.cut(body, kernel.extrude(rectangle(-s.tab, s.seat - 1, s.tab, s.radius), -1, wall + 2));
  return body;
}

function surfaces(p: Parameters): MateSurface[] {
  const s = sizesOf(p);
  const z = (lengthOf(p, 'endWall') + s.long) / 2;
  const extent = { axis: [0, 0, 1] as const, from: lengthOf(p, 'endWall'), to: s.long };
  const common = { ...extent, kind: 'flats' as const };
  const y = s.seat + s.edge / 2;
  return [
    // Round where it meets the tube, though no whole circle of it is there.
    { ...extent, mate: 'tube', kind: 'round', side: 'outside', size: 2 * s.radius, at: [0, 0, z] },
    { ...common, mate: 'board', side: 'inside', size: 2 * s.board, at: [0, y, z], across: [1, 0, 0] },
    {
      ...common,
      mate: 'edge',
      side: 'inside',
      size: s.edge,
      at: [s.board - OVER / 2, y, z],
      across: [0, 1, 0],
    },
  ];
}

function refuse(p: Parameters) {
  const s = sizesOf(p);
  const top = s.seat + s.edge + s.rail;
  const at = (y: number) => Math.sqrt(Math.max(0, s.radius ** 2 - y ** 2));
  const wall = Math.min(at(s.seat), at(s.seat + s.edge), at(top)) - s.board;
  const corner = s.radius - Math.hypot(s.board - OVER, wellOf(s));
  return new Refusals()
    .when(s.board < OVER + 1.5, 'boardSlot', 'The board is too narrow for two rails.', 2 * OVER + 8)
    .when(
      s.radius + s.seat < 2.4,
      'below',
      'The board sits so low that no tray is left under it.',
      s.radius - 4,
    )
    .when(
      top > s.radius - 0.6,
      'rail',
      'The rails stand out of the tube: sit the board lower, or make them lower.',
      Math.max(0.6, s.radius - s.seat - s.edge - 2),
    )
    .when(
      wall < 0.8,
      'boardSlot',
      'The board’s corners come out of the tray: it does not go into this tube at this height.',
      2 * (Math.min(at(s.seat), at(s.seat + s.edge), at(top)) - 1),
    )
    .when(
      top < 0.4,
      'below',
      'The rails end below the tube’s middle: nothing keeps the tray from turning over. Sit the board higher.',
      s.edge + s.rail - 1,
    )
    .when(
      corner < 0.8,
      'floor',
      'The well under the board comes out of the tray at its corners: more thickness under the board.',
      s.radius - Math.sqrt(Math.max(0, (s.radius - 1) ** 2 - (s.board - OVER) ** 2)),
    )
    .when(
      s.tab > s.board - OVER - 1,
      'pull',
      'The opening in the end wall is wider than the tray.',
      2 * (s.board - OVER) - 4,
    )
    .when(lengthOf(p, 'endWall') > s.long / 2, 'endWall', 'The end wall fills the tray.', s.long / 4).list;
}

function drawing(p: Parameters) {
  const s = sizesOf(p);
  const draft = new Draft().ghost(circle([0, 0], s.radius)).cut(profileOf(s));
  const y = s.seat + s.edge / 2;
  draft.mate(
    'tube',
    pointsOf(circle([0, 0], s.radius)).filter(q => q[1] <= s.seat + 0.01),
  );
  draft.walls('board', s.board, [s.seat, s.seat + s.edge]);
  draft.mate(
    'edge',
    [
      [s.board - OVER, s.seat],
      [s.board, s.seat],
    ],
    [
      [s.board - OVER, s.seat + s.edge],
      [s.board, s.seat + s.edge],
    ],
  );
  draft.across('tube', 'tube', [-s.radius, s.radius], 0, -s.radius - 6, true);
  draft.across('board', 'board', [-s.board, s.board], y, s.radius + 6);
  draft.up('edge', 'edge', s.board, [s.seat, s.seat + s.edge], s.radius + 6);
  return draft.done('Across the tube');
}

function objectDrawing(measured: Readonly<Record<string, number>>) {
  const r = (measured.tube ?? 44) / 2;
  const w = (measured.board_width ?? 32) / 2;
  const t = measured.board_thickness ?? 1.6;
  const draft = new Draft()
    .cut(circle([0, 0], r + 2))
    .edge(circle([0, 0], r))
    .cut(rectangle(-w, -4, w, -4 + t));
  draft.mateLoop('tube', circle([0, 0], r));
  draft.walls('board_width', w, [-4, -4 + t]);
  draft.across('tube', 'tube', [-r, r], 0, r + 8, true);
  draft.across('board_width', 'board', [-w, w], -4, -r - 8);
  draft.up('board_thickness', 'thick', w, [-4, -4 + t], r + 8);
  const x = r + 60;
  const long = measured.board_length ?? 70;
  draft.edge(rectangle(x, -r, x + 2 * w, -r + long));
  draft.up('board_length', 'length', x + 2 * w, [-r, -r + long], x + 2 * w + 6);
  return draft.done('Tube and board from the end, and the board from above');
}

export const boardTray: Recipe = {
  id: 'board-tray',
  version: 1,
  family: 'mount',
  title: 'Board tray in a tube',
  purpose: 'Carries a circuit board inside a tube on two rails, and comes out again by pulling.',
  guide: [
    step(
      'tube',
      'Tube, inside',
      'inside-jaws',
      'As deep as the jaws reach, at two places; keep the smallest.',
      { critical: true },
    ),
    step('board_width', 'Board, width', 'outside-jaws', 'Edge to edge, not over what stands out.', {
      critical: true,
    }),
    step('board_thickness', 'Board, thickness', 'outside-jaws', 'At its bare edge, beside the solder.', {
      critical: true,
    }),
    step('board_length', 'Board, length', 'outside-jaws', 'With its plugs, if they stand out.'),
  ],
  mates: [
    {
      id: 'tube',
      name: 'Tray in the tube',
      dimension: 'tube',
      parameter: 'outside',
      side: 'outside',
      want: 'slide',
      flexibleWant: 'slide',
      active: () => true,
    },
    {
      id: 'board',
      name: 'Board between the rails',
      dimension: 'board_width',
      parameter: 'boardSlot',
      side: 'inside',
      want: 'slide',
      flexibleWant: 'slide',
      form: 'flats',
      active: () => true,
    },
    {
      id: 'edge',
      name: 'Board’s edge in its slot',
      dimension: 'board_thickness',
      parameter: 'edgeSlot',
      side: 'inside',
      want: 'slide',
      flexibleWant: 'slide',
      form: 'flats',
      active: () => true,
    },
  ],
  parameters: [
    length('outside', 'Tray, across', [12, 250], 'tube.model'),
    length('boardSlot', 'Between the rails', [6, 240], 'board_width.model'),
    length('edgeSlot', 'Slot for its edge', [0.8, 12], 'board_thickness.model'),
    length('length', 'Length', [10, 300], 'board_length + endWall + 2'),
    length('below', 'Board below the tube’s middle by', [-60, 100], '1'),
    length('rail', 'Rails above the board', [0.6, 30], '2'),
    length('floor', 'Under the board, thickness', [1.2, 100], 'outside * 0.2'),
    length('endWall', 'End wall (0 is none)', [0, 40], '2'),
    length('pull', 'Opening in it, for cables', [0, 200], '10', { group: 'more' }),
  ],
  refuse,
  drawing,
  objectDrawing,
  solid,
  surfaces,
  checks: () => [],
  demo: {
    name: 'the stern light’s board',
    sizes: { tube: 44, board_width: 32, board_thickness: 1.6, board_length: 70 },
    parameters: {
      outside: 43.5,
      boardSlot: 32.4,
      edgeSlot: 2,
      length: 74,
      below: 1,
      rail: 2,
      floor: 9,
      endWall: 2,
      pull: 10,
    },
  },
};
