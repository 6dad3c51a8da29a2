import { useEffect, useMemo, useState } from 'react';
import {
  addDays,
  type Criterion,
  type CriterionAhead,
  type Facts,
  FEWEST_POINTS,
  type Forecast,
  lastOf,
  leafText,
  type MeasureLookup,
  openAhead,
  seedOf,
  type Side,
  stageAhead,
  type StageAhead,
} from '@heathstep/core';
import type { CourseView } from '@heathstep/contracts';
import type { ClinicContent } from '../../api/queries.js';
import { dayHere } from '../../parts/dates.js';

/** A criterion that is not met yet, and when its trend leads there. */
export interface Ahead {
  readonly ahead: CriterionAhead;
  /** Null where there are too few values yet. */
  readonly when: ReturnType<typeof lastOf>;
}

/** What trends lead to in a stage. */
export interface AheadOfStage {
  /** Forecasts of single criteria, by how each is told. */
  readonly criteria: ReadonlyMap<string, Ahead>;
  /** When the stage may be left; null where there is nothing to leave it by, or nothing is told. */
  readonly stage: StageAhead | null;
  /** Where a measure of a side goes by its trend. */
  readonly bandOf: (measure: string, side: Side) => Forecast['band'] | null;
}

/** Values of the side that has fewest. */
export const fewestOf = ({ inputs }: CriterionAhead): number =>
  Math.min(...inputs.map((i) => i.series.length));

const NOTHING: AheadOfStage = { criteria: new Map(), stage: null, bandOf: () => null };

/** What is asked of the worker, and what its answers mean. */
interface Asked {
  readonly ahead: readonly CriterionAhead[];
  readonly read: (answers: readonly (Forecast | null)[]) => AheadOfStage;
}

/** Of answers in the order of what was asked, each criterion's own. */
function byCriterion(
  ahead: readonly CriterionAhead[],
  answers: readonly (Forecast | null)[],
): readonly (readonly [CriterionAhead, readonly (Forecast | null)[]])[] {
  let at = 0;
  return ahead.map((a) => [a, answers.slice(at, (at += a.inputs.length))] as const);
}

function readAnswers(
  on: { readonly criteria: Criterion; readonly facts: Facts; readonly lookup: MeasureLookup },
  course: CourseView,
  ahead: readonly CriterionAhead[],
  answers: readonly (Forecast | null)[],
): AheadOfStage {
  const own = byCriterion(ahead, answers);
  const criteria = new Map(
    own.flatMap(([a, each]) => {
      const when = each.includes(null) ? null : lastOf(each as readonly Forecast[]);
      return when === null && fewestOf(a) >= FEWEST_POINTS ? [] : [[a.text, { ahead: a, when }] as const];
    }),
  );
  const bands = new Map(
    own.flatMap(([a, each]) =>
      a.inputs.flatMap((input, i) => {
        const band = each[i]?.band;
        return input.as === 'share' || band === undefined
          ? []
          : [[`${input.measure} ${input.side}`, band] as const];
      }),
    ),
  );
  const { today } = course.episode;
  const minimum = course.protocol.stages.find((s) => s.key === course.episode.stage)?.minimumDays ?? 0;
  const states = new Map(course.criteria.map((c) => [c.text, c.state]));
  const stage = stageAhead({
    criteria: on.criteria,
    textOf: (leaf) => leafText(leaf, on.facts, on.lookup),
    stateOf: (text) => states.get(text),
    whenOf: (text) => criteria.get(text)?.when ?? undefined,
    today,
    notBefore: addDays(dayHere(on.facts.stageSince), minimum),
  });
  // The same nothing draws nothing anew.
  if (criteria.size === 0 && bands.size === 0 && stage.when === null) return NOTHING;
  return {
    criteria,
    stage: stage.when === null ? null : stage,
    bandOf: (measure, side) => bands.get(`${measure} ${side}`) ?? null,
  };
}

function askedOf(course: CourseView, content: ClinicContent): Asked | null {
  const { episode, protocol, measures } = course;
  // Nothing goes on as it went while someone is to be referred, by an open stop among others.
  if (course.review === null || course.review.decision === 'refer') return null;
  const criteria = protocol.stages.find((s) => s.key === episode.stage)?.criteria ?? null;
  if (criteria === null) return null;
  const lookup = (key: string) => content.measures.find((m) => m.key === key);
  const facts: Facts = {
    measures,
    sessions: [],
    skills: {},
    stageSince: episode.stages.at(-1)?.since ?? episode.startedAt,
    affected: episode.affected,
    ageYears: episode.person.ageYears,
    sex: episode.person.sex,
  };
  const now = `${episode.today}T23:59:59`;
  const ahead = openAhead(criteria, course.criteria, { facts, now, lookup, seed: seedOf(episode.id) });
  return { ahead, read: (answers) => readAnswers({ criteria, facts, lookup }, course, ahead, answers) };
}

/** Forecasts of the stage someone is in; worked out beside the page. */
export function useAhead(course: CourseView, content: ClinicContent): AheadOfStage {
  const [known, setKnown] = useState(NOTHING);
  const asked = useMemo(() => askedOf(course, content), [course, content]);
  useEffect(() => {
    if (asked === null || asked.ahead.length === 0) {
      setKnown(asked?.read([]) ?? NOTHING);
      return undefined;
    }
    const worker = new Worker(new URL('./forecastWorker.ts', import.meta.url), { type: 'module' });
    worker.onmessage = ({ data }: MessageEvent<readonly (Forecast | null)[]>) => {
      setKnown(asked.read(data));
      worker.terminate();
    };
    worker.postMessage(asked.ahead.flatMap((a) => a.inputs));
    return () => worker.terminate();
  }, [asked]);
  return known;
}
