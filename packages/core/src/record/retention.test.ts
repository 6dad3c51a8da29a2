import { keptUntil } from './retention.js';

describe('how long a record is kept', () => {
  it.each([
    ['an adult, eight years after the last contact', '2026-05-04', '1970-01-02', '2034-05-04'],
    ['a birth date that is not known, as an adult', '2026-05-04', null, '2034-05-04'],
    ['a child of 8, until 25', '2026-05-04', '2018-03-01', '2043-03-01'],
    ['one of 17 at the last contact, the longer of both', '2026-05-04', '2009-03-01', '2034-05-04'],
    ['on the 18th birthday no child any more', '2026-05-04', '2008-05-04', '2034-05-04'],
    ['the 29th of February, the day after the 28th', '2024-02-29', '1970-01-02', '2032-02-29'],
    ['the 29th of February where there is none', '2028-02-29', '2020-02-29', '2045-03-01'],
  ])('%s', (_what, last, born, until) => {
    expect(keptUntil(last, born)).toBe(until);
  });
});
