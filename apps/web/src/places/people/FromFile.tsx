import { say } from '@heathstep/core';
import { useMutation } from '@tanstack/react-query';
import { useEffect, useRef, useState } from 'react';
import { Link, useNavigate } from 'react-router';
import { type BroughtKind, type BroughtView, BUNDLE_BYTES } from '@heathstep/contracts';
import { sendFile } from '../../api/client.js';
import { fullDay } from '../../parts/dates.js';
import { RadioRow } from '../../parts/RadioRow.js';
import { FromMeasurements } from './FromMeasurements.js';
import { FromTable } from './FromTable.js';
import { Wrong } from './Wrong.js';

const KIND_WORDS: Readonly<Record<BroughtKind, (n: number) => string>> = {
  complaints: (n) => say('complaints: {{n}}', { n }),
  visits: (n) => say('visits: {{n}}', { n }),
  entries: (n) => say('entries of visits: {{n}}', { n }),
  plans: (n) => say('plans: {{n}}', { n }),
  decisions: (n) => say('decisions: {{n}}', { n }),
  home: (n) => say('entries from home: {{n}}', { n }),
  pictures: (n) => say('pictures and captures: {{n}}', { n }),
};

/** What a file would bring, by kind. */
function Brings({ of }: { of: BroughtView }) {
  const own = (Object.entries(of.counts) as [BroughtKind, number][]).filter(([, n]) => n > 0);
  const kept = Object.entries(of.kept);
  return (
    <>
      <p className="mt-2">
        <span className="font-head text-lg font-semibold" data-said-by-others="">
          {of.name}
        </span>{' '}
        <span className="text-ink-2">
          {of.birthDate === null
            ? say('date of birth not known')
            : say('born {{birthDate}}', { birthDate: fullDay(of.birthDate) })}
        </span>
      </p>
      <p className="mt-1 text-ink-2">
        {of.ours
          ? say('Written by this application: it comes back as it was.')
          : say('Of another system: the person is taken, all else is kept as it came and shown with them.')}
      </p>
      <ul className="mt-2 flex flex-wrap gap-x-5">
        {own.map(([kind, n]) => (
          <li key={kind} className="tabular-nums">
            {KIND_WORDS[kind](n)}
          </li>
        ))}
        {kept.map(([type, n]) => (
          <li key={type} className="tabular-nums text-ink-2">
            {say('kept as it came,')} <span data-said-by-others="">{type}</span>: {n}
          </li>
        ))}
      </ul>
      {of.here !== null && (
        <p className="mt-3">
          {say('This very record is here already, and is not taken twice.')}{' '}
          <Link className="text-action inline-flex min-h-8 items-center" to={`/people/${of.here}?all=1`}>
            {say('Go to it')}
          </Link>
        </p>
      )}
      {of.here === null && of.alike.length > 0 && (
        <div className="mt-3 border-l-2 border-hold bg-hold-wash px-3 py-2">
          <p>
            {say(
              'Someone of that name is here. Look whether it is the same person before you take the file.',
            )}
          </p>
          <ul>
            {of.alike.map((p) => (
              <li key={p.id}>
                <Link className="text-action inline-flex min-h-8 items-center" to={`/people/${p.id}?all=1`}>
                  {p.name}
                </Link>{' '}
                {p.birthDate === null ? '' : fullDay(p.birthDate)}
              </li>
            ))}
          </ul>
        </div>
      )}
    </>
  );
}

const isTable = (file: File): boolean => /\.(csv|tsv|txt)$/i.test(file.name);

/** Another file begins anew. */
const keyOf = (file: File | null): string =>
  file === null ? '' : `${file.name} ${String(file.lastModified)} ${String(file.size)}`;

/** Takes a person from a file, or people from a table: chosen, looked at, then taken. */
export function FromFile({ close }: { close: () => void }) {
  const [file, setFile] = useState<File | null>(null);
  return (
    <section aria-label={say('From a file')} className="mt-4 bg-paper px-5 py-4">
      <h2>{say('From a file')}</h2>
      <p className="mt-1 max-w-2xl text-ink-2">
        {say(
          'One person’s whole record as a Bundle of FHIR R4 in JSON, or people or measurements as a table in CSV, their columns named in the first line. It is looked at first, and nothing is taken before you say so.',
        )}
      </p>
      <label className="action-quiet mt-3 inline-flex min-h-11 cursor-pointer items-center focus-within:outline-2 focus-within:outline-heather">
        {file === null ? say('Choose the file') : say('Choose another file')}
        <input
          type="file"
          accept=".json,.csv,.tsv,.txt,application/json,application/fhir+json,text/csv"
          className="sr-only"
          onChange={(e) => setFile(e.target.files?.[0] ?? null)}
        />
      </label>
      {file !== null && (
        <p className="mt-1 text-sm text-ink-2" data-said-by-others="">
          {file.name}
        </p>
      )}
      {file !== null && isTable(file) ? (
        <Table key={keyOf(file)} file={file} close={close} />
      ) : (
        <FromRecord key={keyOf(file)} file={file} close={close} />
      )}
    </section>
  );
}

const HOLDS = [
  { value: 'people', word: say('people') },
  { value: 'measurements', word: say('measurements') },
] as const;

/** A table: what it holds is said first. */
function Table({ file, close }: { file: File; close: () => void }) {
  const [holds, setHolds] = useState<'people' | 'measurements'>('people');
  return (
    <>
      <RadioRow
        label={say('The table holds')}
        className="mt-3 flex gap-3"
        value={holds}
        options={HOLDS}
        onChange={setHolds}
        itemClass={(_, on) =>
          `min-h-11 rounded-lg border-2 px-4 font-semibold ${on ? 'border-heather bg-heather-wash text-heather-deep' : 'border-line hover:border-heather'}`
        }
      />
      {holds === 'people' ? (
        <FromTable file={file} close={close} />
      ) : (
        <FromMeasurements file={file} close={close} />
      )}
    </>
  );
}

/** One person's record. */
function FromRecord({ file, close }: { file: File | null; close: () => void }) {
  const navigate = useNavigate();
  const sending = useRef(false);
  const look = useMutation({
    mutationFn: (chosen: File) =>
      chosen.size > BUNDLE_BYTES
        ? Promise.reject(
            new Error(say('It is larger than {{mb}} megabytes', { mb: Math.floor(BUNDLE_BYTES / 1e6) })),
          )
        : sendFile<BroughtView>('/api/exchange/fhir/look', chosen),
  });
  const take = useMutation({
    mutationFn: (chosen: File) => sendFile<{ personId: string }>('/api/exchange/fhir', chosen),
    onSuccess: ({ personId }) => void navigate(`/people/${personId}?all=1`),
    onSettled: () => {
      sending.current = false;
    },
  });
  const { mutate } = look;
  useEffect(() => {
    if (file !== null) mutate(file);
  }, [file, mutate]);
  const error = take.error ?? look.error;
  return (
    <>
      <div aria-live="polite">
        {look.isPending && <p className="mt-2 text-ink-2">{say('Reading the file')}</p>}
        {look.data !== undefined && <Brings of={look.data} />}
      </div>
      {error !== null && <Wrong error={error} />}
      <div className="mt-3 flex gap-3">
        <button
          type="button"
          className="action"
          disabled={file === null || look.data === undefined || look.data.here !== null || take.isPending}
          onClick={() => {
            if (file === null || sending.current) return;
            sending.current = true;
            take.mutate(file);
          }}
        >
          {say('Take it')}
        </button>
        <button type="button" className="action-quiet" onClick={close}>
          {say('Not now')}
        </button>
      </div>
    </>
  );
}
