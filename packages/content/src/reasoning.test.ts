import {
  type Column,
  emptyRecord,
  type FindingAnswer,
  type FindingDefinition,
  type FindingState,
  heldTags,
  orThrow,
  reasonAbout,
  reasonFromFindings,
  type Reasoning,
  withHeld,
  workedOn,
} from '@heathstep/core';
import fc from 'fast-check';
import { loadContent } from './index.js';

const loaded = loadContent();
if (!loaded.ok) throw new Error(loaded.problems.join('\n'));
const { content } = loaded;

const columnsOf = (f: FindingDefinition): readonly Column[] =>
  f.sides === 'person' ? ['none'] : ['left', 'right'];
const places = content.findings.flatMap((f) => columnsOf(f).map((side) => ({ key: f.key, side })));
const someAnswers = fc
  .uniqueArray(fc.constantFrom(...places), { maxLength: 25, selector: (p) => `${p.key}.${p.side}` })
  .chain((list) =>
    fc
      .array(fc.constantFrom<FindingState>('present', 'absent', 'not-tested'), {
        minLength: list.length,
        maxLength: list.length,
      })
      .map((states) => list.map((p, i): FindingAnswer => ({ ...p, state: states[i] ?? 'absent' }))),
  );
const reason = (findings: readonly FindingAnswer[], ageYears: number | null = 45, days: number | null = 60) =>
  orThrow(reasonFromFindings(content, { findings, ageYears, daysSinceOnset: days }));
const weights = (r: Reasoning) => new Map(r.ranked.map((c) => [`${c.key}.${c.side}`, c.weight]));
const finding = (key: string): FindingDefinition => {
  const found = content.findings.find((f) => f.key === key);
  if (found === undefined) throw new Error(`no finding ${key}`);
  return found;
};

