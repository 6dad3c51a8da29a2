/** A calendar day as `YYYY-MM-DD` in the clinic's or the patient's zone; never a moment. */
export type DayText = string;

const DAY_MS = 86_400_000;

/** Days are asked for again and again: so many are kept with their numbers, some fifty years. */
const MOST_KEPT = 20_000;
const numbers = new Map<DayText, number>();
const texts = new Map<number, DayText>();

function keptIn<K, V>(kept: Map<K, V>, key: K, make: () => V): V {
  const known = kept.get(key);
  if (known !== undefined) return known;
  const made = make();
  if (kept.size >= MOST_KEPT) kept.clear();
  kept.set(key, made);
  return made;
}

const dayNumber = (day: DayText): number =>
  keptIn(numbers, day, () => Math.round(Date.parse(`${day}T00:00:00Z`) / DAY_MS));

/** Whole calendar days from one day to a later one; negative when it is earlier. */
export const daysBetween = (from: DayText, to: DayText): number => dayNumber(to) - dayNumber(from);

/** So many calendar days later; earlier when negative. */
export function addDays(day: DayText, days: number): DayText {
  const number = dayNumber(day) + days;
  return keptIn(texts, number, () => new Date(number * DAY_MS).toISOString().slice(0, 10));
}

/** The calendar day of an ISO 8601 time as written (its own zone), e.g. `2026-03-01T23:30+02:00` is 1 March. */
export const dayOf = (iso: string): DayText => iso.slice(0, 10);

/** An ISO 8601 time as a moment in milliseconds; a bare day counts from its midnight. Times compare by it, whatever their zone. */
export const instantOf = (iso: string): number =>
  Date.parse(
    /[Zz]$|[+-]\d{2}:?\d{2}$/.test(iso) && iso.length > 10
      ? iso
      : iso.length > 10
        ? `${iso}Z`
        : `${iso}T00:00:00Z`,
  );

const formats = new Map<string, Intl.DateTimeFormat>();

/** Making one is a hundred times as slow as using it. */
function formatIn(timeZone: string): Intl.DateTimeFormat {
  const made =
    formats.get(timeZone) ??
    new Intl.DateTimeFormat('sv-SE', {
      timeZone,
      year: 'numeric',
      month: '2-digit',
      day: '2-digit',
      hour: '2-digit',
      minute: '2-digit',
      second: '2-digit',
      hourCycle: 'h23',
    });
  formats.set(timeZone, made);
  return made;
}

/** Local time of a moment in a zone as `YYYY-MM-DDTHH:MM:SS`; its first ten characters are the local day. */
export const localTime = (moment: Date, timeZone: string): string =>
  formatIn(timeZone).format(moment).replace(' ', 'T');

/** The calendar day of a moment in a zone. */
export const localDay = (moment: Date, timeZone: string): DayText => localTime(moment, timeZone).slice(0, 10);

/**
 * The moment at which a zone's clocks show a local time, the inverse of `localTime`.
 *
 * @param local `YYYY-MM-DDTHH:MM:SS`; one that clocks skip is the moment as long after the skip, one they show twice the later
 */
export function momentOf(local: string, timeZone: string): Date {
  const wanted = Date.parse(`${local}Z`);
  const off = (guess: number): number => wanted - Date.parse(`${localTime(new Date(guess), timeZone)}Z`);
  const near = wanted + off(wanted);
  return new Date(near + off(near));
}
