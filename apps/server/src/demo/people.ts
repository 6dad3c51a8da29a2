import { type SkillLevel, type StageKey, stageKey } from '@heathstep/core';
import type { EventKind, Outcome } from '@heathstep/contracts';
import type { SafetyAnswer } from '@heathstep/core';
import { concluded } from './conclusions.js';

/** A measured pair: trials left, trials right, and pain with it on each side. */
export type DemoPair = readonly [
  left: readonly number[],
  right: readonly number[],
  painLeft?: number | undefined,
  painRight?: number | undefined,
];

export interface DemoVisit {
  readonly daysAgo: number;
  readonly signed: boolean;
  readonly story?: Readonly<Record<string, unknown>>;
  /** Answers other than no; `open` leaves the questions unanswered. */
  readonly safety: Readonly<Record<string, SafetyAnswer>> | 'open';
  readonly measures: Readonly<Record<string, DemoPair>>;
  readonly skills?: Readonly<Record<string, readonly [left: SkillLevel, right: SkillLevel]>>;
}

interface DemoStage {
  readonly stage: StageKey;
  readonly daysAgo: number;
  readonly reason: string;
}

export interface DemoPerson {
  readonly name: string;
  readonly born: string;
  readonly occupation: string;
  readonly sex?: 'female' | 'male';
  /** Plantar heel pain when left out. */
  readonly condition?: string;
  readonly affected: 'left' | 'right' | 'both';
  readonly minutesPerDay: number;
  readonly equipment: readonly string[];
  readonly visits: readonly DemoVisit[];
  readonly stages: readonly DemoStage[];
  /** Simulated home log since the first plan; null when none was given. */
  readonly home: {
    readonly seed: number;
    readonly startPain: number;
    readonly endPain: number;
    readonly adherence: number;
    readonly flareDaysAgo: readonly number[];
    readonly sinceDaysAgo: number;
    /** When they logged last; today when left out. */
    readonly untilDaysAgo?: number;
  } | null;
  /** What happened meanwhile. */
  readonly events?: readonly { readonly daysAgo: number; readonly kind: EventKind; readonly note: string }[];
  /** How it was closed; open when left out. */
  readonly ended?: { readonly daysAgo: number; readonly outcome: Outcome; readonly note: string };
}

const story = (more: Record<string, unknown>): Record<string, unknown> => ({
  'story.onset': 'gradual',
  'story.since': '6-weeks-to-3-months',
  'story.character': ['none'],
  'story.provoked': false,
  'story.settles': 60,
  'story.night': false,
  ...more,
});

