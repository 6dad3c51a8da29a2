import { say } from '@heathstep/core';
import { useQueryClient } from '@tanstack/react-query';
import { useId, useState, type SyntheticEvent } from 'react';
import { useNavigate, useSearchParams } from 'react-router';
import type { SessionView } from '@heathstep/contracts';
import { ApiError, request } from '../../api/client.js';
import { keys } from '../../api/queries.js';
import { markSeen } from '../../app/idleLock.js';
import { passkeysHere, signInByPasskey } from '../../app/passkeys.js';

/** Only a path of ours is followed after signing in. */
const safeNext = (next: string | null): string =>
  next !== null && /^\/(?![/\\])/.test(next) ? next : '/day';

const told = (error: ApiError): string =>
  error.problem.detail === undefined ? error.message : `${error.message}. ${error.problem.detail}.`;

/** What is typed, and signing in by it; the code is asked for once the password was right. */
function useSigningIn() {
  const [email, setEmail] = useState('');
  const [password, setPassword] = useState('');
  const [code, setCode] = useState('');
  /** Asked for once the password was right. */
  const [codeAsked, setCodeAsked] = useState(false);
  const [error, setError] = useState<ApiError | null>(null);
  /** The device was asked and did not answer, or was told not to. */
  const [noAnswer, setNoAnswer] = useState(false);
  const [busy, setBusy] = useState(false);
  const [parameters] = useSearchParams();
  const navigate = useNavigate();
  const client = useQueryClient();
  const opened = async (session: SessionView): Promise<void> => {
    client.clear();
    markSeen();
    client.setQueryData(keys.session, session);
    await navigate(safeNext(parameters.get('next')), { replace: true });
  };
  const byPasskey = async () => {
    if (busy) return;
    setBusy(true);
    setError(null);
    setNoAnswer(false);
    try {
      await opened(await signInByPasskey());
    } catch (failure) {
      setError(failure instanceof ApiError ? failure : null);
      setNoAnswer(!(failure instanceof ApiError));
      setBusy(false);
    }
  };
  const submit = async (event: SyntheticEvent) => {
    event.preventDefault();
    if (busy) return;
    setBusy(true);
    setError(null);
    setNoAnswer(false);
    try {
      await opened(
        await request<SessionView>('POST', '/api/session', {
          email: email.trim(),
          password,
          ...(codeAsked ? { code } : {}),
        }),
      );
    } catch (failure) {
      const told = failure instanceof ApiError ? failure : null;
      const asks = told !== null && told.at('/code') !== null;
      if (asks) setCodeAsked(true);
      // The first time it is no mistake, only the next question.
      setError(asks && !codeAsked ? null : told);
      setBusy(false);
    }
  };
  return {
    email,
    setEmail,
    password,
    setPassword,
    code,
    setCode,
    codeAsked,
    error,
    noAnswer,
    busy,
    submit,
    byPasskey,
  };
}

