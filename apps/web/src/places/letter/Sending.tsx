import { localDay, openGaps, say } from '@heathstep/core';
import { useMutation } from '@tanstack/react-query';
import { type SyntheticEvent, useState } from 'react';
import {
  LETTER_WAY_WORDS,
  LETTER_WAYS,
  type LetterPageView,
  type LetterText,
  type LetterWay,
} from '@heathstep/contracts';
import { ApiError, request } from '../../api/client.js';
import { useSession } from '../../api/queries.js';
import { FieldNote, Refusal, SelectField, TextField } from '../../parts/fields.js';

/** Why it cannot go out as it is typed now; null where it can. */
function notYet(page: LetterPageView, { to, opening, closing }: LetterText): string | null {
  if (to.trim() === '') return say('Write to whom it goes, then it can be printed and noted as sent.');
  const [gap] = openGaps(`${opening}\n${closing}`);
  if (gap !== undefined) return say('Nothing has filled {{gap}} yet', { gap });
  // What the server said of the text as it stood then; of the complaint it still holds.
  return page.not !== null && page.text.to.trim() !== '' ? page.not : null;
}

interface SendingProps {
  readonly page: LetterPageView;
  readonly text: LetterText;
  readonly saved: boolean;
  readonly version: number;
  readonly sent: (now: LetterPageView) => Promise<void>;
  /** The record changed since it was shown: this is what stands now. */
  readonly seen: (now: LetterPageView) => void;
}

/** Printing a letter, and noting that it went out. Nothing is sent from here: that is the clinic's own way. */
export function Sending(props: SendingProps) {
  const { page, text, saved } = props;
  const not = notYet(page, text);
  return (
    <section aria-label={say('Print and send')} className="mt-5 border-t border-line pt-4">
      <div className="flex flex-wrap gap-3">
        <button type="button" className="action-quiet" onClick={() => window.print()}>
          {say('Print')}
        </button>
        {saved && (
          <a
            href={`/api/letters/${page.letter.id}/letter.pdf`}
            target="_blank"
            rel="noreferrer"
            className="action-quiet"
          >
            {say('As a PDF')}
          </a>
        )}
      </div>
      {not === null ? <NoteSent {...props} /> : <p className="mt-3 text-sm text-ink-2">{not}</p>}
    </section>
  );
}

function NoteSent({ page, saved, version, sent, seen }: SendingProps) {
  const session = useSession();
  const [way, setWay] = useState<LetterWay | ''>('');
  const today = localDay(new Date(), session.data?.clinic.timeZone ?? 'UTC');
  const [on, setOn] = useState(today);
  const [missing, setMissing] = useState(false);
  const [allTheSame, setAllTheSame] = useState(false);
  const note = useMutation({
    mutationFn: (chosen: LetterWay) =>
      request<LetterPageView>('POST', `/api/letters/${page.letter.id}/sent`, {
        version,
        mark: page.mark,
        way: chosen,
        on,
        ...(allTheSame ? { allTheSame } : {}),
      }),
    onSuccess: sent,
    onError: (error) => {
      const current =
        error instanceof ApiError ? (error.problem.current as LetterPageView | undefined) : undefined;
      if (current !== undefined) seen(current);
    },
  });
  const wrong = note.error instanceof ApiError ? note.error : null;
  const submit = (event: SyntheticEvent): void => {
    event.preventDefault();
    setMissing(way === '');
    if (way !== '' && !note.isPending) note.mutate(way);
  };
  return (
    <form className="mt-3 grid grid-cols-2 items-start gap-3" onSubmit={submit} noValidate>
      <SelectField
        label={say('It went out')}
        value={way}
        onChange={(v) => {
          setWay(v as LetterWay | '');
          setMissing(false);
        }}
        options={[['', say('choose how')], ...LETTER_WAYS.map((w) => [w, say(LETTER_WAY_WORDS[w])] as const)]}
        error={missing ? say('Choose how it went out') : (wrong?.at('/way') ?? null)}
      />
      <TextField
        label={say('On')}
        type="date"
        max={today}
        value={on}
        onChange={setOn}
        error={wrong?.at('/on') ?? null}
      />
      {page.refused && (
        <AllTheSame on={allTheSame} set={setAllTheSame} wrong={wrong?.at('/allTheSame') ?? null} />
      )}
      <div className="col-span-full">
        <button type="submit" className="action" disabled={!saved || note.isPending}>
          {say('Note as sent')}
        </button>
        <p className="mt-1 text-sm text-ink-2">
          {say('Nothing is sent from here. From then on the letter stays as it is read at the side.')}
        </p>
        <FieldNote text={wrong?.status === 409 ? wrong.message : null} />
        {wrong?.status !== 409 && <Refusal error={wrong} />}
      </div>
    </form>
  );
}

/** They said no to letters: one that has to go out all the same, as to an emergency department, says so. */
function AllTheSame({ on, set, wrong }: { on: boolean; set: (on: boolean) => void; wrong: string | null }) {
  return (
    <div className="col-span-full border-l-2 border-ease bg-ease-wash px-3 py-2">
      <label className="flex min-h-11 items-center gap-2">
        <input type="checkbox" className="size-5" checked={on} onChange={(e) => set(e.target.checked)} />
        {say('They do not agree to letters; it goes out all the same, as it has to')}
      </label>
      <FieldNote text={wrong} />
    </div>
  );
}
