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
    const side = t.side === 'none' ? '' : ` (${t.side})`;
    return `${t.rule.title}${side}: ${t.because.join('; ')}. Asked for: ${t.rule.action}.`;
  };
  const reason = (r: ReferralReason) => `${r.name}${r.side === 'none' ? '' : ` (${r.side})`}: ${r.text}`;
  return [
    HEADLINE[first?.rule.level ?? (input.reasons.length > 0 ? 'refer' : 'caution')],
    '',
    `${input.clinic}, telephone ${input.phone}`,
    input.day,
    '',
    `About ${input.person}${input.born === null ? '' : `, born ${input.born}`}`,
    `Seen for: ${input.complaint}`,
    ...part('Told:', input.history),
    ...part('Found at the safety screen of this visit:', input.signs.map(sign)),
    ...(input.asked.length === 0 ? [] : ['', `Asked or tested and not so: ${input.asked.join('; ')}.`]),
    ...part('Asked for because:', input.reasons.map(reason)),
    ...part('Thought of, by clinical findings only:', input.thought),
    ...part('Measured:', input.findings),
    '',
    ...(input.signs.length === 0
      ? []
      : ['Exercise that these signs forbid has been held back until we hear from you.']),
    'Please tell us the result of your assessment.',
    '',
    input.author,
    ...(input.registration === null ? [] : [`Registration ${input.registration}`]),
  ].join('\n');
}
