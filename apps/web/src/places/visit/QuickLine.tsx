import { type RefObject, useEffect, useId, useRef, useState } from 'react';
import {
  completeQuick,
  type MeasureDefinition,
  parseQuick,
  printQuick,
  type QuickItem,
  type QuickProblem,
  whyTrials,
  say,
  sayKey,
} from '@heathstep/core';
import type { MeasureEntry } from '@heathstep/contracts';
import { hintUsed } from '../../parts/Hint.js';
import type { EntryStore } from '../../api/entryStore.js';
import type { LiveVisit } from './live.js';
import { EMPTY, type MeasureKey } from './rows/entries.js';

/** The changes a line makes, together one undo. What it does not speak of stays. */
export function changesOf(
  items: readonly QuickItem[],
  store: EntryStore,
): (readonly [key: MeasureKey, value: MeasureEntry])[] {
  return items.map((item) => {
    const key = `measure.${item.measure}.${item.side}` as const;
    const { confirmed: _confirmed, ...before } = store.get(key) ?? EMPTY;
    const only = item.status === 'taken' && item.trials.length === 0;
    return [
      key,
      {
        ...before,
        status: item.status,
        trials: only ? before.trials : item.trials,
        pain: item.pain ?? before.pain,
      },
    ];
  });
}

/** One line for any measure: `lunge l 34 35 33 pain 2 r 38`. Opens with the / key, shows what it will write as it is typed. */
export function QuickLine({ live }: { live: LiveVisit }) {
  const [text, setText] = useState('');
  const [open, setOpen] = useState(false);
  const [picked, setPicked] = useState(-1);
  const [told, setTold] = useState('');
  const input = useRef<HTMLInputElement>(null);
  const listId = useId();
  const { measures } = live.content;
  useSlashKey(input);
  const result = text.trim() === '' ? null : parseQuick(text, measures);
  const completions = open ? completeQuick(text, measures) : [];
  const problem = result !== null && !result.ok ? result.problem : null;
  const take = (line: string) => {
    setText(line);
    setPicked(-1);
    input.current?.focus();
  };
  const apply = () => {
    if (result === null || !result.ok || result.items.length === 0) return;
    live.store.setMany(changesOf(result.items, live.store));
    hintUsed('line');
    setTold(say('Written: {{printQuick}}', { printQuick: printQuick(result.items, measures) }));
    setText('');
  };
  const onKeyDown = lineKeys({
    completions,
    picked,
    setPicked,
    take: (completion) => take((completion ?? completions[0])?.line ?? text),
    asked: text.trim() !== '',
    apply,
    leave: () => {
      setText('');
      input.current?.blur();
    },
    undo: () => {
      if (text !== '') return false;
      live.store.undo();
      setTold(say('Taken back'));
      return true;
    },
  });
  const showing = open && text.trim() !== '';
  return (
    <div className="relative w-72">
      <input
        ref={input}
        className="field !min-h-9 pr-8 pointer-coarse:!min-h-11"
        role="combobox"
        aria-label={say('Quick line')}
        aria-expanded={showing && completions.length > 0}
        aria-controls={listId}
        aria-autocomplete="list"
        aria-activedescendant={picked >= 0 ? `${listId}-${picked}` : undefined}
        aria-invalid={problem !== null && !open}
        placeholder={say('lunge l 34 35 33')}
        value={text}
        maxLength={300}
        autoComplete="off"
        spellCheck={false}
        onChange={(event) => {
          setText(event.target.value);
          setPicked(-1);
          setTold('');
        }}
        onFocus={() => setOpen(true)}
        onBlur={() => setOpen(false)}
        onKeyDown={onKeyDown}
      />
      <kbd
        aria-hidden
        className="absolute right-1 top-1.5 rounded border border-line px-1.5 text-sm text-ink-2"
      >
        /
      </kbd>
      <span className="sr-only" role="status">
        {told}
      </span>
      {showing && (
        <div
          className="absolute right-0 top-full z-30 mt-1 w-[27rem] rounded-lg border border-line bg-paper p-3 shadow-xl"
          onPointerDown={(event) => event.preventDefault()}
        >
          <Reading result={result} problem={problem} text={text} measures={measures} take={take} />
          <Completions id={listId} list={completions} picked={picked} take={take} />
        </div>
      )}
    </div>
  );
}

type Completion = ReturnType<typeof completeQuick>[number];

interface LineKeys {
  readonly completions: readonly Completion[];
  readonly picked: number;
  readonly setPicked: (to: number) => void;
  /** Takes over the one chosen, or the first. */
  readonly take: (completion: Completion | undefined) => void;
  /** Whether anything is asked for yet. */
  readonly asked: boolean;
  readonly apply: () => void;
  readonly leave: () => void;
  /** Takes back what was written last; false where there is text to edit instead. */
  readonly undo: () => boolean;
}

