import { KernelError } from '../../kernels/kernel';
import { circle, Path } from '../../outline';
import { choice, length, Refusals } from '../../recipes/fields';
import { lengthOf, textOf } from '../../recipes/parameters';
import type { Frame } from '../../vector';
import { cross, dot, inSpace } from '../../vector';
import { AdditionGone, type AdditionKind } from '../addition';
import { axisFields, axisOf, radiusAt } from '../axis';
import { cutFrom, INTO, joinedTo, surfaceOf } from '../tools';

/** A ring cut into a round wall, or added to it. */
export const band: AdditionKind = {
  kind: 'band',
  title: 'Groove or band around',
  purpose: 'A groove for a tie, a clamp or an O-ring, or a raised band, around a round part or in its bore.',
  short: 'band',
  parameters: [
    choice('does', 'It is', { cut: 'a groove', add: 'a raised band' }),
    choice('wall', 'Around', { outside: 'the outside', inside: 'the bore' }),
    length('z', 'Its middle, along the axis', [-400, 400], '6'),
    length('width', 'Wide', [0.4, 200], '4'),
    length('deep', 'Deep, or proud', [0.1, 100], '1'),
    choice('section', 'Section', {
      square: 'square',
      sloped: 'sides at 45°, prints upright',
      round: 'round bottom',
    }),
    ...axisFields,
  ],
  fit: {
    parameter: p => (p.section === 'square' && p.does === 'cut' ? 'width' : null),
    side: () => 'inside',
    form: () => 'flats',
  },
  refuse(p) {
    const r = new Refusals();
    if (p.section === 'sloped')
      r.when(
        2 * lengthOf(p, 'deep') >= lengthOf(p, 'width'),
        'deep',
        'With sides at 45° it is at most half as deep as wide.',
        lengthOf(p, 'width') / 2 - 0.1,
      );
    if (p.section === 'round')
      r.when(
        lengthOf(p, 'deep') > lengthOf(p, 'width') / 2,
        'deep',
        'A round bottom is at most half as deep as wide.',
        lengthOf(p, 'width') / 2,
      );
    return r.list;
  },
  apply(site, p) {
    const kernel = site.kernels.part;
    const axis = axisOf(p);
    const inside = p.wall === 'inside';
    const [z, w, deep] = [lengthOf(p, 'z'), lengthOf(p, 'width'), lengthOf(p, 'deep')];
    const radius = radiusAt(site, axis, z, inside, 'z');
    const cut = p.does === 'cut';
    // Away from the wall: into the material for a groove, into the air for a band.
    const out = inside === cut ? 1 : -1;
    if (out < 0 && radius - deep < 0.3)
      throw new KernelError(
        `The wall has a radius of ${Number(radius.toFixed(2))} mm: ${deep} mm leaves nothing of it`,
      );
    const begin = radius - out * (cut ? Math.max(1, deep) : INTO);
    const end = radius + out * deep;
    const half = w / 2;
    const slope = p.section === 'sloped' ? deep : 0;
    const profile =
      p.section === 'round'
        ? roundBottom(begin, radius, out, deep, z, half)
        : new Path([begin, z - half])
            .to([radius, z - half])
            .to([end, z - half + slope])
            .to([end, z + half - slope])
            .to([radius, z + half])
            .to([begin, z + half])
            .close();
    const tool = kernel.revolve(profile, axis);
    return {
      body: (cut ? cutFrom : joinedTo)(kernel, site.body, [tool]),
      surface: cut && p.section === 'square' ? grooveWidth(radius + (out * deep) / 2, z, w, axis) : undefined,
    };
  },
};

function roundBottom(begin: number, radius: number, out: number, deep: number, z: number, half: number) {
  return new Path([begin, z - half])
    .to([radius, z - half])
    .arc([radius, z + half], [radius + out * deep, z])
    .to([begin, z + half])
    .close();
}

/** Measured up the axis, in the middle of its depth, on a section that holds the axis. */
function grooveWidth(radius: number, z: number, width: number, axis: Frame) {
  const frame: Frame = {
    at: inSpace(axis, [radius, 0, z]),
    x: axis.up,
    up: cross(axis.up, axis.x),
  };
  return surfaceOf(frame, 'inside', { kind: 'flats', size: width }, [0, 0]);
}

