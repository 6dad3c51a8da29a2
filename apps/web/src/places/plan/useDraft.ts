import type { StageKey } from '@heathstep/core';
import { useMutation, useQueryClient } from '@tanstack/react-query';
import { useRef } from 'react';
import type { CourseView, PlanView } from '@heathstep/contracts';
import { request } from '../../api/client.js';
import { keys } from '../../api/queries.js';

/** Makes the next draft; the id is fixed until it worked, so a second press makes nothing twice. */
export function useDraft(course: CourseView) {
  const client = useQueryClient();
  const id = useRef(crypto.randomUUID());
  return useMutation({
    mutationFn: (body: { stage: StageKey | undefined; from: 'stage' | 'current' }) =>
      request<PlanView>('POST', `/api/episodes/${course.episode.id}/plans`, { id: id.current, ...body }),
    onSuccess: async () => {
      id.current = crypto.randomUUID();
      await client.invalidateQueries({ queryKey: keys.course(course.episode.id) });
      // Another plan stands there now: it is read from its beginning.
      window.scrollTo(0, 0);
    },
  });
}
