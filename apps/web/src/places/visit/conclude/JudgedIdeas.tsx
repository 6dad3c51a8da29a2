import { Also } from '../../../parts/Also.js';
import { useState } from 'react';
import {
  type Column,
  type ConditionDefinition,
  type Push,
  type RankedCondition,
  shown,
  say,
} from '@heathstep/core';
import type { ConcludedIdea } from '@heathstep/contracts';
import { type Idea, ideaId, ideasOf } from '../findings/ideas.js';
import { IdeaBar, RankWord, RuleOut } from '../findings/Ideas.js';
import type { LiveVisit } from '../live.js';
import { AsBefore } from './AsBefore.js';
import { GoOnAs } from './GoOnAs.js';
import { ENTRY, judgedIdeas, withVerdict, without } from './concluded.js';

const save = (live: LiveVisit, list: readonly ConcludedIdea[]): void =>
  live.store.set(ENTRY, list.length === 0 ? null : list);

const SideMark = ({ side }: { side: Column }) =>
  side === 'none' ? null : <b style={{ color: `var(--color-${side})` }}>{side === 'left' ? 'L ' : 'R '}</b>;

/** What was rejected, or added by the clinician, without a rank of its own. */
function titleOf(live: LiveVisit, condition: string): string {
  return live.content.conditions.find((c) => c.key === condition)?.name ?? condition;
}

/** One thing that moved the idea: to the right of the spine for it, to the left against, as long as its part of the push. */
function PushRow({ push, longest }: { push: Push; longest: number }) {
  const pro = push.ratio > 1;
  const name =
    push.state === 'absent'
      ? say('Not: {{charAt}}{{name}}', {
          charAt: push.name.charAt(0).toLowerCase(),
          name: push.name.slice(1),
        })
      : push.name;
  return (
    <li className="grid grid-cols-[minmax(0,1fr)_8rem] items-center gap-3 py-0.5 text-sm">
      <span>
        {name}
        {push.weak && <span className="text-ink-2"> {say('(within error)')}</span>}
      </span>
      <span
        className="relative h-3"
        role="img"
        aria-label={say('{{words}}, {{share}} percent of the push', {
          words: pro ? say('for') : say('against'),
          share: shown(push.share * 100, 0),
        })}
      >
        <span className="absolute inset-y-0 left-1/2 w-px bg-ink-3" />
        <span
          className={`absolute inset-y-0.5 ${pro ? 'left-1/2 bg-go' : 'right-1/2 bg-ease'}`}
          style={{ width: `${Math.max(2, (push.share / longest) * 50)}%` }}
        />
      </span>
    </li>
  );
}

function Balance({ idea, live }: { idea: Idea; live: LiveVisit }) {
  const { ranked } = idea;
  const nameOf = (key: string) => live.content.findings.find((f) => f.key === key)?.name ?? key;
  const pushes = [...ranked.for, ...ranked.against].sort((a, b) => b.share - a.share);
  return (
    <div className="pb-2 pt-1">
      <p className="grid grid-cols-[minmax(0,1fr)_8rem] gap-3 text-sm text-ink-2" aria-hidden>
        <span />
        <span className="flex justify-between">
          <span>{say('against')}</span>
          <span>{say('for')}</span>
        </span>
      </p>
      {pushes.length === 0 && <p className="text-sm">{say('Nothing speaks for or against it yet.')}</p>}
      <ul aria-label={say('For and against {{name}}', { name: idea.condition.name })}>
        {pushes.map((p) => (
          <PushRow key={p.finding} push={p} longest={pushes[0]?.share ?? 1} />
        ))}
      </ul>
      {ranked.missing.length > 0 && (
        <p className="mt-1 text-sm text-ink-2">
          {say('Not known yet: {{list}}.', {
            list: ranked.missing.map((k) => nameOf(k).toLowerCase()).join(', '),
          })}
        </p>
      )}
    </div>
  );
}

/** Why an idea is rejected, before it is. */
function Rejecting({
  name,
  done,
  cancel,
}: {
  name: string;
  done: (reason: string) => void;
  cancel: () => void;
}) {
  const [reason, setReason] = useState('');
  return (
    <form
      className="flex items-end gap-3 pb-2"
      onSubmit={(event) => {
        event.preventDefault();
        if (reason.trim() !== '') done(reason.trim());
      }}
    >
      <label className="flex-1">
        <span className="text-sm text-ink-2">
          {say('Why it is not {{name}}', { name: name.toLowerCase() })}
        </span>
        <input
          className="field"
          value={reason}
          maxLength={300}
          autoFocus
          onChange={(e) => setReason(e.target.value)}
        />
      </label>
      <button type="submit" className="action-quiet" disabled={reason.trim() === ''}>
        {say('Reject')}
      </button>
      <button type="button" className="text-action min-h-11" onClick={cancel}>
        {say('Cancel')}
      </button>
    </form>
  );
}

