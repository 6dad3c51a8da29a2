import { say } from '@heathstep/core';
import { type Toe, TOE_SHAPES, type ToeEntry, TOES } from '@heathstep/contracts';
import type { Side } from '@heathstep/core';
import { SideCaption } from '../../../parts/AreaMap.js';
import type { LiveVisit } from '../live.js';

/** A toe from the side, bent at the joint its name says. */
const PROFILES: Record<ToeEntry['shape'], string> = {
  straight: 'M4 30 H52',
  claw: 'M4 34 L18 22 L32 26 L40 40',
  hammer: 'M4 32 L20 22 L36 36 L48 36',
  mallet: 'M4 28 H36 L44 42',
};

/** Each toe by its shape, and whether a hand can straighten it. A tap goes to the next shape. */
export function ToesPanel({ live }: { live: LiveVisit }) {
  return (
    <div className="grid grid-cols-2 gap-8">
      <Foot live={live} side="left" order={[...TOES].reverse()} />
      <Foot live={live} side="right" order={TOES} />
    </div>
  );
}

function Foot({
  live,
  side,
  order,
}: {
  live: LiveVisit;
  side: Side;
  order: readonly (readonly [Toe, string])[];
}) {
  const key = `look.toes.${side}` as const;
  const toes = live.get(key) ?? {};
  const put = (toe: Toe, entry: ToeEntry) => live.set(key, { ...toes, [toe]: entry });
  return (
    <figure>
      <div className="flex gap-1">
        {order.map(([toe, name]) => {
          const entry = toes[toe];
          const at = entry === undefined ? -1 : TOE_SHAPES.indexOf(entry.shape);
          const following = TOE_SHAPES[(at + 1) % TOE_SHAPES.length] ?? 'straight';
          const bent = entry !== undefined && entry.shape !== 'straight';
          return (
            <div key={toe} className="flex-1 text-center">
              <button
                type="button"
                className={`min-h-11 w-full rounded border-2 ${bent ? 'border-hold bg-hold-wash' : entry === undefined ? 'border-dashed border-line' : 'border-line'}`}
                aria-label={`${name}, ${say(side)}: ${say(entry?.shape ?? 'not looked at')}`}
                onClick={() =>
                  put(toe, { shape: following, rigid: following !== 'straight' && entry?.rigid === true })
                }
              >
                <svg viewBox="0 0 56 48" className="h-12 w-full" aria-hidden>
                  <path
                    d={PROFILES[entry?.shape ?? 'straight']}
                    fill="none"
                    stroke={entry === undefined ? 'var(--color-line)' : `var(--color-${side})`}
                    strokeWidth={toe === 'big' ? 12 : 9}
                    strokeLinecap="round"
                    strokeLinejoin="round"
                  />
                </svg>
              </button>
              <div className="text-xs text-ink-2">{name.replace(' toe', '')}</div>
              <div className="text-xs font-semibold">{entry?.shape ?? ''}</div>
              {bent && (
                <button
                  type="button"
                  aria-pressed={entry.rigid}
                  aria-label={`${name}, ${say(side)}: ${entry.rigid ? say('rigid') : say('correctable')}`}
                  className={`min-h-11 w-full rounded text-xs ${entry.rigid ? 'bg-ease-wash font-bold text-ease-deep' : 'bg-line-2'}`}
                  onClick={() => put(toe, { ...entry, rigid: !entry.rigid })}
                >
                  {entry.rigid ? say('rigid') : say('correctable')}
                </button>
              )}
            </div>
          );
        })}
      </div>
      <SideCaption side={side} />
      <button
        type="button"
        className="text-action mx-auto block min-h-11 text-sm"
        onClick={() =>
          live.set(
            key,
            Object.fromEntries(TOES.map(([t]) => [t, toes[t] ?? { shape: 'straight', rigid: false }])),
          )
        }
      >
        {say('The rest straight, {{side}}', { side: say(side) })}
      </button>
    </figure>
  );
}
