import {
  analyseMat,
  analyseMotion,
  collector,
  isMat,
  type MatReport,
  type MotionReport,
  type Quantities,
  type QualityNote,
} from '@heathstep/core/lab';
import type { LabCapture } from '../persistence/labCapture.js';
import { readCapture } from './readCapture.js';

/** What a kept capture tells, by the same core as the page that shows it. */
export interface Analysed {
  readonly quantities: Quantities;
  readonly notes: readonly QualityNote[];
  readonly mat: MatReport | null;
  readonly motion: MotionReport | null;
}

/** Works a kept capture out; null where its readings cannot be read any more. */
export async function analysed(
  capture: Pick<LabCapture, 'task' | 'side' | 'massKg' | 'factor' | 'bytes'>,
): Promise<Analysed | null> {
  const kept = collector();
  const read = await readCapture(capture.bytes, kept);
  const recording = kept.recording();
  if (!read.ok || recording === null) return null;
  const { task, side } = capture;
  if (isMat(recording)) {
    const mat = analyseMat(recording, { task, side, massKg: capture.massKg, factor: capture.factor });
    return { quantities: mat.quantities, notes: mat.notes, mat, motion: null };
  }
  const motion = analyseMotion(recording, { task, side });
  return { quantities: motion.quantities, notes: motion.notes, mat: null, motion };
}
