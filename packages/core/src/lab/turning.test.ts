import { readTurning } from './turning.js';

describe('a foot that goes inward in a squat', () => {
  it.each([
    [9, 12, 'tips'],
    [1, 29.9, 'tips'],
    [9, 30, 'unclear'],
    [9, 59.9, 'unclear'],
    [4, 60, 'within'],
    [3.9, 60, 'stays'],
    [3.9, 30, 'stays'],
  ] as const)('heel %p degrees, outer ball %p %%: %s', (heel, kept, expected) => {
    expect(readTurning(heel, kept)).toBe(expected);
  });
});
