import { loadContent } from '@heathstep/content';
import {
  composePlan,
  type Facts,
  type MeasuredFact,
  type ProtocolDefinition,
  type Stage,
} from '@heathstep/core';

/** What plans are tried with: the shipped content, a home with the common things in it, a woman of 45 with a sore left foot. */
const loaded = loadContent();
if (!loaded.ok) throw new Error(loaded.problems.join('\n'));
export const { content } = loaded;
export const NOW = '2026-03-20T10:00:00';
export const lookup = (key: string) => content.measures.find((m) => m.key === key);
export const exerciseOf = (key: string) => {
  const found = content.exercises.find((e) => e.key === key);
  if (found === undefined) throw new Error(`no exercise ${key}`);
  return found;
};
export const stages = content.protocols.flatMap((protocol) =>
  protocol.stages.map((stage) => [`${protocol.key}/${stage.key}`, protocol, stage] as const),
);
export const schoolsOf = (protocol: ProtocolDefinition) =>
  Object.fromEntries(protocol.schools.map((s) => [s.key, s.default]));

export const facts = (affected: Facts['affected'], measures: readonly MeasuredFact[] = []): Facts => ({
  measures,
  sessions: [],
  skills: {},
  stageSince: '2026-03-01T09:00:00',
  affected,
  ageYears: 45,
  sex: 'female',
});

const none = { left: [], right: [] } as const;
/** Everything in common homes, and nothing that is bought for it. */
export const HOME = [
  'towel',
  'belt',
  'ball',
  'step',
  'hand weight',
  'band',
  'crutches',
  'cushion',
  'small objects',
];

export const plan = (
  protocol: ProtocolDefinition,
  stage: Stage,
  change: Partial<Parameters<typeof composePlan>[0]> = {},
) =>
  composePlan(
    {
      stage,
      exercises: content.exercises,
      facts: facts('left'),
      schools: schoolsOf(protocol),
      equipment: HOME,
      minutesPerDay: 25,
      tagsOff: none,
      drivers: [],
      now: NOW,
      ...change,
    },
    lookup,
  );
