import { RadioRow } from '../../parts/RadioRow.js';
import { Octagon } from 'lucide-react';
import { useState } from 'react';
import { Link } from 'react-router';
import {
  canOverride,
  type SafetyAnswer,
  type SafetyQuestion,
  type TriggeredRule,
  whySafety,
} from '@heathstep/core';
import { useSession } from '../../api/queries.js';
import { longDay } from '../../parts/dates.js';
import { sentence } from '../../parts/Judgement.js';
import { Why } from '../../parts/Why.js';
import { CloseRule } from './CloseRule.js';
import { Letter } from './Letter.js';
import { tagList } from '../../parts/tagWords.js';
import { LimitsForm } from './LimitsForm.js';
import type { LiveVisit } from './live.js';

const LEVELS: Record<TriggeredRule['rule']['level'], { readonly word: string; readonly className: string }> =
  {
    emergency: { word: 'Emergency', className: 'bg-ease text-paper' },
    urgent: { word: 'Urgent', className: 'bg-ease text-paper' },
    refer: { word: 'Refer', className: 'bg-hold-wash text-hold-deep' },
    caution: { word: 'Caution', className: 'bg-line-2 text-ink' },
  };

/** Every sign, answered one key each, with what it does. Some are asked only after another was answered yes. */
export function Safety({ live }: { live: LiveVisit }) {
  const asked = new Set(live.safety.asked);
  const questions = live.content.safetyQuestions.filter((q) => asked.has(q.key));
  const groups = [...new Set(questions.map((q) => q.group))];
  const lasting = questions.filter(
    (q) =>
      q.kind === 'lasting' && live.store.get(`safety.${q.key}`) === null && lastAnswer(live, q.key) !== null,
  );
  return (
    <div>
      <ReportedAtHome live={live} />
      <Triggered live={live} />
      <Computed live={live} />
      {lasting.length > 0 && (
        <p className="mb-4 flex items-center gap-4 rounded bg-heather-wash px-4 py-2">
          <span>{`${lasting.length} lasting facts were answered last time.`}</span>
          <button
            type="button"
            className="text-action min-h-11"
            onClick={() => lasting.forEach((q) => live.set(`safety.${q.key}`, lastAnswer(live, q.key)))}
          >
            They still hold
          </button>
        </p>
      )}
      {groups.map((group) => (
        <Group key={group} name={group} live={live} questions={questions.filter((q) => q.group === group)} />
      ))}
      {live.safety.unanswered.length === 0 && (
        <Link to={`/episodes/${live.course.episode.id}/visit/look${live.visitQuery}`} className="action mt-4">
          On to look
        </Link>
      )}
    </div>
  );
}

/** A stop sign reported at home opens the screen again: each is closed with its result. */
function ReportedAtHome({ live }: { live: LiveVisit }) {
  const { openStops, id } = live.course.episode;
  if (openStops.length === 0) return null;
  return (
    <section aria-label="Reported at home" className="mb-4 rounded bg-ease-wash px-3 py-2">
      <h3 className="text-ease-deep">Reported at home since the last visit</h3>
      <ul>
        {openStops.map((s) => (
          <li key={s.id}>
            {`${longDay(s.day)}: ${s.sign}. Ask every acute sign again; close it with its result in `}
            <Link className="text-action" to={`/episodes/${id}/course`}>
              Course
            </Link>
          </li>
        ))}
      </ul>
    </section>
  );
}

/** Scores and classes worked out from the answers and what was measured. */
function Computed({ live }: { live: LiveVisit }) {
  const { footRisk: risk, asked, scores } = live.safety;
  const scored = live.content.safetyRules.flatMap((r) =>
    r.score !== undefined && asked.includes(r.score.with) ? [{ key: r.key, ...r.score }] : [],
  );
  return (
    <p className="mb-4 flex flex-wrap gap-x-8 gap-y-1 text-sm">
      <span>
        Foot risk class:{' '}
        <b className={risk.active ? 'text-ease-deep' : ''}>
          {risk.riskClass === null ? risk.word : `${risk.riskClass}, ${risk.word}`}
        </b>
        <span className="text-ink-2">
          {risk.because.length > 0 ? ` (${risk.because.join(', ')})` : ''}
          {risk.checkMonths === null || risk.riskClass === 0
            ? ''
            : `, check every ${risk.checkMonths[0]} to ${risk.checkMonths[1]} months`}
        </span>
      </span>
      {scored.flatMap((score) =>
        (['left', 'right'] as const).map((side) => (
          <span key={`${score.key}-${side}`}>
            {score.name}, <b style={{ color: `var(--color-${side})` }}>{side}</b>:{' '}
            <b>{scores[score.key]?.[side] ?? 0}</b>
            <span className="text-ink-2"> ({score.note})</span>
          </span>
        )),
      )}
    </p>
  );
}

