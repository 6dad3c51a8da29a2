import { whyDriver, say, sayKey } from '@heathstep/core';
import { Why } from '../../../parts/Why.js';
import type { LiveVisit } from '../live.js';

/** What keeps it going: clear ones first, each with what it adds to a plan. */
export function Driven({ live }: { live: LiveVisit }) {
  const { drivers } = live.reasoning();
  return (
    <section aria-label={say('What keeps it going')}>
      <h3 className="mt-6 text-ink-2">{say('What keeps it going')}</h3>
      {drivers.length === 0 && (
        <p className="mt-1 text-sm text-ink-2">{say('Nothing stands out in what is known.')}</p>
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
                    <span style={{ color: `var(--color-${d.side})` }}>{`, ${say(d.side)}`}</span>
                  )}
                </span>
                <span className="text-sm text-ink-2">{say(d.strength)}</span>
              </span>
              <span className="block text-sm text-ink-2">{d.because}</span>
              <span className="block text-sm">
                {say('Adds: {{charAt}}{{adds}}', {
                  charAt: d.adds.charAt(0).toLowerCase(),
                  adds: d.adds.slice(1),
                })}
                {d.waitsFor.length > 0 && (
                  <span className="font-semibold text-hold-deep">
                    {say('. Waits: safety switches off {{list}}', {
                      list: d.waitsFor.map(sayKey).join(', '),
                    })}
                  </span>
                )}
              </span>
            </li>
          );
        })}
      </ul>
    </section>
  );
}
