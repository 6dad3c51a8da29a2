import { EQUIPMENT } from '@heathstep/contracts';
import { CHANGES, EXERCISE_PARTS, TAGS, say, sayKey } from '@heathstep/core';
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
  say('standing on a step'),
  'walking',
  'running',
  say('lying on the back'),
  say('lying on the side'),
  say('seated on the floor'),
];
const KINDS = [
  'convention',
  'guideline',
  'trial',
  say('cohort study'),
  say('reliability study'),
  say('modelling study'),
  'review',
];

const plain = (list: readonly string[]) => list.map((v) => [v, sayKey(v)] as const);

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
      {line('name', say('Name'), say('Heel raise on the stairs'), true)}
      <SelectField {...of('aim', say('Aim'))} options={plain(AIMS)} />
      <SelectField
        {...of('sides', say('Feet'))}
        options={[
          ['each', say('one side at a time')],
          ['together', say('both feet at once')],
        ]}
      />
      <TextField {...of('position', say('Position'))} list="positions" maxLength={100} />
      <datalist id="positions">
        {POSITIONS.map((p) => (
          <option key={p} value={p} />
        ))}
      </datalist>
      {line('place', say('Place'), say('a chair'))}
      {line(
        'moves',
        say('What moves, and what stays'),
        say('Both heels rise; the knees stay straight'),
        true,
      )}
      {lines('steps', say('Steps, one on each line, under 12 words'), 4)}
      {line('feel', say('Should feel'), say('Work in the calf'))}
      {line('breathing', say('Breathing, if it matters'))}
      {lines('faults', say('Faults, one on each line, what helps after a colon'), 3)}
      {lines('stops', say('Stop signs beyond sharp or rising pain, one on each line'), 2)}
      {several('parts', say('Body part'), plain(EXERCISE_PARTS))}
      {several('equipment', say('Needs'), plain(EQUIPMENT))}
      {several('tags', say('Switched off by the safety screen with'), plain(TAGS))}
      {several(
        'drivers',
        say('Helps with'),
        content.drivers.map((d) => [d.key, d.label.toLowerCase()] as const),
      )}
      <ComesAfter at={at} typed={typed} content={content} onChange={onChange} />
      {line('change', say('What is harder then'), say('a higher step'))}
      {typed.lists.after.length > 0 && several('changes', say('Kind of change'), plain(CHANGES))}
      {line('surface', say('Surface'), say('firm and dry'))}
      {line('space', say('Room it takes'), say('where you are'))}
      {line('source', say('Where it comes from'), say('Agreed in the team'))}
      <SelectField {...of('kind', say('Kind of source'))} options={plain(KINDS)} />
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
      label={say('Comes after')}
      error={at('after')}
      value={typed.lists.after[0] ?? ''}
      options={[
        ['', say('nothing')],
        ...content.exercises.filter((e) => e.ladder !== 'own').map((e) => [e.key, e.name] as const),
      ]}
      onChange={(key) => onChange({ ...typed, lists: { ...typed.lists, after: key === '' ? [] : [key] } })}
    />
  );
}
