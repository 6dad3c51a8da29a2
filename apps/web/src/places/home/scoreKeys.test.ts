import fc from 'fast-check';
import { MOST, scoreAt } from './scoreKeys.js';

describe('A score by keys', () => {
  it.each([
    ['ArrowRight', 0, 1],
    ['ArrowDown', 0, 4],
    ['ArrowDown', 8, 10],
    ['ArrowUp', 2, 0],
    ['ArrowLeft', 0, 0],
    ['ArrowRight', 10, 10],
    ['Home', 7, 0],
    ['End', 7, 10],
    ['7', 0, 7],
    ['1', 0, 1],
    ['0', 1, 10],
    ['0', 5, 0],
  ])('%s on %i goes to %i', (key, at, to) => {
    expect(scoreAt(key, at, 4)).toBe(to);
  });

  it.each(['Enter', ' ', 'Tab', 'a', '-', 'Escape'])('%s is left to the page', (key) => {
    expect(scoreAt(key, 3, 4)).toBeNull();
  });

  it('stays on the scale, whatever is pressed', () => {
    fc.assert(
      fc.property(
        fc.constantFrom('ArrowRight', 'ArrowDown', 'ArrowLeft', 'ArrowUp', 'Home', 'End', '0', '4', '9'),
        fc.integer({ min: 0, max: MOST }),
        fc.constantFrom(4, 6),
        (key, at, row) => {
          const next = scoreAt(key, at, row);
          expect(next).toBeGreaterThanOrEqual(0);
          expect(next).toBeLessThanOrEqual(MOST);
        },
      ),
    );
  });
});
