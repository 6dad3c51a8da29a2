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

/** The field that was come to by itself, because the one before it was whole, until a key says how it goes on. */
let cameByItself: { readonly from: HTMLInputElement; readonly at: HTMLInputElement } | null = null;

/** On from a reading that can only be whole to the field after it, where that is one of the same kind of field. */
export function goOnByItself(from: HTMLInputElement): void {
  const at = nextStop(from, 1);
  // Only while it is being typed at its end: who mends a figure within stays there.
  if (document.activeElement !== from || from.selectionEnd !== from.value.length) return;
  if (!(at instanceof HTMLInputElement) || at.value.trim() !== '' || !goTo(at)) return;
  cameByItself = { from, at };
  // Who goes elsewhere and comes back came by hand.
  at.addEventListener('blur', () => (cameByItself = null), { once: true });
}

/**
 * The first key in a field that was come to by itself. Enter, Tab and the arrow on are the hand’s own way to it, and are
 * done already; P, a unit, a blank or Backspace is meant for the reading before, whose side may be the other one.
 */
function afterComing(event: KeyboardEvent<HTMLInputElement>): boolean {
  const came = cameByItself;
  if (came === null || ['Shift', 'Control', 'Alt', 'Meta', 'AltGraph'].includes(event.key)) return false;
  cameByItself = null;
  if (came.at !== event.currentTarget || event.ctrlKey || event.metaKey || event.altKey) return false;
  if (['Enter', 'Tab', 'ArrowRight'].includes(event.key) && !event.shiftKey) {
    event.preventDefault();
    return true;
  }
  if (event.key.toLowerCase() === 'p') {
    const { row, column } = came.from.dataset;
    event.preventDefault();
    return goTo(painOf(row, column?.split('-')[0]));
  }
  const belongsBefore = event.key === 'Backspace' || (event.key.length === 1 && !/[\d+\-.,]/.test(event.key));
  if (!belongsBefore) return false;
  came.from.focus();
  came.from.setSelectionRange(came.from.value.length, came.from.value.length);
  return true;
}

/** The field taken after (or before) this one. */
export function nextStop(from: HTMLElement, by: 1 | -1): HTMLElement | undefined {
  const list = stops();
  const place = from.closest<HTMLElement>(ORDERED);
  const at = list.findIndex((s) => s.element === place);
  return at === -1 ? undefined : list[at + by]?.element;
}

/** The pain of a row on one side; undefined where it is not asked. */
export function painOf(row: string | undefined, side: string | undefined): HTMLElement | undefined {
  if (row === undefined || side === undefined) return undefined;
  const found = document.querySelector<HTMLElement>(`[data-pain="${side}"][data-row="${row}"]`);
  return found ?? undefined;
}

/** Where it goes on once a pain was told: the row's next field without a reading, else the first of the next row. */
export function afterPain(row: number): HTMLElement | undefined {
  const list = stops();
  const open = list.find(
    (s) => s.row === row && s.element instanceof HTMLInputElement && s.element.value.trim() === '',
  );
  return (open ?? list.find((s) => s.row > row))?.element;
}

/** Arrow keys and Enter move between trials, P to the pain with it; up and down between measures, in the same column. */
export function move(event: KeyboardEvent<HTMLInputElement>): void {
  if (afterComing(event)) return;
  const input = event.currentTarget;
  const column = input.dataset['column'];
  const same = [...document.querySelectorAll<HTMLInputElement>(`input[data-column="${column ?? ''}"]`)];
  const atStart = input.selectionStart === 0 && input.selectionEnd === 0;
  const atEnd = input.selectionEnd === input.value.length;
  const whole = input.selectionStart === 0 && atEnd;
  const pain = () => painOf(input.dataset['row'], column?.split('-')[0]);
  const plain = !event.ctrlKey && !event.metaKey && !event.altKey;
  const next: Record<string, () => HTMLElement | undefined> = {
    ...(plain ? { p: pain, P: pain } : {}),
    Enter: () => nextStop(input, event.shiftKey ? -1 : 1),
    ArrowRight: () => (atEnd ? nextStop(input, 1) : undefined),
    ArrowLeft: () => (atStart || whole ? nextStop(input, -1) : undefined),
    ArrowDown: () => same[same.indexOf(input) + 1],
    ArrowUp: () => same[same.indexOf(input) - 1],
  };
  const target = Object.hasOwn(next, event.key) ? next[event.key]?.() : undefined;
  if (goTo(target) || event.key === 'Enter') event.preventDefault();
}
