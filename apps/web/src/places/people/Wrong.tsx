import { say } from '@heathstep/core';
import { ApiError } from '../../api/client.js';

/** The first of what is wrong, each by its path in the file. */
export function Wrong({ error }: { error: Error }) {
  const errors = error instanceof ApiError ? (error.problem.errors ?? []) : [];
  return (
    <div role="alert" className="mt-3 text-ease-deep">
      <p>{say('Nothing was taken: {{reason}}', { reason: error.message })}</p>
      <ul className="mt-1 text-sm">
        {errors.map((e) => (
          <li key={`${e.pointer} ${e.detail}`}>
            {e.pointer !== '/file' && <code data-said-by-others="">{e.pointer}</code>} {e.detail}
          </li>
        ))}
      </ul>
    </div>
  );
}
