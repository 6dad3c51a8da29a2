import { daysBetween, say } from '@heathstep/core';
import { Link } from 'react-router';
import type { DayItem } from '@heathstep/contracts';
import { TableLink } from '../../parts/TableLink.js';
import { useContent, useDay, useSession } from '../../api/queries.js';
import { useFirstThenAll } from '../../parts/useFirstThenAll.js';
import { complaintName } from '../../parts/complaints.js';
import { Failed, Loading } from '../../parts/Waiting.js';
import { longDay, shortDay, withShortDays } from '../../parts/dates.js';
import { Judgement, sentence } from '../../parts/Judgement.js';
import { KINDS } from './kinds.js';
import { Later, mayWait, TakeBack } from './Later.js';
import { MiniLine } from './MiniLine.js';
import { Visits } from './Visits.js';

const linkOf = (item: DayItem): string => {
  if (item.episodeId === null) return `/people/${item.personId}`;
  if (item.kind === 'blocked') return `/episodes/${item.episodeId}/visit/safety`;
  return item.kind === 'new' || item.kind === 'review-due'
    ? `/episodes/${item.episodeId}/visit`
    : `/episodes/${item.episodeId}/course`;
};

/** Whom a list of visits never pushes out of sight. */
const isFirst = (item: DayItem): boolean => item.kind !== 'steady' && !mayWait(item);

/** Who needs a look today, most pressing first. */
export function Day() {
  const day = useDay();
  if (day.data === undefined)
    return day.error === null ? (
      <Loading what={say('today')} />
    ) : (
      <Failed error={day.error} again={() => void day.refetch()} />
    );
  const { today, items, pending } = day.data;
  const waiting = items.filter((i) => i.aside !== null);
  const pressing = items.filter((i) => i.kind !== 'steady' && i.aside === null);
  const steady = items.filter((i) => i.kind === 'steady' && i.aside === null);
  return (
    <main className="mx-auto w-full max-w-5xl px-4 py-6 sm:px-8 sm:py-8">
      <div className="flex flex-wrap items-center justify-between gap-3">
        <p className="text-ink-2">{longDay(day.data.today)}</p>
        <span className="flex flex-wrap gap-x-6">
          <TableLink href="/api/day/day.csv">{say('The day as a table')}</TableLink>
          <Link to="/people?add=1" className="inline-flex min-h-11 items-center text-action hover:underline">
            {say('Add a person')}
          </Link>
        </span>
      </div>
      <h1 className="mt-1">
        {pressing.length === 0
          ? pending > 0
            ? say('Nothing asks for a look so far')
            : say('Nothing asks for a look')
          : pressing.length === 1
            ? say('One person to look at')
            : say('{{n}} people to look at', { n: pressing.length })}
      </h1>
      {pending > 0 && (
        <p role="status" className="mt-1 text-hold-deep">
          {pending === 1
            ? say('One person more is still being worked out.')
            : say('{{n}} people more are still being worked out.', { n: pending })}
        </p>
      )}
      {day.data.items.length === 0 && pending === 0 && (
        <p className="mt-6 text-ink-2">
          {say('Nobody is here yet.')}{' '}
          <Link to="/people?add=1" className="text-action">
            {say('Add the first person')}
          </Link>
        </p>
      )}
      <List items={pressing.filter(isFirst)} today={today} />
      {items.length > 0 && <Visits today={today} list={day.data.appointments} items={items} />}
      {pressing.some((i) => !isFirst(i)) && <h2 className="mt-8">{say('Asks for a look')}</h2>}
      <List items={pressing.filter((i) => !isFirst(i))} today={today} />
      {steady.length > 0 && (
        <>
          <h2 className="mt-10 text-ink-2">{say('Going as planned')}</h2>
          <List items={steady} today={today} />
        </>
      )}
      {waiting.length > 0 && (
        <details className="mt-8">
          <summary className="min-h-11 text-ink-2">{say('Set aside: {{n}}', { n: waiting.length })}</summary>
          <ul className="border-t border-line">
            {waiting.map((item) => (
              <TakeBack key={item.episodeId ?? item.personId} item={item} />
            ))}
          </ul>
        </details>
      )}
    </main>
  );
}

/** When they were last heard of. */
function contactWords({ lastContact }: DayItem, today: string): string {
  if (lastContact === null) return '';
  const days = daysBetween(lastContact.day, today);
  const when = days <= 0 ? say('today') : days === 1 ? say('yesterday') : say('{{days}} days ago', { days });
  return lastContact.by === 'log'
    ? say('last logged {{when}}', { when })
    : say('last seen {{when}}', { when });
}

function List({ items, today }: { items: readonly DayItem[]; today: string }) {
  const shown = useFirstThenAll(items);
  const session = useSession();
  if (items.length === 0) return null;
  const { role } = session.data?.user ?? {};
  return (
    <ul className="mt-3 border-t border-line">
      {shown.map((item) => (
        <li key={item.episodeId ?? item.personId} className="seen-when-near flex border-b border-line">
          <Row item={item} today={today} assists={role === 'assistant'} />
          {mayWait(item) && role !== 'assistant' && role !== undefined ? (
            <Later item={item} today={today} />
          ) : (
            <span className="w-11" />
          )}
        </li>
      ))}
    </ul>
  );
}

function Row({ item, today, assists }: { item: DayItem; today: string; assists: boolean }) {
  const pathways = useContent().data?.pathways ?? [];
  const kind = KINDS[item.kind];
  return (
    <Link
      to={linkOf(item)}
      className="group grid min-w-0 flex-1 grid-cols-1 items-start gap-x-4 gap-y-1 px-2 py-4 hover:bg-paper sm:grid-cols-[8.5rem_1fr] lg:grid-cols-[8.5rem_15rem_1fr_auto]"
    >
      <span className="sm:row-span-3 lg:row-span-1">
        <Judgement tone={kind.tone} icon={kind.icon}>
          {kind.word}
        </Judgement>
      </span>
      <span>
        <span className="block font-head text-lg font-semibold">{item.name}</span>
        <span className="block text-sm text-ink-2">
          {item.complaint === null ? '' : complaintName(item.complaint, pathways)}
        </span>
        {item.line !== null && <MiniLine line={item.line} />}
        <span className="block text-sm text-ink-2">{item.stageName ?? say('not started')}</span>
      </span>
      <span>
        <span className="block font-semibold">{item.headline}</span>
        <span className="block text-ink-2">{sentence(withShortDays(item.detail))}</span>
        {item.asked !== null && (
          <span className="block">
            {say('Asked on {{day}}: “{{text}}”', { day: shortDay(item.asked.day), text: item.asked.text })}
          </span>
        )}
        {assists && <ToDo item={item} />}
        <span className="block text-sm text-ink-3">{sentence(contactWords(item, today))}</span>
      </span>
      <span className="text-sm text-action group-hover:underline">
        {item.episodeId === null ? say('Begin the first visit') : kind.next}
      </span>
    </Link>
  );
}

/** What someone who assists can measure or teach at once. */
function ToDo({ item }: { item: DayItem }) {
  return (
    <>
      {item.toMeasure.length > 0 && (
        <span className="block">
          <b>{say('To measure:')}</b> {item.toMeasure.join(', ')}
        </span>
      )}
      {item.toTeach.length > 0 && (
        <span className="block">
          <b>{say('To teach:')}</b> {item.toTeach.join(', ')}
        </span>
      )}
    </>
  );
}