/** Arrows walk the completions, Tab takes one, Enter writes, Escape leaves, Ctrl+Z takes back. */
function lineKeys({ completions, picked, setPicked, take, asked, apply, leave, undo }: LineKeys) {
  return (event: React.KeyboardEvent): void => {
    const chosen = completions[picked];
    if (event.key === 'ArrowDown' || event.key === 'ArrowUp') {
      const by = event.key === 'ArrowDown' ? 1 : -1;
      setPicked(Math.max(-1, Math.min(completions.length - 1, picked + by)));
    } else if (event.key === 'Tab' && !event.shiftKey && asked && completions.length > 0) take(chosen);
    else if (event.key === 'Enter') {
      if (chosen === undefined) apply();
      else take(chosen);
    } else if (event.key === 'z' && (event.ctrlKey || event.metaKey)) {
      if (!undo()) return;
    } else {
      if (event.key === 'Escape') leave();
      return;
    }
    event.preventDefault();
  };
}

/** The / key goes to the line from wherever nothing is being written. */
function useSlashKey(input: RefObject<HTMLInputElement | null>): void {
  useEffect(() => {
    const listen = (event: KeyboardEvent) => {
      // No figure has a stroke in it, so the key opens the line from a field for figures too.
      const figures = ['decimal', 'none', 'numeric'];
      const field = event.target instanceof HTMLInputElement && !figures.includes(event.target.inputMode);
      const typing = field || event.target instanceof HTMLTextAreaElement;
      if (event.key !== '/' || typing || event.ctrlKey || event.metaKey) return;
      event.preventDefault();
      input.current?.focus();
    };
    window.addEventListener('keydown', listen);
    return () => window.removeEventListener('keydown', listen);
  }, [input]);
}

function Completions({
  id,
  list,
  picked,
  take,
}: {
  id: string;
  list: ReturnType<typeof completeQuick>;
  picked: number;
  take: (line: string) => void;
}) {
  return (
    <ul id={id} role="listbox" aria-label={say('What can come next')} className="mt-1">
      {list.map((c, i) => (
        <li
          key={c.line}
          id={`${id}-${i}`}
          role="option"
          aria-selected={i === picked}
          className={`flex min-h-9 cursor-pointer items-center justify-between gap-4 rounded px-2 text-sm ${i === picked ? 'bg-heather-wash' : 'hover:bg-line-2'}`}
          onClick={() => take(c.line)}
        >
          <b>{c.text}</b>
          <span className="truncate text-ink-2">{c.hint}</span>
        </li>
      ))}
    </ul>
  );
}

/** What the line means so far; or where it goes wrong, with the closest line that would do. */
function Reading({
  result,
  problem,
  text,
  measures,
  take,
}: {
  result: ReturnType<typeof parseQuick> | null;
  problem: QuickProblem | null;
  text: string;
  measures: readonly MeasureDefinition[];
  take: (line: string) => void;
}) {
  if (result?.ok === true) {
    return (
      <ul className="text-sm">
        {result.items.map((item, i) => {
          const m = measures.find((x) => x.key === item.measure);
          if (m === undefined) return null;
          const value =
            item.trials.length > 0
              ? whyTrials(m, item.trials).statement
              : `${m.label}: ${sayKey(item.status)}`;
          return (
            <li key={i}>
              {item.side !== 'none' && (
                <b style={{ color: `var(--color-${item.side})` }}>{say(item.side)} </b>
              )}
              {item.trials.length === 0 && item.status === 'taken' ? m.label : value}
              {item.pain === null ? '' : say(', pain {{pain}}', { pain: item.pain })}
            </li>
          );
        })}
        <li className="mt-1 text-ink-2">{say('Enter writes it, Ctrl Z takes it back.')}</li>
      </ul>
    );
  }
  if (problem === null) return null;
  const near = problem.nearest;
  const whole =
    near === null
      ? null
      : text.slice(0, problem.start) + near + (near.includes(' ') ? '' : text.slice(problem.end));
  return (
    <div className="text-sm" role="status">
      <code className="block whitespace-pre-wrap font-body">
        {text.slice(0, problem.start)}
        <mark className="bg-ease-wash text-ease-deep underline decoration-wavy">
          {text.slice(problem.start, problem.end) || ' '}
        </mark>
        {text.slice(problem.end)}
      </code>
      <span className="text-ease-deep">{problem.message}.</span>{' '}
      {whole !== null && (
        <button type="button" className="text-action min-h-9" onClick={() => take(whole)}>
          {say('Did you mean: {{whole}}', { whole })}
        </button>
      )}
    </div>
  );
}
