// @vitest-environment jsdom
import { expect, test } from 'vitest';
import { keptHere, type Matrix, onPicture } from './picture';

test('a place is taken through the map and divided by its last row', () => {
  const matrix: Matrix = [
    [2, 0, 10],
    [0, 4, 20],
    [0, 0.5, 1],
  ];
  expect(onPicture(matrix, [3, 2])).toEqual([8, 14]);
});

test('what is not a calibration is none', () => {
  localStorage.setItem('true-size', '{"matrix": 3');
  expect(keptHere.read()).toBeUndefined();
  localStorage.setItem('true-size', '{"matrix": [], "high": 3}');
  expect(keptHere.read()).toBeUndefined();
});
