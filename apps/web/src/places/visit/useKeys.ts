import { useEffect } from 'react';
import { useNavigate } from 'react-router';
import type { LiveVisit } from './live.js';
import { STEPS, type Step } from './progress.js';

/** Keys of the whole bench: Alt with up or down goes between the steps. */
export function useKeys(live: LiveVisit, step: Step): void {
  const navigate = useNavigate();
  const { visitQuery } = live;
  const episodeId = live.course.episode.id;
  useEffect(() => {
    const listen = (event: KeyboardEvent) => {
      const by = event.key === 'ArrowDown' ? 1 : event.key === 'ArrowUp' ? -1 : 0;
      const to = STEPS[STEPS.indexOf(step) + by];
      if (!event.altKey || by === 0 || to === undefined) return;
      event.preventDefault();
      void navigate(`/episodes/${episodeId}/visit/${to}${visitQuery}`);
    };
    window.addEventListener('keydown', listen);
    return () => window.removeEventListener('keydown', listen);
  }, [step, episodeId, visitQuery, navigate]);
}
