import { CloudOff, Check, LoaderCircle, TriangleAlert } from 'lucide-react';
import type { SaveStatus } from '../api/entryStore.js';

const WORDS: Record<SaveStatus, string> = {
  saved: 'Saved',
  saving: 'Saving',
  unreachable:
    'The server cannot be reached. What you typed is kept on this device and sent again by itself.',
  conflict: 'Someone else changed this. Both values are kept: choose below.',
  refused: 'Something could not be taken. See the marked field.',
  locked: 'This visit is signed. Open a new visit to change it.',
  'signed-out': 'You are signed out. What you typed is kept on this device; sign in again to send it.',
};

/** Whether what was typed is safe, in a word or a sentence. */
export function SaveState({ status, retry }: { status: SaveStatus; retry: () => void }) {
  const calm = status === 'saved' || status === 'saving';
  const Icon =
    status === 'saved'
      ? Check
      : status === 'saving'
        ? LoaderCircle
        : status === 'unreachable'
          ? CloudOff
          : TriangleAlert;
  return (
    <div
      role="status"
      aria-live="polite"
      data-status={status}
      className={`flex items-center gap-2 text-sm ${calm ? 'text-ink-2' : 'rounded bg-hold-wash px-3 py-2 text-hold-deep'}`}
    >
      <Icon
        className={`size-4 shrink-0 ${status === 'saving' ? 'motion-safe:animate-spin' : ''}`}
        aria-hidden
      />
      <span>{WORDS[status]}</span>
      {status === 'unreachable' && (
        <button type="button" className="text-action whitespace-nowrap" onClick={retry}>
          Try now
        </button>
      )}
      {status === 'signed-out' && (
        <a
          className="text-action whitespace-nowrap"
          href={`/sign-in?next=${encodeURIComponent(window.location.pathname)}`}
        >
          Sign in
        </a>
      )}
    </div>
  );
}
