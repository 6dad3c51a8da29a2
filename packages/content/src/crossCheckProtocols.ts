import {
  type Criterion,
  criterionLeaves,
  homeQuestions,
  measuresRead,
  prescriptionProblems,
  prescribe,
  type ProtocolDefinition,
  type Slot,
  type Stage,
} from '@heathstep/core';
import { type ContentBundle, ContentProblem } from './bundle.js';
import { duplicates } from './duplicates.js';

type At = (reason: string) => ContentProblem;

/** Measures that criteria read and nobody is asked to take: such a stage could never be left, or never be begun in. */
function neverTaken(
  at: At,
  stage: Stage,
  protocol: ProtocolDefinition,
  content: ContentBundle,
): ContentProblem[] {
  const read = (c: Criterion | null) => (c === null ? [] : measuresRead(c));
  const first = content.pathways.filter((p) => p.protocol === protocol.key);
  // One worked out from others is there when they are; from nothing means from the story, which is always asked.
  const inPart = (list: readonly string[], key: string) =>
    list.includes(key) ||
    content.measures.find((m) => m.key === key)?.computed?.from.every((k) => list.includes(k)) === true;
  return [
    ...new Set([
      ...read(stage.criteria)
        .filter((key) => !inPart(stage.remeasure, key))
        .map((key) => `criteria read ${key}, which is not re-measured`),
      ...read(stage.entry).flatMap((key) =>
        first
          .filter((p) => !inPart(p.firstVisit, key))
          .map((p) => `entry reads ${key}, which the first visit of ${p.key} does not take`),
      ),
    ]),
  ].map(at);
}

/** Those of some keys that are not there, each as a problem. */
const missing = (at: At, kind: string, keys: readonly string[], there: readonly { key: string }[]) =>
  [...new Set(keys)]
    .filter((k) => there.every((t) => t.key !== k))
    .map((k) => at(`there is no ${kind} ${k}`));

/** School questions and options that a slot or adjunct names and the protocol does not have. */
function schoolProblems(
  at: At,
  where: string,
  named: Readonly<Record<string, string>> | undefined,
  protocol: ProtocolDefinition,
): ContentProblem[] {
  return Object.entries(named ?? {}).flatMap(([question, option]) => {
    const school = protocol.schools.find((s) => s.key === question);
    if (school === undefined) return [at(`${where}: there is no school question ${question}`)];
    return school.options.some((o) => o.key === option)
      ? []
      : [at(`${where}: ${question} has no choice ${option}`)];
  });
}

function slotProblems(at: At, slot: Slot, content: ContentBundle): ContentProblem[] {
  const least = slot.least === undefined ? [] : [slot.least];
  const named = [slot.start, ...least, ...(slot.rungs ?? []).map((r) => r.exercise)];
  return [
    ...missing(at, 'driver', slot.drivers ?? [], content.drivers),
    ...(slot.onlyForDriver === true && (slot.drivers ?? []).length === 0
      ? [at(`slot ${slot.key}: is only for drivers and names none`)]
      : []),
    ...named.flatMap((key) => {
      const e = content.exercises.find((x) => x.key === key);
      if (e === undefined) return [at(`slot ${slot.key}: there is no exercise ${key}`)];
      if (e.ladder !== slot.ladder)
        return [at(`slot ${slot.key}: ${key} is not on the ladder ${slot.ladder}`)];
      // The slot's numbers as written: those outside the range would be changed without a word.
      const given = prescribe(e, { slot: slot.key, sideRule: slot.sideRule, affected: 'left' });
      const doses = [slot.dose, ...(slot.table ?? []).map((r) => ({ ...slot.dose, ...r.dose }))];
      return doses.flatMap((dose) =>
        prescriptionProblems({ ...given, ...dose }, e).map((i) =>
          at(`slot ${slot.key}, ${key}: ${i.path} is not ${i.bound}`),
        ),
      );
    }),
  ];
}

