import { say } from '@heathstep/core';
import type { WeekConflict } from '@heathstep/core';

export const DAYS = [say('Mon'), say('Tue'), say('Wed'), say('Thu'), say('Fri'), say('Sat'), say('Sun')];
const WHOLE = [
  say('Monday'),
  say('Tuesday'),
  say('Wednesday'),
  say('Thursday'),
  say('Friday'),
  say('Saturday'),
  say('Sunday'),
];

export const dayName = (day: number): string => WHOLE[day] ?? '';

const CONFLICT_WORDS: Readonly<Record<WeekConflict['kind'], string>> = {
  'no-rest-between': say('Hops and runs on days running: 48 hours belong between them'),
  'heavy-and-run': say('Heavy calf work and a run on one day: put them on different days'),
};

/** What a week does against the rules of load, as one sentence. */
export const conflictText = (c: WeekConflict): string =>
  `${CONFLICT_WORDS[c.kind]} (${c.days.map((d) => DAYS[d] ?? '').join(', ')}: ${c.exercises.join(', ').toLowerCase()}).`;
