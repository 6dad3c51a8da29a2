/** Local time of a moment in a zone as `YYYY-MM-DDTHH:MM:SS`; its first ten characters are the local day. */
export function localTime(moment: Date, timeZone: string): string {
  return new Intl.DateTimeFormat('sv-SE', {
    timeZone,
    year: 'numeric',
    month: '2-digit',
    day: '2-digit',
    hour: '2-digit',
    minute: '2-digit',
    second: '2-digit',
    hourCycle: 'h23',
  })
    .format(moment)
    .replace(' ', 'T');
}

export const localDay = (moment: Date, timeZone: string): string => localTime(moment, timeZone).slice(0, 10);

/** Whole years from a birth date to a day; null when the date is not known. */
export function ageOn(birthDate: string | null, day: string): number | null {
  if (birthDate === null) return null;
  const years = Number(day.slice(0, 4)) - Number(birthDate.slice(0, 4));
  return day.slice(5) < birthDate.slice(5) ? years - 1 : years;
}
