import { cornerSpeed } from '../motion';
import { USUAL_MACHINE } from '../settings';

/** A printer's head following a file's moves with some look-ahead: how long that takes. Lengths mm, speeds mm/s. */

/** Number of moves that are planned together, as in a controller. */
const AHEAD = 64;

export class MovePlan {
  private acceleration = USUAL_MACHINE.acceleration;
  private total = 0;
  private readonly long = new Float64Array(AHEAD);
  private readonly most = new Float64Array(AHEAD);
  private readonly entry = new Float64Array(AHEAD + 1);
  private readonly x = new Float64Array(AHEAD);
  private readonly y = new Float64Array(AHEAD);
  private count = 0;
  /** Speed at the start of the first planned move. */
  private begins = 0;

  dwell(seconds: number): void {
    this.flush();
    this.total += Math.min(600, seconds);
  }

  accelerate(to: number): void {
    if (to >= 20 && to <= 100_000) this.acceleration = to;
  }

  move(dx: number, dy: number, dz: number, by: number, speed: number): void {
    const flat = Math.sqrt(dx * dx + dy * dy);
    if (flat < 1e-9) {
      // Lifting or retracting: from standstill to standstill.
      const length = Math.max(Math.abs(dz), Math.abs(by));
      if (length < 1e-9) return;
      this.flush();
      this.total += length / Math.max(0.1, speed);
      return;
    }
    if (this.count === AHEAD) this.half();
    const i = this.count++;
    this.long[i] = flat;
    this.most[i] = Math.max(0.1, speed);
    this.x[i] = dx / flat;
    this.y[i] = dy / flat;
  }

  seconds(): number {
    this.flush();
    return this.total;
  }

  private plan(end: number): void {
    const { long, most, entry, x, y, count, acceleration } = this;
    const moves = { acceleration, deviation: USUAL_MACHINE.deviation };
    entry[0] = this.begins;
    entry[count] = end;
    for (let i = 1; i < count; i++) {
      const corner = cornerSpeed(x[i - 1]! * x[i]! + y[i - 1]! * y[i]!, moves);
      entry[i] = Math.min(corner, most[i - 1]!, most[i]!);
    }
    const a2 = 2 * acceleration;
    for (let i = count - 1; i > 0; i--)
      entry[i] = Math.min(entry[i]!, Math.sqrt(entry[i + 1]! ** 2 + a2 * long[i]!));
    for (let i = 1; i <= count; i++)
      entry[i] = Math.min(entry[i]!, Math.sqrt(entry[i - 1]! ** 2 + a2 * long[i - 1]!));
  }

  private spend(upTo: number): void {
    const { long, most, entry, acceleration: a } = this;
    for (let i = 0; i < upTo; i++) {
      const [from, to] = [entry[i]!, entry[i + 1]!];
      const peak = Math.max(
        Math.min(most[i]!, Math.sqrt(a * long[i]! + (from * from + to * to) / 2)),
        from,
        to,
        1e-3,
      );
      const ramps = (2 * peak * peak - from * from - to * to) / (2 * a);
      this.total += (2 * peak - from - to) / a + Math.max(0, long[i]! - ramps) / peak;
    }
  }

  /** The first half is final; the second is planned again with the moves that follow. */
  private half(): void {
    const keep = AHEAD / 2;
    this.plan(0);
    this.spend(keep);
    this.begins = this.entry[keep]!;
    for (const list of [this.long, this.most, this.x, this.y]) list.copyWithin(0, keep);
    this.count = AHEAD - keep;
  }

  private flush(): void {
    if (this.count > 0) {
      this.plan(0);
      this.spend(this.count);
    }
    this.count = 0;
    this.begins = 0;
  }
}
