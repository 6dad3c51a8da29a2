import { COUNTED, LOAD_KINDS, say } from '@heathstep/core';
import type { ApiError } from '../../../api/client.js';
import { FieldNote, SelectField, TextField } from '../../../parts/fields.js';
import { errorsAt } from './errorsAt.js';
import type { RangeField, TextField as TextKey, Typed } from './typed.js';

const ROWS: readonly (readonly [field: RangeField, label: string, of: 'tempo' | 'hold' | 'both'])[] = [
  ['sets', say('sets'), 'both'],
  ['reps', say('repetitions or holds in a set'), 'both'],
  ['up', say('seconds out'), 'tempo'],
  ['top', say('seconds at the end'), 'tempo'],
  ['down', say('seconds back'), 'tempo'],
  ['hold', say('seconds of a hold'), 'hold'],
  ['rest', say('seconds of rest'), 'both'],
  ['kg', say('kg added, if any'), 'both'],
  ['day', say('times a day'), 'both'],
  ['week', say('days a week'), 'both'],
];

/** The dose to begin with, and the range a clinician can set in place. */
export function DoseForm({
  typed,
  error,
  onChange,
}: {
  typed: Typed;
  error: ApiError | null;
  onChange: (typed: Typed) => void;
}) {
  const put = (field: TextKey, value: string) =>
    onChange({ ...typed, text: { ...typed.text, [field]: value } });
  const span = (field: RangeField, end: 0 | 1, value: string) => {
    const [min, max] = typed.range[field];
    onChange({
      ...typed,
      range: { ...typed.range, [field]: end === 0 ? [value, max] : [min, value] },
    });
  };
  const number = (label: string, value: string, change: (value: string) => void) => (
    <input
      className="field w-16 text-right"
      inputMode="decimal"
      aria-label={label}
      value={value}
      maxLength={6}
      onChange={(e) => change(e.target.value)}
    />
  );
  const { way } = typed.text;
  return (
    <section className="mt-4">
      <h2 className="text-lg">{say('Dose')}</h2>
      <HowDone way={way} put={put} error={error} typed={typed} />
      <table className="mt-2">
        <thead className="text-left text-sm text-ink-2">
          <tr>
            <th className="font-normal"> </th>
            <th className="font-normal">{say('begin with')}</th>
            <th className="px-3 font-normal">{say('from')}</th>
            <th className="font-normal">{say('to')}</th>
          </tr>
        </thead>
        <tbody>
          {ROWS.filter(([, , of]) => of === 'both' || of === way).map(([field, label]) => (
            <tr key={field}>
              <td className="pr-4">
                {label}
                <FieldNote text={errorsAt(error, `/file/exercise/range/${field}`)} />
                <FieldNote text={errorsAt(error, `/file/exercise/dose/${field}`)} />
              </td>
              <td>
                {number(say('{{label}}, to begin with', { label }), typed.text[field], (v) => put(field, v))}
              </td>
              <td className="px-3">
                {number(say('{{label}}, at least', { label }), typed.range[field][0], (v) =>
                  span(field, 0, v),
                )}
              </td>
              <td>
                {number(say('{{label}}, at most', { label }), typed.range[field][1], (v) =>
                  span(field, 1, v),
                )}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
      <FieldNote text={error?.at('/file/exercise/dose')} />
    </section>
  );
}

/** In what it is done and counted, what loads it and how long it takes to set up. */
function HowDone({
  way,
  put,
  error,
  typed,
}: {
  way: string;
  put: (field: TextKey, value: string) => void;
  error: ApiError | null;
  typed: Typed;
}) {
  return (
    <div className="grid grid-cols-2 gap-x-5 gap-y-2">
      <SelectField
        label={say('Done as')}
        value={way}
        options={[
          ['tempo', say('repetitions with a tempo')],
          ['hold', say('holds')],
        ]}
        onChange={(value) => put('way', value)}
      />
      <SelectField
        label={say('Counted in')}
        error={errorsAt(error, '/file/exercise/counted')}
        value={typed.text.counted}
        options={[
          ['', way === 'hold' ? say('holds') : say('repetitions')],
          ...COUNTED.filter((c) => c !== 'reps' && c !== 'holds').map((c) => [c, say(c)] as const),
        ]}
        onChange={(value) => put('counted', value)}
      />
      <SelectField
        label={say('Load')}
        error={errorsAt(error, '/file/exercise/loadKind')}
        value={typed.text.loadKind}
        options={[['', say('by its tags')], ...LOAD_KINDS.map((k) => [k, say(k)] as const)]}
        onChange={(value) => put('loadKind', value)}
      />
      <TextField
        label={say('Set-up, seconds')}
        error={errorsAt(error, '/file/exercise/setup')}
        inputMode="numeric"
        maxLength={4}
        value={typed.text.setup}
        onChange={(value) => put('setup', value)}
      />
    </div>
  );
}
