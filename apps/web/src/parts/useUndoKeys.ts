import { useEffect } from 'react';

const isTyping = (target: EventTarget | null): boolean =>
  target instanceof HTMLInputElement ||
  target instanceof HTMLTextAreaElement ||
  target instanceof HTMLSelectElement;

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
