import { RadioRow } from '../../parts/RadioRow.js';
import { useState, type SyntheticEvent } from 'react';
import {
  allowable,
  type Limits,
  type Side,
  type Tag,
  WEIGHT_BEARING,
  type WeightBearing,
  say,
} from '@heathstep/core';
import { entryProblem } from '@heathstep/contracts';
import { FieldNote, SelectField, Several, TextField } from '../../parts/fields.js';
import { TAG_WORDS } from '../../parts/tagWords.js';
import type { LiveVisit } from './live.js';

const WHAT: readonly (readonly [Limits['what'], string])[] = [
  ['surgery', say('Surgery')],
  ['cast', say('Cast')],
  ['fracture', say('Fracture')],
  ['other', say('Other')],
];
const WEIGHT_WORDS: Readonly<Record<WeightBearing, string>> = {
  none: say('No weight'),
  partial: say('Part of the weight'),
  full: say('Full weight'),
};

interface Typed {
  readonly what: Limits['what'];
  readonly day: string;
  readonly weightBearing: WeightBearing | null;
  readonly partialKg: string;
  readonly allowed: readonly Tag[];
  readonly text: string;
  readonly by: string;
}

const START: Typed = {
  what: 'surgery',
  day: '',
  weightBearing: null,
  partialKg: '',
  allowed: [],
  text: '',
  by: '',
};

const typedFrom = (l: Limits | null): Typed =>
  l === null ? START : { ...l, partialKg: l.partialKg === null ? '' : String(l.partialKg) };

function problems(t: Typed, today: string): Partial<Record<keyof Typed, string>> {
  const kg = Number(t.partialKg.replace(',', '.'));
  return {
    ...(t.day === '' ? { day: say('Type the date') } : t.day > today ? { day: say('Not after today') } : {}),
    ...(t.weightBearing === null ? { weightBearing: say('Choose how much weight is allowed') } : {}),
    ...(t.weightBearing === 'partial' && !(kg >= 1 && kg <= 150)
      ? { partialKg: say('From 1 to 150 kg') }
      : {}),
    ...(t.text.trim() === '' ? { text: say('Type the allowed range and the limits, in their words') } : {}),
    ...(t.by.trim() === '' ? { by: say('Say who allowed it') } : {}),
  };
}

const limitsOf = (t: Typed): Limits => {
  const weightBearing = t.weightBearing ?? 'none';
  return {
    what: t.what,
    day: t.day,
    weightBearing,
    partialKg: weightBearing === 'partial' ? Number(t.partialKg.replace(',', '.')) : null,
    allowed: t.allowed.filter((tag) => allowable(weightBearing).includes(tag)),
    text: t.text,
    by: t.by,
  };
};

/** What the surgeon or clinic allows of one side; everything not ticked stays off. */
export function LimitsForm({ live, side }: { live: LiveVisit; side: Side }) {
  const key = `limits.${side}` as const;
  const standing = live.get(key);
  const [typed, setTyped] = useState(() => typedFrom(standing));
  const [tried, setTried] = useState(false);
  const wrong = tried ? problems(typed, live.course.episode.today) : {};
  const put = (change: Partial<Typed>) => setTyped((t) => ({ ...t, ...change }));
  const submit = (event: SyntheticEvent) => {
    event.preventDefault();
    setTried(true);
    if (Object.keys(problems(typed, live.course.episode.today)).length > 0) return;
    const limits = limitsOf(typed);
    if (entryProblem(key, limits) === null) live.set(key, limits);
  };
  return (
    <form
      className="mt-2 space-y-3 border-t border-line pt-2"
      onSubmit={submit}
      noValidate
      aria-label={say('What is allowed, {{side}}', { side: say(side) })}
    >
      <div className="flex flex-wrap gap-x-6 gap-y-2">
        <SelectField
          label={say('After')}
          options={WHAT}
          value={typed.what}
          onChange={(what) => put({ what: what as Limits['what'] })}
        />
        <TextField
          label={say('On, or the end of the cast')}
          type="date"
          max={live.course.episode.today}
          value={typed.day}
          onChange={(day) => put({ day })}
          error={wrong.day}
        />
        <WeightAllowed typed={typed} wrong={wrong} side={side} put={put} />
      </div>
      {typed.weightBearing !== null && (
        <Several
          label={say('Allowed now. What is not ticked stays off.')}
          listClass="grid grid-cols-2 gap-x-6 min-[1240px]:grid-cols-3"
          options={allowable(typed.weightBearing).map((tag) => [tag, TAG_WORDS[tag]] as const)}
          value={typed.allowed}
          onChange={(allowed) => put({ allowed: allowed as Tag[] })}
        />
      )}
      <div className="grid grid-cols-[2fr_1fr] gap-6 max-sm:grid-cols-1">
        <TextField
          label={say('Allowed range and limits, in their words')}
          maxLength={2000}
          value={typed.text}
          onChange={(text) => put({ text })}
          error={wrong.text}
        />
        <TextField
          label={say('Said by')}
          maxLength={200}
          value={typed.by}
          onChange={(by) => put({ by })}
          error={wrong.by}
        />
      </div>
      <button type="submit" className="action-quiet">
        {standing === null ? say('Enter these limits') : say('Change the limits')}
      </button>
    </form>
  );
}

/** How much weight the foot may take, and up to how many kilograms. */
function WeightAllowed({
  typed,
  wrong,
  side,
  put,
}: {
  typed: Typed;
  wrong: Partial<Record<keyof Typed, string>>;
  side: Side;
  put: (change: Partial<Typed>) => void;
}) {
  return (
    <>
      <div>
        <span className="block text-sm text-ink-2">{say('Weight-bearing allowed')}</span>
        <RadioRow
          label={say('Weight-bearing allowed, {{side}}', { side: say(side) })}
          value={typed.weightBearing}
          options={WEIGHT_BEARING.map((w) => ({ value: w, word: WEIGHT_WORDS[w] }))}
          onChange={(weightBearing) => put({ weightBearing })}
          itemClass={(_, on) =>
            `min-h-11 px-3 text-sm font-semibold ${on ? 'bg-heather text-paper' : 'text-ink-2 hover:bg-heather-wash'}`
          }
        />
        <FieldNote text={wrong.weightBearing} />
      </div>
      {typed.weightBearing === 'partial' && (
        <TextField
          label={say('Up to, kg')}
          field="field w-24"
          inputMode="decimal"
          value={typed.partialKg}
          onChange={(partialKg) => put({ partialKg })}
          error={wrong.partialKg}
        />
      )}
    </>
  );
}