/** The made-up people of the demo clinic, each at a different point of the heel pain protocol. */
export const DEMO_PEOPLE: readonly DemoPerson[] = [
  {
    name: 'Marit Osgar',
    born: '1980-03-14',
    occupation: 'postal worker',
    sex: 'female',
    affected: 'left',
    minutesPerDay: 20,
    events: [
      { daysAgo: 17, kind: 'travel', note: 'two days on trains' },
      { daysAgo: 9, kind: 'shoes', note: 'new work boots' },
    ],
    equipment: ['towel', 'belt', 'ball', 'step'],
    visits: [
      {
        daysAgo: 35,
        signed: true,
        story: story({
          'story.regions': ['left:heel-inner'],
          'story.worst': 7,
          'story.now': 2,
          'story.load-change': ['longer-round'],
          'story.worse-when': ['first-steps', 'end-of-day'],
          'story.activities': [
            { text: 'Walking the double round', ability: 4 },
            { text: 'Standing to cook', ability: 6 },
          ],
          'measure.body-mass.none': { trials: [74], status: 'taken', pain: null },
          'finding.tender-heel-inner.left': 'present',
          'finding.windlass-test.left': 'absent',
          'finding.hard-floors.left': 'absent',
          'conclude.ideas': [concluded('plantar-heel-pain', 'left')],
          'story.goal': 'Walk the whole round without thinking of my heel',
        }),
        safety: {},
        measures: {
          'first-step-pain': [[7], [0]],
          'lunge-knee-bent': [[29, 30, 29.5], [39, 40, 39], 2],
          'lunge-knee-straight': [[22, 23, 22], [32, 33, 33], 1],
          'big-toe-extension': [
            [50, 51],
            [63, 64],
          ],
          'single-leg-heel-raise': [[4], [17], 4],
          'foot-shortening-hold': [
            [4, 5],
            [9, 10],
          ],
          'foot-posture-index': [[6], [5]],
        },
        skills: { 'foot-shortening': ['none', 'partial'], 'big-toe-control': ['none', 'partial'] },
      },
      {
        daysAgo: 12,
        signed: true,
        story: { 'story.worst': 5, 'story.now': 1, 'story.regions': ['left:heel-inner'] },
        safety: {},
        measures: {
          'first-step-pain': [[4], [0]],
          'lunge-knee-bent': [[31, 31, 31.5], [39.5, 40, 40], 1],
          'lunge-knee-straight': [
            [24, 24, 25],
            [33, 33, 33],
          ],
          'single-leg-heel-raise': [[8], [18], 3],
          'foot-shortening-hold': [
            [6, 7],
            [10, 10],
          ],
        },
        skills: { 'foot-shortening': ['partial', 'learned'], 'big-toe-control': ['partial', 'learned'] },
      },
    ],
    stages: [
      { stage: stageKey('calm'), daysAgo: 35, reason: 'plan given' },
      { stage: stageKey('build'), daysAgo: 12, reason: 'criteria met' },
    ],
    home: { seed: 11, startPain: 6.6, endPain: 3.2, adherence: 0.9, flareDaysAgo: [18], sinceDaysAgo: 34 },
  },
  {
    name: 'Ilse Venning',
    born: '1974-09-02',
    occupation: 'choir singer and caretaker',
    sex: 'female',
    affected: 'right',
    minutesPerDay: 25,
    equipment: ['towel', 'belt', 'step', 'hand weight'],
    visits: [
      {
        daysAgo: 58,
        signed: true,
        story: story({
          'story.regions': ['right:heel-inner', 'right:arch'],
          'story.worst': 6,
          'story.now': 1,
          'story.load-change': ['new-shoes'],
          'story.worse-when': ['first-steps', 'standing'],
          'story.activities': [{ text: 'Standing through a concert', ability: 5 }],
          'finding.tender-heel-inner.right': 'present',
          'conclude.ideas': [concluded('plantar-heel-pain', 'right')],
          'measure.body-mass.none': { trials: [68], status: 'taken', pain: null },
        }),
        safety: {},
        measures: {
          'first-step-pain': [[0], [6]],
          'lunge-knee-bent': [
            [38, 39, 38],
            [35, 35, 36],
          ],
          'single-leg-heel-raise': [[21], [9], undefined, 3],
          'foot-shortening-hold': [
            [9, 10],
            [5, 6],
          ],
          'big-toe-extension': [
            [66, 67],
            [61, 62],
          ],
        },
        skills: { 'foot-shortening': ['partial', 'none'], 'big-toe-control': ['learned', 'partial'] },
      },
      {
        daysAgo: 30,
        signed: true,
        safety: {},
        measures: {
          'first-step-pain': [[0], [3]],
          'lunge-knee-bent': [
            [39, 39, 38.5],
            [36, 37, 37],
          ],
          'single-leg-heel-raise': [[21], [14]],
          'foot-shortening-hold': [
            [10, 11],
            [9, 10],
          ],
        },
        skills: { 'foot-shortening': ['learned', 'partial'], 'big-toe-control': ['learned', 'learned'] },
      },
      {
        daysAgo: 1,
        signed: true,
        safety: {},
        measures: {
          'first-step-pain': [[0], [2]],
          'lunge-knee-bent': [
            [39, 39, 39],
            [38, 38, 38.5],
          ],
          'single-leg-heel-raise': [[22], [18]],
          'foot-shortening-hold': [
            [12, 12],
            [12, 13],
          ],
        },
        skills: { 'foot-shortening': ['learned', 'learned'], 'big-toe-control': ['learned', 'learned'] },
      },
    ],
    stages: [
      { stage: stageKey('calm'), daysAgo: 58, reason: 'plan given' },
      { stage: stageKey('build'), daysAgo: 30, reason: 'criteria met' },
    ],
    home: { seed: 23, startPain: 5.6, endPain: 1.2, adherence: 0.97, flareDaysAgo: [], sinceDaysAgo: 57 },
  },
  {
    name: 'Oskar Thwaite',
    born: '2003-01-22',
    occupation: 'apprentice baker',
    sex: 'male',
    affected: 'left',
    minutesPerDay: 15,
    equipment: ['towel', 'belt', 'step'],
    visits: [
      {
        daysAgo: 33,
        signed: true,
        story: story({
          'story.regions': ['left:heel-inner', 'left:heel-centre'],
          'story.worst': 6,
          'story.now': 2,
          'story.load-change': ['more-standing'],
          'story.worse-when': ['first-steps', 'standing'],
          'story.activities': [{ text: 'A night shift on the stone floor', ability: 4 }],
          'finding.tender-heel-inner.left': 'present',
          'conclude.ideas': [concluded('plantar-heel-pain', 'left')],
          'measure.body-mass.none': { trials: [88], status: 'taken', pain: null },
        }),
        safety: {},
        measures: {
          'first-step-pain': [[5], [1]],
          'lunge-knee-bent': [
            [36, 36, 37],
            [38, 38, 39],
          ],
          'single-leg-heel-raise': [[9], [16], 3],
          'foot-shortening-hold': [
            [5, 6],
            [7, 8],
          ],
        },
        skills: { 'foot-shortening': ['none', 'partial'], 'big-toe-control': ['partial', 'partial'] },
      },
      {
        daysAgo: 16,
        signed: true,
        safety: {},
        measures: {
          'first-step-pain': [[3], [0]],
          'lunge-knee-bent': [
            [37, 37, 37],
            [38, 39, 39],
          ],
          'single-leg-heel-raise': [[12], [17]],
          'foot-shortening-hold': [
            [8, 9],
            [9, 10],
          ],
        },
        skills: { 'foot-shortening': ['partial', 'learned'], 'big-toe-control': ['learned', 'learned'] },
      },
    ],
    stages: [
      { stage: stageKey('calm'), daysAgo: 33, reason: 'plan given' },
      { stage: stageKey('build'), daysAgo: 16, reason: 'criteria met' },
    ],
    home: { seed: 37, startPain: 4.8, endPain: 2.8, adherence: 0.8, flareDaysAgo: [3, 2], sinceDaysAgo: 32 },
  },
  {
    name: 'Hanne Rook',
    born: '1963-06-30',
    occupation: 'lock keeper',
    sex: 'female',
    affected: 'right',
    minutesPerDay: 20,
    equipment: ['towel', 'belt'],
    visits: [
      {
        daysAgo: 0,
        signed: false,
        story: story({
          'story.regions': ['right:heel-inner'],
          'story.worst': 5,
          'story.now': 2,
          'story.load-change': ['none'],
          'story.worse-when': ['first-steps', 'end-of-day'],
          'story.activities': [{ text: 'Walking the towpath', ability: 5 }],
          'finding.tender-heel-inner.right': 'present',
          'conclude.ideas': [concluded('plantar-heel-pain', 'right')],
          'measure.body-mass.none': { trials: [81], status: 'taken', pain: null },
        }),
        safety: {
          diabetes: 'yes',
          'protective-feeling-lost': 'right',
          'neuropathy-hot-foot': 'right',
          'blood-thinners': 'yes',
        },
        measures: {
          'first-step-pain': [[0], [5]],
          'lunge-knee-bent': [
            [33, 34, 33],
            [30, 31, 30],
          ],
        },
      },
    ],
    stages: [],
    home: null,
  },
];

/** Referred, with nothing recorded yet. */
export const DEMO_REFERRALS: readonly {
  readonly name: string;
  readonly born: string;
  readonly occupation: string;
}[] = [{ name: 'Pell Aldous', born: '1969-11-08', occupation: 'potter' }];
