import { type RawScan, refuseTooMany, ScanError } from '../scan-file';
import { TextLines } from '../text-lines';
import { fanned } from './fanned';

/** PLY, as text and binary of both byte orders. */

const SIZES: Readonly<Record<string, number>> = {
  char: 1,
  uchar: 1,
  int8: 1,
  uint8: 1,
  short: 2,
  ushort: 2,
  int16: 2,
  uint16: 2,
  int: 4,
  uint: 4,
  int32: 4,
  uint32: 4,
  float: 4,
  float32: 4,
  double: 8,
  float64: 8,
};

interface Property {
  name: string;
  type: string;
  /** For a list: the type of its length. */
  count: string | null;
}
interface Element {
  name: string;
  count: number;
  properties: Property[];
}

export function readPly(bytes: Uint8Array): RawScan {
  const lines = new TextLines(bytes);
  lines.next();
  const elements: Element[] = [];
  let format = '';
  for (let line = lines.next(); ; line = lines.next()) {
    if (line === null || lines.line > 2000)
      throw new ScanError('broken', 'Its heading does not end: there is no line “end_header”.');
    const words = line.trim().split(/\s+/);
    if (words[0] === 'end_header') break;
    if (words[0] === 'format') format = words[1] ?? '';
    else if (words[0] === 'element') {
      const count = Number(words[2]);
      if (!(Number.isInteger(count) && count >= 0))
        throw new ScanError(
          'broken',
          `Line ${lines.line} of the heading does not say how many “${words[1]}” there are.`,
        );
      elements.push({ name: words[1] ?? '', count, properties: [] });
    } else if (words[0] === 'property') {
      const list = words[1] === 'list';
      const type = words[list ? 3 : 1] ?? '';
      const count = list ? (words[2] ?? '') : null;
      if (!(type in SIZES) || (count !== null && !(count in SIZES)))
        throw new ScanError(
          'broken',
          `Line ${lines.line} of the heading has an unknown type: “${line.trim().slice(0, 60)}”.`,
        );
      elements.at(-1)?.properties.push({ name: words[list ? 4 : 2] ?? '', type, count });
    }
  }
  const corners = elements.find(e => e.name === 'vertex');
  const faces = elements.find(e => e.name === 'face');
  if (!corners) throw new ScanError('broken', 'Its heading names no corners.');
  refuseTooMany(corners.count, 'points');
  if (faces) refuseTooMany(faces.count, 'triangles');
  const source =
    format === 'ascii'
      ? asText(lines)
      : asBytes(bytes, lines.offset, format === 'binary_big_endian' ? 'big' : 'little');
  if (!['ascii', 'binary_little_endian', 'binary_big_endian'].includes(format))
    throw new ScanError('broken', `Its format is “${format.slice(0, 40)}”: export it as text or binary PLY.`);
  return read(elements, corners, faces, source);
}

interface Source {
  /** The next value of a type. */
  value(type: string): number;
  /** Begins the next row of an element. */
  row(): void;
}

function read(
  elements: readonly Element[],
  corners: Element,
  faces: Element | undefined,
  source: Source,
): RawScan {
  const axes = ['x', 'y', 'z'].map(a => corners.properties.findIndex(p => p.name === a && p.count === null));
  if (axes.some(a => a < 0)) throw new ScanError('broken', 'Its corners have no x, y and z.');
  const positions = new Float64Array(3 * corners.count);
  const triangles: number[] = [];
  const names: number[] = [];
  for (const element of elements)
    for (let i = 0; i < element.count; i++) {
      source.row();
      element.properties.forEach((property, p) => {
        const many = property.count === null ? 1 : source.value(property.count);
        if (property.count !== null && !(many >= 0 && many < 1000))
          throw new ScanError(
            'broken',
            `${element.name} ${i + 1} has a list of ${many} values: the file is damaged there.`,
          );
        names.length = 0;
        for (let k = 0; k < many; k++) names.push(source.value(property.type));
        if (element === corners) {
          const axis = axes.indexOf(p);
          if (axis >= 0) positions[3 * i + axis] = names[0]!;
        } else if (element === faces && /^vertex_ind(ex|ices)$/.test(property.name) && many >= 3)
          fanned(names, 0, many, corners.count, triangles, `Face ${i + 1}`);
      });
    }
  return { format: 'ply', positions, triangles: Uint32Array.from(triangles) };
}

function asText(lines: TextLines): Source {
  const values = new Float64Array(1100);
  let [at, count] = [0, 0];
  return {
    row() {
      count = lines.numbers(values);
      at = 0;
      if (count < 0)
        throw new ScanError(
          'broken',
          `It ends on line ${lines.line}, before all it promised: the file was cut off.`,
        );
    },
    value() {
      if (at >= count) throw new ScanError('broken', `A value is missing on line ${lines.line}.`);
      return values[at++]!;
    },
  };
}

function asBytes(bytes: Uint8Array, from: number, order: 'little' | 'big'): Source {
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
  const little = order === 'little';
  let at = from;
  return {
    row() {},
    value(type) {
      const size = SIZES[type]!;
      if (at + size > bytes.length)
        throw new ScanError(
          'broken',
          'It ends before all it promised: the file was cut off. Export or copy it again.',
        );
      const here = at;
      at += size;
      switch (type) {
        case 'char':
        case 'int8':
          return view.getInt8(here);
        case 'uchar':
        case 'uint8':
          return view.getUint8(here);
        case 'short':
        case 'int16':
          return view.getInt16(here, little);
        case 'ushort':
        case 'uint16':
          return view.getUint16(here, little);
        case 'int':
        case 'int32':
          return view.getInt32(here, little);
        case 'uint':
        case 'uint32':
          return view.getUint32(here, little);
        case 'float':
        case 'float32':
          return view.getFloat32(here, little);
        default:
          return view.getFloat64(here, little);
      }
    },
  };
}
