import { weightsOf } from './weights.js';

describe('weights at home, as they are typed', () => {
  it.each([
    ['', []],
    ['1, 2, 4.5', [1, 2, 4.5]],
    ['4 kg; 2 kg 2 kg', [2, 4]],
    ['10,5,1', [1, 5, 10]],
  ])('“%s” is %j', (text, weights) => {
    expect(weightsOf(text)).toEqual({ weights, problem: null });
  });

  it.each([
    ['heavy', /heavy is no number/],
    ['2..5', /is no number/],
    ['0', /not from 0.1/],
    ['200', /not from 0.1 to 100/],
    [Array.from({ length: 21 }, (_, i) => i + 1).join(' '), /At most 20/],
  ])('“%s” is refused with the reason', (text, problem) => {
    expect(weightsOf(text).problem).toMatch(problem);
  });
});
