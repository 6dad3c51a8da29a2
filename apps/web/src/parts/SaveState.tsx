import { say } from '@heathstep/core';
import { CloudOff, Check, LoaderCircle, TriangleAlert } from 'lucide-react';
import type { SaveStatus } from '../api/entryStore.js';

const WORDS: Record<SaveStatus, string> = {
  saved: say('Saved'),
  saving: say('Saving'),
  unreachable: say(
    'The server cannot be reached. What you typed is kept on this device and sent again by itself.',
  ),
  conflict: say('Someone else changed this. Both values are kept: choose below.'),
  refused: say('Something could not be taken. See the marked field.'),
  locked: say('This visit is signed. Open a new visit to change it.'),
  'signed-out': say('You are signed out. What you typed is kept on this device; sign in again to send it.'),
};

const isCalm = (status: SaveStatus): boolean => status === 'saved' || status === 'saving';

/** Whether what was typed is safe, in a word; what is not well is said by `SaveTrouble`. */
export function SaveState({ status }: { status: SaveStatus }) {
  if (!isCalm(status)) return null;
  const Icon = status === 'saved' ? Check : LoaderCircle;
  return (
    <div
      role="status"
      aria-live="polite"
      data-status={status}
      className="flex items-center gap-2 text-sm text-ink-2"
    >
      <Icon
        className={`size-4 shrink-0 ${status === 'saving' ? 'motion-safe:animate-spin' : ''}`}
        aria-hidden
      />
      <span>{WORDS[status]}</span>
    </div>
  );
}

/** What keeps from saving and what to do, in a band that stays in sight however far a long page is scrolled. */
export function SaveTrouble({ status, retry }: { status: SaveStatus; retry: () => void }) {
  return (
    <div
      role="status"
      aria-live="polite"
      className="no-print sticky top-0 z-10 md:top-[4.5rem]"
      {...(isCalm(status) ? {} : { 'data-status': status })}
    >
      {!isCalm(status) && (
        <p className="flex items-center gap-2 rounded bg-hold-wash px-3 py-2 text-sm text-hold-deep">
          {status === 'unreachable' ? (
            <CloudOff className="size-4 shrink-0" aria-hidden />
          ) : (
            <TriangleAlert className="size-4 shrink-0" aria-hidden />
          )}
          <span>{WORDS[status]}</span>
          {status === 'unreachable' && (
            <button type="button" className="text-action whitespace-nowrap" onClick={retry}>
              {say('Try now')}
            </button>
          )}
          {status === 'signed-out' && (
            <a
              className="text-action whitespace-nowrap"
              href={`/sign-in?next=${encodeURIComponent(window.location.pathname)}`}
            >
              {say('Sign in')}
            </a>
          )}
        </p>
      )}
    </div>
  );
}
