import { say } from '@heathstep/core';
import { useEffect, useRef, useState } from 'react';
import type { PresenceView } from '@heathstep/contracts';
import { request } from '../../api/client.js';
import type { EntryStore } from '../../api/entryStore.js';
import { STEP_NAMES, type Step } from './progress.js';

const ASK_MS = 4000;

/** Who else writes in this visit, told while they write; what they save appears here by itself. */
export function Presence({ visitId, step, store }: { visitId: string; step: Step; store: EntryStore }) {
  const [others, setOthers] = useState<PresenceView['others']>([]);
  const since = useRef(0);
  useEffect(() => {
    let live = true;
    const ask = async () => {
      try {
        const seen = await request<PresenceView>('POST', `/api/visits/${visitId}/presence`, {
          step,
          since: since.current,
        });
        if (!live) return;
        since.current = seen.newest;
        setOthers(seen.others);
        store.receive(seen.entries);
      } catch {
        // A lost server is told by the save state; here nothing is known of others.
        if (live) setOthers([]);
      }
    };
    void ask();
    const timer = setInterval(() => {
      if (document.visibilityState === 'visible') void ask();
    }, ASK_MS);
    return () => {
      live = false;
      clearInterval(timer);
    };
  }, [visitId, step, store]);
  if (others.length === 0) return null;
  return (
    <p role="status" className="rounded bg-hold-wash px-3 py-1 text-sm text-hold-deep">
      {say('{{list}}. What either saves shows at once; if both change the same, both stay.', {
        list: others
          .map((o) =>
            say('{{name}} is writing here too, in {{value}}', {
              name: o.name,
              value: STEP_NAMES[o.step as Step].toLowerCase(),
            }),
          )
          .join('; '),
      })}
    </p>
  );
}
