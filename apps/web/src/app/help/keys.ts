/** Keys by where they work. */
export const KEYS: readonly (readonly [
  where: string,
  keys: readonly (readonly [key: string, does: string])[],
])[] = [
  [
    'Everywhere',
    [
      ['Ctrl K', 'look up a person, a measure, an exercise, a place'],
      ['?', 'this sheet: keys, words, what changed'],
      ['Esc', 'closes what is open'],
      ['W', 'on a number: why it is so'],
    ],
  ],
  [
    'Visit',
    [
      ['/', 'the quick line: lunge l 34 35 33'],
      ['Alt ↑ ↓', 'the step before, the step after'],
      ['Enter', 'the next trial, then the next measure'],
      ['P', 'on a reading: the pain with it'],
      ['Ctrl Z', 'takes the last entry back'],
      ['Ctrl Shift Z, Ctrl Y', 'makes it again'],
      ['P  A  N', 'a finding: present, absent, not tested'],
      ['Space, 1 to 9', 'counter: one more, a fault'],
    ],
  ],
  [
    'Plan',
    [
      ['↑ ↓', 'on a number: a step more or less'],
      ['digits', 'on a number: type another'],
      ['Space, arrows', 'on a mark of the week: to another day'],
      ['Ctrl Z, Ctrl Shift Z', 'takes the last change back, makes it again'],
    ],
  ],
];
