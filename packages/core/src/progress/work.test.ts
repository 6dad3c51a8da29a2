import { prescribe } from '../plan/prescribe.js';
import { exercise } from '../testing/exercises.js';
import { impactOfDone, loadOfWork, tensionMinutesOn, weekLoadOn, workDone, workWithin } from './work.js';

const rise = exercise();
const hop = exercise({ key: 'hop', tags: ['impact', 'weight-bearing'], load: null });
const run = exercise({ key: 'run', position: 'running', tags: ['impact'], load: null });
const exerciseOf = (key: string) => [rise, hop, run].find((e) => e.key === key);
const rule = { slot: 's', sideRule: 'treated', affected: 'left' } as const;
const light = prescribe(rise, rule);
const heavy = { ...light, addedKg: 20, reps: 12 };
const plans = [
  { id: 'one', items: [light, prescribe(hop, rule), prescribe(run, rule)] },
  { id: 'two', items: [heavy] },
];
const did = (planId: string | null, name = 'rise', day = '2026-03-02') => ({
  day,
  planId,
  exercises: [{ exercise: name, sets: 3, reps: 10, effort: 5 }],
});
const load = (logged: Parameters<typeof workDone>[0]) =>
  loadOfWork(workDone(logged, plans, exerciseOf), 'left', 80)[0]?.load ?? 0;

describe('what was done', () => {
  it('is read by the version it was done with, whatever came after', () => {
    expect(load([did('one')])).toBeLessThan(load([did('two')]));
    expect(load([did('one')])).toBeCloseTo((weekLoadOn(light, rise, 'left', 80) ?? 0) / 3, 9);
  });

  it('takes the newest version that has it where its own does not, and leaves out what none has', () => {
    expect(load([did('gone')])).toBe(load([did('two')]));
    expect(workDone([did('two', 'hop')], plans, exerciseOf)).toHaveLength(1);
    expect(workDone([did('two', 'unheard-of')], plans, exerciseOf)).toEqual([]);
    expect(workDone([did('one')], [], exerciseOf)).toEqual([]);
  });

  it('counts the days of the span, today included', () => {
    const work = workDone(
      ['2026-03-01', '2026-03-02', '2026-03-08', '2026-03-09'].map((d) => did('one', 'rise', d)),
      plans,
      exerciseOf,
    );
    expect(workWithin(work, '2026-03-08', 7).map((w) => w.day)).toEqual(['2026-03-02', '2026-03-08']);
  });

  it('counts the side that carries more where both are treated, and both where none is', () => {
    const left = { ...light, sides: 'left' as const };
    expect(weekLoadOn(left, rise, 'both', 80)).toBe(weekLoadOn(left, rise, 'left', 80));
    expect(weekLoadOn(left, rise, 'none', 80)).toBe(weekLoadOn(left, rise, 'left', 80));
    expect(weekLoadOn(left, rise, 'right', 80)).toBe(0);
  });

  it('keeps landings and minutes of running apart, and minutes under tension by day', () => {
    const work = workDone([did('one', 'hop'), did('one', 'run'), did('one')], plans, exerciseOf);
    expect(impactOfDone(work)).toEqual({ contacts: 30, runMinutes: 1 });
    expect(tensionMinutesOn(work, '2026-03-02')).toBeCloseTo(9, 9);
    expect(tensionMinutesOn(work, '2026-03-03')).toBe(0);
  });
});
