import { say } from '@heathstep/core';
import { useMutation, useQueryClient } from '@tanstack/react-query';
import type { EpisodeView } from '@heathstep/contracts';
import { ApiError, request } from '../../../api/client.js';
import { keys, useSession } from '../../../api/queries.js';
import type { LiveVisit } from '../live.js';
import { judgedIdeas } from './concluded.js';

/** Once it is known what it is: go on with the pathway that treats it, before the first plan. */
export function GoOnAs({ live }: { live: LiveVisit }) {
  const { episode } = live.course;
  const session = useSession();
  const client = useQueryClient();
  const change = useMutation({
    mutationFn: async (condition: string) => {
      await live.store.flush();
      return request<EpisodeView>('PATCH', `/api/episodes/${episode.id}`, {
        version: episode.version,
        condition,
      });
    },
    onSettled: () => client.invalidateQueries({ queryKey: keys.course(episode.id) }),
  });
  const leads = judgedIdeas(live).find((i) => i.leads);
  const wanted = live.content.conditions.find((c) => c.key === leads?.condition)?.pathway ?? null;
  const pathway = live.content.pathways.find((p) => p.key === wanted);
  const mayChange = session.data?.user.role !== 'assistant' && live.visit.signedAt === null;
  const standing = episode.stage !== null || live.course.episode.plan !== null;
  if (pathway === undefined || pathway.key === episode.condition || standing || !mayChange) return null;
  return (
    <div className="mt-3 rounded bg-heather-wash px-3 py-2">
      <p className="text-sm">
        {say('This visit was opened as {{conditionName}}. ', {
          conditionName: live.conditionName.toLowerCase(),
        })}
        {pathway.protocol === null
          ? say('Another set of measures belongs to what you concluded.')
          : say('What you concluded has its own measures and a protocol to plan by.')}
      </p>
      <button
        type="button"
        className="text-action min-h-11"
        disabled={change.isPending}
        onClick={() => change.mutate(pathway.key)}
      >
        {say('Go on as {{name}}', { name: pathway.name.toLowerCase() })}
      </button>
      {change.error instanceof ApiError && (
        <p role="alert" className="text-sm text-ease-deep">
          {change.error.message}
        </p>
      )}
    </div>
  );
}
