import type { Body, PartKernel } from '../../kernels/kernel';
import { circle, Path } from '../../outline';
import { type ThreadForm, threadBody } from '../../thread';
import type { P } from './parameters';
import { gripOf, isPlug, leadOf, type Sizes, sizesOf } from './sizes';

export function solid(p: P, kernel: PartKernel): Body {
  const s = sizesOf(p);
  return isPlug(p) ? plug(s, kernel) : nut(s, kernel);
}

function plug(s: Sizes, kernel: PartKernel): Body {
  const { thread } = s;
  const { minor } = thread;
  const lead = leadOf(thread);
  const head = kernel.extrude(circle([0, 0], s.outer), 0, s.floor);
  const core = kernel.extrude(circle([0, 0], minor / 2), s.floor - 0.5, s.top - s.floor + 0.5);
  let body = fluted(kernel.fuse(head, core), s, s.floor, kernel);
  body = kernel.fuse(body, threadBody({ ...thread, from: s.floor - 0.4 }, kernel));
  // The first turn runs in along a cone.
  const ring = new Path([minor / 2, s.top + 1])
    .to([minor / 2, s.top])
    .to([minor / 2 + lead + 1, s.top - lead - 1])
    .to([minor / 2 + lead + 1, s.top + 1])
    .close();
  body = kernel.cut(body, kernel.revolve(ring));
  if (s.through === 0) return body;
  return kernel.cut(body, kernel.extrude(circle([0, 0], s.through / 2), -1, s.top + 2));
}

function nut(s: Sizes, kernel: PartKernel): Body {
  const { thread, second } = s;
  const { minor } = thread;
  const from = s.floor === 0 ? -1 : s.floor;
  let body = kernel.extrude(circle([0, 0], s.outer), 0, s.top);
  body = kernel.cut(body, kernel.extrude(circle([0, 0], minor / 2), from, s.top + 2));
  body = fluted(body, s, s.top, kernel);
  if (s.seal > 0) {
    // A recess in the end for a flat ring, under the neck's rim.
    body = kernel.cut(body, kernel.extrude(circle([0, 0], minor / 2), s.floor - s.seal, s.seal + 0.5));
  }
  body = kernel.cut(body, mouth(thread, s.top, 1, kernel));
  body = kernel.cut(body, threadBody({ ...thread, from, to: s.top + 1 }, kernel));
  if (!second) return body;
  body = kernel.cut(body, kernel.extrude(circle([0, 0], second.minor / 2), -1, second.to + 1));
  body = kernel.cut(
    body,
    kernel.extrude(circle([0, 0], s.through / 2), second.to - 1, s.floor - second.to + 2),
  );
  body = kernel.cut(body, mouth(second, 0, -1, kernel));
  return kernel.cut(body, threadBody({ ...second, from: -1 }, kernel));
}

/** A cone that removes the ridge of the first turn, at a mouth that faces up (1) or down (-1). */
function mouth(thread: ThreadForm, z: number, way: 1 | -1, kernel: PartKernel): Body {
  const r = thread.minor / 2;
  const lead = leadOf(thread);
  return kernel.revolve(
    new Path([r - 0.5, z + way])
      .to([r - 0.5, z - way * (lead + 0.5)])
      .to([r, z - way * lead])
      .to([r + lead, z])
      .to([r + lead, z + way])
      .close(),
  );
}

function fluted(body: Body, s: Sizes, height: number, kernel: PartKernel): Body {
  const around = gripOf(s).map(at => circle(at, 2));
  return around.length === 0 ? body : kernel.cut(body, kernel.extrudeAll(around, -1, height + 2));
}
