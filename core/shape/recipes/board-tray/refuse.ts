import type { Finding } from '../../findings/finding';
import { Refusals } from '../fields';
import type { P } from './parameters';
import { chordAt, innerOf, OVER, type Sizes, sizesOf, topOf } from './sizes';

export function refuse(p: P): Finding[] {
  const s = sizesOf(p);
  const top = topOf(s);
  const inner = innerOf(s);
  const least = Math.min(chordAt(s, s.seat), chordAt(s, s.seat + s.edge), chordAt(s, top));
  const corner = s.radius - Math.hypot(inner, s.well);
  const r = new Refusals<P>()
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
      least - s.board < 0.8,
      'boardSlot',
      'The board’s corners come out of the tray: it does not go into this tube at this height.',
      2 * (least - 1),
    )
    .when(
      top < 0.4,
      'below',
      'The rails end below the tube’s middle: nothing keeps the tray from turning over. Sit the board higher.',
      s.edge + s.rail - 1,
    )
    .when(
      corner < 0.8,
      s.posts ? 'postHeight' : 'floor',
      s.posts
        ? 'The well under the posts comes out of the tray at its corners: lower posts, or sit the board higher.'
        : 'The well under the board comes out of the tray at its corners: more thickness under the board.',
      s.posts
        ? s.seat + Math.sqrt(Math.max(0, (s.radius - 1) ** 2 - inner ** 2))
        : s.radius - Math.sqrt(Math.max(0, (s.radius - 1) ** 2 - inner ** 2)),
    )
    .when(s.opening > inner - 1, 'pull', 'The opening in the end wall is wider than the tray.', 2 * inner - 4)
    .when(s.endWall > s.long / 2, 'endWall', 'The end wall fills the tray.', s.long / 4);
  posts(r, p, s);
  tab(r, s);
  slots(r, s);
  return r.list;
}

function posts(r: Refusals<P>, p: P, s: Sizes): void {
  if (!s.posts) return;
  const { radius, pilot } = s.posts;
  const across = p.postsAcross;
  const along = p.postsAlong;
  const mostAcross = 2 * (innerOf(s) - radius) - 0.4;
  const mostAlong = s.long - s.endWall - 2 * radius - 2;
  r.when(
    radius - pilot < 0.8,
    'post',
    'The posts have no wall around their screws: thicker posts, or thinner screws.',
    2 * pilot + 3,
  )
    .when(
      across > mostAcross,
      'postsAcross',
      'The posts run into the sides of the tray.',
      Math.floor(100 * mostAcross) / 100,
    )
    .when(across < 2 * radius + 0.4, 'postsAcross', 'The posts run into each other.', 2 * radius + 2)
    .when(
      along > mostAlong,
      'postsAlong',
      'The posts stand beyond the tray’s ends: a longer tray.',
      Math.floor(100 * mostAlong) / 100,
    )
    .when(along < 2 * radius + 0.4, 'postsAlong', 'The posts run into each other.', 2 * radius + 2);
}

function tab(r: Refusals<P>, s: Sizes): void {
  if (!s.tab) return;
  const { half, long, thick, hole } = s.tab;
  const most = Math.min(
    Math.sqrt(Math.max(0, (s.radius - 0.3) ** 2 - (s.well - thick) ** 2)),
    innerOf(s) - 0.2,
  );
  r.when(
    half > most,
    'tabWidth',
    'The pull tab is wider than the floor that it grows from: narrower, or more thickness under the board.',
    Math.floor(200 * most) / 100,
  ).when(
    long < 3 * hole + 1.5,
    'tabLength',
    'The pull tab is too short for its hole.',
    Math.ceil(100 * (3 * hole + 2)) / 100,
  );
}

function slots(r: Refusals<P>, s: Sizes): void {
  if (!s.slots) return;
  const { half, long, at } = s.slots;
  const each = (s.long - s.endWall) / at.length;
  const widest = s.posts
    ? Math.min(...s.posts.at.map(([x]) => Math.abs(x))) - s.posts.radius - 0.6
    : innerOf(s) - 2;
  r.when(
    long > each - 2.5,
    'slotLength',
    'The cable slots run into each other, or out of the tray’s ends.',
    Math.floor(100 * (each - 3)) / 100,
  ).when(
    half > Math.min(widest, innerOf(s) - 1.2),
    'slotWidth',
    'The cable slots leave nothing of the floor, or run under the posts.',
    Math.floor(200 * Math.min(widest, innerOf(s) - 1.2)) / 100,
  );
}
