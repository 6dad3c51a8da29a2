import { busyIn, NoCalendar } from './calendarFile.js';

const span = { from: '2026-03-23', days: 14, timeZone: 'Europe/Berlin' };
const calendar = (...lines: string[]) =>
  ['BEGIN:VCALENDAR', 'VERSION:2.0', 'PRODID:-//a//b//EN', ...lines, 'END:VCALENDAR'].join('\r\n');
const event = (...lines: string[]) => [
  'BEGIN:VEVENT',
  'UID:1',
  'DTSTAMP:20260101T000000Z',
  ...lines,
  'END:VEVENT',
];
const starts = (text: string) => busyIn(text, span).map((b) => b.start);

describe('the times a calendar takes', () => {
  it('reads a time with and one without a zone, the latter where the clinic is', () => {
    expect(busyIn(calendar(...event('DTSTART:20260324T170000Z', 'DTEND:20260324T180000Z')), span)).toEqual([
      { start: '2026-03-24T17:00:00.000Z', end: '2026-03-24T18:00:00.000Z' },
    ]);
    expect(starts(calendar(...event('DTSTART:20260324T180000', 'DTEND:20260324T190000')))).toEqual([
      '2026-03-24T17:00:00.000Z',
    ]);
  });

  it('repeats what repeats, over the change of the clocks, and leaves out what was taken out', () => {
    const zone = [
      'BEGIN:VTIMEZONE',
      'TZID:Home',
      'BEGIN:STANDARD',
      'DTSTART:19701025T030000',
      'RRULE:FREQ=YEARLY;BYMONTH=10;BYDAY=-1SU',
      'TZOFFSETFROM:+0200',
      'TZOFFSETTO:+0100',
      'END:STANDARD',
      'BEGIN:DAYLIGHT',
      'DTSTART:19700329T020000',
      'RRULE:FREQ=YEARLY;BYMONTH=3;BYDAY=-1SU',
      'TZOFFSETFROM:+0100',
      'TZOFFSETTO:+0200',
      'END:DAYLIGHT',
      'END:VTIMEZONE',
    ];
    const weekly = event(
      'DTSTART;TZID=Home:20260106T180000',
      'DTEND;TZID=Home:20260106T193000',
      'RRULE:FREQ=WEEKLY;BYDAY=TU,TH',
      'EXDATE;TZID=Home:20260326T180000',
    );
    expect(starts(calendar(...zone, ...weekly))).toEqual([
      '2026-03-24T17:00:00.000Z',
      '2026-03-31T16:00:00.000Z',
      '2026-04-02T16:00:00.000Z',
    ]);
  });

  it.each([
    ['a whole day', ['DTSTART;VALUE=DATE:20260324', 'DTEND;VALUE=DATE:20260325']],
    ['what is marked free', ['DTSTART:20260324T170000Z', 'DTEND:20260324T180000Z', 'TRANSP:TRANSPARENT']],
    ['what was cancelled', ['DTSTART:20260324T170000Z', 'DTEND:20260324T180000Z', 'STATUS:CANCELLED']],
    ['what is over', ['DTSTART:20260322T170000Z', 'DTEND:20260322T180000Z']],
    ['what is later', ['DTSTART:20260406T170000Z', 'DTEND:20260406T180000Z']],
  ])('takes nothing of %s', (_, lines) => expect(starts(calendar(...event(...lines)))).toEqual([]));

  it('reads free / busy lines', () =>
    expect(
      busyIn(
        calendar(
          'BEGIN:VFREEBUSY',
          'UID:2',
          'DTSTAMP:20260101T000000Z',
          'FREEBUSY:20260324T170000Z/PT1H,20260325T170000Z/20260325T183000Z',
          'FREEBUSY;FBTYPE=FREE:20260326T170000Z/PT1H',
          'END:VFREEBUSY',
        ),
        span,
      ),
    ).toEqual([
      { start: '2026-03-24T17:00:00.000Z', end: '2026-03-24T18:00:00.000Z' },
      { start: '2026-03-25T17:00:00.000Z', end: '2026-03-25T18:30:00.000Z' },
    ]));

  it.each(['', 'hello', '{"a":1}', 'BEGIN:VCARD\r\nVERSION:3.0\r\nEND:VCARD', 'BEGIN:VCALENDAR'])(
    'refuses what is no calendar: %j',
    (text) => expect(() => busyIn(text, span)).toThrow(NoCalendar),
  );

  it('ends with an event that never does', () =>
    expect(
      starts(calendar(...event('DTSTART:20260324T170000Z', 'DTEND:20260324T170100Z', 'RRULE:FREQ=SECONDLY')))
        .length,
    ).toBeLessThanOrEqual(5000));
});
