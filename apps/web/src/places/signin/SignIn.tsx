import { useQueryClient } from '@tanstack/react-query';
import { useId, useState, type SyntheticEvent } from 'react';
import { useNavigate, useSearchParams } from 'react-router';
import type { SessionView } from '@heathstep/contracts';
import { ApiError, request } from '../../api/client.js';
import { keys } from '../../api/queries.js';

/** Only a path of ours is followed after signing in. */
const safeNext = (next: string | null): string =>
  next !== null && /^\/(?![/\\])/.test(next) ? next : '/day';

const told = (error: ApiError): string =>
  error.problem.detail === undefined ? error.message : `${error.message}. ${error.problem.detail}.`;

export function SignIn() {
  const [email, setEmail] = useState('');
  const [password, setPassword] = useState('');
  const [error, setError] = useState<ApiError | null>(null);
  const [busy, setBusy] = useState(false);
  const [parameters] = useSearchParams();
  const navigate = useNavigate();
  const client = useQueryClient();
  const errorId = useId();
  const submit = async (event: SyntheticEvent) => {
    event.preventDefault();
    if (busy) return;
    setBusy(true);
    setError(null);
    try {
      const session = await request<SessionView>('POST', '/api/session', { email: email.trim(), password });
      client.clear();
      client.setQueryData(keys.session, session);
      await navigate(safeNext(parameters.get('next')), { replace: true });
    } catch (failure) {
      setError(failure instanceof ApiError ? failure : null);
      setBusy(false);
    }
  };
  const emailError = error?.at('/email') ?? null;
  return (
    <main className="grid min-h-dvh md:grid-cols-[1fr_minmax(24rem,36rem)]">
      <div className="relative hidden overflow-hidden bg-heather-wash md:block" aria-hidden>
        <Moor />
      </div>
      <div className="flex flex-col justify-center px-8 py-12 md:px-16">
        <p className="font-head text-2xl font-semibold tracking-tight">heathstep</p>
        <h1 className="mt-8">Sign in</h1>
        <form className="mt-6 max-w-sm space-y-4" onSubmit={(e) => void submit(e)} noValidate>
          <label className="block">
            <span className="text-sm text-ink-2">E-mail</span>
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
            <span className="text-sm text-ink-2">Password</span>
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
          <p id={errorId} role="alert" className="min-h-6 text-ease-deep">
            {error === null ? '' : (error.problem.errors?.[0]?.detail ?? told(error))}
          </p>
          <button type="submit" className="action" disabled={busy}>
            {busy ? 'Signing in' : 'Sign in'}
          </button>
        </form>
        <p className="mt-12 max-w-sm text-sm text-ink-2">
          For staff of the clinic. Patients use the link and code their physiotherapist gave them.
        </p>
      </div>
    </main>
  );
}

/** A moor at dusk with a path of steps across it. */
function Moor() {
  return (
    <svg viewBox="0 0 600 800" preserveAspectRatio="xMidYMid slice" className="absolute inset-0 size-full">
      <path d="M0 470 C120 420 220 440 330 400 C440 362 520 390 600 360 V800 H0 Z" fill="#d9cbe0" />
      <path d="M0 560 C140 500 260 560 380 510 C470 474 540 500 600 480 V800 H0 Z" fill="#b79fc4" />
      <path d="M0 660 C160 610 280 650 420 600 C500 572 560 590 600 580 V800 H0 Z" fill="#6c4a80" />
      {[
        [90, 745, 1],
        [165, 715, 0.86],
        [225, 672, 0.74],
        [290, 640, 0.62],
        [340, 606, 0.52],
        [392, 580, 0.44],
        [430, 552, 0.36],
      ].map(([x = 0, y = 0, s = 1], i) => (
        <g
          key={i}
          transform={`translate(${x} ${y}) scale(${s}) rotate(${i % 2 === 0 ? 38 : 62})`}
          fill="#f4f1e9"
          opacity={0.55 + 0.05 * i}
        >
          <ellipse cx="0" cy="0" rx="11" ry="24" />
          <ellipse cx="2" cy="32" rx="8" ry="10" />
        </g>
      ))}
    </svg>
  );
}
