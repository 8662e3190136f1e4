import { roleOfComment, saidIn } from './comments';
import { GcodeError, type GcodeFile, ROLES, type Role } from './file';
import { MovePlan } from './replay';

/**
 * Reads a sliced file as a stream, byte by byte: moves of all common dialects, with layers by the heights at which
 * plastic is extruded. Lengths mm whatever the file's unit.
 */

/** More than any part needs, and a bound on memory: nothing beyond this is read. */
const MOST_SEGMENTS = 6_000_000;
/** A longer comment contains nothing that we read. */
const LONGEST_COMMENT = 200;
/** Arcs become straight pieces that stay this near to them, mm. */
const SAGITTA = 0.01;
const INCH = 25.4;
/** Heights nearer than this are one layer, mm. */
const SAME_LAYER = 0.004;
/** How much of the file is searched for signs of other file types. */
const HEAD = 4096;

const [SEMICOLON, PAREN, STAR, NEWLINE] = [59, 40, 42, 10];

class Growing<A extends Float32Array | Uint8Array | Uint32Array> {
  length = 0;
  constructor(private data: A) {}
  push(value: number): void {
    if (this.length === this.data.length) {
      const larger = new (this.data.constructor as new (n: number) => A)(2 * this.data.length);
      larger.set(this.data);
      this.data = larger;
    }
    this.data[this.length++] = value;
  }
  done(): A {
    return this.data.subarray(0, this.length) as A;
  }
}

export class GcodeReader {
  private readonly x0 = new Growing(new Float32Array(1 << 14));
  private readonly y0 = new Growing(new Float32Array(1 << 14));
  private readonly x1 = new Growing(new Float32Array(1 << 14));
  private readonly y1 = new Growing(new Float32Array(1 << 14));
  private readonly e = new Growing(new Float32Array(1 << 14));
  private readonly role = new Growing(new Uint8Array(1 << 14));
  private readonly layers: { z: number; from: number; to: number }[] = [];
  private readonly words = new Float64Array(26);
  private readonly there = new Uint8Array(26);
  private readonly plan = new MovePlan();
  private line = new Uint8Array(256);
  private filled = 0;
  private lines = 0;
  private moves = 0;
  private bytes = 0;
  private strange = 0;
  private unit = 1;
  private absolute = true;
  private absoluteE = true;
  /** Once the extruder's mode was set alone, G90 and G91 apply to the other axes. */
  private saidE = false;
  private x = 0;
  private y = 0;
  private z = 0;
  private eAt = 0;
  private feed = 1500;
  private now: Role = 'unknown';
  private rolesKnown = false;
  private retracted = 0;
  private filament = 0;
  private retractions = 0;
  private endedWhole = true;
  private sequential = false;
  private readonly said: GcodeFile['said'] = { minutes: null, grams: null, diameter: null };

  /** @throws GcodeError where it is not a sliced file, or too large */
  push(chunk: Uint8Array): void {
    if (this.bytes < HEAD) this.refuseOthers(chunk);
    this.bytes += chunk.length;
    let start = 0;
    for (;;) {
      const end = chunk.indexOf(NEWLINE, start);
      if (end < 0) break;
      if (this.filled > 0) {
        this.keep(chunk, start, end);
        this.read(this.line, 0, this.filled);
        this.filled = 0;
      } else this.read(chunk, start, end);
      start = end + 1;
    }
    this.keep(chunk, start, chunk.length);
  }

  private refuseOthers(chunk: Uint8Array): void {
    if (this.bytes === 0) {
      if (chunk[0] === 0x50 && chunk[1] === 0x4b)
        throw new GcodeError(
          'zipped',
          'This is a zip: unpack it, or export plain G-code from the slicing program.',
        );
      const head = String.fromCharCode(...chunk.subarray(0, 4));
      if (head === 'GCDE')
        throw new GcodeError(
          'binary',
          'This is binary G-code: switch that off in the slicing program and export it again.',
        );
    }
    if (chunk.subarray(0, HEAD).includes(0))
      throw new GcodeError('binary', 'This is not text: drop the .gcode file that goes to the printer.');
  }

  private keep(chunk: Uint8Array, from: number, to: number): void {
    const more = to - from;
    if (this.filled + more > 1_000_000)
      throw new GcodeError('not-gcode', 'Its lines never end: this is not a G-code file.');
    if (this.filled + more > this.line.length) {
      const larger = new Uint8Array(2 * (this.filled + more));
      larger.set(this.line.subarray(0, this.filled));
      this.line = larger;
    }
    this.line.set(chunk.subarray(from, to), this.filled);
    this.filled += more;
  }

