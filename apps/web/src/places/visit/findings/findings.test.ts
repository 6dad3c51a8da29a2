import { loadContent } from '@heathstep/content';
import { emptyRecord, type FindingState, reasonAbout, type ReasonInput } from '@heathstep/core';
import { asEntries, type ConcludedIdea } from '@heathstep/contracts';
import { VIEWS } from '../../../parts/footShapes.js';
import { withVerdict, without } from '../conclude/concluded.js';
import { changesFor, sidedAnswer } from './answering.js';
import { groupIdeas, ideasOf, lengthOf } from './ideas.js';
import {
  answeredIn,
  findingsOfIdea,
  findingsOfPart,
  isSettled,
  partsWith,
  steadyList,
  TELLING_AT_ONCE,
  tellingKeys,
} from './listing.js';

const loaded = loadContent();
if (!loaded.ok) throw new Error(loaded.problems.join('\n'));
const { content } = loaded;

const reason = (answers: Record<string, FindingState>, more: Partial<ReasonInput> = {}) =>
  reasonAbout(content, {
    answers: new Map(Object.entries(answers)),
    record: emptyRecord(45),
    affected: 'left',
    daysSinceOnset: 60,
    tagsOff: () => [],
    ...more,
  });

describe('ideas worth showing', () => {
  it('are none while only common things are likely, and none that rests on a jump of load alone', () => {
    expect(ideasOf(reason({}), content.conditions)).toEqual([]);
    expect(ideasOf(reason({ 'load-jump.none': 'present' }), content.conditions)).toEqual([]);
  });

  it('lead with what is found, and ask to rule out first what must not be missed', () => {
    const ideas = ideasOf(
      reason({
        'site-achilles.left': 'present',
        'calf-squeeze-still.left': 'present',
        'tendon-thick.left': 'present',
      }),
      content.conditions,
    );
    const rupture = ideas.find((i) => i.condition.key === 'achilles-rupture');
    expect(rupture).toMatchObject({ ruleOut: true });
    expect(ideas.find((i) => i.condition.key === 'achilles-midportion')).toMatchObject({ ruleOut: false });
  });

  it('show a condition once with both its sides', () => {
    const both = reason(
      {
        'tender-heel-inner.left': 'present',
        'tender-heel-inner.right': 'present',
        'windlass-test.left': 'present',
      },
      { affected: 'both' },
    );
    const groups = groupIdeas(ideasOf(both, content.conditions));
    expect(groups[0]?.condition.key).toBe('plantar-heel-pain');
    expect(groups[0]?.ideas.map((i) => i.ranked.side)).toEqual(['left', 'right']);
    expect(new Set(groups.map((g) => g.condition.key)).size).toBe(groups.length);
  });

  it('stand with what is to be ruled out at their head', () => {
    const ideas = ideasOf(
      reason({
        'rolled-inward.left': 'present',
        'site-outer-ankle.left': 'present',
        'ottawa-bone-tender.left': 'present',
      }),
      content.conditions,
    );
    expect(ideas[0]).toMatchObject({ ruleOut: true, condition: { key: 'ankle-fracture' } });
    expect(ideas[1]?.ranked.weight ?? 0).toBeGreaterThan(ideas[0]?.ranked.weight ?? 0);
  });

  it('are as long as their odds, from nothing to nearly full', () => {
    expect([lengthOf(0), lengthOf(1)]).toEqual([0, 0.5]);
    expect(lengthOf(1e6)).toBeLessThan(1);
  });
});

describe('the list of findings to answer', () => {
  const next = (answers: Record<string, FindingState>) => tellingKeys(reason(answers).next);
  const start = { 'site-heel-inner.left': 'present' } as const;

  it('stays where it is while it is answered, and grows below', () => {
    const shown = steadyList([], next(start), () => true);
    expect(shown).toHaveLength(TELLING_AT_ONCE);
    const [first = ''] = shown;
    const answered = { ...start, [`${first}.left`]: 'absent', [`${first}.none`]: 'absent' } as const;
    const after = steadyList(shown, next(answered), (key) => key !== first);
    expect(after.slice(0, shown.length)).toEqual(shown);
    expect(after.length).toBe(shown.length + 1);
  });

  it('asks nothing twice', () => {
    const keys = next(start);
    expect(new Set(keys).size).toBe(keys.length);
    expect(keys).not.toContain('site-heel-inner');
  });

  it('settles a finding only when every side with a complaint is answered or left out on purpose', () => {
    const windlass = content.findings.find((f) => f.key === 'windlass-test');
    if (windlass === undefined) throw new Error('no windlass test');
    const both = { affected: 'both' } as const;
    expect(isSettled(reason({ 'windlass-test.left': 'present' }), windlass)).toBe(true);
    expect(isSettled(reason({ 'windlass-test.left': 'present' }, both), windlass)).toBe(false);
    expect(
      isSettled(
        reason({ 'windlass-test.left': 'present', 'windlass-test.right': 'not-tested' }, both),
        windlass,
      ),
    ).toBe(true);
  });

  it('can be had by idea, strongest first, and by body part, none left out', () => {
    const [idea] = ideasOf(
      reason({ 'tender-achilles-mid.left': 'present', 'site-achilles.left': 'present' }),
      content.conditions,
    );
    if (idea === undefined) throw new Error('no idea');
    const keys = findingsOfIdea(content.findings, idea).map((f) => f.key);
    expect(keys).toContain('arc-sign');
    expect(keys).not.toContain('windlass-test');
    const parts = partsWith(content.findings).flatMap((part) => findingsOfPart(content.findings, part));
    expect(parts).toHaveLength(content.findings.length);
  });
});

