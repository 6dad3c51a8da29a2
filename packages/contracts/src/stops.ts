import { type DayText, ENGLISH, type Tongue } from '@heathstep/core';

const DAY = new Intl.DateTimeFormat('en-GB', {
  day: 'numeric',
  month: 'short',
  year: 'numeric',
  timeZone: 'UTC',
});

/** A stop sign reported at home in words: where, when and what. */
export const reportedText = (stop: { readonly day: DayText; readonly sign: string }): string =>
  `Reported at home on ${DAY.format(new Date(stop.day))}: ${stop.sign}`;

/** What the patient reads once a stop sign was reported; after one that needs help at once, the number to call stays. */
export const stoppedText = (
  grades: readonly string[],
  emergencyNumber: string,
  t: Tongue = ENGLISH,
): string =>
  grades.includes('emergency')
    ? t.say(
        'You reported a sign that needs help at once. Call {{number}} now, if you have not yet. No exercises until your clinic has spoken with you.',
        { number: emergencyNumber },
      )
    : t.say('You reported a stop sign. Please wait until your clinic has spoken with you.');
