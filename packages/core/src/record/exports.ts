export { keptUntil, RETENTION } from './retention.js';
export {
  DATE_ORDERS,
  type DateOrder,
  guessColumns,
  PERSON_FIELD_WORDS,
  PERSON_FIELDS,
  type PersonColumns,
  type PersonField,
  readPeople,
  type TableLine,
} from './peopleTable.js';
export {
  MOST_SHIFT_DAYS,
  type ResearchPerson,
  researchTraits,
  type ResearchTraits,
  shiftedDay,
  SMALLEST_GROUP,
} from './research.js';
export {
  guessMeasurementColumns,
  MEASUREMENT_FIELD_WORDS,
  MEASUREMENT_FIELDS,
  type MeasuredPerson,
  type MeasurementColumns,
  type MeasurementField,
  type MeasurementLine,
  NEEDED_FIELDS,
  readMeasurements,
} from './measurementTable.js';
export { factorTo } from './units.js';
