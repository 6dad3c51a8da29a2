import {
  circular,
  figureProblems as bodyProblems,
  fillRoutine,
  planProblems,
  LAB_QUANTITIES,
  PHOTO_CONSTRUCTIONS,
  type ExerciseDefinition,
  prescriptionProblems,
  type Prescription,
  risesOf,
  SEEN_SIGNS,
  sidesFor,
  type Sign,
  type Trigger,
  unreachable,
  NOTHING_SAID,
} from '@heathstep/core';
import { type ContentBundle, ContentProblem } from './bundle.js';
import { pathwayProblems, protocolProblems, skillProblems, tissueProblems } from './crossCheckProtocols.js';
import { duplicates } from './duplicates.js';

const MOST_WORDS_IN_A_STEP = 12;

/** Every single sign of a trigger, however deep. */
function signsOf(trigger: Trigger): Trigger[] {
  if (typeof trigger === 'string') return [trigger];
  if ('any' in trigger) return trigger.any.flatMap(signsOf);
  if ('all' in trigger) return trigger.all.flatMap(signsOf);
  if ('of' in trigger) return trigger.of.flatMap(signsOf);
  if ('without' in trigger) return signsOf(trigger.without);
  if ('notCleared' in trigger) return [trigger.notCleared];
  if ('answeredNo' in trigger) return [trigger.answeredNo];
  return 'points' in trigger ? trigger.points.flatMap((p) => signsOf(p.when)) : [trigger];
}

const questionsOf = (trigger: Trigger): string[] =>
  signsOf(trigger).flatMap((s) => (typeof s === 'string' ? [s] : []));

const measuredOf = (trigger: Trigger): string[] =>
  signsOf(trigger).flatMap((s) => (typeof s !== 'string' && 'measured' in s ? [s.measured] : []));

const seenOf = (trigger: Trigger): string[] =>
  signsOf(trigger).flatMap((s) => (typeof s !== 'string' && 'seen' in s ? [s.seen] : []));

const foundOf = (trigger: Trigger): string[] =>
  signsOf(trigger).flatMap((s) => (typeof s !== 'string' && 'finding' in s ? [s.finding] : []));

export function exerciseProblems(
  e: ExerciseDefinition,
  content: Pick<ContentBundle, 'exercises' | 'ladders'>,
): ContentProblem[] {
  const at = (reason: string) => new ContentProblem('exercises', e.key, reason);
  const p: Prescription = { ...e.dose, exercise: e.key, slot: '', sides: sidesFor(e, 'both', 'left') };
  return [
    ...(content.ladders.some((l) => l.key === e.ladder) ? [] : [at(`there is no ladder ${e.ladder}`)]),
    ...e.steps
      .filter((s) => s.split(/\s+/).length >= MOST_WORDS_IN_A_STEP)
      .map((s) => at(`the step "${s}" has ${MOST_WORDS_IN_A_STEP} words or more`)),
    ...prescriptionProblems(p, e).map((i) => at(`default dose: ${i.path} is not ${i.bound}`)),
    ...e.after
      .filter((k) => !content.exercises.some((x) => x.key === k && x.ladder !== e.ladder))
      .map((k) => at(`it comes after ${k}, which is on no other ladder`)),
  ];
}

