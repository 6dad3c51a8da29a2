import { say } from '@heathstep/core';
import {
  IsIn,
  IsInt,
  IsNumber,
  IsOptional,
  IsString,
  IsUUID,
  Length,
  Matches,
  Max,
  MaxLength,
  Min,
} from 'class-validator';
import { IsVersion } from './validators.js';
import type { MeasureDefinition } from '@heathstep/core';

/** A measure a clinic adds for itself, such as the total of a questionnaire it holds a licence for. */
export class OwnMeasureBody {
  @IsUUID(undefined, { message: 'must be a UUID' })
  id!: string;

  /** Version this edit was based on; 0 for a new one. */
  @IsVersion(0, 'must be the version last read, or 0')
  version!: number;

  @Matches(/\S/, { message: 'Type a name of 2 to 60 characters' })
  @Length(2, 60, { message: 'Type a name of 2 to 60 characters' })
  @IsString({ message: 'Type a name of 2 to 60 characters' })
  label!: string;

  @MaxLength(12, { message: 'A unit of at most 12 characters, or none' })
  @IsString({ message: 'A unit, or none' })
  unit!: string;

  @IsIn(['each', 'single'], { message: 'Each side, or one value' })
  sides!: 'each' | 'single';

  @Max(6, { message: 'From 1 to 6 trials' })
  @Min(1, { message: 'From 1 to 6 trials' })
  @IsInt({ message: 'From 1 to 6 trials' })
  trials!: number;

  @IsIn(['mean', 'best', 'last'], { message: 'Mean, best or last' })
  combine!: 'mean' | 'best' | 'last';

  @IsIn(['more', 'less'], { message: 'More or less is better' })
  direction!: 'more' | 'less';

  @IsNumber({}, { message: 'Type the lowest possible value' })
  min!: number;

  @IsNumber({}, { message: 'Type the highest possible value' })
  max!: number;

  @Max(3, { message: 'From 0 to 3 decimals' })
  @Min(0, { message: 'From 0 to 3 decimals' })
  @IsInt({ message: 'From 0 to 3 decimals' })
  decimals!: number;

  /** Minimal detectable change; left out when not known. */
  @IsOptional()
  @Min(0.0001, { message: 'More than nothing, or leave it empty' })
  @IsNumber({}, { message: 'Type a number, or leave it empty' })
  mdc?: number | null;

  @IsOptional()
  @IsIn(['>=', '>', '<=', '<'], { message: 'Choose how it is compared' })
  thresholdOp?: '>=' | '>' | '<=' | '<' | null;

  @IsOptional()
  @IsNumber({}, { message: 'Type a number, or leave it empty' })
  thresholdValue?: number | null;

  @IsOptional()
  @MaxLength(80, { message: 'At most 80 characters' })
  @IsString({ message: 'Say what it means' })
  thresholdMeaning?: string | null;

  @Length(3, 200, { message: 'Say where the measure and its limits come from' })
  @IsString({ message: 'Say where the measure and its limits come from' })
  source!: string;

  @IsIn(['story', 'look', 'measure', 'load', 'feel'], { message: 'Choose the step of the visit' })
  step!: MeasureDefinition['step'];

  @MaxLength(400, { message: 'At most 400 characters' })
  @IsString({ message: 'Say how it is taken' })
  method!: string;
}

/** What single fields cannot see: the order of the limits, and a threshold that is whole. */
export function ownMeasureProblems(body: OwnMeasureBody): { field: keyof OwnMeasureBody; detail: string }[] {
  const parts = [body.thresholdOp ?? null, body.thresholdValue ?? null, body.thresholdMeaning ?? null];
  const given = parts.filter((p) => p !== null && p !== '').length;
  const outside = (v: number | null | undefined) => v != null && (v < body.min || v > body.max);
  return [
    ...(body.max > body.min
      ? []
      : [{ field: 'max' as const, detail: say('The highest lies above the lowest') }]),
    ...(given === 0 || given === parts.length
      ? []
      : [
          {
            field: 'thresholdValue' as const,
            detail: say('A threshold needs its comparison, value and meaning'),
          },
        ]),
    ...(outside(body.thresholdValue)
      ? [{ field: 'thresholdValue' as const, detail: say('The threshold lies outside the possible values') }]
      : []),
  ];
}

export const ownMeasureKey = (id: string): string => `own-${id.slice(0, 8)}`;

/** The definition every rule works with, from what a clinic filled in. */
export function ownMeasure(body: OwnMeasureBody): MeasureDefinition {
  const key = ownMeasureKey(body.id);
  const alias = body.label
    .toLowerCase()
    .replace(/[^a-z]+/g, ' ')
    .trim();
  const hasThreshold = body.thresholdOp != null && body.thresholdValue != null;
  return {
    key,
    label: body.label.trim(),
    brief: `${body.combine} of ${body.trials}, our own`,
    region: 'own',
    step: body.step,
    aliases: alias === '' ? [] : [alias],
    sides: body.sides,
    unit: body.unit.trim() === '' ? 'points' : body.unit.trim(),
    unitLabel: body.unit.trim(),
    decimals: body.decimals,
    allowed: { min: body.min, max: body.max },
    usual: { min: body.min, max: body.max },
    trials: { count: body.trials, combine: body.combine },
    direction: body.direction,
    band: null,
    scale: body.min < 0 ? 'signed' : 'ratio',
    error: body.mdc == null ? null : { mdc: body.mdc, source: body.source },
    important: null,
    sideFlag:
      body.mdc == null || body.sides === 'single'
        ? null
        : { kind: 'difference', op: '>=', value: body.mdc, source: 'At least the detectable change' },
    thresholds: hasThreshold
      ? [
          {
            key: 'own',
            op: body.thresholdOp ?? '>=',
            value: body.thresholdValue ?? 0,
            meaning: body.thresholdMeaning ?? '',
            source: body.source,
          },
        ]
      : [],
    method: body.method.trim() === '' ? ['As agreed in the clinic'] : [body.method.trim()],
    methods: ['as agreed in the clinic'],
    positions: ['as agreed in the clinic'],
    setup: null,
    tool: null,
    device: null,
    photo: null,
    lab: [],
    levels: null,
    computed: null,
    byAge: null,
    painless: false,
    evidence: { statement: 'Added by this clinic', source: body.source, kind: 'convention', version: 1 },
  };
}
