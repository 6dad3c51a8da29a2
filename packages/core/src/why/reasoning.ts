import { say, sayKey } from '../quantity/tongue.js';
import type { AcuityResult } from '../reason/acuity.js';
import type { ConditionDefinition, DriverDefinition, FindingDefinition } from '../reason/definition.js';
import type { Driver } from '../reason/drivers.js';
import type { NextBest } from '../reason/next.js';
import { DEFENSIBLE, RANK_LIMITS, type Push, type RankedCondition } from '../reason/rank.js';
import type { ReferralReason } from '../reason/referral.js';
import { shown } from '../quantity/statistics.js';
import type { Why } from './why.js';

const onSide = (side: string): string => (side === 'none' ? '' : `, ${say(side)}`);

const pushText = (p: Push): string =>
  `${say(p.name)}: ${say(p.state)}${p.weak ? say(', within error') : ''}, x ${shown(p.ratio, 2)}`;

/** Opens up the rank of a condition, down to each ratio and its source. */
export function whyRank(c: ConditionDefinition, ranked: RankedCondition): Why {
  const pushes = [...ranked.for, ...ranked.against];
  return {
    statement: `${say(c.name)}${onSide(ranked.side)}: ${say(ranked.rank)}`,
    inputs: pushes.map((p) => ({
      name: `${say(p.name)}: ${say(p.state)}`,
      value: say('{{list}}. x {{ratio}}, {{share}} % of the push. {{source}}', {
        list: p.because.join('; '),
        ratio: shown(p.ratio, 2),
        share: shown(p.share * 100, 0),
        source: p.source,
      }),
    })),
    rule: say(
      'Starting odds times the ratio of each finding; of findings that say the same thing only the strongest counts; a value within its error counts no more than weakly; what tells the same spot, swelling or posture again counts for less. Leading: odds of {{leading}} or more, {{overNext}} times the next, from two findings at least. Likely from {{likely}}, possible from {{possible}}.{{words}}',
      {
        leading: RANK_LIMITS.leading,
        overNext: RANK_LIMITS.overNext,
        likely: RANK_LIMITS.likely,
        possible: RANK_LIMITS.possible,
        words: ranked.keptBy === null ? '' : say(' Kept in view by: {{keptBy}}.', { keptBy: ranked.keptBy }),
      },
    ),
    arithmetic: [
      say('starting odds {{startWeight}}: {{per100}} of 100 new patients, by age and time since it began', {
        startWeight: shown(ranked.startWeight, 3),
        per100: shown(c.per100, 1),
      }),
      ...pushes.map(pushText),
      ...(ranked.weight < ranked.raw
        ? [
            say('multiplied: odds {{raw}}, more than findings alone can carry; kept below {{most}}', {
              raw: shown(ranked.raw, 2),
              most: DEFENSIBLE.most,
            }),
          ]
        : []),
      say('odds {{weight}}, uncalibrated: an order, not a probability', { weight: shown(ranked.weight, 2) }),
      ...(ranked.held === null ? [] : [say('at most possible: {{held}}', { held: ranked.held })]),
    ],
    source: say(
      'Published ratios where named, not yet checked against the papers; all others graded convention',
    ),
    reviewKey: `condition:${c.key}`,
  };
}

/** Opens up what keeps it going. */
export function whyDriver(driver: Driver, definition: DriverDefinition): Why {
  return {
    statement: `${say(driver.label)}${onSide(driver.side)}: ${say(driver.strength)}`,
    inputs: driver.because.split('; ').map((value) => ({ name: say('Found'), value })),
    rule: say(
      '{{gloss}}. Clear when nothing it hangs on is within error and nothing that tells it apart is unknown; else possible.',
      { gloss: definition.gloss },
    ),
    arithmetic: [
      say('adds to a plan: {{adds}}', { adds: driver.adds }),
      ...(driver.waitsFor.length > 0
        ? [say('waits: safety switches off {{list}}', { list: driver.waitsFor.join(', ') })]
        : []),
    ],
    source: say('{{source}}, by the thresholds of the measures', { source: definition.evidence.source }),
    reviewKey: `driver:${definition.key}`,
  };
}

/** Opens up why a finding is worth asking next. */
export function whyNext(
  next: NextBest,
  finding: FindingDefinition,
  nameOf: (condition: string) => string,
): Why {
  const would = (list: NextBest['ifPresent']) =>
    list.length === 0
      ? say('changes little')
      : list.map((w) => `${nameOf(w.condition)} x ${shown(w.factor, 2)}`).join(', ');
  return {
    statement: say('{{name}}{{onSide}}: ask next', { name: finding.name, onSide: onSide(next.side) }),
    inputs: [
      { name: say('If present'), value: would(next.ifPresent) },
      { name: say('If absent'), value: would(next.ifAbsent) },
      { name: say('Takes'), value: say('{{minutes}} min', { minutes: shown(next.minutes, 1) }) },
    ],
    rule: say(
      'The unasked finding whose answer is worth most a minute: the expected fall of uncertainty over the leading conditions and what the first is easily taken for, raised for a danger still possible, for ideas that are treated differently, and for feeling, reflexes and strength where the picture asks for them. While an emergency or urgent sign is open only its own checks. What safety forbids, what is known and what a clear finding already says are left out.',
    ),
    arithmetic: [
      next.why,
      say('{{bits}} bits / {{minutes}} min = {{bitsPerMinute}} bits a minute, worth {{worth}}', {
        bits: shown(next.bits, 3),
        minutes: shown(next.minutes, 1),
        bitsPerMinute: shown(next.bitsPerMinute, 3),
        worth: shown(next.worth, 3),
      }),
    ],
    source: say(
      'Shannon entropy; how often a finding is present follows from its two ratios. Minutes are convention',
    ),
    reviewKey: `finding:${finding.key}`,
  };
}

/** Opens up why someone else should see it. */
export function whyReferral(reason: ReferralReason): Why {
  return {
    statement: say('{{name}}{{onSide}}: refer', { name: reason.name, onSide: onSide(reason.side) }),
    inputs: reason.because.map((value) => ({ name: say('Found'), value })),
    rule: reason.text,
    arithmetic: [],
    source: reason.source,
    reviewKey: `condition:${reason.condition}`,
  };
}

/** Opens up how fresh it is. */
export function whyAcuity(acuity: AcuityResult): Why {
  return {
    statement: say('Time course: {{level}}', { level: sayKey(acuity.level) }),
    inputs: [],
    rule: say('Acute up to 5 days, persistent from 42 days, settling between.'),
    arithmetic: [acuity.because],
    source: say('Clinical convention'),
    reviewKey: 'rule:acuity',
  };
}
