import { clampScore } from './answers.js';
import { normal } from './random.js';
import type { SimulatedPerson } from './family.js';

/** Most that capacity grows to, in sessions of the first stage. */
const MOST_CAPACITY = 4;
/** A load of this share of the capacity does all the good that a load can do. */
const WORTH_DOING = 0.7;
/** From this share of the capacity on an exercise is felt while it is done. */
const FELT_FROM = 0.85;
/** Days without exercise after which capacity goes again, and the share that goes each day. */
const IDLE_DAYS = 7;
const LOST_PER_DAY = 0.005;
/** A load this far beyond the capacity sets healing back by so much. */
const HARMFUL = 0.25;
const SET_BACK = 0.01;
/** Pain added to a morning from which it is a flare. */
const FLARE_FROM = 1.5;

/** What pain a session made, as it is asked. */
export interface FeltSession {
  readonly before: number;
  readonly during: number;
  readonly after: number;
  readonly hourAbove: boolean;
  readonly effort: number;
}

/** The hidden state of a made-up person, lived day by day. */
export class Living {
  healed = 0;
  flare = 0;
  capacity: number;
  sessionsDone = 0;
  private drive = 0;
  private idle = 0;

  constructor(
    private person: SimulatedPerson,
    private readonly random: () => number,
  ) {
    this.capacity = person.capacity;
  }

  /** From now on they are someone else: what they really have was found. */
  become(person: SimulatedPerson): void {
    this.person = person;
  }

  /** Pain without flare and noise. */
  level(): number {
    return this.person.pain * (1 - this.healed);
  }

  private painful(level: number): number {
    return clampScore(normal(this.random, level + this.flare, this.person.noise));
  }

  morning(): number {
    return this.painful(this.level());
  }

  worstOfDay(): number {
    return this.painful(this.level() + this.person.dayOver * (1 - this.healed));
  }

  /** How a session of a load is felt; nothing of it stays until the day ends. */
  exercise(load: number): FeltSession {
    const { random, person } = this;
    const before = clampScore(normal(random, this.level() * 0.4 + this.flare * 0.6, person.noise * 0.4));
    const rise = Math.max(0, (load / this.capacity - FELT_FROM) * 4) + Math.max(0, normal(random, 0, 0.3));
    const during = clampScore(before + rise);
    const after = clampScore(before + rise * 0.5);
    return {
      before,
      during,
      after,
      hourAbove: rise >= 2 && random() < 0.5,
      effort: clampScore(normal(random, 4 + 2.5 * (load / this.capacity), 0.7)),
    };
  }

  /**
   * Ends a day on which so much was loaded in all.
   * @param done share of a full week's work that the day's session was, 0 where there was none
   * @returns whether a flare begins
   */
  endDay(load: number, done: number): boolean {
    const { person } = this;
    const over = Math.max(0, load / this.capacity - 1);
    const added = over > 0 ? Math.max(0, normal(this.random, person.flare * over, 0.4)) : 0;
    this.flare = this.flare * 0.5 ** (1 / person.flareHalfLifeDays) + added;
    this.sessionsDone += done > 0 ? 1 : 0;
    this.idle = done > 0 ? 0 : this.idle + 1;
    const worth = done > 0 ? Math.min(1, load / (WORTH_DOING * this.capacity)) : 0;
    this.drive += (worth * done * 7 - this.drive) / person.delayDays;
    const room = Math.max(0, 1 - this.healed / person.ceiling);
    const gain = ((person.naturalPerWeek + person.healPerWeek * Math.min(1.2, this.drive)) / 7) * room;
    this.healed = Math.min(1, Math.max(0, this.healed + gain - (over > HARMFUL ? SET_BACK : 0)));
    const growth =
      (person.adaptPerWeek / 7) * Math.min(1.2, this.drive) * (1 - this.capacity / MOST_CAPACITY);
    this.capacity *= 1 + growth - (this.idle > IDLE_DAYS ? LOST_PER_DAY : 0);
    return added >= FLARE_FROM;
  }
}
