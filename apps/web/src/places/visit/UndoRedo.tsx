import { say } from '@heathstep/core';
import { useCallback, useState } from 'react';
import { useUndoKeys } from '../../parts/useUndoKeys.js';
import { entryName, told } from './entryName.js';
import type { LiveVisit } from './live.js';

/** Takes the last entry back and makes it again, by press or by key, and says what it was. */
export function UndoRedo({ live }: { live: LiveVisit }) {
  const { store, content } = live;
  const [said, setSaid] = useState<{ readonly text: string; readonly at: number } | null>(null);
  const go = useCallback(
    (back: boolean) => {
      const key = back ? store.undo() : store.redo();
      if (key === null) return;
      const now = store.all().find(([k]) => k === key)?.[1] ?? null;
      const plain = typeof now !== 'object' || now === null || 'trials' in now;
      const words = `${back ? say('Taken back') : say('Made again')}: ${entryName(key, content)}${plain ? say(', now {{told}}', { told: told(now) }) : ''}`;
      setSaid({ text: words, at: store.revision });
    },
    [store, content],
  );
  const back = useCallback(() => go(true), [go]);
  const again = useCallback(() => go(false), [go]);
  useUndoKeys(back, again);
  const shown = said !== null && said.at === store.revision ? said.text : '';
  return (
    <span className="flex min-w-0 items-center gap-3 text-sm">
      <span
        role="status"
        aria-label={say('What was taken back')}
        className="max-w-72 truncate text-ink-2"
        title={shown}
      >
        {shown}
      </span>
      {store.canUndo && (
        <button type="button" className="text-action min-h-11" onClick={() => go(true)}>
          {say('Undo')}
        </button>
      )}
      {store.canRedo && (
        <button type="button" className="text-action min-h-11" onClick={() => go(false)}>
          {say('Redo')}
        </button>
      )}
    </span>
  );
}
