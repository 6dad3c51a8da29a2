import { say, sayKey } from '../quantity/tongue.js';
import { compareValues } from '../measure/compare.js';
import type { MeasureDefinition } from '../measure/definition.js';
import type { Computed } from '../measure/computed.js';
import { mdcBetween, semAt } from '../measure/error.js';
import { readThreshold, usualAtAge } from '../measure/thresholds.js';
import { unitAfter as unit } from '../measure/withUnit.js';
import { compareSides } from '../measure/symmetry.js';
import { combineTrials } from '../measure/trials.js';
import type { Affected } from '../quantity/side.js';
import { shown } from '../quantity/statistics.js';
import type { ExerciseDefinition } from '../exercise/definition.js';
import { toDoseInput, type Prescription } from '../plan/prescription.js';
import { computeDose } from '../dose/dose.js';
import type { TissueDefinition } from '../exercise/tissue.js';
import type { ExerciseLoad, LoadRise } from '../dose/loadRise.js';
import type { CriterionPart } from '../progress/criteriaTypes.js';
import type { PainSchool } from '../progress/painRule.js';
import { REVIEW_RULES, type ReviewResult } from '../progress/review.js';
import type { JudgedSession } from '../progress/sessions.js';
import type { IrritabilityResult } from '../reason/irritability.js';
import type { StartingStage } from '../reason/startingStage.js';
import type { TriggeredRule } from '../screen/safety.js';
import type { Why } from './why.js';

const sourceOf = (m: MeasureDefinition): string =>
  m.error === null
    ? say('{{source}}; the error of this measure is not known', { source: m.evidence.source })
    : say('Error: {{source}}. {{source2}}', { source: m.error.source, source2: m.evidence.source });

/** Opens up how trials became one value. */
export function whyTrials(m: MeasureDefinition, trials: readonly (number | null)[], simulated = false): Why {
  const result = combineTrials(m, trials);
  const taken = trials.filter((t): t is number => t !== null);
  const value = result.value === null ? say('no value') : `${shown(result.value, 2)}${unit(m)}`;
  return {
    statement: `${say(m.label)}: ${value}`,
    inputs: [
      ...taken.map((t, i) => ({ name: `Trial ${i + 1}`, value: `${t}${unit(m)}` })),
      ...(simulated ? [{ name: say('Taken with'), value: say('a simulated device: no measurement') }] : []),
    ],
    rule: say(
      'The {{how}} of the trials taken. A trial further from the middle of the others than the detectable change is flagged, and still counts.',
      { how: say(result.how) },
    ),
    arithmetic: [
      result.how === 'mean'
        ? `(${taken.join(' + ')}) / ${taken.length} = ${value}`
        : say('{{how}} of {{list}} = {{value}}', { how: say(result.how), list: taken.join(', '), value }),
      say('spread {{spread}}{{unit}}', { spread: shown(result.spread ?? 0, 2), unit: unit(m) }),
    ],
    source: sourceOf(m),
    reviewKey: `measure:${m.key}`,
  };
}

/** Opens up what a value says by the measure's own thresholds. */
export function whyThreshold(m: MeasureDefinition, value: number, ageYears: number | null): Why {
  const reading = readThreshold(m, value, ageYears);
  const sem = semAt(m, value);
  const usual = usualAtAge(m, ageYears);
  const told = m.thresholds.map((t) => `${t.op} ${t.value}${unit(m)}: ${say(t.meaning)}`);
  return {
    statement: `${say(m.label)} ${shown(value, 2)}${unit(m)}: ${say(reading?.meaning ?? 'no threshold is passed')}`,
    inputs: [
      { name: say('Value'), value: `${shown(value, 2)}${unit(m)}` },
      { name: say('Standard error'), value: sem === null ? say('not known') : `${shown(sem, 2)}${unit(m)}` },
      ...(usual === null ? [] : [{ name: say('Usual at this age'), value: `${usual}${unit(m)}` }]),
    ],
    rule: say(
      'The first threshold that holds. Clear when it is passed by at least the standard error; else within error: repeat.',
    ),
    arithmetic: told,
    source: reading?.source ?? m.evidence.source,
    reviewKey: `measure:${m.key}`,
  };
}

/** Opens up a value that was worked out from others. */
export function whyComputed(m: MeasureDefinition, computed: Computed): Why {
  return {
    statement:
      computed.value === null
        ? say('{{label}}: not known yet', { label: m.label })
        : `${say(m.label)}: ${shown(computed.value, m.decimals)}${unit(m)}`,
    inputs: computed.value === null ? computed.missing.map((n) => ({ name: n, value: say('missing') })) : [],
    rule: m.method.join('; '),
    arithmetic:
      computed.value === null ? [] : [`${computed.arithmetic} = ${shown(computed.value, 3)}${unit(m)}`],
    source: sourceOf(m),
    reviewKey: `measure:${m.key}`,
  };
}

