import { TAGS } from '../exercise/definition.js';
import type { Sex } from '../measure/norms.js';
import type { Facts } from '../progress/criteriaTypes.js';
import type { Limits } from '../screen/limits.js';
import { addDays, type DayText } from '../quantity/day.js';
import type { Side } from '../quantity/side.js';
import { normal, seededRandom } from './random.js';

/** A number that differs from person to person: normal about a mean, kept within bounds. */
export interface Draw {
  readonly mean: number;
  readonly sd: number;
  readonly min: number;
  readonly max: number;
}

/**
 * How made-up people of one kind of complaint come along. Every number is invented and says nothing about patients: it is
 * there so that the rules can be watched on thousands of people whose truth is known.
 */
export interface PersonFamily {
  readonly key: string;
  readonly name: string;
  /** What it stands for, and that it is invented. */
  readonly statement: string;
  /** Protocols whose people are of this kind. */
  readonly protocols: readonly string[];
  readonly age: Draw;
  /** Morning pain at the start, 0 to 10. */
  readonly pain: Draw;
  /** How much worse the worst of a day is. */
  readonly dayOver: Draw;
  /** Standard deviation of pain from day to day in someone who does not change. */
  readonly noise: Draw;
  /** Load that is tolerated at the start; a session of the first stage's plan is 1. */
  readonly capacity: Draw;
  /** How many times the load of a stage the next one's is. */
  readonly stageStep: Draw;
  /** Share by which capacity grows in a week in which all is done. */
  readonly adaptPerWeek: Draw;
  /** Days over which load turns into capacity and healing. */
  readonly delayDays: Draw;
  /** Points of pain added to the next morning by a load of twice the capacity. */
  readonly flare: Draw;
  readonly flareHalfLifeDays: Draw;
  /** Share of the complaint that goes in a week by itself, and by a week in which all is done. */
  readonly naturalPerWeek: Draw;
  readonly healPerWeek: Draw;
  /** Share of the complaint that can go at all. */
  readonly ceiling: Draw;
  /** Share of the sound side's value that is missing at the start. */
  readonly deficit: Draw;
  /** Sessions until a skill is learned. */
  readonly skillSessions: Draw;
  /** Share of planned sessions that are done. */
  readonly adherence: Draw;
  /** Share of answers and tests that are left out. */
  readonly missed: Draw;
  /** Chance of a day on which life loads the foot more than the plan. */
  readonly overdone: Draw;
  /** Shares of people who do not change at all, and whose complaint is another than it is called. */
  readonly unchanging: number;
  readonly mistaken: number;
  /** Stop signs reported in a thousand days. */
  readonly stopsPerThousandDays: number;
  /** What a question of the home log is answered on average at the start, and once healed. */
  readonly answers: Readonly<Record<string, { readonly from: number; readonly to: number }>>;
  /** Days between an injury and the first visit; left out where it did not begin with one. */
  readonly injuredDaysBefore?: Draw;
  /** What a surgeon or fracture clinic had to allow: all of it is allowed by the first visit, so many days after. */
  readonly limits?: { readonly what: Limits['what']; readonly daysBefore: Draw };
}

export type PersonKind = 'changing' | 'unchanging' | 'mistaken';

/** One made-up person: everything that is true of them and that nobody in the clinic sees. */
export interface SimulatedPerson {
  readonly seed: number;
  readonly kind: PersonKind;
  readonly side: Side;
  readonly ageYears: number;
  readonly sex: Sex;
  readonly pain: number;
  readonly dayOver: number;
  readonly noise: number;
  readonly capacity: number;
  readonly stageStep: number;
  readonly adaptPerWeek: number;
  readonly delayDays: number;
  readonly flare: number;
  readonly flareHalfLifeDays: number;
  readonly naturalPerWeek: number;
  readonly healPerWeek: number;
  readonly ceiling: number;
  readonly deficit: number;
  readonly skillSessions: number;
  readonly adherence: number;
  readonly missed: number;
  readonly overdone: number;
  readonly stopsPerDay: number;
  readonly injuredDaysBefore: number | null;
  readonly limitedDaysBefore: number | null;
}

const DRAWN = [
  'pain',
  'dayOver',
  'noise',
  'capacity',
  'stageStep',
  'adaptPerWeek',
  'delayDays',
  'flare',
  'flareHalfLifeDays',
  'naturalPerWeek',
  'healPerWeek',
  'ceiling',
  'deficit',
  'skillSessions',
  'adherence',
  'missed',
  'overdone',
] as const;

/** Someone whose complaint is another reports a stop sign this many times as often. */
const MISTAKEN_STOPS = 5;

const draw = (random: () => number, d: Draw): number =>
  Math.min(d.max, Math.max(d.min, normal(random, d.mean, d.sd)));

/** What may be changed of the people of a family, for studies of what the rules bear. */
export interface Twist {
  /** Times the day-to-day noise. */
  readonly noise?: number;
  /** Times the share of answers left out. */
  readonly missed?: number;
  /** Everyone is of this kind. */
  readonly kind?: PersonKind;
}

/** One person of a family; the same seed gives the same person. */
export function drawPerson(family: PersonFamily, seed: number, twist: Twist = {}): SimulatedPerson {
  const random = seededRandom(seed);
  const lot = random();
  const kind: PersonKind =
    lot < family.unchanging
      ? 'unchanging'
      : lot < family.unchanging + family.mistaken
        ? 'mistaken'
        : 'changing';
  const numbers = Object.fromEntries(DRAWN.map((key) => [key, draw(random, family[key])])) as Pick<
    SimulatedPerson,
    (typeof DRAWN)[number]
  >;
  const still = (twist.kind ?? kind) !== 'changing';
  return {
    ...numbers,
    seed,
    kind: twist.kind ?? kind,
    side: random() < 0.5 ? 'left' : 'right',
    ageYears: Math.round(draw(random, family.age)),
    sex: random() < 0.5 ? 'female' : 'male',
    noise: numbers.noise * (twist.noise ?? 1),
    missed: Math.min(0.95, numbers.missed * (twist.missed ?? 1)),
    ...(still ? { naturalPerWeek: 0, healPerWeek: 0, adaptPerWeek: 0 } : {}),
    stopsPerDay:
      ((twist.kind ?? kind) === 'mistaken' ? MISTAKEN_STOPS : 1) * (family.stopsPerThousandDays / 1000),
    injuredDaysBefore:
      family.injuredDaysBefore === undefined ? null : Math.round(draw(random, family.injuredDaysBefore)),
    limitedDaysBefore:
      family.limits === undefined ? null : Math.round(draw(random, family.limits.daysBefore)),
  };
}

/** The person from when what they really have is treated: they come along like others of their kind. */
export const foundOut = (person: SimulatedPerson, family: PersonFamily): SimulatedPerson => ({
  ...person,
  kind: 'changing',
  naturalPerWeek: family.naturalPerWeek.mean,
  healPerWeek: family.healPerWeek.mean,
  adaptPerWeek: family.adaptPerWeek.mean,
});

/** What was allowed of the treated side, as a fracture clinic would have written it; nothing where nobody had to. */
export const limitsOf = (
  { side, limitedDaysBefore }: SimulatedPerson,
  { limits }: PersonFamily,
  from: DayText,
): Pick<Facts, 'limits'> =>
  limits === undefined || limitedDaysBefore === null
    ? {}
    : {
        limits: {
          [side]: {
            what: limits.what,
            day: addDays(from, -limitedDaysBefore),
            weightBearing: 'full',
            partialKg: null,
            allowed: TAGS,
            text: '',
            by: '',
          },
        },
      };
