import {
  type ComposedExercise,
  dueDays,
  type ExerciseDefinition,
  withDayToggled,
  say,
} from '@heathstep/core';
import { DAYS } from './weekWords.js';

/** The weekdays an exercise is done on; each is put on or off by pressing it. */
export function DayChips({
  item,
  exercise,
  onChange,
}: {
  item: ComposedExercise;
  exercise: ExerciseDefinition;
  onChange: ((item: ComposedExercise) => void) | undefined;
}) {
  const due = dueDays(item);
  if (onChange === undefined && due.length === 7) return null;
  return (
    <div
      role="group"
      aria-label={say('Days of {{name}}', { name: exercise.name })}
      className="mt-1 flex flex-wrap gap-1"
    >
      {DAYS.map((name, day) => {
        const on = due.includes(day);
        const next = withDayToggled(item, day, exercise.range.daysPerWeek);
        const tone = on ? 'bg-heather-wash font-semibold text-heather-deep' : 'text-ink-3';
        return onChange === undefined ? (
          on && (
            <span key={name} className={`rounded px-1.5 py-0.5 text-xs ${tone}`}>
              {name}
            </span>
          )
        ) : (
          <button
            key={name}
            type="button"
            aria-pressed={on}
            aria-label={`${name}, ${exercise.name}`}
            disabled={next === null}
            className={`min-h-[28px] min-w-9 rounded px-1.5 text-xs pointer-coarse:min-h-11 ${tone} ${next === null ? '' : 'hover:bg-heather-wash'}`}
            onClick={() => next !== null && onChange(next)}
          >
            {name}
          </button>
        );
      })}
    </div>
  );
}
