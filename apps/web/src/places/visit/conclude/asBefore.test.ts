import type { Column, RankedCondition } from '@heathstep/core';
import type { ConcludedIdea } from '@heathstep/contracts';
import { asBefore } from './asBefore.js';

const idea = (
  key: string,
  rank: RankedCondition['rank'],
  { side = 'left', ruleOut = false }: { side?: Column; ruleOut?: boolean } = {},
) => ({ ranked: { key, side, rank } as RankedCondition, ruleOut });

const then = (
  condition: string,
  verdict: ConcludedIdea['verdict'],
  side: Column = 'left',
): ConcludedIdea => ({
  condition,
  side,
  verdict,
  reason: null,
  leads: verdict !== 'rejected',
});

describe('a conclusion taken over from the visit before', () => {
  it('may be, while what leads now stood then', () => {
    expect(
      asBefore([then('heel', 'agreed')], [idea('heel', 'leading'), idea('flat', 'possible')]).why,
    ).toBeNull();
    expect(asBefore([then('heel', 'added')], [idea('heel', 'leading')]).why).toBeNull();
    expect(asBefore([then('heel', 'agreed')], []).why).toBeNull();
  });

  it.each([
    ['something else leads', [idea('tendon', 'leading')]],
    ['it leads on the other side', [idea('heel', 'leading', { side: 'right' })]],
    ['one more leads beside it', [idea('heel', 'leading'), idea('nerve', 'leading')]],
    ['what was rejected leads', [idea('nerve', 'leading')]],
  ])('may not be when %s', (_, ideas) => {
    expect(asBefore([then('heel', 'agreed'), then('nerve', 'rejected')], ideas).why).toBe('other-leads');
  });

  it('may not be while something has to be ruled out that nobody judged, on that side', () => {
    const bone = idea('bone', 'possible', { ruleOut: true });
    expect(asBefore([then('heel', 'agreed')], [bone, idea('heel', 'leading')]).why).toBe('rule-out');
    expect(asBefore([then('heel', 'agreed'), then('bone', 'rejected', 'right')], [bone]).why).toBe(
      'rule-out',
    );
    expect(asBefore([then('heel', 'agreed'), then('bone', 'rejected')], [bone]).why).toBeNull();
  });
});