/** Every exercise can be reached by steps up, without going round in circles, and each step says what it changes. */
function graphProblems(content: ContentBundle): ContentProblem[] {
  const ordered = (ladder: string) => content.ladders.find((l) => l.key === ladder)?.set !== true;
  const rises = risesOf(content.exercises, ordered);
  const at = (key: string, reason: string) => new ContentProblem('exercises', key, reason);
  return [
    ...content.exercises.flatMap((e) =>
      (e.abilities ?? [])
        .filter((a) => !content.measures.some((m) => m.key === a.measure))
        .map((a) => at(e.key, `it asks for ${a.measure}, which is no measure`)),
    ),
    ...circular(content.exercises, rises).map((k) => at(k, 'steps up lead round in a circle')),
    ...unreachable(content.exercises, rises, ordered).map((k) => at(k, 'no step up leads to it')),
    ...rises
      .filter((r) => r.changes.length === 0)
      .map((r) => at(r.to, `the step from ${r.from} does not say what changes`)),
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

/** Whether a gate can open when these questions can be asked; what is measured, marked, found or told by the age always can. */
function canOpen(gate: Trigger, askable: ReadonlySet<string>): boolean {
  if (typeof gate === 'string') return askable.has(gate);
  if ('any' in gate) return gate.any.some((t) => canOpen(t, askable));
  if ('all' in gate) return gate.all.every((t) => canOpen(t, askable));
  if ('of' in gate) return gate.of.filter((t) => canOpen(t, askable)).length >= gate.atLeast;
  if ('notCleared' in gate) return askable.has(gate.notCleared);
  return !('answeredNo' in gate) || askable.has(gate.answeredNo);
}

/** Questions behind gates that no visit opens, each gate walked from the questions that can be asked. */
function unreachableQuestions(questions: ContentBundle['safetyQuestions']): string[] {
  const asked = questions.filter((q) => q.retired !== true);
  let askable: ReadonlySet<string> = new Set();
  for (;;) {
    const now = new Set(
      asked.filter((q) => q.onlyIf === undefined || canOpen(q.onlyIf, askable)).map((q) => q.key),
    );
    if (now.size === askable.size) return asked.map((q) => q.key).filter((k) => !now.has(k));
    askable = now;
  }
}

/** Every test is made somewhere, only tests can be spared, and parts are named as they are. */
function partProblems(content: ContentBundle): ContentProblem[] {
  const parts = new Set(content.bodyParts.map((p) => p.key));
  return [
    ...content.safetyQuestions.flatMap((q) => {
      const at = (reason: string) => new ContentProblem('safety', q.key, reason);
      if (q.how === 'test' && q.part === undefined) return [at('a test without the part it is made on')];
      if (q.how === 'ask' && (q.part !== undefined || q.neededIf !== undefined))
        return [at('only a test has a part and can be spared')];
      return q.part === undefined || parts.has(q.part) ? [] : [at(`there is no part ${q.part}`)];
    }),
    ...content.pathways.flatMap((p) =>
      p.parts
        .filter((k) => !parts.has(k))
        .map((k) => new ContentProblem('pathways', p.key, `there is no part ${k}`)),
    ),
  ];
}

function safetyProblems(content: ContentBundle): ContentProblem[] {
  const questions = new Set(content.safetyQuestions.map((q) => q.key));
  const gates = content.safetyQuestions.flatMap((q) => [
    ...[q.onlyIf, q.neededIf].filter((t) => t !== undefined),
    ...(q.clashes ?? []).map((c) => c.when),
  ]);
  const triggers = [...content.safetyRules.map((r) => r.trigger), ...gates];
  const used = new Set(triggers.flatMap(questionsOf));
  const measures = new Set(content.measures.map((m) => m.key));
  const findings = new Set(content.findings.map((f) => f.key));
  return [
    ...triggers
      .flatMap(measuredOf)
      .filter((k) => !measures.has(k))
      .map((k) => new ContentProblem('safety', k, 'a rule uses a measure that is not there')),
    ...triggers
      .flatMap(seenOf)
      .filter((k) => !SEEN_SIGNS.includes(k))
      .map((k) => new ContentProblem('safety', k, 'no drawing gives this sign')),
    ...triggers
      .flatMap(foundOf)
      .filter((k) => !findings.has(k))
      .map((k) => new ContentProblem('safety', k, 'a rule uses a finding that is not there')),
    ...partProblems(content),
    ...unreachableQuestions(content.safetyQuestions).map(
      (k) => new ContentProblem('safety', k, 'no visit can come to ask it'),
    ),
    ...content.safetyRules.flatMap((r) =>
      (r.checks ?? [])
        .filter((k) => !findings.has(k))
        .map((k) => new ContentProblem('safety', r.key, `there is no finding ${k} to check`)),
    ),
    ...[...used]
      .filter((k) => !questions.has(k))
      .map((k) => new ContentProblem('safety', k, 'a rule uses a question that is not there')),
    ...[...questions]
      .filter((k) => !used.has(k))
      .map((k) => new ContentProblem('safety', k, 'a question that no rule uses')),
  ];
}

function namesTwice(content: ContentBundle): ContentProblem[] {
  const owner = new Map<string, string>();
  return content.measures.flatMap((m) =>
    [...m.aliases, m.key.replaceAll('-', ' ')].flatMap((name) => {
      const other = owner.get(name);
      owner.set(name, m.key);
      return other === undefined || other === m.key
        ? []
        : [new ContentProblem('measures', m.key, `the name ${name} is also ${other}`)];
    }),
  );
}

function measureProblems(content: ContentBundle): ContentProblem[] {
  const keys = new Set(content.measures.map((m) => m.key));
  const photos = new Set(PHOTO_CONSTRUCTIONS.map((p) => p.key));
  return content.measures.flatMap((m) => {
    const at = (reason: string) => new ContentProblem('measures', m.key, reason);
    return [
      ...(m.usual.min < m.allowed.min || m.usual.max > m.allowed.max
        ? [at('the usual range lies outside the allowed one')]
        : []),
      ...(m.direction === 'target' && m.band === null ? [at('a target measure needs its band')] : []),
      ...(m.computed?.from ?? [])
        .filter((k) => !keys.has(k))
        .map((k) => at(`it is worked out from ${k}, which is not there`)),
      ...(m.photo === null || photos.has(m.photo) ? [] : [at(`there is no photo construction ${m.photo}`)]),
      ...m.lab.flatMap((l) => [
        ...(LAB_QUANTITIES[l.instrument][l.task]?.includes(l.quantity) === true
          ? []
          : [at(`a ${l.instrument} tells no ${l.quantity} of ${l.task}`)]),
        ...(m.methods.includes(l.method)
          ? []
          : [at(`the lab measures it by ${l.method}, which is none of its methods`)]),
        ...(l.both === undefined || m.positions.includes(l.both)
          ? []
          : [at(`the lab measures it ${l.both}, which is none of its positions`)]),
      ]),
      ...(m.levels ?? [])
        .filter((l) => l.value < m.allowed.min || l.value > m.allowed.max)
        .map((l) => at(`the level ${l.word} lies outside the allowed range`)),
      ...(m.byAge?.bands.some((b, i, all) => i > 0 && b.from <= (all[i - 1]?.from ?? 0)) === true
        ? [at('the age bands are not in order')]
        : []),
      ...(m.sideFlag?.kind === 'symmetry' && (m.scale === 'signed' || m.direction === 'target')
        ? [at('a side rule by ratio needs a ratio scale with a direction')]
        : []),
      ...(m.tool?.kind === 'items' &&
      (m.tool.items.reduce((sum, i) => sum + i.min, 0) !== m.allowed.min ||
        m.tool.items.reduce((sum, i) => sum + i.max, 0) !== m.allowed.max)
        ? [at('its items do not add up to the allowed range')]
        : []),
    ];
  });
}

/** Every single sign of a finding, criterion or driver, however deep. */
function leavesOf(sign: Sign): Sign[] {
  if ('all' in sign) return sign.all.flatMap(leavesOf);
  if ('any' in sign) return sign.any.flatMap(leavesOf);
  if ('either' in sign) return sign.either.flatMap(leavesOf);
  if ('ruledOutBy' in sign) return leavesOf(sign.ruledOutBy);
  return 'not' in sign ? leavesOf(sign.not) : [sign];
}

/** What a sign names that is not there. */
function signProblems(
  at: (reason: string) => ContentProblem,
  sign: Sign,
  content: ContentBundle,
): ContentProblem[] {
  const measures = new Set(content.measures.map((m) => m.key));
  const findings = new Set(content.findings.map((f) => f.key));
  const questions = new Set(content.safetyQuestions.map((q) => q.key));
  const named = (s: Sign): readonly [kind: string, key: string, there: ReadonlySet<string>][] => {
    if ('measure' in s) return [['measure', s.measure, measures]];
    if ('less' in s) return [['measure', s.less, measures]];
    if ('more' in s) return [['measure', s.more, measures]];
    if ('shareOf' in s) return [['measure', s.shareOf, measures]];
    if ('underUsual' in s) return [['measure', s.underUsual, measures]];
    if ('gain' in s)
      return [
        ['measure', s.gain, measures],
        ['measure', s.over, measures],
      ];
    if ('safety' in s) return [['safety question', s.safety, questions]];
    if ('seen' in s && s.seen.startsWith('tender-')) return [['drawn sign', s.seen, new Set(SEEN_SIGNS)]];
    return 'finding' in s ? [['finding', s.finding, findings]] : [];
  };
  return leavesOf(sign)
    .flatMap(named)
    .filter(([, key, there]) => !there.has(key))
    .map(([kind, key]) => at(`there is no ${kind} ${key}`));
}

const FRAMES = [0, 0.25, 0.5, 0.75, 1];

/** Every exercise drawn, and every figure of an exercise that is there, whose joints stay within what they can do all along the way. */
function figureProblems(content: ContentBundle): ContentProblem[] {
  const drawn = new Set(content.figures.map((f) => f.exercise));
  const undrawn = content.exercises
    .filter((e) => !drawn.has(e.key))
    .map((e) => new ContentProblem('exercises', e.key, 'it has no figure'));
  const wrong = content.figures.flatMap((f) => {
    const at = (reason: string) => new ContentProblem('figures', f.exercise, reason);
    const [left, bottom, right, top] = f.frame;
    return [
      ...(content.exercises.some((e) => e.key === f.exercise)
        ? []
        : [at('there is no exercise of this key')]),
      ...(left < right && bottom < top ? [] : [at('the frame has no size')]),
      ...FRAMES.flatMap((t) =>
        bodyProblems(f, t).map((p) =>
          at(`at ${t} of the way the ${p.leg} ${p.joint} is at ${Math.round(p.angle)}`),
        ),
      ),
    ];
  });
  return [...undrawn, ...wrong];
}

function reasonProblems(content: ContentBundle): ContentProblem[] {
  const conditions = new Set(content.conditions.map((c) => c.key));
  const findings = new Set(content.findings.map((f) => f.key));
  const questions = new Map(content.safetyQuestions.map((q) => [q.key, q.scope]));
  const pathways = new Set(content.pathways.map((p) => p.key));
  const spoken = new Set(content.findings.flatMap((f) => Object.keys(f.ratios)));
  return [
    ...content.findings.flatMap((f) => {
      const at = (reason: string) => new ContentProblem('findings', f.key, reason);
      const scope = f.safety === null ? null : questions.get(f.safety);
      return [
        ...Object.keys(f.ratios)
          .filter((k) => !conditions.has(k))
          .map((k) => at(`there is no condition ${k}`)),
        ...(scope === undefined ? [at(`there is no safety question ${f.safety ?? ''}`)] : []),
        ...[f.sign, f.onlyIf, f.rises].flatMap((s) => (s === null ? [] : signProblems(at, s, content))),
        ...((f.from === 'feel' || f.from === 'test') &&
        f.how.length === 0 &&
        f.sign === null &&
        f.safety === null
          ? [at('it does not say how it is tested')]
          : []),
      ];
    }),
    ...content.conditions.flatMap((c) => {
      const at = (reason: string) => new ContentProblem('conditions', c.key, reason);
      return [
        ...(spoken.has(c.key) ? [] : [at('no finding speaks of it')]),
        ...c.likeness.filter((k) => !conditions.has(k)).map((k) => at(`there is no condition ${k}`)),
        ...c.keep.filter((k) => !findings.has(k)).map((k) => at(`there is no finding ${k}`)),
        ...(c.pathway === null || pathways.has(c.pathway) ? [] : [at(`there is no pathway ${c.pathway}`)]),
        ...c.refer.flatMap((r) => signProblems(at, r.when, content)),
        ...(c.requires === null ? [] : signProblems(at, c.requires, content)),
      ];
    }),
    ...content.drivers.flatMap((d) =>
      [d.when, d.surer, d.unless].flatMap((s) =>
        s === null ? [] : signProblems((r) => new ContentProblem('drivers', d.key, r), s, content),
      ),
    ),
    ...content.exercises.flatMap((e) =>
      e.drivers
        .filter((k) => !content.drivers.some((d) => d.key === k))
        .map((k) => new ContentProblem('exercises', e.key, `there is no driver ${k}`)),
    ),
  ];
}

/** A routine can be given whole to someone of whom nothing is switched off, with its numbers as they are written. */
function routineProblems(content: ContentBundle): ContentProblem[] {
  const exerciseOf = (key: string) => content.exercises.find((e) => e.key === key);
  return content.routines.flatMap((r) => {
    const at = (reason: string) => new ContentProblem('routines', r.key, reason);
    const { items, left } = fillRoutine(r, {
      exerciseOf,
      affected: 'left',
      ...NOTHING_SAID,
      taken: [],
      rounds: [],
    });
    // As written: what lies outside a range would be changed without a word.
    const written = items.map((i) => ({ ...i, ...r.items.find((w) => w.exercise === i.exercise)?.dose }));
    return [
      ...left.map((l) => at(`${l.exercise}: ${l.why}`)),
      ...planProblems(written, exerciseOf, NOTHING_SAID).map((i) => at(`${i.path} is not ${i.bound}`)),
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
    ...namesTwice(content),
    ...pathwayProblems(content),
    ...content.exercises.flatMap((e) => exerciseProblems(e, content)),
    ...ladderProblems(content),
    ...graphProblems(content),
    ...protocolProblems(content),
    ...skillProblems(content),
    ...routineProblems(content),
    ...duplicates(
      'routines',
      content.routines.map((r) => r.key),
    ),
    ...tissueProblems(content),
    ...safetyProblems(content),
    ...duplicates(
      'findings',
      content.findings.map((f) => f.key),
    ),
    ...duplicates(
      'conditions',
      content.conditions.map((c) => c.key),
    ),
    ...duplicates(
      'drivers',
      content.drivers.map((d) => d.key),
    ),
    ...duplicates(
      'figures',
      content.figures.map((f) => f.exercise),
    ),
    ...figureProblems(content),
    ...reasonProblems(content),
  ];
}
