import { hintUsed } from './Hint.js';
import { useEffect, useRef, useState, type KeyboardEvent, type PointerEvent } from 'react';
import {
  doseFieldValue,
  doseRange,
  doseSentence,
  type DoseField,
  type ExerciseDefinition,
  parseNumber,
  type Prescription,
  SHORTEST_REASON,
  withBeyond,
  withDoseField,
  say,
} from '@heathstep/core';

interface DoseSentenceProps {
  readonly prescription: Prescription;
  readonly exercise: ExerciseDefinition;
  /** Left out where the sentence is only read. */
  readonly onChange?: (next: Prescription) => void;
  readonly errors?: Readonly<Record<string, string>>;
}

const STEPS: Record<DoseField, number> = {
  sets: 1,
  reps: 1,
  holdSeconds: 5,
  upSeconds: 1,
  topSeconds: 1,
  downSeconds: 1,
  restSeconds: 15,
  addedKg: 0.5,
  timesPerDay: 1,
  daysPerWeek: 1,
};
const NAMES: Record<DoseField, string> = {
  sets: say('Sets'),
  reps: say('Repetitions or holds'),
  holdSeconds: say('Seconds of a hold'),
  upSeconds: say('Seconds up'),
  topSeconds: say('Seconds at the top'),
  downSeconds: say('Seconds down'),
  restSeconds: say('Seconds of rest'),
  addedKg: say('Kilograms'),
  timesPerDay: say('Times a day'),
  daysPerWeek: say('Days a week'),
};

/** A prescription as one plain sentence in which every number is edited in place. */
export function DoseSentence({ prescription, exercise, onChange, errors = {} }: DoseSentenceProps) {
  const parts = doseSentence(prescription, exercise);
  const sided = exercise.laterality === 'per-side';
  return (
    <p className="text-[1.05rem] leading-8">
      {parts.map((part, i) => {
        if (part.kind === 'words' || onChange === undefined) return <span key={i}>{part.text}</span>;
        if (part.kind === 'sides')
          return sided ? (
            <Sides key={i} prescription={prescription} onChange={onChange} text={part.text} />
          ) : (
            <span key={i}>{part.text}</span>
          );
        if (part.kind === 'variant')
          return (
            <Variants
              key={i}
              prescription={prescription}
              exercise={exercise}
              onChange={onChange}
              text={part.text}
            />
          );
        return (
          <NumberPart
            key={part.field}
            field={part.field}
            text={part.text}
            prescription={prescription}
            exercise={exercise}
            onChange={onChange}
            error={errors[part.field] ?? null}
          />
        );
      })}
      .
    </p>
  );
}

const LAPS: readonly Prescription['sides'][] = ['left', 'right', 'one-after-other', 'alternating'];

/** A press, or the arrow keys, go through the ways of doing the sides. */
function Sides({
  prescription,
  onChange,
  text,
}: {
  prescription: Prescription;
  onChange: (next: Prescription) => void;
  text: string;
}) {
  const turn = (by: number) => {
    const at = LAPS.indexOf(prescription.sides);
    const next = LAPS[(at + by + LAPS.length) % LAPS.length];
    if (next !== undefined) onChange({ ...prescription, sides: next });
  };
  const colour =
    prescription.sides === 'left' || prescription.sides === 'right'
      ? `var(--color-${prescription.sides})`
      : undefined;
  return (
    <button
      type="button"
      aria-label={say('Sides: {{text}}', { text })}
      className="rounded-[1px] font-semibold underline decoration-heather decoration-dotted decoration-2 underline-offset-[5px] hover:bg-heather-wash"
      style={{ color: colour }}
      onClick={() => turn(1)}
      onKeyDown={(event) => {
        if (event.key === 'ArrowUp' || event.key === 'ArrowDown') {
          event.preventDefault();
          turn(event.key === 'ArrowUp' ? 1 : -1);
        }
      }}
    >
      {text}
    </button>
  );
}

/** A press, or the arrow keys, go through the usual way and the variants. */
function Variants({
  prescription,
  exercise,
  onChange,
  text,
}: {
  prescription: Prescription;
  exercise: ExerciseDefinition;
  onChange: (next: Prescription) => void;
  text: string;
}) {
  const ways = [undefined, ...exercise.variants.map((v) => v.key)];
  const turn = (by: number) => {
    const { variant, ...usual } = prescription;
    const next = ways[(ways.indexOf(variant) + by + ways.length) % ways.length];
    onChange(next === undefined ? usual : { ...usual, variant: next });
  };
  const words = text === '' ? say('the usual way') : text.slice(2);
  return (
    <>
      {', '}
      <button
        type="button"
        aria-label={say('Way: {{words}}', { words })}
        title={exercise.variants.find((v) => v.key === prescription.variant)?.how}
        className="rounded-[1px] font-semibold underline decoration-heather decoration-dotted decoration-2 underline-offset-[5px] hover:bg-heather-wash"
        onClick={() => turn(1)}
        onKeyDown={(event) => {
          if (event.key === 'ArrowUp' || event.key === 'ArrowDown') {
            event.preventDefault();
            turn(event.key === 'ArrowUp' ? 1 : -1);
          }
        }}
      >
        {words}
      </button>
    </>
  );
}

