import type { WeekConflict } from '@heathstep/core';

export const DAYS = ['Mon', 'Tue', 'Wed', 'Thu', 'Fri', 'Sat', 'Sun'];
const WHOLE = ['Monday', 'Tuesday', 'Wednesday', 'Thursday', 'Friday', 'Saturday', 'Sunday'];

export const dayName = (day: number): string => WHOLE[day] ?? '';

const CONFLICT_WORDS: Readonly<Record<WeekConflict['kind'], string>> = {
  'no-rest-between': 'Hops and runs on days running: 48 hours belong between them',
  'heavy-and-run': 'Heavy calf work and a run on one day: put them on different days',
};

/** What a week does against the rules of load, as one sentence. */
export const conflictText = (c: WeekConflict): string =>
  `${CONFLICT_WORDS[c.kind]} (${c.days.map((d) => DAYS[d] ?? '').join(', ')}: ${c.exercises.join(', ').toLowerCase()}).`;
