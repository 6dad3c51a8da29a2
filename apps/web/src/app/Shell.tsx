import { say } from '@heathstep/core';
import { useQuery, useQueryClient } from '@tanstack/react-query';
import { Check } from 'lucide-react';
import { DropdownMenu } from 'radix-ui';
import { useEffect, useLayoutEffect, useState } from 'react';
import {
  Link,
  NavLink,
  Navigate,
  NavigationType,
  Outlet,
  useLocation,
  useNavigate,
  useNavigationType,
} from 'react-router';
import type { LanguageView } from '@heathstep/contracts';
import { ApiError, request } from '../api/client.js';
import { contentQuery, useSession } from '../api/queries.js';
import { keepLanguage, pageLanguage } from '../parts/language.js';
import { Failed } from '../parts/Waiting.js';
import { Account } from './Account.js';
import { Locked } from './Locked.js';
import { LookUp } from './LookUp.js';
import { StepFirst } from './StepFirst.js';
import { useIdleLock } from './idleLock.js';
import { Help, type Sheet } from './help/Help.js';
import { useUnread } from './help/read.js';
import { chooseTheme, type Theme, useTheme } from '../parts/theme.js';

function Mark() {
  return (
    <svg viewBox="0 0 32 32" className="size-7" aria-hidden>
      <path
        d="M5 26c6-1 7-12 10-17 2-3 5-2 5 1 0 5 3 11 8 15"
        fill="none"
        stroke="var(--color-heather)"
        strokeWidth="3"
        strokeLinecap="round"
      />
      <circle cx="5" cy="26" r="3" fill="var(--color-ink)" />
      <circle cx="17" cy="7" r="3" fill="var(--color-ink)" />
      <circle cx="28" cy="25" r="3" fill="var(--color-ink)" />
    </svg>
  );
}

function Place({ to, children }: { to: string; children: string }) {
  return (
    <NavLink
      to={to}
      className={({ isActive }) =>
        `relative flex min-h-11 items-center px-1 ${isActive ? 'font-semibold after:absolute after:inset-x-1 after:bottom-1 after:h-0.5 after:bg-heather' : 'text-ink-2 hover:text-ink'}`
      }
    >
      {children}
    </NavLink>
  );
}

function Me({
  name,
  initials,
  role,
  clinic,
  help,
  account,
  unread,
}: {
  name: string;
  initials: string;
  role: string;
  clinic: string;
  /** Opens the sheet of keys, words and what changed. */
  help: () => void;
  account: () => void;
  unread: boolean;
}) {
  const client = useQueryClient();
  const navigate = useNavigate();
  const signOut = async () => {
    await request('DELETE', '/api/session').catch(() => undefined);
    client.clear();
    await navigate('/sign-in');
  };
  return (
    <DropdownMenu.Root modal={false}>
      <DropdownMenu.Trigger
        className="relative flex size-11 items-center justify-center"
        aria-label={say('{{name}}, account{{words}}', {
          name,
          words: unread ? say(', something is new') : '',
        })}
      >
        <span className="flex size-8 items-center justify-center rounded-full bg-ink text-xs font-bold text-paper">
          {initials}
        </span>
        {unread && (
          <span
            aria-hidden
            className="absolute right-1 top-1 size-3 rounded-full border-2 border-ground bg-heather"
          />
        )}
      </DropdownMenu.Trigger>
      <DropdownMenu.Portal>
        <DropdownMenu.Content
          align="end"
          className="z-50 min-w-56 rounded-lg border border-line bg-paper p-2 shadow-lg"
        >
          <div className="px-3 py-2">
            <div className="font-semibold">{name}</div>
            <div className="text-sm text-ink-2">
              {role}, {clinic}
            </div>
          </div>
          <Light />
          {role !== 'assistant' && <Choice to={() => void navigate('/outcomes')}>{say('Outcomes')}</Choice>}
          {role === 'lead' && <Choice to={() => void navigate('/clinic')}>{say('Clinic')}</Choice>}
          <Choice to={account}>{say('Account and devices')}</Choice>
          <Choice to={help}>{unread ? say('What changed') : say('Keys, words, what changed')}</Choice>
          <Choice to={() => void signOut()}>{say('Sign out')}</Choice>
        </DropdownMenu.Content>
      </DropdownMenu.Portal>
    </DropdownMenu.Root>
  );
}

/** One of the menu: what it says, and what it does. */
function Choice({ to, children }: { to: () => void; children: string }) {
  return (
    <DropdownMenu.Item
      className="flex min-h-11 cursor-pointer items-center rounded px-3 outline-none data-[highlighted]:bg-heather-wash"
      onSelect={to}
    >
      {children}
    </DropdownMenu.Item>
  );
}

const LIGHT: readonly (readonly [Theme, string])[] = [
  ['system', say('as the system')],
  ['light', say('light')],
  ['dark', say('dark')],
];

/** How light the pages are, on this device. */
function Light() {
  const theme = useTheme();
  return (
    <DropdownMenu.RadioGroup
      value={theme}
      onValueChange={(next) => chooseTheme(next as Theme)}
      className="my-1 border-y border-line-2 py-1"
    >
      <DropdownMenu.Label className="px-3 text-sm text-ink-2">{say('Pages are')}</DropdownMenu.Label>
      {LIGHT.map(([value, word]) => (
        <DropdownMenu.RadioItem
          key={value}
          value={value}
          onSelect={(event) => event.preventDefault()}
          className="flex min-h-11 cursor-pointer items-center justify-between rounded px-3 outline-none data-[highlighted]:bg-heather-wash"
        >
          {word}
          <DropdownMenu.ItemIndicator>
            <Check className="size-4" aria-hidden />
          </DropdownMenu.ItemIndicator>
        </DropdownMenu.RadioItem>
      ))}
    </DropdownMenu.RadioGroup>
  );
}

