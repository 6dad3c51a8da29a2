import { say } from '../quantity/tongue.js';
import type { PerSide, Side } from '../quantity/side.js';
import { issue, ok, outsideRanges, refused, type Issue, type Result } from '../result/result.js';

/** Seconds of each part of one repetition. */
export interface Tempo {
  readonly upSeconds: number;
  readonly topSeconds: number;
  readonly downSeconds: number;
  readonly bottomSeconds: number;
}

export type DoseSides = 'left' | 'right' | 'together' | 'one-after-other' | 'alternating';

/** What is done in one go: `reps` are repetitions with a tempo, or the holds of a set with `holdSeconds`. */
export interface DoseInput {
  readonly sets: number;
  readonly reps: number;
  readonly holdSeconds?: number | undefined;
  /** Between holds; 0 when not given. The release after the last hold counts. */
  readonly releaseSeconds?: number | undefined;
  readonly tempo?: Tempo | undefined;
  readonly restSeconds: number;
  readonly setupSeconds: number;
  readonly sides: DoseSides;
  /**
   * One of a round: others are done between its sets, so a rest follows every set, the last one too; with both feet in
   * `each`, it follows the second foot.
   */
  readonly inRound?: 'each' | 'through' | undefined;
  readonly timesPerDay: number;
  readonly daysPerWeek: number;
}

export interface TimelineSet {
  readonly side: Side | 'both';
  /** From 1, per side. */
  readonly set: number;
  readonly startSecond: number;
  readonly endSecond: number;
}

export interface DoseResult {
  /** One time through, set-up included. */
  readonly exerciseSeconds: number;
  /** Up, top hold and down of every repetition, or the holds; pauses, rests and set-up do not count. */
  readonly tensionSecondsPerSide: PerSide<number>;
  readonly repsPerSide: PerSide<number>;
  readonly daySeconds: number;
  readonly weekSeconds: number;
  readonly timeline: readonly TimelineSet[];
}

const RANGES = {
  sets: [1, 20],
  reps: [1, 300],
  restSeconds: [0, 1800],
  setupSeconds: [0, 1800],
  timesPerDay: [1, 24],
  daysPerWeek: [1, 7],
} as const;

/** Eight hours, for what is worn through a night. */
const LONGEST_HOLD = 28_800;

const TEMPO_RANGES = {
  upSeconds: [0, 300],
  topSeconds: [0, 300],
  downSeconds: [0, 300],
  bottomSeconds: [0, 120],
} as const;

function wholeNumbers(input: DoseInput): Issue[] {
  return (['sets', 'reps', 'timesPerDay', 'daysPerWeek'] as const)
    .filter((path) => Number.isFinite(input[path]) && !Number.isInteger(input[path]))
    .map((path) => issue(path, input[path], say('a whole number')));
}

function workProblems(input: DoseInput): Issue[] {
  const { holdSeconds, releaseSeconds, tempo } = input;
  if ((holdSeconds === undefined) === (tempo === undefined)) {
    return [issue('holdSeconds', holdSeconds, say('given, or else tempo is: one of the two'))];
  }
  if (tempo === undefined) {
    return outsideRanges(
      { holdSeconds, releaseSeconds: releaseSeconds ?? 0 },
      { holdSeconds: [0.5, LONGEST_HOLD], releaseSeconds: [0, 600] },
    );
  }
  const problems = outsideRanges(tempo, TEMPO_RANGES).map((p) => ({ ...p, path: `tempo.${p.path}` }));
  if (problems.length === 0 && repetition(input).seconds <= 0) {
    problems.push(issue('tempo', tempo, say('longer than 0 s in all')));
  }
  if (releaseSeconds !== undefined) {
    problems.push(issue('releaseSeconds', releaseSeconds, say('given with holdSeconds only')));
  }
  return problems;
}

function repetition(input: DoseInput): { seconds: number; tension: number } {
  if (input.tempo !== undefined) {
    const { upSeconds, topSeconds, downSeconds, bottomSeconds } = input.tempo;
    const tension = upSeconds + topSeconds + downSeconds;
    return { seconds: tension + bottomSeconds, tension };
  }
  const hold = input.holdSeconds ?? 0;
  return { seconds: hold + (input.releaseSeconds ?? 0), tension: hold };
}

/** The order in which sets are done; for alternating work L R L R. */
function order(input: DoseInput): { side: Side | 'both'; set: number }[] {
  const numbers = Array.from({ length: input.sets }, (_, i) => i + 1);
  const of = (side: Side | 'both') => numbers.map((set) => ({ side, set }));
  const inTurn = numbers.flatMap((set) => [
    { side: 'left' as const, set },
    { side: 'right' as const, set },
  ]);
  switch (input.sides) {
    case 'left':
    case 'right':
      return of(input.sides);
    case 'together':
      return of('both');
    case 'one-after-other':
      return input.inRound === undefined ? [...of('left'), ...of('right')] : inTurn;
    case 'alternating':
      return inTurn;
  }
}

/** One set after another with a rest after each: what is done in between belongs to the others of the round. */
function placeInRound(input: DoseInput, setSeconds: number): TimelineSet[] {
  const sets = order(input);
  let at = input.setupSeconds;
  return sets.map(({ side, set }, i) => {
    const startSecond = at;
    const endSecond = startSecond + setSeconds;
    const otherFootNext = input.inRound === 'each' && sets[i + 1]?.set === set;
    at = endSecond + (otherFootNext ? 0 : input.restSeconds);
    return { side, set, startSecond, endSecond };
  });
}

/** Places each set at the first moment its side has rested and nothing else is being done. */
function place(input: DoseInput, setSeconds: number): TimelineSet[] {
  const restedAt: Record<string, number> = {};
  let free = input.setupSeconds;
  return order(input).map(({ side, set }) => {
    const startSecond = Math.max(free, restedAt[side] ?? 0);
    const endSecond = startSecond + setSeconds;
    restedAt[side] = endSecond + input.restSeconds;
    free = endSecond;
    return { side, set, startSecond, endSecond };
  });
}

/**
 * Lays a dose out on its timeline and totals it, in seconds.
 * Left goes first; no extra rest between sides; when alternating, a side's rest overlaps the other's work.
 *
 * @example 3 x 10 at 3-2-3-0, rest 90, set-up 20: one after the other 860 s, alternating 520 s.
 */
export function computeDose(input: DoseInput): Result<DoseResult> {
  const problems = [...outsideRanges(input, RANGES), ...wholeNumbers(input), ...workProblems(input)];
  if (problems.length > 0) return refused(...problems);
  const rep = repetition(input);
  const inRound = input.inRound !== undefined;
  const timeline = (inRound ? placeInRound : place)(input, input.reps * rep.seconds);
  const lastEnd = timeline[timeline.length - 1]?.endSecond ?? input.setupSeconds;
  const exerciseSeconds = lastEnd + (inRound ? input.restSeconds : 0);
  const setsOn = (side: Side) => timeline.filter((t) => t.side === side || t.side === 'both').length;
  const perSide = (each: number) => ({ left: setsOn('left') * each, right: setsOn('right') * each });
  const daySeconds = exerciseSeconds * input.timesPerDay;
  return ok({
    exerciseSeconds,
    tensionSecondsPerSide: perSide(input.reps * rep.tension),
    repsPerSide: perSide(input.reps),
    daySeconds,
    weekSeconds: daySeconds * input.daysPerWeek,
    timeline,
  });
}
