import { Injectable } from '@nestjs/common';

/** The time now; the one place that asks the machine, so that tests can say what time it is. */
@Injectable()
export class Clock {
  now(): Date {
    return new Date();
  }
}

/** Whole years from a birth date to a day; null when the date is not known. */
export function ageOn(birthDate: string | null, day: string): number | null {
  if (birthDate === null) return null;
  const years = Number(day.slice(0, 4)) - Number(birthDate.slice(0, 4));
  return day.slice(5) < birthDate.slice(5) ? years - 1 : years;
}
