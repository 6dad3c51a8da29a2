import type { EntryStore } from '../../api/entryStore.js';
import type { ClinicContent } from '../../api/queries.js';

const plain = (value: unknown): string => (typeof value === 'string' ? value : JSON.stringify(value));

const told = (value: unknown): string => {
  if (value === null) return 'nothing';
  if (typeof value === 'object' && 'trials' in value)
    return (
      (value as { trials: (number | null)[] }).trials.filter((t) => t !== null).join(', ') || 'no trials'
    );
  if (!Array.isArray(value)) return plain(value);
  return value.map(plain).join(', ');
};

/** Someone else changed the same thing: both values stand until one is chosen. */
export function Conflicts({ store, content }: { store: EntryStore; content: ClinicContent }) {
  if (store.conflictList.length === 0) return null;
  const nameOf = (key: string): string => {
    const [kind, name = '', side] = key.split('.');
    const label =
      kind === 'measure'
        ? content.measures.find((m) => m.key === name)?.label
        : kind === 'safety'
          ? content.safetyQuestions.find((q) => q.key === name)?.text
          : name.replaceAll('-', ' ');
    return [label ?? name, side].filter((t) => t !== undefined).join(', ');
  };
  return (
    <ul className="mt-2 space-y-2" role="alert">
      {store.conflictList.map(({ key, mine, theirs }) => (
        <li key={key} className="flex flex-wrap items-center gap-3 rounded bg-hold-wash px-3 py-2 text-sm">
          <span>
            <strong>{nameOf(key)}</strong>: {theirs.author === '' ? 'someone' : theirs.author} wrote{' '}
            <strong>{told(theirs.value)}</strong>, you wrote <strong>{told(mine)}</strong>.
          </span>
          <button type="button" className="text-action min-h-11" onClick={() => store.resolve(key, 'mine')}>
            Keep mine
          </button>
          <button type="button" className="text-action min-h-11" onClick={() => store.resolve(key, 'theirs')}>
            Keep theirs
          </button>
        </li>
      ))}
    </ul>
  );
}