  /** @throws GcodeError where nothing was printed in it */
  end(): GcodeFile {
    if (this.filled > 0) {
      this.read(this.line, 0, this.filled);
      // Every line of a file ends with a newline: this one may be cut off.
      this.endedWhole = false;
    }
    if (this.moves === 0 || this.strange > 0.5 * this.lines)
      throw new GcodeError('not-gcode', 'This is not G-code: it has not one move that a printer would make.');
    if (this.x0.length === 0)
      throw new GcodeError('nothing-printed', 'Nothing is printed in this file: no move lays plastic.');
    return {
      x0: this.x0.done(),
      y0: this.y0.done(),
      x1: this.x1.done(),
      y1: this.y1.done(),
      e: this.e.done(),
      role: this.role.done(),
      layers: this.layers,
      filament: this.filament,
      retractions: this.retractions,
      seconds: this.plan.seconds(),
      rolesKnown: this.rolesKnown,
      sequential: this.sequential,
      endedWhole: this.endedWhole,
      said: this.said,
      bytes: this.bytes,
    };
  }

  private read(b: Uint8Array, from: number, to: number): void {
    this.lines++;
    const { words, there } = this;
    there.fill(0);
    let any = false;
    let i = from;
    while (i < to) {
      let c = b[i]!;
      if (c === SEMICOLON) {
        if (to - i <= LONGEST_COMMENT) this.comment(b, i + 1, to);
        break;
      }
      if (c === STAR) break;
      if (c === PAREN) {
        while (i < to && b[i] !== 41) i++;
        i++;
        continue;
      }
      if (c >= 97 && c <= 122) c -= 32;
      if (c < 65 || c > 90) {
        if (c > 32 && !any) {
          this.strange++;
          return;
        }
        i++;
        continue;
      }
      // A letter and its number.
      i++;
      while (i < to && b[i] === 32) i++;
      let sign = 1;
      if (b[i] === 45) {
        sign = -1;
        i++;
      } else if (b[i] === 43) i++;
      let value = 0;
      let digits = 0;
      while (i < to && b[i]! >= 48 && b[i]! <= 57) {
        value = 10 * value + b[i]! - 48;
        digits++;
        i++;
      }
      if (b[i] === 46) {
        i++;
        let share = 0.1;
        while (i < to && b[i]! >= 48 && b[i]! <= 57) {
          value += share * (b[i]! - 48);
          share /= 10;
          digits++;
          i++;
        }
      }
      if (digits === 0) {
        // A word rather than a command: its letters are not moves.
        if (!any) return;
        continue;
      }
      any = true;
      // A second G or M on one line is another command: the first counts.
      if (!there[c - 65]) {
        words[c - 65] = sign * value;
        there[c - 65] = 1;
      }
    }
    if (any) this.obey();
  }

  private obey(): void {
    const { words: w, there: t } = this;
    if (t[6]) {
      const g = w[6]!;
      if (g === 0 || g === 1) this.straight();
      else if (g === 2 || g === 3) this.arc(g === 2);
      else if (g === 20) this.unit = INCH;
      else if (g === 21) this.unit = 1;
      else if (g === 28) this.home();
      else if (g === 90) {
        this.absolute = true;
        this.absoluteE ||= !this.saidE;
      } else if (g === 91) {
        this.absolute = false;
        this.absoluteE &&= this.saidE;
      } else if (g === 92) {
        if (t[4]) this.eAt = w[4]! * this.unit;
        if (t[23]) this.x = w[23]! * this.unit;
        if (t[24]) this.y = w[24]! * this.unit;
        if (t[25]) this.z = w[25]! * this.unit;
      } else if (g === 4) this.plan.dwell(t[18] ? w[18]! : t[15] ? w[15]! / 1000 : 0);
    } else if (t[12]) {
      const m = w[12]!;
      if (m === 82 || m === 83) {
        this.absoluteE = m === 82;
        this.saidE = true;
      } else if (m === 204 && (t[18] || t[15])) this.plan.accelerate(t[15] ? w[15]! : w[18]!);
    }
  }

  private home(): void {
    const { there: t } = this;
    const all = !t[23] && !t[24] && !t[25];
    if (all || t[23]) this.x = 0;
    if (all || t[24]) this.y = 0;
    if (all || t[25]) this.z = 0;
  }

  private target(letter: number, now: number): number {
    if (!this.there[letter]) return now;
    const value = this.words[letter]! * this.unit;
    return this.absolute ? value : now + value;
  }

