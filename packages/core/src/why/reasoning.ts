import type { AcuityResult } from '../reason/acuity.js';
import type { ConditionDefinition, DriverDefinition, FindingDefinition } from '../reason/definition.js';
import type { Driver } from '../reason/drivers.js';
import type { NextBest } from '../reason/next.js';
import { DEFENSIBLE, RANK_LIMITS, type Push, type RankedCondition } from '../reason/rank.js';
import type { ReferralReason } from '../reason/referral.js';
import { shown } from '../quantity/statistics.js';
import type { Why } from './why.js';

const onSide = (side: string): string => (side === 'none' ? '' : `, ${side}`);

const pushText = (p: Push): string =>
  `${p.name}: ${p.state}${p.weak ? ', within error' : ''}, x ${shown(p.ratio, 2)}`;

/** Opens up the rank of a condition, down to each ratio and its source. */
export function whyRank(c: ConditionDefinition, ranked: RankedCondition): Why {
  const pushes = [...ranked.for, ...ranked.against];
  return {
    statement: `${c.name}${onSide(ranked.side)}: ${ranked.rank}`,
    inputs: pushes.map((p) => ({
      name: `${p.name}: ${p.state}`,
      value: `${p.because.join('; ')}. x ${shown(p.ratio, 2)}, ${shown(p.share * 100, 0)} % of the push. ${p.source}`,
    })),
    rule: `Starting odds times the ratio of each finding; of findings that say the same thing only the strongest counts; a value within its error counts no more than weakly; what tells the same spot, swelling or posture again counts for less. Leading: odds of ${RANK_LIMITS.leading} or more, ${RANK_LIMITS.overNext} times the next, from two findings at least. Likely from ${RANK_LIMITS.likely}, possible from ${RANK_LIMITS.possible}.${ranked.keptBy === null ? '' : ` Kept in view by: ${ranked.keptBy}.`}`,
    arithmetic: [
      `starting odds ${shown(ranked.startWeight, 3)}: ${shown(c.per100, 1)} of 100 new patients, by age and time since it began`,
      ...pushes.map(pushText),
      ...(ranked.weight < ranked.raw
        ? [
            `multiplied: odds ${shown(ranked.raw, 2)}, more than findings alone can carry; kept below ${DEFENSIBLE.most}`,
          ]
        : []),
      `odds ${shown(ranked.weight, 2)}, uncalibrated: an order, not a probability`,
      ...(ranked.held === null ? [] : [`at most possible: ${ranked.held}`]),
    ],
    source: 'Published ratios where named, not yet checked against the papers; all others graded convention',
    reviewKey: `condition:${c.key}`,
  };
}

/** Opens up what keeps it going. */
export function whyDriver(driver: Driver, definition: DriverDefinition): Why {
  return {
    statement: `${driver.label}${onSide(driver.side)}: ${driver.strength}`,
    inputs: driver.because.split('; ').map((value) => ({ name: 'Found', value })),
    rule: `${definition.gloss}. Clear when nothing it hangs on is within error and nothing that tells it apart is unknown; else possible.`,
    arithmetic: [
      `adds to a plan: ${driver.adds}`,
      ...(driver.waitsFor.length > 0 ? [`waits: safety switches off ${driver.waitsFor.join(', ')}`] : []),
    ],
    source: `${definition.evidence.source}, by the thresholds of the measures`,
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
      ? 'changes little'
      : list.map((w) => `${nameOf(w.condition)} x ${shown(w.factor, 2)}`).join(', ');
  return {
    statement: `${finding.name}${onSide(next.side)}: ask next`,
    inputs: [
      { name: 'If present', value: would(next.ifPresent) },
      { name: 'If absent', value: would(next.ifAbsent) },
      { name: 'Takes', value: `${shown(next.minutes, 1)} min` },
    ],
    rule: 'The unasked finding whose answer is worth most a minute: the expected fall of uncertainty over the leading conditions and what the first is easily taken for, raised for a danger still possible, for ideas that are treated differently, and for feeling, reflexes and strength where the picture asks for them. While an emergency or urgent sign is open only its own checks. What safety forbids, what is known and what a clear finding already says are left out.',
    arithmetic: [
      next.why,
      `${shown(next.bits, 3)} bits / ${shown(next.minutes, 1)} min = ${shown(next.bitsPerMinute, 3)} bits a minute, worth ${shown(next.worth, 3)}`,
    ],
    source:
      'Shannon entropy; how often a finding is present follows from its two ratios. Minutes are convention',
    reviewKey: `finding:${finding.key}`,
  };
}

/** Opens up why someone else should see it. */
export function whyReferral(reason: ReferralReason): Why {
  return {
    statement: `${reason.name}${onSide(reason.side)}: refer`,
    inputs: reason.because.map((value) => ({ name: 'Found', value })),
    rule: reason.text,
    arithmetic: [],
    source: reason.source,
    reviewKey: `condition:${reason.condition}`,
  };
}

/** Opens up how fresh it is. */
export function whyAcuity(acuity: AcuityResult): Why {
  return {
    statement: `Time course: ${acuity.level.replaceAll('-', ' ')}`,
    inputs: [],
    rule: 'Acute up to 5 days, persistent from 42 days, settling between.',
    arithmetic: [acuity.because],
    source: 'Clinical convention',
    reviewKey: 'rule:acuity',
  };
}
