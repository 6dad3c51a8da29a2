import { Injectable } from '@nestjs/common';

/** Set back by more than this, the machine is believed: its clock was that wrong before. [convention] */
const MOST_BACK_MS = 2 * 3_600_000;

/**
 * A clock that is never earlier than it was. What happened later is then later in the record too, also while the
 * machine's clock is put back by an hour: time goes at half its pace until the machine has come up again.
 * @param machine the machine's clock, in milliseconds
 * @param running milliseconds of a clock that nobody sets
 */
export function neverBack(machine: () => number, running: () => number): () => Date {
  let [last, at] = [machine(), running()];
  return () => {
    const [now, then] = [machine(), running()];
    const behind = last - now;
    last = behind <= 0 || behind > MOST_BACK_MS ? now : last + (then - at) / 2;
    at = then;
    return new Date(last);
  };
}

/** The time now; the one place that asks the machine. */
export const timeNow = neverBack(Date.now, () => performance.now());

/** The time now, as what is made by others gets it. */
@Injectable()
export class Clock {
  now(): Date {
    return timeNow();
  }
}

/** Whole years from a birth date to a day; null when the date is not known. */
export function ageOn(birthDate: string | null, day: string): number | null {
  if (birthDate === null) return null;
  const years = Number(day.slice(0, 4)) - Number(birthDate.slice(0, 4));
  return day.slice(5) < birthDate.slice(5) ? years - 1 : years;
}
