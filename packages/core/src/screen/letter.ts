import { say } from '../quantity/tongue.js';
import type { ReferralReason } from '../reason/referral.js';
import type { TriggeredRule } from './safety.js';

export interface LetterInput {
  readonly clinic: string;
  readonly phone: string;
  /** A day as it is written in the clinic's locale. */
  readonly day: string;
  readonly person: string;
  readonly born: string | null;
  readonly author: string;
  /** Number of the register the author is in; null where it is not given. */
  readonly registration: string | null;
  readonly complaint: string;
  /** How it began, since when, what it does: a line each. */
  readonly history: readonly string[];
  /** What was asked and answered no at the screen, in words. */
  readonly asked: readonly string[];
  readonly signs: readonly TriggeredRule[];
  /** Referral criteria of the conditions in view that hold. */
  readonly reasons: readonly ReferralReason[];
  /** What it is thought to be, a line each. */
  readonly thought: readonly string[];
  /** What was measured, a line each. */
  readonly findings: readonly string[];
}

const HEADLINE = {
  emergency: 'EMERGENCY: please see now',
  urgent: 'URGENT: please see the same or next day',
  refer: 'Referral: please assess',
  caution: 'For your information',
} as const;

/** A heading with its lines; nothing when there are none. */
const part = (title: string, lines: readonly string[]): string[] =>
  lines.length === 0 ? [] : ['', title, ...lines.map((l) => `- ${l}`)];

/** Text of a letter for the signs and findings that are to be assessed elsewhere, most serious first. The clinician reads and changes it before it goes. */
export function referralLetter(input: LetterInput): string {
  const [first] = input.signs;
  const sign = (t: TriggeredRule) => {
    const side = t.side === 'none' ? '' : ` (${say(t.side)})`;
    return say('{{title}}{{side}}: {{list}}. Asked for: {{action}}.', {
      title: t.rule.title,
      side,
      list: t.because.join('; '),
      action: t.rule.action,
    });
  };
  const reason = (r: ReferralReason) =>
    `${say(r.name)}${r.side === 'none' ? '' : ` (${say(r.side)})`}: ${say(r.text)}`;
  return [
    say(HEADLINE[first?.rule.level ?? (input.reasons.length > 0 ? 'refer' : 'caution')]),
    '',
    say('{{clinic}}, telephone {{phone}}', { clinic: input.clinic, phone: input.phone }),
    input.day,
    '',
    say('About {{person}}{{words}}', {
      person: input.person,
      words: input.born === null ? '' : say(', born {{born}}', { born: input.born }),
    }),
    say('Seen for: {{complaint}}', { complaint: input.complaint }),
    ...part(say('Told:'), input.history),
    ...part(say('Found at the safety screen of this visit:'), input.signs.map(sign)),
    ...(input.asked.length === 0
      ? []
      : ['', say('Asked or tested and not so: {{list}}.', { list: input.asked.join('; ') })]),
    ...part(say('Asked for because:'), input.reasons.map(reason)),
    ...part(say('Thought of, by clinical findings only:'), input.thought),
    ...part(say('Measured:'), input.findings),
    '',
    ...(input.signs.length === 0
      ? []
      : [say('Exercise that these signs forbid has been held back until we hear from you.')]),
    say('Please tell us the result of your assessment.'),
    '',
    input.author,
    ...(input.registration === null
      ? []
      : [say('Registration {{registration}}', { registration: input.registration })]),
  ].join('\n');
}
