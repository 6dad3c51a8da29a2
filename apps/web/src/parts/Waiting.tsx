import { say } from '@heathstep/core';
import { Link } from 'react-router';
import { ApiError } from '../api/client.js';

/** An address nothing is at, or a record of another clinic. */
export function NotFound() {
  return (
    <main className="mx-auto max-w-xl px-6 py-24">
      <h1>{say('There is nothing here')}</h1>
      <p className="mt-3 text-ink-2">
        {say('The address may be mistyped, or the record belongs to another clinic.')}
      </p>
      <p className="mt-6">
        <Link to="/day" className="text-action">
          {say('Go to today')}
        </Link>
      </p>
    </main>
  );
}

/** A query that failed: what happened and the next step. */
export function Failed({ error, again }: { error: unknown; again: () => void }) {
  if (error instanceof ApiError && error.status === 404) return <NotFound />;
  const lost = error instanceof ApiError && error.passing;
  return (
    <div className="mx-auto max-w-xl px-6 py-20" role="alert">
      <h2>{lost ? say('The server cannot be reached') : say('This could not be read')}</h2>
      <p className="mt-2 text-ink-2">
        {lost
          ? say('Nothing is lost. It is tried again by itself, or now:')
          : error instanceof Error
            ? error.message
            : ''}
      </p>
      <button type="button" className="action-quiet mt-5" onClick={again}>
        {say('Try again')}
      </button>
    </div>
  );
}

/** While a place loads: quiet lines where the text will be, after a moment only. */
export function Loading({ what }: { what: string }) {
  return (
    <div className="px-8 py-10" role="status" aria-live="polite">
      <span className="sr-only">{say('Loading {{what}}', { what })}</span>
      <div className="max-w-2xl animate-pulse space-y-5" aria-hidden>
        <div className="h-7 w-1/3 rounded bg-line-2" />
        <div className="h-4 w-2/3 rounded bg-line-2" />
        <div className="h-4 w-1/2 rounded bg-line-2" />
        <div className="h-4 w-3/5 rounded bg-line-2" />
      </div>
    </div>
  );
}

/** Before the first place is there: the empty ground, no flicker. */
export function Blank() {
  return <div className="min-h-dvh" role="status" aria-label={say('Loading')} />;
}
