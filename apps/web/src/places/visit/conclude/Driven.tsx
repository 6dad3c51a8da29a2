import { whyDriver } from '@heathstep/core';
import { Why } from '../../../parts/Why.js';
import type { LiveVisit } from '../live.js';

/** What keeps it going: clear ones first, each with what it adds to a plan. */
export function Driven({ live }: { live: LiveVisit }) {
  const { drivers } = live.reasoning();
  return (
    <section aria-label="What keeps it going">
      <h3 className="mt-6 text-ink-2">What keeps it going</h3>
      {drivers.length === 0 && (
        <p className="mt-1 text-sm text-ink-2">Nothing stands out in what is known.</p>
      )}
      <ul className="mt-1">
        {drivers.map((d) => {
          const definition = live.content.drivers.find((x) => x.key === d.key);
          return (
            <li key={`${d.key}-${d.side}`} className="border-b border-line-2 py-1.5">
              <span className="flex items-baseline justify-between gap-2">
                <span>
                  {definition === undefined ? (
                    d.label
                  ) : (
                    <Why of={() => whyDriver(d, definition)} className="font-semibold">
                      {d.label}
                    </Why>
                  )}
                  {d.side !== 'none' && (
                    <span style={{ color: `var(--color-${d.side})` }}>{`, ${d.side}`}</span>
                  )}
                </span>
                <span className="text-sm text-ink-2">{d.strength}</span>
              </span>
              <span className="block text-sm text-ink-2">{d.because}</span>
              <span className="block text-sm">
                {`Adds: ${d.adds.charAt(0).toLowerCase()}${d.adds.slice(1)}`}
                {d.waitsFor.length > 0 && (
                  <span className="font-semibold text-hold-deep">{`. Waits: safety switches off ${d.waitsFor.map((t) => t.replaceAll('-', ' ')).join(', ')}`}</span>
                )}
              </span>
            </li>
          );
        })}
      </ul>
    </section>
  );
}
