import { say } from '@heathstep/core';
import { useRef, type KeyboardEvent } from 'react';
import type { Column, FindingDefinition, FindingState, KnownFinding } from '@heathstep/core';
import type { LiveVisit } from '../live.js';
import { answerFinding } from './answering.js';
import { useWhatIf } from './whatIf.js';

const WORDS: readonly (readonly [FindingState, sign: string, word: string, key: string])[] = [
  ['present', '+', say('present'), 'p'],
  ['absent', '−', say('absent'), 'a'],
  ['not-tested', 'n/t', say('not tested'), 'n'],
];

const KEYS: Readonly<Record<string, FindingState>> = {
  p: 'present',
  '+': 'present',
  a: 'absent',
  '-': 'absent',
  n: 'not-tested',
};

const SIDE_LETTER = { left: 'L', right: 'R', none: '' } as const;

const STEP_OF: Readonly<Record<FindingDefinition['from'], string>> = {
  story: say('the story'),
  look: say('Look'),
  measure: say('Measure'),
  load: say('Load'),
  feel: say('Feel'),
  test: say('Feel'),
};

/** Moves to the same side of another row, or to the other side of this one. */
function move(from: HTMLElement, down: number, across: boolean): void {
  const row = from.closest('[data-finding]');
  if (row === null) return;
  const own = from.closest<HTMLElement>('[data-cell]')?.dataset['cell'];
  const rows = [...(row.parentElement?.querySelectorAll('[data-finding]') ?? [])];
  const cellsOf = (r: Element | undefined) => [...(r?.querySelectorAll<HTMLElement>('[data-cell]') ?? [])];
  const cells = across ? cellsOf(row).filter((c) => c.dataset['cell'] !== own) : [];
  for (let i = rows.indexOf(row) + down; !across && i >= 0 && i < rows.length; i += down) {
    const there = cellsOf(rows[i]).filter((c) => c.querySelector('button') !== null);
    if (there.length > 0) {
      cells.push(there.find((c) => c.dataset['cell'] === own) ?? (there[0] as HTMLElement));
      break;
    }
  }
  cells[0]?.querySelector<HTMLElement>('button[tabindex="0"]')?.focus();
}

/** One key an answer; arrows go on. */
function answerByKey(
  event: KeyboardEvent<HTMLElement>,
  live: LiveVisit,
  finding: FindingDefinition,
  side: Column,
): void {
  if (event.ctrlKey || event.metaKey || event.altKey) return;
  const answer = KEYS[event.key.toLowerCase()];
  const from = event.currentTarget;
  if (answer !== undefined) {
    event.preventDefault();
    answerFinding(live, finding, side, answer);
    move(from, 1, false);
  } else if (event.key === 'Backspace' || event.key === 'Delete') {
    event.preventDefault();
    answerFinding(live, finding, side, null);
  } else if (event.key === 'ArrowDown' || event.key === 'ArrowUp') {
    event.preventDefault();
    move(from, event.key === 'ArrowDown' ? 1 : -1, false);
  } else if (event.key === 'ArrowLeft' || event.key === 'ArrowRight') {
    event.preventDefault();
    move(from, 1, true);
  }
}

/** What the record says of it stands, and says from where. */
function FromRecord({
  label,
  finding,
  side,
  known,
  colour,
}: {
  label: string;
  finding: FindingDefinition;
  side: Column;
  known: KnownFinding;
  colour: string;
}) {
  return (
    <div
      data-cell={side}
      className="text-center text-sm"
      aria-label={`${label}: ${known.state}`}
      role="group"
    >
      <span className="font-semibold" style={{ color: known.state === 'present' ? colour : undefined }}>
        {SIDE_LETTER[side]} {known.state === 'present' ? '+' : '−'} {say(known.state)}
      </span>
      <span className="block text-ink-2">
        {say('{{words}}from {{from}}', {
          words: known.weak ? say('within error, ') : '',
          from: STEP_OF[finding.from],
        })}
      </span>
    </div>
  );
}

/** One side's answer: present, absent or not tested, by a press or by one key. What the record says stands as it is. */
export function Answer({
  live,
  finding,
  side,
  known,
  quiet,
}: {
  live: LiveVisit;
  finding: FindingDefinition;
  side: Column;
  known: KnownFinding;
  /** A side without a complaint. */
  quiet: boolean;
}) {
  const { suppose } = useWhatIf();
  const leave = useRef<number>(0);
  const label = `${finding.name}${side === 'none' ? '' : `, ${say(side)}`}`;
  const state: FindingState | null = known.notTested
    ? 'not-tested'
    : known.state === 'unknown'
      ? null
      : known.state;
  const color = side === 'none' ? 'var(--color-heather)' : `var(--color-${side})`;
  const point = () => {
    window.clearTimeout(leave.current);
    suppose(state === null ? { finding: finding.key, side } : null);
  };
  const away = () => {
    leave.current = window.setTimeout(() => suppose(null), 80);
  };
  if (known.by === 'record' && finding.safety === null)
    return <FromRecord label={label} finding={finding} side={side} known={known} colour={color} />;
  return (
    <div
      data-cell={side}
      role="group"
      aria-label={label}
      className="flex items-center justify-center"
      onPointerEnter={point}
      onPointerLeave={away}
      onFocus={point}
      onBlur={away}
    >
      {side !== 'none' && (
        <span className="mr-1 w-4 font-semibold" style={{ color }} aria-hidden>
          {SIDE_LETTER[side]}
        </span>
      )}
      {WORDS.map(([value, sign, word, key], i) => (
        <button
          key={value}
          type="button"
          aria-pressed={state === value}
          aria-label={`${word}, ${label}`}
          aria-keyshortcuts={key}
          title={`${word} (${key.toUpperCase()})`}
          tabIndex={state === value || (state === null && i === 0) ? 0 : -1}
          className={`min-h-11 min-w-10 border-b-2 px-1 text-base ${quiet ? 'border-dotted' : 'font-semibold'} focus-visible:relative focus-visible:z-10 ${state === value ? 'text-paper' : 'border-line text-ink-2 hover:bg-heather-wash'}`}
          style={
            state === value
              ? value === 'present'
                ? { background: color, borderColor: color }
                : { background: 'var(--color-ink-2)', borderColor: 'var(--color-ink-2)' }
              : undefined
          }
          onClick={() => answerFinding(live, finding, side, state === value ? null : value)}
          onKeyDown={(event) => answerByKey(event, live, finding, side)}
        >
          {sign}
        </button>
      ))}
    </div>
  );
}
