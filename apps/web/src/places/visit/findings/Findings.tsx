import { useMemo, useState } from 'react';
import type { BodyPart, FindingDefinition } from '@heathstep/core';
import { forbiddenOn } from '../forbidden.js';
import type { LiveVisit } from '../live.js';
import { FindingRow } from './FindingRow.js';
import { ideaId, ideasOf } from './ideas.js';
import {
  findingsOfIdea,
  findingsOfPart,
  isSettled,
  PART_NAMES,
  partsWith,
  steadyList,
  tellingKeys,
  type View,
} from './listing.js';

/** Findings to answer: the most telling next, by idea, by body part, or what has been answered; any found by its words. */
export function Findings({ live }: { live: LiveVisit }) {
  const reasoning = live.reasoning();
  const { findings, conditions } = live.content;
  const [view, setView] = useState<View>({ by: 'telling' });
  const [query, setQuery] = useState('');
  const [shown, setShown] = useState<readonly string[]>([]);
  const byKey = useMemo(() => new Map(findings.map((f) => [f.key, f])), [findings]);
  const ideas = ideasOf(reasoning, conditions);
  const isOpen = (key: string) => {
    const f = byKey.get(key);
    return f !== undefined && !isSettled(reasoning, f);
  };
  const steady = steadyList(shown, tellingKeys(reasoning.next), isOpen);
  if (steady.length !== shown.length) setShown(steady);
  const asked = query.trim().toLowerCase();
  const listed = (): readonly FindingDefinition[] => {
    if (asked !== '') return findings.filter((f) => `${f.name} ${f.ask}`.toLowerCase().includes(asked));
    if (view.by === 'telling') return steady.flatMap((key) => byKey.get(key) ?? []);
    if (view.by === 'part') return findingsOfPart(findings, view.part);
    if (view.by === 'answered')
      return findings.filter((f) =>
        ['left', 'right', 'none'].some((s) => {
          const at = reasoning.known.at(f.key, s as 'left');
          return at.by === 'answer' || at.notTested || (f.safety !== null && at.state !== 'unknown');
        }),
      );
    const idea = ideas.find((i) => ideaId(i.ranked) === view.id);
    return idea === undefined ? [] : findingsOfIdea(findings, idea);
  };
  const rows = listed();
  const tab = (label: string, on: boolean, to: View) => (
    <button
      type="button"
      aria-pressed={on && asked === ''}
      className={`min-h-11 border-b-2 px-3 ${on && asked === '' ? 'border-heather font-semibold text-heather-deep' : 'border-transparent'}`}
      onClick={() => {
        setView(to);
        setQuery('');
      }}
    >
      {label}
    </button>
  );
  return (
    <section aria-label="Findings" className="mb-6">
      <h3>Findings and named tests</h3>
      <p className="text-sm text-ink-2">
        One key each: <b>P</b> present, <b>A</b> absent, <b>N</b> not tested, Backspace takes back; arrows
        move. Pointing at an open one shows beside what either answer would do.
      </p>
      <div className="mt-1 flex flex-wrap items-center gap-1 border-b border-line">
        {tab('Most telling next', view.by === 'telling', { by: 'telling' })}
        <label className="flex min-h-11 items-center">
          <span className="sr-only">By idea</span>
          <select
            className={`min-h-11 max-w-40 bg-transparent px-2 ${view.by === 'idea' ? 'font-semibold text-heather-deep' : ''}`}
            value={view.by === 'idea' ? view.id : ''}
            onChange={(e) => {
              setView(e.target.value === '' ? { by: 'telling' } : { by: 'idea', id: e.target.value });
              setQuery('');
            }}
          >
            <option value="">by idea</option>
            {ideas.map((i) => (
              <option key={ideaId(i.ranked)} value={ideaId(i.ranked)}>
                {`${i.condition.name}${i.ranked.side === 'none' ? '' : `, ${i.ranked.side}`}`}
              </option>
            ))}
          </select>
        </label>
        <label className="flex min-h-11 items-center">
          <span className="sr-only">By body part</span>
          <select
            className={`min-h-11 max-w-40 bg-transparent px-2 ${view.by === 'part' ? 'font-semibold text-heather-deep' : ''}`}
            value={view.by === 'part' ? view.part : ''}
            onChange={(e) => {
              setView(
                e.target.value === '' ? { by: 'telling' } : { by: 'part', part: e.target.value as BodyPart },
              );
              setQuery('');
            }}
          >
            <option value="">by body part</option>
            {partsWith(findings).map((part) => (
              <option key={part} value={part}>
                {`${PART_NAMES[part]} (${findingsOfPart(findings, part).length})`}
              </option>
            ))}
          </select>
        </label>
        {tab('Answered', view.by === 'answered', { by: 'answered' })}
        <input
          className="field ml-auto max-w-44"
          aria-label="Find a finding"
          placeholder="find a finding"
          value={query}
          maxLength={60}
          onChange={(e) => setQuery(e.target.value)}
        />
      </div>
      {rows.length === 0 && (
        <p className="py-4 text-ink-2">
          {asked !== ''
            ? 'No finding has these words.'
            : view.by === 'answered'
              ? 'None is answered yet.'
              : 'Nothing more would tell much here. Any finding can still be answered by body part.'}
        </p>
      )}
      <ul>
        {rows.map((f) => (
          <FindingRow
            key={f.key}
            live={live}
            finding={f}
            reasoning={reasoning}
            next={reasoning.next.find((n) => n.finding === f.key) ?? null}
            forbidden={forbiddenOn({ safety: live.safety.tagsOff, held: reasoning.held }, f.needs)}
          />
        ))}
      </ul>
    </section>
  );
}
