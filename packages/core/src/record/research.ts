import { addDays, type DayText } from '../quantity/day.js';

/** What is told of nobody alone: fewer than so many people share it. [convention] */
export const SMALLEST_GROUP = 5;
/** Ages are told in bands of so many years. [convention] */
const BAND_YEARS = 10;
/** Days of a person are moved together, by at most so many either way. [convention] */
export const MOST_SHIFT_DAYS = 180;

export interface ResearchPerson {
  readonly id: string;
  readonly condition: string;
  readonly sex: 'female' | 'male' | null;
  readonly ageYears: number | null;
}

/** What is told of someone of a complaint; empty where it would tell of too few. */
export interface ResearchTraits {
  readonly ageBand: string;
  readonly sex: string;
}

const bandOf = (age: number | null): string => {
  if (age === null) return '';
  const from = Math.floor(age / BAND_YEARS) * BAND_YEARS;
  return `${from}-${from + BAND_YEARS - 1}`;
};

function sizes<T>(items: readonly T[], keyOf: (item: T) => string): ReadonlyMap<string, number> {
  const counted = new Map<string, number>();
  for (const item of items) counted.set(keyOf(item), (counted.get(keyOf(item)) ?? 0) + 1);
  return counted;
}

/**
 * What may be told of each person of each complaint without telling who they are: a complaint of fewer than five people not at
 * all; age band and sex together, else the age band alone, else the sex alone, else neither, each only where five people of the
 * complaint share it.
 *
 * @param people each person once for each of their complaints
 * @returns by `ID CONDITION`; those that are missing are left out
 */
export function researchTraits(people: readonly ResearchPerson[]): ReadonlyMap<string, ResearchTraits> {
  const enough = (counted: ReadonlyMap<string, number>, key: string): boolean =>
    (counted.get(key) ?? 0) >= SMALLEST_GROUP;
  const byCondition = sizes(people, (p) => p.condition);
  const both = (p: ResearchPerson) => `${p.condition} ${bandOf(p.ageYears)} ${p.sex ?? ''}`;
  const all = people.filter((p) => enough(byCondition, p.condition));
  const byBoth = sizes(all, both);
  // Who is told with both is no cover for who is not: those who are left are counted among themselves.
  const rest = all.filter((p) => !enough(byBoth, both(p)));
  const band = (p: ResearchPerson) => `${p.condition} ${bandOf(p.ageYears)}`;
  const byBand = sizes(rest, band);
  const later = rest.filter((p) => !enough(byBand, band(p)));
  const sex = (p: ResearchPerson) => `${p.condition} ${p.sex ?? ''}`;
  const bySex = sizes(later, sex);
  return new Map(
    all.map((p): [string, ResearchTraits] => {
      const key = `${p.id} ${p.condition}`;
      if (enough(byBoth, both(p))) return [key, { ageBand: bandOf(p.ageYears), sex: p.sex ?? '' }];
      if (enough(byBand, band(p))) return [key, { ageBand: bandOf(p.ageYears), sex: '' }];
      if (enough(bySex, sex(p))) return [key, { ageBand: '', sex: p.sex ?? '' }];
      return [key, { ageBand: '', sex: '' }];
    }),
  );
}

/**
 * A day moved by what is a person's own.
 *
 * @param share 0 to 1, the same for all days of a person and known to nobody
 */
export const shiftedDay = (day: DayText, share: number): DayText =>
  addDays(day, Math.round((share * 2 - 1) * MOST_SHIFT_DAYS));
