import { addDays, say } from '@heathstep/core';
import { useQueryClient } from '@tanstack/react-query';
import { Clock } from 'lucide-react';
import { Popover } from 'radix-ui';
import { type SyntheticEvent, useState } from 'react';
import { type DayItem, MAY_BE_SET_ASIDE } from '@heathstep/contracts';
import { ApiError, request } from '../../api/client.js';
import { keys } from '../../api/queries.js';
import { shortDay } from '../../parts/dates.js';
import { FieldNote, Refusal, TextField } from '../../parts/fields.js';
import { Pane } from '../../parts/Pane.js';

const DAYS = [1, 3, 7, 14] as const;

/** Whether a row may be set aside at all: a stop never. */
export const mayWait = (item: DayItem): boolean =>
  (MAY_BE_SET_ASIDE as readonly string[]).includes(item.kind);

/** Sets a row aside until a day, with the reason. */
export function Later({ item, today }: { item: DayItem; today: string }) {
  const [open, setOpen] = useState(false);
  return (
    <Popover.Root open={open} onOpenChange={setOpen}>
      <Popover.Trigger
        aria-label={say('Set {{name}} aside', { name: item.name })}
        className="grid min-h-11 min-w-11 place-items-center self-center rounded text-ink-3 hover:bg-heather-wash hover:text-heather-deep"
      >
        <Clock className="size-4" aria-hidden />
      </Popover.Trigger>
      <Pane aria-label={say('Set {{name}} aside', { name: item.name })} align="end" className="w-80 p-4">
        <LaterForm item={item} today={today} close={() => setOpen(false)} />
      </Pane>
    </Popover.Root>
  );
}

function LaterForm({ item, today, close }: { item: DayItem; today: string; close: () => void }) {
  const client = useQueryClient();
  const [id] = useState(() => crypto.randomUUID());
  const [days, setDays] = useState<number>(7);
  const [reason, setReason] = useState('');
  const [error, setError] = useState<ApiError | null>(null);
  const [busy, setBusy] = useState(false);
  const submit = async (event: SyntheticEvent) => {
    event.preventDefault();
    setBusy(true);
    setError(null);
    try {
      await request('POST', '/api/day/asides', {
        id,
        personId: item.personId,
        episodeId: item.episodeId,
        kind: item.kind,
        weight: item.weight,
        until: addDays(today, days),
        reason,
      });
      close();
      await client.invalidateQueries({ queryKey: keys.day });
    } catch (failure) {
      setError(failure instanceof ApiError ? failure : null);
    }
    setBusy(false);
  };
  return (
    <form onSubmit={(e) => void submit(e)} noValidate>
      <p className="font-semibold">{say('Set aside until')}</p>
      <div className="mt-2 grid grid-cols-4 gap-1" role="group" aria-label={say('Until')}>
        {DAYS.map((n) => (
          <button
            key={n}
            type="button"
            aria-pressed={days === n}
            className={`min-h-11 rounded border text-sm ${days === n ? 'border-heather bg-heather text-paper' : 'border-line'}`}
            onClick={() => setDays(n)}
          >
            {n === 1 ? say('tomorrow') : shortDay(addDays(today, n))}
          </button>
        ))}
      </div>
      <FieldNote text={error?.at('/until')} />
      <TextField
        className="mt-3"
        field="field w-full"
        label={say('Why')}
        value={reason}
        maxLength={200}
        autoFocus
        onChange={setReason}
        error={error?.at('/reason') ?? null}
        hint={say('It comes back sooner when it gets worse, and at once with a stop sign.')}
      />
      <Refusal error={error} />
      <button type="submit" className="action mt-3" disabled={busy}>
        {say('Set aside')}
      </button>
    </form>
  );
}

/** What is set aside, why and by whom; taken back with one press. */
export function TakeBack({ item }: { item: DayItem }) {
  const client = useQueryClient();
  const [failed, setFailed] = useState(false);
  const { aside } = item;
  if (aside === null) return null;
  const back = async () => {
    setFailed(false);
    try {
      await request('DELETE', `/api/day/asides/${aside.id}`);
      await client.invalidateQueries({ queryKey: keys.day });
    } catch {
      setFailed(true);
    }
  };
  return (
    <li className="flex flex-wrap items-center gap-x-4 border-b border-line px-2 py-2">
      <span className="font-semibold">{item.name}</span>
      <span className="text-ink-2">{item.headline}</span>
      <span className="flex-1 text-ink-2">
        {say('until {{day}}: {{reason}} ({{by}})', {
          day: shortDay(aside.until),
          reason: aside.reason,
          by: aside.by,
        })}
      </span>
      <button type="button" className="text-action min-h-11" onClick={() => void back()}>
        {say('Take back')}
      </button>
      {failed && <FieldNote text={say('That did not reach the server. Try again.')} />}
    </li>
  );
}
