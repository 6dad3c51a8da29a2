import type { RecordingKind } from '../recording/recording.js';
import type { LabTask } from './task.js';

/** How a capture of a task begins and ends by itself; convention. */
interface CapturePlan {
  /** Longest, seconds. */
  readonly seconds: number;
  /** Begins when somebody stands on the mat; else at once. */
  readonly onLoad: boolean;
  /** Ends after so many crossings of the mat; 0 for none. */
  readonly crossings: number;
}

/** Instruments and tasks that go together, and how each is captured. */
export const CAPTURE_PLANS: Readonly<Record<RecordingKind, Readonly<Partial<Record<LabTask, CapturePlan>>>>> =
  {
    'pressure-mat': {
      stance: { seconds: 10, onLoad: true, crossings: 0 },
      walk: { seconds: 40, onLoad: false, crossings: 8 },
      balance: { seconds: 30, onLoad: true, crossings: 0 },
      squat: { seconds: 16, onLoad: true, crossings: 0 },
      raise: { seconds: 26, onLoad: true, crossings: 0 },
    },
    'motion-pair': {
      walk: { seconds: 20, onLoad: false, crossings: 0 },
      squat: { seconds: 16, onLoad: false, crossings: 0 },
    },
  };

export const COUNTDOWN_SECONDS = 3;
const ON_N = 150;
const OFF_N = 50;
const STEP_N = 30;
const SETTLED_SECONDS = 0.4;
const GONE_SECONDS = 1;
/** A capture in which the instrument says nothing for so long is broken off. */
export const SILENT_SECONDS = 1.2;

export type CapturePhase =
  /** Counting down, or waiting for somebody to stand on the mat. */
  | 'countdown'
  | 'waiting'
  | 'recording'
  | 'done'
  /** Interrupted: nothing of it is kept. */
  | 'broken';

/** Where a capture is. Times are the instrument's own, seconds. */
export interface CaptureSession {
  readonly kind: RecordingKind;
  readonly task: LabTask;
  readonly plan: CapturePlan;
  readonly phase: CapturePhase;
  /** When the phase began; null before the first frame. */
  readonly since: number | null;
  readonly last: number | null;
  /** When the mat was first loaded, or last left. */
  readonly turned: number | null;
  readonly crossings: number;
  readonly loaded: boolean;
  /** Why it ended or broke off. */
  readonly why: 'time' | 'stepped-off' | 'crossings' | 'stopped' | 'bad-frame' | 'silent' | 'lost' | null;
}

/** A capture that counts down next; null where instrument and task do not go together. */
export function beginCapture(kind: RecordingKind, task: LabTask): CaptureSession | null {
  const plan = CAPTURE_PLANS[kind][task];
  if (plan === undefined) return null;
  return {
    kind,
    task,
    plan,
    phase: 'countdown',
    since: null,
    last: null,
    turned: null,
    crossings: 0,
    loaded: false,
    why: null,
  };
}

const over = (s: CaptureSession): boolean => s.phase === 'done' || s.phase === 'broken';

/** Seconds left of counting down or recording; null in other phases. */
export function secondsLeft(s: CaptureSession): number | null {
  if (s.phase !== 'countdown' && s.phase !== 'recording') return null;
  const whole = s.phase === 'countdown' ? COUNTDOWN_SECONDS : s.plan.seconds;
  return s.since === null || s.last === null ? whole : Math.max(0, whole - (s.last - s.since));
}

const enter = (s: CaptureSession, phase: CapturePhase, t: number): CaptureSession => ({
  ...s,
  phase,
  since: t,
  turned: null,
  loaded: false,
});

function counting(s: CaptureSession, t: number): CaptureSession {
  if (s.since === null) return { ...s, since: t };
  if (t - s.since < COUNTDOWN_SECONDS) return s;
  return enter(s, s.plan.onLoad ? 'waiting' : 'recording', t);
}

function waiting(s: CaptureSession, t: number, newton: number): CaptureSession {
  if (newton < ON_N) return { ...s, turned: null };
  if (s.turned === null) return { ...s, turned: t };
  return t - s.turned >= SETTLED_SECONDS ? enter(s, 'recording', t) : s;
}

function recording(s: CaptureSession, t: number, newton: number): CaptureSession {
  const end = (why: CaptureSession['why']): CaptureSession => ({ ...s, phase: 'done', why });
  if (t - (s.since ?? t) >= s.plan.seconds) return end('time');
  if (s.plan.onLoad) {
    if (newton >= OFF_N) return { ...s, turned: null };
    const left = s.turned ?? t;
    return t - left >= GONE_SECONDS ? end('stepped-off') : { ...s, turned: left };
  }
  if (s.plan.crossings === 0) return s;
  if (newton >= STEP_N) return { ...s, loaded: true, turned: null };
  if (!s.loaded) return s;
  // A step is over when the mat has been left for a moment.
  const left = s.turned ?? t;
  if (t - left < 0.15) return { ...s, turned: left };
  const crossings = s.crossings + 1;
  const next = { ...s, crossings, loaded: false, turned: null };
  return crossings >= s.plan.crossings ? { ...next, phase: 'done', why: 'crossings' } : next;
}

/** Takes a frame: its time, and the whole load on the mat in newton (0 from other instruments). */
export function captureLoad(s: CaptureSession, t: number, newton: number): CaptureSession {
  if (over(s)) return s;
  const at = { ...s, last: t };
  if (at.phase === 'countdown') return counting(at, t);
  return at.phase === 'waiting' ? waiting(at, t, newton) : recording(at, t, newton);
}

/** The capture is ended by hand: kept when something was recorded, else broken off. */
export const endCapture = (s: CaptureSession): CaptureSession =>
  over(s) ? s : { ...s, phase: s.phase === 'recording' ? 'done' : 'broken', why: 'stopped' };

/** Something interrupted it: whatever was recorded is not kept. */
export const breakCapture = (s: CaptureSession, why: 'bad-frame' | 'silent' | 'lost'): CaptureSession =>
  over(s) ? s : { ...s, phase: 'broken', why };
