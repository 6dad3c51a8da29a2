import { AUDIT_ACTION_WORDS, type AuditLine } from '@heathstep/contracts';
import { say } from '@heathstep/core';

const SUBJECTS: Readonly<Record<string, string>> = {
  account: say('someone of the clinic'),
  'account-link': say('a link to choose a password'),
  appointment: say('a planned visit'),
  appointments: say('planned visits'),
  audit: say('this log'),
  calendar: say('a calendar'),
  capture: say('a capture'),
  captures: say('captures'),
  clinic: say('what the clinic says of itself'),
  course: say('the course'),
  day: say('the day'),
  decision: say('a decision'),
  episode: say('a complaint'),
  event: say('an event of the course'),
  events: say('the events of the course'),
  handout: say('a handout'),
  home: say('the page at home'),
  consent: say('a consent'),
  'home link': say('a link for home'),
  letter: say('a letter'),
  'letter template': say('what letters begin with'),
  letters: say('letters'),
  outcomes: say('outcomes'),
  outings: say('recorded runs and walks'),
  measurements: say('every measurement'),
  passkey: say('a passkey'),
  password: say('a password'),
  people: say('people'),
  person: say('a person'),
  photo: say('a picture'),
  photos: say('pictures'),
  plan: say('a plan'),
  question: say('a question'),
  questions: say('questions'),
  program: say('a key for a program'),
  record: say('the whole record'),
  research: say('measurements without names'),
  'second-step': say('the second step of signing in'),
  session: '',
  visit: say('a visit'),
};

/** What was done; the key of what has no words yet, never nothing. */
export const actionWords = (action: string): string =>
  action in AUDIT_ACTION_WORDS ? say(AUDIT_ACTION_WORDS[action as keyof typeof AUDIT_ACTION_WORDS]) : action;

export const subjectWords = (subject: string): string => SUBJECTS[subject] ?? subject;

/** Who did it: someone of the clinic, a program by a key of theirs, or a patient. */
export const whoWords = ({ who, byProgram }: Pick<AuditLine, 'who' | 'byProgram'>): string =>
  who === null
    ? say('at home, by a link')
    : byProgram
      ? say('a program, by a key of {{name}}', { name: who.name })
      : who.name;
