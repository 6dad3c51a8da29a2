import type { SafetyAnswer, SafetyQuestion, SafetyRule, Trigger } from './definition.js';
import { footRiskClass } from './footRisk.js';
import { referralLetter } from './letter.js';
import { evaluateSafety } from './safety.js';
import type { SafetyFindings } from './trigger.js';

const evidence = { statement: '', source: 'test', kind: 'convention', version: 1 } as const;
const question = (key: string, scope: 'person' | 'side' = 'side', onlyIf?: Trigger): SafetyQuestion => ({
  key,
  text: key,
  kind: 'acute',
  scope,
  group: 'g',
  how: 'ask',
  ...(onlyIf === undefined ? {} : { onlyIf }),
});
const rule = (key: string, trigger: Trigger, more: Partial<SafetyRule> = {}): SafetyRule => ({
  key,
  title: key,
  level: 'urgent',
  scope: 'side',
  trigger,
  off: [],
  action: 'act',
  evidence,
  ...more,
});
const findings = (measured: Record<string, number>, seen: Record<string, string> = {}): SafetyFindings => ({
  measured: (key, side) => measured[`${key}.${side}`] ?? null,
  seen: (sign, side) => seen[`${sign}.${side}`] ?? null,
  labelOf: (key) => key,
});
const evaluate = (
  questions: SafetyQuestion[],
  rules: SafetyRule[],
  answers: Record<string, SafetyAnswer>,
  found?: SafetyFindings,
) =>
  evaluateSafety({
    questions,
    rules,
    answers,
    affected: 'left',
    ageYears: 40,
    closures: [],
    ...(found === undefined ? {} : { findings: found }),
  });

describe('questions behind a gate', () => {
  const questions = [question('injury'), question('tender', 'side', 'injury')];
  const rules = [rule('fracture', { all: ['injury', 'tender'] })];

  it('are neither asked nor missing while the gate is closed', () => {
    expect(evaluate(questions, rules, { injury: 'no' })).toMatchObject({ asked: ['injury'], unanswered: [] });
  });

  it('are missing once it opens', () => {
    expect(evaluate(questions, rules, { injury: 'left' }).unanswered).toEqual(['tender']);
  });

  it('never drop a danger that was told: the gate only decides what is asked', () => {
    const lone = [rule('bone', 'tender')];
    expect(evaluate(questions, lone, { injury: 'left', tender: 'left' }).triggered).toHaveLength(1);
    expect(evaluate(questions, lone, { injury: 'no', tender: 'left' })).toMatchObject({
      triggered: [{ side: 'left' }],
      asked: ['injury'],
    });
  });

  it('are no longer asked once retired, and what they told still counts', () => {
    const retired = [{ ...question('old', 'person'), retired: true }];
    expect(evaluate(retired, [rule('old', 'old', { scope: 'person' })], { old: 'yes' })).toMatchObject({
      asked: [],
      unanswered: [],
      triggered: [{ side: 'none' }],
    });
  });

  it('can be opened by a measured difference', () => {
    const gate: Trigger = { measured: 'girth', higherBy: 3, than: 'other-side' };
    const gated = [question('oedema', 'side', gate)];
    expect(evaluate(gated, [], {}, findings({ 'girth.left': 39, 'girth.right': 36 })).asked).toEqual([
      'oedema',
    ]);
    expect(evaluate(gated, [], {}, findings({ 'girth.left': 38.9, 'girth.right': 36 })).asked).toEqual([]);
  });
});