/** Hollows around a round outside, for a better grip. */
export const flutes: AdditionKind = {
  kind: 'flutes',
  title: 'Grip flutes',
  purpose: 'Hollows along a round outside, so that wet fingers can turn it.',
  short: 'grip',
  parameters: [
    length('low', 'From, along the axis', [-400, 400], '0'),
    length('high', 'To, along the axis', [-400, 400], '12'),
    length('count', 'Around', [3, 90], '16', { measure: 'count' }),
    length('deep', 'Deep', [0.2, 20], '0.8'),
    length('diameter', 'Their own diameter', [0.6, 60], '4'),
    ...axisFields,
  ],
  refuse(p) {
    const r = new Refusals();
    r.when(
      lengthOf(p, 'high') <= lengthOf(p, 'low'),
      'high',
      'They end above where they begin: give the higher number here.',
    );
    r.when(
      lengthOf(p, 'deep') > lengthOf(p, 'diameter') / 2,
      'deep',
      'A flute is at most half as deep as its own diameter.',
      lengthOf(p, 'diameter') / 2,
    );
    return r.list;
  },
  apply(site, p) {
    const kernel = site.kernels.part;
    const axis = axisOf(p);
    const [low, high, count] = [lengthOf(p, 'low'), lengthOf(p, 'high'), lengthOf(p, 'count')];
    const [deep, r] = [lengthOf(p, 'deep'), lengthOf(p, 'diameter') / 2];
    const radius = radiusAt(site, axis, (low + high) / 2, false, 'low');
    const reach = radius - deep + r;
    if (2 * reach * Math.sin(Math.PI / count) <= 2 * r + 0.05) {
      const most = Math.floor(Math.PI / Math.asin(Math.min(1, (r + 0.05) / reach)));
      throw new AdditionGone(
        `${count} flutes of ${2 * r} mm run into each other on a radius of ${Number(radius.toFixed(1))} mm.`,
        'count',
        most >= 3 ? { label: `Take ${most}`, text: String(most) } : undefined,
      );
    }
    const around = Array.from({ length: count }, (_, i) => {
      const a = (2 * Math.PI * i) / count;
      return circle([reach * Math.cos(a), reach * Math.sin(a)], r);
    });
    return { body: kernel.cut(site.body, kernel.extrudeAll(around, low, high - low, axis)) };
  },
};

/** A cone at the mouth of a round mate, so that it starts easily. */
export const leadIn: AdditionKind = {
  kind: 'lead-in',
  title: 'Lead-in',
  purpose: 'A slope at the mouth of a round surface that must fit, so that the object finds its way.',
  short: 'lead',
  parameters: [
    { kind: 'surface', name: 'surface', label: 'At the mouth of', group: 'main', default: '' },
    choice('end', 'At its', { high: 'upper or outer end', low: 'lower or inner end' }),
    length('deep', 'Along the axis', [0.2, 30], '1'),
    length('angle', 'Slope from the axis', [5, 75], '30', { measure: 'angle', group: 'more' }),
  ],
  refuse: () => [],
  apply(site, p) {
    const named = textOf(p, 'surface');
    const round = site.surfaces.filter(s => s.kind === 'round' && !s.taper);
    const surface = named === '' ? round[0] : site.surfaces.find(s => s.mate === named);
    if (surface?.kind !== 'round')
      throw new AdditionGone(
        surface
          ? 'That surface is not round: chamfer the edges of its face instead.'
          : 'The surface whose mouth it was is no longer there.',
        'surface',
      );
    const kernel = site.kernels.part;
    const { at, axis, size, from, to, side } = surface;
    const here = dot(at, axis);
    const high = p.end === 'high';
    const mouth = (high ? to : from) - here;
    const way = high ? 1 : -1;
    const deep = Math.min(lengthOf(p, 'deep'), Math.max(0.2, to - from - 0.2));
    const wide = deep * Math.tan((lengthOf(p, 'angle') * Math.PI) / 180);
    const r = size / 2;
    if (side === 'outside' && wide > r - 0.5)
      throw new KernelError('This slope leaves a point: make it shorter or steeper');
    const frame: Frame = { at, x: axis[2] === 0 ? [0, 0, 1] : squareTo(axis), up: axis };
    // Drawn from well inside the wall to well beyond the mouth, so that only the corner is cut.
    const sign = side === 'inside' ? 1 : -1;
    const profile =
      side === 'inside'
        ? new Path([0, mouth - way * deep])
            .to([r, mouth - way * deep])
            .to([r + wide, mouth])
            .to([r + wide, mouth + way * 0.5])
            .to([0, mouth + way * 0.5])
            .close()
        : new Path([r + 5, mouth - way * deep])
            .to([r, mouth - way * deep])
            .to([r + sign * wide, mouth])
            .to([r + sign * wide, mouth + way * 0.5])
            .to([r + 5, mouth + way * 0.5])
            .close();
    return { body: kernel.cut(site.body, kernel.revolve(profile, frame)) };
  },
};

function squareTo([a, b, c]: readonly [number, number, number]): [number, number, number] {
  if (Math.abs(c) > 0.9) return [1, 0, 0];
  const long = Math.hypot(a, b);
  return [-b / long, a / long, 0];
}
