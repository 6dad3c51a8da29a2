import { issue, ok, refused, type Result } from '@heathstep/core';
import {
  analyseMat,
  analyseMotion,
  collector,
  isMat,
  type LabTask,
  MOTION_TASKS,
  type QualityNote,
  type Quantities,
  type Recording,
  recordingReader,
} from '@heathstep/core/lab';

type Capture = Readonly<Record<string, unknown>> & { readonly frames: readonly unknown[] };

/** Reads a capture as its file is read, line by line, so that both are held to the same rules. */
function recordingOf({ frames, ...heading }: Capture): Result<Recording> {
  const kept = collector();
  const reader = recordingReader(kept);
  const where = (line: number): string => (line <= 1 ? 'capture' : `capture.frames.${line - 2}`);
  let problem = reader.push(`${JSON.stringify(heading).slice(0, -1)},"frames":[\n`);
  for (let i = 0; i < frames.length && problem === null; i += 1)
    problem = reader.push(`${JSON.stringify(frames[i])},\n`);
  problem ??= reader.push(']}\n');
  const end = problem === null ? reader.finish() : { ok: false as const, problem };
  if (!end.ok) {
    const { line, reason } = end.problem;
    const value = line <= 1 ? (heading['kind'] ?? null) : (frames[line - 2] ?? null);
    return refused(issue(where(line), value, `usable: ${reason}`));
  }
  const recording = kept.recording();
  return recording === null ? refused(issue('capture', null, 'a recording')) : ok(recording);
}

interface LabIn {
  readonly capture: Capture;
  readonly task: LabTask;
  readonly side: 'left' | 'right' | 'both';
  readonly bodyMassKg?: number | null;
}

const told = (quantities: Quantities, notes: readonly QualityNote[]) => ({
  usable: notes.every((n) => n.level !== 'refuse'),
  quantities,
  notes,
});

/** What a mat tells of a capture. */
export function pressureOn(raw: unknown): Result<unknown> {
  const { capture, task, side, bodyMassKg = null } = raw as LabIn;
  const read = recordingOf(capture);
  if (!read.ok) return read;
  if (!isMat(read.value)) return refused(issue('capture.kind', capture['kind'], 'pressure-mat'));
  const report = analyseMat(read.value, { task, side, massKg: bodyMassKg, factor: null });
  return ok({ ...told(report.quantities, report.notes), weighed: report.weighed, factor: report.factor });
}

/** What a motion pair tells of a capture. */
export function motionOn(raw: unknown): Result<unknown> {
  const { capture, task, side } = raw as LabIn;
  if (!MOTION_TASKS.includes(task)) return refused(issue('task', task, `one of ${MOTION_TASKS.join(', ')}`));
  const read = recordingOf(capture);
  if (!read.ok) return read;
  if (isMat(read.value)) return refused(issue('capture.kind', capture['kind'], 'motion-pair'));
  const report = analyseMotion(read.value, { task, side });
  const wave = (w: (typeof report.waves)['left']) =>
    w === null ? null : { mean: [...w.mean], spread: [...w.spread], steps: w.steps.length, rest: w.rest };
  return ok({
    ...told(report.quantities, report.notes),
    waves: { left: wave(report.waves.left), right: wave(report.waves.right) },
  });
}
