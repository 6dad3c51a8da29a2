import { say } from '../quantity/tongue.js';
/** What the foot risk class is made of. */
export type FootRiskFactor = 'feeling' | 'circulation' | 'deformity' | 'history';

/** What the foot risk class is computed from; null where it was not looked at. */
export interface FootRiskInput {
  readonly feelingLost: boolean | null;
  readonly poorCirculation: boolean | null;
  /** A bunion, claw or hammer toes, prominent heads, a rigid deformity. */
  readonly deformity: boolean | null;
  /** Past ulcer, amputation, or kidney failure. */
  readonly history: boolean | null;
  /** A hot, swollen foot, an ulcer or an infection now: it stands above every class. */
  readonly activeFoot?: boolean;
}

export interface FootRisk {
  /** 0 very low, 1 low, 2 moderate, 3 high; null while something that decides it is not known, or the foot is active. */
  readonly riskClass: 0 | 1 | 2 | 3 | null;
  /** True when an active foot is above every class. */
  readonly active: boolean;
  readonly word: string;
  /** Months between checks, from to. */
  readonly checkMonths: readonly [from: number, to: number] | null;
  readonly because: readonly string[];
  readonly missing: readonly string[];
}

const WORDS = ['very low', 'low', 'moderate', 'high'] as const;
const CHECKS = [
  [12, 12],
  [6, 12],
  [3, 6],
  [1, 3],
] as const;

/**
 * Foot risk class from feeling, circulation, deformity and history. An active foot is above every class: today.
 * High: feeling or circulation lost with a past ulcer, an amputation or kidney failure. Moderate: two of feeling,
 * circulation, deformity (at least one of the first two). Low: one of feeling and circulation.
 * Source: international diabetic foot guidance, not yet checked against its text.
 */
export function footRiskClass(input: FootRiskInput): FootRisk {
  const names: readonly (readonly [boolean | null, string, string])[] = [
    [input.feelingLost, say('protective feeling lost'), 'feeling'],
    [input.poorCirculation, say('poor circulation'), 'circulation'],
    [input.deformity, say('deformity'), 'deformity'],
    [input.history, say('past ulcer, amputation or kidney failure'), 'history'],
  ];
  const because = names.filter(([v]) => v === true).map(([, words]) => words);
  const missing = names.filter(([v]) => v === null).map(([, , name]) => name);
  if (input.activeFoot === true) {
    const active = [say('an active foot now'), ...because];
    return {
      riskClass: null,
      active: true,
      word: say('active foot, seen today'),
      checkMonths: null,
      because: active,
      missing: [],
    };
  }
  const classOf = (unknown: boolean): 0 | 1 | 2 | 3 => {
    const at = (v: boolean | null) => v ?? unknown;
    const main = Number(at(input.feelingLost)) + Number(at(input.poorCirculation));
    if (main === 0) return 0;
    if (at(input.history)) return 3;
    return main === 2 || at(input.deformity) ? 2 : 1;
  };
  // Not known can only be settled when the best and the worst answer give the same class.
  const [low, high] = [classOf(false), classOf(true)];
  if (low !== high)
    return {
      riskClass: null,
      active: false,
      word: say('not known yet'),
      checkMonths: null,
      because,
      missing,
    };
  return {
    riskClass: low,
    active: false,
    word: say(WORDS[low]),
    checkMonths: CHECKS[low],
    because,
    missing: [],
  };
}