  private extruded(): number {
    if (!this.there[4]) return 0;
    const value = this.words[4]! * this.unit;
    const by = this.absoluteE ? value - this.eAt : value;
    this.eAt = this.absoluteE ? value : this.eAt + value;
    return by;
  }

  private straight(): void {
    if (this.there[5]) this.feed = this.words[5]! * this.unit;
    const [x, y, z] = [this.target(23, this.x), this.target(24, this.y), this.target(25, this.z)];
    this.moves++;
    this.move(x, y, z, this.extruded());
  }

  private arc(clockwise: boolean): void {
    const { words: w, there: t } = this;
    if (t[5]) this.feed = w[5]! * this.unit;
    const [x, y, z] = [this.target(23, this.x), this.target(24, this.y), this.target(25, this.z)];
    const by = this.extruded();
    this.moves++;
    let [cx, cy] = [this.x + (t[8] ? w[8]! * this.unit : 0), this.y + (t[9] ? w[9]! * this.unit : 0)];
    if (t[17] && !t[8] && !t[9]) {
      const [dx, dy] = [x - this.x, y - this.y];
      const chord = Math.hypot(dx, dy);
      const r = w[17]! * this.unit;
      const h = Math.sqrt(Math.max(0, r * r - (chord * chord) / 4));
      // A positive radius means the shorter arc.
      const side = clockwise === r > 0 ? -1 : 1;
      cx = this.x + dx / 2 - (side * h * dy) / (chord || 1);
      cy = this.y + dy / 2 + (side * h * dx) / (chord || 1);
    }
    const radius = Math.hypot(this.x - cx, this.y - cy);
    const from = Math.atan2(this.y - cy, this.x - cx);
    let sweep = Math.atan2(y - cy, x - cx) - from;
    if (clockwise && sweep >= -1e-9) sweep -= 2 * Math.PI;
    if (!clockwise && sweep <= 1e-9) sweep += 2 * Math.PI;
    const step = radius > SAGITTA ? 2 * Math.acos(1 - SAGITTA / radius) : Math.PI;
    const pieces = Math.max(1, Math.ceil(Math.abs(sweep) / step));
    const z0 = this.z;
    for (let k = 1; k <= pieces; k++) {
      const a = from + (sweep * k) / pieces;
      const last = k === pieces;
      this.move(
        last ? x : cx + radius * Math.cos(a),
        last ? y : cy + radius * Math.sin(a),
        z0 + ((z - z0) * k) / pieces,
        by / pieces,
      );
    }
  }

  private move(x: number, y: number, z: number, by: number): void {
    const [dx, dy] = [x - this.x, y - this.y];
    this.plan.move(dx, dy, z - this.z, by, this.feed / 60);
    if (by < 0) {
      this.retracted -= by;
      this.retractions++;
    } else if (by > 0) {
      const back = Math.min(this.retracted, by);
      this.retracted -= back;
      const laid = by - back;
      this.filament += laid;
      if (laid > 1e-7 && (Math.abs(dx) > 1e-6 || Math.abs(dy) > 1e-6)) this.lay(x, y, z, laid);
    }
    this.x = x;
    this.y = y;
    this.z = z;
  }

  private lay(x: number, y: number, z: number, laid: number): void {
    if (this.x0.length >= MOST_SEGMENTS)
      throw new GcodeError('too-large', 'It holds more than six million moves: slice fewer parts at once.');
    let layer = this.layers.at(-1);
    if (!layer || Math.abs(layer.z - z) > SAME_LAYER) {
      if (layer && z < layer.z - SAME_LAYER) this.sequential = true;
      layer = { z, from: this.x0.length, to: this.x0.length };
      this.layers.push(layer);
    }
    this.x0.push(this.x);
    this.y0.push(this.y);
    this.x1.push(x);
    this.y1.push(y);
    this.e.push(laid);
    this.role.push(ROLES.indexOf(this.now));
    layer.to = this.x0.length;
  }

  private comment(b: Uint8Array, from: number, to: number): void {
    const text = String.fromCharCode(...b.subarray(from, to)).trim();
    const role = roleOfComment(text);
    if (role) {
      // What was extruded before the first of them only primed the nozzle.
      if (!this.rolesKnown) this.markBefore();
      this.rolesKnown = true;
      this.now = role;
      return;
    }
    Object.assign(this.said, saidIn(text));
  }

  private markBefore(): void {
    const roles = this.role.done();
    roles.fill(ROLES.indexOf('prime'));
  }
}
