import { say } from '@heathstep/core';
import { Octagon } from 'lucide-react';
import { Link } from 'react-router';
import type { EpisodeView } from '@heathstep/contracts';
import { PersonFacts } from '../../parts/PersonFacts.js';

/** Why nothing can be prescribed, and the way to what is missing. */
export function Blocked({
  reasons,
  episodeId,
  episode,
}: {
  reasons: readonly string[];
  episodeId: string;
  /** Where what is missing of the person can be entered. */
  episode?: EpisodeView;
}) {
  return (
    <div className="max-w-xl rounded-lg bg-ease-wash p-6" role="alert">
      <h2 className="flex items-center gap-2 text-ease-deep">
        <Octagon className="size-5" aria-hidden /> {say('Nothing can be prescribed yet')}
      </h2>
      <ul className="mt-3 list-disc space-y-1 pl-5">
        {reasons.map((r) => (
          <li key={r}>{r}</li>
        ))}
      </ul>
      {episode?.person.birthDate === null && <PersonFacts episode={episode} />}
      <Link to={`/episodes/${episodeId}/visit/safety`} className="action-quiet mt-5">
        {say('To the safety answers')}
      </Link>
    </div>
  );
}
