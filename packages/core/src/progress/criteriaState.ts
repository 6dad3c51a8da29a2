import { say } from '../quantity/tongue.js';
import type { MeasureLookup } from './criteria.js';
import { addDays, daysBetween, dayOf, type DayText, instantOf } from '../quantity/day.js';
import { atLeast, shown } from '../quantity/statistics.js';
import { treatedSides, type Side } from '../quantity/side.js';
import { gain } from '../measure/direction.js';
import { semAt } from '../measure/error.js';
import { unitAfter } from '../measure/withUnit.js';
import type { WeightBearing } from '../screen/limits.js';
import { leafText } from './criterionText.js';
import { measureLeaf } from './criteriaMeasures.js';
import type { CriterionLeaf, CriterionPart, CriterionState, Facts, SinceWhat } from './criteriaTypes.js';

type Leaf<K extends string> = Extract<CriterionLeaf, Record<K, unknown>>;

/** A criterion that names no measure, in words. */
const said = (leaf: CriterionLeaf, facts: Facts): string => leafText(leaf, facts, () => undefined);

/** The day something happened to a treated side; the later where both sides have one. Null when nobody said. */
function dayOfWhat(what: SinceWhat, facts: Facts): DayText | null {
  if (what === 'injury') return facts.injuredOn ?? null;
  const days = treatedSides(facts.affected).flatMap((side) => {
    const limits = facts.limits?.[side];
    return limits?.what === what ? [limits.day] : [];
  });
  return days.sort().at(-1) ?? null;
}

/** So many days since an injury, surgery, the end of a cast or a fracture. */
export function daysSinceLeaf(leaf: Leaf<'daysSince'>, facts: Facts, today: DayText): CriterionPart {
  const text = said(leaf, facts);
  const day = dayOfWhat(leaf.daysSince, facts);
  if (day === null) return { text, state: 'not-known', because: say('its day is not known') };
  const days = daysBetween(day, today);
  return { text, state: days >= leaf.min ? 'met' : 'not-met', because: say('{{days}} days since', { days }) };
}

const BEARS: readonly WeightBearing[] = ['none', 'partial', 'full'];

/** Weight-bearing as it was allowed. Where nobody said, it is not known: silence is no permission. */
export function statusLeaf(leaf: Leaf<'status'>, facts: Facts): CriterionPart {
  const text = said(leaf, facts);
  const sides = treatedSides(facts.affected);
  const allowed = sides.map((side) => facts.limits?.[side]);
  if (sides.length === 0 || allowed.some((l) => l === undefined))
    return { text, state: 'not-known', because: say('nobody has said what is allowed') };
  const low = allowed.find(
    (l) => l !== undefined && BEARS.indexOf(l.weightBearing) < BEARS.indexOf(leaf.atLeast),
  );
  return low === undefined
    ? {
        text,
        state: 'met',
        because: allowed.map((l) => `${l?.weightBearing ?? ''}, ${l?.by ?? ''}`).join('; '),
      }
    : { text, state: 'not-met', because: `${low.weightBearing}, ${low.by}` };
}

/** Walks without a limp on the treated side. */
export const noLimpLeaf = (facts: Facts, today: DayText, lookup: MeasureLookup): CriterionPart => ({
  ...measureLeaf({ measure: LIMP, side: 'treated', op: '<=', value: 0 }, facts, today, lookup),
  text: said({ noLimp: true }, facts),
});

/** The one measure that a leaf names by itself. */
export const LIMP = 'limp';

const countOf = (answer: number | boolean | null | undefined): number | null =>
  typeof answer === 'boolean' ? (answer ? 1 : 0) : (answer ?? null);