const lastAnswer = (live: LiveVisit, question: string): SafetyAnswer | null =>
  (live.previous?.entries.find((e) => e.key === `safety.${question}`)?.value as SafetyAnswer | undefined) ??
  null;

function Group({
  name,
  live,
  questions,
}: {
  name: string;
  live: LiveVisit;
  questions: readonly SafetyQuestion[];
}) {
  const open = questions.filter((q) => live.store.get(`safety.${q.key}`) === null);
  return (
    <section className="mb-5" aria-label={name}>
      <div className="flex items-baseline gap-4 border-b border-line pb-1">
        <h3>{name}</h3>
        <span className="text-sm text-ink-2">
          {open.length === 0 ? 'answered' : `${open.length} to answer`}
        </span>
        <div className="flex-1" />
        <AllAtOnce name={name} live={live} open={open} />
      </div>
      <ul>
        {questions.map((q) => (
          <Question key={q.key} question={q} live={live} />
        ))}
      </ul>
    </section>
  );
}

/** Several at once: what was asked, and apart from it what was tested. Not tested is never a no. */
function AllAtOnce({ name, live, open }: { name: string; live: LiveVisit; open: readonly SafetyQuestion[] }) {
  const put = (list: readonly SafetyQuestion[], answer: SafetyAnswer) =>
    list.forEach((q) => live.set(`safety.${q.key}`, answer));
  const asked = open.filter((q) => q.how === 'ask');
  const tested = open.filter((q) => q.how === 'test');
  const press = (text: string, list: readonly SafetyQuestion[], answer: SafetyAnswer) => (
    <button
      type="button"
      className="text-action min-h-9 text-sm"
      aria-label={`${text}: ${name}`}
      onClick={() => put(list, answer)}
    >
      {text}
    </button>
  );
  return (
    <span className="flex gap-4">
      {asked.length > 0 && press('Asked, none of these', asked, 'no')}
      {tested.length > 0 && press(`Tested ${tested.length}, none found`, tested, 'no')}
      {tested.length > 0 && press('Not tested', tested, 'not-tested')}
    </span>
  );
}

const PERSON: readonly (readonly [SafetyAnswer, string])[] = [
  ['no', 'No'],
  ['yes', 'Yes'],
];
const SIDES: readonly (readonly [SafetyAnswer, string])[] = [
  ['no', 'No'],
  ['left', 'L'],
  ['both', 'Both'],
  ['right', 'R'],
];
const NOT_TESTED: readonly [SafetyAnswer, string] = ['not-tested', 'Not tested'];

/** Sides are one letter on the screen. */
const SPOKEN: Partial<Record<SafetyAnswer, string>> = { left: 'Left', right: 'Right' };

const TONE = (value: SafetyAnswer): string => {
  if (value === 'no') return 'bg-line text-ink';
  return value === 'not-tested' ? 'bg-hold-wash text-hold-deep' : 'bg-ease text-paper';
};

function Question({ question, live }: { question: SafetyQuestion; live: LiveVisit }) {
  const key = `safety.${question.key}` as const;
  const answer = live.store.get(key);
  const last = question.kind === 'lasting' ? lastAnswer(live, question.key) : null;
  const scale = question.scope === 'person' ? PERSON : SIDES;
  const words = question.how === 'test' ? [...scale, NOT_TESTED] : scale;
  return (
    <li className="flex items-center gap-4 border-b border-line-2 py-0.5">
      <span
        className={`min-w-0 flex-1 ${answer === null ? '' : answer === 'no' || answer === 'not-tested' ? 'text-ink-2' : 'font-semibold'}`}
      >
        {question.text}
        {answer === null && last !== null && (
          <span className="ml-2 text-sm text-ink-3">last time {last}</span>
        )}
      </span>
      <RadioRow
        label={question.text}
        value={answer}
        options={words.map(([value, word]) => ({
          value,
          word,
          ...(SPOKEN[value] === undefined ? {} : { label: SPOKEN[value] }),
        }))}
        onChange={(value) => live.set(key, value)}
        itemClass={(value, chosen) =>
          `min-h-10 min-w-11 px-2 text-sm font-semibold ${chosen ? TONE(value) : 'text-ink-2 hover:bg-heather-wash'}`
        }
      />
    </li>
  );
}