describe('ranking', () => {
  it('does not hang on the order of the answers', () => {
    fc.assert(
      fc.property(
        someAnswers.chain((a) =>
          fc.tuple(fc.constant(a), fc.shuffledSubarray(a, { minLength: a.length, maxLength: a.length })),
        ),
        ([first, second]) => {
          const one = reason(first);
          const two = reason(second);
          expect(two.reasoning.ranked).toEqual(one.reasoning.ranked);
          expect(two.reasoning.next).toEqual(one.reasoning.next);
          expect(two.safety.stops).toEqual(one.safety.stops);
        },
      ),
      { numRuns: 20 },
    );
  });

  it('is unmoved for every condition that a new finding does not speak of', () => {
    fc.assert(
      fc.property(someAnswers, fc.constantFrom(...content.findings), (answers, added) => {
        // The side is told already, so that the new finding opens no side.
        const base: FindingAnswer[] = [
          { key: 'tender-heel-inner', side: 'left', state: 'present' },
          ...answers.filter(
            (a) => a.side !== 'right' && a.key !== 'tender-heel-inner' && a.key !== added.key,
          ),
        ];
        const side = added.sides === 'person' ? 'none' : 'left';
        const before = weights(reason(base).reasoning);
        const after = weights(reason([...base, { key: added.key, side, state: 'present' }]).reasoning);
        for (const c of content.conditions)
          if (!Object.hasOwn(added.ratios, c.key))
            for (const s of ['left', 'none'] as const)
              expect(after.get(`${c.key}.${s}`)).toBe(before.get(`${c.key}.${s}`));
      }),
      { numRuns: 30 },
    );
  });

  it('counts a group of findings once, by its strongest', () => {
    fc.assert(
      fc.property(someAnswers, (answers) => {
        for (const c of reason(answers).reasoning.ranked) {
          const groups = [...c.for, ...c.against].map((p) => finding(p.finding).group);
          expect(new Set(groups).size).toBe(groups.length);
        }
      }),
      { numRuns: 30 },
    );
    const one = reason([{ key: 'gives-way', side: 'left', state: 'present' }]).reasoning;
    const both = reason([
      { key: 'gives-way', side: 'left', state: 'present' },
      { key: 'gives-way-often', side: 'left', state: 'present' },
    ]).reasoning;
    expect(weights(both).get('ankle-instability.left')).toBe(weights(one).get('ankle-instability.left'));
  });

  it('weighs each condition by its starting odds and the product of its ratios, and nothing else', () => {
    fc.assert(
      fc.property(someAnswers, (answers) => {
        for (const c of reason(answers).reasoning.ranked) {
          const product = [...c.for, ...c.against].reduce((odds, p) => odds * p.ratio, c.startWeight);
          expect(c.raw / product).toBeCloseTo(1, 9);
          expect(c.weight).toBeLessThanOrEqual(c.raw);
          const shares = [...c.for, ...c.against].reduce((sum, p) => sum + p.share, 0);
          if (c.for.length + c.against.length > 0) expect(shares).toBeCloseTo(1, 9);
        }
      }),
      { numRuns: 20 },
    );
  });

  it('leaves what is not known and not tested at the starting odds', () => {
    const { reasoning } = reason([{ key: 'windlass-test', side: 'left', state: 'not-tested' }]);
    expect(reasoning.cannotTell).toBe(true);
    // Only growing bones are told by age itself.
    for (const c of reasoning.ranked.filter((r) => r.for.length + r.against.length === 0))
      expect(c.weight).toBe(c.startWeight);
    const moved = reasoning.ranked.filter((r) => r.weight !== r.startWeight).map((r) => r.key);
    expect(new Set(moved)).toEqual(new Set(['heel-growth-plate', 'growing-heads']));
  });

  it('keeps the sides apart', () => {
    const left = reason([{ key: 'tender-heel-inner', side: 'left', state: 'present' }]).reasoning;
    const both = reason([
      { key: 'tender-heel-inner', side: 'left', state: 'present' },
      { key: 'tendon-thick', side: 'right', state: 'present' },
    ]).reasoning;
    expect(weights(both).get('plantar-heel-pain.left')).toBe(weights(left).get('plantar-heel-pain.left'));
    expect(weights(both).get('achilles-midportion.right')).toBeGreaterThan(
      weights(both).get('achilles-midportion.left') ?? 9,
    );
  });

  it('starts from age and time: a growing heel at 11, a sprain in the first days', () => {
    const of = (age: number, days: number, key: string) =>
      weights(
        reason(
          [
            { key: 'uneven-ground', side: 'left', state: 'absent' },
            { key: 'rolled-inward', side: 'left', state: 'not-tested' },
          ],
          age,
          days,
        ).reasoning,
      ).get(`${key}.none`) ?? 0;
    expect(of(11, 60, 'heel-growth-plate')).toBeGreaterThan(of(45, 60, 'heel-growth-plate') * 10);
    expect(of(30, 3, 'lateral-ankle-sprain')).toBeGreaterThan(of(30, 200, 'lateral-ankle-sprain') * 5);
  });

  it('shows overlapping conditions once, under the stronger', () => {
    const { ranked } = reason([{ key: 'push-off-toe-hurts', side: 'right', state: 'present' }]).reasoning;
    const toe = ranked.filter(
      (r) => ['hallux-rigidus', 'big-toe-osteoarthritis'].includes(r.key) && r.side === 'right',
    );
    expect(toe.map((r) => r.shownAs)).toEqual([null, 'hallux-rigidus']);
  });
});

