import { gzipSync } from 'node:zlib';
import type { EntityManager } from 'typeorm';
import type { CaptureWearing } from '@heathstep/contracts';
import type { LabTask } from '@heathstep/core';
import { isMat, jsonLines, type Recording } from '@heathstep/core/lab';
import {
  recordMat,
  recordMotion,
  simulateMat,
  simulateMotion,
  type Walker,
  walkerOf,
} from '@heathstep/core/simulate';
import { LabCapture } from '../persistence/labCapture.js';
import { CLINIC_ID, CLINICIAN, demoId } from './ids.js';

interface DemoCapture {
  readonly name: string;
  /** Made-up person of the simulated instruments whose feet are these. */
  readonly who: number;
  readonly massKg: number;
  readonly task: LabTask;
  readonly instrument: 'mat' | 'pair';
  readonly wearing: CaptureWearing;
  readonly note: string;
  readonly daysAgo: number;
  readonly minutes: number;
  readonly seconds: number;
}

const AVERIL = { name: 'Averil Moss', who: 72, massKg: 71, daysAgo: 5 } as const;

/** A choir singer whose left foot gives up the inner ball on the rise, walking barefoot and on an insole. */
const CAPTURES: readonly DemoCapture[] = [
  { ...AVERIL, task: 'stance', instrument: 'mat', wearing: 'barefoot', note: '', minutes: 0, seconds: 4 },
  { ...AVERIL, task: 'raise', instrument: 'mat', wearing: 'barefoot', note: '', minutes: 4, seconds: 12 },
  { ...AVERIL, task: 'walk', instrument: 'pair', wearing: 'barefoot', note: '', minutes: 9, seconds: 14 },
  {
    ...AVERIL,
    task: 'walk',
    instrument: 'pair',
    wearing: 'with-insole',
    note: 'ready-made, inner side raised',
    minutes: 14,
    seconds: 14,
  },
];

/** On an insole the heel goes a third less far. */
const onInsole = (w: Walker): Walker => ({
  ...w,
  feet: {
    left: { ...w.feet.left, wave: { ...w.feet.left.wave, amplitude: w.feet.left.wave.amplitude * 0.67 } },
    right: { ...w.feet.right, wave: { ...w.feet.right.wave, amplitude: w.feet.right.wave.amplitude * 0.67 } },
  },
});

function recorded(c: DemoCapture): Recording {
  const plain = { ...walkerOf(c.who), massKg: c.massKg };
  const walker = c.wearing === 'with-insole' ? onInsole(plain) : plain;
  const script = { walker, task: c.task, side: 'both', seed: c.who + c.minutes, mistakes: [] } as const;
  const made =
    c.instrument === 'mat'
      ? recordMat(simulateMat(script), c.seconds)
      : recordMotion(simulateMotion(script), c.seconds);
  const name = `${made.header.name}, made-up person ${c.who}`;
  return isMat(made)
    ? { ...made, header: { ...made.header, name } }
    : { ...made, header: { ...made.header, name } };
}

/** Captures of the lab, each played by the simulated instruments. */
export async function loadDemoCaptures(tx: EntityManager, now: Date): Promise<void> {
  for (const c of CAPTURES) {
    const recording = recorded(c);
    const { header, times } = recording;
    await tx.insert(LabCapture, {
      id: demoId('capture', c.name, c.task, c.wearing),
      clinicId: CLINIC_ID,
      episodeId: demoId('episode', c.name),
      kind: header.kind,
      task: c.task,
      side: 'both',
      wearing: c.wearing,
      source: 'device',
      note: c.note,
      massKg: c.massKg,
      factor: null,
      seconds: (times.at(-1) ?? 0) - (times[0] ?? 0),
      device: header.name,
      simulated: true,
      bytes: gzipSync([...jsonLines(recording)].join('')),
      authorId: CLINICIAN,
      at: new Date(now.getTime() - c.daysAgo * 86_400_000 - (20 - c.minutes) * 60_000),
      discardedAt: null,
    });
  }
}
