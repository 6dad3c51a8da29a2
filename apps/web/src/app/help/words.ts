/** A word of ours, what clinicians say for it, and what it means here. */
export interface Word {
  readonly word: string;
  readonly also: string;
  readonly means: string;
}

/** Words of ours that stand on more than one page. */
export const WORDS: readonly Word[] = [
  {
    word: 'Round',
    also: 'circuit, superset',
    means:
      'One set of each of some exercises in turn, a short rest between them, a longer one before the next round.',
  },
  {
    word: 'Routine',
    also: 'ready set, warm-up, cool-down, maintenance set',
    means:
      'A ready short set of exercises put beside a plan. It counts as relief or upkeep, never as a session.',
  },
  {
    word: 'Stage',
    also: 'phase of rehabilitation',
    means: 'A part of a protocol with its own aim, exercises and criteria for the next.',
  },
  {
    word: 'Slot',
    also: 'exercise category',
    means:
      'A place in a stage for one thing to be trained; it is filled with the right exercise for this person.',
  },
  {
    word: 'Ladder, rung',
    also: 'progression, regression',
    means: 'Exercises for one thing in order, each a step harder than the one below.',
  },
  {
    word: 'Criteria',
    also: 'return criteria, milestones',
    means:
      'What must hold before the next stage. Met within error: the number is there, the measurement error leaves a doubt.',
  },
  {
    word: 'Progress, hold, ease back',
    also: 'progress, maintain, regress',
    means: 'What the rules suggest at a review. The decision is yours, and is kept beside the suggestion.',
  },
  {
    word: 'Look again',
    also: 're-assess, plateau',
    means: 'No real change for the weeks the protocol waits: the diagnosis or the plan is looked at anew.',
  },
  {
    word: 'Green, amber, red',
    also: 'pain monitoring',
    means: 'What a session at home was by the pain rule: as it may be, at the edge, too much.',
  },
  {
    word: 'Pain rule',
    also: 'pain-monitoring model',
    means:
      'Comfort: pain may not rise. Next morning: up to 5, back to usual by the morning. Bone: none at all.',
  },
  { word: 'Flare', also: 'exacerbation', means: 'Red sessions running, or too many in two weeks.' },
  {
    word: 'Stop sign',
    also: 'red flag',
    means: 'Something that ends the exercise, the day, or calls for help at once.',
  },
  {
    word: 'Safety switches off',
    also: 'contraindication',
    means: 'An answer keeps a kind of exercise out of every plan until it is closed by its result.',
  },
  {
    word: 'School',
    also: 'clinical approach',
    means:
      'A choice on which practice differs, such as stretching first or loading first; made for each person.',
  },
  {
    word: 'Driver',
    also: 'contributing factor, impairment',
    means: 'Something found that keeps the complaint going and that a plan can work on.',
  },
  {
    word: 'Irritability',
    also: 'SIN factor',
    means: 'How easily it is provoked and how long it lasts; high asks for less at the start.',
  },
  {
    word: 'Both sides',
    also: 'bilateral',
    means: 'Each side must meet the plain limit, because there is no healthy side to compare with.',
  },
  {
    word: 'Error',
    also: 'SEM, MDC 95',
    means: 'How far a measurement may be off; a change within it is not called real.',
  },
  {
    word: 'Load of a week',
    also: 'external load, tonnage',
    means: 'Body weights on a tissue times seconds under tension. It ranks, and is never a safe limit.',
  },
  {
    word: 'Landings',
    also: 'contacts',
    means: 'Times a foot lands in hops and jumps; counted apart from slow load.',
  },
  {
    word: 'Beside the exercises',
    also: 'adjuncts',
    means: 'What is worn, done or left off, how much, and when it grows less.',
  },
  { word: 'Upkeep', also: 'maintenance', means: 'What is kept up after the last stage, without criteria.' },
];
