import { say } from '@heathstep/core';
import { RadioRow } from '../../../parts/RadioRow.js';
import type { MeasureDefinition, ScoredItem } from '@heathstep/core';
import type { MeasureEntry } from '@heathstep/contracts';
import { PostureDrawing } from './PostureDrawing.js';

/** Scored items that add up: each drawn low, middle and high, one key each, both feet. */
export function Items({
  measure,
  items,
  left,
  right,
  write,
}: {
  measure: MeasureDefinition;
  items: readonly ScoredItem[];
  left: MeasureEntry;
  right: MeasureEntry;
  write: (side: 'left' | 'right', change: (now: MeasureEntry) => MeasureEntry) => void;
}) {
  const score = (side: 'left' | 'right', item: string, value: number | null) =>
    write(side, (now) => {
      const parts = Object.fromEntries(
        Object.entries({ ...now.parts, [item]: value }).filter((p): p is [string, number] => p[1] !== null),
      );
      const whole = items.every((i) => parts[i.key] !== undefined);
      const total = items.reduce((sum, i) => sum + (parts[i.key] ?? 0), 0);
      return { ...now, parts, trials: whole ? [total] : [] };
    });
  const toScore = (entry: MeasureEntry) => items.filter((i) => entry.parts?.[i.key] === undefined).length;
  return (
    <div className="col-span-2" role="group" aria-label={say('Items of {{label}}', { label: measure.label })}>
      {items.map((item) => (
        <div
          key={item.key}
          className="grid grid-cols-[1fr_15rem_1fr] items-center gap-3 border-b border-line-2 py-1 max-md:grid-cols-1"
        >
          <Scores side="left" item={item} value={left.parts?.[item.key] ?? null} onChange={score} />
          <div className="flex items-center gap-2">
            <PostureDrawing item={item.key} lean={-1} title={item.low} />
            <span className="min-w-0 flex-1 text-center text-sm font-semibold leading-tight">
              {item.label}
            </span>
            <PostureDrawing item={item.key} lean={1} title={item.high} />
          </div>
          <Scores side="right" item={item} value={right.parts?.[item.key] ?? null} onChange={score} />
        </div>
      ))}
      <p className="mt-1 text-sm text-ink-2">
        {toScore(left) + toScore(right) === 0
          ? say('All items scored; the totals stand above.')
          : say('To score: {{toScore}} left, {{toScore2}} right. A total can be typed above instead.', {
              toScore: toScore(left),
              toScore2: toScore(right),
            })}
      </p>
    </div>
  );
}

function Scores({
  side,
  item,
  value,
  onChange,
}: {
  side: 'left' | 'right';
  item: ScoredItem;
  value: number | null;
  onChange: (side: 'left' | 'right', item: string, value: number | null) => void;
}) {
  const scores = Array.from({ length: item.max - item.min + 1 }, (_, i) => item.min + i);
  return (
    <RadioRow
      label={`${item.label}, ${say(side)}`}
      className={`flex ${side === 'left' ? 'justify-end' : ''}`}
      value={value === null ? null : String(value)}
      options={scores.map((s) => ({ value: String(s), word: s > 0 ? `+${s}` : s }))}
      onChange={(score) => onChange(side, item.key, Number(score))}
      onClear={() => onChange(side, item.key, null)}
      itemClass={(_, on) =>
        `min-h-10 w-11 border-b-2 text-sm font-semibold ${on ? 'text-paper' : 'border-line hover:bg-heather-wash'}`
      }
      itemStyle={(_, on) =>
        on ? { background: `var(--color-${side})`, borderColor: `var(--color-${side})` } : undefined
      }
    />
  );
}