function spanOf(p: Prescription, exercise: ExerciseDefinition, field: DoseField): readonly [number, number] {
  return doseRange(p, exercise)[field] ?? [0, 999];
}

const WHOLE: ReadonlySet<DoseField> = new Set(['sets', 'reps', 'timesPerDay', 'daysPerWeek']);

interface NumberPartProps {
  readonly field: DoseField;
  readonly text: string;
  readonly prescription: Prescription;
  readonly exercise: ExerciseDefinition;
  readonly onChange: (next: Prescription) => void;
  readonly error: string | null;
}

/** Typing replaces the number, arrow keys step it, a drag slides it; always within the safe range. */
function NumberPart({ field, text, prescription, exercise, onChange, error }: NumberPartProps) {
  const value = doseFieldValue(prescription, field) ?? 0;
  const [typing, setTyping] = useState<string | null>(null);
  const input = useRef<HTMLInputElement>(null);
  const [min, max] = spanOf(prescription, exercise, field);
  const parsed = typing === null ? null : parseNumber(typing);
  const number = parsed !== null && parsed.ok ? parsed.value : null;
  const whole = WHOLE.has(field);
  const fits = (n: number | null, [least, most]: readonly [number, number]): n is number =>
    n !== null && n >= least && n <= most && (!whole || Number.isInteger(n));
  const [least, most] = spanOf({ ...prescription, beyond: '' }, exercise, field);
  const far = fits(number, [least, most]);
  const problem = problemOf({
    typing,
    error,
    fits: fits(number, [min, max]),
    far,
    whole,
    min,
    max,
    least,
    most,
  });
  const [asking, setAsking] = useState<number | null>(null);
  useEffect(() => {
    if (typing !== null) input.current?.focus();
  }, [typing]);
  const put = (next: number, reason?: string) => {
    hintUsed('dose');
    const [from, to] = reason === undefined ? [min, max] : [least, most];
    const kept = Math.min(to, Math.max(from, Math.round(next * 100) / 100));
    onChange(withBeyond(withDoseField(prescription, field, kept), exercise, reason ?? prescription.beyond));
  };
  const step = (by: number) => put(value + by * STEPS[field]);
  const slide = useSlide({ value, step: STEPS[field], put, pressed: () => setTyping('') });
  const finish = () => {
    if (typing !== null && problem === null && number !== null) put(number);
    // A number beyond the usual is not thrown away: it asks for its reason.
    else if (far) setAsking(number);
    setTyping(null);
  };
  if (asking !== null)
    return (
      <Reason
        of={say('{{field}}: {{asking}}, beyond {{min}} to {{max}}', {
          field: NAMES[field],
          asking,
          min,
          max,
        })}
        keep={(reason) => {
          put(asking, reason);
          setAsking(null);
        }}
        leave={() => setAsking(null)}
      />
    );
  if (typing !== null) {
    return (
      <TypedNumber
        input={input}
        field={field}
        min={min}
        max={max}
        problem={problem}
        typing={typing}
        value={value}
        setTyping={setTyping}
        finish={finish}
      />
    );
  }
  return (
    <span
      role="spinbutton"
      tabIndex={0}
      aria-label={NAMES[field]}
      aria-valuenow={value}
      aria-valuemin={min}
      aria-valuemax={max}
      aria-valuetext={text}
      title={say('{{min}} to {{max}}', { min, max })}
      className={`cursor-ew-resize touch-none select-none rounded-[1px] font-semibold underline decoration-dotted decoration-2 underline-offset-[5px] hover:bg-heather-wash ${error === null ? 'decoration-heather' : 'bg-ease-wash decoration-ease'}`}
      onKeyDown={(event) => keyed(event, step, setTyping)}
      {...slide}
    >
      {text}
    </span>
  );
}

/** Arrows step a number, a digit begins to replace it. */
function keyed(event: KeyboardEvent, step: (by: number) => void, type: (text: string) => void): void {
  if (event.key === 'ArrowUp' || event.key === 'ArrowRight') step(1);
  else if (event.key === 'ArrowDown' || event.key === 'ArrowLeft') step(-1);
  else if (/^[\d]$/.test(event.key)) type(event.key);
  else if (event.key === 'Enter' || event.key === ' ') type('');
  else return;
  event.preventDefault();
}

