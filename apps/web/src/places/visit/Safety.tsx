import { Octagon } from 'lucide-react';
import { useState } from 'react';
import { Link } from 'react-router';
import { canOverride, type SafetyQuestion, type TriggeredRule, whySafety, say } from '@heathstep/core';
import { useSession } from '../../api/queries.js';
import { longDay } from '../../parts/dates.js';
import { goOn, openPlace } from '../../parts/goOn.js';
import { sentence } from '../../parts/Judgement.js';
import { LEVEL_WORDS, SIGN_WORDS } from '../../parts/levels.js';
import { Why } from '../../parts/Why.js';
import { CloseRule } from './CloseRule.js';
import { Letter } from './Letter.js';
import { tagList } from '../../parts/tagWords.js';
import { LimitsForm } from './LimitsForm.js';
import type { LiveVisit } from './live.js';
import { lastAnswer, Question } from './safety/Question.js';
import { Tests } from './safety/Tests.js';

const LEVEL_LOOKS: Record<TriggeredRule['rule']['level'], string> = {
  emergency: 'bg-ease text-paper',
  urgent: 'bg-ease text-paper',
  refer: 'bg-hold-wash text-hold-deep',
  caution: 'bg-line-2 text-ink',
};

/** Every sign, answered one key each, with what it does. Some are asked only after another was answered yes. */
export function Safety({ live }: { live: LiveVisit }) {
  const asked = new Set(live.safety.asked);
  const questions = live.content.safetyQuestions.filter((q) => asked.has(q.key));
  const told = questions.filter((q) => q.how === 'ask');
  const groups = [...new Set(told.map((q) => q.group))];
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
        <p className="mb-4 flex items-center gap-4 rounded bg-heather-wash px-4 py-2" {...openPlace(true)}>
          <span>{say('{{n}} lasting facts were answered last time.', { n: lasting.length })}</span>
          <button
            type="button"
            className="text-action min-h-11"
            onClick={(event) => {
              lasting.forEach((q) => live.set(`safety.${q.key}`, lastAnswer(live, q.key)));
              goOn(event, 'div');
            }}
          >
            {say('They still hold')}
          </button>
        </p>
      )}
      {groups.map((group) => (
        <Group key={group} name={group} live={live} questions={told.filter((q) => q.group === group)} />
      ))}
      <Tests live={live} />
      {live.progress.safety.done && (
        <Link to={`/episodes/${live.course.episode.id}/visit/look${live.visitQuery}`} className="action mt-4">
          {say('On to look')}
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
    <section aria-label={say('Reported at home')} className="mb-4 rounded bg-ease-wash px-3 py-2">
      <h3 className="text-ease-deep">{say('Reported at home since the last visit')}</h3>
      <ul>
        {openStops.map((s) => (
          <li key={s.id}>
            {say('{{longDay}}: {{sign}}. Ask every acute sign again; close it with its result in ', {
              longDay: longDay(s.day),
              sign: s.sign,
            })}
            <Link className="text-action" to={`/episodes/${id}/course`}>
              {say('Course')}
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
        {say('Foot risk class:')}{' '}
        <b className={risk.active ? 'text-ease-deep' : ''}>
          {risk.riskClass === null ? risk.word : `${risk.riskClass}, ${risk.word}`}
        </b>
        <span className="text-ink-2">
          {risk.because.length > 0 ? ` (${risk.because.join(', ')})` : ''}
          {risk.checkMonths === null || risk.riskClass === 0
            ? ''
            : say(', check every {{value}} to {{value2}} months', {
                value: risk.checkMonths[0],
                value2: risk.checkMonths[1],
              })}
        </span>
      </span>
      {scored.flatMap((score) =>
        (['left', 'right'] as const).map((side) => (
          <span key={`${score.key}-${side}`}>
            {score.name}, <b style={{ color: `var(--color-${side})` }}>{say(side)}</b>:{' '}
            <b>{scores[score.key]?.[side] ?? 0}</b>
            <span className="text-ink-2"> ({score.note})</span>
          </span>
        )),
      )}
    </p>
  );
}

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
    <section className="mb-5" aria-label={name} {...openPlace(open.length > 0)}>
      <div className="flex items-baseline gap-4 border-b border-line pb-1">
        <h3>{name}</h3>
        <span className="text-sm text-ink-2">
          {open.length === 0 ? say('answered') : say('{{n}} to answer', { n: open.length })}
        </span>
        <div className="flex-1" />
        {open.length > 0 && (
          <button
            type="button"
            className="text-action min-h-11 text-sm"
            aria-label={say('Asked, none of these: {{name}}', { name })}
            onClick={(event) => {
              open.forEach((q) => live.set(`safety.${q.key}`, 'no'));
              goOn(event, 'section');
            }}
          >
            {say('Asked, none of these')}
          </button>
        )}
      </div>
      <ul>
        {questions.map((q) => (
          <Question key={q.key} question={q} live={live} />
        ))}
      </ul>
    </section>
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
    t.side === 'none' || everyone
      ? say('Blocks everything.')
      : say('Blocks everything of the {{side}} side.', { side: say(t.side) });
  return [
    off === 'everything'
      ? blocks
      : off.length === 0
        ? ''
        : say('Switches off {{tagList}}.', { tagList: tagList(off) }),
    rule.supervised === undefined
      ? ''
      : say('Only with someone beside: {{tagList}}.', { tagList: tagList(rule.supervised) }),
    rule.school === undefined
      ? ''
      : say('Pain is judged by the {{school}} rule.', { school: say(rule.school) }),
    rule.loadStepPercent === undefined
      ? ''
      : say('Load steps of at most {{loadStepPercent}} %.', { loadStepPercent: rule.loadStepPercent }),
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
    <ul className="mb-5 space-y-1" aria-label={say('What the answers opened')}>
      {live.safety.triggered.map((t) => (
        <li
          key={`${t.rule.key}-${t.side}`}
          className={`flex items-start gap-3 rounded px-3 py-2 ${t.status === 'open' && (t.rule.level === 'emergency' || t.rule.level === 'urgent') ? 'bg-ease-wash' : 'bg-paper'}`}
        >
          <span
            className={`mt-0.5 inline-flex w-24 shrink-0 items-center justify-center gap-1 rounded px-2 py-0.5 text-sm font-bold ${LEVEL_LOOKS[t.rule.level]}`}
          >
            {(t.rule.level === 'emergency' || t.rule.level === 'urgent') && (
              <Octagon className="size-3.5 shrink-0" aria-hidden />
            )}
            {LEVEL_WORDS[t.rule.level]}
          </span>
          <span className="min-w-0 flex-1">
            <Why of={() => whySafety(t)} className="font-semibold">
              {t.rule.title}
              {t.side === 'none' ? '' : `, ${say(t.side)}`}
            </Why>
            <span className="block text-sm text-ink-2">
              {t.rule.action}. {effectOf(t)}
            </span>
            {t.status === 'open' && t.rule.until === 'limits' && t.side !== 'none' && (
              <LimitsForm live={live} side={t.side} />
            )}
            {t.closure !== null && (
              <span className="block text-sm">
                {sentence(SIGN_WORDS[t.status])}: {t.closure.text}
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
              {canOverride(t.rule) ? say('Override or close') : say('Close with result')}
            </button>
          )}
        </li>
      ))}
      {toRefer.length > 0 && (
        <li>
          <button type="button" className="text-action min-h-11" onClick={() => setWriting(true)}>
            {say('Letter for {{words}}', {
              words:
                toRefer.length === 1 ? say('this sign') : say('these {{n}} signs', { n: toRefer.length }),
            })}
          </button>
        </li>
      )}
      {writing && <Letter live={live} of="letter.safety" signs={toRefer} close={() => setWriting(false)} />}
      {closing !== null && <CloseRule live={live} rule={closing} done={() => setClosing(null)} />}
    </ul>
  );
}
