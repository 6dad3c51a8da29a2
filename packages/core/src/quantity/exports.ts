export { type Affected, type PerSide, type Side, otherSide, SIDES, treatedSides } from './side.js';
export {
  addDays,
  dayOf,
  daysBetween,
  type DayText,
  instantOf,
  localDay,
  localTime,
  momentOf,
} from './day.js';
export {
  hoursOn,
  openDayFrom,
  type OpenHours,
  weekdayOf,
  type WeekHours,
  withinHours,
  wrongHours,
} from './hours.js';
export { parseNumber } from './parseNumber.js';
export { mean, median, shown } from './statistics.js';
export { folded, hasWords, searchable } from './words.js';
export {
  ENGLISH,
  filled,
  type Gaps,
  phrase,
  say,
  sayIf,
  sayKey,
  speakBy,
  spoken,
  type Tongue,
} from './tongue.js';
