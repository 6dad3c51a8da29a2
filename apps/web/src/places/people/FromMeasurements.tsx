import {
  DATE_ORDERS,
  type DateOrder,
  MEASUREMENT_FIELD_WORDS,
  MEASUREMENT_FIELDS,
  type MeasurementColumns,
  type MeasurementField,
  type MeasurementLine,
  NEEDED_FIELDS,
  say,
} from '@heathstep/core';
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { useRef, useState } from 'react';
import type { MeasurementImportView, MeasurementTableView } from '@heathstep/contracts';
import { request, sendFile } from '../../api/client.js';
import { fullDay, momentText } from '../../parts/dates.js';
import { SelectField } from '../../parts/fields.js';
import { Failed, Loading } from '../../parts/Waiting.js';
import { AS_IT_IS, ORDER_WORDS } from './tables.js';
import { Wrong } from './Wrong.js';

const importsKey = ['measurement-imports'] as const;

const KIND_WORDS: Readonly<Record<MeasurementLine['kind'], string>> = {
  new: say('new'),
  same: say('here already'),
  wrong: say('left out'),
};

interface Choice {
  readonly columns: MeasurementColumns;
  readonly order: DateOrder;
}

const queryOf = ({ columns, order }: Choice): string =>
  new URLSearchParams({
    order,
    ...Object.fromEntries(Object.entries(columns).map(([field, at]) => [field, String(at)])),
  }).toString();

const sideWords = { left: say('left'), right: say('right'), none: '' } as const;

/** What becomes of the lines, those that are wrong first. */
function Lines({ of }: { of: MeasurementTableView }) {
  return (
    <>
      <ul className="mt-3 flex flex-wrap gap-x-5">
        {(Object.entries(of.counts) as [MeasurementLine['kind'], number][])
          .filter(([, n]) => n > 0)
          .map(([kind, n]) => (
            <li key={kind} className="tabular-nums">
              {say('{{what}}: {{n}}', { what: KIND_WORDS[kind], n })}
            </li>
          ))}
      </ul>
      <div
        className="mt-2 max-h-80 overflow-auto"
        tabIndex={0}
        role="region"
        aria-label={say('Lines of the table')}
      >
        <table className="w-full text-left text-sm">
          <thead>
            <tr className="text-ink-2">
              {[
                say('Line'),
                say('Person'),
                say('Day'),
                say('Measure'),
                say('Value'),
                say('What becomes of it'),
              ].map((h) => (
                <th key={h} className="py-1 pr-4 font-normal">
                  {h}
                </th>
              ))}
            </tr>
          </thead>
          <tbody>
            {of.lines.map((l) => (
              <tr key={l.line} className="border-t border-line-2">
                <td className="py-1 pr-4 tabular-nums">{l.line}</td>
                {l.kind === 'wrong' ? (
                  <td colSpan={5} className="text-ease-deep">
                    {l.reason}
                  </td>
                ) : (
                  <>
                    <td className="pr-4" data-said-by-others="">
                      {l.person}
                    </td>
                    <td className="pr-4">{fullDay(l.day)}</td>
                    <td className="pr-4">
                      {l.label} {sideWords[l.side]}
                    </td>
                    <td className="pr-4 tabular-nums">{l.text}</td>
                    <td>{KIND_WORDS[l.kind]}</td>
                  </>
                )}
              </tr>
            ))}
          </tbody>
        </table>
      </div>
    </>
  );
}

/** Which column is what, and how dates are written. */
function Columns({
  heads,
  choice,
  setChoice,
}: {
  heads: readonly string[];
  choice: Choice;
  setChoice: (c: Choice) => void;
}) {
  const set = (field: MeasurementField, at: string): void => {
    const { [field]: _before, ...rest } = choice.columns;
    setChoice({ ...choice, columns: at === '' ? rest : { ...rest, [field]: Number(at) } });
  };
  const columns = [['', say('no column')] as const, ...heads.map((h, i) => [String(i), h] as const)];
  return (
    <div className="mt-3 grid gap-3 sm:grid-cols-3">
      {MEASUREMENT_FIELDS.map((field) => (
        <SelectField
          key={field}
          label={say(MEASUREMENT_FIELD_WORDS[field])}
          value={String(choice.columns[field] ?? '')}
          onChange={(at) => set(field, at)}
          options={columns}
        />
      ))}
      <SelectField
        label={say('Dates are written as')}
        value={choice.order}
        onChange={(order) => setChoice({ ...choice, order: order as DateOrder })}
        options={DATE_ORDERS.map((o) => [o, ORDER_WORDS[o]] as const)}
      />
    </div>
  );
}

