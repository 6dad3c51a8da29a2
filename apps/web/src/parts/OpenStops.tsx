import { say } from '@heathstep/core';
import { Octagon } from 'lucide-react';
import { Link } from 'react-router';
import type { EpisodeView } from '@heathstep/contracts';
import type { SafetyState } from '@heathstep/core';
import { longDay } from './dates.js';
import { LEVEL_WORDS } from './levels.js';

const MOST_SHOWN = 4;

interface OpenStop {
  readonly id: string;
  readonly level: string;
  readonly what: string;
  readonly where: string;
  readonly now: string;
  readonly to: string;
}

function openStops(episode: EpisodeView, safety: SafetyState | null, query: string): readonly OpenStop[] {
  const screen = `/episodes/${episode.id}/visit/safety${query}`;
  return [
    ...episode.openStops.map((s) => ({
      id: s.id,
      level: s.grade === 'emergency' ? say('Emergency') : say('Reported at home'),
      what: s.sign,
      where: longDay(s.day),
      now: say('Speak with the person, ask every acute sign again, and close it with its result in Course'),
      to: `/episodes/${episode.id}/course`,
    })),
    ...(safety?.stops ?? []).map((t) => ({
      id: `${t.rule.key}-${t.side}`,
      level: LEVEL_WORDS[t.rule.level],
      what: t.rule.title,
      where: t.side === 'none' ? '' : say(t.side),
      now: t.rule.action,
      to: screen,
    })),
    // A sign of another complaint that counts here too: it is closed over there.
    ...episode.elsewhere.flatMap((c) =>
      c.blocks.map((text) => ({
        id: `${c.episodeId}-${text}`,
        level: say('In the other complaint'),
        what: text,
        where: '',
        now: '',
        to: `/episodes/${c.episodeId}/visit/safety`,
      })),
    ),
  ];
}

/** Open emergencies and urgents, by name and with what to do now: above everything, on every place of an episode. */
export function OpenStops({
  episode,
  safety,
  query = '',
}: {
  episode: EpisodeView;
  safety: SafetyState | null;
  query?: string;
}) {
  const stops = openStops(episode, safety, query);
  if (stops.length === 0) return null;
  const hidden = stops.length - MOST_SHOWN;
  return (
    <section
      aria-label={say('Open stop signs')}
      className="no-print bg-ease px-5 py-1.5 text-paper"
      role="status"
    >
      <ul>
        {stops.slice(0, MOST_SHOWN).map((s) => (
          <li key={s.id} className="flex min-h-8 items-center gap-2">
            <Octagon className="size-4 shrink-0" aria-hidden />
            <Link to={s.to} className="min-w-0 font-semibold hover:underline">
              {`${s.level}: ${s.what}${s.where === '' ? '' : `, ${s.where}`}.`}{' '}
              <span className="font-normal">{s.now}</span>
            </Link>
          </li>
        ))}
        {hidden > 0 && (
          <li className="min-h-8">
            <Link to={stops[MOST_SHOWN]?.to ?? ''} className="font-semibold hover:underline">
              {say('and {{hidden}} more, in Safety', { hidden })}
            </Link>
          </li>
        )}
      </ul>
    </section>
  );
}
