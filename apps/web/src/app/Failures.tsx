import { say } from '@heathstep/core';
import { useRouteError } from 'react-router';

/** A page that failed to draw. What was typed is kept on the device and sent on the next try. */
export function Crashed() {
  const error = useRouteError();
  const missingChunk = error instanceof TypeError && /fetch|import/i.test(error.message);
  return (
    <main className="mx-auto max-w-xl px-6 py-24" role="alert">
      <h1>{missingChunk ? say('This page could not be fetched') : say('This page ran into a fault')}</h1>
      <p className="mt-3 text-ink-2">
        {say('What you typed is kept on this device. Loading the page again usually helps.')}
      </p>
      <button type="button" className="action mt-6" onClick={() => window.location.reload()}>
        {say('Load again')}
      </button>
    </main>
  );
}
