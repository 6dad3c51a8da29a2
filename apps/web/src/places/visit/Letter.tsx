import { Dialog } from 'radix-ui';
import { useState } from 'react';
import { Link } from 'react-router';
import { readThreshold, type ReferralReason, referralLetter, type TriggeredRule, say } from '@heathstep/core';
import { useSession } from '../../api/queries.js';
import { fullDay } from '../../parts/dates.js';
import { concludedIdeas, type SessionView } from '@heathstep/contracts';
import { ideasOf } from './findings/ideas.js';
import { columnsOf, type LiveVisit } from './live.js';
import { readingLines, storyLines } from './record/words.js';

/** What was measured, both sides, with what a threshold says of it; a line each. */
function measuredOf(live: LiveVisit): string[] {
  const says = new Map(
    live.measures.map((m) => [
      m.label,
      columnsOf(m).flatMap((side) => {
        const value = live.value(m, side);
        const reading = value === null ? null : readThreshold(m, value, live.ageYears);
        if (reading === null || reading.meaning === 'usual') return [];
        return [side === 'none' ? reading.meaning : `${say(side)} ${reading.meaning}`];
      }),
    ]),
  );
  return readingLines(live).map((r) => {
    const sides = [
      r.single,
      r.left === '' ? '' : say('left {{left}}', { left: r.left }),
      r.right === '' ? '' : say('right {{right}}', { right: r.right }),
    ];
    const meaning = says.get(r.label) ?? [];
    return `${r.label}: ${sides.filter((t) => t !== '').join(', ')}${meaning.length === 0 ? '' : ` (${meaning.join('; ')})`}`;
  });
}

/** What was told, with the days since it began where they are known. */
function historyOf(live: LiveVisit): string[] {
  const days = live.daysSinceOnset;
  return [
    ...storyLines(live).map(([what, said]) => `${what}: ${said}`),
    ...(days === null ? [] : [say('Days since it began: {{days}}', { days })]),
  ];
}

/** Tests of the safety screen that were made and found nothing. */
const clearOf = (live: LiveVisit): string[] =>
  live.content.safetyQuestions
    .filter((q) => q.how === 'test' && live.store.get(`safety.${q.key}`) === 'no')
    .map((q) => q.text);

/** What the clinician concluded, or what ranks first while nothing is concluded. */
function thoughtOf(live: LiveVisit): string[] {
  const nameOf = (key: string) => live.content.conditions.find((c) => c.key === key)?.name ?? key;
  const on = (side: string) => (side === 'none' ? '' : `, ${say(side)}`);
  const concluded = concludedIdeas(live.readings.entries);
  if (concluded.length > 0) return concluded.map((i) => `${nameOf(i.condition)}${on(i.side)}`);
  return ideasOf(live.reasoning(), live.content.conditions)
    .slice(0, 3)
    .map((i) => `${i.condition.name}${on(i.ranked.side)} (${i.ranked.rank})`);
}

/** The letter as it would be begun now, of what was found and what has to be seen by someone else. */
function preparedFor(
  live: LiveVisit,
  session: SessionView | undefined,
  {
    signs,
    reasons,
  }: { readonly signs: readonly TriggeredRule[]; readonly reasons: readonly ReferralReason[] },
): string {
  const { person } = live.course.episode;
  return referralLetter({
    clinic: session?.clinic.name ?? '',
    phone: session?.clinic.phone ?? '',
    // A letter is read long after: its day has a year.
    day: fullDay(live.visit.startedAt),
    person: person.name,
    born: person.birthDate === null ? null : fullDay(person.birthDate),
    author: session?.user.name ?? '',
    registration: session?.user.registration ?? null,
    complaint: `${live.conditionName}, ${live.affected === 'both' ? say('both sides') : live.affected}`,
    history: historyOf(live),
    signs,
    asked: clearOf(live),
    reasons,
    thought: thoughtOf(live),
    findings: measuredOf(live),
  });
}

/** A referral letter prepared from the open signs; read and changed by the clinician before it goes. */
export function Letter({
  live,
  of,
  signs,
  reasons = [],
  close,
}: {
  live: LiveVisit;
  /** Which of the visit's letters: edits of each are kept with the visit. */
  of: 'letter.safety' | 'letter.conclude';
  signs: readonly TriggeredRule[];
  reasons?: readonly ReferralReason[];
  close: () => void;
}) {
  const session = useSession();
  const prepared = preparedFor(live, session.data, { signs, reasons });
  const kept = live.get(of);
  const text = kept ?? prepared;
  const signed = live.visit.signedAt !== null;
  const [copied, setCopied] = useState(false);
  return (
    <Dialog.Root open onOpenChange={(open) => !open && close()}>
      <Dialog.Portal>
        <Dialog.Overlay className="no-print fixed inset-0 z-40 bg-scrim" />
        <Dialog.Content
          className="fixed left-1/2 top-1/2 z-50 w-[44rem] max-w-[94vw] -translate-x-1/2 -translate-y-1/2 rounded-xl bg-paper p-6 shadow-2xl print:static print:w-auto print:translate-x-0 print:translate-y-0 print:shadow-none"
          aria-describedby={undefined}
        >
          <Dialog.Title asChild>
            <h2 className="no-print">{say('Referral letter')}</h2>
          </Dialog.Title>
          <p className="no-print text-sm text-ink-2">
            {kept === null
              ? say('Prepared from what was found. Read it, change it, send it by your clinic’s own way.')
              : say('As you left it; it is kept with this visit. What was found since is not in it.')}
          </p>
          <p className="no-print text-sm text-ink-2">
            {say('To keep it as a PDF and note it as sent, write it with what the record shows:')}{' '}
            <Link to={`/episodes/${live.course.episode.id}/letters`} className="text-action">
              {say('Letters')}
            </Link>
          </p>
          <textarea
            aria-label={say('Text of the letter')}
            className="mt-3 h-96 w-full rounded border border-line bg-paper p-3 leading-6 print:hidden"
            value={text}
            maxLength={10_000}
            readOnly={signed}
            onChange={(e) => {
              live.set(of, e.target.value);
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
              {copied ? say('Copied') : say('Copy')}
            </button>
            <button type="button" className="action-quiet" onClick={() => window.print()}>
              {say('Print')}
            </button>
            {kept !== null && !signed && (
              <button type="button" className="action-quiet" onClick={() => live.set(of, null)}>
                {say('Prepare anew')}
              </button>
            )}
            <button type="button" className="action-quiet" onClick={close}>
              {say('Close')}
            </button>
          </div>
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
  );
}
