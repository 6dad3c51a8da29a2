import { say } from '@heathstep/core';
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
    { value: 'gradual', label: say('gradually') },
    { value: 'sudden', label: say('suddenly, without an injury') },
    { value: 'injury', label: say('with an injury') },
  ],
  'story.since': [
    { value: 'under-2-weeks', label: say('under 2 weeks ago') },
    { value: '2-to-6-weeks', label: say('2 to 6 weeks ago') },
    { value: '6-weeks-to-3-months', label: say('6 weeks to 3 months ago') },
    { value: '3-to-6-months', label: say('3 to 6 months ago') },
    { value: '6-to-12-months', label: say('6 to 12 months ago') },
    { value: 'over-a-year', label: say('over a year ago') },
  ],
};

/** What it can say where several answers hold, and how none of them is said. */
export const STORY_LISTS: {
  readonly [K in ToldListKey]: { readonly none: string; readonly options: readonly Option<string>[] };
} = {
  'story.load-change': {
    none: say('no change of load'),
    options: [
      { value: 'longer-round', label: say('more walking') },
      { value: 'more-running', label: say('more running') },
      { value: 'more-standing', label: say('more standing') },
      { value: 'new-shoes', label: say('new or flat shoes') },
      { value: 'weight', label: say('a gain of weight') },
    ],
  },
  'story.worse-when': {
    none: say('at no time in particular'),
    options: [
      { value: 'first-steps', label: say('on first steps') },
      { value: 'standing', label: say('on standing long') },
      { value: 'end-of-day', label: say('at the end of the day') },
      { value: 'during-sport', label: say('during sport') },
      { value: 'after-sport', label: say('after sport') },
    ],
  },
  'story.character': {
    none: say('no burning, numbness or back stiffness'),
    options: [
      { value: 'burning', label: say('burning') },
      { value: 'numb', label: say('numbness or tingling') },
      { value: 'both-heels-back-stiff', label: say('both heels and a stiff back in the morning') },
    ],
  },
};