function IdeaRow({ idea, live, opened }: { idea: Idea; live: LiveVisit; opened: boolean }) {
  const { condition, ranked } = idea;
  const [rejecting, setRejecting] = useState(false);
  const [open, setOpen] = useState(opened);
  const list = judgedIdeas(live);
  const held = list.find((i) => i.condition === condition.key && i.side === ranked.side) ?? null;
  const name = `${condition.name}${ranked.side === 'none' ? '' : `, ${say(ranked.side)}`}`;
  const judge = (verdict: ConcludedIdea['verdict'], reason: string | null, leads = false) =>
    save(live, withVerdict(list, { condition: condition.key, side: ranked.side, verdict, reason, leads }));
  const takeBack = () => save(live, without(list, condition.key, ranked.side));
  const button = (word: string, on: boolean, press: () => void) => (
    <button
      type="button"
      aria-pressed={on}
      aria-label={`${word}: ${name}`}
      className={`min-h-11 border-b-2 px-3 font-semibold ${on ? 'border-heather bg-heather text-paper' : 'border-line text-ink-2 hover:bg-heather-wash'}`}
      onClick={press}
    >
      {word}
    </button>
  );
  return (
    <li className="border-b border-line py-2" data-idea={ideaId(ranked)}>
      <IdeaLine
        ranked={ranked}
        held={held}
        condition={condition}
        idea={idea}
        button={button}
        takeBack={takeBack}
        judge={judge}
        setRejecting={setRejecting}
      />
      <div className="mt-1 flex flex-wrap items-center gap-x-4 text-sm text-ink-2">
        <span>
          {condition.gloss}. <Also of={condition} most={2} />
        </span>
        {idea.ruleOut && <RuleOut />}
        {held?.verdict === 'agreed' && !held.leads && (
          <button type="button" className="text-action min-h-9" onClick={() => judge('agreed', null, true)}>
            {say('treat this first')}
          </button>
        )}
        {held?.verdict === 'agreed' && held.leads && (
          <b className="text-heather-deep">{say('treated first')}</b>
        )}
        {held?.verdict === 'rejected' && (
          <span>{say('Rejected: {{reason}}', { reason: held.reason ?? '' })}</span>
        )}
        <button
          type="button"
          className="text-action min-h-9"
          aria-expanded={open}
          aria-label={say('For and against: {{name}}', { name })}
          onClick={() => setOpen(!open)}
        >
          {say('for and against')}
        </button>
      </div>
      {rejecting && (
        <Rejecting
          name={condition.name}
          cancel={() => setRejecting(false)}
          done={(reason) => {
            judge('rejected', reason);
            setRejecting(false);
          }}
        />
      )}
      {open && <Balance idea={idea} live={live} />}
    </li>
  );
}

/** The idea, how it ranks, and the judgement on it. */
function IdeaLine({
  ranked,
  held,
  condition,
  idea,
  button,
  takeBack,
  judge,
  setRejecting,
}: {
  ranked: RankedCondition;
  held: ConcludedIdea | null;
  condition: ConditionDefinition;
  idea: Idea;
  button: (word: string, on: boolean, press: () => void) => React.JSX.Element;
  takeBack: () => void;
  judge: (verdict: ConcludedIdea['verdict'], reason: string | null, leads?: boolean) => void;
  setRejecting: (next: boolean) => void;
}) {
  return (
    <div className="flex items-center gap-4">
      <div className="min-w-0 flex-1">
        <span className="flex items-baseline justify-between gap-3">
          <span
            className={`text-lg ${ranked.rank === 'leading' ? 'font-head font-semibold' : ''} ${held?.verdict === 'rejected' ? 'text-ink-2 line-through' : ''}`}
          >
            <SideMark side={ranked.side} />
            {condition.name}
          </span>
          <RankWord idea={idea} />
        </span>
        <span className="mt-1 block">
          <IdeaBar idea={idea} present={null} absent={null} />
        </span>
      </div>
      <div className="flex shrink-0">
        {button(say('Agree'), held?.verdict === 'agreed', () =>
          held?.verdict === 'agreed' ? takeBack() : judge('agreed', null),
        )}
        {button(say('Reject'), held?.verdict === 'rejected', () =>
          held?.verdict === 'rejected' ? takeBack() : setRejecting(true),
        )}
      </div>
    </div>
  );
}

