import { say } from '@heathstep/core';
import { useState } from 'react';
import { useMutation, useQueryClient } from '@tanstack/react-query';
import { EQUIPMENT, type CourseView, type EpisodeView, type PlanView } from '@heathstep/contracts';
import { ApiError, request } from '../../api/client.js';
import { keys } from '../../api/queries.js';
import { ChoiceBlank, ListBlank, NumberBlank } from '../../parts/Blank.js';
import { FilledAnew } from './FilledAnew.js';
import { WeightsBlank } from './WeightsBlank.js';
import { useDraft } from './useDraft.js';

const STAND_INS: Record<string, string> = {
  towel: say('a towel'),
  belt: say('a belt'),
  ball: say('a ball'),
  step: say('a step'),
  band: say('a band'),
  'hand weight': say('a hand weight'),
  roller: say('a roller'),
  cushion: say('a cushion'),
  rope: say('a rope'),
  spoon: say('a spoon'),
  'night splint': say('a night splint'),
};

/**
 * What the plan is made for: minutes, equipment and schools, as one sentence. A change fills the stage anew; a draft
 * that is more than the planner's own is filled anew only by who has seen what that changes.
 */
export function Settings({
  course,
  draft,
  byHand,
  asking,
  ask,
}: {
  course: CourseView;
  draft: PlanView;
  byHand: boolean;
  /** Whether it is asked just now if the stage is to be filled anew. */
  asking: boolean;
  ask: (asking: boolean) => void;
}) {
  const { episode } = course;
  const client = useQueryClient();
  const refill = useDraft(course);
  const fillAnew = () => {
    ask(false);
    refill.mutate({ stage: draft.stage, from: 'stage' });
  };
  const change = useMutation({
    mutationFn: ({ to }: { to: object; seen?: boolean }) =>
      request<EpisodeView>('PATCH', `/api/episodes/${episode.id}`, { version: episode.version, ...to }),
    onSuccess: async (_, { seen = false }) => {
      if (seen || !byHand) fillAnew();
      else {
        ask(true);
        await client.invalidateQueries({ queryKey: keys.course(episode.id) });
      }
    },
    onError: () => void client.invalidateQueries({ queryKey: keys.course(episode.id) }),
  });
  const { protocol } = course;
  const [asked, setAsked] = useState<Asked | null>(null);
  const school = protocol.schools.find((s) => s.key === asked?.school);
  const option = school?.options.find((o) => o.key === asked?.option);
  return (
    <div className="my-2 leading-8">
      <MadeFor course={course} change={(to) => change.mutate({ to })} choose={setAsked} />
      {school !== undefined && option !== undefined && (
        <FilledAnew
          title={say('If {{label}}', { label: option.label.toLowerCase() })}
          because={option.reason}
          episode={episode}
          draft={draft}
          schools={{ [school.key]: option.key }}
          words={{ take: say('Take it, and fill the stage anew'), leave: say('Leave it as it is') }}
          leave={() => setAsked(null)}
          take={() => {
            setAsked(null);
            change.mutate({ to: { schools: { ...episode.schools, [school.key]: option.key } }, seen: true });
          }}
        />
      )}
      {asking && (
        <FilledAnew
          title={say('The exercises below stand as they were')}
          because={say('they are not only the planner’s own')}
          episode={episode}
          draft={draft}
          schools={{}}
          words={{ take: say('Fill the stage anew'), leave: say('Keep them as they stand') }}
          leave={() => ask(false)}
          take={fillAnew}
        />
      )}
      {change.error instanceof ApiError && (
        <span role="alert" className="ml-2 text-sm text-ease-deep">
          {change.error.status === 409
            ? say('Someone else changed this a moment ago; it is read again, choose once more.')
            : (change.error.problem.errors?.[0]?.detail ?? change.error.message)}
        </span>
      )}
    </div>
  );
}

interface Asked {
  readonly school: string;
  readonly option: string;
}

/** The sentence itself, each part of it a gap. */
function MadeFor({
  course: { episode, protocol },
  change,
  choose,
}: {
  course: CourseView;
  change: (to: object) => void;
  choose: (asked: Asked | null) => void;
}) {
  return (
    <>
      {say('Made for')}{' '}
      <NumberBlank
        label={say('minutes a day')}
        value={episode.minutesPerDay}
        unit={say('min')}
        min={3}
        max={90}
        onChange={(v) => v !== null && change({ minutesPerDay: Math.round(v) })}
      />{' '}
      {say('a day, with')}{' '}
      <ListBlank
        label={say('equipment')}
        none={say('no equipment')}
        value={episode.equipment.length === 0 ? ['none'] : episode.equipment}
        options={EQUIPMENT.map((e) => ({ value: e, label: STAND_INS[e] ?? e }))}
        onChange={(v) => change({ equipment: (v ?? []).filter((e) => e !== 'none') })}
      />
      {say(', weights at home')}{' '}
      <WeightsBlank value={episode.weightsKg} onChange={(weightsKg) => change({ weightsKg })} />
      {protocol?.schools.map((school) => (
        <span key={school.key}>
          ,{' '}
          <ChoiceBlank
            label={school.question}
            value={episode.schools[school.key] ?? null}
            options={school.options.map((o) => ({ value: o.key, label: o.label.toLowerCase() }))}
            onChange={(option) =>
              choose(
                option === null || option === episode.schools[school.key]
                  ? null
                  : { school: school.key, option },
              )
            }
          />
        </span>
      ))}
      .
    </>
  );
}
