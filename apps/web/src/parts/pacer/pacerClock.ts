import { useEffect, useRef, useState } from 'react';
import { type Beat, beatAt } from './beats.js';

export interface PacerClock {
  /** Seconds since the start, pauses left out. */
  readonly second: number;
  readonly running: boolean;
  readonly finished: boolean;
  readonly pause: () => void;
  readonly go: () => void;
  readonly jump: (second: number) => void;
}

const TONES: Record<Beat['kind'], number> = {
  ready: 440,
  up: 660,
  hold: 550,
  down: 440,
  pause: 392,
  rest: 330,
  release: 392,
};

/** A short soft tone; nothing at all where sound is not allowed. */
function tone(context: AudioContext | null, hertz: number): void {
  if (context === null || context.state === 'closed') return;
  const start = context.currentTime;
  const oscillator = context.createOscillator();
  const volume = context.createGain();
  oscillator.frequency.value = hertz;
  volume.gain.setValueAtTime(0.0001, start);
  volume.gain.exponentialRampToValueAtTime(0.22, start + 0.02);
  volume.gain.exponentialRampToValueAtTime(0.0001, start + 0.22);
  oscillator.connect(volume).connect(context.destination);
  oscillator.start(start);
  oscillator.stop(start + 0.25);
}

/** Goes along the beats by the clock of the page, which a sleeping tab does not lose; sounds and vibrates at each new beat. */
export function usePacerClock(beats: readonly Beat[], sound: boolean): PacerClock {
  const [second, setSecond] = useState(0);
  const [running, setRunning] = useState(true);
  const base = useRef({ at: performance.now(), second: 0 });
  const audio = useRef<AudioContext | null>(null);
  const end = beats[beats.length - 1]?.endSecond ?? 0;
  const beat = beatAt(beats, second);
  const beatStart = beat?.startSecond ?? -1;
  const kind = beat?.kind ?? 'rest';
  useEffect(() => {
    if (!running) return undefined;
    base.current = { at: performance.now(), second: base.current.second };
    let frame = 0;
    const tick = () => {
      const now = base.current.second + (performance.now() - base.current.at) / 1000;
      setSecond(Math.min(now, end));
      if (now < end) frame = requestAnimationFrame(tick);
    };
    frame = requestAnimationFrame(tick);
    return () => {
      cancelAnimationFrame(frame);
      base.current = {
        at: performance.now(),
        second: base.current.second + (performance.now() - base.current.at) / 1000,
      };
    };
  }, [running, end]);
  useEffect(() => {
    if (beatStart < 0 || !sound) return;
    audio.current ??= typeof AudioContext === 'undefined' ? null : new AudioContext();
    tone(audio.current, TONES[kind]);
    if (typeof navigator.vibrate === 'function') navigator.vibrate(kind === 'rest' ? [80, 60, 80] : 60);
  }, [beatStart, kind, sound]);
  useEffect(
    () => () => {
      void audio.current?.close();
    },
    [],
  );
  return {
    second,
    running,
    finished: end > 0 && second >= end,
    pause: () => setRunning(false),
    go: () => setRunning(true),
    jump: (to) => {
      base.current = { at: performance.now(), second: to };
      setSecond(to);
    },
  };
}