function stageProblems(stage: Stage, protocol: ProtocolDefinition, content: ContentBundle): ContentProblem[] {
  const at: At = (reason) => new ContentProblem('protocols', `${protocol.key}/${stage.key}`, reason);
  const leaves = [
    stage.entry,
    stage.criteria,
    ...stage.slots.flatMap((s) => (s.rungs ?? []).map((r) => r.when)),
  ].flatMap((c) => (c === null ? [] : criterionLeaves(c)));
  const asked = homeQuestions(protocol);
  const skills = leaves.flatMap((l) => ('skill' in l ? [l.skill] : []));
  return [
    ...neverTaken(at, stage, protocol, content),
    ...missing(
      at,
      'measure',
      [...leaves.flatMap(measuresRead), ...stage.remeasure, stage.leadingMeasure],
      content.measures,
    ),
    ...missing(at, 'skill', [...stage.skills, ...skills], content.skills),
    ...missing(
      at,
      'home question',
      leaves.flatMap((l) => ('answer' in l ? [l.answer] : 'events' in l ? [l.events, l.exposure.what] : [])),
      asked,
    ),
    ...duplicates(
      `protocols ${protocol.key}/${stage.key} slots`,
      stage.slots.map((s) => s.key),
    ),
    ...stage.slots.flatMap((slot) => [
      ...slotProblems(at, slot, content),
      ...schoolProblems(at, `slot ${slot.key}`, slot.school, protocol),
    ]),
    ...stage.adjuncts.flatMap((a) => schoolProblems(at, `adjunct ${a.key}`, a.school, protocol)),
  ];
}

/** Tissues an exercise loads that are not there. */
export const tissueProblems = (content: ContentBundle): ContentProblem[] =>
  content.exercises.flatMap((e) =>
    missing(
      (reason) => new ContentProblem('exercises', e.key, reason),
      'tissue',
      Object.keys(e.loads),
      content.tissues,
    ),
  );

/** Everything one protocol names, and every key it uses once only. */
export function problemsOfProtocol(protocol: ProtocolDefinition, content: ContentBundle): ContentProblem[] {
  const at: At = (reason) => new ContentProblem('protocols', protocol.key, reason);
  const asked = homeQuestions(protocol);
  const { unableAt } = protocol;
  return [
    ...missing(at, 'condition', protocol.conditions, content.conditions),
    ...missing(at, 'safety rule', protocol.endsOn, content.safetyRules),
    ...missing(
      at,
      'finding',
      protocol.confirm.flatMap((c) => c.by.flatMap((b) => ('finding' in b ? [b.finding] : []))),
      content.findings,
    ),
    ...missing(
      at,
      'measure',
      protocol.confirm.flatMap((c) => c.by.flatMap((b) => ('measure' in b ? [b.measure] : []))),
      content.measures,
    ),
    ...missing(
      at,
      'measure',
      [...protocol.charts, ...(unableAt === null ? [] : [unableAt.measure])],
      content.measures,
    ),
    ...missing(at, 'tissue', protocol.tissues, content.tissues),
    ...missing(at, 'stage', unableAt === null ? [] : [unableAt.stage], protocol.stages),
    ...duplicates(
      `protocols ${protocol.key} stages`,
      protocol.stages.map((s) => s.key),
    ),
    ...duplicates(
      `protocols ${protocol.key} home questions`,
      asked.map((q) => q.key),
    ),
    ...(asked.filter((q) => q.role === 'morning').length === 1
      ? []
      : [at('exactly one home question has the role morning')]),
    ...protocol.schools
      .filter((s) => s.options.every((o) => o.key !== s.default))
      .map((s) => at(`${s.key}: the default ${s.default} is none of its choices`)),
    ...protocol.stages.flatMap((stage) => stageProblems(stage, protocol, content)),
  ];
}

export const protocolProblems = (content: ContentBundle): ContentProblem[] => [
  ...duplicates(
    'protocols',
    content.protocols.map((p) => p.key),
  ),
  ...content.protocols.flatMap((protocol) => problemsOfProtocol(protocol, content)),
];

export function pathwayProblems(content: ContentBundle): ContentProblem[] {
  return content.pathways.flatMap((c) => {
    const at: At = (reason) => new ContentProblem('pathways', c.key, reason);
    return [
      ...missing(
        at,
        'measure',
        [...c.firstVisit, ...(c.storyAsks === null ? [] : [c.storyAsks.measure])],
        content.measures,
      ),
      ...missing(at, 'skill', c.skills, content.skills),
      ...missing(at, 'protocol', c.protocol === null ? [] : [c.protocol], content.protocols),
    ];
  });
}

export function skillProblems(content: ContentBundle): ContentProblem[] {
  return [
    ...duplicates(
      'skills',
      content.skills.map((s) => s.key),
    ),
    ...content.skills.flatMap((s) =>
      missing(
        (reason) => new ContentProblem('skills', s.key, reason),
        'measure',
        s.shownBy?.measures ?? [],
        content.measures,
      ),
    ),
    ...content.safetyRules.flatMap((r) =>
      missing(
        (reason) => new ContentProblem('safety', r.key, reason),
        'safety question',
        r.score === undefined ? [] : [r.score.with],
        content.safetyQuestions,
      ),
    ),
  ];
}