export function SignIn() {
  const signing = useSigningIn();
  const { email, setEmail, password, setPassword, code, setCode, codeAsked, error, noAnswer, busy, submit } =
    signing;
  const errorId = useId();
  const emailError = error?.at('/email') ?? null;
  return (
    <main className="grid min-h-dvh md:grid-cols-[1fr_minmax(24rem,36rem)]">
      <div className="relative hidden overflow-hidden bg-heather-wash md:block" aria-hidden>
        <Moor />
      </div>
      <div className="flex flex-col justify-center px-8 py-12 md:px-16">
        <p className="font-head text-2xl font-semibold tracking-tight">{say('heathstep')}</p>
        <h1 className="mt-8">{say('Sign in')}</h1>
        <form className="mt-6 max-w-sm space-y-4" onSubmit={(e) => void submit(e)} noValidate>
          <label className="block">
            <span className="text-sm text-ink-2">{say('E-mail')}</span>
            <input
              className="field"
              type="email"
              autoComplete="username"
              value={email}
              maxLength={200}
              onChange={(e) => setEmail(e.target.value)}
              aria-invalid={emailError !== null}
              aria-describedby={errorId}
              autoFocus
            />
          </label>
          <label className="block">
            <span className="text-sm text-ink-2">{say('Password')}</span>
            <input
              className="field"
              type="password"
              autoComplete="current-password"
              value={password}
              maxLength={200}
              onChange={(e) => setPassword(e.target.value)}
              aria-invalid={error !== null}
              aria-describedby={errorId}
            />
          </label>
          {codeAsked && (
            <label className="block">
              <span className="text-sm text-ink-2">
                {say('Code of your authenticator, or one you kept for when it is lost')}
              </span>
              <input
                className="field"
                autoComplete="one-time-code"
                value={code}
                maxLength={40}
                onChange={(e) => setCode(e.target.value)}
                aria-invalid={error !== null && error.at('/code') !== null}
                aria-describedby={errorId}
                autoFocus
              />
            </label>
          )}
          <p id={errorId} role="alert" className="min-h-6 text-ease-deep">
            {noAnswer ? say('The device did not answer.') : ''}
            {error === null ? '' : (error.problem.errors?.[0]?.detail ?? told(error))}
          </p>
          <div className="flex flex-wrap items-center gap-x-6">
            <button type="submit" className="action" disabled={busy}>
              {busy ? say('Signing in') : say('Sign in')}
            </button>
            {passkeysHere(window.location.hostname, window) && (
              <button
                type="button"
                className="text-action min-h-11"
                disabled={busy}
                onClick={() => void signing.byPasskey()}
              >
                {say('With a passkey')}
              </button>
            )}
          </div>
        </form>
        <p className="mt-12 max-w-sm text-sm text-ink-2">
          {say('For staff of the clinic. Patients use the link and code their physiotherapist gave them.')}
        </p>
      </div>
    </main>
  );
}

/** The print of a left foot, its heel at nothing, toes up: heel and outer border, ball, five toes. */
const PRINT =
  'M0 10 C-7 10 -10 3 -9 -5 C-8 -14 -12 -22 -13 -32 C-14 -42 -8 -46 0 -46 C9 -46 14 -41 12 -33 C10 -26 3 -22 3 -14 C3 -8 8 -4 8 1 C8 7 5 10 0 10 Z';
const TOES: readonly (readonly [x: number, y: number, r: number])[] = [
  [9, -53, 4.6],
  [1.5, -55, 3.3],
  [-4.5, -53.5, 2.9],
  [-9.5, -50.5, 2.6],
  [-13.5, -46.5, 2.3],
];

/** Steps from the front of the picture to the hill: where, how far away, and which foot. */
const STEPS: readonly (readonly [x: number, y: number, scale: number])[] = [
  [70, 770, 1],
  [150, 752, 0.9],
  [196, 706, 0.8],
  [264, 690, 0.71],
  [300, 652, 0.63],
  [352, 638, 0.56],
  [382, 608, 0.49],
  [420, 596, 0.43],
  [442, 573, 0.38],
];

/** A moor at dusk, steps across it, and who made them. */
function Moor() {
  return (
    <svg viewBox="0 0 600 800" preserveAspectRatio="xMidYMid slice" className="absolute inset-0 size-full">
      <circle cx="452" cy="236" r="58" fill="#f4f1e9" />
      <path d="M0 470 C120 420 220 440 330 400 C440 362 520 390 600 360 V800 H0 Z" fill="#d9cbe0" />
      <path d="M0 560 C140 500 260 560 380 510 C470 474 540 500 600 480 V800 H0 Z" fill="#b79fc4" />
      <image href="/walker.svg" x="262" y="408" width="96" height="118" opacity="0.92" />
      <path d="M0 660 C160 610 280 650 420 560 C500 520 560 534 600 524 V800 H0 Z" fill="#6c4a80" />
      <image href="/runner.svg" x="420" y="382" width="150" height="172" />
      {STEPS.map(([x, y, scale], i) => {
        const left = i % 2 === 0;
        return (
          <g
            key={y}
            transform={`translate(${x} ${y}) rotate(${left ? 44 : 56}) scale(${left ? scale : -scale} ${scale})`}
            fill="#f4f1e9"
            opacity={0.5 + 0.04 * i}
          >
            <path d={PRINT} />
            {TOES.map(([cx, cy, r]) => (
              <circle key={cx} cx={cx} cy={cy} r={r} />
            ))}
          </g>
        );
      })}
    </svg>
  );
}