describe('signs that were measured or marked', () => {
  it.each([
    [2, 1],
    [1.99, 0],
  ])('skin %d degrees warmer than the other side triggers %d', (by, times) => {
    const state = evaluate(
      [],
      [rule('warm', { measured: 'temp', higherBy: 2, than: 'other-side' })],
      {},
      findings({ 'temp.left': 30, 'temp.right': 30 + by }),
    );
    expect(state.triggered.map((t) => t.side)).toEqual(Array(times).fill('right'));
  });

  it('one side alone is no difference', () => {
    const rules = [rule('warm', { measured: 'temp', higherBy: 2, than: 'other-side' })];
    expect(evaluate([], rules, {}, findings({ 'temp.left': 35 })).triggered).toEqual([]);
  });

  it('a value at its threshold triggers on its own side, and says so', () => {
    const rules = [rule('no-raise', { measured: 'raises', op: '<', value: 1 })];
    const state = evaluate([], rules, {}, findings({ 'raises.left': 0, 'raises.right': 1 }));
    expect(state.triggered).toMatchObject([{ side: 'left', because: ['raises 0'] }]);
  });

  it('a rule for the person is triggered by either side', () => {
    const rules = [rule('pulse', { measured: 'pulses', op: '<=', value: 0 }, { scope: 'person' })];
    expect(evaluate([], rules, {}, findings({ 'pulses.right': 0 })).triggered).toMatchObject([
      { side: 'none' },
    ]);
  });

  it('what is marked on a drawing needs no question as well', () => {
    const rules = [rule('feeling', { any: ['asked', { seen: 'feeling-lost' }] })];
    const state = evaluate(
      [question('asked')],
      rules,
      { asked: 'no' },
      findings({}, { 'feeling-lost.right': 'not felt at the heel' }),
    );
    expect(state.triggered).toMatchObject([{ side: 'right', because: ['not felt at the heel'] }]);
  });

  it('nothing measured triggers nothing', () => {
    expect(evaluate([], [rule('x', { measured: 'raises', op: '<', value: 1 })], {}).triggered).toEqual([]);
  });
});

describe('the two-level score', () => {
  const score: Trigger = {
    points: [
      { when: 'cancer', score: 1 },
      { when: 'tender', score: 1 },
      { when: { measured: 'girth', higherBy: 3, than: 'other-side' }, score: 1 },
      { when: 'other', score: -2 },
    ],
    sumAtLeast: 2,
  };
  const questions = [question('cancer', 'person'), question('tender'), question('other')];
  const answers = (more: Record<string, SafetyAnswer>) => ({
    cancer: 'no' as const,
    tender: 'no' as const,
    other: 'no' as const,
    ...more,
  });
  const of = (more: Record<string, SafetyAnswer>, found?: SafetyFindings) =>
    evaluate(questions, [rule('clot', score, { level: 'emergency' })], answers(more), found);

  it('adds what is on the side, and is there to be read under its threshold too', () => {
    expect(of({ tender: 'left' })).toMatchObject({
      triggered: [],
      scores: { clot: { left: 1, right: 0 } },
    });
  });

  it('triggers at 2 on the side, the measured calf among it', () => {
    const girth = findings({ 'girth.left': 40, 'girth.right': 37 });
    expect(of({ tender: 'left' }, girth).triggered).toMatchObject([{ side: 'left' }]);
    expect(of({ cancer: 'yes', tender: 'left' }).triggered).toMatchObject([{ side: 'left' }]);
  });

  it('another diagnosis takes two off', () => {
    const state = of({ cancer: 'yes', tender: 'left', other: 'left' });
    expect(state.scores['clot']).toEqual({ left: 0, right: 1 });
    expect(state.triggered).toEqual([]);
  });
});

describe('foot risk class', () => {
  const risk = (f: boolean | null, c: boolean | null, d: boolean | null, h: boolean | null) =>
    footRiskClass({ feelingLost: f, poorCirculation: c, deformity: d, history: h });

  it.each([
    [false, false, false, false, 0],
    [false, false, true, true, 0],
    [true, false, false, false, 1],
    [false, true, false, false, 1],
    [true, true, false, false, 2],
    [true, false, true, false, 2],
    [false, true, true, false, 2],
    [true, false, false, true, 3],
    [false, true, false, true, 3],
    [true, true, true, true, 3],
  ] as const)(
    'feeling lost %s, circulation poor %s, deformity %s, history %s is class %d',
    (f, c, d, h, cls) => {
      expect(risk(f, c, d, h).riskClass).toBe(cls);
    },
  );

  it('is not known while an unknown could change it, and says what is missing', () => {
    expect(risk(null, false, false, false)).toMatchObject({ riskClass: null, missing: ['feeling'] });
    expect(risk(false, false, null, null).riskClass).toBe(0);
    expect(risk(true, null, null, true).riskClass).toBe(3);
  });
});

