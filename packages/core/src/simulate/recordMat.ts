import { collector } from '../recording/collect.js';
import { type MatRecording, PER_KPA, RECORDING_LIMITS } from '../recording/recording.js';
import type { SimulatedMat } from './mat.js';

const { round } = Math;

/** Plays a made-up mat to its end, or for so many seconds, into a recording. */
export function recordMat(sim: SimulatedMat, seconds: number = RECORDING_LIMITS.seconds): MatRecording {
  const { header } = sim;
  const kept = collector();
  kept.begin(header);
  const size = header.columns * header.rows;
  const kpa = new Float32Array(size);
  const cells = new Uint16Array(size);
  const frames = Math.floor(Math.min(sim.seconds, seconds) * header.rateHz);
  for (let n = 0; n < frames; n += 1) {
    if (!sim.frame(n, kpa)) continue;
    for (let c = 0; c < size; c += 1) {
      const v = kpa[c] as number;
      cells[c] = v === 0 ? 0 : round(v * PER_KPA);
    }
    kept.mat(n / header.rateHz, cells);
  }
  return kept.recording() as MatRecording;
}
