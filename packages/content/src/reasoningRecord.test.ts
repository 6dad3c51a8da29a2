import {
  emptyRecord,
  type FindingState,
  reasonAbout,
  reasonFromFindings,
  type ReasonInput,
} from '@heathstep/core';
import { loadContent } from './index.js';

const loaded = loadContent();
if (!loaded.ok) throw new Error(loaded.problems.join('\n'));
const { content } = loaded;

describe('a bare list of findings', () => {
  it('refuses unknown keys and contradictions by their path', () => {
    const result = reasonFromFindings(content, {
      findings: [
        { key: 'sore-foot', side: 'left', state: 'present' },
        { key: 'gives-way', side: 'left', state: 'present' },
        { key: 'gives-way', side: 'left', state: 'absent' },
      ],
      ageYears: 40,
      daysSinceOnset: null,
    });
    expect(result.ok ? [] : result.issues.map((i) => i.path)).toEqual(['findings.0.key', 'findings.2.state']);
  });
});

describe('values in the record', () => {
  const record = (values: Record<string, [number, number]>): ReasonInput['record'] => ({
    ...emptyRecord(40),
    measure: (key) => content.measures.find((m) => m.key === key),
    measured: (key, side) => (side === 'none' ? null : (values[key]?.[side === 'left' ? 0 : 1] ?? null)),
  });
  const on = (values: Record<string, [number, number]>, answers: Record<string, FindingState> = {}) =>
    reasonAbout(content, {
      answers: new Map(Object.entries(answers)),
      record: record(values),
      affected: 'left',
      daysSinceOnset: 60,
      tagsOff: () => [],
    });
  const at = (values: Record<string, [number, number]>, key: string) => on(values).known.at(key, 'left');

  it.each([
    [{ 'big-toe-extension': [20, 60] }, 'big-toe-limited', 'present', false],
    [{ 'big-toe-extension': [38, 60] }, 'big-toe-limited', 'present', true],
    [{ 'big-toe-extension': [41, 60] }, 'big-toe-limited', 'absent', true],
    [{ 'big-toe-extension': [60, 60] }, 'big-toe-limited', 'absent', false],
    [{ 'lunge-knee-bent': [38, 44] }, 'ankle-bend-less-than-other', 'present', true],
    [{ 'lunge-knee-bent': [36, 48] }, 'ankle-bend-less-than-other', 'present', false],
    [{ 'lunge-knee-bent': [44, 38] }, 'ankle-bend-less-than-other', 'absent', false],
    [{ 'eversion-force': [84, 100] }, 'evertors-weak', 'present', false],
    [{ 'eversion-force': [85, 100] }, 'evertors-weak', 'absent', false],
    [
      { 'ankle-bend-knee-straight': [5, 12], 'ankle-bend-knee-bent': [25, 20] },
      'gains-on-bending',
      'present',
      false,
    ],
    [{ 'ankle-girth': [56, 52] }, 'girth-swollen', 'present', false],
    [{}, 'big-toe-limited', 'unknown', false],
  ] as [Record<string, [number, number]>, string, string, boolean][])(
    '%p: %s is %s, weak %p',
    (values, key, state, weak) => expect(at(values, key)).toMatchObject({ state, weak }),
  );

  it('lets a value within its error count no more than weakly', () => {
    const near = on({ 'big-toe-extension': [39, 60] }).ranked.find((r) => r.key === 'hallux-rigidus');
    const far = on({ 'big-toe-extension': [20, 60] }).ranked.find((r) => r.key === 'hallux-rigidus');
    expect(near?.for.map((p) => p.ratio)).toEqual([1.5]);
    expect(far?.for.map((p) => p.ratio)).toEqual([6]);
  });

  it('prefers the record to an answer by hand', () => {
    const r = on({ 'big-toe-extension': [60, 60] }, { 'big-toe-limited.left': 'present' });
    expect(r.known.at('big-toe-limited', 'left')).toMatchObject({ state: 'absent', by: 'record' });
  });

  const drivers: readonly (readonly [
    Record<string, [number, number]>,
    Record<string, FindingState>,
    readonly string[],
  ])[] = [
    [{ 'lunge-knee-bent': [25, 28] }, {}, ['ankle-stiff possible']],
    [{ 'lunge-knee-bent': [25, 28] }, { 'bend-felt-front.left': 'present' }, ['ankle-stiff clear']],
    [{ 'lunge-knee-bent': [25, 28] }, { 'bend-felt-calf.left': 'present' }, ['soleus-short clear']],
    [{ 'lunge-knee-bent': [36, 46] }, { 'bend-felt-front.left': 'present' }, ['ankle-stiff clear']],
    [{ 'lunge-knee-bent': [45, 45], 'lunge-knee-straight': [20, 32] }, {}, ['calf-short clear']],
    [
      { 'lunge-knee-bent': [45, 56], 'lunge-knee-straight': [20, 32] },
      { 'bend-felt-front.left': 'present' },
      ['ankle-stiff clear'],
    ],
    [{ 'ankle-bend-knee-straight': [0, 12], 'ankle-bend-knee-bent': [22, 20] }, {}, ['calf-short clear']],
    [{ 'big-toe-extension': [20, 60] }, {}, ['big-toe-stiff clear']],
    [{ 'hip-internal-rotation': [10, 40] }, { 'toes-out-walk.left': 'present' }, ['hip-stiff clear']],
    [{}, { 'knee-or-pelvis-drops.left': 'present' }, ['hip-weak clear']],
    [{ 'foot-shortening-hold': [2, 10] }, {}, ['arch-weak clear']],
    [{ 'toe-extensor-sequence': [0, 2] }, {}, ['toe-extensors clear']],
    [{ 'single-leg-heel-raise': [5, 24] }, {}, ['calf-weak clear']],
    [{ 'first-metatarsal-hold': [30, 90] }, {}, ['first-ray-lost clear']],
    [{ 'inversion-force': [60, 100] }, {}, ['side-muscles-weak clear']],
    [{ 'seated-toe-raise': [8, 8] }, {}, []],
    [
      {},
      {
        'heel-lifts-early.left': 'present',
        'passive-straight-limited.left': 'absent',
        'straight-knee-less-than-other.left': 'absent',
      },
      ['midfoot-loose clear'],
    ],
    [{}, { 'heel-lifts-early.left': 'present' }, []],
    [{}, { 'stance-short.left': 'present' }, ['balance-poor clear']],
    [{}, { 'tips-in-squat.left': 'present' }, ['whole-foot-tipping clear']],
    [{ 'outer-ball-kept': [10, 95] }, {}, ['whole-foot-tipping clear']],
    [{ 'push-off-first-ray': [12, 33] }, {}, ['line-of-force clear']],
    [{ 'push-off-first-ray': [12, 33], 'big-toe-extension': [20, 60] }, {}, ['big-toe-stiff clear']],
    [
      { 'heel-off-walking': [40, 62] },
      { 'passive-straight-limited.left': 'absent', 'straight-knee-less-than-other.left': 'absent' },
      ['midfoot-loose clear'],
    ],
    [{}, { 'narrow-shoes.none': 'present' }, ['shoes clear']],
    [{}, { 'load-jump.none': 'present' }, ['load-jump clear']],
    [{}, { 'weight-gained.none': 'present' }, ['weight-gain clear']],
    [{}, { 'toes-grip.left': 'present' }, ['toes-grip clear']],
    [{}, { 'shin-raises-few.none': 'present' }, ['shin-weak clear']],
    [{}, {}, []],
  ];
  it.each(drivers)('%p with %p is kept going by %p', (values, answers, expected) =>
    expect(on(values, answers).drivers.map((d) => `${d.key} ${d.strength}`)).toEqual(expected),
  );

  it('covers every driver of the table', () => {
    const told = new Set(drivers.flatMap(([, , expected]) => expected.map((e) => e.split(' ')[0])));
    expect(content.drivers.map((d) => d.key).filter((k) => !told.has(k))).toEqual([]);
  });

  it('lets a driver wait for what safety switches off', () => {
    const { drivers: found } = reasonAbout(content, {
      answers: new Map(),
      record: record({ 'lunge-knee-bent': [45, 45], 'lunge-knee-straight': [20, 32] }),
      affected: 'left',
      daysSinceOnset: 60,
      tagsOff: (side) => (side === 'left' ? ['deep-dorsiflexion'] : []),
    });
    expect(found).toMatchObject([{ key: 'calf-short', waitsFor: ['deep-dorsiflexion'] }]);
  });

  it('gives the reason to refer of a condition in view, and of none that is not', () => {
    const signs = {
      'cannot-single-raise.left': 'present',
      'new-flattening.left': 'present',
      'tender-inner-tendon.left': 'present',
    } as const;
    expect(on({}, signs).referral.map((r) => [r.condition, r.side])).toContainEqual([
      'posterior-tibial-tendon',
      'left',
    ]);
    expect(on({}, { 'tender-heel-inner.left': 'present' }).referral).toEqual([]);
  });
});