describe('a referral letter', () => {
  it('leads with the most serious, and says why, what is asked for and what was measured', () => {
    const state = evaluate(
      [question('pain')],
      [rule('Possible fracture', 'pain', { action: 'X-ray today' })],
      { pain: 'left' },
    );
    const letter = referralLetter({
      clinic: 'Moor clinic',
      phone: '01632 960 000',
      day: '25 November 2026',
      person: 'Bram Sedge',
      born: null,
      author: 'Tomas Fell',
      registration: 'PH 4711',
      complaint: 'Outer ankle sprain, left',
      history: ['How it began: injury, 3 days ago'],
      asked: ['Pain on pressing the base of the fifth metatarsal'],
      signs: state.triggered,
      reasons: [],
      thought: [],
      findings: ['Ankle girth, left: 56 cm'],
    });
    expect(letter.split('\n')[0]).toBe('URGENT: please see the same or next day');
    expect(letter).toContain('- Possible fracture (left): pain. Asked for: X-ray today.');
    expect(letter).toContain('Ankle girth, left: 56 cm');
    expect(letter).not.toContain('born');
    expect(letter).not.toContain('Thought of');
    expect(letter).toContain('has been held back');
    expect(letter).toContain('Told:\n- How it began: injury, 3 days ago');
    expect(letter).toContain(
      'Asked or tested and not so: Pain on pressing the base of the fifth metatarsal.',
    );
    expect(letter.endsWith('Tomas Fell\nRegistration PH 4711')).toBe(true);
  });

  it('refers for a criterion of a condition without any sign, and holds nothing back then', () => {
    const letter = referralLetter({
      clinic: 'Moor clinic',
      phone: '01632 960 000',
      day: '25 November 2026',
      person: 'Bram Sedge',
      born: '1 May 1970',
      author: 'Tomas Fell',
      registration: null,
      complaint: 'Foot or ankle complaint, right',
      history: [],
      asked: [],
      signs: [],
      reasons: [
        {
          condition: 'posterior-tibial-tendon',
          name: 'Posterior tibial tendon',
          side: 'right',
          text: 'Cannot rise on one leg',
          because: ['x'],
          source: 'Clinical convention',
        },
      ],
      thought: ['Posterior tibial tendon, right (leading)'],
      findings: [],
    });
    expect(letter.split('\n')[0]).toBe('Referral: please assess');
    expect(letter).toContain('- Posterior tibial tendon (right): Cannot rise on one leg');
    expect(letter).toContain('- Posterior tibial tendon, right (leading)');
    expect(letter).not.toContain('held back');
    expect(letter).not.toMatch(/Told:|Asked or tested|Registration/);
    expect(letter).not.toContain('Found at the safety screen');
  });
});

