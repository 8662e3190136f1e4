import { describe, expect, test } from 'vitest';
import { threadNamed } from '../shelf/threads';
import {
  insertBoss,
  type PrintedThread,
  printedThread,
  selfCuttingBoss,
  taperBossWall,
  threadWays,
} from './screw';

const coarse: PrintedThread = {
  major: 108,
  minor: 98,
  pitch: 13,
  starts: 1,
  hand: 'right',
  side: 'internal',
  flankAngle: 30,
  clearance: 2,
  crestRadius: 2,
};

describe('printed threads', () => {
  test('a coarse thread of 108 runs in 110 (common practice, no source); its root clears the crest', () => {
    const n = printedThread(coarse, 0.2);
    expect(n.major).toBe(110);
    expect(n.minor).toBe(100);
    expect(n.depth).toBe(5);
    expect(n.rootRadius).toBe(3);
    expect(n.layersPerPitch).toBeCloseTo(65, 9);
  });

  test('the screw itself shrinks by as much', () => {
    const n = printedThread({ ...coarse, side: 'external' }, 0.2);
    expect([n.major, n.minor]).toEqual([106, 96]);
  });

  test('M10 by its basic profile: H1 = 0.5413 P, and 0.4 across gives 0.231 to and fro', () => {
    const m10 = threadNamed('M10')!;
    const n = printedThread(
      {
        ...coarse,
        major: m10.major,
        minor: m10.minorInternal,
        pitch: m10.pitch,
        flankAngle: m10.flankAngle,
        clearance: 0.4,
        crestRadius: 0,
      },
      0.2,
    );
    // ISO 68-1: height of engagement 5/8 H, H = P·√3/2.
    expect(n.depth).toBeCloseTo(0.541266 * 1.5, 3);
    expect(n.axialPlay).toBeCloseTo(0.4 * Math.tan(Math.PI / 6), 9);
  });

  test('two starts climb two pitches a turn', () => {
    const one = printedThread(coarse, 0.2);
    const two = printedThread({ ...coarse, starts: 2 }, 0.2);
    expect(two.lead).toBe(26);
    expect(Math.tan((two.helix * Math.PI) / 180)).toBeCloseTo(2 * Math.tan((one.helix * Math.PI) / 180), 9);
    // A helix by hand: 13 along over π·103 around.
    expect(Math.tan((one.helix * Math.PI) / 180)).toBeCloseTo(13 / (Math.PI * 103), 9);
  });

  test('what is no thread is refused', () => {
    expect(() => printedThread({ ...coarse, minor: 108 }, 0.2)).toThrow(/above the minor/);
    expect(() => printedThread({ ...coarse, pitch: 0 }, 0.2)).toThrow(/pitch/);
    expect(() => printedThread({ ...coarse, flankAngle: 0 }, 0.2)).toThrow(/flanks/);
  });
});

describe('which way a screw should hold', () => {
  const ask = (diameter: number, pitch: number, often = false, pull = 0) =>
    threadWays({ diameter, pitch, layer: 0.2, often, pull }).map(w => w.way);
  test('coarse and large is printed, small and often undone gets brass, seldom undone is tapped', () => {
    expect(ask(110, 13)).toEqual(['print']);
    expect(ask(3, 0.5, true)).toEqual(['insert']);
    expect(ask(6, 1)).toEqual(['tap']);
    expect(ask(10, 1.5)).toEqual(['print', 'tap']);
  });
  test('what pulls hard goes through to a nut, and so does what nothing else suits', () => {
    expect(ask(6, 1, false, 500)[0]).toBe('nut');
    expect(ask(16, 1, true)).toEqual(['nut']);
  });
});

test('bosses: a hole, a depth and plastic around it', () => {
  expect(selfCuttingBoss(4)).toMatchObject({ hole: 3.2, depth: 10, outside: 8 });
  expect(insertBoss('M3')).toMatchObject({ hole: 4, outside: 7.5 });
  expect(insertBoss('M99')).toBeUndefined();
  // 1/4 NPT is 1.1 deep.
  expect(taperBossWall(1.1)).toBeCloseTo(3.3, 9);
});
