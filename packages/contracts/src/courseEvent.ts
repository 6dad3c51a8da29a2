import { IsIn, IsISO8601, IsString, IsUUID, Matches, MaxLength } from 'class-validator';
import { phrase } from '@heathstep/core';

/** What may have bent a course, beside what is treated. */
export const EVENT_KINDS = ['illness', 'travel', 'shoes', 'injection', 'work', 'other'] as const;
export type EventKind = (typeof EVENT_KINDS)[number];

export const EVENT_WORDS: Readonly<Record<EventKind, string>> = {
  illness: phrase('illness'),
  travel: phrase('travel'),
  shoes: phrase('other shoes'),
  injection: phrase('injection'),
  work: phrase('change at work or in sport'),
  other: phrase('something else'),
};

/** As many as one complaint can have; more than are read in a chart. [convention] */
export const MOST_EVENTS = 60;

export class EventBody {
  @IsUUID(undefined, { message: 'must be a UUID' })
  id!: string;

  @IsIn(EVENT_KINDS, { message: 'Choose what it was' })
  kind!: EventKind;

  @IsISO8601({ strict: true }, { message: 'There is no such day' })
  @Matches(/^\d{4}-\d{2}-\d{2}$/, { message: 'Type a day such as 2026-05-31' })
  day!: string;

  @MaxLength(200, { message: 'At most 200 characters' })
  @IsString({ message: 'At most 200 characters' })
  note!: string;
}

export interface EventView {
  readonly id: string;
  readonly kind: EventKind;
  readonly day: string;
  readonly note: string;
  readonly by: string;
}
