import type { TriggeredRule } from './safety.js';

export interface LetterInput {
  readonly clinic: string;
  readonly phone: string;
  /** A day as it is written in the clinic's locale. */
  readonly day: string;
  readonly person: string;
  readonly born: string | null;
  readonly author: string;
  readonly complaint: string;
  readonly signs: readonly TriggeredRule[];
  /** What was measured, a line each. */
  readonly findings: readonly string[];
}

const HEADLINE = {
  emergency: 'EMERGENCY: please see now',
  urgent: 'URGENT: please see the same or next day',
  refer: 'Referral: please assess',
  caution: 'For your information',
} as const;

/** Text of a letter for the signs that are to be assessed elsewhere, most serious first. The clinician reads and changes it before it goes. */
export function referralLetter(input: LetterInput): string {
  const [first] = input.signs;
  const sign = (t: TriggeredRule) => {
    const side = t.side === 'none' ? '' : ` (${t.side})`;
    return `- ${t.rule.title}${side}: ${t.because.join('; ')}. Asked for: ${t.rule.action}.`;
  };
  return [
    HEADLINE[first?.rule.level ?? 'caution'],
    '',
    `${input.clinic}, telephone ${input.phone}`,
    input.day,
    '',
    `About ${input.person}${input.born === null ? '' : `, born ${input.born}`}`,
    `Seen for: ${input.complaint}`,
    '',
    'Found at the safety screen of this visit:',
    ...input.signs.map(sign),
    ...(input.findings.length === 0 ? [] : ['', 'Measured:', ...input.findings.map((f) => `- ${f}`)]),
    '',
    'Exercise that these signs forbid has been held back until we hear from you.',
    'Please tell us the result of your assessment.',
    '',
    input.author,
  ].join('\n');
}
