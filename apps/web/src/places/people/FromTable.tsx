import {
  DATE_ORDERS,
  type DateOrder,
  PERSON_FIELD_WORDS,
  PERSON_FIELDS,
  type PersonColumns,
  type PersonField,
  say,
  type TableLine,
} from '@heathstep/core';
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { useRef, useState } from 'react';
import type { PeopleImportView, PeopleTableView } from '@heathstep/contracts';
import { request, sendFile } from '../../api/client.js';
import { useSession } from '../../api/queries.js';
import { fullDay, momentText } from '../../parts/dates.js';
import { SelectField } from '../../parts/fields.js';
import { Failed, Loading } from '../../parts/Waiting.js';
import { TakenMeasurements } from './FromMeasurements.js';
import { AS_IT_IS, ORDER_WORDS } from './tables.js';
import { Wrong } from './Wrong.js';

const KIND_WORDS: Readonly<Record<TableLine['kind'], string>> = {
  new: say('new'),
  same: say('here already'),
  alike: say('same name, date of birth not known'),
  wrong: say('left out'),
};

const importsKey = ['people-imports'] as const;

interface Choice {
  readonly columns: PersonColumns;
  readonly order: DateOrder;
  readonly alike: 'take' | 'leave';
}

const queryOf = ({ columns, order, alike }: Choice): string =>
  new URLSearchParams({
    order,
    alike,
    ...Object.fromEntries(Object.entries(columns).map(([field, at]) => [field, String(at)])),
  }).toString();

