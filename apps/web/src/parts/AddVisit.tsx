import { hoursOn, say, type WeekHours, withinHours } from '@heathstep/core';
import { type SyntheticEvent, useState } from 'react';
import type { AppointmentView, PersonRow } from '@heathstep/contracts';
import { ApiError, request } from '../api/client.js';
import { useSession } from '../api/queries.js';
import { FieldNote, Refusal, SendOrLeave, TextField } from './fields.js';
import { Window } from './Window.js';
import { WhoField } from './WhoField.js';

/** That a visit lies outside the hours of the clinic; null where it does not, or where not all is typed yet. */
function outsideWords(
  hours: WeekHours,
  visit: { readonly day: string; readonly time: string; readonly minutes: number },
): string | null {
  if (visit.day === '' || visit.time === '' || !(visit.minutes > 0) || withinHours(hours, visit)) return null;
  const on = hoursOn(hours, visit.day);
  return on == null
    ? say('The clinic is closed on this day of the week.')
    : say('Outside the hours of the clinic, {{from}} to {{to}} on this day.', { from: on.from, to: on.to });
}

function Outside({ day, time, minutes }: { day: string; time: string; minutes: string }) {
  const hours = useSession().data?.clinic.defaults.hours ?? [];
  return (
    <p role="status" className="text-sm text-hold-deep">
      {outsideWords(hours, { day, time, minutes: Number(minutes.replace(',', '.')) }) ?? ''}
    </p>
  );
}

/** A whole half hour, as most visits are. */
const USUAL_MINUTES = '30';

/** Plans a visit: who, when, how long. */
export function AddVisit(props: AddVisitProps) {
  return (
    <Window title={say('Plan a visit')} close={props.cancel}>
      <Form {...props} />
    </Window>
  );
}

interface AddVisitProps {
  readonly day: string;
  /** Known already; else they are found by name. */
  readonly who?: Pick<PersonRow, 'id' | 'name'>;
  readonly done: () => unknown;
  readonly cancel: () => void;
}

function Form({ day: first, who: known, done, cancel }: AddVisitProps) {
  const [id] = useState(() => crypto.randomUUID());
  const [who, setWho] = useState<Pick<PersonRow, 'id' | 'name'> | null>(known ?? null);
  const [day, setDay] = useState(first);
  const [time, setTime] = useState('');
  const [minutes, setMinutes] = useState(USUAL_MINUTES);
  const [note, setNote] = useState('');
  const [error, setError] = useState<ApiError | null>(null);
  const [busy, setBusy] = useState(false);
  const submit = async (event: SyntheticEvent) => {
    event.preventDefault();
    setBusy(true);
    setError(null);
    try {
      await request<AppointmentView>('POST', '/api/appointments', {
        id,
        personId: who?.id ?? '',
        day,
        time,
        minutes: Number(minutes.replace(',', '.')),
        note,
      });
      await done();
    } catch (failure) {
      setError(failure instanceof ApiError ? failure : null);
    }
    setBusy(false);
  };
  return (
    <form className="mt-3 space-y-3" onSubmit={(e) => void submit(e)} noValidate>
      {who === null ? (
        <div>
          <p className="text-sm text-ink-2">{say('Who')}</p>
          <WhoField choose={setWho} />
        </div>
      ) : (
        <p>
          <b>{who.name}</b>{' '}
          <button type="button" className="text-action ml-2 min-h-11 text-sm" onClick={() => setWho(null)}>
            {say('someone else')}
          </button>
        </p>
      )}
      <FieldNote text={error?.at('/personId')} />
      <div className="grid grid-cols-3 gap-3 max-sm:grid-cols-1">
        <TextField
          label={say('Day')}
          type="date"
          field="field w-full"
          value={day}
          onChange={setDay}
          error={error?.at('/day') ?? null}
        />
        <TextField
          label={say('Time')}
          type="time"
          field="field w-full"
          value={time}
          onChange={setTime}
          error={error?.at('/time') ?? null}
        />
        <TextField
          label={say('Minutes')}
          inputMode="numeric"
          field="field w-full"
          value={minutes}
          onChange={setMinutes}
          error={error?.at('/minutes') ?? null}
        />
      </div>
      <TextField
        label={say('Note')}
        field="field w-full"
        maxLength={200}
        value={note}
        onChange={setNote}
        error={error?.at('/note') ?? null}
      />
      <Outside day={day} time={time} minutes={minutes} />
      <Refusal error={error} />
      <SendOrLeave
        send={say('Plan it')}
        leave={say('Leave it')}
        disabled={busy || who === null}
        onLeave={cancel}
      />
    </form>
  );
}
