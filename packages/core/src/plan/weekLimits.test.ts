import { exercise } from '../testing/exercises.js';
import { weekLoadOn } from '../progress/work.js';
import { composePlan } from './compose.js';
import { prescribe } from './prescribe.js';
import { weekLimits, type WeekLimitsOn } from './weekLimits.js';
import type { Stage } from '../protocol/definition.js';

const rise = exercise();
const calf = { key: 'calf', name: 'Calf', model: 'heel-raise' } as unknown as WeekLimitsOn['tissues'][number];
const item = prescribe(rise, { slot: 's', sideRule: 'treated', affected: 'left' });
const asked = weekLoadOn(item, rise, { tissue: calf, affected: 'left', bodyMassKg: 70 }) ?? 0;

const on = (over: Partial<WeekLimitsOn> = {}): WeekLimitsOn => ({
  tissues: [calf],
  affected: 'left',
  bodyMassKg: 70,
  loadDone: [{ tissue: 'calf', exercise: 'rise', load: asked }],
  impactDone: { contacts: 0, runMinutes: 0 },
  runsDone: [],
  today: '2026-05-31',
  loggedDays: 6,
  planned: [],
  elsewhere: [],
  ...over,
});
const rises = { loadRisePercent: 20, impactRisePercent: 20 };

describe('what a coming week may hold', () => {
  it('is so much over what was done, or over what the plan asks for where less was done', () => {
    expect(weekLimits(rises, on()).most['calf']).toBeCloseTo(asked * 1.2, 6);
    const half = [{ tissue: 'calf', exercise: 'rise', load: asked / 2 }];
    expect(weekLimits(rises, on({ loadDone: half })).most['calf']).toBeCloseTo(asked * 0.6, 6);
    const planned = [{ item, exercise: rise }];
    expect(weekLimits(rises, on({ loadDone: half, planned })).most['calf']).toBeCloseTo(asked * 1.2, 6);
  });

  it('limits no slow load where nothing can be compared, and impact to a first week', () => {
    const few = weekLimits(rises, on({ loggedDays: 3 })).most;
    expect(few['calf']).toBeUndefined();
    expect(few).toMatchObject({ contacts: 60, 'run-minutes': 20 });
    expect(weekLimits(rises, on({ loadDone: [] })).most['calf']).toBeUndefined();
  });

  it('counts what plans for other complaints take of the same tissue, also for one that has only begun', () => {
    const elsewhere = [{ item, exercise: rise }];
    expect(weekLimits(rises, on({ elsewhere })).most['calf']).toBeCloseTo(asked * 1.4, 6);
    const begun = { loadDone: [], loggedDays: 0, elsewhere };
    expect(weekLimits(rises, on(begun)).most['calf']).toBeCloseTo(asked * 0.2, 6);
    const otherFoot = prescribe(rise, { slot: 's', sideRule: 'treated', affected: 'right' });
    const apart = [{ item: otherFoot, exercise: rise }];
    expect(weekLimits(rises, on({ ...begun, elsewhere: apart })).most['calf']).toBeUndefined();
  });

  it('leaves of impact what other plans do not take, never more than the stage allows in all', () => {
    const hop = exercise({ key: 'hop', name: 'Hop', position: 'standing', tags: ['impact'] });
    const hops = prescribe(hop, { slot: 's', sideRule: 'treated', affected: 'left' });
    const week = hops.sets * hops.reps * hops.timesPerDay * hops.daysPerWeek;
    const limits = weekLimits(rises, on({ elsewhere: [{ item: hops, exercise: hop }] }));
    expect(limits.most['contacts']).toBeCloseTo(week * 0.2, 6);
    expect(limits.elsewhere).toEqual({ contacts: week, 'run-minutes': 0 });
  });

  it('makes the planner take fewer sets, and says what for', () => {
    const stage = {
      slots: [
        {
          key: 's',
          purpose: 'Rise',
          aim: 'strength',
          ladder: 'rises',
          start: 'rise',
          priority: 1,
          sideRule: 'treated',
          dose: { sets: 5 },
        },
      ],
      adjuncts: [],
      contactsPerWeek: null,
      runMinutesPerWeek: null,
    } as unknown as Stage;
    const plan = (limits?: ReturnType<typeof weekLimits>) =>
      composePlan(
        {
          stage,
          exercises: [rise],
          facts: {
            measures: [],
            sessions: [],
            skills: {},
            stageSince: '2026-01-05',
            affected: 'left',
          } as never,
          schools: {},
          equipment: [],
          minutesPerDay: 60,
          tagsOff: { left: [], right: [] },
          drivers: [],
          now: '2026-01-12T08:00:00Z',
          ...(limits === undefined ? {} : { load: limits }),
        },
        () => undefined,
      ).exercises[0];
    expect(plan()?.sets).toBe(5);
    const held = plan(weekLimits(rises, on()));
    expect(held?.sets).toBe(3);
    expect(held?.why.join('; ')).toContain('3 of 5 sets, so that the load of the week rises slowly');
  });
});
