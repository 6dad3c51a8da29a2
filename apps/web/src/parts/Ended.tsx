import { say } from '@heathstep/core';
import { Link } from 'react-router';
import { type Ended, type EpisodeView, OUTCOME_WORDS, OUTCOMES } from '@heathstep/contracts';
import { fullDay } from './dates.js';
import type { Options } from './fields.js';

export const OUTCOME_OPTIONS: Options = OUTCOMES.map((o) => [o, say(OUTCOME_WORDS[o])]);

/** When, by whom and how a complaint was closed; just closed where that was never said. */
export const endedWords = (ended: Ended | null): string =>
  ended === null
    ? say('closed')
    : say('closed {{at}} by {{by}}: {{outcome}}', {
        at: fullDay(ended.at),
        by: ended.by,
        outcome: say(OUTCOME_WORDS[ended.outcome]),
      });

/** Above every place of a closed complaint: how it ended, and where it is opened again. */
export function EndedNote({ episode }: { episode: Pick<EpisodeView, 'id' | 'status' | 'ended' | 'person'> }) {
  if (episode.status !== 'closed') return null;
  const words = endedWords(episode.ended);
  return (
    <div role="status" aria-label={say('Closed')} className="border-b border-line bg-line-2 px-5 py-2">
      <b>{words.charAt(0).toUpperCase() + words.slice(1)}.</b>{' '}
      {episode.ended?.note !== undefined && episode.ended.note !== '' && <span>{episode.ended.note} </span>}
      <Link className="text-action no-print mr-4" to={`/episodes/${episode.id}/letter`}>
        {say('Letter')}
      </Link>
      <Link className="text-action no-print" to={`/people/${episode.person.id}?all`}>
        {say('Open it again')}
      </Link>
    </div>
  );
}

/** Above every place of a complaint that came back, until a plan is given anew. */
export function CameBackNote({
  episode,
}: {
  episode: Pick<EpisodeView, 'id' | 'status' | 'cameBackAt' | 'plan'>;
}) {
  const { cameBackAt, plan, status, id } = episode;
  if (cameBackAt === null || plan !== null || status === 'closed') return null;
  return (
    <div
      role="status"
      aria-label={say('It came back')}
      className="border-b border-line bg-hold-wash px-5 py-2"
    >
      <b>{say('It came back on {{day}}.', { day: fullDay(cameBackAt) })}</b>{' '}
      {say('No plan stands; what was given before counts no more.')}{' '}
      <Link className="text-action no-print" to={`/episodes/${id}/visit`}>
        {say('To the visit')}
      </Link>
    </div>
  );
}
