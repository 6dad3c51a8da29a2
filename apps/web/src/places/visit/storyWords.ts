import type { EntryValue } from '@heathstep/contracts';

export type ToldKey = 'story.onset' | 'story.since';
export type ToldListKey = 'story.load-change' | 'story.worse-when' | 'story.character';

interface Option<V> {
  readonly value: V;
  readonly label: string;
}

/** What a story's sentence can say, where one answer holds. */
export const STORY_CHOICES: { readonly [K in ToldKey]: readonly Option<EntryValue<K>>[] } = {
  'story.onset': [
    { value: 'gradual', label: 'gradually' },
    { value: 'sudden', label: 'suddenly, without an injury' },
    { value: 'injury', label: 'with an injury' },
  ],
  'story.since': [
    { value: 'under-2-weeks', label: 'under 2 weeks ago' },
    { value: '2-to-6-weeks', label: '2 to 6 weeks ago' },
    { value: '6-weeks-to-3-months', label: '6 weeks to 3 months ago' },
    { value: '3-to-6-months', label: '3 to 6 months ago' },
    { value: '6-to-12-months', label: '6 to 12 months ago' },
    { value: 'over-a-year', label: 'over a year ago' },
  ],
};

/** What it can say where several answers hold, and how none of them is said. */
export const STORY_LISTS: {
  readonly [K in ToldListKey]: { readonly none: string; readonly options: readonly Option<string>[] };
} = {
  'story.load-change': {
    none: 'no change of load',
    options: [
      { value: 'longer-round', label: 'more walking' },
      { value: 'more-running', label: 'more running' },
      { value: 'more-standing', label: 'more standing' },
      { value: 'new-shoes', label: 'new or flat shoes' },
      { value: 'weight', label: 'a gain of weight' },
    ],
  },
  'story.worse-when': {
    none: 'at no time in particular',
    options: [
      { value: 'first-steps', label: 'on first steps' },
      { value: 'standing', label: 'on standing long' },
      { value: 'end-of-day', label: 'at the end of the day' },
      { value: 'during-sport', label: 'during sport' },
      { value: 'after-sport', label: 'after sport' },
    ],
  },
  'story.character': {
    none: 'no burning, numbness or back stiffness',
    options: [
      { value: 'burning', label: 'burning' },
      { value: 'numb', label: 'numbness or tingling' },
      { value: 'both-heels-back-stiff', label: 'both heels and a stiff back in the morning' },
    ],
  },
};
