import { say } from '@heathstep/core';
import { Link, NavLink } from 'react-router';
import { CONSENT_WORDS, type EpisodeView } from '@heathstep/contracts';
import type { SafetyState } from '@heathstep/core';
import type { ReactNode } from 'react';
import { useContent } from '../api/queries.js';
import { complaintName } from './complaints.js';
import { CameBackNote, EndedNote } from './Ended.js';
import { OpenStops } from './OpenStops.js';

const TABS = [
  ['course', 'Course'],
  ['visit', 'Visit'],
  ['plan', 'Plan'],
  ['lab', 'Lab'],
  ['letters', 'Letters'],
] as const;

/** Who this is about, and the way between the places of their episode; in view however far down one is. */
export function EpisodeHead({
  episode,
  condition,
  safety = episode.safety,
  query = '',
  children,
}: {
  episode: EpisodeView;
  condition: string;
  /** As it stands in what is being entered; else as it was last saved. */
  safety?: SafetyState | null;
  query?: string;
  children?: ReactNode;
}) {
  const { person } = episode;
  const about = [person.ageYears === null ? null : String(person.ageYears), person.occupation]
    .filter((t) => t !== null && t !== '')
    .join(', ');
  return (
    <>
      <OpenStops episode={episode} safety={safety} query={query} />
      <Refuses episode={episode} />
      <EndedNote episode={episode} />
      <CameBackNote episode={episode} />
      <div className="no-print flex flex-wrap items-center gap-x-5 border-b border-line bg-ground px-5 py-3 md:sticky md:top-0 md:z-20 md:h-[4.5rem] md:flex-nowrap md:py-2">
        <div className="min-w-0 max-md:w-full">
          <h1 className="truncate text-2xl">
            <Link to={`/people/${person.id}?all`} className="hover:underline">
              {person.name}
            </Link>
          </h1>
          <p className="truncate text-sm text-ink-2">
            {about === '' ? '' : `${about}. `}
            {condition},{' '}
            <span
              style={{ color: episode.affected === 'both' ? undefined : `var(--color-${episode.affected})` }}
              className="font-semibold"
            >
              {episode.affected === 'both' ? say('both sides') : say(episode.affected)}
            </span>
          </p>
        </div>
        <Others episode={episode} />
        <div className="min-w-0 flex-1 max-md:order-last max-md:w-full max-md:flex-none">{children}</div>
        <nav aria-label={say('Places of this episode')} className="flex gap-5">
          {TABS.map(([path, name]) => (
            <NavLink
              key={path}
              to={`/episodes/${episode.id}/${path}`}
              className={({ isActive }) =>
                `relative flex min-h-11 items-center ${isActive ? 'font-semibold after:absolute after:inset-x-0 after:bottom-1 after:h-0.5 after:bg-heather' : 'text-ink-2 hover:text-ink'}`
              }
            >
              {say(name)}
            </NavLink>
          ))}
        </nav>
      </div>
    </>
  );
}

/** What they do not agree to, above every place of theirs. */
function Refuses({ episode: { refuses, person } }: { episode: EpisodeView }) {
  if (refuses.length === 0) return null;
  return (
    <div role="status" aria-label={say('Consent')} className="border-b border-line bg-ease-wash px-5 py-2">
      <b>
        {say('Does not agree to: {{list}}.', {
          list: refuses.map((k) => say(CONSENT_WORDS[k])).join(', '),
        })}
      </b>{' '}
      <Link className="text-action no-print" to={`/people/${person.id}?all`}>
        {say('See what was said')}
      </Link>
    </div>
  );
}

/** The way to the person's other complaints, and to another one. */
function Others({ episode }: { episode: EpisodeView }) {
  const content = useContent();
  const pathways = content.data?.pathways ?? [];
  return (
    <nav aria-label={say('Complaints')} className="flex flex-wrap items-center gap-x-4 text-sm">
      {episode.elsewhere.map((c) => (
        <NavLink
          key={c.episodeId}
          to={`/episodes/${c.episodeId}/course`}
          className="text-action min-h-9 py-2"
        >
          {complaintName(c, pathways)}
        </NavLink>
      ))}
      <NavLink to={`/people/${episode.person.id}?all`} className="text-action min-h-9 py-2">
        {episode.elsewhere.length === 0 ? say('Another complaint') : say('All')}
      </NavLink>
    </nav>
  );
}