/** Opens up a change between two visits. */
export function whyChange(m: MeasureDefinition, then: number, now: number): Why {
  const result = compareValues(m, then, now);
  const mdc = mdcBetween(m, then, now);
  return {
    statement: `${say(m.label)} ${result.direction === 'same' ? say('unchanged') : say(result.direction)}, ${sayKey(result.class)}`,
    inputs: [
      { name: say('Last time'), value: `${shown(then, 2)}${unit(m)}` },
      { name: say('Now'), value: `${shown(now, 2)}${unit(m)}` },
      {
        name: say('Detectable change'),
        value: mdc === null ? say('not known') : `${shown(mdc, 2)}${unit(m)}`,
      },
    ],
    rule: say(
      'Real from the detectable change (95 %), likely from 1.81 standard errors (80 %), else within error.',
    ),
    arithmetic: [
      `${shown(now, 2)} - ${shown(then, 2)} = ${shown(result.change, 2)}`,
      ...(mdc === null
        ? []
        : [
            say('standard error {{mdc}} / 2.77 = {{mdc2}}, likely from {{mdc3}}', {
              mdc: shown(mdc, 2),
              mdc2: shown(mdc / 2.77, 2),
              mdc3: shown((mdc / 2.77) * 1.81, 2),
            }),
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
      ? say('This measure has no side rule of its own.')
      : flag.kind === 'difference'
        ? say('Flagged when the sides are {{words}} {{value}}{{unit}} apart.', {
            words: flag.op === '>' ? say('more than') : say('at least'),
            value: flag.value,
            unit: unit(m),
          })
        : say('Flagged when the worse side is under {{below}} % of the better.', { below: flag.below });
  return {
    statement: say('{{label}}: {{difference}}{{unit}} between the sides', {
      label: m.label,
      difference: shown(result.difference, 2),
      unit: unit(m),
    }),
    inputs: [
      { name: say('Left'), value: `${shown(left, 2)}${unit(m)}` },
      { name: say('Right'), value: `${shown(right, 2)}${unit(m)}` },
    ],
    rule,
    arithmetic: [
      `|${shown(left, 2)} - ${shown(right, 2)}| = ${shown(result.difference, 2)}`,
      ...(result.symmetryPercent === null
        ? []
        : [
            say('worse / better = {{symmetryPercent}} %', {
              symmetryPercent: shown(result.symmetryPercent, 0),
            }),
          ]),
      ...(result.criteriaPercent === null
        ? [say('criteria: {{reason}}', { reason: result.reason ?? '' })]
        : [
            say('treated / other = {{criteriaPercent}} %', {
              criteriaPercent: shown(result.criteriaPercent, 0),
            }),
          ]),
    ],
    source:
      flag === null
        ? sourceOf(m)
        : say('Side rule: {{source}}. {{sourceOf}}', { source: flag.source, sourceOf: sourceOf(m) }),
    reviewKey: `measure:${m.key}`,
  };
}

/** Opens up the minutes of a prescription. */
export function whyDose(p: Prescription, exercise: ExerciseDefinition): Why {
  const input = toDoseInput(p, exercise);
  const result = computeDose(input);
  const rep =
    p.tempo === undefined
      ? say('{{holdSeconds}} s hold + {{releaseSeconds}} s release', {
          holdSeconds: p.holdSeconds ?? 0,
          releaseSeconds: p.releaseSeconds ?? 0,
        })
      : `${p.tempo.upSeconds} + ${p.tempo.topSeconds} + ${p.tempo.downSeconds} + ${p.tempo.bottomSeconds} s`;
  const seconds = result.ok ? result.value.exerciseSeconds : 0;
  return {
    statement: say('{{name}}: {{seconds}} minutes', { name: exercise.name, seconds: shown(seconds / 60) }),
    inputs: [
      { name: say('Sets'), value: String(p.sets) },
      { name: p.tempo === undefined ? say('Holds in a set') : say('Repetitions'), value: String(p.reps) },
      { name: say('One repetition'), value: rep },
      { name: say('Rest'), value: `${p.restSeconds} s` },
      { name: say('Set-up'), value: `${exercise.setupSeconds} s` },
      { name: say('Sides'), value: sayKey(p.sides) },
    ],
    rule:
      p.round === undefined
        ? say(
            'Set-up, then for each side sets of repetitions with rest between; no extra rest between sides.',
          )
        : say(
            'Set-up, then a set of each side in every round with a rest after it, the last one too: it leads to what comes next.',
          ),
    arithmetic: result.ok
      ? [
          say('one time through {{seconds}} s', { seconds: shown(seconds, 0) }),
          say('a day {{seconds}} x {{timesPerDay}} = {{daySeconds}} s', {
            seconds: shown(seconds, 0),
            timesPerDay: p.timesPerDay,
            daySeconds: shown(result.value.daySeconds, 0),
          }),
          say('a week x {{daysPerWeek}} = {{weekSeconds}} min', {
            daysPerWeek: p.daysPerWeek,
            weekSeconds: shown(result.value.weekSeconds / 60),
          }),
        ]
      : result.issues.map((i) => say('{{path}} must be {{bound}}', { path: i.path, bound: i.bound })),
    source: say('{{source}}. The sums are arithmetic.', { source: exercise.evidence.source }),
    reviewKey: `exercise:${exercise.key}`,
  };
}

const CONVENTION = 'Convention of this application';

/** Opens up one criterion. */
export function whyCriterion(part: CriterionPart): Why {
  return {
    statement: `${part.text}: ${sayKey(part.state)}`,
    inputs: [{ name: say('What stands'), value: part.because }],
    rule: say(
      'Met when the limit is passed by at least the error of the measurement; passed by less is met within error, and counts once it is met on another day too. A missing or too old value is not known, never met. "n days" are the last n logged days within the last 2n.',
    ),
    arithmetic: [part.because],
    source: say('Criteria of the protocol; errors of the measures'),
    reviewKey: 'rule:criteria',
  };
}

/** Opens up a review suggestion. */
export function whyReview(review: ReviewResult): Why {
  return {
    statement: say('{{decision}}, by rule {{rule}} of {{n}}', {
      decision: sayKey(review.decision),
      rule: review.rule,
      n: REVIEW_RULES.length,
    }),
    inputs: (review.criteria?.parts ?? []).map((p) => ({
      name: p.text,
      value: `${p.spare === true ? say('not needed, another way is met') : sayKey(p.state)}: ${p.because}`,
    })),
    rule: say('First match wins: {{list}}.', {
      list: REVIEW_RULES.map((says, i) => `${i + 1} ${say(says)}`).join('; '),
    }),
    arithmetic: review.because,
    source: CONVENTION,
    reviewKey: 'rule:review',
  };
}

/** Opens up the irritability. */
export function whyIrritability(result: IrritabilityResult): Why {
  return {
    statement: say('Irritability {{level}}', { level: sayKey(result.level) }),
    inputs: result.missing.map((m) => ({ name: m, value: say('not asked yet') })),
    rule: say(
      'High when two of: worst pain 7 or more, provoked within 5 minutes, lasting over 2 hours, night pain. Low when worst is 3 or less, settled within 30 minutes, no night pain. Else moderate. First steps alone do not count as provoked within 5 minutes.',
    ),
    arithmetic: result.because,
    source: CONVENTION,
    reviewKey: 'rule:irritability',
  };
}

/** Opens up the starting stage. */
export function whyStage(start: StartingStage): Why {
  return {
    statement: say('Start in {{name}}', {
      name: start.entries.find((e) => e.stage === start.stage)?.name ?? start.stage,
    }),
    inputs: start.entries.flatMap((e) =>
      e.parts.map((p) => ({
        name: `${say(e.name)}: ${p.text}`,
        value: `${sayKey(p.state)}, ${p.because}`,
      })),
    ),
    rule: say(
      'The highest stage whose entry criteria all hold; one lower when highly irritable, one lower in the first days; the second at most when a single rise is not possible; the first when the foot cannot take weight.',
    ),
    arithmetic: start.because,
    source: CONVENTION,
    reviewKey: 'rule:starting-stage',
  };
}

/** Opens up the state of one logged session. */
export function whySession(session: JudgedSession, school: PainSchool): Why {
  return {
    statement: `${session.day}: ${sayKey(session.state)}`,
    inputs: [
      { name: say('Before'), value: String(session.before) },
      { name: say('During'), value: String(session.during) },
      { name: say('After'), value: String(session.after) },
      { name: say('An hour later 2 or more above'), value: session.hourAbove ? say('yes') : say('no') },
      {
        name: say('Next morning'),
        value: session.nextMorning === null ? say('not answered') : String(session.nextMorning),
      },
      {
        name: say('Usual morning'),
        value: session.morningBaseline === null ? say('not known yet') : String(session.morningBaseline),
      },
    ],
    rule:
      school === 'comfort'
        ? say(
            'Comfort: red from a rise of 2, from 4 with a rise of 1, or a morning 2 above usual; amber from 3, a rise of 1, or a morning 1 above usual.',
          )
        : say(
            'Next morning: red above 5, an hour later still 2 above before, or a morning 2 above usual; amber at 4 or 5, or a morning 1 above usual. Without a next morning it is not known, never green.',
          ),
    arithmetic: session.because,
    source: CONVENTION,
    reviewKey: 'rule:pain',
  };
}

/** Opens up what a safety answer switched off. */
export function whySafety(triggered: TriggeredRule): Why {
  const { rule } = triggered;
  return {
    statement: `${say(rule.title)}: ${say(rule.level)}`,
    inputs: triggered.because.map((value) => ({ name: say('Answered'), value })),
    rule: rule.evidence.statement,
    arithmetic: [
      rule.off === 'everything'
        ? say('blocks everything')
        : rule.off.length === 0
          ? say('switches nothing off')
          : say('switches off {{list}}', { list: rule.off.join(', ') }),
      rule.action,
    ],
    source: rule.evidence.source,
    reviewKey: `safety:${rule.key}`,
  };
}

/** The coming week's load of one tissue and the one done, by exercise; `leftOut` names those without an estimate. */
export interface WeekOfLoad {
  readonly rise: LoadRise;
  readonly coming: readonly ExerciseLoad[];
  /** Of the coming week, asked for by plans for the person's other complaints. */
  readonly elsewhere: number;
  readonly leftOut: readonly string[];
}

/** Opens up the week's load of a tissue against the week before. */
export function whyLoad(
  tissue: Pick<TissueDefinition, 'name' | 'unit' | 'source'>,
  { rise, coming, elsewhere, leftOut }: WeekOfLoad,
  limitPercent: number,
): Why {
  const total = (loads: readonly ExerciseLoad[]) => loads.reduce((sum, l) => sum + l.load, 0);
  return {
    statement:
      rise.percent === null
        ? say('{{name}}: no comparison, {{reason}}', { name: tissue.name, reason: rise.reason ?? '' })
        : say('{{name}} {{words}}{{percent}} % on the last 7 days', {
            name: tissue.name,
            words: rise.percent >= 0 ? '+' : '',
            percent: shown(rise.percent, 0),
          }),
    inputs: [
      ...coming.map((l) => ({ name: `Coming week, ${l.exercise}`, value: shown(l.load, 0) })),
      ...(elsewhere > 0
        ? [{ name: say('Plan of the other complaint, a week'), value: shown(elsewhere, 0) }]
        : []),
      ...leftOut.map((name) => ({ name: name, value: say('no load estimate, left out') })),
    ],
    rule: say(
      'Load = {{unit}} x seconds under tension, summed over the week on the treated side. A rise above {{limitPercent}} % over what was done in the last 7 days warns. Relative, never a safe limit.',
      { unit: tissue.unit, limitPercent },
    ),
    arithmetic: [
      say('coming week {{total}}, last 7 days done {{before}}{{words}}', {
        total: shown(total(coming) + elsewhere, 0),
        before: shown(rise.before, 0),
        words:
          elsewhere > 0
            ? say(', both with {{elsewhere}} for the other complaint', { elsewhere: shown(elsewhere, 0) })
            : '',
      }),
    ],
    source: say('{{source}}; the limit is convention', { source: tissue.source }),
    reviewKey: 'rule:load',
  };
}

/** Opens up the minutes of a plan's days. */
export function whyMinutes(
  lines: readonly { readonly name: string; readonly daySeconds: number; readonly daysPerWeek: number }[],
): Why {
  const week = lines.reduce((sum, l) => sum + l.daySeconds * l.daysPerWeek, 0);
  return {
    statement: say('{{week}} minutes a week', { week: shown(week / 60, 0) }),
    inputs: lines.map((l) => ({
      name: l.name,
      value: say('{{daySeconds}} min on {{daysPerWeek}} days', {
        daySeconds: shown(l.daySeconds / 60),
        daysPerWeek: l.daysPerWeek,
      }),
    })),
    rule: say(
      'Each exercise counts on the days it falls due, spread evenly over the week: 3 a week on Monday, Thursday and Saturday.',
    ),
    arithmetic: [
      say('{{list}} = {{week}} min', {
        list: lines.map((l) => `${shown(l.daySeconds / 60)} x ${l.daysPerWeek}`).join(' + '),
        week: shown(week / 60, 0),
      }),
    ],
    source: say('Arithmetic of the doses'),
    reviewKey: null,
  };
}
