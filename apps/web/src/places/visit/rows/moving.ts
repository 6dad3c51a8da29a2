import type { KeyboardEvent } from 'react';

/** Entry fields carry their place in the order of taking, so that Enter goes on whatever the layout. */
interface Stop {
  readonly element: HTMLElement;
  readonly row: number;
  readonly order: number;
}

const ORDERED = '[data-order]';

function stops(): Stop[] {
  return [...document.querySelectorAll<HTMLElement>(ORDERED)]
    .map((element) => ({
      element,
      row: Number(element.dataset['row']),
      order: Number(element.dataset['order']),
    }))
    .sort((a, b) => a.row - b.row || a.order - b.order);
}

export function goTo(element: HTMLElement | undefined): boolean {
  if (element === undefined) return false;
  element.focus();
  if (element instanceof HTMLInputElement) element.select();
  return true;
}

/** The field taken after (or before) this one. */
export function nextStop(from: HTMLElement, by: 1 | -1): HTMLElement | undefined {
  const list = stops();
  const place = from.closest<HTMLElement>(ORDERED);
  const at = list.findIndex((s) => s.element === place);
  return at === -1 ? undefined : list[at + by]?.element;
}

/** Arrow keys and Enter move between trials; up and down between measures, in the same column. */
export function move(event: KeyboardEvent<HTMLInputElement>): void {
  const input = event.currentTarget;
  const column = input.dataset['column'];
  const same = [...document.querySelectorAll<HTMLInputElement>(`input[data-column="${column ?? ''}"]`)];
  const atStart = input.selectionStart === 0 && input.selectionEnd === 0;
  const atEnd = input.selectionEnd === input.value.length;
  const whole = input.selectionStart === 0 && atEnd;
  const next: Record<string, () => HTMLElement | undefined> = {
    Enter: () => nextStop(input, event.shiftKey ? -1 : 1),
    ArrowRight: () => (atEnd ? nextStop(input, 1) : undefined),
    ArrowLeft: () => (atStart || whole ? nextStop(input, -1) : undefined),
    ArrowDown: () => same[same.indexOf(input) + 1],
    ArrowUp: () => same[same.indexOf(input) - 1],
  };
  const target = Object.hasOwn(next, event.key) ? next[event.key]?.() : undefined;
  if (goTo(target) || event.key === 'Enter') event.preventDefault();
}
