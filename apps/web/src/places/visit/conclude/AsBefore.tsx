import { say } from '@heathstep/core';
import { concludedIdeas, type ConcludedIdea, entriesOf } from '@heathstep/contracts';
import { shortDay } from '../../../parts/dates.js';
import { goOn, openPlace } from '../../../parts/goOn.js';
import type { Idea } from '../findings/ideas.js';
import type { LiveVisit } from '../live.js';
import { asBefore } from './asBefore.js';
import { ENTRY, judgedIdeas } from './concluded.js';

/** What was concluded at the newest visit before this one, and when. */
function concludedBefore({
  course,
  visit,
}: LiveVisit): { day: string; ideas: readonly ConcludedIdea[] } | null {
  const earlier = course.episode.visits
    .filter((v) => v.number < visit.number)
    .toSorted((a, b) => b.number - a.number);
  for (const v of earlier) {
    const ideas = concludedIdeas(entriesOf(v.entries));
    if (ideas.length > 0) return { day: v.startedAt, ideas };
  }
  return null;
}

/**
 * What was concluded before; taken over with one press, as long as nothing is concluded yet and what is known now leads there
 * too.
 */
export function AsBefore({ live, ideas }: { live: LiveVisit; ideas: readonly Idea[] }) {
  const before = live.visit.kind === 'review' ? concludedBefore(live) : null;
  if (before === null) return null;
  const nameOf = (condition: string) =>
    live.content.conditions.find((c) => c.key === condition)?.name.toLowerCase() ?? condition;
  const names = before.ideas
    .map(
      (i) =>
        `${i.verdict === 'rejected' ? say('not {{name}}', { name: nameOf(i.condition) }) : nameOf(i.condition)}${i.side === 'none' ? '' : `, ${say(i.side)}`}`,
    )
    .join('; ');
  const day = shortDay(before.day);
  const { why } = asBefore(before.ideas, ideas);
  if (judgedIdeas(live).length > 0)
    return <p className="mt-1 text-sm text-ink-2">{say('On {{day}}: {{names}}.', { day, names })}</p>;
  return (
    <p className="mt-2 border-l-2 border-heather bg-heather-wash px-3 py-2" {...openPlace(true)}>
      {say('On {{day}}: {{names}}.', { day, names })}{' '}
      {why === null ? (
        <button
          type="button"
          className="text-action min-h-11"
          onClick={(event) => {
            live.set(ENTRY, [...before.ideas]);
            goOn(event, 'section');
          }}
        >
          {say('It is still so')}
        </button>
      ) : why === 'rule-out' ? (
        say('Now something has to be ruled out first: judge it below.')
      ) : (
        say('Now something else leads: judge it below.')
      )}
    </p>
  );
}
