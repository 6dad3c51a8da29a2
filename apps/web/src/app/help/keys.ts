import { say } from '@heathstep/core';
/** Keys by where they work. */
export const KEYS: readonly (readonly [
  where: string,
  keys: readonly (readonly [key: string, does: string])[],
])[] = [
  [
    say('Everywhere'),
    [
      [say('Ctrl K'), say('look up a person, a measure, an exercise, a place')],
      ['?', say('this sheet: keys, words, what changed')],
      [say('Esc'), say('closes what is open')],
      ['W', say('on a number: why it is so')],
    ],
  ],
  [
    say('Visit'),
    [
      ['/', say('the quick line: lunge l 34 35 33')],
      [say('Alt ↑ ↓'), say('the step before, the step after')],
      ['Enter', say('the next trial, then the next measure')],
      ['P', say('on a reading: the pain with it')],
      [say('Ctrl Z'), say('takes the last entry back')],
      [say('Ctrl Shift Z, Ctrl Y'), say('makes it again')],
      ['P  A  N', say('a finding: present, absent, not tested')],
      [say('Space, 1 to 9'), say('counter: one more, a fault')],
    ],
  ],
  [
    say('Plan'),
    [
      ['↑ ↓', say('on a number: a step more or less')],
      [say('digits'), say('on a number: type another')],
      [say('Space, arrows'), say('on a mark of the week: to another day')],
      [say('Ctrl Z, Ctrl Shift Z'), say('takes the last change back, makes it again')],
    ],
  ],
];
