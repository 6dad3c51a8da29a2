import fc from 'fast-check';
import { loadContent } from '@heathstep/content';
import {
  doseOf,
  questionAdded,
  schoolAdded,
  numbersIn,
  slotAdded,
  slotMoved,
  slotRemoved,
  withNumber,
  withStage,
} from './protocolEdit.js';

const loaded = loadContent();
if (!loaded.ok) throw new Error(loaded.problems.join('\n'));
const { content } = loaded;
const stages = content.protocols.flatMap((p) => p.stages);

describe('slots of a stage', () => {
  const keys = (slots: readonly { key: string }[]) => slots.map((s) => s.key);

  it('move one place, keep all, and are numbered in their order', () =>
    fc.assert(
      fc.property(
        fc.constantFrom(...stages.filter((s) => s.slots.length > 1)),
        fc.nat(9),
        fc.constantFrom<-1 | 1>(-1, 1),
        (stage, at, by) => {
          const moved = slotMoved(stage.slots, at, by);
          expect([...keys(moved)].sort()).toEqual([...keys(stage.slots)].sort());
          const inside = at < stage.slots.length && at + by >= 0 && at + by < stage.slots.length;
          if (!inside) {
            expect(moved).toBe(stage.slots);
            return;
          }
          expect(moved[at + by]?.key).toBe(stage.slots[at]?.key);
          expect(moved.map((s) => s.priority)).toEqual(moved.map((_, i) => i + 1));
        },
      ),
    ));

  it('are taken out, and added at the end under a key of their own', () => {
    const slot = {
      purpose: 'More',
      aim: 'strength',
      ladder: 'heel-raise',
      start: 'raise-two-legs',
      sideRule: 'treated',
    } as const;
    const more = slotAdded(slotAdded([], slot), slot);
    expect(more.map((s) => [s.key, s.priority])).toEqual([
      ['heel-raise', 1],
      ['heel-raise-2', 2],
    ]);
    expect(slotRemoved(more, 0).map((s) => [s.key, s.priority])).toEqual([['heel-raise-2', 1]]);
  });
});

it('a slot’s dose says only what is otherwise than the exercise begins with', () => {
  for (const exercise of content.exercises) {
    expect(doseOf(exercise.dose, exercise)).toEqual({});
    expect(doseOf({ ...exercise.dose, sets: exercise.dose.sets + 1 }, exercise)).toEqual({
      sets: exercise.dose.sets + 1,
    });
  }
});

describe('criteria', () => {
  const criteria = stages.flatMap((s) => (s.criteria === null ? [] : [s.criteria]));

  it('have every number to be set where it stands, and nothing else changes', () => {
    for (const criterion of criteria)
      for (const n of numbersIn(criterion)) {
        const changed = withNumber(criterion, n.path, n.value + 1);
        const now = numbersIn(changed);
        expect(now.map((x) => x.path)).toEqual(numbersIn(criterion).map((x) => x.path));
        expect(now.filter((x, i) => x.value !== numbersIn(criterion)[i]?.value)).toHaveLength(1);
        expect(withNumber(changed, n.path, n.value)).toEqual(criterion);
      }
    expect(criteria.flatMap((c) => numbersIn(c)).filter((n) => /^\d+$/.test(n.name))).toEqual([]);
  });
});

it('questions, choices and their ways are added under keys of their own', () => {
  const twice = questionAdded(questionAdded([]));
  expect(twice.map((q) => q.key)).toEqual(['own-1', 'own-2']);
  expect(questionAdded(twice.slice(1)).map((q) => q.key)).toEqual(['own-2', 'own-1']);
  const [school] = schoolAdded([]);
  expect(school?.options.map((o) => o.key)).toEqual(['way-1', 'way-2']);
  expect(school?.default).toBe('way-1');
  expect(schoolAdded(schoolAdded([])).map((s) => s.key)).toEqual(['choice-1', 'choice-2']);
});

it('a stage is changed and its neighbours are not', () => {
  const [protocol] = content.protocols;
  if (protocol === undefined) throw new Error('no protocol');
  const key = protocol.stages[1]?.key ?? '';
  const next = withStage(protocol, key, { minimumDays: 99 });
  expect(next.stages.map((s) => s.minimumDays === 99)).toEqual(protocol.stages.map((s) => s.key === key));
});
