import { say, shown } from '@heathstep/core';
import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { Link } from 'react-router';
import {
  type ChangeSpread,
  type DecisionsOf,
  FEWEST_PEOPLE,
  MATTERS,
  type OutcomePerson,
  type OutcomesView,
  type ProtocolOutcomes,
  OUTCOME_WORDS,
} from '@heathstep/contracts';
import { request } from '../../api/client.js';
import { Failed, Loading } from '../../parts/Waiting.js';
import { Range } from './Range.js';

/** What became of people, protocol by protocol; numbers of the clinic's own, and no evidence for anyone else. */
export function Outcomes() {
  const outcomes = useQuery({
    queryKey: ['outcomes'],
    queryFn: () => request<OutcomesView>('GET', '/api/outcomes'),
  });
  if (outcomes.data === undefined)
    return outcomes.error === null ? (
      <Loading what={say('the outcomes')} />
    ) : (
      <Failed error={outcomes.error} again={() => void outcomes.refetch()} />
    );
  const { protocols } = outcomes.data;
  return (
    <main className="mx-auto w-full max-w-5xl px-4 py-6 sm:px-8 sm:py-8">
      <div className="flex flex-wrap items-baseline gap-x-6">
        <h1>{say('Outcomes')}</h1>
        <span className="flex-1" />
        {protocols.length > 0 && (
          <a
            className="text-action inline-flex min-h-11 items-center"
            href="/api/outcomes/outcomes.csv"
            download
          >
            {say('As a table (CSV)')}
          </a>
        )}
      </div>
      <p className="mt-1 max-w-2xl text-ink-2">
        {say(
          'The middle of the people, and the half of them around it. Who is treated differs from stage to stage, so this compares nothing by itself. Of fewer than {{fewest}} nothing is told.',
          { fewest: FEWEST_PEOPLE },
        )}
      </p>
      {protocols.length === 0 && (
        <p className="mt-6 text-ink-2">{say('Nothing yet: it begins with the first plan that is given.')}</p>
      )}
      {protocols.map((p) => (
        <Protocol key={`${p.protocol} ${p.version}`} of={p} />
      ))}
    </main>
  );
}

function Protocol({ of }: { of: ProtocolOutcomes }) {
  return (
    <section
      className="mt-8 border-t border-line pt-4"
      aria-label={say('{{name}}, version {{version}}', { name: of.name, version: of.version })}
    >
      <h2>
        {of.name}{' '}
        <span className="text-base font-normal text-ink-2">
          {say('version {{version}}, {{words}}', {
            version: of.version,
            words: of.people === 1 ? say('one person') : say('{{n}} people', { n: of.people }),
          })}
        </span>
      </h2>
      {of.people < FEWEST_PEOPLE ? <Who of={of} /> : <Numbers of={of} />}
    </section>
  );
}

function Numbers({ of }: { of: ProtocolOutcomes }) {
  return (
    <div className="mt-2 grid gap-x-10 gap-y-4 lg:grid-cols-[3fr_2fr]">
      <Stages of={of} />
      <div>
        <dl className="space-y-3">
          <Row name={say('Worst pain, first visit to last')} value={changeWords(of.painChange)} />
          <Row name={say('Own activities, first visit to last')} value={changeWords(of.functionChange)} />
          <Row
            name={say('Flares that came to a decision, for each 100 days at home')}
            value={of.flaresPer100Days === null ? tooFew() : shown(of.flaresPer100Days, 1)}
          />
          <Row name={say('Decided as suggested')} value={decisionWords(of.agreed)} />
          <Row name={say('Decided otherwise')} value={decisionWords(of.otherwise)} />
          <Row
            name={say('Days with a log, of the last 28')}
            value={
              of.loggedPercent === null
                ? tooFew()
                : say('{{percent}} %', { percent: shown(of.loggedPercent, 0) })
            }
          />
          {of.cameBack !== 0 && (
            <Row
              name={say('Came back after the end')}
              value={of.cameBack === null ? tooFew() : String(of.cameBack)}
            />
          )}
          {of.ended.length > 0 && (
            <Row
              name={say('Ended')}
              value={of.ended
                .map((e) => `${say(OUTCOME_WORDS[e.outcome])}: ${e.n === null ? tooFew() : e.n}`)
                .join('; ')}
            />
          )}
        </dl>
        <Who of={of} />
      </div>
    </div>
  );
}

