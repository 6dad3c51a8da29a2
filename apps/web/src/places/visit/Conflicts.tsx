import { say } from '@heathstep/core';
import type { EntryStore } from '../../api/entryStore.js';
import type { ClinicContent } from '../../api/queries.js';
import { entryName, told } from './entryName.js';

/** Someone else changed the same thing: both values stand side by side until one is chosen. */
export function Conflicts({ store, content }: { store: EntryStore; content: ClinicContent }) {
  if (store.conflictList.length === 0) return null;
  return (
    <ul className="mt-2 space-y-2" role="alert">
      {store.conflictList.map(({ key, mine, theirs }) => (
        <li key={key} className="rounded bg-hold-wash px-3 py-2 text-sm">
          <strong>{entryName(key, content)}</strong> {say('was changed by two people.')}
          <div className="mt-1 grid grid-cols-2 gap-4">
            <div>
              <span className="text-ink-2">
                {say('{{words}} wrote', { words: theirs.author === '' ? say('someone') : theirs.author })}
              </span>
              <div className="text-lg font-bold">{told(theirs.value)}</div>
              <button
                type="button"
                className="text-action min-h-11"
                onClick={() => store.resolve(key, 'theirs')}
              >
                {say('Keep theirs')}
              </button>
            </div>
            <div>
              <span className="text-ink-2">{say('you wrote')}</span>
              <div className="text-lg font-bold">{told(mine)}</div>
              <button
                type="button"
                className="text-action min-h-11"
                onClick={() => store.resolve(key, 'mine')}
              >
                {say('Keep mine')}
              </button>
            </div>
          </div>
        </li>
      ))}
    </ul>
  );
}
