import { type Criterion, type CriterionLeaf, type MeasureDefinition, SINCE_WHAT, say } from '@heathstep/core';

/** How parts are joined: all of them, one of them, or so many of them. */
export type Joined = 'all' | 'any' | 'some';

export interface Group {
  readonly joined: Joined;
  readonly parts: readonly Criterion[];
  /** How many of them, where it is `some`. */
  readonly atLeast: number;
}

/** A criterion as a group; null for one thing asked. */
export function groupOf(c: Criterion): Group | null {
  if ('all' in c) return { joined: 'all', parts: c.all, atLeast: c.all.length };
  if ('any' in c) return { joined: 'any', parts: c.any, atLeast: 1 };
  if ('of' in c) return { joined: 'some', parts: c.of, atLeast: c.atLeast };
  return null;
}

/** A group as it is written. Of so many parts never more are asked for than there are. */
export function criterionOf({ joined, parts, atLeast }: Group): Criterion {
  if (joined === 'all') return { all: parts };
  if (joined === 'any') return { any: parts };
  return { atLeast: Math.max(1, Math.min(atLeast, parts.length)), of: parts };
}

/** A group with other parts; nothing where none is left. */
export const withParts = (group: Group, parts: readonly Criterion[]): Criterion | null =>
  parts.length === 0 ? null : criterionOf({ ...group, parts });

/** The parts with one changed, or taken out where it came to nothing. */
export const partChanged = (
  parts: readonly Criterion[],
  at: number,
  next: Criterion | null,
): readonly Criterion[] => parts.flatMap((p, i) => (i !== at ? [p] : next === null ? [] : [next]));

/** One thing asked as the first of several of which one is enough. */
export const alternatives = (leaf: Criterion): Criterion => ({ any: [leaf] });

/** What a block needs chosen before it can be added. */
type Needs = 'measure' | 'question' | 'two questions' | 'skill' | null;

/** What is known of the measure a block is made for. */
type MeasureEnds = Pick<MeasureDefinition, 'allowed' | 'direction'>;

/**
 * One kind of thing that can be asked for, to begin with usual numbers. Where none is usual it begins with the hardest a
 * measure can give, so that nobody passes by a number that was forgotten.
 */
export interface Block {
  readonly key: string;
  readonly name: string;
  readonly needs: Needs;
  readonly make: (chosen: string, measure?: MeasureEnds, beside?: string) => CriterionLeaf;
}

const block = (key: string, name: string, needs: Needs, make: Block['make']): Block => ({
  key,
  name,
  needs,
  make,
});

const highest = (m: MeasureEnds | undefined): number => m?.allowed.max ?? 100;
const lowest = (m: MeasureEnds | undefined): number => m?.allowed.min ?? 0;

/** Everything that can be asked for. */
export const BLOCKS: readonly Block[] = [
  block('value', say('a measure, treated side'), 'measure', (measure, m) => ({
    measure,
    side: 'treated',
    op: '>=',
    value: highest(m),
  })),
  block('value-less', say('a measure, treated side, at most'), 'measure', (measure, m) => ({
    measure,
    side: 'treated',
    op: '<=',
    value: lowest(m),
  })),
  block('symmetry', say('a measure, share of the other side'), 'measure', (measure) => ({
    symmetry: measure,
    min: 90,
  })),
  block('less', say('a measure, not more than so much less than the other'), 'measure', (measure, m) => ({
    lessThanOther: measure,
    max: 5,
    bothSides: m?.direction === 'less' ? { op: '<=', value: lowest(m) } : { op: '>=', value: highest(m) },
  })),
  block('difference', say('a measure, difference of the sides'), 'measure', (measure) => ({
    sideDifference: measure,
    max: 5,
  })),
  block('age', say('a measure for the age'), 'measure', (measure) => ({
    atLeastForAge: measure,
    share: 0.8,
  })),
  block('outcome', say('a total, gained since the first'), 'measure', (outcome) => ({ outcome, gain: 8 })),
  block('first-step', say('pain of the morning'), null, () => ({ pain: 'first-step', max: 3, days: 5 })),
  block('during', say('pain while exercising'), null, () => ({ pain: 'during', max: 3, days: 5 })),
  block('morning', say('pain the next morning'), null, () => ({ pain: 'next-morning', max: 3, days: 5 })),
  block('worst', say('worst pain of the day'), null, () => ({ pain: 'worst-of-day', max: 3, days: 5 })),
  block('answer', say('an answer of the home log, at most'), 'question', (answer) => ({
    answer,
    op: '<=',
    value: 0,
    days: 7,
  })),
  block(
    'events',
    say('something that did not happen, though it could have'),
    'two questions',
    (events, _, what) => ({
      events,
      max: 0,
      days: 28,
      exposure: { what: what ?? '', min: 8 },
    }),
  ),
  block('no-red', say('no red session'), null, () => ({ noRed: { days: 7, atLeast: 3 } })),
  block('adherence', say('sessions done'), null, () => ({ adherence: { min: 70, days: 14 } })),
  block('skill', say('a skill learned'), 'skill', (skill) => ({ skill, state: 'learned' })),
  block('days', say('days in this stage'), null, () => ({ minDays: 14 })),
  ...SINCE_WHAT.map((what) =>
    block(`since-${what}`, say('days since {{what}}', { what: say(what) }), null, () => ({
      daysSince: what,
      min: 42,
    })),
  ),
  block('no-limp', say('no limp'), null, () => ({ noLimp: true })),
  block('weight', say('full weight allowed'), null, () => ({ status: 'weight-bearing', atLeast: 'full' })),
  block('landings', say('landings done in a week'), null, () => ({
    impact: 'contacts',
    min: 60,
    maxPain: 2,
  })),
  block('running', say('minutes run in a week'), null, () => ({
    impact: 'run-minutes',
    min: 30,
    maxPain: 2,
  })),
];
