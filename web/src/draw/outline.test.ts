import { describe, expect, it } from 'vitest';
import { bounds, points } from './outline';

describe('an outline on the screen', () => {
  it('has its grain to the right and its left side up, as cloth lies face up', () => {
    expect(
      points(
        [
          [0, 0],
          [100, 0],
          [100, 50],
        ],
        0.5,
        10,
        200,
      ),
    ).toBe('10.00,200.00 60.00,200.00 60.00,175.00');
  });
  it('keeps a hundredth of a pixel, and no more', () => {
    expect(points([[1 / 3, 2 / 3]], 1, 0, 0)).toBe('0.33,-0.67');
  });
  it('reaches from its least to its largest place', () => {
    expect(
      bounds([
        [3, -4],
        [-1, 9],
        [2, 2],
      ]),
    ).toEqual({ x0: -1, y0: -4, x1: 3, y1: 9 });
  });
});
