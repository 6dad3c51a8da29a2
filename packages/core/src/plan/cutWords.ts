import { phrase, say } from '../quantity/tongue.js';
import type { Prescription } from './prescription.js';

/** What a dose has less of than it would have in full, a line each; `what` says what that is for. */
export function cutWords(item: Prescription, full: Prescription, what: string): string[] {
  const less = (name: 'sets' | 'reps' | 'timesPerDay' | 'daysPerWeek', line: string, words: string) =>
    item[name] < full[name] ? [say(line, { now: item[name], full: full[name], what: words })] : [];
  return [
    ...less('sets', phrase('{{now}} of {{full}} sets, {{what}}'), what),
    ...less('reps', phrase('{{now}} of {{full}} turns, {{what}}'), what),
    ...less('timesPerDay', phrase('{{now}} of {{full}} times a day, {{what}}'), what),
    ...less('daysPerWeek', phrase('{{now}} of {{full}} days, those there are'), ''),
  ];
}