/** Ideas the clinician added, or judged while they ranked higher than now. */
function Others({ live, shown: ideas }: { live: LiveVisit; shown: readonly Idea[] }) {
  const list = judgedIdeas(live);
  const others = list.filter(
    (i) => !ideas.some((s) => s.ranked.key === i.condition && s.ranked.side === i.side),
  );
  return (
    <>
      {others.map((i) => (
        <li key={`${i.condition}.${i.side}`} className="flex items-center gap-4 border-b border-line py-2">
          <span className="flex-1 text-lg">
            <SideMark side={i.side} />
            <span className={i.verdict === 'rejected' ? 'text-ink-2 line-through' : ''}>
              {titleOf(live, i.condition)}
            </span>
            <span className="ml-2 text-sm text-ink-2">
              {i.verdict === 'rejected'
                ? say('rejected: {{reason}}', { reason: i.reason ?? '' })
                : i.verdict === 'added'
                  ? say('added by you')
                  : say('agreed')}
              {i.leads ? say(', treated first') : ''}
            </span>
          </span>
          {!i.leads && i.verdict !== 'rejected' && (
            <button
              type="button"
              className="text-action min-h-11 text-sm"
              onClick={() => save(live, withVerdict(list, { ...i, leads: true }))}
            >
              {say('treat this first')}
            </button>
          )}
          <button
            type="button"
            className="text-action min-h-11 text-sm"
            aria-label={say('Remove {{titleOf}}', { titleOf: titleOf(live, i.condition) })}
            onClick={() => save(live, without(list, i.condition, i.side))}
          >
            {say('remove')}
          </button>
        </li>
      ))}
    </>
  );
}

/** Any condition of the library, on a side. */
function Adding({ live }: { live: LiveVisit }) {
  const [condition, setCondition] = useState('');
  const chosen = live.content.conditions.find((c) => c.key === condition);
  const [side, setSide] = useState<'left' | 'right'>(live.affected === 'right' ? 'right' : 'left');
  const add = () => {
    if (chosen === undefined) return;
    const at: Column = chosen.scope === 'person' ? 'none' : side;
    save(
      live,
      withVerdict(judgedIdeas(live), {
        condition: chosen.key,
        side: at,
        verdict: 'added',
        reason: null,
        leads: false,
      }),
    );
    setCondition('');
  };
  return (
    <div className="mt-2 flex flex-wrap items-end gap-3">
      <label>
        <span className="block text-sm text-ink-2">{say('Add another')}</span>
        <select
          className="field min-h-11 max-w-64"
          value={condition}
          onChange={(e) => setCondition(e.target.value)}
        >
          <option value="">{say('choose a condition')}</option>
          {[...live.content.conditions]
            .sort((a, b) => a.name.localeCompare(b.name))
            .map((c) => (
              <option key={c.key} value={c.key}>
                {c.name}
              </option>
            ))}
        </select>
      </label>
      {chosen !== undefined && chosen.scope === 'side' && (
        <label>
          <span className="block text-sm text-ink-2">{say('Side')}</span>
          <select
            className="field min-h-11"
            value={side}
            onChange={(e) => setSide(e.target.value as 'left' | 'right')}
          >
            <option value="left">{say('left')}</option>
            <option value="right">{say('right')}</option>
          </select>
        </label>
      )}
      <button type="button" className="action-quiet" disabled={chosen === undefined} onClick={add}>
        {say('Add')}
      </button>
    </div>
  );
}

/** The ranked ideas, each to be agreed or rejected; what the clinician makes of them is the record. */
export function JudgedIdeas({ live }: { live: LiveVisit }) {
  const reasoning = live.reasoning();
  const ideas = ideasOf(reasoning, live.content.conditions);
  const open = live.get('conclude.condition') === 'open';
  return (
    <section aria-label={say('What it looks like')}>
      <h3 className="text-ink-2">{say('What it looks like')}</h3>
      {reasoning.cannotTell && (
        <p className="mt-1 font-head text-lg font-semibold">
          {say('Cannot tell yet')}
          <span className="ml-2 font-body text-base font-normal text-ink-2">
            {ideas.length === 0 ? say('too little is known') : say('no idea is clearly ahead')}
          </span>
        </p>
      )}
      <AsBefore live={live} ideas={ideas} />
      <ul className="mt-1" aria-label={say('Ideas to judge')}>
        {ideas.map((idea, i) => (
          <IdeaRow key={ideaId(idea.ranked)} idea={idea} live={live} opened={i === 0} />
        ))}
        <Others live={live} shown={ideas} />
      </ul>
      <GoOnAs live={live} />
      <Adding live={live} />
      <label className="mt-3 flex min-h-11 items-center gap-3">
        <input
          type="checkbox"
          className="size-5"
          checked={open}
          onChange={(e) => live.set('conclude.condition', e.target.checked ? 'open' : null)}
        />
        {say('It cannot be told yet; the next visit goes on')}
      </label>
    </section>
  );
}
