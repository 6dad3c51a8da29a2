import { besideOf, type Stage } from '@heathstep/core';

export function LeftOut({ left }: { left: readonly { readonly name: string; readonly why: string }[] }) {
  if (left.length === 0) return null;
  return (
    <section className="mt-5 border-t border-line pt-4">
      <h3>Left out, and why</h3>
      <ul className="mt-1 text-sm">
        {left.map((l) => (
          <li key={l.name} className="py-1">
            <span className="font-semibold">{l.name}</span>
            <span className="block text-ink-2">{l.why}</span>
          </li>
        ))}
      </ul>
    </section>
  );
}

export function Adjuncts({ stage, schools }: { stage: Stage; schools: Readonly<Record<string, string>> }) {
  const list = besideOf(stage, schools);
  if (list.length === 0) return null;
  return (
    <section className="mt-5 border-t border-line pt-4">
      <h3>Beside the exercises</h3>
      <ul className="mt-1 text-sm">
        {list.map((a) => (
          <li key={a.key} className="py-1">
            {a.text}.<span className="block text-ink-2">{a.reason}.</span>
          </li>
        ))}
      </ul>
    </section>
  );
}
