import { isStop } from '../forbidden.js';
import { memo, useEffect, useRef } from 'react';
import {
  combineTrials,
  type Computed,
  type MeasureDefinition,
  shown,
  whyComputed,
  whyTrials,
  say,
  sayKey,
} from '@heathstep/core';
import type { MeasureEntry } from '@heathstep/contracts';
import { PairBar } from '../../../parts/PairBar.js';
import { SingleBar } from '../../../parts/SingleBar.js';
import { Why } from '../../../parts/Why.js';
import type { Column } from '../live.js';
import { Details } from './Details.js';
import { Side } from './Side.js';
import { Verdict } from './Verdict.js';

/** A change is made to what stands at that moment, so that quick typing never overwrites what was typed just before. */
export type Change = (now: MeasureEntry) => MeasureEntry;

/** What a row may do to the record; the same object for as long as the visit is open. */
export interface RowActions {
  readonly write: (measure: MeasureDefinition, side: Column, change: Change) => void;
  readonly swap: (measure: MeasureDefinition) => void;
  readonly activate: (measure: string | null) => void;
  readonly openPhoto: (measure: MeasureDefinition) => void;
  readonly setAlternating: (on: boolean) => void;
}

export interface RowProps {
  readonly measure: MeasureDefinition;
  readonly row: number;
  readonly active: boolean;
  readonly alternating: boolean;
  readonly keypad: boolean;
  readonly entries: Readonly<Record<Column, MeasureEntry>>;
  readonly values: Readonly<Record<Column, number | null>>;
  readonly before: Readonly<Record<Column, number | null>>;
  readonly computed: Readonly<Record<Column, Computed | null>>;
  readonly refusals: Readonly<Record<Column, string | null>>;
  readonly refused: boolean;
  readonly unlike: boolean;
  /** Why it is not to be taken now; null when it may be. */
  readonly forbidden: string | null;
  readonly affected: 'left' | 'right' | 'both' | 'none';
  readonly ageYears: number | null;
  readonly bodyMassKg: number | null;
  readonly devicesUrl: string | null;
  readonly actions: RowActions;
}

const COLUMNS: readonly Column[] = ['left', 'right', 'none'];

/** Rows are drawn anew only when something of theirs changed, so that typing in one of sixty costs one. */
function same(a: RowProps, b: RowProps): boolean {
  return (
    a.measure === b.measure &&
    a.row === b.row &&
    a.active === b.active &&
    a.alternating === b.alternating &&
    a.keypad === b.keypad &&
    a.unlike === b.unlike &&
    a.forbidden === b.forbidden &&
    a.affected === b.affected &&
    a.bodyMassKg === b.bodyMassKg &&
    a.devicesUrl === b.devicesUrl &&
    a.actions === b.actions &&
    COLUMNS.every(
      (c) =>
        a.entries[c] === b.entries[c] &&
        a.values[c] === b.values[c] &&
        a.before[c] === b.before[c] &&
        a.refusals[c] === b.refusals[c] &&
        a.computed[c]?.value === b.computed[c]?.value,
    )
  );
}

export const Row = memo(function Row(props: RowProps) {
  const { measure, active, actions, values, before } = props;
  const box = useRef<HTMLElement>(null);
  useEffect(() => {
    if (active) box.current?.scrollIntoView({ block: 'nearest' });
  }, [active]);
  return (
    <section
      ref={box}
      aria-label={measure.label}
      className={`border-b border-line py-2 ${active ? '-mx-5 border-l-4 border-l-heather bg-paper px-5 pl-4' : ''}`}
      style={active ? undefined : { contentVisibility: 'auto', containIntrinsicSize: 'auto 60px' }}
      onFocus={(event) => {
        // A press on a button opens the row when it is let go: opening on the way down would move the button from under the finger.
        if (event.target.matches('input, :focus-visible')) actions.activate(measure.key);
      }}
      onClick={() => actions.activate(measure.key)}
    >
      {measure.sides === 'single' ? <SingleLine {...props} /> : <PairLine {...props} />}
      {active && measure.computed === null && <Details {...props} />}
      {active && measure.computed !== null && (
        <p className="mt-1 text-sm text-ink-2">
          {say('Worked out: {{list}}. {{missing}}', {
            list: measure.method.join('; '),
            missing: missingText(props),
          })}
        </p>
      )}
    </section>
  );

  function missingText({ computed }: RowProps): string {
    const missing = COLUMNS.flatMap((c) => {
      const found = computed[c];
      return found?.value === null ? found.missing : [];
    });
    const names = [...new Set(missing)].map((m) => sayKey(m));
    const none =
      values.left === null && values.right === null && values.none === null && before.left === null;
    return names.length === 0 || !none ? '' : say('Still wanted: {{list}}.', { list: names.join(', ') });
  }
}, same);

function Name({ measure, forbidden }: Pick<RowProps, 'measure' | 'forbidden'>) {
  return (
    <div className="@max-[27rem]:-order-3 @max-[27rem]:col-span-full">
      <h3 className={`text-[0.95rem] leading-tight ${forbidden === null ? '' : 'text-ink-2'}`}>
        {measure.label}
      </h3>
      <span className="text-xs text-ink-2">{measure.brief}</span>
      {forbidden !== null && (
        <span
          className={`block text-xs font-semibold leading-tight ${isStop(forbidden) ? 'text-ease-deep' : 'text-hold-deep'}`}
        >
          {forbidden}
        </span>
      )}
    </div>
  );
}

