import { say } from '@heathstep/core';
/** What differs between two versions under one heading. */
export interface Change {
  /** A stage, or whatever the heading belongs to; empty where it stands by itself. */
  readonly stage: string;
  readonly title: string;
  readonly gone: readonly string[];
  readonly come: readonly string[];
}

/** Two versions line by line: what went and what came. */
export function Changes({ title, changes }: { title: string; changes: readonly Change[] }) {
  return (
    <section aria-label={title} className="mt-4 max-w-3xl rounded-lg bg-paper p-4">
      <h2 className="text-lg">{title}</h2>
      {changes.length === 0 && <p className="text-ink-2">{say('Nothing: they say the same.')}</p>}
      {changes.map((c) => (
        <div key={`${c.stage}${c.title}`} className="mt-2 text-sm">
          <h3 className="text-base">{c.stage === '' ? c.title : `${c.stage}: ${c.title.toLowerCase()}`}</h3>
          <ul>
            {c.gone.map((line) => (
              <li key={line} className="text-ink-2">
                <span className="sr-only">{say('No longer:')} </span>
                <span aria-hidden>− </span>
                <s>{line}</s>
              </li>
            ))}
            {c.come.map((line) => (
              <li key={line} className="font-semibold">
                <span className="sr-only">{say('New:')} </span>
                <span aria-hidden>+ </span>
                {line}
              </li>
            ))}
          </ul>
        </div>
      ))}
    </section>
  );
}
