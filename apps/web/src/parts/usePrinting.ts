import { useSyncExternalStore } from 'react';

let printing = false;
const tell = new Set<() => void>();
const paper = window.matchMedia('print');

function look(now: boolean): void {
  printing = now;
  for (const listener of tell) listener();
}

window.addEventListener('beforeprint', () => look(true));
window.addEventListener('afterprint', () => look(paper.matches));
paper.addEventListener('change', () => look(paper.matches));

/** Whether the page is on its way to paper: what is for paper only need not be worked out while it is on the screen. */
export const usePrinting = (): boolean =>
  useSyncExternalStore(
    (listener) => {
      tell.add(listener);
      return () => tell.delete(listener);
    },
    () => printing,
  );
