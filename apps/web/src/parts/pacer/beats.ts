import {
  spoken,
  type ExerciseDefinition,
  type InTurn,
  outAndBack,
  type Tongue,
  turnTimeline,
  type TurnSet,
} from '@heathstep/core';

/** A moment of an exercise: what to do now, for how long, and what comes with it. */
export interface Beat {
  readonly kind: 'ready' | 'up' | 'hold' | 'down' | 'pause' | 'rest' | 'release';
  /** Which of what is done in turn; 0 for an exercise by itself. In a rest, what comes next. */
  readonly turn: number;
  readonly side: TurnSet['side'];
  readonly set: number;
  /** Repetition or hold of the set, from 1; 0 between sets. */
  readonly rep: number;
  readonly startSecond: number;
  readonly endSecond: number;
}

/** An exercise, or those of a round, as the beats the Pacer goes through, on the very timeline the core lays out. */
export function beatsOf(turns: readonly InTurn[]): Beat[] {
  const beats: Beat[] = [];
  let at = 0;
  const push = (kind: Beat['kind'], seconds: number, set: TurnSet, rep: number) => {
    if (seconds <= 0) return;
    const { turn, side } = set;
    beats.push({ kind, turn, side, set: set.set, rep, startSecond: at, endSecond: at + seconds });
    at += seconds;
  };
  for (const set of turnTimeline(turns)) {
    const item = turns[set.turn]?.item;
    if (item === undefined) continue;
    push(beats.length === 0 ? 'ready' : 'rest', set.startSecond - at, set, 0);
    for (let rep = 1; rep <= item.reps; rep += 1) {
      if (item.tempo === undefined) {
        push('hold', item.holdSeconds ?? 0, set, rep);
        push('release', item.releaseSeconds ?? 0, set, rep);
      } else {
        push('up', item.tempo.upSeconds, set, rep);
        push('hold', item.tempo.topSeconds, set, rep);
        push('down', item.tempo.downSeconds, set, rep);
        push('pause', item.tempo.bottomSeconds, set, rep);
      }
    }
  }
  return beats;
}

export const beatAt = (beats: readonly Beat[], second: number): Beat | null =>
  beats.find((b) => second >= b.startSecond && second < b.endSecond) ?? null;

const WORDS: Record<Beat['kind'], string> = {
  ready: 'Get ready',
  up: 'Up',
  hold: 'Hold',
  down: 'Lower slowly',
  pause: 'Pause',
  rest: 'Rest',
  release: 'Let go',
};

/** What to do now; movements that do not go up and down have their own words. */
export function wordOf(kind: Beat['kind'], exercise: ExerciseDefinition, t: Tongue = spoken()): string {
  const [out, back] = exercise.beats;
  const capital = (text: string) => text.charAt(0).toUpperCase() + text.slice(1);
  if (kind === 'up' && out !== t.say('up')) return capital(out);
  return kind === 'down' && back !== t.say('down') ? capital(back) : t.say(WORDS[kind]);
}

/** Where the drawn movement is, for a beat of the pacer and how far it has come. */
export function momentOf(kind: Beat['kind'], share: number): number {
  const soft = outAndBack(Math.max(0, Math.min(1, share)) / 2);
  if (kind === 'up') return soft;
  if (kind === 'down' || kind === 'release') return 1 - soft;
  return kind === 'hold' ? 1 : 0;
}
