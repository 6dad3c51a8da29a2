import { stageKey } from '@heathstep/core';
import { concluded } from './conclusions.js';
import type { DemoPair, DemoPerson, DemoVisit } from './people.js';

const taken = (...trials: number[]) => ({ trials, status: 'taken', pain: null });

const again = (
  daysAgo: number,
  measures: Readonly<Record<string, DemoPair>>,
  story: Record<string, unknown> = {},
): DemoVisit => ({ daysAgo, signed: true, story, safety: {}, measures });

/** A made-up swimmer whose tendon was treated to the end, and a fiddler some way after a stroke. */
export const CLOSED_COURSES: readonly DemoPerson[] = [
  {
    name: 'Solveig Harrow',
    born: '1988-02-17',
    occupation: 'swimmer and school cook',
    sex: 'female',
    condition: 'achilles-midportion',
    affected: 'left',
    minutesPerDay: 25,
    equipment: ['step', 'hand weight', 'towel'],
    visits: [
      {
        daysAgo: 408,
        signed: true,
        story: {
          'story.onset': 'gradual',
          'story.since': '6-weeks-to-3-months',
          'story.character': ['none'],
          'story.provoked': false,
          'story.settles': 60,
          'story.night': false,
          'story.now': 2,
          'story.worst': 7,
          'story.load-change': ['more-running'],
          'story.worse-when': ['after-sport'],
          'story.regions': ['left:achilles'],
          'story.activities': [
            { text: 'Push off from the wall', ability: 4 },
            { text: 'Running for the bus', ability: 3 },
          ],
          'measure.body-mass.none': taken(71),
          'finding.calf-squeeze-still.left': 'absent',
          'finding.quinolone-lately.none': 'absent',
          'finding.tender-achilles-mid.left': 'present',
          'conclude.ideas': [concluded('achilles-midportion', 'left')],
          'story.goal': 'The lake crossing in summer',
        },
        safety: {},
        measures: {
          'pain-worst-day': [[7], [0]],
          'pain-next-morning': [[6], [0]],
          'tendon-total': [[48], [100]],
          'single-leg-heel-raise': [[7], [23], 4],
          'heel-raise-height': [[8], [11.5]],
          'lunge-knee-bent': [
            [36, 37, 37],
            [41, 41, 40],
          ],
        },
      },
      again(394, { 'tendon-total': [[56], [100]], 'single-leg-heel-raise': [[10], [23]] }),
      again(330, {
        'tendon-total': [[72], [100]],
        'single-leg-heel-raise': [[18], [24]],
        'heel-raise-height': [[10], [11.5]],
      }),
      again(295, {
        'tendon-total': [[83], [100]],
        'single-leg-heel-raise': [[22], [24]],
        'heel-raise-height': [[11], [11.5]],
        'pain-twenty-hops': [[1], [0]],
      }),
      again(232, {
        'tendon-total': [[92], [100]],
        'single-leg-heel-raise': [[24], [25]],
        'heel-raise-height': [[11.5], [11.5]],
        'lunge-knee-bent': [
          [40, 41, 41],
          [41, 41, 41],
        ],
      }),
      again(
        12,
        {
          'pain-worst-day': [[0], [0]],
          'tendon-total': [[97], [100]],
          'single-leg-heel-raise': [[25], [25]],
          'heel-raise-height': [[11.5], [11.5]],
        },
        {
          'story.activities': [
            { text: 'Push off from the wall', ability: 10 },
            { text: 'Running for the bus', ability: 9 },
          ],
        },
      ),
    ],
    stages: [
      { stage: stageKey('settle-first'), daysAgo: 408, reason: 'plan given' },
      { stage: stageKey('slow-load'), daysAgo: 394, reason: 'criteria met' },
      { stage: stageKey('fast-springy'), daysAgo: 330, reason: 'criteria met' },
      { stage: stageKey('back-to-sport'), daysAgo: 295, reason: 'criteria met' },
      { stage: stageKey('upkeep'), daysAgo: 232, reason: 'criteria met' },
    ],
    home: {
      seed: 71,
      startPain: 5,
      endPain: 0.3,
      adherence: 0.8,
      flareDaysAgo: [350],
      sinceDaysAgo: 407,
      untilDaysAgo: 232,
    },
    ended: {
      daysAgo: 12,
      outcome: 'goals-reached',
      note: 'Crossed the lake in August. Goes on with heavy raises twice a week by herself.',
    },
  },
  {
    name: 'Anselm Wray',
    born: '1957-09-30',
    occupation: 'fiddler',
    sex: 'male',
    condition: 'curled-toes',
    affected: 'right',
    minutesPerDay: 20,
    equipment: ['towel', 'small objects'],
    visits: [
      {
        daysAgo: 26,
        signed: true,
        story: {
          'story.onset': 'gradual',
          'story.since': '6-to-12-months',
          'story.character': ['none'],
          'story.provoked': false,
          'story.settles': 30,
          'story.night': false,
          'story.now': 1,
          'story.worst': 5,
          'story.load-change': ['none'],
          'story.worse-when': ['standing'],
          'story.regions': ['right:toes'],
          'story.activities': [{ text: 'Standing to play two dances', ability: 4 }],
          'measure.body-mass.none': taken(74),
          'measure.walking-speed.none': taken(0.78),
          'finding.toes-correctable.right': 'present',
          'finding.toe-tone-raised.right': 'absent',
          'conclude.ideas': [concluded('lesser-toe-deformity', 'right')],
          'story.goal': 'Stand to play again',
        },
        safety: { spasticity: 'yes' },
        measures: { 'pain-worst-day': [[0], [5]] },
      },
      again(5, {
        'pain-worst-day': [[0], [3]],
      }),
    ],
    stages: [
      { stage: stageKey('ease-toes'), daysAgo: 26, reason: 'plan given' },
      { stage: stageKey('wake-up'), daysAgo: 5, reason: 'criteria met' },
    ],
    home: { seed: 73, startPain: 3, endPain: 1.6, adherence: 0.85, flareDaysAgo: [], sinceDaysAgo: 25 },
  },
];
