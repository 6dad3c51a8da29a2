import { say } from '@heathstep/core';
import { Link } from 'react-router';
import type { Ended, EpisodeView, Outcome } from '@heathstep/contracts';
import { fullDay } from './dates.js';
import type { Options } from './fields.js';

/** How the treatment of a complaint ended, in words. */
export const OUTCOME_WORDS: Readonly<Record<Outcome, string>> = {
  'goals-reached': say('goals reached'),
  'goes-on-alone': say('goes on alone'),
  referred: say('referred on'),
  'stopped-coming': say('stopped coming'),
  other: say('ended otherwise'),
};

export const OUTCOME_OPTIONS: Options = Object.entries(OUTCOME_WORDS);

/** When, by whom and how a complaint was closed; just closed where that was never said. */
export const endedWords = (ended: Ended | null): string =>
  ended === null
    ? say('closed')
    : say('closed {{at}} by {{by}}: {{outcome}}', {
        at: fullDay(ended.at),
        by: ended.by,
        outcome: OUTCOME_WORDS[ended.outcome],
      });

/** Above every place of a closed complaint: how it ended, and where it is opened again. */
export function EndedNote({ episode }: { episode: Pick<EpisodeView, 'status' | 'ended' | 'person'> }) {
  if (episode.status !== 'closed') return null;
  const words = endedWords(episode.ended);
  return (
    <div role="status" aria-label={say('Closed')} className="border-b border-line bg-line-2 px-5 py-2">
      <b>{words.charAt(0).toUpperCase() + words.slice(1)}.</b>{' '}
      {episode.ended?.note !== undefined && episode.ended.note !== '' && <span>{episode.ended.note} </span>}
      <Link className="text-action no-print" to={`/people/${episode.person.id}?all`}>
        {say('Open it again')}
      </Link>
    </div>
  );
}