/** Tries with a wrong password since one last signed in, told until it is put away. */
function WrongTries({ count, look }: { count: number; look: () => void }) {
  const [told, setTold] = useState(0);
  // The next answer about the session no longer says so.
  if (count > told) setTold(count);
  const [away, setAway] = useState(false);
  if (told === 0 || away) return null;
  return (
    <p
      role="status"
      className="no-print flex flex-wrap items-center gap-x-5 bg-hold-wash px-5 py-2 text-hold-deep"
    >
      {say(
        'Since you last signed in, {{words}} with a wrong password. If that was not you, tell the lead of your clinic.',
        { words: told === 1 ? say('someone tried once') : say('{{told}} tries were made', { told }) },
      )}
      <button type="button" className="text-action min-h-9" onClick={look}>
        {say('Where I am signed in')}
      </button>
      <button type="button" className="min-h-9 underline" onClick={() => setAway(true)}>
        {say('It was me')}
      </button>
    </p>
  );
}

/** A place that is gone to opens at its top; going back finds it as it was left. */
function useTopOfPage(): void {
  const { pathname } = useLocation();
  const back = useNavigationType() === NavigationType.Pop;
  useLayoutEffect(() => {
    if (!back) window.scrollTo(0, 0);
  }, [pathname, back]);
}

/** The language of the pages as the server has it now, for the next page; this one goes on as it began. */
function useNewestLanguage(): void {
  const code = pageLanguage?.code ?? null;
  const newest = useQuery({
    queryKey: ['language', code],
    queryFn: () => request<LanguageView>('GET', `/api/languages/${code ?? ''}`),
    enabled: code !== null,
    staleTime: Infinity,
  });
  const language = newest.data;
  useEffect(() => {
    if (language !== undefined) keepLanguage(language);
  }, [language]);
}

/** The frame of every clinician's place; asks for a sign-in where there is none. */
export function Shell() {
  const session = useSession();
  const location = useLocation();
  const client = useQueryClient();
  useTopOfPage();
  useNewestLanguage();
  const [sheet, setSheet] = useState<Sheet | null>(null);
  const unread = useUnread();
  const [account, setAccount] = useState(false);
  const signedIn = session.data !== undefined;
  const { locked, unlock } = useIdleLock(session.data?.clinic.defaults.lockMinutes ?? 0);
  useEffect(() => {
    if (signedIn) client.query(contentQuery).catch(() => undefined);
  }, [signedIn, client]);
  if (session.error instanceof ApiError && session.error.status === 401 && !locked) {
    return <Navigate to={`/sign-in?next=${encodeURIComponent(location.pathname)}`} replace />;
  }
  if (session.error !== null && session.data === undefined)
    return <Failed error={session.error} again={() => void session.refetch()} />;
  if (session.data === undefined)
    return <div className="min-h-dvh" role="status" aria-label={say('Loading')} />;
  const { user, clinic } = session.data;
  if (user.stepMissing) return <StepFirst />;
  return (
    <>
      {locked && <Locked user={user} open={unlock} />}
      <div className={locked ? 'hidden' : 'flex min-h-dvh flex-col'}>
        <a
          href="#main"
          className="sr-only focus:not-sr-only focus:absolute focus:z-50 focus:bg-paper focus:p-3"
        >
          {say('Skip to the page')}
        </a>
        <header className="no-print flex min-h-12 flex-wrap items-center gap-x-3 border-b border-line px-5 sm:h-12 sm:flex-nowrap md:gap-x-7">
          <Link
            to="/day"
            className="flex min-h-11 items-center gap-2 font-head text-lg font-semibold tracking-tight"
          >
            <Mark />
            {say('heathstep')}
          </Link>
          <nav
            aria-label={say('Places')}
            className="flex gap-x-5 max-sm:order-last max-sm:w-full max-sm:justify-between"
          >
            <Place to="/day">{say('Day')}</Place>
            <Place to="/people">{say('People')}</Place>
            <Place to="/library">{say('Exercises')}</Place>
            <Place to="/measures">{say('Measures')}</Place>
          </nav>
          <div className="flex-1" />
          <LookUp />
          <Help sheet={sheet} show={setSheet} />
          <Me
            name={user.name}
            initials={user.initials}
            role={user.role}
            clinic={clinic.name}
            account={() => setAccount(true)}
            help={() => setSheet(unread ? 'changes' : 'keys')}
            unread={unread}
          />
        </header>
        {account && <Account user={user} close={() => setAccount(false)} />}
        <WrongTries count={session.data.wrongTries ?? 0} look={() => setAccount(true)} />
        <div id="main" className="flex flex-1 flex-col">
          <Outlet />
        </div>
        <footer className="no-print border-t border-line-2 px-5 py-2 text-xs text-ink-3">
          {say(
            'Supports a qualified clinician, does not replace one. Local rules and your scope of practice come first.',
          )}
        </footer>
      </div>
    </>
  );
}