describe('an answer that is a safety question', () => {
  it.each([
    [null, 'left', true, 'left'],
    [null, 'left', false, 'no'],
    ['no', 'right', true, 'right'],
    ['right', 'left', true, 'both'],
    ['both', 'left', false, 'right'],
    ['left', 'left', false, 'no'],
    [null, 'none', true, 'yes'],
    ['yes', 'none', false, 'no'],
  ] as const)('%s, %s present %s becomes %s', (held, side, present, answer) =>
    expect(sidedAnswer(held, side, present)).toBe(answer),
  );
});

describe('answering a finding that is a safety question', () => {
  const squeeze = { key: 'calf-squeeze-still', safety: 'calf-squeeze-still' };
  const question = 'safety.calf-squeeze-still';
  const changes = (
    held: Record<string, string>,
    side: 'left' | 'right',
    state: FindingState | null,
  ): Record<string, unknown> =>
    Object.fromEntries(
      changesFor(squeeze, side, state, (key) => asEntries(Object.entries(held)).get(key) ?? null),
    );

  it('never answers for the side that was not looked at', () => {
    expect(changes({}, 'left', 'absent')).toEqual({ 'finding.calf-squeeze-still.left': 'absent' });
  });

  it('answers no once both sides were found free of it', () => {
    const held = { 'finding.calf-squeeze-still.left': 'absent' };
    expect(changes(held, 'right', 'absent')).toMatchObject({ [question]: 'no' });
  });

  it('tells a sign at once', () => {
    expect(changes({}, 'left', 'present')).toMatchObject({ [question]: 'left' });
    expect(changes({ [question]: 'right' }, 'left', 'present')).toMatchObject({ [question]: 'both' });
  });

  it('takes one side back without losing the sign of the other', () => {
    expect(changes({ [question]: 'both' }, 'left', null)).toMatchObject({ [question]: 'right' });
    expect(changes({ [question]: 'left' }, 'left', null)).toMatchObject({ [question]: null });
  });
});

describe('the clinician’s conclusion', () => {
  const idea = (condition: string, more: Partial<ConcludedIdea> = {}): ConcludedIdea => ({
    condition,
    side: 'left',
    verdict: 'agreed',
    leads: false,
    reason: null,
    ...more,
  });
  const leaders = (list: readonly ConcludedIdea[]) => list.filter((i) => i.leads).map((i) => i.condition);

  it('has exactly one that leads as soon as one stands', () => {
    const one = withVerdict([], idea('gout'));
    expect(leaders(one)).toEqual(['gout']);
    const two = withVerdict(one, idea('sesamoid'));
    expect(leaders(two)).toEqual(['gout']);
    expect(leaders(withVerdict(two, idea('sesamoid', { leads: true })))).toEqual(['sesamoid']);
  });

  it('never lets a rejected one lead, and hands the lead on when it is rejected or taken back', () => {
    const two = withVerdict(withVerdict([], idea('gout')), idea('sesamoid'));
    expect(leaders(withVerdict(two, idea('gout', { verdict: 'rejected', reason: 'no redness' })))).toEqual([
      'sesamoid',
    ]);
    expect(leaders(without(two, 'gout', 'left'))).toEqual(['sesamoid']);
    expect(without(withVerdict([], idea('gout')), 'gout', 'left')).toEqual([]);
  });

  it('judges each side by itself', () => {
    const list = withVerdict(
      withVerdict([], idea('gout')),
      idea('gout', { side: 'right', verdict: 'rejected', reason: 'other foot' }),
    );
    expect(list).toHaveLength(2);
  });
});

describe('pictures of the tests', () => {
  it('press and move within the drawing they name', () => {
    for (const f of content.findings) {
      if (f.picture === null) continue;
      const view = VIEWS.find((v) => v.key === f.picture?.view);
      const [, , width = 0, height = 0] = (view?.box ?? '').split(' ').map(Number);
      const points = [
        ...f.picture.press,
        ...f.picture.move.flatMap(
          ([a, b, c, d]) =>
            [
              [a, b],
              [c, d],
            ] as const,
        ),
      ];
      expect([f.key, points.length > 0]).toEqual([f.key, true]);
      for (const [x, y] of points)
        expect([f.key, x >= 0 && x <= width + 4 && y >= 0 && y <= height]).toEqual([f.key, true]);
    }
  });
});

describe('where a finding is answered', () => {
  it.each([
    ['began-with-injury', 'story'],
    ['tilt-test', 'feel'],
  ])('%s in %s', (key, step) => {
    const finding = content.findings.find((f) => f.key === key);
    expect(finding === undefined ? undefined : answeredIn(finding)).toBe(step);
  });

  it('is the step it is told in only where something there sets it', () => {
    expect(answeredIn({ from: 'look', sign: null })).toBe('feel');
    expect(answeredIn({ from: 'look', sign: { seen: 'swelling' } })).toBe('look');
    expect(answeredIn({ from: 'test', sign: { seen: 'swelling' } })).toBe('feel');
  });
});
