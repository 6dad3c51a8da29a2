import { EQUIPMENT } from '@heathstep/contracts';
import { CHANGES, EXERCISE_PARTS, TAGS } from '@heathstep/core';
import type { ApiError } from '../../../api/client.js';
import type { ClinicContent } from '../../../api/queries.js';
import { errorsAt, Field, Several } from './Field.js';
import type { ListField, TextField, Typed } from './typed.js';

const AIMS = [
  'skill',
  'endurance',
  'strength',
  'eccentric',
  'isometric',
  'range-static',
  'range-loaded',
  'balance',
  'impact',
  'relief',
  'aid',
] as const;
const POSITIONS = [
  'seated',
  'standing',
  'standing on a step',
  'walking',
  'running',
  'lying on the back',
  'lying on the side',
  'seated on the floor',
];
const KINDS = [
  'convention',
  'guideline',
  'trial',
  'cohort study',
  'reliability study',
  'modelling study',
  'review',
];

const plain = (list: readonly string[]) => list.map((v) => [v, v.replaceAll('-', ' ')] as const);

/** What the exercise is called, how it is done and what it is for. */
export function WordsForm({
  typed,
  content,
  error,
  onChange,
}: {
  typed: Typed;
  content: ClinicContent;
  error: ApiError | null;
  onChange: (typed: Typed) => void;
}) {
  const put = (field: TextField, value: string) =>
    onChange({ ...typed, text: { ...typed.text, [field]: value } });
  const at = (field: string) => errorsAt(error, `/file/exercise/${field}`);
  const line = (field: TextField, label: string, hint = '', wide = false) => (
    <Field label={label} error={at(field)} wide={wide}>
      <input
        className="field"
        value={typed.text[field]}
        placeholder={hint}
        maxLength={400}
        onChange={(e) => put(field, e.target.value)}
      />
    </Field>
  );
  const lines = (field: TextField, label: string, rows: number) => (
    <Field label={label} error={at(field)} wide>
      <textarea
        className="field w-full"
        rows={rows}
        value={typed.text[field]}
        maxLength={2000}
        onChange={(e) => put(field, e.target.value)}
      />
    </Field>
  );
  const choice = (field: TextField, label: string, options: readonly (readonly [string, string])[]) => (
    <Field label={label} error={at(field)}>
      <select className="field" value={typed.text[field]} onChange={(e) => put(field, e.target.value)}>
        {options.map(([v, name]) => (
          <option key={v} value={v}>
            {name}
          </option>
        ))}
      </select>
    </Field>
  );
  const several = (field: ListField, label: string, options: readonly (readonly [string, string])[]) => (
    <Several
      label={label}
      options={options}
      value={typed.lists[field]}
      error={at(field)}
      onChange={(value) => onChange({ ...typed, lists: { ...typed.lists, [field]: value } })}
    />
  );
  return (
    <section className="grid grid-cols-2 gap-x-5 gap-y-2">
      {line('name', 'Name', 'Heel raise on the stairs', true)}
      {choice('aim', 'Aim', plain(AIMS))}
      {choice('sides', 'Feet', [
        ['each', 'one side at a time'],
        ['together', 'both feet at once'],
      ])}
      <Field label="Position" error={at('position')}>
        <input
          className="field"
          list="positions"
          value={typed.text.position}
          maxLength={100}
          onChange={(e) => put('position', e.target.value)}
        />
        <datalist id="positions">
          {POSITIONS.map((p) => (
            <option key={p} value={p} />
          ))}
        </datalist>
      </Field>
      {line('place', 'Place', 'a chair')}
      {line('moves', 'What moves, and what stays', 'Both heels rise; the knees stay straight', true)}
      {lines('steps', 'Steps, one on each line, under 12 words', 4)}
      {line('feel', 'Should feel', 'Work in the calf')}
      {line('breathing', 'Breathing, if it matters')}
      {lines('faults', 'Faults, one on each line, what helps after a colon', 3)}
      {lines('stops', 'Stop signs beyond sharp or rising pain, one on each line', 2)}
      {several('parts', 'Body part', plain(EXERCISE_PARTS))}
      {several('equipment', 'Needs', plain(EQUIPMENT))}
      {several('tags', 'Switched off by the safety screen with', plain(TAGS))}
      {several(
        'drivers',
        'Helps with',
        content.drivers.map((d) => [d.key, d.label.toLowerCase()] as const),
      )}
      <Field label="Comes after" error={at('after')}>
        <select
          className="field"
          value={typed.lists.after[0] ?? ''}
          onChange={(e) =>
            onChange({
              ...typed,
              lists: { ...typed.lists, after: e.target.value === '' ? [] : [e.target.value] },
            })
          }
        >
          <option value="">nothing</option>
          {content.exercises
            .filter((e) => e.ladder !== 'own')
            .map((e) => (
              <option key={e.key} value={e.key}>
                {e.name}
              </option>
            ))}
        </select>
      </Field>
      {line('change', 'What is harder then', 'a higher step')}
      {typed.lists.after.length > 0 && several('changes', 'Kind of change', plain(CHANGES))}
      {line('surface', 'Surface', 'firm and dry')}
      {line('space', 'Room it takes', 'where you are')}
      {line('source', 'Where it comes from', 'Agreed in the team')}
      {choice('kind', 'Kind of source', plain(KINDS))}
    </section>
  );
}