describe('safety in the reasoning', () => {
  const flags: readonly (readonly [finding: string, rule: string, level: string])[] = [
    ['calf-squeeze-still', 'achilles-rupture', 'urgent'],
    ['ottawa-bone-tender', 'ankle-fracture', 'urgent'],
    ['sole-bruise', 'midfoot-injury', 'urgent'],
    ['hot-joint', 'septic-joint', 'emergency'],
    ['knee-bend-foot-drops', 'achilles-rupture', 'urgent'],
    ['syndesmosis-squeeze', 'syndesmosis', 'refer'],
    ['tender-above-joint', 'syndesmosis', 'refer'],
    ['sesamoid-tender', 'bone-stress-high-risk', 'urgent'],
    ['same-effort-tight', 'compartment-effort', 'refer'],
    ['syndesmosis-rotation', 'syndesmosis', 'refer'],
    ['cannot-rise-arch-falls', 'tendon-failure', 'refer'],
  ];

  it.each(flags)('%s surfaces whatever else is answered', (key, rule) => {
    fc.assert(
      fc.property(someAnswers, (answers) => {
        const others = answers.filter((a) => finding(a.key).safety !== finding(key).safety);
        const { safety } = reason([...others, { key, side: 'left', state: 'present' }]);
        expect(safety.triggered.map((t) => t.rule.key)).toContain(rule);
      }),
      { numRuns: 12 },
    );
  });

  it('keeps in view what must not be missed, however much speaks against it', () => {
    const against = content.findings
      .filter((f) => f.sides === 'each' && (f.ratios['achilles-rupture']?.present ?? 1) < 1)
      .map((f): FindingAnswer => ({ key: f.key, side: 'left', state: 'present' }));
    const { ranked } = reason([...against, { key: 'sudden-pop', side: 'left', state: 'present' }]).reasoning;
    const rupture = ranked.find((r) => r.key === 'achilles-rupture' && r.side === 'left');
    expect(rupture?.keptBy).toBe('A sudden pop at the back of the heel');
    expect(rupture?.rank).not.toBe('unlikely');
  });

  it('never suggests what is known, what a clear finding says already, or what safety forbids', () => {
    fc.assert(
      fc.property(someAnswers, (answers) => {
        const { reasoning, safety } = reason(answers);
        const ids = reasoning.next.map((n) => `${n.finding}.${n.side}`);
        expect(new Set(ids).size).toBe(ids.length);
        const checks = safety.stops.flatMap((t) => t.rule.checks ?? []);
        for (const n of reasoning.next) {
          const sides: readonly Column[] = n.side === 'both' ? ['left', 'right'] : [n.side];
          for (const side of sides) {
            const at = reasoning.known.at(n.finding, side);
            expect(at.state).toBe('unknown');
            expect(at.notTested).toBe(false);
          }
          const off = sides.flatMap((side) => (side === 'none' ? [] : safety.tagsOff[side]));
          if (safety.stops.length > 0) expect(checks).toContain(n.finding);
          else expect(finding(n.finding).needs.filter((t) => off.includes(t))).toEqual([]);
          expect(n.why.length).toBeGreaterThan(5);
          expect(n.bits).toBeGreaterThan(0);
        }
      }),
      { numRuns: 20 },
    );
  });

  it('does not ask for a heel raise when a rupture is suspected, and says what it would tell otherwise', () => {
    const pain: FindingAnswer[] = [
      { key: 'site-achilles', side: 'left', state: 'present' },
      { key: 'began-suddenly', side: 'none', state: 'present' },
    ];
    const free = reason(pain).reasoning.next.map((n) => n.finding);
    const stopped = reason([...pain, { key: 'calf-squeeze-still', side: 'left', state: 'present' }]).reasoning
      .next;
    expect(free).toContain('raise-hurts-tendon');
    expect(stopped.map((n) => n.finding)).not.toContain('raise-hurts-tendon');
  });
});

describe('what is not told twice', () => {
  const odds = (...found: string[]) => {
    const list = found.map((key): FindingAnswer => ({ key, side: 'left', state: 'present' }));
    const ranked = reason(list).reasoning.ranked.find(
      (r) => r.key === 'plantar-heel-pain' && r.side === 'left',
    );
    return ranked ?? { raw: 0, weight: 0 };
  };

  it('a spot pressed where it was said to hurt adds less than a new thing does', () => {
    const told = odds('site-heel-inner').raw;
    const pressed = odds('site-heel-inner', 'tender-heel-inner').raw;
    expect(pressed / told).toBeGreaterThan(1);
    expect(pressed / told).toBeLessThan(odds('tender-heel-inner').raw / odds('hip-turn-limited').raw);
  });

  it('keeps odds within what can be defended, in the same order', () => {
    fc.assert(
      fc.property(someAnswers, (answers) => {
        const { ranked } = reason(answers).reasoning;
        for (const r of ranked) expect(r.weight).toBeLessThan(30);
        const order = ranked.map((r) => r.raw);
        expect(order).toEqual([...order].sort((a, b) => b - a));
      }),
      { numRuns: 20 },
    );
    const everything = odds('site-heel-inner', 'tender-heel-inner', 'first-steps-worst', 'windlass-test');
    expect(everything.raw).toBeGreaterThan(20);
    expect(everything.weight).toBeLessThan(everything.raw);
  });
});

