import {
  combineTrials,
  compareSides,
  compareValues,
  computeDose,
  estimateLungeAngle,
  evaluateCriteria,
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
  relativeLoad,
  type Affected,
  type Result,
  reviewEpisode,
} from '@heathstep/core';
import { contentReport, loadContent, type LoadResult } from '@heathstep/content';
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
  pain: (i) => judgePain(i as unknown as PainInput),
  criteria: (i) =>
    ok(evaluateCriteria(i['criteria'] as Criterion, i['facts'] as Facts, i['now'] as string, lookup)),
  review: (i) => ok(reviewEpisode(i['episode'] as Episode, lookup)),
  content: () => ok(contentReport(content())),
};
