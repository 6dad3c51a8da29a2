import { Popover } from 'radix-ui';
import { useState } from 'react';
import {
  ASSUMED_MASS_KG,
  bodyShareKg,
  type ExerciseDefinition,
  parseNumber,
  type Prescription,
  repetitionMaximum,
  shown,
} from '@heathstep/core';
import type { EpisodeView } from '@heathstep/contracts';
import { TextField } from '../../parts/fields.js';
import { Pane } from '../../parts/Pane.js';

const numberOf = (text: string): number | null => {
  const read = parseNumber(text);
  return read.ok ? read.value : null;
};

/** What a weight lifted so many times and not once more says of the weight for this exercise, from those at home. */
export function RepMax({
  item,
  exercise,
  episode,
  onChange,
}: {
  item: Prescription;
  exercise: ExerciseDefinition;
  episode: EpisodeView;
  onChange: (next: Prescription) => void;
}) {
  const [open, setOpen] = useState(false);
  const span = exercise.range.addedKg;
  if (span === undefined || item.tempo === undefined) return null;
  return (
    <Popover.Root open={open} onOpenChange={setOpen}>
      <Popover.Trigger className="text-action inline-flex min-h-9 items-center text-sm">
        Work out the weight
      </Popover.Trigger>
      <Pane aria-label={`Weight for ${exercise.name}`} className="w-96 p-4">
        <Worked
          item={item}
          exercise={exercise}
          episode={episode}
          span={span}
          take={(addedKg) => {
            onChange({ ...item, addedKg });
            setOpen(false);
          }}
        />
      </Pane>
    </Popover.Root>
  );
}

function Worked({
  item,
  exercise,
  episode,
  span,
  take,
}: {
  item: Prescription;
  exercise: ExerciseDefinition;
  episode: EpisodeView;
  span: readonly [number, number];
  take: (addedKg: number) => void;
}) {
  const [kg, setKg] = useState('');
  const [reps, setReps] = useState('');
  const mass = episode.bodyMassKg ?? ASSUMED_MASS_KG;
  const share = bodyShareKg(exercise, mass);
  // Seated, no more than the body weighs; never more than the exercise is safe with.
  const most = Math.min(span[1], mass);
  const lifted = numberOf(kg);
  const times = numberOf(reps);
  const result =
    lifted === null || times === null
      ? null
      : repetitionMaximum({
          loadKg: lifted,
          reps: times,
          targetReps: item.reps,
          stepsKg: episode.weightsKg.filter((w) => w <= most),
          bodyMassKg: share,
        });
  const at = (path: string) =>
    result !== null && !result.ok ? result.issues.find((i) => i.path === path)?.bound : undefined;
  return (
    <>
      <p className="font-semibold">Lifted well so many times, and not once more</p>
      <div className="mt-2 grid grid-cols-2 gap-4">
        <TextField
          label="kg beside the body"
          inputMode="decimal"
          maxLength={6}
          value={kg}
          onChange={setKg}
          error={kg !== '' && lifted === null ? 'a number' : (at('loadKg') ?? null)}
          autoFocus
        />
        <TextField
          label="repetitions, 1 to 12"
          inputMode="numeric"
          maxLength={3}
          value={reps}
          onChange={setReps}
          error={reps !== '' && times === null ? 'a number' : (at('reps') ?? null)}
        />
      </div>
      <div className="mt-2 min-h-16 text-sm" role="status">
        {result?.ok === true && (
          <>
            <p>
              {`Once about ${shown(result.value.oneRepMaxKg)} kg${share > 0 ? `, ${shown(share)} kg of the body in it` : ''}. For ${item.reps} repetitions, of the weights at home: `}
              <b>{result.value.loadKg === null ? 'none' : `${shown(result.value.loadKg)} kg`}</b>.
            </p>
            {result.value.reason !== null && <p className="text-hold-deep">{`${result.value.reason}.`}</p>}
          </>
        )}
        {at('targetReps') !== undefined && (
          <p className="text-hold-deep">
            {`This dose has ${item.reps} repetitions; the estimate holds for ${at('targetReps') ?? ''}. Set the weight by trying it.`}
          </p>
        )}
        {episode.bodyMassKg === null && share > 0 && (
          <p className="text-ink-2">{`Body mass is not known: ${ASSUMED_MASS_KG} kg assumed.`}</p>
        )}
      </div>
      <button
        type="button"
        className="action mt-2 min-h-11"
        disabled={result?.ok !== true || result.value.loadKg === null}
        onClick={() => {
          if (result?.ok === true && result.value.loadKg !== null) take(result.value.loadKg);
        }}
      >
        Use it
      </button>
      <p className="mt-2 text-xs text-ink-3">
        Epley&rsquo;s estimate, rounded down to an owned weight; at most what the exercise is safe with and
        what the body weighs.
      </p>
    </>
  );
}