describe('what is at most possible', () => {
  const of = (found: FindingAnswer[], key: string) =>
    reason(found).reasoning.ranked.find((r) => r.key === key && r.side === 'left');
  const left = (...keys: string[]) =>
    keys.map((key): FindingAnswer => ({
      key,
      side: finding(key).sides === 'person' ? 'none' : 'left',
      state: 'present',
    }));

  it('a form without a symptom that fits', () => {
    const form = left('arch-low', 'arch-returns-tiptoe', 'tips-in-squat');
    expect(of(form, 'flexible-flat-foot')).toMatchObject({
      rank: 'possible',
      held: expect.stringContaining('form'),
    });
    expect(of([...form, ...left('site-arch')], 'flexible-flat-foot')).toMatchObject({
      rank: 'leading',
      held: null,
    });
  });

  it('stiff after an injury that never was', () => {
    const stiff = left('ankle-bend-less-than-other', 'bend-felt-front', 'site-ankle-front');
    expect(of(stiff, 'stiff-after-injury')?.rank).toBe('possible');
    expect(of([...stiff, ...left('past-fracture-or-cast')], 'stiff-after-injury')?.held).toBeNull();
  });

  it('an idea whose place does not hurt while another does', () => {
    const midfoot = left('site-midfoot-top', 'arch-low', 'sport-brings-it', 'load-jump');
    expect(of(midfoot, 'medial-tibial-stress')).toMatchObject({ held: 'it hurts elsewhere' });
    expect(['possible', 'unlikely']).toContain(of(midfoot, 'medial-tibial-stress')?.rank);
  });

  it('anything with nothing specific for it', () => {
    for (const r of reason(left('began-gradually', 'weight-gained', 'end-of-day-worse')).reasoning.ranked)
      if (r.rank === 'leading' || r.rank === 'likely') expect(r.held).toBeNull();
  });
});

describe('what ideas hold back', () => {
  const held = (...keys: string[]) => {
    const list = keys.map((key): FindingAnswer => ({ key, side: 'left', state: 'present' }));
    return reason(list).reasoning.held;
  };

  it('the insertion of the Achilles holds the deep bend, before any safety answer does', () => {
    expect(held('site-heel-back', 'tender-achilles-insertion', 'uphill-hurts')).toContainEqual(
      expect.objectContaining({
        condition: 'achilles-insertional',
        side: 'left',
        tags: ['deep-dorsiflexion'],
        by: 'leading',
      }),
    );
  });

  it('nothing is held back by an idea that a clinician rejected, and something by one that was added', () => {
    const { ranked } = reason([{ key: 'uphill-hurts', side: 'left', state: 'present' }]).reasoning;
    const verdict = { condition: 'sesamoid', side: 'left' as const };
    expect(heldTags(content.conditions, ranked, [{ ...verdict, verdict: 'added' }])).toMatchObject([
      { condition: 'sesamoid', by: 'concluded' },
    ]);
    expect(heldTags(content.conditions, ranked, [{ ...verdict, verdict: 'rejected' }])).toEqual([]);
    expect(
      withHeld(
        { left: ['prone'], right: [] },
        heldTags(content.conditions, ranked, [{ ...verdict, verdict: 'agreed' }]),
      ),
    ).toEqual({
      left: ['push-off', 'forced-extension', 'impact', 'prone'],
      right: [],
    });
  });
});

