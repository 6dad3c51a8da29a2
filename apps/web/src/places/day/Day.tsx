import {
  BellRing,
  CalendarClock,
  CircleCheck,
  Flame,
  Leaf,
  MessageCircleOff,
  Octagon,
  Sprout,
} from 'lucide-react';
import type { ComponentType } from 'react';
import { Link } from 'react-router';
import type { DayItem } from '@heathstep/contracts';
import { useDay } from '../../api/queries.js';
import { Failed, Loading } from '../../parts/Waiting.js';
import { longDay } from '../../parts/dates.js';
import { Judgement, sentence, type Tone } from '../../parts/Judgement.js';

const KINDS: Record<
  DayItem['kind'],
  { readonly word: string; readonly tone: Tone; readonly icon: ComponentType<{ className?: string }> }
> = {
  stop: { word: 'Stop sign', tone: 'ease', icon: BellRing },
  blocked: { word: 'Blocked', tone: 'ease', icon: Octagon },
  flare: { word: 'Flare', tone: 'ease', icon: Flame },
  ready: { word: 'Ready', tone: 'go', icon: CircleCheck },
  'review-due': { word: 'Review due', tone: 'hold', icon: CalendarClock },
  silent: { word: 'Silent', tone: 'hold', icon: MessageCircleOff },
  new: { word: 'New', tone: 'unknown', icon: Sprout },
  steady: { word: 'Steady', tone: 'go', icon: Leaf },
};

const linkOf = (item: DayItem): string => {
  if (item.episodeId === null) return `/people/${item.personId}`;
  if (item.kind === 'blocked') return `/episodes/${item.episodeId}/visit/safety`;
  return item.kind === 'new' ? `/episodes/${item.episodeId}/visit` : `/episodes/${item.episodeId}/course`;
};

/** Who needs a look today, most pressing first. */
export function Day() {
  const day = useDay();
  if (day.data === undefined)
    return day.error === null ? (
      <Loading what="today" />
    ) : (
      <Failed error={day.error} again={() => void day.refetch()} />
    );
  const pressing = day.data.items.filter((i) => i.kind !== 'steady');
  const steady = day.data.items.filter((i) => i.kind === 'steady');
  return (
    <main className="mx-auto w-full max-w-5xl px-8 py-8">
      <p className="text-ink-2">{longDay(day.data.today)}</p>
      <h1 className="mt-1">
        {pressing.length === 0
          ? 'Nothing asks for a look'
          : pressing.length === 1
            ? 'One person to look at'
            : `${pressing.length} people to look at`}
      </h1>
      {day.data.items.length === 0 && (
        <p className="mt-6 text-ink-2">
          Nobody is here yet.{' '}
          <Link to="/people?add=1" className="text-action">
            Add the first person
          </Link>
        </p>
      )}
      <List items={pressing} />
      {steady.length > 0 && (
        <>
          <h2 className="mt-10 text-ink-2">Going as planned</h2>
          <List items={steady} />
        </>
      )}
    </main>
  );
}

function List({ items }: { items: readonly DayItem[] }) {
  if (items.length === 0) return null;
  return (
    <ul className="mt-5 border-t border-line">
      {items.map((item) => {
        const kind = KINDS[item.kind];
        return (
          <li key={item.episodeId ?? item.personId} className="border-b border-line">
            <Link
              to={linkOf(item)}
              className="grid grid-cols-[8.5rem_12rem_1fr] items-start gap-4 px-2 py-4 hover:bg-paper"
            >
              <span>
                <Judgement tone={kind.tone} icon={kind.icon}>
                  {kind.word}
                </Judgement>
              </span>
              <span>
                <span className="block font-head text-lg font-semibold">{item.name}</span>
                <span className="text-sm text-ink-2">{item.stage ?? 'not started'}</span>
              </span>
              <span>
                <span className="block font-semibold">{item.headline}</span>
                <span className="text-ink-2">{sentence(item.detail)}</span>
              </span>
            </Link>
          </li>
        );
      })}
    </ul>
  );
}