function PairLine(props: RowProps) {
  const { measure, values, before, entries } = props;
  const wide = measure.levels !== null;
  const verdict = (
    <Verdict
      measure={measure}
      left={values.left}
      right={values.right}
      single={null}
      before={before}
      unlike={props.unlike}
      affected={props.affected}
      ageYears={props.ageYears}
    />
  );
  const side = (s: 'left' | 'right') =>
    measure.computed === null ? (
      <Side
        measure={measure}
        side={s}
        row={props.row}
        entry={entries[s]}
        refusal={props.refusals[s]}
        alternating={props.alternating}
        keypad={props.keypad}
        write={(at, change) => props.actions.write(measure, at, change)}
      />
    ) : (
      <span className={`text-xs text-ink-3 ${s === 'left' ? 'text-right' : ''}`}>
        {values[s] === null ? '' : say('worked out')}
      </span>
    );
  if (wide) {
    return (
      <div className="grid grid-cols-[9.75rem_minmax(0,1fr)_minmax(0,1fr)_7rem] items-center gap-1.5 @max-[50rem]:grid-cols-[8rem_minmax(0,1fr)_minmax(0,1fr)] @max-[27rem]:grid-cols-[minmax(0,1fr)_minmax(0,1fr)]">
        <Name measure={measure} forbidden={props.forbidden} />
        <span className="flex items-center justify-end gap-2 @max-[27rem]:col-span-full @max-[27rem]:justify-start">
          <Letter side="left" />
          {side('left')}
        </span>
        <span className="flex items-center gap-2 @max-[27rem]:col-span-full @max-[27rem]:flex-row-reverse @max-[27rem]:justify-end">
          {side('right')}
          <Letter side="right" />
        </span>
        {verdict}
      </div>
    );
  }
  return (
    <div className="grid grid-cols-[9.75rem_6.6rem_3.6rem_minmax(5rem,1fr)_3.6rem_6.6rem_7rem] items-center gap-1.5 @max-[27rem]:gap-x-6 pointer-coarse:grid-cols-[9.75rem_8.75rem_3.6rem_minmax(5rem,1fr)_3.6rem_8.75rem_7rem] @max-[50rem]:grid-cols-[minmax(8rem,1fr)_6.6rem_3.6rem_3.6rem_6.6rem] pointer-coarse:@max-[50rem]:grid-cols-[minmax(8rem,1fr)_8.75rem_3.6rem_3.6rem_8.75rem] @max-[27rem]:grid-cols-[minmax(0,1fr)_minmax(0,1fr)] pointer-coarse:@max-[27rem]:grid-cols-[minmax(0,1fr)_minmax(0,1fr)]">
      <Name measure={measure} forbidden={props.forbidden} />
      <div className="min-w-0 @max-[27rem]:-order-2">{side('left')}</div>
      <Value {...props} side="left" />
      <span className="@max-[50rem]:order-last @max-[50rem]:col-span-3 @max-[27rem]:col-span-full">
        <PairBar measure={measure} left={values.left} right={values.right} before={before} />
      </span>
      <Value {...props} side="right" />
      <div className="min-w-0 @max-[27rem]:-order-2">{side('right')}</div>
      {verdict}
    </div>
  );
}

const Letter = ({ side }: { side: 'left' | 'right' }) => (
  <b aria-hidden style={{ color: `var(--color-${side})` }}>
    {side === 'left' ? 'L' : 'R'}
  </b>
);

function SingleLine(props: RowProps) {
  const { measure, values, before } = props;
  return (
    <div className="grid grid-cols-[9.75rem_auto_4.5rem_minmax(8rem,1fr)_7rem] items-center gap-1.5 @max-[50rem]:grid-cols-[8rem_auto_4.5rem_minmax(4rem,1fr)] @max-[27rem]:grid-cols-[auto_minmax(0,1fr)]">
      <Name measure={measure} forbidden={props.forbidden} />
      {measure.computed === null ? (
        <Side
          measure={measure}
          side="none"
          row={props.row}
          entry={props.entries.none}
          refusal={props.refusals.none}
          alternating={false}
          keypad={props.keypad}
          write={(at, change) => props.actions.write(measure, at, change)}
        />
      ) : (
        <span className="text-xs text-ink-3">{say('worked out')}</span>
      )}
      <Value {...props} side="none" />
      {measure.levels === null ? (
        <SingleBar measure={measure} value={values.none} before={before.none} />
      ) : (
        <span />
      )}
      <Verdict
        measure={measure}
        left={null}
        right={null}
        single={values.none}
        before={before}
        unlike={props.unlike}
        affected={props.affected}
        ageYears={props.ageYears}
      />
    </div>
  );
}

function Value({ measure, side, values, entries, computed }: RowProps & { side: Column }) {
  const value = values[side];
  if (value === null || measure.levels !== null) return <span />;
  const worked = computed[side];
  const { spread } = combineTrials(measure, entries[side].trials);
  return (
    <Why
      of={() =>
        worked === null
          ? whyTrials(measure, entries[side].trials, entries[side].simulated)
          : whyComputed(measure, worked)
      }
      label={`${measure.label}${side === 'none' ? '' : `, ${say(side)}`}: ${shown(value, Math.max(1, measure.decimals))} ${measure.unitLabel}`}
      className={`${side === 'left' ? '!text-right' : ''} min-h-[24px] text-[1.35rem] font-bold leading-none no-underline`}
    >
      <span style={{ color: side === 'none' ? undefined : `var(--color-${side})` }}>
        {shown(value, Math.max(1, measure.decimals))}
      </span>
      <span className="text-xs font-normal text-ink-2">{measure.unitLabel}</span>
      {entries[side].simulated === true && (
        <span className="block text-[0.65rem] font-semibold text-hold-deep">{say('simulated')}</span>
      )}
      {worked === null && entries[side].trials.length > 1 && spread !== null && spread > 0 && (
        <span className="block text-[0.65rem] font-normal text-ink-3">
          {say('spread {{spread}}', { spread: shown(spread) })}
        </span>
      )}
    </Why>
  );
}