/** By whom and when a sign was closed or overridden. */
function closedBy(live: LiveVisit, t: TriggeredRule): string {
  const found = live.course.episode.closures.find((c) => c.rule === t.rule.key && c.side === t.side);
  return found === undefined ? '' : ` (${found.by}, ${longDay(found.at)})`;
}

/** What an open sign does to the plan, in words. */
function effectOf(t: TriggeredRule): string {
  const { rule, off } = t;
  const everyone = rule.level === 'emergency' || rule.blocks === 'person';
  const blocks =
    t.side === 'none' || everyone ? 'Blocks everything.' : `Blocks everything of the ${t.side} side.`;
  return [
    off === 'everything' ? blocks : off.length === 0 ? '' : `Switches off ${tagList(off)}.`,
    rule.supervised === undefined ? '' : `Only with someone beside: ${tagList(rule.supervised)}.`,
    rule.school === undefined ? '' : `Pain is judged by the ${rule.school} rule.`,
    rule.loadStepPercent === undefined ? '' : `Load steps of at most ${rule.loadStepPercent} %.`,
  ]
    .filter((w) => w !== '')
    .join(' ');
}

/** What the answers opened, most serious first, each closed or overridden where that is allowed. */
function Triggered({ live }: { live: LiveVisit }) {
  const session = useSession();
  const [closing, setClosing] = useState<TriggeredRule | null>(null);
  const [writing, setWriting] = useState(false);
  const mayClose = session.data?.user.role !== 'assistant';
  const toRefer = live.safety.triggered.filter((t) => t.status === 'open' && t.rule.level !== 'caution');
  if (live.safety.triggered.length === 0) return null;
  return (
    <ul className="mb-5 space-y-1" aria-label="What the answers opened">
      {live.safety.triggered.map((t) => (
        <li
          key={`${t.rule.key}-${t.side}`}
          className={`flex items-start gap-3 rounded px-3 py-2 ${t.status === 'open' && (t.rule.level === 'emergency' || t.rule.level === 'urgent') ? 'bg-ease-wash' : 'bg-paper'}`}
        >
          <span
            className={`mt-0.5 inline-flex w-24 shrink-0 items-center justify-center gap-1 rounded px-2 py-0.5 text-sm font-bold ${LEVELS[t.rule.level].className}`}
          >
            {(t.rule.level === 'emergency' || t.rule.level === 'urgent') && (
              <Octagon className="size-3.5 shrink-0" aria-hidden />
            )}
            {LEVELS[t.rule.level].word}
          </span>
          <span className="min-w-0 flex-1">
            <Why of={() => whySafety(t)} className="font-semibold">
              {t.rule.title}
              {t.side === 'none' ? '' : `, ${t.side}`}
            </Why>
            <span className="block text-sm text-ink-2">
              {t.rule.action}. {effectOf(t)}
            </span>
            {t.status === 'open' && t.rule.until === 'limits' && t.side !== 'none' && (
              <LimitsForm live={live} side={t.side} />
            )}
            {t.closure !== null && (
              <span className="block text-sm">
                {sentence(t.status)}: {t.closure.text}
                {closedBy(live, t)}
              </span>
            )}
          </span>
          {t.status === 'open' && mayClose && (
            <button
              type="button"
              className="text-action min-h-9 whitespace-nowrap text-sm"
              onClick={() => setClosing(t)}
            >
              {canOverride(t.rule) ? 'Override or close' : 'Close with result'}
            </button>
          )}
        </li>
      ))}
      {toRefer.length > 0 && (
        <li>
          <button type="button" className="text-action min-h-11" onClick={() => setWriting(true)}>
            {`Letter for ${toRefer.length === 1 ? 'this sign' : `these ${toRefer.length} signs`}`}
          </button>
        </li>
      )}
      {writing && <Letter live={live} signs={toRefer} close={() => setWriting(false)} />}
      {closing !== null && <CloseRule live={live} rule={closing} done={() => setClosing(null)} />}
    </ul>
  );
}
