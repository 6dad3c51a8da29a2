import { prescribe } from '../plan/prescribe.js';
import { exercise } from '../testing/exercises.js';
import {
  impactOfDone,
  loadOfWork,
  tensionMinutes,
  weekLoadOn,
  workByDay,
  workDone,
  lastWholeDay,
  workWithin,
} from './work.js';

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
const calf = { key: 'calf', model: 'heel-raise' } as const;
const onLeft = { tissue: calf, affected: 'left', bodyMassKg: 80 } as const;
const load = (logged: Parameters<typeof workDone>[0]) =>
  loadOfWork(workDone(logged, plans, exerciseOf), onLeft)[0]?.load ?? 0;

describe('what was done', () => {
  it('is read by the version it was done with, whatever came after', () => {
    expect(load([did('one')])).toBeLessThan(load([did('two')]));
    expect(load([did('one')])).toBeCloseTo((weekLoadOn(light, rise, onLeft) ?? 0) / 3, 9);
  });

  it('takes the newest version that has it where its own does not, and leaves out what none has', () => {
    expect(load([did('gone')])).toBe(load([did('two')]));
    expect(workDone([did('two', 'hop')], plans, exerciseOf)).toHaveLength(1);
    expect(workDone([did('two', 'unheard-of')], plans, exerciseOf)).toEqual([]);
    expect(workDone([did('one')], [], exerciseOf)).toEqual([]);
  });

  it('looks back from today once something is logged today, else from yesterday', () => {
    expect(lastWholeDay(['2026-03-06', '2026-03-08'], '2026-03-08')).toBe('2026-03-08');
    expect(lastWholeDay(['2026-03-06', '2026-03-07'], '2026-03-08')).toBe('2026-03-07');
    expect(lastWholeDay([], '2026-03-01')).toBe('2026-02-28');
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
    expect(weekLoadOn(left, rise, { ...onLeft, affected: 'both' })).toBe(
      weekLoadOn(left, rise, { ...onLeft, affected: 'left' }),
    );
    expect(weekLoadOn(left, rise, { ...onLeft, affected: 'none' })).toBe(
      weekLoadOn(left, rise, { ...onLeft, affected: 'left' }),
    );
    expect(weekLoadOn(left, rise, { ...onLeft, affected: 'right' })).toBe(0);
  });

  it('counts each tissue by what the exercise says of it, weight carried included; none where it says nothing', () => {
    const knee = { tissue: { key: 'knee', model: 'weights' }, affected: 'left', bodyMassKg: 80 } as const;
    const squat = exercise({ key: 'squat', load: null, loads: { knee: 0.5 } });
    const plain = weekLoadOn(light, squat, knee) ?? 0;
    expect(plain).toBeCloseTo(0.5 * 3 * 10 * 6 * 3, 9);
    expect(weekLoadOn({ ...light, addedKg: 20 }, squat, knee)).toBeCloseTo(plain * 1.25, 9);
    expect(weekLoadOn(light, squat, onLeft)).toBeNull();
    expect(weekLoadOn(light, rise, knee)).toBeNull();
  });

  it('keeps landings and minutes of running apart, and minutes under tension by day', () => {
    const work = workDone([did('one', 'hop'), did('one', 'run'), did('one')], plans, exerciseOf);
    expect(impactOfDone(work)).toEqual({ contacts: 30, runMinutes: 1 });
    expect(tensionMinutes(workByDay(work).get('2026-03-02') ?? [])).toBeCloseTo(9, 9);
    expect(workByDay(work).get('2026-03-03')).toBeUndefined();
    expect(tensionMinutes([])).toBe(0);
  });
});
