import {
  type LabSource,
  type LabTask,
  LAB_TASKS,
  type MeasureDefinition,
  phrase,
  type RecordingKind,
  type Side,
} from '@heathstep/core';
import type { MeasureEntry } from './entries/values.js';
import { IsIn, IsOptional, IsString, Matches, MaxLength } from 'class-validator';

/** A capture as it is sent: packed, and unpacked. Bytes; convention. */
export const CAPTURE_LIMITS = { bytes: 16_000_000, unpacked: 160_000_000, note: 200, standing: 400 } as const;

/** What was on the foot: captures with different things on are not compared as the same. */
export const CAPTURE_WEARING = ['barefoot', 'shoes', 'with-insole', 'taped', 'cued'] as const;
export type CaptureWearing = (typeof CAPTURE_WEARING)[number];

export const CAPTURE_WEARING_WORDS: Readonly<Record<CaptureWearing, string>> = {
  barefoot: phrase('Barefoot'),
  shoes: phrase('Own shoes'),
  'with-insole': phrase('Insole'),
  taped: phrase('Tape'),
  cued: phrase('With a cue'),
};

const KILOGRAMS = /^\d{1,3}(\.\d{1,2})?$/;
const FACTOR = /^\d{1,2}(\.\d{1,6})?$/;

/** What stands beside the bytes of a capture. */
export class CaptureQuery {
  @IsIn(LAB_TASKS, { message: 'Choose what was done' })
  task!: LabTask;

  @IsIn(['left', 'right', 'both'], { message: 'must be left, right or both' })
  side!: 'left' | 'right' | 'both';

  @IsIn(CAPTURE_WEARING, { message: 'Choose what was on the foot' })
  wearing!: CaptureWearing;

  @IsIn(['device', 'file'], { message: 'must be device or file' })
  from!: 'device' | 'file';

  @MaxLength(CAPTURE_LIMITS.note, { message: 'At most 200 characters' })
  @IsString({ message: 'At most 200 characters' })
  note!: string;

  /** Body mass in kg; left out where it is not known. */
  @IsOptional()
  @Matches(KILOGRAMS, { message: 'must be a body mass in kg' })
  mass?: string;

  /** What made newton of the mat's own numbers; left out where nothing did. */
  @IsOptional()
  @Matches(FACTOR, { message: 'must be a factor from 0 to 99' })
  factor?: string;
}

/** A capture without its readings. */
export interface CaptureView {
  readonly id: string;
  readonly kind: RecordingKind;
  readonly task: LabTask;
  readonly side: 'left' | 'right' | 'both';
  readonly wearing: CaptureWearing;
  readonly from: 'device' | 'file';
  readonly note: string;
  readonly massKg: number | null;
  readonly factor: number | null;
  readonly seconds: number;
  readonly device: string;
  readonly simulated: boolean;
  readonly at: string;
  readonly by: string;
}

/** A measure that a capture gives, and which quantity of it. */
export interface LabMeasure {
  readonly measure: MeasureDefinition;
  readonly source: LabSource;
}

/** The measures that captures of an instrument and a task give, in the order of the content. */
export const labMeasures = (
  measures: readonly MeasureDefinition[],
  kind: RecordingKind,
  task: LabTask,
): readonly LabMeasure[] =>
  measures.flatMap((measure) => {
    const source = measure.lab.find((l) => l.instrument === kind && l.task === task);
    return source === undefined ? [] : [{ measure, source }];
  });

/** A value of a capture as the entry of a visit: by which method, in which position, and from which capture. */
export function labEntry(
  { measure, source }: LabMeasure,
  value: number,
  capture: Pick<CaptureView, 'id' | 'side' | 'simulated'>,
): MeasureEntry {
  const position = capture.side === 'both' ? source.both : undefined;
  return {
    trials: [Number(value.toFixed(measure.decimals))],
    status: 'taken',
    pain: null,
    ...(source.method === measure.methods[0] ? {} : { method: source.method }),
    ...(position === undefined || position === measure.positions[0] ? {} : { position }),
    ...(capture.simulated ? { simulated: true } : {}),
    capture: capture.id,
  };
}

/** Where the value of a capture goes: its entry in a visit. */
export const labEntryKey = (measure: MeasureDefinition, side: Side): `measure.${string}.${Side}` =>
  `measure.${measure.key}.${side}`;
