import { EQUIPMENT } from '@heathstep/contracts';
import { CHANGES, EXERCISE_PARTS, TAGS } from '@heathstep/core';
import type { ApiError } from '../../../api/client.js';
import type { ClinicContent } from '../../../api/queries.js';
import { type Options, SelectField, Several, TextArea, TextField } from '../../../parts/fields.js';
import { errorsAt } from './errorsAt.js';
import type { ListField, TextField as TextKey, Typed } from './typed.js';

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
  const put = (field: TextKey, value: string) =>
    onChange({ ...typed, text: { ...typed.text, [field]: value } });
  const at = (field: string) => errorsAt(error, `/file/exercise/${field}`);
  const of = (field: TextKey, label: string) => ({
    label,
    error: at(field),
    value: typed.text[field],
    onChange: (value: string) => put(field, value),
  });
  const line = (field: TextKey, label: string, hint = '', wide = false) => (
    <TextField {...of(field, label)} placeholder={hint} wide={wide} />
  );
  const lines = (field: TextKey, label: string, rows: number) => (
    <TextArea {...of(field, label)} rows={rows} wide />
  );
  const several = (field: ListField, label: string, options: Options) => (
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
      <SelectField {...of('aim', 'Aim')} options={plain(AIMS)} />
      <SelectField
        {...of('sides', 'Feet')}
        options={[
          ['each', 'one side at a time'],
          ['together', 'both feet at once'],
        ]}
      />
      <TextField {...of('position', 'Position')} list="positions" maxLength={100} />
      <datalist id="positions">
        {POSITIONS.map((p) => (
          <option key={p} value={p} />
        ))}
      </datalist>
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
      <ComesAfter at={at} typed={typed} content={content} onChange={onChange} />
      {line('change', 'What is harder then', 'a higher step')}
      {typed.lists.after.length > 0 && several('changes', 'Kind of change', plain(CHANGES))}
      {line('surface', 'Surface', 'firm and dry')}
      {line('space', 'Room it takes', 'where you are')}
      {line('source', 'Where it comes from', 'Agreed in the team')}
      <SelectField {...of('kind', 'Kind of source')} options={plain(KINDS)} />
    </section>
  );
}

/** Which exercise it is a step up from. */
function ComesAfter({
  at,
  typed,
  content,
  onChange,
}: {
  at: (field: string) => string | null;
  typed: Typed;
  content: ClinicContent;
  onChange: (typed: Typed) => void;
}) {
  return (
    <SelectField
      label="Comes after"
      error={at('after')}
      value={typed.lists.after[0] ?? ''}
      options={[
        ['', 'nothing'],
        ...content.exercises.filter((e) => e.ladder !== 'own').map((e) => [e.key, e.name] as const),
      ]}
      onChange={(key) => onChange({ ...typed, lists: { ...typed.lists, after: key === '' ? [] : [key] } })}
    />
  );
}
