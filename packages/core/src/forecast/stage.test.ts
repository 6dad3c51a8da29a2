import fc from 'fast-check';
import type { Criterion, CriterionPart } from '../progress/criteriaTypes.js';
import { stageAhead, type StageAheadOn, type When } from './stage.js';

const TODAY = '2026-03-01';
const on = (name: string): Criterion => ({ skill: name, state: 'clean' });
const when = (medianDate: string | null, lowDate = medianDate, highDate = medianDate): When => ({
  medianDate,
  lowDate,
  highDate,
});

const ahead = (
  criteria: Criterion,
  whens: Readonly<Record<string, When>> = {},
  {
    states = {},
    notBefore = TODAY,
  }: { states?: Record<string, CriterionPart['state']>; notBefore?: string } = {},
) => {
  const asked: StageAheadOn = {
    criteria,
    textOf: (leaf) => ('skill' in leaf ? leaf.skill : 'other'),
    stateOf: (text) => states[text] ?? 'not-met',
    whenOf: (text) => whens[text],
    today: TODAY,
    notBefore,
  };
  return stageAhead(asked);
};

describe('when a stage may be left', () => {
  it('is the last of all its criteria, each date by itself', () => {
    const of = ahead(
      { all: [on('a'), on('b')] },
      {
        a: when('2026-03-20', '2026-03-10', '2026-05-01'),
        b: when('2026-04-01', '2026-03-25', '2026-04-10'),
      },
    );
    expect(of).toEqual({ when: when('2026-04-01', '2026-03-25', '2026-05-01'), besides: [] });
  });

  it('is of alternatives the likeliest, and of some as many as are wanted', () => {
    const whens = { a: when('2026-05-01'), b: when('2026-04-01'), c: when('2026-06-01') };
    expect(ahead({ any: [on('a'), on('b')] }, whens).when?.medianDate).toBe('2026-04-01');
    expect(ahead({ atLeast: 2, of: [on('a'), on('b'), on('c')] }, whens).when?.medianDate).toBe('2026-05-01');
  });

  it('is of two alternatives without a middle the one that may come', () => {
    const never = when(null);
    const perhaps = when(null, '2026-06-01', null);
    expect(ahead({ any: [on('a'), on('b')] }, { a: never, b: perhaps }).when).toEqual(perhaps);
  });

  it('takes the way that trends alone lead to, before one that wants something else', () => {
    const of = ahead(
      { any: [{ all: [on('a'), on('x')] }, on('b')] },
      { a: when('2026-03-05'), b: when('2026-04-01') },
    );
    expect(of).toEqual({ when: when('2026-04-01'), besides: [] });
  });

  it('leaves out what is met or does not apply', () => {
    const whens = { a: when('2026-05-01'), b: when('2026-04-01') };
    for (const state of ['met', 'not-applicable'] as const)
      expect(ahead({ all: [on('a'), on('b')] }, whens, { states: { a: state } }).when?.medianDate).toBe(
        '2026-04-01',
      );
  });

  it('says beside it what no trend leads to, within error and not known included', () => {
    const of = ahead(
      { all: [on('a'), on('x'), on('y'), on('z')] },
      { a: when('2026-04-01') },
      { states: { y: 'not-known', z: 'met-within-error' } },
    );
    expect(of).toEqual({ when: when('2026-04-01'), besides: ['x', 'y', 'z'] });
    expect(ahead({ all: [on('x')] })).toEqual({ when: null, besides: ['x'] });
  });

  it('is never before the shortest time, and only that where everything else is met', () => {
    const notBefore = '2026-04-15';
    expect(ahead(on('a'), { a: when('2026-03-10', '2026-03-05', '2026-05-01') }, { notBefore }).when).toEqual(
      when('2026-04-15', '2026-04-15', '2026-05-01'),
    );
    const all: Criterion = { all: [on('a'), { minDays: 45 }] };
    expect(ahead(all, {}, { notBefore, states: { a: 'met' } }).when).toEqual(when(notBefore));
    expect(ahead(all, {}, { states: { a: 'met' } }).when).toBeNull();
  });

  it('is not within the horizon when one of its criteria is not', () => {
    const of = ahead(
      { all: [on('a'), on('b')] },
      { a: when('2026-04-01'), b: when(null, '2026-09-01', null) },
    );
    expect(of.when).toEqual(when(null, '2026-09-01', null));
  });

  const day = fc.integer({ min: 1, max: 28 }).map((d) => `2026-04-${String(d).padStart(2, '0')}`);
  it('is never sooner with one criterion more, nor later with one alternative more', () => {
    fc.assert(
      fc.property(fc.array(day, { minLength: 2, maxLength: 6 }), (days) => {
        const names = days.map((_, i) => `c${i}`);
        const whens = Object.fromEntries(days.map((d, i) => [`c${i}`, when(d)]));
        const middle = (criterion: Criterion) => ahead(criterion, whens).when?.medianDate ?? '';
        const [fewer, more] = [names.slice(0, -1).map(on), names.map(on)];
        expect(middle({ all: more }) >= middle({ all: fewer })).toBe(true);
        expect(middle({ any: more }) <= middle({ any: fewer })).toBe(true);
      }),
    );
  });
});
