import { addDays, type DayText } from '../quantity/day.js';

/**
 * How long a record is kept before it may be erased without a decision of its own: so many years after the last contact, and of
 * someone who was a child then until this age. [convention; local law and the clinic's own rules come first; not yet reviewed]
 */
export const RETENTION = { years: 8, childUntilAge: 25, childUnder: 18 } as const;

/** The same date so many years later; 29 February becomes 1 March where there is none. */
function yearsLater(day: DayText, years: number): DayText {
  const later = `${String(Number(day.slice(0, 4)) + years).padStart(4, '0')}${day.slice(4)}`;
  return new Date(`${later}T00:00:00Z`).toISOString().slice(0, 10) === later
    ? later
    : addDays(later.replace(/29$/, '28'), 1);
}

/**
 * The first day on which a record may be erased by the usual term.
 *
 * @param lastContact the last day anything was recorded of them
 * @param birthDate null where it is not known: then the term of an adult
 */
export function keptUntil(lastContact: DayText, birthDate: DayText | null): DayText {
  const usual = yearsLater(lastContact, RETENTION.years);
  if (birthDate === null || lastContact >= yearsLater(birthDate, RETENTION.childUnder)) return usual;
  const grown = yearsLater(birthDate, RETENTION.childUntilAge);
  return grown > usual ? grown : usual;
}
