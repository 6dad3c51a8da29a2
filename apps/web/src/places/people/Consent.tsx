import { say } from '@heathstep/core';
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { type SyntheticEvent, useRef, useState } from 'react';
import {
  CONSENT_KINDS,
  CONSENT_MEANS,
  CONSENT_WAY_WORDS,
  CONSENT_WAYS,
  CONSENT_WORDS,
  type ConsentKind,
  type ConsentsView,
  type ConsentView,
  type ConsentWay,
  standingConsent,
} from '@heathstep/contracts';
import { ApiError, request } from '../../api/client.js';
import { fullDay } from '../../parts/dates.js';
import { Refusal, SelectField, SendOrLeave, TextField } from '../../parts/fields.js';
import { RadioRow } from '../../parts/RadioRow.js';

const saidWords = (c: ConsentView): string =>
  say('{{answer}}, {{way}} on {{day}}, noted by {{by}}{{note}}', {
    answer: c.given ? say('yes') : say('no'),
    way: say(CONSENT_WAY_WORDS[c.way]),
    day: fullDay(c.on),
    by: c.by,
    note: c.note === '' ? '' : `: ${c.note}`,
  });

/** What someone agrees to and what not: what stands of each, and what was told before. */
export function Consent({ personId, today }: { personId: string; today: string }) {
  const key = ['consents', personId] as const;
  const client = useQueryClient();
  const [about, setAbout] = useState<ConsentKind | null>(null);
  const consents = useQuery({
    queryKey: key,
    queryFn: () => request<ConsentsView>('GET', `/api/people/${personId}/consents`),
  });
  const told = consents.data?.told ?? [];
  const no = CONSENT_KINDS.filter((k) => standingConsent(told, k)?.given === false);
  return (
    <details className="no-print mt-4">
      <summary className="min-h-11 cursor-pointer content-center text-ink-2">
        {say('Consent')}
        {no.length > 0 && (
          <b className="ml-2 text-ease-deep">
            {say('no to: {{list}}', { list: no.map((k) => say(CONSENT_WORDS[k])).join(', ') })}
          </b>
        )}
      </summary>
      {consents.error !== null && (
        <p role="alert" className="text-ease-deep">
          {say('What was agreed to cannot be read now.')}
        </p>
      )}
      <ul className="border-t border-line">
        {CONSENT_KINDS.map((kind) => {
          const stands = standingConsent(told, kind);
          const before = told.filter((c) => c.kind === kind).slice(1);
          return (
            <li key={kind} className="border-b border-line py-2">
              <div className="flex flex-wrap items-baseline gap-x-4">
                <span className="font-semibold">{say(CONSENT_WORDS[kind])}</span>
                <span
                  className={`min-w-0 flex-1 ${stands?.given === false ? 'text-ease-deep' : 'text-ink-2'}`}
                >
                  {stands === null ? say('not asked') : saidWords(stands)}
                </span>
                {about !== kind && (
                  <button
                    type="button"
                    className="text-action min-h-9"
                    aria-label={say('Note: {{what}}', { what: say(CONSENT_WORDS[kind]) })}
                    onClick={() => setAbout(kind)}
                  >
                    {say('Note')}
                  </button>
                )}
              </div>
              {before.length > 0 && (
                <p className="text-sm text-ink-3">
                  {say('Before: {{list}}', { list: before.map(saidWords).join('; ') })}
                </p>
              )}
              {about === kind && (
                <Tell
                  personId={personId}
                  kind={kind}
                  today={today}
                  leave={() => setAbout(null)}
                  done={(now) => {
                    client.setQueryData(key, now);
                    setAbout(null);
                  }}
                />
              )}
            </li>
          );
        })}
      </ul>
    </details>
  );
}

const ANSWERS = [
  { value: 'yes', word: say('yes') },
  { value: 'no', word: say('no') },
] as const;

function Tell({
  personId,
  kind,
  today,
  leave,
  done,
}: {
  personId: string;
  kind: ConsentKind;
  today: string;
  leave: () => void;
  done: (now: ConsentsView) => void;
}) {
  const id = useRef(crypto.randomUUID());
  const [answer, setAnswer] = useState<'yes' | 'no' | null>(null);
  const [way, setWay] = useState<ConsentWay>('spoken');
  const [on, setOn] = useState(today);
  const [note, setNote] = useState('');
  const tell = useMutation({
    mutationFn: () =>
      request<ConsentsView>('POST', `/api/people/${personId}/consents`, {
        id: id.current,
        kind,
        given: answer === 'yes',
        way,
        on,
        note,
      }),
    onSuccess: done,
  });
  const wrong = tell.error instanceof ApiError ? tell.error : null;
  const submit = (event: SyntheticEvent): void => {
    event.preventDefault();
    if (answer !== null && !tell.isPending) tell.mutate();
  };
  return (
    <form className="mt-2 grid gap-3 sm:grid-cols-3" onSubmit={submit} noValidate>
      <RadioRow
        label={say('What they said')}
        className="col-span-full flex gap-3"
        value={answer}
        options={ANSWERS}
        onChange={setAnswer}
        itemClass={(_, chosen) =>
          `min-h-11 min-w-20 rounded-lg border-2 px-4 font-semibold ${chosen ? 'border-heather bg-heather-wash text-heather-deep' : 'border-line hover:border-heather'}`
        }
      />
      <SelectField
        label={say('How')}
        value={way}
        onChange={(w) => setWay(w as ConsentWay)}
        options={CONSENT_WAYS.map((w) => [w, say(CONSENT_WAY_WORDS[w])] as const)}
        error={wrong?.at('/way') ?? null}
      />
      <TextField
        label={say('On')}
        type="date"
        max={today}
        value={on}
        onChange={setOn}
        error={wrong?.at('/on') ?? null}
      />
      <TextField
        label={say('Note')}
        maxLength={200}
        value={note}
        onChange={setNote}
        error={wrong?.at('/note') ?? null}
      />
      <p className="col-span-full text-sm text-ink-2">{say(CONSENT_MEANS[kind])}</p>
      <div className="col-span-full">
        <Refusal error={wrong} />
        <SendOrLeave
          send={say('Note it')}
          leave={say('Not now')}
          disabled={answer === null || tell.isPending}
          onLeave={leave}
        />
      </div>
    </form>
  );
}
