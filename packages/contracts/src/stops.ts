import { type ClosingWay, type DayText, spoken, type Tongue, say } from '@heathstep/core';

const DAY = new Intl.DateTimeFormat('en-GB', {
  day: 'numeric',
  month: 'short',
  year: 'numeric',
  timeZone: 'UTC',
});

const HARMLESS = 'harmless';

/** How a stop sign reported at home is closed, and what that makes of its day. */
export const STOP_ENDS: readonly ClosingWay[] = [
  {
    key: 'dealt-with',
    get label() {
      return say('Assessed and dealt with; the day stays a stop');
    },
    clears: true,
  },
  {
    key: HARMLESS,
    get label() {
      return say('Looked into and harmless; the day counts without it');
    },
    clears: true,
  },
];

/** Ids of stop signs that were closed as harmless. */
export const harmlessStops = (
  closures: readonly { readonly subject: string; readonly done: string | null }[],
): ReadonlySet<string> =>
  new Set(
    closures.flatMap((c) =>
      c.done === HARMLESS && c.subject.startsWith('stop:') ? [c.subject.slice('stop:'.length)] : [],
    ),
  );

/** A stop sign reported at home in words: where, when and what. */
export const reportedText = (stop: { readonly day: DayText; readonly sign: string }): string =>
  say('Reported at home on {{format}}: {{sign}}', {
    format: DAY.format(new Date(stop.day)),
    sign: stop.sign,
  });

/** What the patient reads once a stop sign was reported; after one that needs help at once, the number to call stays. */
export const stoppedText = (
  grades: readonly string[],
  emergencyNumber: string,
  t: Tongue = spoken(),
): string =>
  grades.includes('emergency')
    ? t.say(
        'You reported a sign that needs help at once. Call {{number}} now, if you have not yet. No exercises until your clinic has spoken with you.',
        { number: emergencyNumber },
      )
    : t.say('You reported a stop sign. Please wait until your clinic has spoken with you.');
