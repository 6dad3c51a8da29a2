import { compareValues } from '../measure/compare.js';
import type { MeasureDefinition } from '../measure/definition.js';
import { mdcBetween } from '../measure/error.js';
import { compareSides } from '../measure/symmetry.js';
import { combineTrials } from '../measure/trials.js';
import type { Affected } from '../quantity/side.js';
import { shown } from '../quantity/statistics.js';
import type { ExerciseDefinition } from '../exercise/definition.js';
import { toDoseInput, type Prescription } from '../plan/prescription.js';
import { computeDose } from '../dose/dose.js';
import type { Why } from './why.js';

const unit = (m: MeasureDefinition): string => (m.unitLabel === '' ? '' : ` ${m.unitLabel}`);

const sourceOf = (m: MeasureDefinition): string =>
  m.error === null
    ? `${m.evidence.source}; the error of this measure is not known`
    : `Error: ${m.error.source}. ${m.evidence.source}`;

/** Opens up how trials became one value. */
export function whyTrials(m: MeasureDefinition, trials: readonly (number | null)[]): Why {
  const result = combineTrials(m, trials);
  const taken = trials.filter((t): t is number => t !== null);
  const value = result.value === null ? 'no value' : `${shown(result.value, 2)}${unit(m)}`;
  return {
    statement: `${m.label}: ${value}`,
    inputs: taken.map((t, i) => ({ name: `Trial ${i + 1}`, value: `${t}${unit(m)}` })),
    rule: `The ${result.how} of the trials taken. A trial further from the middle of the others than the detectable change is flagged, and still counts.`,
    arithmetic: [
      result.how === 'mean'
        ? `(${taken.join(' + ')}) / ${taken.length} = ${value}`
        : `${result.how} of ${taken.join(', ')} = ${value}`,
      `spread ${shown(result.spread ?? 0, 2)}${unit(m)}`,
    ],
    source: sourceOf(m),
    reviewKey: `measure:${m.key}`,
  };
}

/** Opens up a change between two visits. */
export function whyChange(m: MeasureDefinition, then: number, now: number): Why {
  const result = compareValues(m, then, now);
  const mdc = mdcBetween(m, then, now);
  return {
    statement: `${m.label} ${result.direction === 'same' ? 'unchanged' : result.direction}, ${result.class.replaceAll('-', ' ')}`,
    inputs: [
      { name: 'Last time', value: `${shown(then, 2)}${unit(m)}` },
      { name: 'Now', value: `${shown(now, 2)}${unit(m)}` },
      { name: 'Detectable change', value: mdc === null ? 'not known' : `${shown(mdc, 2)}${unit(m)}` },
    ],
    rule: 'Real from the detectable change (95 %), likely from 1.81 standard errors (80 %), else within error.',
    arithmetic: [
      `${shown(now, 2)} - ${shown(then, 2)} = ${shown(result.change, 2)}`,
      ...(mdc === null
        ? []
        : [
            `standard error ${shown(mdc, 2)} / 2.77 = ${shown(mdc / 2.77, 2)}, likely from ${shown((mdc / 2.77) * 1.81, 2)}`,
          ]),
    ],
    source: sourceOf(m),
    reviewKey: `measure:${m.key}`,
  };
}

/** Opens up a comparison of sides. */
export function whySides(m: MeasureDefinition, left: number, right: number, affected: Affected): Why {
  const result = compareSides(m, left, right, affected);
  const flag = m.sideFlag;
  const rule =
    flag === null
      ? 'This measure has no side rule of its own.'
      : flag.kind === 'difference'
        ? `Flagged when the sides are ${flag.op === '>' ? 'more than' : 'at least'} ${flag.value}${unit(m)} apart.`
        : `Flagged when the worse side is under ${flag.below} % of the better.`;
  return {
    statement: `${m.label}: ${shown(result.difference, 2)}${unit(m)} between the sides`,
    inputs: [
      { name: 'Left', value: `${shown(left, 2)}${unit(m)}` },
      { name: 'Right', value: `${shown(right, 2)}${unit(m)}` },
    ],
    rule,
    arithmetic: [
      `|${shown(left, 2)} - ${shown(right, 2)}| = ${shown(result.difference, 2)}`,
      ...(result.symmetryPercent === null ? [] : [`worse / better = ${shown(result.symmetryPercent, 0)} %`]),
      ...(result.criteriaPercent === null
        ? [`criteria: ${result.reason ?? ''}`]
        : [`treated / other = ${shown(result.criteriaPercent, 0)} %`]),
    ],
    source: flag === null ? sourceOf(m) : `Side rule: ${flag.source}. ${sourceOf(m)}`,
    reviewKey: `measure:${m.key}`,
  };
}

/** Opens up the minutes of a prescription. */
export function whyDose(p: Prescription, exercise: ExerciseDefinition): Why {
  const input = toDoseInput(p, exercise);
  const result = computeDose(input);
  const rep =
    p.tempo === undefined
      ? `${p.holdSeconds ?? 0} s hold + ${p.releaseSeconds ?? 0} s release`
      : `${p.tempo.upSeconds} + ${p.tempo.topSeconds} + ${p.tempo.downSeconds} + ${p.tempo.bottomSeconds} s`;
  const seconds = result.ok ? result.value.exerciseSeconds : 0;
  return {
    statement: `${exercise.name}: ${shown(seconds / 60)} minutes`,
    inputs: [
      { name: 'Sets', value: String(p.sets) },
      { name: p.tempo === undefined ? 'Holds in a set' : 'Repetitions', value: String(p.reps) },
      { name: 'One repetition', value: rep },
      { name: 'Rest', value: `${p.restSeconds} s` },
      { name: 'Set-up', value: `${exercise.setupSeconds} s` },
      { name: 'Sides', value: p.sides.replaceAll('-', ' ') },
    ],
    rule: 'Set-up, then for each side sets of repetitions with rest between; no extra rest between sides.',
    arithmetic: result.ok
      ? [
          `one time through ${shown(seconds, 0)} s`,
          `a day ${shown(seconds, 0)} x ${p.timesPerDay} = ${shown(result.value.daySeconds, 0)} s`,
          `a week x ${p.daysPerWeek} = ${shown(result.value.weekSeconds / 60)} min`,
        ]
      : result.issues.map((i) => `${i.path} must be ${i.bound}`),
    source: `${exercise.evidence.source}. The sums are arithmetic.`,
    reviewKey: `exercise:${exercise.key}`,
  };
}
