import { loadContent } from '@heathstep/content';
import type { CourseView, PlanView } from '@heathstep/contracts';
import { composePlan, type ComposedExercise, type Stage } from '@heathstep/core';
import type { ClinicContent } from '../../api/queries.js';
import { planChanges } from './planChanges.js';
import { addable, addableFinder, allSteps, minutesBy, neighbour, planModel } from './planModel.js';

const loaded = loadContent();
if (!loaded.ok) throw new Error(loaded.problems.join('\n'));
const content: ClinicContent = {
  ...loaded.content,
  reviews: {},
  own: [],
  ownExercises: [],
  ownRoutines: [],
  favourites: [],
  notes: {},
  bands: [],
};
const heelPain = content.protocols.find((p) => p.key === 'plantar-heel-pain');
const stage = heelPain?.stages[1] as Stage;
const course = (tagsOff: string[] = [], more: object = {}) =>
  ({
    episode: {
      today: '2026-05-31',
      affected: 'left',
      bodyMassKg: 70,
      tagsOff: { left: tagsOff, right: tagsOff },
      elsewhere: [],
    },
    protocol: heelPain,
    loadDone: [],
    drivers: [],
    tooEarly: [],
    impactDone: { contacts: 0, runMinutes: 0 },
    runsDone: [],
    loggedDays: 0,
    ...more,
  }) as unknown as CourseView;
const items: readonly ComposedExercise[] = composePlan(
  {
    stage,
    exercises: content.exercises,
    facts: { measures: [], sessions: [], skills: {}, stageSince: '2026-03-01', affected: 'left' },
    schools: { lengthening: 'loading-led', insole: 'none' },
    equipment: ['towel'],
    minutesPerDay: 30,
    tagsOff: { left: [], right: [] },
    drivers: [],
    now: '2026-03-01',
  },
  (key) => content.measures.find((m) => m.key === key),
).exercises;
const raise = () => {
  const line = planModel(items, course(), content, stage).lines.find(
    (l) => l.exercise.key === 'raise-two-legs',
  );
  if (line === undefined) throw new Error('the stage has a raise');
  return line;
};

const calfOf = (m: ReturnType<typeof planModel>) => m.loads.find((l) => l.tissue.key === 'calf');

describe('the sums beside a plan', () => {
  it('add up to the week, day by day', () => {
    const model = planModel(items, course(), content, stage);
    expect(model.week.reduce((a, b) => a + b, 0)).toBeCloseTo(model.minutesPerWeek, 6);
    expect(Math.max(...model.week)).toBeLessThanOrEqual(model.minutesPerDay + 1e-9);
  });

  it('name the exercises without a load estimate instead of counting them as none', () => {
    const model = planModel(items, course(), content, stage);
    expect(calfOf(model)?.coming.map((c) => c.exercise)).toEqual(['Heel raise on two legs']);
    expect(calfOf(model)?.withoutEstimate).toHaveLength(items.length - 1);
  });

  it('keep a ledger of each tissue the protocol counts, in its order', () => {
    const { loads } = planModel(items, course(), content, stage);
    expect(loads.map((l) => l.tissue.key)).toEqual(heelPain?.tissues);
    const sole = loads.find((l) => l.tissue.key === 'sole');
    expect(sole?.coming.length).toBeGreaterThan(1);
  });

  it('warn of a rise above the stage’s limit over what was done, naming what did it', () => {
    const [coming] = calfOf(planModel(items, course(), content, stage))?.coming ?? [];
    const done = {
      loadDone: [{ tissue: 'calf', exercise: 'raise-two-legs', load: (coming?.load ?? 0) / 1.5 }],
      loggedDays: 6,
    };
    expect(calfOf(planModel(items, course([], done), content, stage))?.rise).toMatchObject({
      over: true,
      because: 'Heel raise on two legs',
      percent: expect.closeTo(50, 6),
    });
  });
});

describe('impact beside a plan', () => {
  const pogo = content.exercises.find((e) => e.key === 'pogo');
  const raises = content.exercises.find((e) => e.key === 'raise-two-legs');
  const week = (e: typeof pogo, sets: number, impactDone = { contacts: 0, runMinutes: 0 }) => {
    if (e === undefined) throw new Error('not in the library');
    const item: ComposedExercise = {
      ...e.dose,
      sets,
      exercise: e.key,
      slot: 's',
      sides: 'together',
      why: [],
    };
    return planModel([item], course([], { impactDone }), content, stage);
  };

  it('a swap of raises for pogo never shows less load for each repetition', () => {
    const [hops, slow] = [week(pogo, 3), week(raises, 3)];
    const each = (m: typeof hops) =>
      (calfOf(m)?.coming[0]?.load ?? 0) /
      ((m.lines[0]?.item.reps ?? 1) *
        (m.lines[0]?.item.timesPerDay ?? 1) *
        (m.lines[0]?.item.daysPerWeek ?? 1));
    expect(each(hops)).toBeGreaterThan(each(slow));
  });

  it('has a ledger of its own, over when it rises by more than a fifth', () => {
    const contacts = week(pogo, 3).impact.contacts;
    expect(contacts).toBeGreaterThan(60);
    expect(week(pogo, 3).impactRise.over).toBe(true);
    expect(week(pogo, 3, { contacts: contacts / 1.2, runMinutes: 0 }).impactRise.over).toBe(false);
    expect(week(raises, 3).impact).toEqual({ contacts: 0, runMinutes: 0 });
  });
});

