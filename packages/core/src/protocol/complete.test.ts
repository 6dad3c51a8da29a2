import { completeProtocol, type WrittenProtocol } from './complete.js';
import { ageProblem, stageKey } from './definition.js';
import { lostStage, NO_PROTOCOL } from './none.js';

const evidence = { statement: 's', source: 'Convention', kind: 'convention', version: 1 } as const;
const written: WrittenProtocol = {
  key: 'p',
  name: 'P',
  version: 1,
  conditions: ['c'],
  fromAge: 16,
  lookAgainWeeks: 6,
  referWeeks: 12,
  usually: 'weeks',
  tissues: [],
  charts: [],
  evidence,
  stages: [
    {
      key: stageKey('one'),
      name: 'One',
      purpose: { clinician: 'c', patient: 'p' },
      usualWeeks: { min: 1, max: 2 },
      minimumDays: 7,
      criteria: null,
      slots: [
        { key: 'a', purpose: 'p', ladder: 'l', start: 'rise' },
        { key: 'b', purpose: 'p', ladder: 'l', start: 'hold', priority: 7, sideRule: 'both', aim: 'relief' },
      ],
      adjuncts: [{ key: 'lift', text: 't', reason: 'r' }],
      painSchool: 'comfort',
      remeasure: [],
      leadingMeasure: 'm',
      evidence,
    },
  ],
};
const whole = completeProtocol(written, (e) => (e === 'rise' ? 'strength' : 'skill'));

describe('a protocol as it is written', () => {
  it('has its slots in order of importance, on the treated side, with the aim of what they start from', () =>
    expect(whole.stages[0]?.slots).toMatchObject([
      { key: 'a', aim: 'strength', priority: 1, sideRule: 'treated' },
      { key: 'b', aim: 'relief', priority: 7, sideRule: 'both' },
    ]));

  it('lets nothing rise faster than a fifth, and sets no limit that was not written', () =>
    expect(whole.stages[0]).toMatchObject({
      entry: null,
      loadRisePercent: 20,
      impactRisePercent: 20,
      contactsPerWeek: null,
      runMinutesPerWeek: null,
      adjuncts: [{ key: 'lift', dose: null, weaning: null }],
    }));

  it('reads one that was kept for one condition', () => {
    const { conditions: _none, ...old } = written;
    const read = completeProtocol({ ...old, condition: 'c' }, () => 'skill');
    expect(read.conditions).toEqual(['c']);
    expect(read).not.toHaveProperty('condition');
  });

  it('is the same when it is completed again', () =>
    expect(completeProtocol(whole, () => 'skill')).toEqual(whole));
});

describe('the age a protocol is for', () => {
  const child = { name: 'Child', fromAge: 8, toAge: 15 };
  it.each([
    [7, false],
    [8, true],
    [15, true],
    [16, false],
    [null, false],
  ])('from 8 to 15: %s', (age, opens) => expect(ageProblem(child, age) === null).toBe(opens));
  it('has no end where none is written', () =>
    expect(ageProblem({ name: 'A', fromAge: 16, toAge: null }, 99)).toBeNull());
});

describe('where there is no protocol or no stage any more', () => {
  it('nothing is filled, progressed to or asked, and no age is refused', () => {
    expect(NO_PROTOCOL).toMatchObject({ stages: [], schools: [], home: [], confirm: [], conditions: [] });
    expect(ageProblem(NO_PROTOCOL, null)).toBeNull();
    expect(lostStage(stageKey('gone'))).toMatchObject({
      key: 'gone',
      slots: [],
      criteria: null,
      adjuncts: [],
    });
  });
});
