import { COUNTED, LOAD_KINDS } from '@heathstep/core';
import type { ApiError } from '../../../api/client.js';
import { errorsAt, Field } from './Field.js';
import type { RangeField, TextField, Typed } from './typed.js';

const ROWS: readonly (readonly [field: RangeField, label: string, of: 'tempo' | 'hold' | 'both'])[] = [
  ['sets', 'sets', 'both'],
  ['reps', 'repetitions or holds in a set', 'both'],
  ['up', 'seconds out', 'tempo'],
  ['top', 'seconds at the end', 'tempo'],
  ['down', 'seconds back', 'tempo'],
  ['hold', 'seconds of a hold', 'hold'],
  ['rest', 'seconds of rest', 'both'],
  ['kg', 'kg added, if any', 'both'],
  ['day', 'times a day', 'both'],
  ['week', 'days a week', 'both'],
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
  const put = (field: TextField, value: string) =>
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
      <h2 className="text-lg">Dose</h2>
      <div className="grid grid-cols-2 gap-x-5 gap-y-2">
        <Field label="Done as" error={null}>
          <select className="field" value={way} onChange={(e) => put('way', e.target.value)}>
            <option value="tempo">repetitions with a tempo</option>
            <option value="hold">holds</option>
          </select>
        </Field>
        <Field label="Counted in" error={errorsAt(error, '/file/exercise/counted')}>
          <select
            className="field"
            value={typed.text.counted}
            onChange={(e) => put('counted', e.target.value)}
          >
            <option value="">{way === 'hold' ? 'holds' : 'repetitions'}</option>
            {COUNTED.filter((c) => c !== 'reps' && c !== 'holds').map((c) => (
              <option key={c} value={c}>
                {c}
              </option>
            ))}
          </select>
        </Field>
        <Field label="Load" error={errorsAt(error, '/file/exercise/loadKind')}>
          <select
            className="field"
            value={typed.text.loadKind}
            onChange={(e) => put('loadKind', e.target.value)}
          >
            <option value="">by its tags</option>
            {LOAD_KINDS.map((k) => (
              <option key={k} value={k}>
                {k}
              </option>
            ))}
          </select>
        </Field>
        <Field label="Set-up, seconds" error={errorsAt(error, '/file/exercise/setup')}>
          <input
            className="field"
            inputMode="numeric"
            value={typed.text.setup}
            maxLength={4}
            onChange={(e) => put('setup', e.target.value)}
          />
        </Field>
      </div>
      <table className="mt-2">
        <thead className="text-left text-sm text-ink-2">
          <tr>
            <th className="font-normal"> </th>
            <th className="font-normal">begin with</th>
            <th className="px-3 font-normal">from</th>
            <th className="font-normal">to</th>
          </tr>
        </thead>
        <tbody>
          {ROWS.filter(([, , of]) => of === 'both' || of === way).map(([field, label]) => (
            <tr key={field}>
              <td className="pr-4">
                {label}
                {errorsAt(error, `/file/exercise/range/${field}`) !== null && (
                  <span role="alert" className="block text-sm text-ease-deep">
                    {errorsAt(error, `/file/exercise/range/${field}`)}
                  </span>
                )}
                {errorsAt(error, `/file/exercise/dose/${field}`) !== null && (
                  <span role="alert" className="block text-sm text-ease-deep">
                    {errorsAt(error, `/file/exercise/dose/${field}`)}
                  </span>
                )}
              </td>
              <td>{number(`${label}, to begin with`, typed.text[field], (v) => put(field, v))}</td>
              <td className="px-3">
                {number(`${label}, at least`, typed.range[field][0], (v) => span(field, 0, v))}
              </td>
              <td>{number(`${label}, at most`, typed.range[field][1], (v) => span(field, 1, v))}</td>
            </tr>
          ))}
        </tbody>
      </table>
      {error?.at('/file/exercise/dose') != null && (
        <p role="alert" className="text-sm text-ease-deep">
          {error.at('/file/exercise/dose')}
        </p>
      )}
    </section>
  );
}
