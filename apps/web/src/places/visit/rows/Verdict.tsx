import {
  compareSides,
  compareValues,
  type MeasureDefinition,
  readThreshold,
  shown,
  type Side,
  unitAfter,
  whyChange,
  whySides,
  whyThreshold,
  say,
  sayKey,
} from '@heathstep/core';
import { Why } from '../../../parts/Why.js';
import { changeTone } from '../../../parts/Judgement.js';
import type { Column } from '../live.js';

export interface VerdictProps {
  readonly measure: MeasureDefinition;
  readonly left: number | null;
  readonly right: number | null;
  readonly single: number | null;
  readonly before: Readonly<Record<Column, number | null>>;
  readonly unlike: boolean;
  readonly affected: 'left' | 'right' | 'both' | 'none';
  readonly ageYears: number | null;
}

/** What a measure says, in words: the sides, the change since last time, and the threshold it passes. */
export function Verdict(props: VerdictProps) {
  const { measure, left, right, single, before, unlike } = props;
  const side: Column = measure.sides === 'single' ? 'none' : props.affected === 'right' ? 'right' : 'left';
  const now = side === 'none' ? single : side === 'left' ? left : right;
  return (
    <div className="text-sm leading-snug @max-[50rem]:order-last @max-[50rem]:col-span-2">
      {left !== null && right !== null && <Sides {...props} left={left} right={right} />}
      {now !== null && <Says measure={measure} value={now} ageYears={props.ageYears} />}
      {now !== null && before[side] !== null && <Change measure={measure} then={before[side]} now={now} />}
      {unlike && <span className="text-ink-2">{say('taken otherwise last time')}</span>}
    </div>
  );
}

function Sides({ measure, left, right, affected }: VerdictProps & { left: number; right: number }) {
  const sides = compareSides(measure, left, right, affected);
  const worse: Side | null = sides.worseSide === 'none' ? null : sides.worseSide;
  if (measure.levels !== null && sides.difference === 0) return null;
  return (
    <Why
      of={() => whySides(measure, left, right, affected)}
      className={`block min-h-[24px] ${sides.flagged === true ? 'border-l-4 border-ease pl-1.5 font-semibold' : 'pl-0.5 text-ink-2'}`}
    >
      {measure.levels !== null
        ? say('sides differ')
        : measure.sideFlag?.kind === 'symmetry' && sides.symmetryPercent !== null
          ? say('{{symmetryPercent}} % of {{words}}', {
              symmetryPercent: shown(sides.symmetryPercent, 0),
              words: worse === 'left' ? say('right') : say('left'),
            })
          : say('{{difference}}{{unitAfter}} apart', {
              difference: shown(sides.difference, Math.max(1, measure.decimals)),
              unitAfter: unitAfter(measure),
            })}
    </Why>
  );
}

function Says({
  measure,
  value,
  ageYears,
}: {
  measure: MeasureDefinition;
  value: number;
  ageYears: number | null;
}) {
  const reading = readThreshold(measure, value, ageYears);
  if (reading === null || reading.meaning === 'usual') return null;
  return (
    <Why of={() => whyThreshold(measure, value, ageYears)} className="block min-h-[24px] text-hold-deep">
      {`${reading.meaning}${reading.margin === 'clear' ? '' : say(', within error')}`}
    </Why>
  );
}

function Change({ measure, then, now }: { measure: MeasureDefinition; then: number; now: number }) {
  const change = compareValues(measure, then, now);
  return (
    <Why
      of={() => whyChange(measure, then, now)}
      className={`block min-h-[24px] ${changeTone(change.direction)}`}
    >
      {change.change === 0
        ? say('as last time')
        : `${change.change > 0 ? '+' : ''}${shown(change.change, Math.max(1, measure.decimals))}${unitAfter(measure)} ${change.class === 'not-known' ? '' : sayKey(change.class)}`}
    </Why>
  );
}
