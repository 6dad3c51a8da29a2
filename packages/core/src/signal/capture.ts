import { mean } from '../quantity/statistics.js';
import { type Frame, type HelloFrame, KIND_RULES, type SampleFrame, type SignalKind } from './frames.js';
import { forceOf, type ForceResult } from './force.js';

/** A value a device gave, ready to fill a trial. */
export interface CapturedValue {
  readonly value: number;
  /** Largest minus smallest within the window the value comes from. */
  readonly spread: number;
  readonly samples: number;
  readonly force: ForceResult | null;
}

export type CaptureWarning = 'tilt' | 'heel-lift' | 'late-trigger' | 'drop-out' | 'silent' | 'rubbish';

export interface CaptureState {
  readonly phase: 'waiting' | 'live' | 'ended';
  readonly hello: HelloFrame | null;
  /** Subtracted from every sample; set by zeroing. */
  readonly zero: number;
  /** Newest reading, zero taken off; null before the first and after the end. */
  readonly live: number | null;
  readonly window: readonly SampleFrame[];
  /** The run of one push for a force device; every sample above the start. */
  readonly push: readonly SampleFrame[];
  readonly warnings: readonly CaptureWarning[];
  /** Share of the steady time reached, 0 to 1. */
  readonly steadiness: number;
  /** False after a value was taken, until the reading has moved away. */
  readonly armed: boolean;
  readonly lastValue: number | null;
  /** Set on the frame that completes a value, null on every other. */
  readonly taken: CapturedValue | null;
  readonly lastAtMs: number | null;
  /** When the newest warning came; a passing one stands for a moment, so that it can be read. */
  readonly warnedAtMs: number | null;
  readonly badFrames: number;
  readonly endReason: string | null;
}

export const START: CaptureState = {
  phase: 'waiting',
  hello: null,
  zero: 0,
  live: null,
  window: [],
  push: [],
  warnings: [],
  steadiness: 0,
  armed: true,
  lastValue: null,
  taken: null,
  lastAtMs: null,
  warnedAtMs: null,
  badFrames: 0,
  endReason: null,
};

/** Conventions: how long and how still a reading must be held, and how far it must move away before the next. */
const STEADY: Readonly<
  Record<Exclude<SignalKind, 'dynamometer'>, { seconds: number; spread: number; least: number; away: number }>
> = {
  inclinometer: { seconds: 1, spread: 2, least: 5, away: 5 },
  thermometer: { seconds: 2, spread: 0.4, least: 15, away: 2 },
};
const PUSH_FROM_N = 10;
const PUSH_LEAST_SECONDS = 1;
const TILT_LIMIT_DEG = 10;
const HEEL_LIMIT_MM = 5;
const SILENT_MS = 1200;
const TOLD_MS = 1500;
const PASSING: readonly CaptureWarning[] = ['rubbish', 'drop-out'];
/** A gap of more than this many sample times is a drop-out. */
const GAP_SAMPLES = 4;

function spreadOf(values: readonly number[]): number {
  return values.length === 0 ? 0 : Math.max(...values) - Math.min(...values);
}

function rubbish(state: CaptureState): CaptureState {
  return {
    ...state,
    badFrames: state.badFrames + 1,
    window: [],
    push: [],
    steadiness: 0,
    taken: null,
    warnings: ['rubbish'],
  };
}

function postureWarnings(s: SampleFrame): CaptureWarning[] {
  return [
    ...(Math.abs(s.tiltDeg ?? 0) > TILT_LIMIT_DEG ? (['tilt'] as const) : []),
    ...((s.heelLiftMm ?? 0) > HEEL_LIMIT_MM ? (['heel-lift'] as const) : []),
  ];
}

function steady(
  state: CaptureState,
  s: SampleFrame,
  kind: 'inclinometer' | 'thermometer',
  gap: boolean,
): CaptureState {
  const rule = STEADY[kind];
  const value = s.value - state.zero;
  const warnings: CaptureWarning[] = [...postureWarnings(s), ...(gap ? (['drop-out'] as const) : [])];
  const window = [...(gap || postureWarnings(s).length > 0 ? [] : state.window), s].filter(
    (w) => s.t - w.t <= rule.seconds + 1e-6,
  );
  const values = window.map((w) => w.value - state.zero);
  const still =
    spreadOf(values) <= rule.spread && Math.abs(value) >= rule.least && postureWarnings(s).length === 0;
  const kept = still ? window : [s];
  const armed =
    state.armed ||
    Math.abs(value) < rule.least ||
    (state.lastValue !== null && Math.abs(value - state.lastValue) > rule.away);
  const steadiness = still && armed ? Math.min(1, (s.t - (kept[0]?.t ?? s.t)) / rule.seconds) : 0;
  const done = steadiness >= 1 - 1e-6;
  const average = mean(values) as number;
  return {
    ...state,
    live: value,
    window: done ? [] : kept,
    warnings,
    steadiness: done ? 0 : steadiness,
    armed: armed && !done,
    lastValue: done ? average : state.lastValue,
    taken: done ? { value: average, spread: spreadOf(values), samples: values.length, force: null } : null,
  };
}

