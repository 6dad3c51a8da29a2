import { useEffect, useRef } from 'react';
import { useNavigate } from 'react-router';
import { goToFirst } from '../../parts/goOn.js';
import type { LiveVisit } from './live.js';
import { STEPS, type Step } from './progress.js';

/** Who comes by keys can type at once: into the first field without a reading, where it can be seen without scrolling. */
function focusFirstOpen(): void {
  // Who is somewhere already, in the quick line perhaps, stays there.
  if (document.activeElement !== null && document.activeElement !== document.body) return;
  const open = [...document.querySelectorAll<HTMLInputElement>('input[data-trial]')].find(
    (input) => input.value === '',
  );
  if (open === undefined) {
    goToFirst();
    return;
  }
  const { top, bottom } = open.getBoundingClientRect();
  if (top >= 0 && bottom <= window.innerHeight) open.focus({ preventScroll: true });
}

/** Keys of the whole bench: Alt with up or down goes between the steps. */
export function useKeys(live: LiveVisit, step: Step): void {
  const navigate = useNavigate();
  const { visitQuery } = live;
  const episodeId = live.course.episode.id;
  const byKeys = useRef(false);
  useEffect(() => {
    if (!byKeys.current) return undefined;
    byKeys.current = false;
    const frame = requestAnimationFrame(focusFirstOpen);
    return () => cancelAnimationFrame(frame);
  }, [step]);
  useEffect(() => {
    const listen = (event: KeyboardEvent) => {
      const by = event.key === 'ArrowDown' ? 1 : event.key === 'ArrowUp' ? -1 : 0;
      const to = STEPS[STEPS.indexOf(step) + by];
      if (!event.altKey || by === 0 || to === undefined) return;
      event.preventDefault();
      byKeys.current = true;
      void navigate(`/episodes/${episodeId}/visit/${to}${visitQuery}`);
    };
    window.addEventListener('keydown', listen);
    return () => window.removeEventListener('keydown', listen);
  }, [step, episodeId, visitQuery, navigate]);
}
