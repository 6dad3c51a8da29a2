import { useEffect, useMemo, useState } from 'react';
import { criteriaAhead, type CriterionAhead, FEWEST_POINTS, type Forecast, lastOf } from '@heathstep/core';
import type { CourseView } from '@heathstep/contracts';
import type { ClinicContent } from '../../api/queries.js';

/** A criterion that is not met yet, and when its trend leads there. */
export interface Ahead {
  readonly ahead: CriterionAhead;
  /** Null where there are too few values yet. */
  readonly when: ReturnType<typeof lastOf>;
}

/** Values of the side that has fewest. */
export const fewestOf = ({ inputs }: CriterionAhead): number =>
  Math.min(...inputs.map((i) => i.series.length));

/** The same person, the same draws. */
const seedOf = (id: string): number => Number.parseInt(id.replaceAll('-', '').slice(0, 7), 16);

/** Forecasts of the criteria of the stage, by how each is told; worked out beside the page. */
export function useAhead(course: CourseView, content: ClinicContent): ReadonlyMap<string, Ahead> {
  const [known, setKnown] = useState<ReadonlyMap<string, Ahead>>(new Map());
  const asked = useMemo(() => {
    const { episode, protocol, measures } = course;
    // Nothing goes on as it went while someone is to be referred, by an open stop among others.
    if (course.review?.decision === 'refer') return [];
    const stage = protocol.stages.find((s) => s.key === episode.stage);
    const open = new Set(
      course.criteria.filter((c) => c.spare !== true && c.state === 'not-met').map((c) => c.text),
    );
    return criteriaAhead(stage?.criteria ?? null, {
      facts: {
        measures,
        sessions: [],
        skills: {},
        stageSince: episode.startedAt,
        affected: episode.affected,
        ageYears: episode.person.ageYears,
        sex: episode.person.sex,
      },
      now: `${episode.today}T23:59:59`,
      lookup: (key) => content.measures.find((m) => m.key === key),
      seed: seedOf(episode.id),
    }).filter((a) => open.has(a.text));
  }, [course, content]);
  useEffect(() => {
    if (asked.length === 0) {
      setKnown(new Map());
      return undefined;
    }
    const worker = new Worker(new URL('./forecastWorker.ts', import.meta.url), { type: 'module' });
    worker.onmessage = ({ data }: MessageEvent<readonly (Forecast | null)[]>) => {
      let at = 0;
      const told = asked.flatMap((ahead) => {
        const own = data.slice(at, (at += ahead.inputs.length));
        const when = own.includes(null) ? null : lastOf(own as readonly Forecast[]);
        return when === null && fewestOf(ahead) >= FEWEST_POINTS
          ? []
          : [[ahead.text, { ahead, when }] as const];
      });
      setKnown(new Map(told));
      worker.terminate();
    };
    worker.postMessage(asked.flatMap((a) => a.inputs));
    return () => worker.terminate();
  }, [asked]);
  return known;
}
