import type { PainSchool } from '../progress/painRule.js';
import { type Tongue, spoken } from '../quantity/tongue.js';

/** What pain is all right, as the patient reads it on the phone and on paper, by how it is judged. */
export const PAIN_ALL_RIGHT: Readonly<Record<PainSchool, string>> = {
  'next-morning':
    'Pain up to 5 of 10 is all right, if it settles within an hour and your next morning is as usual. If the next morning is worse by 2 or more, do less and tell us.',
  comfort: 'It may feel as it did before you began. If it rises, make it smaller or stop.',
  bone: 'No pain in the bone is all right, not during, not after and not at night. If there is any, stop and tell us.',
};

/** A list of signs to stop for as one run of text. */
export const signsText = (signs: readonly string[], t: Tongue = spoken()): string =>
  signs.map((s) => t.inside(t.say(s))).join('; ');
