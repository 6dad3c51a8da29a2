import type { DayItem } from '@heathstep/contracts';
import { leafText, leavesOf, localDay, measureOf, say } from '@heathstep/core';
import type { Assessed } from '../episodes/assessment.js';
import type { EpisodeRecord } from '../episodes/record.js';

/** What stands beside a person's reason on the day. */
export type Beside = Pick<DayItem, 'line' | 'lastContact' | 'toMeasure' | 'toTeach'>;

export const NOTHING_BESIDE: Beside = { line: null, lastContact: null, toMeasure: [], toTeach: [] };

/** So many mornings are drawn. */
const MORNINGS = 14;

export function besideOf(record: EpisodeRecord, assessed: Assessed): Beside {
  return {
    line: lineOf(record, assessed),
    lastContact: lastContactOf(record),
    toMeasure: toMeasureOf(record, assessed),
    toTeach: toTeachOf(record),
  };
}

function lineOf({ protocol, row }: EpisodeRecord, { home }: Assessed): DayItem['line'] {
  const stage = protocol.stages.findIndex((s) => s.key === row.stage);
  if (stage === -1) return null;
  return { stage, stages: protocol.stages.length, pain: home.mornings.slice(-MORNINGS).map((m) => m.pain) };
}

function lastContactOf({ view, clinic, home }: EpisodeRecord): DayItem['lastContact'] {
  const visit = view.visits.at(-1);
  const seen = visit === undefined ? '' : localDay(new Date(visit.startedAt), clinic.timeZone);
  const logged = home.reduce((last, entry) => (entry.day > last ? entry.day : last), '');
  if (seen === '' && logged === '') return null;
  return logged > seen ? { day: logged, by: 'log' } : { day: seen, by: 'visit' };
}

/** Measures that a criterion of the stage wants and nothing is known of. */
function toMeasureOf(record: EpisodeRecord, { stage, review, facts }: Assessed): string[] {
  const unknown = new Set(
    (review?.criteria?.parts ?? [])
      .filter((p) => p.spare !== true && p.state === 'not-known')
      .map((p) => p.text),
  );
  if (unknown.size === 0 || stage?.criteria == null) return [];
  const lookup = (key: string) => record.measures.find((m) => m.key === key);
  const wanted = leavesOf(stage.criteria).flatMap((leaf) => {
    const measure = measureOf(leaf);
    if (measure === null || !unknown.has(leafText(leaf, facts, lookup))) return [];
    return [say(lookup(measure)?.label ?? measure)];
  });
  return [...new Set(wanted)];
}

/** Exercises of the plan that nobody has taught in the room. */
function toTeachOf({ view, library }: EpisodeRecord): string[] {
  const taught = new Set(view.taught.map((t) => t.exercise));
  return (view.plan?.items ?? [])
    .filter((i) => !taught.has(i.exercise))
    .map((i) => say(library.exercise(i.exercise)?.name ?? i.exercise));
}
