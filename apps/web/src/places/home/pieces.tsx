import { type KeyboardEvent, type ReactNode, useEffect, useRef } from 'react';
import type { Morning } from '@heathstep/core';
import { MOST, scoreAt } from './scoreKeys.js';
import { useReader } from './tongue.js';

/** What a screen is called. A new screen is read from here, and Tab goes on from here: what was pressed is gone. */
export function Title({ children, className = '' }: { children: ReactNode; className?: string }) {
  const title = useRef<HTMLHeadingElement>(null);
  useEffect(() => {
    if (document.activeElement === document.body) title.current?.focus({ preventScroll: true });
  }, []);
  return (
    <h1 ref={title} tabIndex={-1} className={`outline-none ${className}`}>
      {children}
    </h1>
  );
}

/**
 * Eleven large keys for older fingers, 0 to 10, with a word below some. By keys they are one stop, gone through by arrows or
 * digits and taken by Enter. `value` is null where none is taken, undefined where taking one goes on at once.
 */
export function ElevenKeys({
  label,
  nameOf,
  wordOf,
  value,
  onChange,
}: {
  label: string;
  nameOf: (n: number) => string;
  /** Null: small keys without words. */
  wordOf: ((n: number) => string) | null;
  value?: number | null;
  onChange: (value: number) => void;
}) {
  const go = (event: KeyboardEvent<HTMLDivElement>) => {
    const keys = [...event.currentTarget.querySelectorAll('button')];
    const at = keys.findIndex((k) => k === document.activeElement);
    const next = scoreAt(event.key, at, wordOf === null ? 6 : 4);
    if (next === null || event.ctrlKey || event.metaKey || event.altKey) return;
    event.preventDefault();
    keys[next]?.focus();
  };
  const size = wordOf === null ? 'min-h-12 rounded-lg text-xl' : 'min-h-16 rounded-xl text-2xl';
  return (
    <div
      className={`mt-2 grid ${wordOf === null ? 'grid-cols-6 gap-1.5' : 'grid-cols-4 gap-2'}`}
      role="group"
      aria-label={label}
      onKeyDown={go}
    >
      {Array.from({ length: MOST + 1 }, (_, n) => (
        <button
          key={n}
          type="button"
          tabIndex={n === (value ?? 0) ? 0 : -1}
          aria-pressed={value === undefined ? undefined : value === n}
          aria-label={nameOf(n)}
          className={`flex flex-col items-center justify-center border-2 font-head font-semibold leading-none ${size} ${value === n ? 'border-heather bg-heather text-paper' : 'border-line bg-ground'}`}
          onClick={() => onChange(n)}
        >
          {n}
          {wordOf !== null && (
            <span className="font-body text-sm font-normal leading-tight">{wordOf(n)}</span>
          )}
        </button>
      ))}
    </div>
  );
}

const WORDS = ['none', '', 'mild', '', '', 'medium', '', '', 'strong', '', 'worst'];

/** How much it hurts. */
export function BigScore({
  value,
  onChange,
  label,
}: {
  value: number | null;
  onChange: (value: number) => void;
  label: string;
}) {
  const t = useReader();
  const word = (n: number): string => (WORDS[n] === '' ? '' : t.say(WORDS[n] ?? ''));
  return (
    <ElevenKeys
      label={label}
      value={value}
      nameOf={(n) => [t.say('Pain {{n}}', { n }), word(n)].filter((w) => w !== '').join(', ')}
      wordOf={word}
      onChange={onChange}
    />
  );
}

const W = 350;
const H = 110;

/** What was answered each morning as a picture: lower is better, in words too. */
export function MorningsPicture({ name, mornings }: { name: string; mornings: readonly Morning[] }) {
  const t = useReader();
  const shown = mornings.slice(-42);
  const [first] = shown;
  const last = shown[shown.length - 1];
  if (first === undefined || last === undefined)
    return <p className="mt-1 text-ink-2">{t.say('Answer each morning, and a line grows here.')}</p>;
  const x = (i: number): number => 8 + (i / Math.max(1, shown.length - 1)) * (W - 46);
  const y = (pain: number): number => 10 + (10 - pain) * ((H - 20) / 10);
  const average = (list: readonly Morning[]) =>
    list.reduce((sum, m) => sum + m.pain, 0) / Math.max(1, list.length);
  const then = average(shown.slice(0, 5));
  const now = average(shown.slice(-5));
  const words =
    shown.length < 10
      ? t.say('A few more mornings, and you can see where it goes.')
      : now <= then - 1
        ? t.say('It went from about {{then}} to about {{now}}.', {
            then: Math.round(then),
            now: Math.round(now),
          })
        : now >= then + 1
          ? t.say('It is a little higher than when you began. Your clinic sees this too.')
          : t.say('About the same so far. Gains often take some weeks.');
  return (
    <figure>
      <svg
        viewBox={`0 0 ${W} ${H}`}
        className="mt-2 w-full"
        role="img"
        aria-label={`${t.say('{{name}} from {{first}} to {{last}}', { name: name.charAt(0).toUpperCase() + name.slice(1), first: t.shortDay(first.day), last: t.shortDay(last.day) })}. ${words}`}
      >
        {[0, 5, 10].map((p) => (
          <g key={p}>
            <line x1={8} x2={W - 34} y1={y(p)} y2={y(p)} stroke="var(--color-line)" />
            <text x={W - 28} y={y(p) + 4} fontSize="12" fill="var(--color-ink-2)">
              {p}
            </text>
          </g>
        ))}
        <path
          d={shown
            .map((m, i) => `${i === 0 ? 'M' : 'L'}${x(i).toFixed(1)} ${y(m.pain).toFixed(1)}`)
            .join(' ')}
          fill="none"
          stroke="var(--color-heather)"
          strokeWidth="3"
          strokeLinejoin="round"
          strokeLinecap="round"
        />
        <circle cx={x(shown.length - 1)} cy={y(last.pain)} r={5} fill="var(--color-heather)" />
      </svg>
      <figcaption className="text-base">{words}</figcaption>
    </figure>
  );
}