/** Measurements of a table: which column is what, what becomes of each line, then taken. */
export function FromMeasurements({ file, close }: { file: File; close: () => void }) {
  const client = useQueryClient();
  const [id] = useState(() => crypto.randomUUID());
  const sending = useRef(false);
  const [chosen, setChosen] = useState<Choice | null>(null);
  const heads = useQuery({
    queryKey: ['measurement-heads', id],
    queryFn: () =>
      sendFile<{ heads: string[]; columns: MeasurementColumns }>('/api/exchange/measurements/columns', file, {
        type: AS_IT_IS,
      }),
    retry: false,
  });
  const choice = chosen ?? { columns: heads.data?.columns ?? {}, order: 'dmy' };
  const query = queryOf(choice);
  const missing = NEEDED_FIELDS.filter((f) => choice.columns[f] === undefined);
  const look = useQuery({
    queryKey: ['measurement-look', id, query],
    queryFn: () =>
      sendFile<MeasurementTableView>(`/api/exchange/measurements/look?${query}`, file, { type: AS_IT_IS }),
    enabled: heads.data !== undefined && missing.length === 0,
    retry: false,
    placeholderData: (before) => before,
  });
  const take = useMutation({
    mutationFn: () =>
      sendFile<MeasurementImportView>(`/api/exchange/measurements/${id}?${query}`, file, {
        method: 'PUT',
        type: AS_IT_IS,
        name: file.name,
      }),
    onSuccess: () => {
      close();
      void client.invalidateQueries();
    },
    onSettled: () => {
      sending.current = false;
    },
  });
  const error = take.error ?? look.error ?? heads.error;
  const fresh = look.data?.counts.new ?? 0;
  return (
    <>
      <p className="mt-2 max-w-2xl text-sm text-ink-2">
        {say(
          'What was measured before the first visit here, as it stood in other records. It is shown on the course, apart, and nothing is judged by it: the first visit still is the first.',
        )}
      </p>
      {heads.data !== undefined && <Columns heads={heads.data.heads} choice={choice} setChoice={setChosen} />}
      {heads.data !== undefined && missing.length > 0 && (
        <p role="status" className="mt-2 text-hold-deep">
          {say('Choose the column of: {{list}}', {
            list: missing.map((f) => say(MEASUREMENT_FIELD_WORDS[f])).join(', '),
          })}
        </p>
      )}
      <div aria-live="polite">{look.data !== undefined && <Lines of={look.data} />}</div>
      {error !== null && <Wrong error={error} />}
      <div className="mt-3 flex gap-3">
        <button
          type="button"
          className="action"
          disabled={fresh === 0 || missing.length > 0 || take.isPending || look.isFetching}
          onClick={() => {
            if (sending.current) return;
            sending.current = true;
            take.mutate();
          }}
        >
          {say('Take what is new: {{n}}', { n: fresh })}
        </button>
        <button type="button" className="action-quiet" onClick={close}>
          {say('Not now')}
        </button>
      </div>
    </>
  );
}

/** Tables of measurements that were taken, each to be taken back whole. */
export function TakenMeasurements() {
  const client = useQueryClient();
  const imports = useQuery({
    queryKey: importsKey,
    queryFn: () => request<readonly MeasurementImportView[]>('GET', '/api/exchange/measurements/imports'),
  });
  const undo = useMutation({
    mutationFn: (id: string) =>
      request<MeasurementImportView>('POST', `/api/exchange/measurements/imports/${id}/undo`, {}),
    onSuccess: () => client.invalidateQueries(),
  });
  if (imports.data === undefined)
    return imports.error === null ? (
      <Loading what={say('the tables')} />
    ) : (
      <Failed error={imports.error} again={() => void imports.refetch()} />
    );
  return (
    <>
      <ul>
        {imports.data.map((i) => (
          <li key={i.id} className="flex flex-wrap items-center gap-x-5 border-t border-line-2">
            <span>
              <span data-said-by-others="">{i.file}</span>,{' '}
              {say('measurements: {{n}}, taken {{at}} by {{by}}', {
                n: i.lines,
                at: momentText(i.at),
                by: i.by,
              })}
            </span>
            {i.undoneAt === null ? (
              <button
                type="button"
                className="text-action ml-auto min-h-11"
                disabled={undo.isPending}
                onClick={() => undo.mutate(i.id)}
              >
                {say('Take {{file}} back', { file: i.file })}
              </button>
            ) : (
              <span className="ml-auto min-h-11 content-center text-sm text-ink-2">
                {say('taken back {{at}}', { at: momentText(i.undoneAt) })}
              </span>
            )}
          </li>
        ))}
      </ul>
      <p role="alert" className="text-ease-deep">
        {undo.error?.message ?? ''}
      </p>
    </>
  );
}
