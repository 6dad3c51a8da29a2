import { say, type WeekHours } from '@heathstep/core';
import { useMutation, useQueryClient } from '@tanstack/react-query';
import { type SyntheticEvent, useState } from 'react';
import {
  type ClinicDefaults,
  LEAST_PAIN_SCHOOLS,
  LEAST_PAIN_WORDS,
  type LeastPainSchool,
  LOCK_MINUTES,
  type LockMinutes,
  type SessionView,
} from '@heathstep/contracts';
import { ApiError, request } from '../../api/client.js';
import { keys } from '../../api/queries.js';
import { FieldNote, Refusal, SelectField, TextArea, TextField } from '../../parts/fields.js';

const WEEKDAYS = [
  say('Monday'),
  say('Tuesday'),
  say('Wednesday'),
  say('Thursday'),
  say('Friday'),
  say('Saturday'),
  say('Sunday'),
];

const USUAL = { from: '08:00', to: '18:00' };

/** What holds for all work of the clinic: locking, the second step, the pain rule, hours, and what stands on its papers. */
export function ClinicRules({ clinic }: { clinic: SessionView['clinic'] }) {
  const client = useQueryClient();
  const [rules, setRules] = useState<ClinicDefaults>(clinic.defaults);
  const save = useMutation({
    mutationFn: () => request<ClinicDefaults>('PUT', '/api/clinic/defaults', rules),
    onSuccess: () => client.invalidateQueries({ queryKey: keys.session }),
  });
  const wrong = save.error instanceof ApiError ? save.error : null;
  const set = (change: Partial<ClinicDefaults>): void => {
    save.reset();
    setRules({ ...rules, ...change });
  };
  const submit = (event: SyntheticEvent): void => {
    event.preventDefault();
    if (!save.isPending) save.mutate();
  };
  return (
    <form className="mt-5 grid max-w-3xl gap-x-8 gap-y-5 sm:grid-cols-2" onSubmit={submit} noValidate>
      <SelectField
        label={say('Pages are locked after')}
        hint={say('without a key or a touch; the password opens them again as they were')}
        value={String(rules.lockMinutes)}
        onChange={(v) => set({ lockMinutes: Number(v) as LockMinutes })}
        options={LOCK_MINUTES.map(
          (m) => [String(m), m === 0 ? say('never') : say('{{n}} minutes', { n: m })] as const,
        )}
        error={wrong?.at('/lockMinutes') ?? null}
      />
      <SelectField
        label={say('Pain rule, at least')}
        hint={say('a stage or a caution that is stricter stays so')}
        value={rules.painSchool}
        onChange={(v) => set({ painSchool: v as LeastPainSchool })}
        options={LEAST_PAIN_SCHOOLS.map((s) => [s, say(LEAST_PAIN_WORDS[s])] as const)}
        error={wrong?.at('/painSchool') ?? null}
      />
      <div className="col-span-full">
        <label className="flex min-h-11 items-center gap-2">
          <input
            type="checkbox"
            className="size-5"
            checked={rules.secondStep}
            onChange={(e) => set({ secondStep: e.target.checked })}
          />
          {say('Signing in asks everyone for a second step')}
        </label>
        <FieldNote text={wrong?.at('/secondStep')} />
      </div>
      <Papers rules={rules} wrong={wrong} set={set} />
      <Hours
        hours={rules.hours}
        wrongAt={(day) => wrong?.at(`/hours/${String(day)}`) ?? null}
        onChange={(hours) => set({ hours })}
      />
      <p className="col-span-full text-sm text-ink-2">
        {say(
          'Schools, and criteria with their thresholds, are decided with a protocol of your own, in Exercises; thresholds of a measure with a measure of your own; bands with their calibration.',
        )}
      </p>
      <div className="col-span-full flex items-center gap-5">
        <button type="submit" className="action" disabled={save.isPending}>
          {say('Keep')}
        </button>
        <span role="status" className="text-ink-2">
          {save.isSuccess ? say('Kept.') : ''}
        </span>
        <Refusal error={wrong} />
      </div>
    </form>
  );
}

/** What stands on the papers of the clinic and on phones. */
function Papers({
  rules,
  wrong,
  set,
}: {
  rules: ClinicDefaults;
  wrong: ApiError | null;
  set: (change: Partial<ClinicDefaults>) => void;
}) {
  const text = (field: 'letterhead' | 'contact' | 'emergency') => ({
    value: rules[field],
    error: wrong?.at(`/${field}`) ?? null,
    onChange: (value: string) => set({ [field]: value }),
  });
  return (
    <>
      <TextArea
        label={say('Under the name of the clinic on letters')}
        hint={say('address, register, a line each')}
        rows={4}
        maxLength={400}
        {...text('letterhead')}
      />
      <div className="grid content-start gap-4">
        <TextField
          label={say('Beside the telephone, on handout and phone')}
          hint={say('for example when someone answers')}
          maxLength={160}
          {...text('contact')}
        />
        <TextField
          label={say('Beside the emergency number')}
          hint={say('for example where the nearest emergency department is')}
          maxLength={160}
          {...text('emergency')}
        />
      </div>
    </>
  );
}

/** When the clinic is open: told for the whole week, or not at all. */
function Hours({
  hours,
  wrongAt,
  onChange,
}: {
  hours: WeekHours;
  wrongAt: (day: number) => string | null;
  onChange: (hours: WeekHours) => void;
}) {
  const set = (day: number, to: WeekHours[number]) => onChange(hours.map((h, i) => (i === day ? to : h)));
  return (
    <fieldset className="col-span-full">
      <legend className="text-sm text-ink-2">{say('Hours of the clinic')}</legend>
      <label className="flex min-h-11 items-center gap-2">
        <input
          type="checkbox"
          className="size-5"
          checked={hours.length > 0}
          onChange={(e) =>
            onChange(e.target.checked ? [...Array.from({ length: 5 }, () => USUAL), null, null] : [])
          }
        />
        {say('A visit that is planned outside them says so')}
      </label>
      {hours.map((h, day) => {
        const name = WEEKDAYS[day] ?? '';
        return (
          <div key={name} className="flex flex-wrap items-center gap-x-4 border-t border-line-2 py-1">
            <label className="flex min-h-11 w-40 items-center gap-2">
              <input
                type="checkbox"
                className="size-5"
                checked={h !== null}
                onChange={(e) => set(day, e.target.checked ? USUAL : null)}
              />
              {name}
            </label>
            {h === null ? (
              <span className="text-ink-2">{say('closed')}</span>
            ) : (
              (['from', 'to'] as const).map((end) => (
                <input
                  key={end}
                  type="time"
                  className="field w-32"
                  aria-label={
                    end === 'from' ? say('{{day}} from', { day: name }) : say('{{day}} to', { day: name })
                  }
                  value={h[end]}
                  onChange={(e) => set(day, { ...h, [end]: e.target.value })}
                />
              ))
            )}
            <FieldNote text={wrongAt(day)} />
          </div>
        );
      })}
    </fieldset>
  );
}
