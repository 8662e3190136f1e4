import {
  compoundShapes,
  draw,
  type Edge,
  exportSTEP,
  importSTEP,
  Plane,
  type Shape3D,
  type Sketch,
  setOC,
} from 'replicad';
import { counterClockwise } from '../curve';
import { mirroredMesh, type TriangleMesh, weld } from '../mesh/mesh';
import { bendMesh, stackMesh } from '../stack-mesh';
import { alongFrame, BED, bentFrame, cross, type Frame, type Point3 } from '../vector';
import { type Body, type BodyOperation, KernelError, type Outline, type PartKernel } from './kernel';

/** The started `replicad-opencascadejs`; typed by replicad itself. */
/** Runtime members that the package's types lack, since they come from its compiler. */
interface Compiled {
  wasmMemory?: { buffer: ArrayBuffer };
  HEAP8?: Int8Array;
  getExceptionMessage?(error: unknown): [string, string];
}
export type OpenCascade = Parameters<typeof setOC>[0] & Compiled;

/** Turning between neighbouring flats, radians: small fillets stay round on screen. */
const MOST_TURN = 0.3;
/** No mate is on a bend: finer triangles on its double curve would only make a file ten times as large, mm. */
const BEND_SAGITTA = 0.02;
/**
 * How far a bend reaches into its neighbours where triangles are joined, mm: tilted faces of triangles do not quite
 * meet.
 */
const HAIR = 0.02;

/** B-rep kernel on replicad and OpenCascade. One at a time in a thread. */
export function partKernel(oc: OpenCascade): PartKernel {
  setOC(oc);
  const bodies: Shape3D[] = [];
  const keep = (shape: Shape3D): Body => {
    bodies.push(shape);
    return { kernelBody: shape };
  };
  /** Booleans wait until exact surfaces are needed: the screen does without them (build.ts). */
  const waiting = (by: BodyOperation, from: Body, other: Body): Body => {
    let done: Shape3D | undefined;
    return {
      made: { by, from, with: other },
      get kernelBody() {
        done ??= guarded(by === 'fuse' ? 'Joining two bodies' : 'Cutting', () => {
          const shape = shapeOf(from).clone()[by](shapeOf(other).clone()) as Shape3D;
          bodies.push(shape);
          return shape;
        });
        return done;
      },
    };
  };
  const shapeOf = (body: Body) => body.kernelBody as Shape3D;
  const guarded = <T>(what: string, run: () => T): T => {
    try {
      return run();
    } catch (error) {
      throw new KernelError(`${what} failed: ${messageOf(oc, error)}`);
    }
  };
  const meshOf = (shape: Shape3D, sagitta: number): TriangleMesh => {
    const raw = guarded('Making triangles', () =>
      shape.mesh({ tolerance: sagitta, angularTolerance: MOST_TURN }),
    );
    const mesh = weld(raw.vertices, raw.triangles);
    if (mesh.triangles.length === 0)
      throw new KernelError('Nothing is left of the part: the cuts take all of it.');
    return mesh;
  };
  /** Exact surfaces when they are asked for, triangles without them. */
  const late = (make: () => Shape3D, asTriangles: Body['asTriangles']): Body => {
    let done: Shape3D | undefined;
    return {
      ...(asTriangles ? { asTriangles } : {}),
      get kernelBody() {
        if (!done) {
          done = make();
          bodies.push(done);
        }
        return done;
      },
    };
  };
  const mirrored = (body: Body): Body => {
    if (body.made) {
      const { by, from, with: other } = body.made;
      return waiting(by, mirrored(from), mirrored(other));
    }
    const { triangles, asTriangles } = body;
    if (triangles)
      return {
        triangles: sagitta => mirroredMesh(triangles(sagitta)),
        get kernelBody(): never {
          throw new KernelError('A thread has no exact surfaces');
        },
      };
    return late(
      () => guarded('Making the other hand', () => shapeOf(body).clone().mirror('YZ') as Shape3D),
      asTriangles && (sagitta => mirroredMesh(asTriangles(sagitta))),
    );
  };
  return {
    version: 'replicad 1.1.0',
    revolve: (outline, frame = BED) =>
      guarded('Turning the outline', () =>
        keep(
          drawingOf(outline)
            .sketchOnPlane(uprightPlane(frame))
            .revolve([...frame.up], { origin: [...frame.at] }) as Shape3D,
        ),
      ),
    extrude: (outline, z, height, frame = BED) =>
      guarded('Pulling the outline up', () =>
        keep(drawingOf(outline).sketchOnPlane(levelPlane(frame, z)).extrude(height) as Shape3D),
      ),
    extrudeAll: (outlines, z, height, frame = BED) =>
      guarded('Pulling the outlines up', () =>
        keep(
          compoundShapes(
            outlines.map(o => drawingOf(o).sketchOnPlane(levelPlane(frame, z)).extrude(height) as Shape3D),
          ) as Shape3D,
        ),
      ),
    bend: (outline, radius, angle, frame = BED) => {
      const hair = ((HAIR / radius) * 180) / Math.PI;
      return late(
        () =>
          guarded('Bending the outline', () => {
            const origin = [...alongFrame(frame, [radius, 0]).at] as [number, number, number];
            const sketch = drawingOf(outline).sketchOnPlane(levelPlane(frame, 0));
            return sketch.revolve(cross(frame.up, frame.x), { origin, angle }) as Shape3D;
          }),
        sagitta =>
          bendMesh(
            counterClockwise(outline),
            radius,
            angle + 2 * hair,
            bentFrame(frame, radius, -hair),
            Math.max(sagitta, BEND_SAGITTA),
          ),
      );
    },
    stack: (levels, frame = BED) =>
      late(
        () =>
          guarded('Joining outlines', () => {
            const [first, ...rest] = levels.map(
              ({ outline, z }) => drawingOf(outline).sketchOnPlane(levelPlane(frame, z)) as Sketch,
            );
            return first!.loftWith(rest, { ruled: true }) as Shape3D;
          }),
        sagitta =>
          stackMesh(
            levels.map(l => ({ ...l, outline: counterClockwise(l.outline) })),
            frame,
            sagitta,
          ),
      ),
    takeOff: (body, along, how, size) => {
      const shape = shapeOf(body);
      let met = 0;
      const on = (edge: Edge) => {
        const meant = along(SHARES.map(share => pointOn(edge, share)));
        if (meant) met++;
        return meant ? size : null;
      };
      const done = guarded(how === 'round' ? 'Rounding' : 'Taking the edges off', () => {
        if (!shape.edges.some(edge => along(SHARES.map(share => pointOn(edge, share)))))
          throw new Error('no edge runs there');
        return (how === 'round' ? shape.clone().fillet(on) : shape.clone().chamfer(on)) as Shape3D;
      });
      if (met === 0) throw new KernelError('No edge runs there.');
      return keep(done);
    },
    edgesAlong: (body, along) =>
      guarded(
        'Looking for edges',
        () => shapeOf(body).edges.filter(edge => along(SHARES.map(share => pointOn(edge, share)))).length,
      ),
    mirror: body => mirrored(body),
    ofTriangles: triangles => ({
      triangles,
      get kernelBody(): never {
        throw new KernelError('A thread has no exact surfaces');
      },
    }),
    fuse: (a, b) => waiting('fuse', a, b),
    cut: (from, tool) => waiting('cut', from, tool),
    mesh: (body, sagitta) => meshOf(shapeOf(body), sagitta),
    step: async bodies => {
      const blob = guarded('Writing STEP', () =>
        exportSTEP(
          bodies.map(({ body, name }) => ({ shape: shapeOf(body), name })),
          { unit: 'MM' },
        ),
      );
      return withoutTimeStamp(await blob.text());
    },
    readStep: async text => {
      const blob = new Blob([text]);
      try {
        return keep((await importSTEP(blob)) as Shape3D);
      } catch (error) {
        throw new KernelError(`Reading STEP failed: ${messageOf(oc, error)}`);
      }
    },
    release: () => {
      for (const shape of bodies.splice(0)) {
        try {
          shape.delete();
        } catch (error) {
          // Already released with a body made from it: replicad throws an error of its own.
          if (!(error instanceof Error)) throw error;
        }
      }
    },
    memory: () => (oc.wasmMemory?.buffer ?? oc.HEAP8?.buffer)?.byteLength ?? 0,
  };
}

