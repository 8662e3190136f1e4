import { Refusals } from '../fields';
import type { P } from './parameters';
import { reachOf, sizesOf } from './sizes';

export function refuse(p: P) {
  const s = sizesOf(p);
  const reach = reachOf(s);
  const waist = s.lobes > 0 ? s.hub * 0.9 : s.grip - (s.flutes?.depth ?? 0);
  const wall = waist - reach - p.leadIn;
  const refusals = new Refusals<P>()
    .when(
      wall < 0.8,
      'gripDiameter',
      'The grip leaves no wall around the socket’s corners: make it larger.',
      (reach + p.leadIn + 2 + (s.flutes?.depth ?? 0)) / (s.lobes > 0 ? 0.324 : 0.5),
    )
    .when(
      s.flutes !== null && s.flutes.depth > 1.2 * s.grip * Math.sin(Math.PI / 2 / s.flutes.count),
      'fluteDepth',
      'Flutes so deep and so near each other leave no ridge to hold: shallower, or fewer.',
      s.flutes ? 0.8 * s.grip * Math.sin(Math.PI / 2 / s.flutes.count) : undefined,
    )
    .when(
      s.key !== null && s.key.width > 0.7 * s.round,
      'keyWidth',
      'The key is as wide as the shaft: about a quarter of its diameter is usual.',
      s.round / 4,
    )
    .when(
      s.key !== null && (s.key.over < 0.3 || s.key.over > s.round / 2),
      'overKey',
      'Over the key a shaft measures a little more than its diameter. Was the key’s height typed?',
      1.1 * s.round,
    )
    .when(
      !s.through && s.depth > s.height - 0.6,
      'socketDepth',
      'The socket goes through the top: less deep, or say that it goes through.',
      s.height - 2,
    )
    .when(
      (s.through ? s.height : s.depth) < p.leadIn + 1,
      s.through ? 'height' : 'socketDepth',
      'The socket is too shallow to hold.',
      p.leadIn + 4,
    )
    .when(
      s.shape === 'dee' && (s.flats >= s.round - 0.1 || s.flats <= s.round / 2),
      'socketFlats',
      'A D’s flat lies between the shaft’s middle and its outside: from the flat to the far side, that is more than half of the diameter and less than all.',
      0.9 * s.round,
    )
    .when(
      s.shape === 'two-flats' && (s.flats >= s.round - 0.1 || s.flats < 0.3 * s.round),
      'socketFlats',
      'Across its two flats a shaft is less than its diameter, and more than a third.',
      0.8 * s.round,
    );
  if (p.setScrew) {
    const z = p.screwHeight;
    const r = p.screwHole / 2;
    const top = s.through ? s.height : s.depth;
    refusals
      .when(
        z - r < p.leadIn + 0.6 || z + r > top - 1,
        'screwHeight',
        'The set screw must meet the shaft inside the socket, clear of its mouth and its end.',
        top / 2,
      )
      .when(r > 0.35 * s.grip, 'screwHole', 'The set screw’s hole is too wide for this knob.', 0.5 * s.grip);
  }
  return refusals.list;
}
