import {
  computeDose,
  type Criterion,
  type ExerciseDefinition,
  prescriptionProblems,
  type Prescription,
  sidesFor,
  type Slot,
  toDoseInput,
  type Trigger,
} from '@heathstep/core';
import { type ContentBundle, ContentProblem } from './bundle.js';

const MOST_WORDS_IN_A_STEP = 12;

function duplicates(kind: string, keys: readonly string[]): ContentProblem[] {
  const seen = new Set<string>();
  return keys.flatMap((key) => {
    if (!seen.has(key)) {
      seen.add(key);
      return [];
    }
    return [new ContentProblem(kind, key, 'the key is used twice')];
  });
}

function measuresOf(criterion: Criterion): string[] {
  if ('all' in criterion) return criterion.all.flatMap(measuresOf);
  if ('any' in criterion) return criterion.any.flatMap(measuresOf);
  if ('of' in criterion) return criterion.of.flatMap(measuresOf);
  if ('measure' in criterion) return [criterion.measure];
  if ('symmetry' in criterion) return [criterion.symmetry];
  return 'sideDifference' in criterion ? [criterion.sideDifference] : [];
}

function questionsOf(trigger: Trigger): string[] {
  if (typeof trigger === 'string') return [trigger];
  if ('any' in trigger) return trigger.any.flatMap(questionsOf);
  if ('all' in trigger) return trigger.all.flatMap(questionsOf);
  return 'of' in trigger ? trigger.of.flatMap(questionsOf) : [];
}

function exerciseProblems(e: ExerciseDefinition, content: ContentBundle): ContentProblem[] {
  const at = (reason: string) => new ContentProblem('exercises', e.key, reason);
  const p: Prescription = { ...e.dose, exercise: e.key, slot: '', sides: sidesFor(e, 'both', 'left') };
  return [
    ...(content.ladders.some((l) => l.key === e.ladder) ? [] : [at(`there is no ladder ${e.ladder}`)]),
    ...e.steps
      .filter((s) => s.split(/\s+/).length >= MOST_WORDS_IN_A_STEP)
      .map((s) => at(`the step "${s}" has ${MOST_WORDS_IN_A_STEP} words or more`)),
    ...prescriptionProblems(p, e).map((i) => at(`default dose: ${i.path} is not ${i.bound}`)),
  ];
}

function ladderProblems(content: ContentBundle): ContentProblem[] {
  return content.ladders.flatMap((ladder) => {
    const rungs = content.exercises
      .filter((e) => e.ladder === ladder.key)
      .map((e) => e.rung)
      .sort((a, b) => a - b);
    const unbroken = rungs.every((rung, i) => rung === i + 1);
    return rungs.length > 0 && unbroken
      ? []
      : [new ContentProblem('ladders', ladder.key, `rungs are ${rungs.join(', ')}, wanted 1, 2, 3 ...`)];
  });
}

function slotProblems(
  at: (reason: string) => ContentProblem,
  slot: Slot,
  content: ContentBundle,
): ContentProblem[] {
  const named = [slot.start, ...(slot.rungs ?? []).map((r) => r.exercise)];
  return named.flatMap((key) => {
    const e = content.exercises.find((x) => x.key === key);
    if (e === undefined) return [at(`slot ${slot.key}: there is no exercise ${key}`)];
    if (e.ladder !== slot.ladder) return [at(`slot ${slot.key}: ${key} is not on the ladder ${slot.ladder}`)];
    const p: Prescription = {
      ...e.dose,
      ...slot.dose,
      exercise: e.key,
      slot: slot.key,
      sides: sidesFor(e, slot.sideRule, 'left'),
    };
    return [
      ...prescriptionProblems(p, e).map((i) => at(`slot ${slot.key}, ${key}: ${i.path} is not ${i.bound}`)),
      ...(computeDose(toDoseInput(p, e)).ok
        ? []
        : [at(`slot ${slot.key}, ${key}: the dose cannot be computed`)]),
    ];
  });
}

function protocolProblems(content: ContentBundle): ContentProblem[] {
  const measures = new Set(content.measures.map((m) => m.key));
  return content.protocols.flatMap((protocol) =>
    protocol.stages.flatMap((stage) => {
      const at = (reason: string) => new ContentProblem('protocols', `${protocol.key}/${stage.key}`, reason);
      const criteria = [
        stage.entry,
        stage.criteria,
        ...stage.slots.flatMap((s) => (s.rungs ?? []).map((r) => r.when)),
      ];
      const used = [
        ...criteria.flatMap((c) => (c === null ? [] : measuresOf(c))),
        ...stage.remeasure,
        stage.leadingMeasure,
      ];
      return [
        ...[...new Set(used)].filter((k) => !measures.has(k)).map((k) => at(`there is no measure ${k}`)),
        ...stage.slots.flatMap((slot) => slotProblems(at, slot, content)),
      ];
    }),
  );
}

function safetyProblems(content: ContentBundle): ContentProblem[] {
  const questions = new Set(content.safetyQuestions.map((q) => q.key));
  const used = new Set(content.safetyRules.flatMap((r) => questionsOf(r.trigger)));
  return [
    ...[...used]
      .filter((k) => !questions.has(k))
      .map((k) => new ContentProblem('safety', k, 'a rule uses a question that is not there')),
    ...[...questions]
      .filter((k) => !used.has(k))
      .map((k) => new ContentProblem('safety', k, 'a question that no rule uses')),
  ];
}

function measureProblems(content: ContentBundle): ContentProblem[] {
  return content.measures.flatMap((m) => {
    const at = (reason: string) => new ContentProblem('measures', m.key, reason);
    return [
      ...(m.usual.min < m.allowed.min || m.usual.max > m.allowed.max
        ? [at('the usual range lies outside the allowed one')]
        : []),
      ...(m.direction === 'target' && m.band === null ? [at('a target measure needs its band')] : []),
    ];
  });
}

/** What no single schema can see: links between files, unbroken ladders, doses inside their own safe range. */
export function crossCheck(content: ContentBundle): ContentProblem[] {
  return [
    ...duplicates(
      'measures',
      content.measures.map((m) => m.key),
    ),
    ...duplicates(
      'exercises',
      content.exercises.map((e) => e.key),
    ),
    ...duplicates(
      'safety questions',
      content.safetyQuestions.map((q) => q.key),
    ),
    ...duplicates(
      'safety rules',
      content.safetyRules.map((r) => r.key),
    ),
    ...measureProblems(content),
    ...content.exercises.flatMap((e) => exerciseProblems(e, content)),
    ...ladderProblems(content),
    ...protocolProblems(content),
    ...safetyProblems(content),
  ];
}