describe('what is asked next', () => {
  const next = (keys: string[], absent: string[] = []) => {
    const of = (key: string, state: FindingState): FindingAnswer => ({
      key,
      side: finding(key).sides === 'person' ? 'none' : 'left',
      state,
    });
    return reason([...keys.map((k) => of(k, 'present')), ...absent.map((k) => of(k, 'absent'))]).reasoning
      .next;
  };

  it('with a stop open only its checks', () => {
    const asked = next(['site-achilles', 'calf-squeeze-still']);
    expect(asked.map((n) => n.finding)).toEqual(['sudden-pop', 'knee-bend-foot-drops']);
    expect(asked[0]?.why).toContain('Possible Achilles rupture');
  });

  it('no mechanism without an injury', () => {
    const keys = (list: ReturnType<typeof next>) => list.map((n) => n.finding);
    expect(keys(next(['site-outer-ankle']))).not.toContain('rolled-inward');
    expect(keys(next(['site-outer-ankle', 'began-with-injury']))).toContain('rolled-inward');
    expect(keys(next(['site-outer-ankle', 'began-with-injury', 'twisted-outward']))).not.toContain(
      'rolled-inward',
    );
  });

  it('both feet have one place in the list', () => {
    const both = reason(
      (['left', 'right'] as const).map((side) => ({
        key: 'site-heel-inner',
        side,
        state: 'present' as const,
      })),
    ).reasoning.next;
    expect(new Set(both.map((n) => n.finding)).size).toBe(both.length);
    expect(both.some((n) => n.side === 'both')).toBe(true);
  });

  it('feeling and reflexes rise where the picture is one of nerves', () => {
    const place = (keys: string[]) => {
      const at = next(keys).findIndex((n) =>
        ['feeling-lost', 'ankle-reflex-less', 'vibration-less'].includes(n.finding),
      );
      return at === -1 ? 999 : at;
    };
    expect(place(['numb-sock', 'burning-numb', 'both-feet'])).toBeLessThan(5);
  });

  it('nothing of a place that does not hurt and belongs to no idea', () => {
    const parts = next(['site-heel-inner', 'first-steps-worst']).map((n) => finding(n.finding).part);
    expect(new Set(parts)).toEqual(
      new Set(parts.filter((p) => ['heel', 'whole-foot', 'leg', 'person', 'midfoot'].includes(p))),
    );
  });
});

describe('the table of ratios', () => {
  it('gives every ratio a source or says convention, and none speaks both ways at once', () => {
    for (const f of content.findings)
      for (const [condition, r] of Object.entries(f.ratios)) {
        expect(r.source).toMatch(/convention|not yet checked/i);
        expect([f.key, condition, r.present > 0 && r.absent > 0]).toEqual([f.key, condition, true]);
        const bothUp = r.present > 1 && r.absent > 1;
        const bothDown = r.present < 1 && r.absent < 1;
        expect([f.key, condition, bothUp || bothDown]).toEqual([f.key, condition, false]);
      }
  });

  it('has at least 150 findings and 20 conditions, each condition with something strong for it', () => {
    expect(content.findings.length).toBeGreaterThanOrEqual(150);
    expect(content.conditions.length).toBeGreaterThanOrEqual(20);
    for (const c of content.conditions) {
      const best = Math.max(...content.findings.map((f) => f.ratios[c.key]?.present ?? 1));
      expect([c.key, best >= 6]).toEqual([c.key, true]);
    }
  });
});

describe('what prescribing goes by, without what to test next', () => {
  it('is the same as of the whole', () =>
    fc.assert(
      fc.property(someAnswers, (findings) => {
        const input = {
          answers: new Map(findings.map((f) => [`${f.key}.${f.side}`, f.state] as const)),
          record: emptyRecord(45),
          affected: 'left' as const,
          daysSinceOnset: 60,
          tagsOff: () => [],
          verdicts: [],
        };
        const { drivers, held } = reasonAbout(content, input);
        expect(workedOn(content, input)).toEqual({ drivers, held });
      }),
      { numRuns: 60 },
    ));
});
