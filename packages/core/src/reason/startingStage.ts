import type { MeasureLookup } from '../progress/criteria.js';
import { evaluateCriteria } from '../progress/criteria.js';
import type { CriterionPart, Facts } from '../progress/criteriaTypes.js';
import type { ProtocolDefinition } from '../protocol/definition.js';
import type { IrritabilityResult } from './irritability.js';

export interface StartingStage {
  readonly stage: string;
  readonly because: readonly string[];
  /** Entry criteria of each later stage, with their state. */
  readonly entries: readonly {
    readonly stage: string;
    readonly name: string;
    readonly held: boolean;
    readonly parts: readonly CriterionPart[];
  }[];
}

/**
 * The highest stage whose entry criteria all hold (clearly or within error), one lower for high irritability,
 * and the first stage when the patient cannot take weight. Upkeep is never a starting stage.
 */
export function startingStage(
  protocol: ProtocolDefinition,
  facts: Facts,
  irritability: IrritabilityResult,
  cannotTakeWeight: boolean,
  now: string,
  lookup: MeasureLookup,
): StartingStage {
  const candidates = protocol.stages.filter((s) => s.criteria !== null);
  const entries = candidates.map((stage) => {
    if (stage.entry === null) return { stage: stage.key, name: stage.name, held: true, parts: [] };
    const result = evaluateCriteria(stage.entry, facts, now, lookup);
    const held = result.state === 'met' || result.state === 'met-within-error';
    return { stage: stage.key, name: stage.name, held, parts: result.parts };
  });
  const firstFailed = entries.findIndex((e) => !e.held);
  let index = (firstFailed === -1 ? entries.length : firstFailed) - 1;
  const because: string[] = [];
  const blocker = entries[index + 1];
  if (blocker !== undefined) {
    const open = blocker.parts.filter((p) => p.state === 'not-met' || p.state === 'not-known');
    because.push(`${blocker.name} waits for: ${open.map((p) => `${p.text} (${p.because})`).join('; ')}`);
  } else {
    because.push('the entry criteria of every stage hold');
  }
  if (irritability.level === 'high' && index > 0) {
    index -= 1;
    because.push('one stage lower, because it is highly irritable');
  }
  if (cannotTakeWeight && index > 0) {
    index = 0;
    because.push('the first stage, because the foot cannot take weight');
  }
  return { stage: candidates[Math.max(0, index)]?.key ?? '', because, entries };
}
