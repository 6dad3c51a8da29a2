import { words } from '../../../parts/words.js';
import { say } from '@heathstep/core';
import { SearchField } from '../../../parts/fields.js';
import { finderOf } from '../../../parts/finder.js';
import { useMemo, useState } from 'react';
import type { BodyPart, FindingDefinition, Reasoning } from '@heathstep/core';
import type { Options } from '../../../parts/fields.js';
import { forbiddenOn, notNowOf } from '../forbidden.js';
import type { LiveVisit } from '../live.js';
import { FindingRow } from './FindingRow.js';
import { type Idea, ideaId, ideasOf } from './ideas.js';
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
  const asked = query.trim();
  const find = useMemo(() => findingsFound(findings), [findings]);
  const rows = asked !== '' ? find(asked) : ofView(view, { findings, byKey, steady, reasoning, ideas });
  return (
    <section aria-label={say('Findings')} className="mb-6">
      <h3>{say('Findings and named tests')}</h3>
      <p className="text-sm text-ink-2">
        {words(
          'One key each: {{p}} present, {{a}} absent, {{n}} not tested, Backspace takes back; arrows move. Pointing at an open one shows beside what either answer would do.',
          { p: <b>P</b>, a: <b>A</b>, n: <b>N</b> },
        )}
      </p>
      <ListBar
        view={view}
        query={query}
        ideas={ideas}
        findings={findings}
        setView={(to) => {
          setView(to);
          setQuery('');
        }}
        setQuery={setQuery}
      />
      {rows.length === 0 && (
        <p className="py-4 text-ink-2">
          {asked !== ''
            ? say('No finding has these words.')
            : view.by === 'answered'
              ? say('None is answered yet.')
              : say('Nothing more would tell much here. Any finding can still be answered by body part.')}
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
            forbidden={forbiddenOn(notNowOf(live, reasoning.held), f)}
          />
        ))}
      </ul>
    </section>
  );
}

const findingsFound = (findings: readonly FindingDefinition[]) =>
  finderOf(
    findings,
    (f) => [f.name, f.ask, ...(f.also ?? [])].join(' '),
    (f) => [f.name, ...(f.also ?? [])].join(' '),
  );

/** What a view lists, in its order. */
function ofView(
  view: View,
  from: {
    readonly findings: readonly FindingDefinition[];
    readonly byKey: ReadonlyMap<string, FindingDefinition>;
    readonly steady: readonly string[];
    readonly reasoning: Reasoning;
    readonly ideas: readonly Idea[];
  },
): readonly FindingDefinition[] {
  const { findings, byKey, steady, reasoning, ideas } = from;
  if (view.by === 'telling') return steady.flatMap((key) => byKey.get(key) ?? []);
  if (view.by === 'part') return findingsOfPart(findings, view.part);
  if (view.by === 'answered')
    return findings.filter((f) =>
      (['left', 'right', 'none'] as const).some((side) => {
        const at = reasoning.known.at(f.key, side);
        return at.by === 'answer' || at.notTested || (f.safety !== null && at.state !== 'unknown');
      }),
    );
  const idea = ideas.find((i) => ideaId(i.ranked) === view.id);
  return idea === undefined ? [] : findingsOfIdea(findings, idea);
}

/** Which findings are listed: one view at a time, or those with some words. */
function ListBar({
  view,
  query,
  ideas,
  findings,
  setView,
  setQuery,
}: {
  view: View;
  query: string;
  ideas: readonly Idea[];
  findings: readonly FindingDefinition[];
  setView: (view: View) => void;
  setQuery: (query: string) => void;
}) {
  const by = query.trim() === '' ? view.by : null;
  return (
    <div className="mt-1 flex flex-wrap items-center gap-1 border-b border-line">
      <Way label={say('Most telling next')} on={by === 'telling'} choose={() => setView({ by: 'telling' })} />
      <Picked
        label={say('By idea')}
        none={say('by idea')}
        value={view.by === 'idea' ? view.id : ''}
        options={ideas.map((i) => [
          ideaId(i.ranked),
          `${i.condition.name}${i.ranked.side === 'none' ? '' : `, ${say(i.ranked.side)}`}`,
        ])}
        onChange={(id) => setView(id === '' ? { by: 'telling' } : { by: 'idea', id })}
      />
      <Picked
        label={say('By body part')}
        none={say('by body part')}
        value={view.by === 'part' ? view.part : ''}
        options={partsWith(findings).map((part) => [
          part,
          `${PART_NAMES[part]} (${findingsOfPart(findings, part).length})`,
        ])}
        onChange={(part) => setView(part === '' ? { by: 'telling' } : { by: 'part', part: part as BodyPart })}
      />
      <Way label={say('Answered')} on={by === 'answered'} choose={() => setView({ by: 'answered' })} />
      <SearchField
        className="ml-auto max-w-44"
        label={say('Find a finding')}
        placeholder={say('find a finding')}
        value={query}
        onChange={setQuery}
      />
    </div>
  );
}

function Way({ label, on, choose }: { label: string; on: boolean; choose: () => void }) {
  return (
    <button
      type="button"
      aria-pressed={on}
      className={`min-h-11 border-b-2 px-3 ${on ? 'border-heather font-semibold text-heather-deep' : 'border-transparent'}`}
      onClick={choose}
    >
      {label}
    </button>
  );
}

function Picked({
  label,
  none,
  value,
  options,
  onChange,
}: {
  label: string;
  none: string;
  value: string;
  options: Options;
  onChange: (value: string) => void;
}) {
  return (
    <label className="flex min-h-11 items-center">
      <span className="sr-only">{label}</span>
      <select
        className={`min-h-11 max-w-40 bg-transparent px-2 ${value === '' ? '' : 'font-semibold text-heather-deep'}`}
        value={value}
        onChange={(e) => onChange(e.target.value)}
      >
        <option value="">{none}</option>
        {options.map(([key, name]) => (
          <option key={key} value={key}>
            {name}
          </option>
        ))}
      </select>
    </label>
  );
}