describe('a run of a plan', () => {
  const run = content.exercises.find((e) => e.position === 'running' && e.dose.holdSeconds !== undefined);
  const rise = (minutes: number) => {
    if (run === undefined) throw new Error('no run in the library');
    const item: ComposedExercise = {
      ...run.dose,
      holdSeconds: 900,
      exercise: run.key,
      slot: 's',
      sides: 'together',
      why: [],
    };
    const runsDone = minutes === 0 ? [] : [{ day: '2026-05-20', minutes }];
    const on = course([], { runsDone });
    return planModel([item], { ...on, episode: { ...on.episode, today: '2026-05-31' } }, content, stage)
      .runRise;
  };
  it.each([
    [0, false],
    [13, true],
    [14, false],
  ])('of 15 min after %d min at the longest: too long %p', (longest, over) =>
    expect(rise(longest).over).toBe(over),
  );
});

describe('changing a plan by hand', () => {
  it('goes one rung up or down the ladder', () => {
    expect(
      neighbour(raise(), 1, { course: course(), content, stage: { slots: [] }, items: [] })?.exercise,
    ).toBe('raise-towel-two-legs');
    expect(
      neighbour(raise(), -1, { course: course(), content, stage: { slots: [] }, items: [] }),
    ).toMatchObject({
      exercise: 'raise-wall-exhale',
      sides: 'together',
    });
  });

  it('never offers what safety switches off: steps over it, or offers nothing', () => {
    expect(
      neighbour(raise(), 1, {
        course: course(['forced-extension']),
        content,
        stage: { slots: [] },
        items: [],
      })?.exercise,
    ).toBe('raise-up-two-down-one');
    expect(
      neighbour(raise(), 1, { course: course(['calf-load']), content, stage: { slots: [] }, items: [] }),
    ).toBeNull();
    const off = addable([], course(['barefoot']), content).filter((a) => a.off !== null);
    expect(off.length).toBeGreaterThan(0);
    expect(off.every((a) => a.exercise.tags.includes('barefoot'))).toBe(true);
  });

  it('takes every exercise a rung down or up at once, never one twice and never what safety switches off', () => {
    const rung = (key: string) => content.exercises.find((e) => e.key === key)?.rung ?? 0;
    for (const by of [-1, 1] as const) {
      const on = { course: course(['single-leg-raise']), content, stage };
      const model = planModel(items, on.course, content, stage);
      const next = allSteps(model, by, on);
      expect(next).toHaveLength(items.length);
      expect(new Set(next.map((i) => i.exercise)).size).toBe(items.length);
      expect(next.some((i, n) => i.exercise !== items[n]?.exercise)).toBe(true);
      for (const [n, item] of next.entries()) {
        const before = items[n]?.exercise ?? '';
        if (item.exercise !== before) expect(Math.sign(rung(item.exercise) - rung(before))).toBe(by);
        expect(content.exercises.find((e) => e.key === item.exercise)?.tags).not.toContain(
          'single-leg-raise',
        );
      }
    }
  });

  it('offers first what serves what was found, the easier rungs before the harder', () => {
    const found = course([], { drivers: [{ key: 'calf-weak', label: 'Calf weak', because: 'raise 4' }] });
    const list = addable([], found, content);
    const serving = list.filter((a) => a.serves !== null);
    expect(serving.length).toBeGreaterThan(3);
    expect(list.slice(0, serving.length)).toEqual(serving);
    const rungs = serving.map((a) => a.exercise.rung);
    expect(rungs).toEqual([...rungs].sort((a, b) => a - b));
    expect(addableFinder(list, content)('calf weak').length).toBeGreaterThanOrEqual(serving.length);
    expect(addableFinder(list, content)('shoulder')).toEqual([]);
  });

  it('says where the minutes of a week go', () => {
    const model = planModel(items, course(), content, stage);
    const byAim = minutesBy(model.lines, (e) => [e.aim]);
    expect(byAim.reduce((sum, [, m]) => sum + m, 0)).toBeCloseTo(model.minutesPerWeek, 6);
    expect(byAim.map(([, m]) => m)).toEqual([...byAim.map(([, m]) => m)].sort((a, b) => b - a));
  });

  it('compares two versions by their sentences', () => {
    const given = (list: readonly ComposedExercise[], name = stage.name) =>
      ({ items: list, madeOf: { ...stage, name } }) as unknown as PlanView;
    expect(planChanges(given(items), given(items), content)).toEqual([]);
    const [first, ...rest] = items;
    if (first === undefined) throw new Error('empty');
    const [change] = planChanges(given(items), given([{ ...first, sets: first.sets + 1 }, ...rest]), content);
    expect([change?.title, change?.gone.length, change?.come.length]).toEqual(['Exercises', 1, 1]);
    const [moved] = planChanges(given(items), given(items, 'Later'), content);
    expect(moved).toMatchObject({ title: 'Stage', gone: [stage.name], come: ['Later'] });
  });
});

describe('an exercise that asks for more than was measured', () => {
  const early = [{ exercise: 'raise-one-leg', side: 'left', why: 'too early: left 2' }];
  const of = (key: string, more: object) =>
    addable([], course([], more), content).find((a) => a.exercise.key === key);

  it('can be added by hand, and says so where it is chosen', () => {
    expect(of('raise-one-leg', { tooEarly: early })).toMatchObject({ off: null, early: 'too early: left 2' });
    expect(of('raise-one-leg', {})?.early).toBeNull();
  });

  it('says so in the plan, on the side it is done on', () => {
    const one = (sides: 'left' | 'right') =>
      planModel(
        [{ ...raise().item, exercise: 'raise-one-leg', sides }],
        course([], { tooEarly: early }),
        content,
        stage,
      ).lines[0]?.early;
    expect(one('left')).toBe('too early: left 2');
    expect(one('right')).toBeNull();
  });
});
