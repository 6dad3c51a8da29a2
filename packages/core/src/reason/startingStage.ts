import { say } from '../quantity/tongue.js';
import type { MeasureLookup } from '../progress/criteria.js';
import { evaluateCriteria } from '../progress/criteria.js';
import type { CriterionPart, Facts } from '../progress/criteriaTypes.js';
import { type ProtocolDefinition, type StageKey, stageKey } from '../protocol/definition.js';
import type { AcuityResult } from './acuity.js';
import type { IrritabilityResult } from './irritability.js';

/** What lowers the stage to start in. */
export interface StartingState {
  readonly irritability: IrritabilityResult;
  readonly acuity: AcuityResult;
  readonly cannotTakeWeight: boolean;
  /** Unable to do what the protocol asks for beyond a stage, on a treated side. */
  readonly unable: boolean;
}

export interface StartingStage {
  readonly stage: StageKey;
  readonly because: readonly string[];
  /** Entry criteria of each later stage, with their state. */
  readonly entries: readonly {
    readonly stage: StageKey;
    readonly name: string;
    readonly held: boolean;
    readonly parts: readonly CriterionPart[];
  }[];
}

/**
 * The highest stage whose entry criteria all hold (clearly or within error); one lower for irritability that is high or not
 * known, one lower in the first days, no further than the protocol says for someone unable, and the first when the patient
 * cannot take weight. Upkeep is never a starting stage. [convention]
 */
export function startingStage(
  protocol: ProtocolDefinition,
  facts: Facts,
  state: StartingState,
  { now, lookup }: { readonly now: string; readonly lookup: MeasureLookup },
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
    because.push(
      say('{{name}} waits for: {{list}}', {
        name: blocker.name,
        list: open.map((p) => `${p.text} (${p.because})`).join('; '),
      }),
    );
  } else {
    because.push(say('the entry criteria of every stage hold'));
  }
  if (state.irritability.level === 'high' && index > 0) {
    index -= 1;
    because.push(say('one stage lower, because it is highly irritable'));
  } else if (state.irritability.level === 'not-known' && index > 0) {
    index -= 1;
    because.push(
      say('one stage lower, because how irritable it is is not known ({{list}})', {
        list: state.irritability.missing.join(', '),
      }),
    );
  }
  if (state.acuity.level === 'acute' && index > 0) {
    index -= 1;
    because.push(say('one stage lower, because it is fresh: {{because}}', { because: state.acuity.because }));
  }
  const { unableAt } = protocol;
  const most = candidates.findIndex((c) => c.key === unableAt?.stage);
  if (state.unable && unableAt !== null && most !== -1 && index > most) {
    index = most;
    because.push(
      say('no further than {{name}}, because {{because}}', {
        name: candidates[most]?.name ?? '',
        because: unableAt.because,
      }),
    );
  }
  if (state.cannotTakeWeight && index > 0) {
    index = 0;
    because.push(say('the first stage, because the foot cannot take weight'));
  }
  return { stage: candidates[Math.max(0, index)]?.key ?? stageKey(''), because, entries };
}
