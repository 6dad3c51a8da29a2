/** What an update brought, for who uses it. */
export interface News {
  /** Day it came, ISO; also what says whether it was read. */
  readonly day: string;
  readonly lines: readonly string[];
}

/** The newest first. What only concerns who runs it is left out. */
export const CHANGES: readonly News[] = [
  {
    day: '2026-11-27',
    lines: [
      'Exercises can be done in rounds; ready routines stand beside a plan, and a plan is kept as one.',
      'A dose beyond the usual range is taken with a reason.',
      'Letters keep what you wrote, and carry story, tests and every measure; your register number stands under them.',
      'Under your initials: where you are signed in, and a sign-out everywhere else.',
      'Bounding, running with quicker steps, the standing bike and walking in water are in the library.',
      'At home an ordinary ache is weighed by the pain rule, and the exercise goes on where it stood.',
      'Patients read what the next stage waits for, on paper and on the phone.',
      'A time of day for the exercises, held against the person’s own calendar file.',
      'Squats, hops and tests on one leg say “too early today” on a foot that is fresh or irritable.',
      'A decision shows the plan it would draft before it is used.',
      'A tissue that another complaint’s plan loads is counted once for all.',
      'One run is at most a tenth longer than the longest of the last 30 days.',
      'Protocols: what is asked at home and what is chosen can be changed here.',
      'A visit fits a telephone, step by step.',
    ],
  },
  {
    day: '2026-11-20',
    lines: [
      'Safety asks what this complaint and person can need; what was not tested says why.',
      'A person is corrected, a complaint closed with how it ended.',
      'A visit prints as one page.',
    ],
  },
];
