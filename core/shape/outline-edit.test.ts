import { describe, expect, test } from 'vitest';
import { canMove, edgeLines, movedGrip, outOfEdge, snapped, withCorner } from './outline-edit';
import { mapCorner, outlineOfText, readCorners, writeCorners } from './outline-text';
import type { Point2 } from './vector';

const SQUARE = readCorners('0, 0; 40, 0 round 3; 40, 25; 0, 25 trim -1');
const points = (corners: typeof SQUARE) => corners.map((c): Point2 => [Number(c.x), Number(c.y)]);

describe('an outline changed on its drawing', () => {
  test('a corner moves, and keeps what belongs to it', () => {
    expect(writeCorners(movedGrip(SQUARE, { of: 'corner', at: 1 }, [1.5, -2]))).toBe(
      '0, 0; 41.5, -2 round 3; 40, 25; 0, 25 trim -1',
    );
  });

  test('an edge moves with both its ends, the first one’s ends being the last corner and the first', () => {
    expect(writeCorners(movedGrip(SQUARE, { of: 'edge', at: 2 }, [2, 0]))).toBe(
      '0, 0; 42, 0 round 3; 42, 25; 0, 25 trim -1',
    );
    expect(writeCorners(movedGrip(SQUARE, { of: 'edge', at: 0 }, [-1, 0]))).toBe(
      '-1, 0; 40, 0 round 3; 40, 25; -1, 25 trim -1',
    );
  });

  test('an arc’s point moves alone, and with its edge', () => {
    const arc = readCorners('0, 0; 30, 0; 30, 6; 0, 6 via 15, 21');
    expect(movedGrip(arc, { of: 'via', at: 3 }, [0, 2])[3]!.via).toEqual(['15', '23']);
    expect(movedGrip(arc, { of: 'edge', at: 3 }, [0, 1])[3]).toMatchObject({ y: '7', via: ['15', '22'] });
    expect(movedGrip(arc, { of: 'via', at: 0 }, [0, 2])).toEqual(arc);
  });

  test('a number made from a size stays as it is written', () => {
    const made = readCorners('0, 0; seat_width, 0; seat_width, 20; 0, seat_height');
    expect(movedGrip(made, { of: 'corner', at: 1 }, [5, 2])[1]).toMatchObject({ x: 'seat_width', y: '2' });
    expect(canMove(made, { of: 'corner', at: 1 })).toBe(true);
    expect(canMove(readCorners('a, b; 1, 0; 0, 1'), { of: 'corner', at: 0 })).toBe(false);
    expect(canMove(made, { of: 'via', at: 1 })).toBe(false);
  });

  test('out is away from the inside, whichever way round it is written', () => {
    expect(outOfEdge(points(SQUARE), 1)).toEqual([0, -1]);
    expect(outOfEdge(points([...SQUARE].reverse()), 1)).toEqual([0, 1]);
  });

  test('a corner more parts a line in its middle, an arc at its point, and stays an outline', () => {
    const more = withCorner(SQUARE, 1, points(SQUARE));
    expect(more[1]).toEqual({ x: '20', y: '0' });
    expect(more).toHaveLength(5);
    const arc = readCorners('0, 0; 30, 0; 30, 6; 0, 6 via 15, 21');
    const parted = withCorner(arc, 3, points(arc));
    expect(writeCorners(parted)).toBe('0, 0; 30, 0; 30, 6; 15, 21; 0, 6');
    expect(outlineOfText(writeCorners(parted)).edges).toHaveLength(5);
  });

  test('in line with another corner where it is near, else to the step', () => {
    const snap = { near: 1, step: 0.5 };
    expect(snapped([10, 10], [0.7, 4.4], [[11, 40]], snap)).toEqual({ by: [1, 4.5], lines: { x: 11 } });
    expect(snapped([10, 10], [0.1, 0.2], [[30, 30]], snap)).toEqual({ by: [0, 0], lines: {} });
  });

  test('the arc is drawn through its point', () => {
    const arc = readCorners('0, 0; 30, 0; 30, 6; 0, 6 via 15, 21').map(c => mapCorner(c, Number));
    const [, , , last] = edgeLines(arc);
    expect(last!.middle[1]).toBeCloseTo(21, 6);
    expect(last!.points[0]).toEqual([30, 6]);
    expect(last!.points.at(-1)).toEqual([0, 6]);
    expect(last!.points.length).toBeGreaterThan(8);
  });
});