/** None, or few, of something happened although the person exposed themselves: both are questions of the home log. */
export function eventsLeaf(leaf: Leaf<'events'>, facts: Facts, today: DayText): CriterionPart {
  const nameOf = (key: string) => say(facts.questions?.[key]?.name ?? key.replaceAll('-', ' '));
  const text = said(leaf, facts);
  const from = addDays(today, -leaf.days);
  const within = facts.sessions.filter((s) => dayOf(s.at) > from && dayOf(s.at) <= today);
  const sum = (key: string) => {
    const counts = within.flatMap((s) => countOf(s.answers?.[key]) ?? []);
    return { total: counts.reduce((a, b) => a + b, 0), answered: counts.length };
  };
  const [events, exposed] = [sum(leaf.events), sum(leaf.exposure.what)];
  const because = say('{{nameOf}} {{total}}, {{nameOf2}} {{total2}} in {{days}} days', {
    nameOf: nameOf(leaf.events),
    total: events.total,
    nameOf2: nameOf(leaf.exposure.what),
    total2: exposed.total,
    days: leaf.days,
  });
  if (events.total > leaf.max) return { text, state: 'not-met', because };
  if (events.answered === 0 || exposed.total < leaf.exposure.min)
    return { text, state: 'not-known', because: say('{{because}}: too little to tell', { because }) };
  return { text, state: 'met', because };
}

/** A total has changed for the better by its important difference since it was first taken. */
export function outcomeLeaf(
  leaf: Leaf<'outcome'>,
  facts: Facts,
  today: DayText,
  lookup: MeasureLookup,
): CriterionPart {
  const measure = lookup(leaf.outcome);
  if (measure === undefined)
    return {
      text: leaf.outcome,
      state: 'not-known',
      because: say('there is no measure {{outcome}}', { outcome: leaf.outcome }),
    };
  const unit = unitAfter(measure);
  const text = leafText(leaf, facts, lookup);
  const sides: readonly (Side | 'none')[] =
    measure.sides === 'single' ? ['none'] : treatedSides(facts.affected);
  const judged = sides.map((side): { state: CriterionState; because: string } => {
    const taken = facts.measures
      .filter((m) => m.measure === measure.key && m.side === side && m.value !== null && dayOf(m.at) <= today)
      .sort((a, b) => instantOf(a.at) - instantOf(b.at));
    const [first, last] = [taken[0], taken.at(-1)];
    if (first === undefined || last === undefined || dayOf(first.at) === dayOf(last.at))
      return {
        state: 'not-known',
        because: say('{{label}}: taken on {{words}}', {
          label: measure.label,
          words: taken.length === 0 ? say('no day') : say('one day only'),
        }),
      };
    const change = gain(measure, first.value ?? 0, last.value ?? 0);
    const error = semAt(measure, last.value ?? 0);
    const because = say('{{value}} to {{value2}}{{unit}}', {
      value: shown(first.value ?? 0),
      value2: shown(last.value ?? 0),
      unit,
    });
    if (!atLeast(change, leaf.gain)) return { state: 'not-met', because };
    const sure = error !== null && atLeast(change - leaf.gain, error * Math.SQRT2);
    return { state: sure ? 'met' : 'met-within-error', because };
  });
  const order: readonly CriterionState[] = ['not-met', 'not-known', 'met-within-error', 'met'];
  const state = order.find((s) => judged.some((j) => j.state === s)) ?? 'not-known';
  return { text, state, because: judged.map((j) => j.because).join('; ') };
}

/** Impact really done in the last 7 days, and what it hurt. */
export function impactLeaf(leaf: Leaf<'impact'>, facts: Facts, today: DayText): CriterionPart {
  const what = leaf.impact === 'contacts' ? say('landings') : say('minutes of running');
  const text = said(leaf, facts);
  const from = addDays(today, -7);
  const done = (facts.impactDone ?? []).filter((d) => d.day > from && d.day <= today);
  const total = done.reduce((sum, d) => sum + (leaf.impact === 'contacts' ? d.contacts : d.runMinutes), 0);
  const because = say('{{total}} {{what}} in the last 7 days', { total: shown(total), what });
  if (done.some((d) => d.pain !== null && d.pain > leaf.maxPain))
    return {
      text,
      state: 'not-met',
      because: say('{{because}}, pain up to {{max}}', {
        because,
        max: Math.max(...done.map((d) => d.pain ?? 0)),
      }),
    };
  if (total < leaf.min) return { text, state: 'not-met', because };
  return done.some((d) => d.pain === null)
    ? { text, state: 'not-known', because: say('{{because}}, pain not told', { because }) }
    : { text, state: 'met', because };
}
