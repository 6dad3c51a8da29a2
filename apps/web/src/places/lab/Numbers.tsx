import {
  type Affected,
  compareSides,
  compareValues,
  type MeasureDefinition,
  readThreshold,
  say,
  shown,
  type Side,
  SIDES,
  unitAfter,
  whyChange,
  whySides,
  whyThreshold,
  type Why as WhyContent,
} from '@heathstep/core';
import type { LabMeasure } from '@heathstep/contracts';
import type { Quantity } from '@heathstep/core/lab';
import { changeTone, Judgement, sentence } from '../../parts/Judgement.js';
import { PairBar } from '../../parts/PairBar.js';
import { Why } from '../../parts/Why.js';
import { bothOf } from './intoVisit.js';
import type { LabReading } from './reading.js';

/** What a number of a capture was made of. */
function whyQuantity(m: MeasureDefinition, q: Quantity, reading: LabReading): WhyContent {
  const value = `${shown(q.value, m.decimals + 1)}${unitAfter(m)}`;
  return {
    statement: `${m.label}: ${value}`,
    inputs: [
      { name: say('Instrument'), value: reading.device },
      { name: say('Captured'), value: `${shown(reading.seconds, 0)} s` },
      { name: say('Steps or goes'), value: String(q.n) },
      {
        name: say('Spread between them'),
        value: q.spread === null ? say('not known') : `${shown(q.spread, m.decimals + 1)}${unitAfter(m)}`,
      },
    ],
    rule: m.method.join('; '),
    arithmetic:
      m.error === null
        ? []
        : [
            'mdc' in m.error
              ? say('Repeat error: a difference under {{mdc}}{{unit}} is within it', {
                  mdc: m.error.mdc,
                  unit: unitAfter(m),
                })
              : '',
          ],
    source: m.error === null ? m.evidence.source : `${m.evidence.source}. ${m.error.source}`,
    reviewKey: `measure:${m.key}`,
  };
}

/** A finger needs room in a line of small print. */
const PRESSED = 'inline-block min-h-7 leading-7';

interface NumbersProps {
  readonly measures: readonly LabMeasure[];
  readonly reading: LabReading;
  readonly other: LabReading | null;
  /** What the other one is, in words. */
  readonly otherIs: string;
  readonly affected: Affected;
  readonly ageYears: number | null;
}

/** The numbers of a capture, both feet, each with what it was made of, what it says, and how it stands against another capture. */
export function Numbers(props: NumbersProps) {
  const { measures, reading } = props;
  const rows = measures.filter((m) =>
    SIDES.some((s) => reading.quantities[s][m.source.quantity] !== undefined),
  );
  if (rows.length === 0) return <p className="text-ink-2">{say('Nothing could be measured.')}</p>;
  return (
    <section aria-label={say('Numbers')}>
      <h3>{say('Numbers')}</h3>
      <div className="mt-1 divide-y divide-line-2">
        {rows.map((m) => (
          <Row key={m.measure.key} {...props} row={m} />
        ))}
      </div>
    </section>
  );
}

function Row({ row, reading, other, otherIs, affected, ageYears }: NumbersProps & { row: LabMeasure }) {
  const { measure, source } = row;
  const now = bothOf(reading.quantities, source.quantity);
  const then = other === null ? { left: null, right: null } : bothOf(other.quantities, source.quantity);
  const { left, right } = now;
  const difference = left === null || right === null ? null : compareSides(measure, left, right, affected);
  return (
    <div className="grid items-center gap-x-4 py-2 sm:grid-cols-[minmax(9rem,1fr)_minmax(12rem,1.3fr)_minmax(0,1fr)]">
      <div>
        <div className="font-semibold">{measure.label}</div>
        <div className="text-sm text-ink-2">{measure.brief}</div>
      </div>
      <div className="grid grid-cols-[4.6rem_minmax(0,1fr)_4.6rem] items-center gap-2">
        <Value side="left" row={row} reading={reading} />
        <PairBar measure={measure} left={left} right={right} before={then} beforeIs={otherIs} />
        <Value side="right" row={row} reading={reading} />
      </div>
      <div className="text-sm">
        {difference !== null && difference.flagged === true && left !== null && right !== null && (
          <Why of={() => whySides(measure, left, right, affected)} className={PRESSED}>
            {say('{{difference}}{{unit}} between the sides', {
              difference: shown(Math.abs(left - right), measure.decimals),
              unit: unitAfter(measure),
            })}
          </Why>
        )}
        {SIDES.map((side) => (
          <Says key={side} side={side} measure={measure} value={now[side]} ageYears={ageYears} />
        ))}
        {SIDES.map((side) => {
          const [a, b] = [then[side], now[side]];
          if (a === null || b === null) return null;
          const change = compareValues(measure, a, b, source.method);
          return (
            <div key={side} className={changeTone(change.direction)}>
              <Why of={() => whyChange(measure, a, b)} className={PRESSED}>
                {say('{{side}}: {{change}}{{unit}} against {{other}}', {
                  other: otherIs,
                  side: sentence(say(side)),
                  change: `${change.change > 0 ? '+' : ''}${shown(change.change, measure.decimals)}`,
                  unit: unitAfter(measure),
                })}
              </Why>
              {change.class === 'within-error' ? `, ${say('within error')}` : ''}
            </div>
          );
        })}
      </div>
    </div>
  );
}

function Value({
  side,
  row: { measure, source },
  reading,
}: {
  side: Side;
  row: LabMeasure;
  reading: LabReading;
}) {
  const q = reading.quantities[side][source.quantity];
  const place = side === 'left' ? 'text-right' : '';
  if (q === undefined) return <div className={`${place} text-sm text-ink-3`}>{say('none')}</div>;
  return (
    <div className={place} style={{ color: `var(--color-${side})` }}>
      <Why
        of={() => whyQuantity(measure, q, reading)}
        className="text-xl font-bold"
        label={`${measure.label}, ${say(side)}`}
      >
        {shown(q.value, measure.decimals)}
      </Why>
      <span className="text-sm text-ink-2">{unitAfter(measure)}</span>
    </div>
  );
}

/** What a value says by the measure's own thresholds, and how schools that differ read it. */
function Says({
  side,
  measure,
  value,
  ageYears,
}: {
  side: Side;
  measure: MeasureDefinition;
  value: number | null;
  ageYears: number | null;
}) {
  if (value === null) return null;
  const said = readThreshold(measure, value, ageYears);
  if (said === null) return null;
  const readings = measure.thresholds.find((t) => t.key === said.key)?.readings ?? [];
  return (
    <div className="mt-0.5">
      <Judgement tone="hold">{`${side === 'left' ? 'L' : 'R'}: ${said.meaning}`}</Judgement>{' '}
      <Why of={() => whyThreshold(measure, value, ageYears)} className={PRESSED}>
        {said.margin === 'clear' ? say('why') : say('within error, capture again')}
      </Why>
      {readings.length > 0 && (
        <dl className="mt-1 grid gap-1 border-l-2 border-line pl-2">
          {readings.map(({ school, text }) => (
            <div key={school}>
              <dt className="inline font-semibold">{school}:</dt> <dd className="inline">{text}.</dd>
            </div>
          ))}
        </dl>
      )}
    </div>
  );
}
