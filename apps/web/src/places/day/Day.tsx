import { say } from '@heathstep/core';
import {
  BellRing,
  CalendarClock,
  CircleCheck,
  CircleDashed,
  Flame,
  Leaf,
  MessageCircleOff,
  Octagon,
  ScanSearch,
  Send,
  Sprout,
  TrendingDown,
} from 'lucide-react';
import type { ComponentType } from 'react';
import { Link } from 'react-router';
import type { DayItem } from '@heathstep/contracts';
import { useContent, useDay } from '../../api/queries.js';
import { useFirstThenAll } from '../../parts/useFirstThenAll.js';
import { complaintName } from '../../parts/complaints.js';
import { Failed, Loading } from '../../parts/Waiting.js';
import { longDay, withShortDays } from '../../parts/dates.js';
import { Judgement, sentence, type Tone } from '../../parts/Judgement.js';

const KINDS: Record<
  DayItem['kind'],
  {
    readonly word: string;
    readonly tone: Tone;
    readonly icon: ComponentType<{ className?: string }>;
    /** What is done next, where the row leads. */
    readonly next: string;
  }
> = {
  stop: { word: say('Stop sign'), tone: 'ease', icon: BellRing, next: say('Hear what happened') },
  blocked: { word: say('Blocked'), tone: 'ease', icon: Octagon, next: say('Open the safety screen') },
  refer: { word: say('Refer'), tone: 'ease', icon: Send, next: say('See what did not change') },
  flare: { word: say('Flare'), tone: 'ease', icon: Flame, next: say('Decide how to go on') },
  ready: { word: say('Ready'), tone: 'go', icon: CircleCheck, next: say('Give the next stage') },
  'look-again': { word: say('Look again'), tone: 'hold', icon: ScanSearch, next: say('Decide how to go on') },
  'review-due': { word: say('Review due'), tone: 'hold', icon: CalendarClock, next: say('Start the review') },
  slipping: { word: say('Slipping'), tone: 'hold', icon: TrendingDown, next: say('See what slows it') },
  silent: { word: say('Silent'), tone: 'hold', icon: MessageCircleOff, next: say('Ask how it goes') },
  new: { word: say('New'), tone: 'unknown', icon: Sprout, next: say('Go on with the visit') },
  unplanned: { word: say('No plan'), tone: 'unknown', icon: CircleDashed, next: say('Open the course') },
  steady: { word: say('Steady'), tone: 'go', icon: Leaf, next: say('Open the course') },
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
      <Loading what={say('today')} />
    ) : (
      <Failed error={day.error} again={() => void day.refetch()} />
    );
  const pressing = day.data.items.filter((i) => i.kind !== 'steady');
  const steady = day.data.items.filter((i) => i.kind === 'steady');
  return (
    <main className="mx-auto w-full max-w-5xl px-4 py-6 sm:px-8 sm:py-8">
      <div className="flex flex-wrap items-center justify-between gap-3">
        <p className="text-ink-2">{longDay(day.data.today)}</p>
        <Link to="/people?add=1" className="inline-flex min-h-11 items-center text-action hover:underline">
          {say('Add a person')}
        </Link>
      </div>
      <h1 className="mt-1">
        {pressing.length === 0
          ? say('Nothing asks for a look')
          : pressing.length === 1
            ? say('One person to look at')
            : say('{{n}} people to look at', { n: pressing.length })}
      </h1>
      {day.data.items.length === 0 && (
        <p className="mt-6 text-ink-2">
          {say('Nobody is here yet.')}{' '}
          <Link to="/people?add=1" className="text-action">
            {say('Add the first person')}
          </Link>
        </p>
      )}
      <List items={pressing} />
      {steady.length > 0 && (
        <>
          <h2 className="mt-10 text-ink-2">{say('Going as planned')}</h2>
          <List items={steady} />
        </>
      )}
    </main>
  );
}

function List({ items }: { items: readonly DayItem[] }) {
  const pathways = useContent().data?.pathways ?? [];
  const shown = useFirstThenAll(items);
  if (items.length === 0) return null;
  return (
    <ul className="mt-5 border-t border-line">
      {shown.map((item) => {
        const kind = KINDS[item.kind];
        return (
          <li key={item.episodeId ?? item.personId} className="seen-when-near border-b border-line">
            <Link
              to={linkOf(item)}
              className="group grid grid-cols-1 items-start gap-x-4 gap-y-1 px-2 py-4 hover:bg-paper sm:grid-cols-[8.5rem_1fr] lg:grid-cols-[8.5rem_15rem_1fr_auto]"
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
                <span className="block text-sm text-ink-2">{item.stageName ?? say('not started')}</span>
              </span>
              <span>
                <span className="block font-semibold">{item.headline}</span>
                <span className="text-ink-2">{sentence(withShortDays(item.detail))}</span>
              </span>
              <span className="text-sm text-action group-hover:underline">
                {item.episodeId === null ? say('Begin the first visit') : kind.next}
              </span>
            </Link>
          </li>
        );
      })}
    </ul>
  );
}
