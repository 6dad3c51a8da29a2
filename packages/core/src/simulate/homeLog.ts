import { addDays, type DayText } from '../quantity/day.js';
import { normal, seededRandom } from './random.js';

export interface SimulatedHome {
  readonly seed: number;
  readonly from: DayText;
  readonly days: number;
  /** First-step pain at the start and where it is heading, 0 to 10. */
  readonly startPain: number;
  readonly endPain: number;
  /** Chance that a day's session is done. */
  readonly adherence: number;
  readonly daysPerWeek: number;
  /** Days (from 0) on which too much was done: pain during it and the next morning is higher. */
  readonly flares: readonly number[];
}

export interface SimulatedDay {
  readonly day: DayText;
  readonly firstStep: number;
  /** Worst pain of the day before, as it is asked in the morning. */
  readonly dayWorst: number;
  readonly session: {
    readonly before: number;
    readonly during: number;
    readonly after: number;
    readonly hourAbove: boolean;
    readonly effort: number;
  } | null;
}

const clampScore = (x: number): number => Math.min(10, Math.max(0, Math.round(x)));

/**
 * A made-up patient's mornings and sessions: pain heads from start to end along an exponential, with day-to-day noise,
 * and a flare shows the next morning. The same seed gives the same log.
 */
export function simulateHomeLog(input: SimulatedHome): SimulatedDay[] {
  const random = seededRandom(input.seed);
  const rate = 2 / Math.max(1, input.days);
  return Array.from({ length: input.days }, (_, i) => {
    const level = input.endPain + (input.startPain - input.endPain) * Math.exp(-rate * i);
    const flaredYesterday = input.flares.includes(i - 1);
    const flare = input.flares.includes(i);
    const firstStep = clampScore(normal(random, level, 0.35) + (flaredYesterday ? 3 : 0));
    const due = (i * input.daysPerWeek) % 7 < input.daysPerWeek;
    const done = due && random() < input.adherence;
    const before = clampScore(level * 0.4);
    // What does not hurt at all does not begin to by chance.
    const during = clampScore(before + (flare ? 4 : random() < 0.3 && level >= 0.5 ? 1 : 0));
    const session =
      done || flare
        ? {
            before,
            during,
            after: clampScore(before + (flare ? 3 : 0)),
            hourAbove: flare,
            effort: clampScore(normal(random, flare ? 8.5 : 6, 0.6)),
          }
        : null;
    const dayWorst = clampScore(level * 0.8 + (flaredYesterday ? 3 : 0));
    return { day: addDays(input.from, i), firstStep, dayWorst, session };
  });
}
