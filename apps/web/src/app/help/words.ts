import { say } from '@heathstep/core';
/** A word of ours, what clinicians say for it, and what it means here. */
export interface Word {
  readonly word: string;
  readonly also: string;
  readonly means: string;
}

/** Words of ours that stand on more than one page. */
export const WORDS: readonly Word[] = [
  {
    word: say('Round'),
    also: say('circuit, superset'),
    means: say(
      'One set of each of some exercises in turn, a short rest between them, a longer one before the next round.',
    ),
  },
  {
    word: say('Routine'),
    also: say('ready set, warm-up, cool-down, maintenance set'),
    means: say(
      'A ready short set of exercises put beside a plan. It counts as relief or upkeep, never as a session.',
    ),
  },
  {
    word: say('Stage'),
    also: say('phase of rehabilitation'),
    means: say('A part of a protocol with its own aim, exercises and criteria for the next.'),
  },
  {
    word: say('Slot'),
    also: say('exercise category'),
    means: say(
      'A place in a stage for one thing to be trained; it is filled with the right exercise for this person.',
    ),
  },
  {
    word: say('Ladder, rung'),
    also: say('progression, regression'),
    means: say('Exercises for one thing in order, each a step harder than the one below.'),
  },
  {
    word: say('Criteria'),
    also: say('return criteria, milestones'),
    means: say(
      'What must hold before the next stage. Met within error: the number is there, the measurement error leaves a doubt.',
    ),
  },
  {
    word: say('Progress, hold, ease back'),
    also: say('progress, maintain, regress'),
    means: say(
      'What the rules suggest at a review. The decision is yours, and is kept beside the suggestion.',
    ),
  },
  {
    word: say('Look again'),
    also: say('re-assess, plateau'),
    means: say(
      'No real change for the weeks the protocol waits: the diagnosis or the plan is looked at anew.',
    ),
  },
  {
    word: say('Green, amber, red'),
    also: say('pain monitoring'),
    means: say('What a session at home was by the pain rule: as it may be, at the edge, too much.'),
  },
  {
    word: say('Pain rule'),
    also: say('pain-monitoring model'),
    means: say(
      'Comfort: pain may not rise. Next morning: up to 5, back to usual by the morning. Bone: none at all.',
    ),
  },
  {
    word: say('Flare'),
    also: say('exacerbation'),
    means: say('Red sessions running, or too many in two weeks.'),
  },
  {
    word: say('Stop sign'),
    also: say('red flag'),
    means: say('Something that ends the exercise, the day, or calls for help at once.'),
  },
  {
    word: say('Safety switches off'),
    also: say('contraindication'),
    means: say('An answer keeps a kind of exercise out of every plan until it is closed by its result.'),
  },
  {
    word: say('School'),
    also: say('clinical approach'),
    means: say(
      'A choice on which practice differs, such as stretching first or loading first; made for each person.',
    ),
  },
  {
    word: say('Driver'),
    also: say('contributing factor, impairment'),
    means: say('Something found that keeps the complaint going and that a plan can work on.'),
  },
  {
    word: say('Irritability'),
    also: say('SIN factor'),
    means: say('How easily it is provoked and how long it lasts; high asks for less at the start.'),
  },
  {
    word: say('Both sides'),
    also: say('bilateral'),
    means: say('Each side must meet the plain limit, because there is no healthy side to compare with.'),
  },
  {
    word: say('Error'),
    also: say('SEM, MDC 95'),
    means: say('How far a measurement may be off; a change within it is not called real.'),
  },
  {
    word: say('Load of a week'),
    also: say('external load, tonnage'),
    means: say('Body weights on a tissue times seconds under tension. It ranks, and is never a safe limit.'),
  },
  {
    word: say('Landings'),
    also: say('contacts'),
    means: say('Times a foot lands in hops and jumps; counted apart from slow load.'),
  },
  {
    word: say('Beside the exercises'),
    also: say('adjuncts'),
    means: say('What is worn, done or left off, how much, and when it grows less.'),
  },
  {
    word: say('Upkeep'),
    also: say('maintenance'),
    means: say('What is kept up after the last stage, without criteria.'),
  },
];