/** What becomes of the lines, those that are wrong first. */
function Lines({ of }: { of: PeopleTableView }) {
  return (
    <>
      <ul className="mt-3 flex flex-wrap gap-x-5">
        {(Object.entries(of.counts) as [TableLine['kind'], number][])
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
              <th className="py-1 pr-4 font-normal">{say('Line')}</th>
              <th className="pr-4 font-normal">{say('Name')}</th>
              <th className="pr-4 font-normal">{say('Date of birth')}</th>
              <th className="font-normal">{say('What becomes of it')}</th>
            </tr>
          </thead>
          <tbody>
            {of.lines.map((l) => (
              <tr key={l.line} className="border-t border-line-2">
                <td className="py-1 pr-4 tabular-nums">{l.line}</td>
                {l.kind === 'wrong' ? (
                  <td colSpan={3} className="text-ease-deep">
                    {l.reason}
                  </td>
                ) : (
                  <>
                    <td className="pr-4" data-said-by-others="">
                      {l.person.name}
                    </td>
                    <td className="pr-4">
                      {l.person.birthDate === null ? say('not known') : fullDay(l.person.birthDate)}
                    </td>
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
  const set = (field: PersonField, at: string): void => {
    const { [field]: _before, ...rest } = choice.columns;
    setChoice({ ...choice, columns: at === '' ? rest : { ...rest, [field]: Number(at) } });
  };
  const columns = [['', say('no column')] as const, ...heads.map((h, i) => [String(i), h] as const)];
  return (
    <div className="mt-3 grid gap-3 sm:grid-cols-3">
      {PERSON_FIELDS.map((field) => (
        <SelectField
          key={field}
          label={say(PERSON_FIELD_WORDS[field])}
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

/** People of a table: which column is what, what becomes of each line, then taken. */
export function FromTable({ file, close }: { file: File; close: () => void }) {
  const client = useQueryClient();
  const [id] = useState(() => crypto.randomUUID());
  const sending = useRef(false);
  const [chosen, setChosen] = useState<Choice | null>(null);
  const heads = useQuery({
    queryKey: ['table-heads', id],
    queryFn: () =>
      sendFile<{ heads: string[]; columns: PersonColumns }>('/api/exchange/people/columns', file, {
        type: AS_IT_IS,
      }),
    retry: false,
  });
  const choice = chosen ?? { columns: heads.data?.columns ?? {}, order: 'dmy', alike: 'leave' };
  const query = queryOf(choice);
  const ready = heads.data !== undefined && choice.columns.name !== undefined;
  const look = useQuery({
    queryKey: ['table-look', id, query],
    queryFn: () => sendFile<PeopleTableView>(`/api/exchange/people/look?${query}`, file, { type: AS_IT_IS }),
    enabled: ready,
    retry: false,
    placeholderData: (before) => before,
  });
  const take = useMutation({
    mutationFn: () =>
      sendFile<PeopleImportView>(`/api/exchange/people/${id}?${query}`, file, {
        method: 'PUT',
        type: AS_IT_IS,
        name: file.name,
      }),
    onSuccess: async () => {
      await client.invalidateQueries({ queryKey: importsKey });
      await client.invalidateQueries({ queryKey: ['people'] });
      close();
    },
    onSettled: () => {
      sending.current = false;
    },
  });
  const error = take.error ?? look.error ?? heads.error;
  const counts = look.data?.counts;
  const wouldTake = (counts?.new ?? 0) + (choice.alike === 'take' ? (counts?.alike ?? 0) : 0);
  return (
    <>
      {heads.data !== undefined && <Columns heads={heads.data.heads} choice={choice} setChoice={setChosen} />}
      <div aria-live="polite">{look.data !== undefined && <Lines of={look.data} />}</div>
      {(counts?.alike ?? 0) > 0 && (
        <label className="mt-2 flex min-h-11 items-center gap-2">
          <input
            type="checkbox"
            className="size-5"
            checked={choice.alike === 'take'}
            onChange={(e) => setChosen({ ...choice, alike: e.target.checked ? 'take' : 'leave' })}
          />
          {say('Take those of the same name too: they are someone else')}
        </label>
      )}
      {error !== null && <Wrong error={error} />}
      <div className="mt-3 flex gap-3">
        <button
          type="button"
          className="action"
          disabled={wouldTake === 0 || take.isPending || look.isFetching}
          onClick={() => {
            if (sending.current) return;
            sending.current = true;
            take.mutate();
          }}
        >
          {say('Take who is new: {{n}}', { n: wouldTake })}
        </button>
        <button type="button" className="action-quiet" onClick={close}>
          {say('Not now')}
        </button>
      </div>
    </>
  );
}

/** Tables that were taken, each to be taken back whole. */
export function TakenTables() {
  const client = useQueryClient();
  const session = useSession();
  const imports = useQuery({
    queryKey: importsKey,
    queryFn: () => request<readonly PeopleImportView[]>('GET', '/api/exchange/people/imports'),
  });
  const undo = useMutation({
    mutationFn: (id: string) =>
      request<PeopleImportView>('POST', `/api/exchange/people/imports/${id}/undo`, {}),
    onSuccess: async () => {
      await client.invalidateQueries({ queryKey: importsKey });
      await client.invalidateQueries({ queryKey: ['people'] });
    },
  });
  if (imports.data === undefined)
    return imports.error === null ? (
      <Loading what={say('the tables')} />
    ) : (
      <Failed error={imports.error} again={() => void imports.refetch()} />
    );
  return (
    <section aria-label={say('Tables that were taken')} className="mt-4 bg-paper px-5 py-3">
      <a
        className="text-action inline-flex min-h-11 items-center"
        href="/api/exchange/people/people.csv"
        download
      >
        {say('Everyone as a table (CSV)')}
      </a>
      <a
        className="text-action ml-6 inline-flex min-h-11 items-center"
        href="/api/exchange/measurements/measurements.csv"
        download
      >
        {say('Every measurement as a table (CSV)')}
      </a>
      {session.data?.user.role === 'lead' && (
        <a
          className="text-action ml-6 inline-flex min-h-11 items-center"
          href="/api/exchange/measurements/research.csv"
          download
          title={say('Days moved, ages in bands, nothing that fewer than five people share')}
        >
          {say('The same for research, without names (CSV)')}
        </a>
      )}
      <ul>
        {imports.data.map((i) => (
          <li key={i.id} className="flex flex-wrap items-center gap-x-5 border-t border-line-2">
            <span>
              <span data-said-by-others="">{i.file}</span>,{' '}
              {say('people: {{n}}, taken {{at}} by {{by}}', { n: i.people, at: momentText(i.at), by: i.by })}
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
      <TakenMeasurements />
    </section>
  );
}
