import { useQuery, useQueryClient } from '@tanstack/react-query';
import { useId, useState, type SyntheticEvent } from 'react';
import { ApiError, request } from '../../api/client.js';
import type { HomeView } from '@heathstep/contracts';
import { Today } from './Today.js';
import { lastLanguage, Speaking, useReader } from './tongue.js';

const TOKEN = 'heathstep.home.token';

/** The link's secret stands after the #, which browsers never send; it is only used together with the code. */
function tokenFromAddress(): string | null {
  const token = window.location.hash.slice(1);
  return /^[\w-]{10,60}$/.test(token) ? token : null;
}

const key = ['home'] as const;

export function Home() {
  const client = useQueryClient();
  const [token] = useState(tokenFromAddress);
  const [opened, setOpened] = useState(
    () => token === null || sessionStorage.getItem(TOKEN) === token || localStorage.getItem(TOKEN) === token,
  );
  const [complaint, setComplaint] = useState<string | null>(null);
  const home = useQuery({
    queryKey: [...key, complaint],
    queryFn: () =>
      request<HomeView>('GET', `/api/home/today${complaint === null ? '' : `?episode=${complaint}`}`),
    enabled: opened,
    refetchOnWindowFocus: true,
  });
  const needsCode = !opened || (home.error instanceof ApiError && home.error.status === 401);
  if (needsCode) {
    return (
      <Speaking code={lastLanguage()}>
        {token === null ? (
          <Gone />
        ) : (
          <Code
            token={token}
            opened={async () => {
              localStorage.setItem(TOKEN, token);
              setOpened(true);
              await client.resetQueries({ queryKey: key });
            }}
          />
        )}
      </Speaking>
    );
  }
  if (home.data === undefined)
    return (
      <Speaking code={lastLanguage()}>
        <NotYet lost={home.error !== null} again={() => void home.refetch()} />
      </Speaking>
    );
  return (
    <Speaking code={home.data.language}>
      <Page>
        <Complaints view={home.data} choose={setComplaint} />
        <Today
          key={home.data.episodeId}
          view={home.data}
          refresh={() => void client.invalidateQueries({ queryKey: key })}
        />
      </Page>
    </Speaking>
  );
}

/** While the plan is fetched, and when it cannot be. */
function NotYet({ lost, again }: { lost: boolean; again: () => void }) {
  const t = useReader();
  return (
    <Page>
      <div className="px-6 pt-16" role="status">
        {lost ? (
          <>
            <h1>{t.say('No connection just now')}</h1>
            <p className="mt-3 text-lg">
              {t.say('Your plan is fetched as soon as there is one. Nothing you logged is lost.')}
            </p>
            <button type="button" className="action mt-6 min-h-14 w-full text-lg" onClick={again}>
              {t.say('Try again')}
            </button>
          </>
        ) : (
          <span className="sr-only">{t.say('Loading')}</span>
        )}
      </div>
    </Page>
  );
}

export function Page({ children }: { children: React.ReactNode }) {
  return (
    <main className="mx-auto flex min-h-dvh w-full max-w-md flex-col bg-paper text-[1.1rem] text-ink">
      {children}
    </main>
  );
}

/** Which complaint is shown, where the person has more than one. */
function Complaints({ view, choose }: { view: HomeView; choose: (episodeId: string) => void }) {
  const t = useReader();
  if (view.complaints.length < 2) return null;
  return (
    <nav aria-label={t.say('What it is for')} className="flex gap-2 overflow-x-auto px-5 pt-4">
      {[...view.complaints]
        .sort((a, b) => (a.name < b.name ? -1 : 1))
        .map((c) => (
          <button
            key={c.episodeId}
            type="button"
            aria-current={c.episodeId === view.episodeId ? 'page' : undefined}
            className={`min-h-12 flex-1 rounded-xl border-2 px-3 text-base font-semibold ${c.episodeId === view.episodeId ? 'border-heather bg-heather-wash text-heather-deep' : 'border-line'}`}
            onClick={() => choose(c.episodeId)}
          >
            {c.name.charAt(0).toUpperCase() + c.name.slice(1)}
          </button>
        ))}
    </nav>
  );
}

/** A link that is wrong, ended or missing: kind, and the same for every reason. */
function Gone() {
  const t = useReader();
  return (
    <Page>
      <div className="px-6 pt-20">
        <h1>{t.say('This link does not open')}</h1>
        <p className="mt-4">{t.say('It may be mistyped, or your clinic may have made you a newer one.')}</p>
        <p className="mt-4">
          {t.say(
            'Please look for the newest message from your clinic, or ask them for a new link. Your log is safe with them.',
          )}
        </p>
      </div>
    </Page>
  );
}

function Code({ token, opened }: { token: string; opened: () => Promise<void> }) {
  const t = useReader();
  const [code, setCode] = useState('');
  const [error, setError] = useState<ApiError | null>(null);
  const [busy, setBusy] = useState(false);
  const errorId = useId();
  const submit = async (event: SyntheticEvent) => {
    event.preventDefault();
    if (busy) return;
    setBusy(true);
    setError(null);
    try {
      await request('POST', '/api/home/session', { token, code: code.replace(/\s/g, '') });
      await opened();
    } catch (failure) {
      setError(failure instanceof ApiError ? failure : null);
      // What was typed meanwhile stays.
      setCode((now) => (now === code ? '' : now));
    }
    setBusy(false);
  };
  return (
    <Page>
      <div className="px-6 pt-16">
        <p className="font-head text-xl font-semibold">heathstep</p>
        <form onSubmit={(e) => void submit(e)} noValidate>
          <h1 className="mt-8">{t.say('Your exercises')}</h1>
          <label className="mt-6 block">
            {t.say('Type the 6-digit code your clinic gave you.')}
            <input
              className="field mt-4 h-16 text-center font-head text-4xl tracking-[0.3em]"
              inputMode="numeric"
              autoComplete="one-time-code"
              maxLength={7}
              value={code}
              onChange={(e) => setCode(e.target.value.replace(/[^\d ]/g, ''))}
              aria-invalid={error !== null}
              aria-describedby={errorId}
              autoFocus
            />
          </label>
          <p id={errorId} role="alert" className="mt-2 min-h-7 text-ease-deep">
            {error === null
              ? ''
              : error.passing
                ? t.say('No connection just now. Try again in a moment.')
                : t.say(
                    'That does not open. Check the code. After five wrong ones, or if your clinic made you a newer link, ask them for it.',
                  )}
          </p>
          <button
            type="submit"
            className="action mt-2 min-h-14 w-full text-lg"
            disabled={busy || code.replace(/\s/g, '').length !== 6}
          >
            {t.say('Open')}
          </button>
        </form>
      </div>
    </Page>
  );
}
