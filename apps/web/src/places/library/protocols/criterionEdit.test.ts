import fc from 'fast-check';
import { checkProtocolFile, loadContent } from '@heathstep/content';
import { type Criterion, homeQuestions, measuresRead, writeProtocol } from '@heathstep/core';
import { alternatives, BLOCKS, criterionOf, groupOf, partChanged, withParts } from './criterionEdit.js';

const loaded = loadContent();
if (!loaded.ok) throw new Error(loaded.problems.join('\n'));
const criteria = loaded.content.protocols.flatMap((p) =>
  p.stages.flatMap((s) => [s.criteria, s.entry].flatMap((c) => (c === null ? [] : [c]))),
);
const [protocol] = loaded.content.protocols.filter((p) => p.key === 'plantar-heel-pain');
if (protocol === undefined) throw new Error('no protocol');

/** What is wrong with a protocol whose second stage asks for something. */
function problemsWith(asked: Criterion): readonly string[] {
  if (!loaded.ok || protocol === undefined) return ['not loaded'];
  const stages = protocol.stages.map((s, i) =>
    i === 1
      ? { ...s, criteria: asked, remeasure: [...new Set([...s.remeasure, ...measuresRead(asked)])] }
      : s,
  );
  const file = JSON.parse(JSON.stringify(writeProtocol({ ...protocol, stages }))) as unknown;
  const read = checkProtocolFile(file, { replaces: protocol.key, version: 9 }, loaded.content);
  return read.ok ? [] : read.problems.map((x) => `${x.pointer}: ${x.detail}`);
}
const CHOSEN = {
  measure: 'single-leg-heel-raise',
  question: homeQuestions(protocol)[0]?.key ?? '',
  'two questions': homeQuestions(protocol)[0]?.key ?? '',
  skill: loaded.content.skills[0]?.key ?? '',
};

describe('criteria as blocks', () => {
  it('are the same again when nothing was changed, at every depth', () => {
    const same = (c: Criterion): Criterion => {
      const group = groupOf(c);
      return group === null ? c : criterionOf({ ...group, parts: group.parts.map(same) });
    };
    expect(criteria.map(same)).toEqual(criteria);
  });

  it.each(BLOCKS.map((b) => [b.name, b] as const))('%s is one that a protocol can ask for', (_, block) =>
    expect(
      problemsWith(
        block.make(
          block.needs === null ? '' : CHOSEN[block.needs],
          undefined,
          homeQuestions(protocol)[1]?.key,
        ),
      ),
    ).toEqual([]),
  );

  it.each(loaded.content.measures.map((m) => [m.key, m] as const))(
    'a number that was forgotten lets nobody pass by %s but with the best there is',
    (_, m) => {
      const of = (key: string) => BLOCKS.find((b) => b.key === key)?.make(m.key, m);
      expect(of('value')).toMatchObject({ op: '>=', value: m.allowed.max });
      expect(of('value-less')).toMatchObject({ op: '<=', value: m.allowed.min });
      expect(of('less')).toMatchObject({
        bothSides:
          m.direction === 'less' ? { op: '<=', value: m.allowed.min } : { op: '>=', value: m.allowed.max },
      });
    },
  );

  it('is refused where it asks for what is not there', () =>
    expect(problemsWith({ measure: 'no-such', side: 'treated', op: '>=', value: 1 })).not.toEqual([]));

  it('has a block for every kind of thing the protocols ask for', () => {
    const kindOf = (leaf: object) =>
      Object.keys(leaf).find((k) => !['op', 'value', 'max', 'min', 'days', 'side'].includes(k));
    const leaves = (c: Criterion): Criterion[] => groupOf(c)?.parts.flatMap(leaves) ?? [c];
    const made = new Set(BLOCKS.map((b) => kindOf(b.make('x'))));
    const asked = new Set(criteria.flatMap(leaves).map(kindOf));
    expect([...asked].filter((k) => !made.has(k))).toEqual([]);
  });

  it('takes a part out, a group with it when it was the last, and never asks for more than there are', () =>
    fc.assert(
      fc.property(
        fc.integer({ min: 1, max: 5 }),
        fc.integer({ min: 1, max: 9 }),
        fc.nat(4),
        (n, atLeast, at) => {
          const parts = Array.from({ length: n }, (_, i): Criterion => ({ minDays: i + 1 }));
          const group = { joined: 'some' as const, parts, atLeast };
          const left = withParts(group, partChanged(parts, at % n, null));
          if (n === 1) expect(left).toBeNull();
          else {
            const now = groupOf(left as Criterion);
            expect(now?.parts).toHaveLength(n - 1);
            expect(now?.atLeast).toBeLessThanOrEqual(n - 1);
          }
        },
      ),
    ));

  it('makes something one of several, and knows every measure that is read', () => {
    const either = alternatives({ symmetry: 'heel-raise', min: 90 });
    const more = criterionOf({
      ...(groupOf(either) ?? { joined: 'any', parts: [], atLeast: 1 }),
      parts: [
        { symmetry: 'heel-raise', min: 90 },
        { all: [{ atLeastForAge: 'lunge', share: 1 }, { noLimp: true }] },
      ],
    });
    expect(more).toHaveProperty('any');
    expect(measuresRead(more)).toEqual(['heel-raise', 'lunge', 'limp']);
  });
});
