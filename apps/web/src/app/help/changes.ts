import { say } from '@heathstep/core';
/** What an update brought, for who uses it. */
export interface News {
  /** Day it came, ISO; also what says whether it was read. */
  readonly day: string;
  readonly lines: readonly string[];
}

/** The newest first. What only concerns who runs it is left out. */
export const CHANGES: readonly News[] = [
  {
    day: '2026-11-28',
    lines: [
      say(
        'Clinic, in the menu of leads: who works here, what the clinic says of itself, who saw and changed what.',
      ),
      say(
        'A person goes out as a file (FHIR R4) and comes back as they were: in People, and under The whole record.',
      ),
      say(
        'People come from a table (CSV), looked at line by line, and are taken back whole: People, From a file.',
      ),
      say(
        'Every measurement goes out as a table, for research without names; what was measured before comes as one: People, From a file.',
      ),
      say('Leads erase a record after its term, and give other programs a key to read by: in Clinic.'),
      say(
        'Letters of a complaint: begun from the clinic’s text, written beside what the record shows, kept as they went out.',
      ),
      say('A run or a walk from a watch (GPX, TCX) counts as done, on Course.'),
      say('Lists go out as tables: the day, planned visits, a log, staff, measures, exercises.'),
      say('Consent with each person; a no stands above their places until there is a yes.'),
      say('Leads bring two records of one person together, and take them apart again: The whole record.'),
      say(
        'Pages lock when nobody touches them, and stand as they were for the same person: Clinic, What holds for all.',
      ),
      say(
        'Passkeys: a device that knows you signs you in, where the clinic has an address with a name: Account and devices.',
      ),
      say('One’s own password and a second step of signing in by an authenticator: in Account and devices.'),
      say('An exercise can be given for the morning, midday or evening; sentence and calendar say so.'),
      say('A reading typed with all its decimals goes on by itself; Enter and Tab still do no harm.'),
      say('Alt with up or down comes to a step ready to type.'),
      say('Ctrl Z takes back what was chosen from a list too.'),
      say('Pages can be read in other languages, where one says what clinicians read.'),
      say('Course says when a criterion is likely met, where three comparable values lead there.'),
      say('Areas of the drawn foot follow its anatomy; the inner side is seen from the inner side.'),
      say('Pain now, told in the story, is not asked again; a no to an injury is held against the story.'),
      say('Long lists open at once, and a plan uses the width of a tablet.'),
      say('Day has the visits of today, planned here or from a calendar, and goes into any calendar.'),
      say('A row of the day can be set aside with a reason; it comes back when it gets worse.'),
      say('A trend says when a stage may be left, is drawn ahead, and Day says when it slips.'),
      say('At home scores are chosen by arrows or digits too.'),
      say('A review opens with what happened since; by keys one goes from open place to open place.'),
      say('Patients ask from home; a question stands on the day until it is answered.'),
      say('Outcomes by protocol, in the menu of the account: weeks, pain, decisions, none of few.'),
      say('Course puts any two visits side by side, and its line leads to each visit.'),
      say('A course is read as a letter of one page, and as a PDF: from first to last, with the error.'),
      say('What comes back begins again where its protocol says; nothing given before counts.'),
      say('Course shows pain against load by day, and what happened meanwhile, on trend and days.'),
      say('The next review is due by the stage, and planned from Course or Plan.'),
      say('All tests that a stage is left by are added to a visit in one press.'),
      say('Outcomes tell own activities, flares, and who came back after the end.'),
      say('What is only done with someone beside says so, and waits until someone is said to be there.'),
      say('No dose grows where the leading measure fell by more than its error.'),
      say('Upkeep says when it may end, and Day when it has lasted its time.'),
      say('The foot lab: a pressure mat and a motion pair, captured or from a file, beside Plan.'),
      say('What a capture tells goes into the visit as measures, and comes on a page for the patient.'),
    ],
  },
  {
    day: '2026-11-27',
    lines: [
      say('Exercises can be done in rounds; ready routines stand beside a plan, and a plan is kept as one.'),
      say('A dose beyond the usual range is taken with a reason.'),
      say(
        'Letters keep what you wrote, and carry story, tests and every measure; your register number stands under them.',
      ),
      say('Under your initials: where you are signed in, and a sign-out everywhere else.'),
      say('Bounding, running with quicker steps, the standing bike and walking in water are in the library.'),
      say('At home an ordinary ache is weighed by the pain rule, and the exercise goes on where it stood.'),
      say('Patients read what the next stage waits for, on paper and on the phone.'),
      say('A time of day for the exercises, held against the person’s own calendar file.'),
      say('Squats, hops and tests on one leg say “too early today” on a foot that is fresh or irritable.'),
      say('A decision shows the plan it would draft before it is used.'),
      say('A tissue that another complaint’s plan loads is counted once for all.'),
      say('One run is at most a tenth longer than the longest of the last 30 days.'),
      say('Protocols: what is asked at home and what is chosen can be changed here.'),
      say('A visit fits a telephone, step by step.'),
    ],
  },
  {
    day: '2026-11-20',
    lines: [
      say('Safety asks what this complaint and person can need; what was not tested says why.'),
      say('A person is corrected, a complaint closed with how it ended.'),
      say('A visit prints as one page.'),
    ],
  },
];