const tooFew = (): string => say('under {{fewest}}', { fewest: FEWEST_PEOPLE });

function changeWords({ n, spread, betterPercent }: ChangeSpread): string {
  if (spread === null || betterPercent === null)
    return n === 0 ? say('not told twice yet') : say('told twice by {{few}}', { few: tooFew() });
  const signed = (v: number) => `${v > 0 ? '+' : v < 0 ? '−' : ''}${shown(Math.abs(v), 1)}`;
  return say(
    '{{middle}} (half between {{low}} and {{high}}; {{n}} people); better by {{matters}} or more: {{percent}} %',
    {
      middle: signed(spread.middle),
      low: signed(spread.low),
      high: signed(spread.high),
      n,
      matters: MATTERS,
      percent: shown(betterPercent, 0),
    },
  );
}

const decisionWords = ({ n, worsePercent }: DecisionsOf): string =>
  worsePercent === null
    ? n === 1
      ? say('once')
      : say('{{n}} times', { n })
    : say('{{n}} times; the next decision eased back or referred in {{percent}} %', {
        n,
        percent: shown(worsePercent, 0),
      });

function Row({ name, value }: { name: string; value: string }) {
  return (
    <div>
      <dt className="text-sm text-ink-2">{name}</dt>
      <dd className="font-semibold">{value}</dd>
    </div>
  );
}

/** Longer than this, as upkeep is, goes to the edge, so that the stages before can be told apart. */
const MOST_WEEKS = 16;

/** Weeks in each stage of those who left it, against what is usual. */
function Stages({ of }: { of: ProtocolOutcomes }) {
  const most = Math.min(
    MOST_WEEKS,
    Math.max(...of.stages.flatMap((s) => [s.usualWeeks.max, s.weeks.spread?.high ?? 0])),
  );
  return (
    <table className="w-full">
      <thead className="text-left text-sm text-ink-2">
        <tr>
          <th scope="col" className="py-1 font-normal">
            {say('Stage')}
          </th>
          <th scope="col" className="w-1/2 font-normal">
            {say('Weeks in it, pale what is usual')}
          </th>
          <th scope="col" className="text-right font-normal">
            {say('People')}
          </th>
        </tr>
      </thead>
      <tbody>
        {of.stages.map((s) => (
          <tr key={s.stage} className="border-t border-line-2">
            <th scope="row" className="py-2 text-left font-semibold">
              {s.name}
            </th>
            <td className="py-2 pr-4">
              <Range spread={s.weeks.spread} usual={s.usualWeeks} most={most} />
            </td>
            <td className="py-2 text-right tabular-nums">
              {s.weeks.n > 0 && s.weeks.n < FEWEST_PEOPLE ? tooFew() : s.weeks.n}
            </td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}

/** Who stands behind the numbers; each look is kept. */
function Who({ of }: { of: ProtocolOutcomes }) {
  const [open, setOpen] = useState(false);
  const people = useQuery({
    queryKey: ['outcomes', of.protocol, of.version],
    queryFn: () =>
      request<OutcomePerson[]>(
        'GET',
        `/api/outcomes/people?protocol=${encodeURIComponent(of.protocol)}&version=${of.version}`,
      ),
    enabled: open,
  });
  return (
    <details className="mt-3" onToggle={(e) => setOpen(e.currentTarget.open)}>
      <summary className="min-h-11 text-ink-2">{say('Who they are; that you looked is kept')}</summary>
      {people.error !== null && (
        <p role="alert" className="text-ease-deep">
          {say('They could not be fetched. Open it again.')}
        </p>
      )}
      <ul>
        {(people.data ?? []).map((p) => (
          <li key={p.episodeId} className="border-b border-line-2">
            <Link
              to={`/episodes/${p.episodeId}/course`}
              className="flex min-h-11 items-center justify-between gap-4 hover:underline"
            >
              <span className="font-semibold">{p.name}</span>
              <span className="text-sm text-ink-2">
                {p.status === 'closed' ? say('closed') : (p.stageName ?? '')}
              </span>
            </Link>
          </li>
        ))}
      </ul>
    </details>
  );
}
