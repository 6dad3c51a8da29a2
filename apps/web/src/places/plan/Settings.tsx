import { useState } from 'react';
import { useMutation, useQueryClient } from '@tanstack/react-query';
import { EQUIPMENT, type CourseView, type EpisodeView, type PlanView } from '@heathstep/contracts';
import { ApiError, request } from '../../api/client.js';
import { keys } from '../../api/queries.js';
import { ChoiceBlank, ListBlank, NumberBlank } from '../../parts/Blank.js';
import { SchoolIf } from './SchoolIf.js';
import { WeightsBlank } from './WeightsBlank.js';
import { useDraft } from './useDraft.js';

const STAND_INS: Record<string, string> = {
  towel: 'a towel',
  belt: 'a belt',
  ball: 'a ball',
  step: 'a step',
  band: 'a band',
  'hand weight': 'a hand weight',
  roller: 'a roller',
  cushion: 'a cushion',
  rope: 'a rope',
  spoon: 'a spoon',
  'night splint': 'a night splint',
};

/** What the plan is made for: minutes, equipment and schools, as one sentence. A change fills the stage anew. */
export function Settings({ course, draft }: { course: CourseView; draft: PlanView }) {
  const { episode } = course;
  const client = useQueryClient();
  const refill = useDraft(course);
  const change = useMutation({
    mutationFn: (changes: object) =>
      request<EpisodeView>('PATCH', `/api/episodes/${episode.id}`, { version: episode.version, ...changes }),
    onSuccess: () => refill.mutate({ stage: draft.stage, from: 'stage' }),
    onError: () => void client.invalidateQueries({ queryKey: keys.course(episode.id) }),
  });
  const { protocol } = course;
  const [asked, setAsked] = useState<{ school: string; option: string } | null>(null);
  const school = protocol.schools.find((s) => s.key === asked?.school);
  const option = school?.options.find((o) => o.key === asked?.option);
  return (
    <div className="my-2 leading-8">
      Made for{' '}
      <NumberBlank
        label="minutes a day"
        value={episode.minutesPerDay}
        unit="min"
        min={3}
        max={90}
        onChange={(v) => v !== null && change.mutate({ minutesPerDay: Math.round(v) })}
      />{' '}
      a day, with{' '}
      <ListBlank
        label="equipment"
        none="no equipment"
        value={episode.equipment.length === 0 ? ['none'] : episode.equipment}
        options={EQUIPMENT.map((e) => ({ value: e, label: STAND_INS[e] ?? e }))}
        onChange={(v) => change.mutate({ equipment: (v ?? []).filter((e) => e !== 'none') })}
      />
      , weights at home{' '}
      <WeightsBlank value={episode.weightsKg} onChange={(weightsKg) => change.mutate({ weightsKg })} />
      {protocol?.schools.map((school) => (
        <span key={school.key}>
          ,{' '}
          <ChoiceBlank
            label={school.question}
            value={episode.schools[school.key] ?? null}
            options={school.options.map((o) => ({ value: o.key, label: o.label.toLowerCase() }))}
            onChange={(option) =>
              setAsked(
                option === null || option === episode.schools[school.key]
                  ? null
                  : { school: school.key, option },
              )
            }
          />
        </span>
      ))}
      .
      {school !== undefined && option !== undefined && (
        <SchoolIf
          school={school}
          option={option}
          draft={draft}
          leave={() => setAsked(null)}
          take={() => {
            setAsked(null);
            change.mutate({ schools: { ...episode.schools, [school.key]: option.key } });
          }}
        />
      )}
      {change.error instanceof ApiError && (
        <span role="alert" className="ml-2 text-sm text-ease-deep">
          {change.error.status === 409
            ? 'Someone else changed this a moment ago; it is read again, choose once more.'
            : (change.error.problem.errors?.[0]?.detail ?? change.error.message)}
        </span>
      )}
    </div>
  );
}
