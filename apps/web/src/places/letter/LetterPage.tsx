import { LETTER_KIND_WORDS, say } from '@heathstep/core';
import { useQuery, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { Link, useNavigate, useParams } from 'react-router';
import { composeLetter, LETTER_WAY_WORDS, type LetterPageView, type LetterText } from '@heathstep/contracts';
import { ApiError, request } from '../../api/client.js';
import type { DocumentStore, Versioned } from '../../api/documentStore.js';
import { sentDocument, useDocument } from '../../api/useDocument.js';
import { keep } from '../../api/kept.js';
import { fullDay } from '../../parts/dates.js';
import { SaveState, SaveTrouble } from '../../parts/SaveState.js';
import { SetAside } from '../../parts/SetAside.js';
import { useUndoKeys } from '../../parts/useUndoKeys.js';
import { Failed, Loading } from '../../parts/Waiting.js';
import { lettersKey } from './Letters.js';
import { LetterSheet } from './LetterSheet.js';
import { LetterWriting } from './LetterWriting.js';
import { Sending } from './Sending.js';

const storeKey = (id: string): string => `heathstep.letter.${id}`;
const pageKey = (id: string) => ['letter', id] as const;

const readLetter = ({ text, letter }: LetterPageView): Versioned<LetterText> => ({
  value: text,
  version: letter.version,
});

const useText = (page: LetterPageView): DocumentStore<LetterText> =>
  useDocument<LetterText>(storeKey(page.letter.id), readLetter(page), (text, version) =>
    sentDocument(
      () => request<LetterPageView>('PUT', `/api/letters/${page.letter.id}`, { version, ...text }),
      readLetter,
    ),
  );

/** One letter: written on the left, read on the right; one that went out is only read. */
export function LetterPage() {
  const { letterId = '' } = useParams();
  const page = useQuery({
    queryKey: pageKey(letterId),
    queryFn: () => request<LetterPageView>('GET', `/api/letters/${letterId}`),
    retry: (count, error) => error instanceof ApiError && error.passing && count < 4,
  });
  if (page.data === undefined)
    return page.error === null ? (
      <Loading what={say('the letter')} />
    ) : (
      <Failed error={page.error} again={() => void page.refetch()} />
    );
  return page.data.letter.sent === null ? (
    <SetAside
      key={letterId}
      what={say('The draft of this letter')}
      aside={() => keep(storeKey(letterId), null, true)}
    >
      <Draft key={letterId} page={page.data} />
    </SetAside>
  ) : (
    <Gone page={page.data} />
  );
}

function Head({ page, children }: { page: LetterPageView; children?: React.ReactNode }) {
  const { letter, person } = page;
  return (
    <header className="no-print flex flex-wrap items-baseline gap-x-5 border-b border-line px-5 py-3">
      <h1 className="text-2xl">
        {say('{{kind}}: {{person}}', { kind: say(LETTER_KIND_WORDS[letter.kind]), person: person.name })}
      </h1>
      <Link className="text-action min-h-9 content-center" to={`/episodes/${letter.episodeId}/letters`}>
        {say('All letters of this complaint')}
      </Link>
      {children}
    </header>
  );
}

const sheetClass =
  'w-full max-w-[52rem] bg-paper px-8 py-6 max-sm:px-4 print:max-w-none print:bg-transparent print:p-0';

/** A letter that went out, as it went out. */
function Gone({ page }: { page: LetterPageView }) {
  const { letter, content } = page;
  if (letter.sent === null) return null;
  return (
    <>
      <Head page={page} />
      <main className="mx-auto w-full max-w-[56rem] px-5 py-5 print:p-0">
        <div className="no-print mb-4 flex flex-wrap items-center gap-3">
          <p role="status" className="mr-3">
            {say('Went out on {{day}}, {{way}}, noted by {{by}}. It stays as it was read then.', {
              day: fullDay(letter.sent.on),
              way: say(LETTER_WAY_WORDS[letter.sent.way]),
              by: letter.sent.by,
            })}
          </p>
          <button type="button" className="action" onClick={() => window.print()}>
            {say('Print')}
          </button>
          <a
            href={`/api/letters/${letter.id}/letter.pdf`}
            target="_blank"
            rel="noreferrer"
            className="action-quiet"
          >
            {say('As a PDF')}
          </a>
        </div>
        <div className={sheetClass}>
          <LetterSheet letter={content} level="h2" />
        </div>
      </main>
    </>
  );
}

function Draft({ page }: { page: LetterPageView }) {
  const { letter, content } = page;
  const store = useText(page);
  const client = useQueryClient();
  const navigate = useNavigate();
  const [undo] = useState(() => () => store.undo());
  const [redo] = useState(() => () => store.redo());
  useUndoKeys(undo, redo);
  const read = composeLetter(content, letter.kind, store.value);
  const drop = async (): Promise<void> => {
    await store.flush();
    await request('DELETE', `/api/letters/${letter.id}`);
    keep(storeKey(letter.id), null, true);
    await client.invalidateQueries({ queryKey: lettersKey(letter.episodeId) });
    await navigate(`/episodes/${letter.episodeId}/letters`, { state: { dropped: letter.id } });
  };
  return (
    <>
      <Head page={page}>
        <span className="ml-auto">
          <SaveState status={store.status} />
        </span>
      </Head>
      <main className="grid flex-1 content-start gap-6 px-5 py-5 lg:grid-cols-[25rem_minmax(0,1fr)] print:block print:p-0">
        <div className="no-print">
          <SaveTrouble status={store.status} retry={() => store.retry()} />
          {store.status === 'conflict' && (
            <p className="mt-2 flex flex-wrap gap-3">
              <button type="button" className="action-quiet" onClick={() => store.resolve('mine')}>
                {say('Keep mine')}
              </button>
              <button type="button" className="action-quiet" onClick={() => store.resolve('theirs')}>
                {say('Take theirs')}
              </button>
            </p>
          )}
          <LetterWriting store={store} kind={letter.kind} open={content.open.length > 0} />
          <Sending
            page={page}
            text={store.value}
            saved={store.status === 'saved'}
            version={store.version}
            sent={async (now) => {
              client.setQueryData(pageKey(letter.id), now);
              window.scrollTo(0, 0);
              await client.invalidateQueries({ queryKey: lettersKey(letter.episodeId) });
            }}
            seen={(now) => client.setQueryData(pageKey(letter.id), now)}
          />
          <p className="mt-6">
            <button type="button" className="text-action min-h-11" onClick={() => void drop()}>
              {say('Throw this draft away')}
            </button>
          </p>
        </div>
        <section aria-label={say('As it will be read')} className={sheetClass}>
          <LetterSheet letter={read} level="h2" />
        </section>
      </main>
    </>
  );
}
