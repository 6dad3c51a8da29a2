import { say } from '@heathstep/core';
/** The counting and timing behind the tools: states and what happens to them at a moment in milliseconds. */

export interface StopwatchState {
  readonly runningSince: number | null;
  readonly elapsedMs: number;
  readonly laps: readonly number[];
}

export const STOPPED: StopwatchState = { runningSince: null, elapsedMs: 0, laps: [] };

export const elapsed = (s: StopwatchState, nowMs: number, capMs: number): number =>
  Math.min(capMs, s.elapsedMs + (s.runningSince === null ? 0 : Math.max(0, nowMs - s.runningSince)));

/** Starts from nothing: what ran before is over. */
export const startWatch = (nowMs: number): StopwatchState => ({ ...STOPPED, runningSince: nowMs });

export const stopWatch = (s: StopwatchState, nowMs: number, capMs: number): StopwatchState =>
  s.runningSince === null ? s : { ...s, runningSince: null, elapsedMs: elapsed(s, nowMs, capMs) };

export const lapWatch = (s: StopwatchState, nowMs: number, capMs: number): StopwatchState =>
  s.runningSince === null ? s : { ...s, laps: [...s.laps, elapsed(s, nowMs, capMs)] };

/** Seconds as they are read: tenths. */
export const tenths = (ms: number): number => Math.round(ms / 100) / 10;

export interface CountState {
  readonly phase: 'ready' | 'counting' | 'done';
  readonly startedMs: number | null;
  readonly count: number;
  /** Faults in the order they were marked. */
  readonly faults: readonly string[];
  readonly endedBecause: string | null;
}

export const READY: CountState = {
  phase: 'ready',
  startedMs: null,
  count: 0,
  faults: [],
  endedBecause: null,
};

export const startCount = (nowMs: number): CountState => ({ ...READY, phase: 'counting', startedMs: nowMs });

export const addCount = (s: CountState): CountState =>
  s.phase === 'counting' ? { ...s, count: s.count + 1 } : s;

/** Marks a fault; the count ends by itself at the number of faults the measure allows. */
export function addFault(s: CountState, fault: string, stopAt: number): CountState {
  if (s.phase !== 'counting') return s;
  const faults = [...s.faults, fault];
  return faults.length >= stopAt
    ? { ...s, faults, phase: 'done', endedBecause: say('{{n}} faults', { n: faults.length }) }
    : { ...s, faults };
}

export const takeBackFault = (s: CountState): CountState =>
  s.phase === 'counting' ? { ...s, faults: s.faults.slice(0, -1) } : s;

export const endCount = (s: CountState, because: string): CountState =>
  s.phase === 'counting' ? { ...s, phase: 'done', endedBecause: because } : s;

/** Which beat of the metronome a moment is in, and whether it is the way up or down: one beat up, one beat down. */
export function beatAt(
  startedMs: number,
  nowMs: number,
  beatsPerMinute: number,
): { beat: number; way: 'up' | 'down'; share: number } {
  const length = 60_000 / beatsPerMinute;
  const passed = Math.max(0, nowMs - startedMs) / length;
  const beat = Math.floor(passed);
  return { beat, way: beat % 2 === 0 ? 'up' : 'down', share: passed - beat };
}

/** Where an interval timer is: working or resting, in which round, and how much of it is left. */
export function intervalAt(
  startedMs: number,
  nowMs: number,
  workSeconds: number,
  restSeconds: number,
): { phase: 'work' | 'rest'; round: number; leftSeconds: number; finished: number } {
  const cycle = workSeconds + restSeconds;
  const passed = Math.max(0, nowMs - startedMs) / 1000;
  const round = Math.floor(passed / cycle);
  const within = passed - round * cycle;
  const working = within < workSeconds;
  return {
    phase: working ? 'work' : 'rest',
    round: round + 1,
    leftSeconds: working ? workSeconds - within : cycle - within,
    finished: round + (working ? 0 : 1),
  };
}
