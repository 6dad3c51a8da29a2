import { useEffect } from 'react';

/** What a choice is made in keeps nothing to take back of its own, other than a field for text. */
const CHOICES = ['checkbox', 'radio', 'range', 'file', 'button'];

const isTyping = (target: EventTarget | null): boolean =>
  target instanceof HTMLTextAreaElement ||
  (target instanceof HTMLInputElement && !CHOICES.includes(target.type));

/** Ctrl+Z takes back, Ctrl+Shift+Z and Ctrl+Y make again; a field that is being typed in keeps its own. */
export function useUndoKeys(back: () => void, again: () => void): void {
  useEffect(() => {
    const listen = (event: KeyboardEvent) => {
      if (isTyping(event.target) || !(event.ctrlKey || event.metaKey) || event.altKey) return;
      const key = event.key.toLowerCase();
      if (key !== 'z' && key !== 'y') return;
      event.preventDefault();
      if (key === 'z' && !event.shiftKey) back();
      else again();
    };
    window.addEventListener('keydown', listen);
    return () => window.removeEventListener('keydown', listen);
  }, [back, again]);
}
