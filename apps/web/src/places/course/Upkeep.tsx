import { useState } from 'react';
import { say, type UpkeepEnd } from '@heathstep/core';
import type { CourseView } from '@heathstep/contracts';
import { ApiError } from '../../api/client.js';
import { useSession } from '../../api/queries.js';
import { fullDay } from '../../parts/dates.js';
import { End, useEpisodeChange } from '../../parts/EndOrReopen.js';
import { sentence } from '../../parts/Judgement.js';
import { Window } from '../../parts/Window.js';

/** When upkeep may end, what speaks against it, and the way to close it. */
export function Upkeep({ course, upkeep }: { course: CourseView; upkeep: UpkeepEnd }) {
  const { episode } = course;
  const session = useSession();
  const [ending, setEnding] = useState(false);
  const change = useEpisodeChange(episode.person.id, () => setEnding(false));
  const words = {
    'goes-on': say('Upkeep goes on. It may end from {{from}}, and usually does by {{by}}.', {
      from: fullDay(upkeep.from),
      by: fullDay(upkeep.by),
    }),
    'may-end': say('Upkeep may end now; it usually does by {{by}}.', { by: fullDay(upkeep.by) }),
    over: say('Upkeep has lasted as long as it usually does, to {{by}}: end it, or say why it goes on.', {
      by: fullDay(upkeep.by),
    }),
  }[upkeep.state];
  return (
    <section aria-label={say('End of upkeep')} className="mt-4 rounded-lg bg-heather-wash px-3 py-2 text-sm">
      <p>{words}</p>
      {upkeep.against.map((a) => (
        <p key={a} className="font-semibold">
          {sentence(a)}.
        </p>
      ))}
      {session.data?.user.role !== 'assistant' && (
        <button
          type="button"
          className="text-action min-h-11 font-semibold"
          onClick={() => {
            change.reset();
            setEnding(true);
          }}
        >
          {say('Discharge')}
        </button>
      )}
      {ending && (
        <Window title={say('Discharge')} close={() => setEnding(false)}>
          <End
            name={episode.person.name}
            error={change.error instanceof ApiError ? change.error : null}
            busy={change.isPending}
            leave={() => setEnding(false)}
            close={(end) => change.mutate({ of: episode, status: 'closed', ...end })}
          />
        </Window>
      )}
    </section>
  );
}
