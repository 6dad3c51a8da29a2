import { IsIn, IsNumber, IsObject, IsOptional, IsUUID, Max, Min } from 'class-validator';
import { IsVersion } from './validators.js';
import type { Landmarks } from '@heathstep/core';

export const PHOTO_LIMITS = { bytes: 12_000_000, pixels: 60_000_000, side: 2400 } as const;

/** Pictures are told apart by their content, never by their name. */
export const PHOTO_TYPES = ['image/jpeg', 'image/png'] as const;

export interface PhotoView {
  readonly id: string;
  readonly visitId: string;
  readonly measure: string;
  readonly side: 'left' | 'right';
  readonly width: number;
  readonly height: number;
  readonly at: string;
  readonly by: string;
  /** Newest first. */
  readonly placements: readonly PlacementView[];
}

export interface PlacementView {
  readonly id: string;
  readonly landmarks: Landmarks;
  readonly rulerMm: number | null;
  readonly value: number;
  readonly plusMinus: number;
  readonly at: string;
  readonly by: string;
}

export class PlacementBody {
  @IsUUID(undefined, { message: 'must be a UUID' })
  id!: string;

  @IsObject({ message: 'must be the landmarks by name' })
  landmarks!: Record<string, { x: number; y: number }>;

  @IsOptional()
  @Max(2000, { message: 'At most 2000 mm' })
  @Min(1, { message: 'At least 1 mm' })
  @IsNumber({}, { message: 'Type the length of the ruler in mm' })
  rulerMm?: number | null;
}

export class PresenceBody {
  @IsIn(['story', 'safety', 'look', 'measure', 'load', 'feel', 'conclude'], { message: 'must be a step' })
  step!: string;

  /** Number of the newest entry this page knows of; 0 for none. */
  @IsVersion(0, 'must be a whole number')
  since!: number;
}
