import { addDays, daysBetween, type DayText } from '../quantity/day.js';
import type { SimulatedEpisode } from './episode.js';

/** A session is quiet where nothing of these days loaded more than so much of what is tolerated. */
const AFTER_LOAD_DAYS = 5;
const TOLERATED = 0.85;
/** A flare counts as caught by a red of a session so soon. */
const CAUGHT_WITHIN_DAYS = 3;

/** What came of made-up people, as sums that add up over any number of them. */
export interface Tally {
  readonly people: number;
  readonly days: number;
  readonly judged: number;
  readonly red: number;
  readonly amber: number;
  readonly notKnown: number;
  /** Judged sessions of people who do not change and did nothing that was too much, and the reds and ambers among them: false alarms. */
  readonly quiet: number;
  readonly falseRed: number;
  readonly falseAmber: number;
  readonly flares: number;
  /** Flares after which something was done in time to be judged; those that were red; and their days until then. */
  readonly catchable: number;
  readonly caught: number;
  readonly caughtAfterDays: number;
  readonly progressions: number;
  readonly throughRed: number;
  readonly prescribed: number;
  readonly pastStop: number;
  /** People who can get well, those of them who reached the last stage, and their weeks to it. */
  readonly changing: number;
  readonly reachedLast: number;
  readonly weeksToLast: number;
  /** Share of the complaint gone at the end, summed over them. */
  readonly healed: number;
  /** Of them: looked at again or referred although they come along. */
  readonly flaggedWrongly: number;
  /** Days between a visit that could not be decided because something was not known, and the next. */
  readonly stuckDays: number;
  readonly unchanging: number;
  readonly unchangingFlagged: number;
  readonly unchangingWeeks: number;
  readonly mistaken: number;
  readonly mistakenFound: number;
  readonly mistakenWeeks: number;
}

const sum = (numbers: readonly number[]): number => numbers.reduce((a, b) => a + b, 0);

function flaresOf(e: SimulatedEpisode) {
  const judged = e.states.filter((s) => s.state !== 'not-known');
  const alarms = judged.filter((s) => s.state === 'red' || s.state === 'stop');
  const within = (day: DayText, flare: DayText) =>
    day >= flare && daysBetween(flare, day) <= CAUGHT_WITHIN_DAYS;
  const seen = e.truth.flares.map((flare) => ({
    could: judged.some((s) => within(s.day, flare)),
    // A session is judged by the morning after it.
    after: alarms.filter((s) => within(s.day, flare)).map((s) => daysBetween(flare, s.day) + 1)[0],
  }));
  return {
    flares: seen.length,
    catchable: seen.filter((s) => s.could).length,
    caught: seen.filter((s) => s.after !== undefined).length,
    caughtAfterDays: sum(seen.flatMap((s) => (s.after === undefined ? [] : [s.after]))),
  };
}

function alarmsOf(e: SimulatedEpisode, from: DayText) {
  if (e.person.kind !== 'unchanging') return { quiet: 0, falseRed: 0, falseAmber: 0 };
  const isQuiet = (day: DayText) => {
    const at = daysBetween(from, day);
    const lately = e.truth.loaded.slice(Math.max(0, at - AFTER_LOAD_DAYS), at + 1);
    return lately.every((share) => share < TOLERATED);
  };
  const quiet = e.states.filter((s) => s.state !== 'not-known' && s.state !== 'stop' && isQuiet(s.day));
  return {
    quiet: quiet.length,
    falseRed: quiet.filter((s) => s.state === 'red').length,
    falseAmber: quiet.filter((s) => s.state === 'amber').length,
  };
}

/** @param lastStage key of the protocol's last stage */
export function tallyOf(e: SimulatedEpisode, from: DayText, lastStage: string): Tally {
  const days = e.truth.healed.length;
  const count = (state: string) => e.states.filter((s) => s.state === state).length;
  const { kind } = e.person;
  const weeks = (day: DayText) => daysBetween(from, day) / 7;
  const seen = e.reviews.filter((r) => r.seen);
  const flagged = seen.find((r) => r.rule === 6)?.day ?? null;
  const last = e.stages.find((s) => s.stage === lastStage)?.since ?? null;
  const stuck = seen.map((r, i) =>
    r.rule === 7 && r.unknown > 0 ? daysBetween(r.day, seen[i + 1]?.day ?? addDays(from, days)) : 0,
  );
  const well = kind === 'changing' && e.truth.foundOutOn === null;
  const gives = e.reviews.filter((r) => ['progress', 'adjust-dose', 'ease-back'].includes(r.decision));
  const mistaken = kind === 'mistaken' || e.truth.foundOutOn !== null;
  return {
    people: 1,
    days,
    judged: e.states.length,
    red: count('red') + count('stop'),
    amber: count('amber'),
    notKnown: count('not-known'),
    ...alarmsOf(e, from),
    ...flaresOf(e),
    progressions: e.reviews.filter((r) => r.decision === 'progress').length,
    throughRed: e.reviews.filter((r) => r.throughRed).length,
    prescribed: gives.length,
    pastStop: e.reviews.filter((r) => r.pastStop).length,
    changing: well ? 1 : 0,
    reachedLast: well && last !== null ? 1 : 0,
    weeksToLast: well && last !== null ? weeks(last) : 0,
    healed: well ? (e.truth.healed.at(-1) ?? 0) : 0,
    flaggedWrongly: well && flagged !== null ? 1 : 0,
    stuckDays: sum(stuck),
    unchanging: kind === 'unchanging' ? 1 : 0,
    unchangingFlagged: kind === 'unchanging' && flagged !== null ? 1 : 0,
    unchangingWeeks: kind === 'unchanging' && flagged !== null ? weeks(flagged) : 0,
    mistaken: mistaken ? 1 : 0,
    mistakenFound: e.truth.foundOutOn === null ? 0 : 1,
    mistakenWeeks: e.truth.foundOutOn === null ? 0 : weeks(e.truth.foundOutOn),
  };
}

/** Sums of sums. */
export function addTallies(tallies: readonly Tally[]): Tally | null {
  const [first, ...rest] = tallies;
  if (first === undefined) return null;
  const keys = Object.keys(first) as (keyof Tally)[];
  return rest.reduce(
    (a, b) => Object.fromEntries(keys.map((k) => [k, a[k] + b[k]])) as unknown as Tally,
    first,
  );
}