function pushed(state: CaptureState, s: SampleFrame, gap: boolean): CaptureState {
  const value = s.value - state.zero;
  const base = { ...state, live: value, taken: null, steadiness: 0 };
  if (gap && state.push.length > 0) return { ...base, push: [], armed: false, warnings: ['drop-out'] };
  const above = value >= PUSH_FROM_N;
  // Force before there was a rest means the capture began after the push did: its rise and its best second are not known.
  if (above && !state.armed && state.push.length === 0)
    return { ...base, warnings: state.lastAtMs === null ? ['late-trigger'] : state.warnings };
  if (above) {
    const push = [...state.push, { ...s, value }];
    const held = s.t - (push[0]?.t ?? s.t);
    return { ...base, push, armed: true, warnings: [], steadiness: Math.min(1, held / PUSH_LEAST_SECONDS) };
  }
  const force = forceOf(state.push.map((p) => ({ t: p.t, newton: p.value })));
  const enough = force !== null && force.seconds >= PUSH_LEAST_SECONDS;
  return {
    ...base,
    push: [],
    armed: true,
    warnings: state.push.length > 0 ? [] : state.warnings.filter((w) => w === 'late-trigger' && !state.armed),
    taken: enough
      ? {
          value: force.bestSecondN,
          spread: spreadOf(state.push.map((p) => p.value)),
          samples: state.push.length,
          force,
        }
      : null,
  };
}

/**
 * Takes one frame of a device into the state of a capture. `atMs` is when it came. A value is given once, on the frame
 * that completes it: after a second held still for an angle, after the push for a force. Bad frames, tilt, a lifted heel,
 * a drop-out or an end never complete one.
 */
export function captureFrame(state: CaptureState, frame: Frame, atMs: number): CaptureState {
  const next = taken(state, frame, atMs);
  if (next.phase !== 'live') return next;
  if (next.warnings.length > 0) return { ...next, warnedAtMs: atMs };
  const told = state.warnings.filter((w) => PASSING.includes(w));
  const fresh = state.warnedAtMs !== null && atMs - state.warnedAtMs < TOLD_MS;
  return fresh && told.length > 0 ? { ...next, warnings: told, warnedAtMs: state.warnedAtMs } : next;
}

function taken(state: CaptureState, frame: Frame, atMs: number): CaptureState {
  if (state.phase === 'ended') return { ...state, taken: null };
  if (frame.type === 'bad') return rubbish({ ...state, lastAtMs: atMs });
  if (frame.type === 'end')
    return {
      ...state,
      phase: 'ended',
      live: null,
      window: [],
      push: [],
      steadiness: 0,
      taken: null,
      warnings: [],
      endReason: frame.reason,
    };
  if (frame.type === 'hello')
    return { ...START, phase: 'live', hello: frame, lastAtMs: null, armed: frame.kind !== 'dynamometer' };
  if (state.hello === null) return rubbish({ ...state, lastAtMs: atMs });
  const rule = KIND_RULES[state.hello.kind];
  if (frame.value < rule.min || frame.value > rule.max) return rubbish({ ...state, lastAtMs: atMs });
  const before = state.push.at(-1) ?? state.window.at(-1);
  if (before !== undefined && frame.t <= before.t) return rubbish({ ...state, lastAtMs: atMs });
  const gap = before !== undefined && frame.t - before.t > GAP_SAMPLES / state.hello.rateHz;
  const next =
    state.hello.kind === 'dynamometer'
      ? pushed(state, frame, gap)
      : steady(state, frame, state.hello.kind, gap);
  return { ...next, lastAtMs: atMs };
}

/** Looks at the clock between frames: a device that says nothing is silent, and its half-made value is dropped. */
export function captureTick(state: CaptureState, atMs: number): CaptureState {
  if (state.phase !== 'live' || state.lastAtMs === null || atMs - state.lastAtMs < SILENT_MS)
    return { ...state, taken: null };
  return { ...state, live: null, window: [], push: [], steadiness: 0, taken: null, warnings: ['silent'] };
}

/** The connection is gone. */
export const captureCut = (state: CaptureState, reason: string): CaptureState =>
  captureFrame(state, { type: 'end', reason }, state.lastAtMs ?? 0);

/** Takes the present reading as zero, as with the device against a wall or unloaded. */
export function captureZero(state: CaptureState): CaptureState {
  if (state.live === null) return state;
  return {
    ...state,
    zero: state.zero + state.live,
    live: 0,
    window: [],
    push: [],
    steadiness: 0,
    armed: true,
    taken: null,
  };
}
