import type { MouseEvent } from 'react';

/** What a place carries that still wants something: by keys one goes from one such place to the next. */
export const openPlace = (open: boolean): { 'data-open-place'?: ''; tabIndex?: -1 } =>
  open ? { 'data-open-place': '', tabIndex: -1 } : {};

const places = (): HTMLElement[] => [...document.querySelectorAll<HTMLElement>('[data-open-place]')];

/** The first place that still wants something; its own first button is one Tab away, so that nothing is pressed unseen. */
export function goToFirst(): boolean {
  const [first] = places();
  first?.focus();
  return first !== undefined;
}

/**
 * After a press by keys that leaves nothing to press where it was: on to the next place that still wants something. Who pressed
 * with a pointer stays where the pointer is.
 *
 * @param within the place that was pressed in, or around it
 */
export function goOn(event: MouseEvent, within: string): void {
  if (event.detail !== 0) return;
  const from = event.currentTarget.closest(within);
  if (from === null) return;
  requestAnimationFrame(() => {
    const after = Node.DOCUMENT_POSITION_FOLLOWING | Node.DOCUMENT_POSITION_CONTAINED_BY;
    const next = places().find((p) => p !== from && (from.compareDocumentPosition(p) & after) !== 0);
    next?.focus();
  });
}
