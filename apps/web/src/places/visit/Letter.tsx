import { Dialog } from 'radix-ui';
import { useState } from 'react';
import {
  readThreshold,
  type ReferralReason,
  referralLetter,
  type TriggeredRule,
  withUnit,
} from '@heathstep/core';
import { useSession } from '../../api/queries.js';
import { fullDay, longDay } from '../../parts/dates.js';
import { concludedIdeas } from '@heathstep/contracts';
import { ideasOf } from './findings/ideas.js';
import { columnsOf, type LiveVisit } from './live.js';

/** What was measured and says something, a line each. */
function findingsOf(live: LiveVisit): string[] {
  return live.measures.flatMap((m) =>
    columnsOf(m).flatMap((side) => {
      const value = live.value(m, side);
      if (value === null) return [];
      const reading = readThreshold(m, value, live.ageYears);
      if (reading === null || reading.meaning === 'usual') return [];
      return [
        `${m.label}${side === 'none' ? '' : `, ${side}`}: ${withUnit(m, value, m.decimals)} (${reading.meaning})`,
      ];
    }),
  );
}

/** What the clinician concluded, or what ranks first while nothing is concluded. */
function thoughtOf(live: LiveVisit): string[] {
  const nameOf = (key: string) => live.content.conditions.find((c) => c.key === key)?.name ?? key;
  const on = (side: string) => (side === 'none' ? '' : `, ${side}`);
  const concluded = concludedIdeas(live.readings.entries);
  if (concluded.length > 0) return concluded.map((i) => `${nameOf(i.condition)}${on(i.side)}`);
  return ideasOf(live.reasoning(), live.content.conditions)
    .slice(0, 3)
    .map((i) => `${i.condition.name}${on(i.ranked.side)} (${i.ranked.rank})`);
}

/** A referral letter prepared from the open signs; read and changed by the clinician before it goes. */
export function Letter({
  live,
  signs,
  reasons = [],
  close,
}: {
  live: LiveVisit;
  signs: readonly TriggeredRule[];
  reasons?: readonly ReferralReason[];
  close: () => void;
}) {
  const session = useSession();
  const { person } = live.course.episode;
  const [text, setText] = useState(() =>
    referralLetter({
      clinic: session.data?.clinic.name ?? '',
      phone: session.data?.clinic.phone ?? '',
      day: longDay(live.visit.startedAt),
      person: person.name,
      born: person.birthDate === null ? null : fullDay(person.birthDate),
      author: session.data?.user.name ?? '',
      complaint: `${live.conditionName}, ${live.affected === 'both' ? 'both sides' : live.affected}`,
      signs,
      reasons,
      thought: thoughtOf(live),
      findings: findingsOf(live),
    }),
  );
  const [copied, setCopied] = useState(false);
  return (
    <Dialog.Root open onOpenChange={(open) => !open && close()}>
      <Dialog.Portal>
        <Dialog.Overlay className="no-print fixed inset-0 z-40 bg-ink/30" />
        <Dialog.Content
          className="fixed left-1/2 top-1/2 z-50 w-[44rem] max-w-[94vw] -translate-x-1/2 -translate-y-1/2 rounded-xl bg-paper p-6 shadow-2xl print:static print:w-auto print:translate-x-0 print:translate-y-0 print:shadow-none"
          aria-describedby={undefined}
        >
          <Dialog.Title asChild>
            <h2 className="no-print">Referral letter</h2>
          </Dialog.Title>
          <p className="no-print text-sm text-ink-2">
            Prepared from what was found. Read it, change it, send it by your clinic’s own way.
          </p>
          <textarea
            aria-label="Text of the letter"
            className="mt-3 h-96 w-full rounded border border-line bg-paper p-3 leading-6 print:hidden"
            value={text}
            maxLength={10_000}
            onChange={(e) => {
              setText(e.target.value);
              setCopied(false);
            }}
          />
          <pre className="hidden whitespace-pre-wrap font-body print:block">{text}</pre>
          <div className="no-print mt-3 flex gap-3">
            <button
              type="button"
              className="action"
              onClick={() => void navigator.clipboard.writeText(text).then(() => setCopied(true))}
            >
              {copied ? 'Copied' : 'Copy'}
            </button>
            <button type="button" className="action-quiet" onClick={() => window.print()}>
              Print
            </button>
            <button type="button" className="action-quiet" onClick={close}>
              Close
            </button>
          </div>
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
  );
}
