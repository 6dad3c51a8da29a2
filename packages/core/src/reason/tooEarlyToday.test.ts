import { judgeAcuity } from './acuity.js';
import { judgeIrritability } from './irritability.js';
import { isStrenuous, tooEarlyToday } from './tooEarlyToday.js';

const calm = judgeIrritability({
  worstPain: 3,
  provokedWithinFiveMinutes: false,
  settlesMinutes: 10,
  nightPain: false,
});
const high = judgeIrritability({ worstPain: 8, nightPain: true });
const state = (days: number | null, irritability = calm, cannotTakeWeight = false) => ({
  acuity: judgeAcuity(days),
  irritability,
  cannotTakeWeight,
});

describe('what waits for another day', () => {
  it.each([
    [5, /^fresh, 5 days since it began/],
    [6, null],
    [null, null],
  ])('%s days since it began: %s', (days, why) => {
    const told = tooEarlyToday(state(days));
    if (why === null) expect(told).toBeNull();
    else expect(told).toMatch(why);
  });

  it('is told of high irritability with its signs, and of a foot that takes no weight before all else', () => {
    expect(tooEarlyToday(state(60, high))).toBe('highly irritable, worst pain 8, 7 or more and night pain');
    expect(tooEarlyToday(state(2, high, true))).toBe('the foot takes no weight');
  });

  it.each([
    [['impact'], true],
    [['weight-bearing', 'push-off'], true],
    [['weight-bearing', 'calf-load'], true],
    [['weight-bearing'], false],
    [['calf-load'], false],
    [['weight-bearing', 'deep-dorsiflexion'], false],
    [[], false],
  ] as const)('%j is strenuous: %p', (needs, strenuous) => expect(isStrenuous({ needs })).toBe(strenuous));

  it('is what a test says of itself before what it puts on the foot', () => {
    expect(isStrenuous({ needs: ['weight-bearing'], strenuous: true })).toBe(true);
    expect(isStrenuous({ needs: ['impact'], strenuous: false })).toBe(false);
  });
});