describe('tests that nothing makes needed', () => {
  const squeeze: SafetyQuestion = {
    ...question('squeeze'),
    how: 'test',
    part: 'calf',
    neededIf: { any: ['pop'] },
  };
  const questions = [question('pop'), squeeze];
  const rules = [
    rule('rupture', 'squeeze'),
    rule('not-cleared', { all: ['pop', { notCleared: 'squeeze' }] }),
  ];
  const on = (
    answers: Record<string, SafetyAnswer>,
    concerned?: readonly string[],
    answered: readonly string[] = Object.keys(answers),
  ) =>
    evaluateSafety({
      questions,
      rules,
      answers,
      answered: new Set(answered),
      affected: 'left',
      ...(concerned === undefined ? {} : { concerned: new Set(concerned) }),
      ageYears: 40,
      closures: [],
    });

  it.each([
    ['the complaint concerns its part', { pop: 'no' }, ['calf'], true],
    ['what is concerned is not known', { pop: 'no' }, undefined, true],
    ['something told makes it needed', { pop: 'right' }, ['heel'], true],
    ['nothing does', { pop: 'no' }, ['heel'], false],
    ['nothing was told yet', {}, [], false],
  ] as const)('are asked or spared: %s', (_why, answers, concerned, asked) => {
    const state = on(answers, concerned);
    expect(state.asked.includes('squeeze')).toBe(asked);
    expect(state.unanswered.includes('squeeze')).toBe(asked);
    expect(state.spared).toEqual(asked ? [] : ['squeeze']);
  });

  it('count and stand with the rest once they were made all the same', () => {
    expect(on({ pop: 'no', squeeze: 'left' }, ['heel'])).toMatchObject({
      asked: ['pop', 'squeeze'],
      spared: [],
      stops: [{ rule: { key: 'rupture' }, side: 'left' }],
    });
    expect(on({ pop: 'no', squeeze: 'no' }, ['heel']).asked).toContain('squeeze');
  });

  it('are asked again while a yes of an earlier visit stands, and not for a no of then', () => {
    expect(on({ pop: 'no', squeeze: 'left' }, ['heel'], ['pop']).unanswered).toEqual(['squeeze']);
    expect(on({ pop: 'no', squeeze: 'no' }, ['heel'], ['pop']).spared).toEqual(['squeeze']);
  });

  it('are no no: what must be cleared by them is not', () => {
    const state = on({ pop: 'left' }, ['heel']);
    expect(state.triggered.map((t) => [t.rule.key, t.side])).toEqual([['not-cleared', 'left']]);
  });
});

describe('an answer of no that something told speaks against', () => {
  const jump: SafetyQuestion = {
    ...question('jump', 'person'),
    clashes: [{ when: { finding: 'more-load' }, words: 'the story tells of more load' }],
  };
  const story: SafetyFindings = {
    ...findings({}),
    finding: (key) => (key === 'more-load' ? 'more load' : null),
  };
  const clashes = (
    answers: Record<string, SafetyAnswer>,
    found?: SafetyFindings,
    more: { answered?: ReadonlySet<string>; firstVisit?: boolean; asked?: SafetyQuestion } = {},
  ) =>
    evaluateSafety({
      questions: [more.asked ?? jump],
      rules: [rule('r', 'jump')],
      answers,
      affected: 'left',
      ageYears: 40,
      closures: [],
      ...(found === undefined ? {} : { findings: found }),
      ...(more.answered === undefined ? {} : { answered: more.answered }),
      ...(more.firstVisit === undefined ? {} : { firstVisit: more.firstVisit }),
    }).clashes;

  it('is told with its question, and only then', () => {
    expect(clashes({ jump: 'no' }, story)).toEqual([
      { question: 'jump', words: 'the story tells of more load' },
    ]);
    expect(clashes({ jump: 'yes' }, story)).toEqual([]);
    expect(clashes({}, story)).toEqual([]);
    expect(clashes({ jump: 'no' })).toEqual([]);
  });

  it('is not held against an answer of an earlier visit, nor, of how it began, at a review', () => {
    expect(clashes({ jump: 'no' }, story, { answered: new Set() })).toEqual([]);
    expect(clashes({ jump: 'no' }, story, { answered: new Set(['jump']) })).toHaveLength(1);
    const [clash] = jump.clashes ?? [];
    const ofOnset: SafetyQuestion = {
      ...jump,
      clashes: clash === undefined ? [] : [{ ...clash, ofOnset: true }],
    };
    expect(clashes({ jump: 'no' }, story, { asked: ofOnset })).toEqual([]);
    expect(clashes({ jump: 'no' }, story, { asked: ofOnset, firstVisit: true })).toHaveLength(1);
  });
});
