import type { MeasureDefinition } from '../measure/definition.js';
import { mdcBetween, semAt } from '../measure/error.js';
import { medianFor } from '../measure/norms.js';
import type { MeasuredFact } from '../progress/criteriaTypes.js';
import { otherSide, type Side } from '../quantity/side.js';
import type { SimulatedPerson } from './family.js';
import type { Living } from './living.js';
import { normal } from './random.js';

/** Where no error is known, a reading is off by this share of the usual range. */
const ERROR_SHARE = 0.02;
/** A whole deficit is at most so many times the change that can be told from error. */
const MOST_MDCS = 6;
/** Sound values differ between people by this share. */
const BETWEEN_PEOPLE = 0.08;
/** Less healed than this, a test on repetitions or seconds cannot be done by one in three. */
const UNABLE_UNDER = 0.15;
const UNABLE_SHARE = 1 / 3;

/** What is usual in someone well. */
function soundValue(m: MeasureDefinition, person: SimulatedPerson): number {
  const median = medianFor(m, person.ageYears, person.sex);
  if (median !== null) return (median.low + median.high) / 2;
  const { band, usual, direction } = m;
  if (band === null)
    return direction === 'less'
      ? usual.min
      : direction === 'more'
        ? usual.max * 0.9
        : (usual.min + usual.max) / 2;
  if (direction === 'more') return band.min + (Math.min(band.max, usual.max) - band.min) * 0.3;
  return direction === 'less' ? band.min + (band.max - band.min) * 0.3 : (band.min + band.max) / 2;
}

const isPain = (m: MeasureDefinition): boolean => m.region === 'pain' && m.allowed.max === 10;

/** The true value of a measure on a side: the sound one, less what is missing as long as it is not healed. */
function trueValue(
  m: MeasureDefinition,
  person: SimulatedPerson,
  { healed, treated, own }: { readonly healed: number; readonly treated: boolean; readonly own: number },
): number {
  const sound = soundValue(m, person) * own;
  if (!treated) return sound;
  const missing = person.deficit * (1 - healed);
  // Swelling and the like stay within a few times what can be told apart, however different people are.
  const most = (mdcBetween(m, sound, sound) ?? Number.POSITIVE_INFINITY) * MOST_MDCS;
  const span = Math.min(m.usual.max - m.usual.min, most);
  if (m.direction === 'more') return m.scale === 'ratio' ? sound * (1 - missing) : sound - span * missing;
  return sound + span * missing;
}

/** Takes measures of a made-up person as one rater does, with the error that the measure has. */
export class Taking {
  private readonly own = new Map<string, number>();

  constructor(
    private readonly person: SimulatedPerson,
    private readonly living: Living,
    private readonly random: () => number,
  ) {}

  private ownOf(key: string): number {
    const known = this.own.get(key);
    if (known !== undefined) return known;
    const made = Math.max(0.6, normal(this.random, 1, BETWEEN_PEOPLE));
    this.own.set(key, made);
    return made;
  }

  /** The value without error. */
  truth(m: MeasureDefinition, side: Side | 'none'): number {
    const treated = side === 'none' || side === this.person.side;
    if (isPain(m)) return treated ? this.living.level() + this.living.flare : 0;
    return trueValue(m, this.person, { healed: this.living.healed, treated, own: this.ownOf(m.key) });
  }

  /** Where the treated side stands without error and without a flare. */
  trend(m: MeasureDefinition): number {
    return isPain(m)
      ? this.living.level()
      : trueValue(m, this.person, { healed: this.living.healed, treated: true, own: this.ownOf(m.key) });
  }

  /** One take, rounded as it is read; null when the person is unable. */
  private take(m: MeasureDefinition, side: Side | 'none'): number | null {
    const treated = side === 'none' || side === this.person.side;
    const counted = m.direction === 'more' && (m.unit === 'reps' || m.unit === 's');
    if (counted && treated && this.living.healed < UNABLE_UNDER && this.random() < UNABLE_SHARE) return null;
    const truth = this.truth(m, side);
    const sem = isPain(m)
      ? this.person.noise
      : (semAt(m, truth) ?? (m.usual.max - m.usual.min) * ERROR_SHARE);
    const read = m.levels === null ? normal(this.random, truth, sem) : truth;
    const factor = 10 ** m.decimals;
    return Math.min(m.allowed.max, Math.max(m.allowed.min, Math.round(read * factor) / factor));
  }

  /** All takes of a measure at a visit; nothing where it was left out. */
  at(m: MeasureDefinition, at: string): MeasuredFact[] {
    if (this.random() < this.person.missed) return [];
    const sides: readonly (Side | 'none')[] =
      m.sides === 'single' ? ['none'] : [this.person.side, otherSide(this.person.side)];
    return sides.map((side) => ({ measure: m.key, side, value: this.take(m, side), at }));
  }
}