/** What is wrong with a number as it is typed, or with the one that stands. */
function problemOf(of: {
  readonly typing: string | null;
  readonly error: string | null;
  readonly fits: boolean;
  readonly far: boolean;
  readonly whole: boolean;
  readonly min: number;
  readonly max: number;
  readonly least: number;
  readonly most: number;
}): string | null {
  if (of.typing === null) return of.error;
  if (of.fits) return null;
  const usual = say('{{words}}{{min}} to {{max}}', {
    words: of.whole ? say('a whole number ') : '',
    min: of.min,
    max: of.max,
  });
  return of.far
    ? say('usually {{usual}}; Enter, and say why', { usual })
    : say('{{usual}}, with a reason {{least}} to {{most}}', { usual, least: of.least, most: of.most });
}

/** Asks why a dose goes beyond the usual range; Enter keeps it, Escape leaves the number as it was. */
function Reason({ of, keep, leave }: { of: string; keep: (reason: string) => void; leave: () => void }) {
  const [reason, setReason] = useState('');
  const fine = reason.trim().length >= SHORTEST_REASON;
  return (
    <span className="mx-0.5 inline-flex flex-wrap items-baseline gap-2 rounded bg-hold-wash px-2 text-hold-deep">
      {of}
      <input
        autoFocus
        aria-label={say('Why {{of}}', { of })}
        placeholder={say('why')}
        maxLength={200}
        className="w-44 border-b-2 border-hold bg-paper px-1 text-ink focus:outline-none"
        value={reason}
        onChange={(e) => setReason(e.target.value)}
        onKeyDown={(e) => {
          if (e.key === 'Enter' && fine) keep(reason.trim());
          if (e.key === 'Escape') leave();
        }}
      />
      <button
        type="button"
        className="text-action text-sm disabled:opacity-50"
        disabled={!fine}
        onClick={() => keep(reason.trim())}
      >
        {say('Keep')}
      </button>
      <button type="button" className="text-sm" onClick={leave}>
        {say('Not')}
      </button>
    </span>
  );
}

/** How far a finger or pointer goes for one step, in px. */
const PX_PER_STEP = 14;

interface Slide {
  readonly value: number;
  readonly step: number;
  readonly put: (next: number) => void;
  /** Touched and let go without sliding. */
  readonly pressed: () => void;
}

/** A number slid sideways. */
function useSlide({ value, step, put, pressed }: Slide) {
  const drag = useRef<{ x: number; value: number; moved: boolean } | null>(null);
  return {
    onPointerDown: (event: PointerEvent<HTMLElement>) => {
      drag.current = { x: event.clientX, value, moved: false };
      event.currentTarget.setPointerCapture(event.pointerId);
    },
    onPointerMove: (event: PointerEvent<HTMLElement>) => {
      const from = drag.current;
      if (from === null) return;
      const steps = Math.round((event.clientX - from.x) / PX_PER_STEP);
      if (steps !== 0) from.moved = true;
      if (from.moved) put(from.value + steps * step);
    },
    onPointerUp: () => {
      if (drag.current?.moved === false) pressed();
      drag.current = null;
    },
  };
}

/** The number as it is typed, and what is wrong with it. */
function TypedNumber({
  input,
  field,
  min,
  max,
  problem,
  typing,
  value,
  setTyping,
  finish,
}: {
  input: React.RefObject<HTMLInputElement | null>;
  field: DoseField;
  min: number;
  max: number;
  problem: string | null;
  typing: string;
  value: number;
  setTyping: (next: string | null) => void;
  finish: () => void;
}) {
  return (
    <span className="relative mx-0.5 inline-block">
      <input
        ref={input}
        aria-label={say('{{field}}, {{min}} to {{max}}', { field: NAMES[field], min, max })}
        aria-invalid={problem !== null && typing !== ''}
        inputMode="decimal"
        maxLength={8}
        placeholder={String(value)}
        className={`w-16 rounded-sm border-b-2 bg-heather-wash px-1 text-center font-semibold focus:outline-none ${problem !== null && typing !== '' ? 'border-ease' : 'border-heather'}`}
        value={typing}
        onChange={(e) => setTyping(e.target.value)}
        onBlur={finish}
        onKeyDown={(e) => {
          if (e.key === 'Enter') finish();
          if (e.key === 'Escape') setTyping(null);
        }}
      />
      {problem !== null && typing !== '' && (
        <span
          role="alert"
          className="absolute left-0 top-full z-20 whitespace-nowrap rounded bg-ease px-2 py-0.5 text-sm leading-6 text-paper"
        >
          {problem}
        </span>
      )}
    </span>
  );
}