/** The points of an edge that are passed to `along`. */
const SHARES = [0, 0.25, 0.5, 0.75, 1];

function pointOn(edge: Edge, share: number): Point3 {
  const point = edge.pointAt(share);
  const at: Point3 = [point.x, point.y, point.z];
  point.delete();
  return at;
}

/** The plane through the axis: the outline's x is the radius, its y the height. */
const uprightPlane = ({ at, x, up }: Frame) => new Plane([...at], [...x], cross(x, up));

/** The plane across the way up, `z` above the frame's origin. */
const levelPlane = ({ at, x, up }: Frame, z: number) =>
  new Plane([at[0] + z * up[0], at[1] + z * up[1], at[2] + z * up[2]], [...x], [...up]);

function drawingOf(outline: Outline) {
  const numbers = [...outline.start, ...outline.edges.flatMap(e => [...e.to, ...(e.via ?? [])])];
  // NaN does not make the kernel throw: it makes a wrong shape.
  if (!numbers.every(Number.isFinite)) throw new Error('a coordinate is not a number');
  let pen = draw([outline.start[0], outline.start[1]]);
  for (const { to, via } of outline.edges) {
    pen = via ? pen.threePointsArcTo([to[0], to[1]], [via[0], via[1]]) : pen.lineTo([to[0], to[1]]);
  }
  return pen.close();
}

function messageOf(oc: OpenCascade, error: unknown): string {
  if (error instanceof Error) return error.message;
  try {
    const texts = oc.getExceptionMessage?.(error);
    if (texts) return texts.filter(Boolean).join(': ');
  } catch (failure) {
    // The exception carries no text: the fallback below says all that is known.
    if (!(failure instanceof Error)) throw failure;
  }
  return 'the kernel gave no reason';
}

/** ISO 10303-21 wants a date in FILE_NAME; a fixed one keeps equal parts byte-equal. */
const withoutTimeStamp = (step: string) =>
  step.replace(/(FILE_NAME\('[^']*',\s*)'[^']*'/, "$1'2000-01-01T00:00:00'");
