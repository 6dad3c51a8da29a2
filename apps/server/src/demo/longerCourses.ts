import { stageKey } from '@heathstep/core';
import { concluded } from './conclusions.js';
import type { DemoPair, DemoPerson, DemoVisit } from './people.js';

/** A review at which the same few things were measured again. */
const again = (daysAgo: number, measures: Readonly<Record<string, DemoPair>>): DemoVisit => ({
  daysAgo,
  signed: true,
  safety: {},
  measures,
  skills: { 'foot-shortening': ['learned', 'learned'], 'big-toe-control': ['learned', 'learned'] },
});

/** Made-up people measured often enough for a forecast: one goes on steadily, with both feet; of one it slips. */
export const LONGER_COURSES: readonly DemoPerson[] = [
  {
    name: 'Øyvind Farrow',
    born: '1996-04-11',
    occupation: 'folk dancer and joiner',
    sex: 'male',
    affected: 'both',
    minutesPerDay: 20,
    equipment: ['towel', 'belt', 'step'],
    visits: [
      {
        daysAgo: 47,
        signed: true,
        story: {
          'story.onset': 'gradual',
          'story.since': '3-to-6-months',
          'story.character': ['none'],
          'story.provoked': false,
          'story.settles': 45,
          'story.night': false,
          'story.regions': ['left:heel-inner', 'right:heel-inner'],
          'story.worst': 6,
          'story.now': 2,
          'story.load-change': ['new-shoes'],
          'story.worse-when': ['first-steps', 'after-sport'],
          'story.activities': [{ text: 'Dancing a whole evening', ability: 4 }],
          'finding.tender-heel-inner.left': 'present',
          'finding.tender-heel-inner.right': 'present',
          'conclude.ideas': [concluded('plantar-heel-pain', 'left'), concluded('plantar-heel-pain', 'right')],
          'measure.body-mass.none': { trials: [77], status: 'taken', pain: null },
          'story.goal': 'The midsummer dance, to the end',
        },
        safety: {},
        measures: {
          'first-step-pain': [[5], [6]],
          'lunge-knee-bent': [
            [36, 36, 37],
            [35, 35, 36],
          ],
          'single-leg-heel-raise': [[1], [1], 2, 3],
          'foot-shortening-hold': [
            [6, 7],
            [5, 6],
          ],
        },
        skills: { 'foot-shortening': ['partial', 'partial'], 'big-toe-control': ['partial', 'partial'] },
      },
      again(33, {
        'first-step-pain': [[4], [4]],
        'lunge-knee-bent': [
          [37, 37, 38],
          [37, 37, 37],
        ],
        'single-leg-heel-raise': [[2], [2]],
        'foot-shortening-hold': [
          [9, 9],
          [8, 9],
        ],
      }),
      again(19, {
        'first-step-pain': [[4], [4]],
        'lunge-knee-bent': [
          [38, 38, 38],
          [38, 38, 38],
        ],
        'single-leg-heel-raise': [[3], [2]],
        'foot-shortening-hold': [
          [11, 11],
          [10, 11],
        ],
      }),
      again(5, {
        'first-step-pain': [[3], [4]],
        'lunge-knee-bent': [
          [39, 38, 39],
          [38, 38, 39],
        ],
        'single-leg-heel-raise': [[4], [3]],
        'foot-shortening-hold': [
          [12, 12],
          [12, 12],
        ],
      }),
    ],
    stages: [
      { stage: stageKey('calm'), daysAgo: 47, reason: 'plan given' },
      { stage: stageKey('build'), daysAgo: 33, reason: 'criteria met' },
    ],
    home: { seed: 61, startPain: 5, endPain: 3.6, adherence: 0.93, flareDaysAgo: [], sinceDaysAgo: 46 },
  },
  {
    name: 'Ragna Thirlby',
    born: '1993-12-02',
    occupation: 'potter',
    sex: 'female',
    affected: 'right',
    minutesPerDay: 20,
    equipment: ['towel', 'belt', 'step'],
    visits: [
      {
        daysAgo: 46,
        signed: true,
        story: {
          'story.onset': 'gradual',
          'story.since': '6-weeks-to-3-months',
          'story.character': ['none'],
          'story.provoked': false,
          'story.settles': 60,
          'story.night': false,
          'story.regions': ['right:heel-inner'],
          'story.worst': 6,
          'story.now': 1,
          'story.load-change': ['more-standing'],
          'story.worse-when': ['first-steps', 'standing'],
          'story.activities': [{ text: 'A morning at the wheel', ability: 5 }],
          'finding.tender-heel-inner.right': 'present',
          'conclude.ideas': [concluded('plantar-heel-pain', 'right')],
          'measure.body-mass.none': { trials: [66], status: 'taken', pain: null },
          'story.goal': 'Stand at the kiln on firing days',
        },
        safety: {},
        measures: {
          'first-step-pain': [[0], [6]],
          'lunge-knee-bent': [
            [38, 38, 38],
            [35, 36, 36],
          ],
          'single-leg-heel-raise': [[22], [7], undefined, 3],
          'foot-shortening-hold': [
            [10, 11],
            [6, 6],
          ],
        },
        skills: { 'foot-shortening': ['learned', 'partial'], 'big-toe-control': ['learned', 'partial'] },
      },
      again(32, {
        'first-step-pain': [[0], [5]],
        'lunge-knee-bent': [
          [38, 38, 38],
          [36, 37, 37],
        ],
        'single-leg-heel-raise': [[22], [11]],
        'foot-shortening-hold': [
          [11, 11],
          [9, 9],
        ],
      }),
      again(18, {
        'first-step-pain': [[0], [4]],
        'lunge-knee-bent': [
          [38, 39, 38],
          [37, 37, 38],
        ],
        'single-leg-heel-raise': [[22], [15]],
        'foot-shortening-hold': [
          [11, 12],
          [11, 12],
        ],
      }),
      again(4, {
        'first-step-pain': [[0], [4]],
        'lunge-knee-bent': [
          [38, 38, 38],
          [37, 38, 38],
        ],
        'single-leg-heel-raise': [[22], [9]],
        'foot-shortening-hold': [
          [12, 12],
          [12, 12],
        ],
      }),
    ],
    stages: [
      { stage: stageKey('calm'), daysAgo: 46, reason: 'plan given' },
      { stage: stageKey('build'), daysAgo: 32, reason: 'criteria met' },
    ],
    home: { seed: 67, startPain: 5, endPain: 3.6, adherence: 0.9, flareDaysAgo: [], sinceDaysAgo: 45 },
  },
];
