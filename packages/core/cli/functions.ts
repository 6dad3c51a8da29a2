import {
  combineTrials,
  compareSides,
  compareValues,
  computeDose,
  estimateLungeAngle,
  evaluateCriteria,
  type FindingAnswer,
  forecast,
  type ForecastInput,
  issue,
  judgePain,
  type Criterion,
  type DoseInput,
  type Episode,
  type Facts,
  type LoadInput,
  type LungeEstimateInput,
  type MeasureDefinition,
  ok,
  outsideAllowed,
  type PainInput,
  refused,
  reasonFromFindings,
  relativeLoad,
  type DoneRun,
  runRise,
  type Affected,
  repetitionMaximum,
  type RepetitionMaximumInput,
  type Result,
  reviewEpisode,
  withHeld,
} from '@heathstep/core';
import { type ContentBundle, contentReport, loadContent, type LoadResult } from '@heathstep/content';
import { motionOn, pressureOn } from './lab.js';
import { planOn } from './plan.js';
import { safetyOn } from './safety.js';
import { scheduleOn } from './schedule.js';
import { simulateOn } from './simulate.js';
import type { FunctionName } from './schemas.js';

type Input = Readonly<Record<string, unknown>>;

let loaded: LoadResult | null = null;

function content(): LoadResult {
  loaded ??= loadContent();
  return loaded;
}

function lookup(key: string): MeasureDefinition | undefined {
  const found = content();
  return found.ok ? found.content.measures.find((m) => m.key === key) : undefined;
}

/** Runs on a known measure with its readings inside what is possible; otherwise says which is not. */
function withMeasure(
  input: Input,
  readings: readonly string[],
  run: (measure: MeasureDefinition) => unknown,
): Result<unknown> {
  const measure = lookup(String(input['measure']));
  if (measure === undefined) {
    return refused(issue('measure', input['measure'], 'a measure key, listed by the function content'));
  }
  const problems = readings.flatMap((path) => {
    const value = input[path];
    const values: readonly unknown[] = Array.isArray(value) ? value : [value];
    return values.flatMap((v, i) =>
      typeof v === 'number' ? outsideAllowed(measure, v, Array.isArray(value) ? `${path}.${i}` : path) : [],
    );
  });
  return problems.length > 0 ? refused(...problems) : ok(run(measure));
}

/** Runs on the shipped content, when it has no problems. */
function withContent(run: (bundle: ContentBundle) => Result<unknown>): Result<unknown> {
  const found = content();
  if (!found.ok) return refused(issue('content', null, 'without problems, listed by the function content'));
  return run(found.content);
}

/** Ranks, drivers, stops and what to ask next, from a list of findings. */
function reasonOn(input: Input, bundle: ContentBundle): Result<unknown> {
  const reasoned = reasonFromFindings(bundle, {
    findings: input['findings'] as FindingAnswer[],
    ageYears: input['age'] as number | null,
    daysSinceOnset: input['daysSinceOnset'] as number | null,
  });
  if (!reasoned.ok) return reasoned;
  const { reasoning, safety } = reasoned.value;
  const open = safety.triggered.filter((t) => t.status === 'open');
  const told = (list: typeof open) =>
    list.map((t) => ({
      key: t.rule.key,
      side: t.side,
      level: t.rule.level,
      title: t.rule.title,
      action: t.rule.action,
      because: t.because,
    }));
  const serious = (level: string) => level === 'emergency' || level === 'urgent';
  return ok({
    conditions: reasoning.ranked.map((r) => ({
      key: r.key,
      side: r.side,
      rank: r.rank,
      weight: r.weight,
      for: r.for,
      against: r.against,
      missing: r.missing,
      keptBy: r.keptBy,
      shownAs: r.shownAs,
    })),
    cannotTell: reasoning.cannotTell,
    drivers: reasoning.drivers,
    stops: told(open.filter((t) => serious(t.rule.level))),
    cautions: told(open.filter((t) => !serious(t.rule.level))),
    tagsOff: withHeld(safety.tagsOff, reasoning.held),
    held: reasoning.held,
    referral: reasoning.referral,
    next: reasoning.next.slice(0, MOST_NEXT),
  });
}

const MOST_NEXT = 10;

/** Every function by name; the input has passed its schema. */
export const FUNCTIONS: Record<FunctionName, (input: Input) => Result<unknown>> = {
  'lunge-estimate': (i) => estimateLungeAngle(i as unknown as LungeEstimateInput),
  trials: (i) => withMeasure(i, ['values'], (m) => combineTrials(m, i['values'] as (number | null)[])),
  compare: (i) =>
    withMeasure(i, ['then', 'now'], (m) => compareValues(m, i['then'] as number, i['now'] as number)),
  symmetry: (i) =>
    withMeasure(i, ['left', 'right'], (m) =>
      compareSides(m, i['left'] as number, i['right'] as number, i['affected'] as Affected),
    ),
  dose: (i) => computeDose(i as unknown as DoseInput),
  load: (i) => relativeLoad(i as unknown as LoadInput),
  'run-rise': (i) => ok(runRise(i['minutes'] as number, i['runs'] as DoneRun[], i['today'] as string)),
  'repetition-maximum': (i) => repetitionMaximum(i as unknown as RepetitionMaximumInput),
  pain: (i) => judgePain(i as unknown as PainInput),
  criteria: (i) =>
    ok(evaluateCriteria(i['criteria'] as Criterion, i['facts'] as Facts, i['now'] as string, lookup)),
  review: (i) => ok(reviewEpisode(i['episode'] as Episode, lookup)),
  safety: (i) => withContent((c) => safetyOn(i, c)),
  plan: (i) => withContent((c) => planOn(i, c)),
  schedule: (i) => withContent((c) => scheduleOn(i, c)),
  reason: (i) => withContent((c) => reasonOn(i, c)),
  forecast: (i) => forecast(i as unknown as ForecastInput),
  simulate: (i) => withContent((c) => simulateOn(i, c)),
  pressure: (i) => pressureOn(i),
  motion: (i) => motionOn(i),
  content: () => ok(contentReport(content())),
};
