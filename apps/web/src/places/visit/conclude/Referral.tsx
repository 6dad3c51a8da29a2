import { useState } from 'react';
import { type ReferralReason, whyReferral, say } from '@heathstep/core';
import { LEVEL_WORDS } from '../../../parts/levels.js';
import { Why } from '../../../parts/Why.js';
import { Letter } from '../Letter.js';
import type { LiveVisit } from '../live.js';

/** Six weeks without a real change are a reason of their own. */
function noResponse(live: LiveVisit): ReferralReason[] {
  const { review } = live.course;
  if (review?.decision !== 'refer' || review.rule !== 8) return [];
  return [
    {
      condition: live.pathway.key,
      name: live.conditionName,
      side: 'none',
      text: say('No real change in the leading measure for six weeks'),
      because: review.because,
      source: say('Clinical convention'),
    },
  ];
}

const referralOf = (live: LiveVisit): ReferralReason[] => [...noResponse(live), ...live.reasoning().referral];

/** Why someone else should see this, with a letter prepared. */
export function Referral({ live }: { live: LiveVisit }) {
  const [writing, setWriting] = useState(false);
  const reasons = referralOf(live);
  const signs = live.safety.triggered.filter((t) => t.status === 'open' && t.rule.level !== 'caution');
  if (reasons.length === 0 && signs.length === 0) return null;
  return (
    <section aria-label={say('To refer')}>
      <h3 className="mt-6 text-ink-2">{say('To refer')}</h3>
      <ul className="mt-1">
        {signs.map((t) => (
          <li key={`${t.rule.key}-${t.side}`} className="border-b border-line-2 py-1.5">
            <b>{`${t.rule.title}${t.side === 'none' ? '' : `, ${say(t.side)}`}`}</b>
            <span className="block text-sm text-ink-2">{`${LEVEL_WORDS[t.rule.level]}: ${t.rule.action}`}</span>
          </li>
        ))}
        {reasons.map((r) => (
          <li key={`${r.condition}-${r.side}-${r.text}`} className="border-b border-line-2 py-1.5">
            <Why of={() => whyReferral(r)} className="font-semibold">
              {`${r.name}${r.side === 'none' ? '' : `, ${say(r.side)}`}`}
            </Why>
            <span className="block text-sm text-ink-2">{r.text}</span>
          </li>
        ))}
      </ul>
      <button type="button" className="text-action min-h-11" onClick={() => setWriting(true)}>
        {say('Prepare the letter')}
      </button>
      {writing && (
        <Letter
          live={live}
          of="letter.conclude"
          signs={signs}
          reasons={reasons}
          close={() => setWriting(false)}
        />
      )}
    </section>
  );
}
