import { say } from '../quantity/tongue.js';
import { issue, ok, refused, type Result } from '../result/result.js';
import type { SafetyState } from '../screen/safety.js';
import type { ReasonContent } from './definition.js';
import type { FindingState } from './known.js';
import { emptyRecord, reasonAbout, type Reasoning } from './reason.js';
import { openSigns, type ScreenContent, screenRecord } from './screenRecord.js';
import type { Column } from './sign.js';

export interface FindingAnswer {
  readonly key: string;
  readonly side: Column;
  readonly state: FindingState;
}

export interface FindingsInput {
  readonly findings: readonly FindingAnswer[];
  readonly ageYears: number | null;
  readonly daysSinceOnset: number | null;
}

export type FindingsContent = ReasonContent & ScreenContent;

export interface ReasonedFindings {
  readonly reasoning: Reasoning;
  readonly safety: SafetyState;
}

/** Reasons from a bare list of findings, without a record. Refuses unknown keys and a finding that is both present and absent. */
export function reasonFromFindings(content: FindingsContent, input: FindingsInput): Result<ReasonedFindings> {
  const byKey = new Map(content.findings.map((f) => [f.key, f]));
  const answers = new Map<string, FindingState>();
  const problems = input.findings.flatMap((f, i) => {
    const definition = byKey.get(f.key);
    if (definition === undefined)
      return [issue(`findings.${i}.key`, f.key, say('a finding key, listed by the function content'))];
    const id = `${f.key}.${definition.sides === 'person' ? 'none' : f.side}`;
    const held = answers.get(id);
    if (held !== undefined && held !== f.state)
      return [
        issue(
          `findings.${i}.state`,
          f.state,
          say('the same as the {{held}} given before for this finding and side', { held: say(held) }),
        ),
      ];
    answers.set(id, f.state);
    return [];
  });
  if (problems.length > 0) return refused(...problems);
  const record = emptyRecord(input.ageYears);
  const safety = screenRecord(content, {
    answers: {},
    found: answers,
    record,
    affected: 'both',
    closures: [],
    labelOf: (key) => key,
  });
  const reasoning = reasonAbout(content, {
    answers,
    record,
    stops: openSigns(safety),
    affected: null,
    daysSinceOnset: input.daysSinceOnset,
    tagsOff: (side) =>
      side === 'none' ? [...safety.tagsOff.left, ...safety.tagsOff.right] : safety.tagsOff[side],
  });
  return ok({ reasoning, safety });
}
