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
  say,
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
        {say('Work out the weight')}
      </Popover.Trigger>
      <Pane aria-label={say('Weight for {{name}}', { name: exercise.name })} className="w-96 p-4">
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
      <p className="font-semibold">{say('Lifted well so many times, and not once more')}</p>
      <div className="mt-2 grid grid-cols-2 gap-4">
        <TextField
          label={say('kg beside the body')}
          inputMode="decimal"
          maxLength={6}
          value={kg}
          onChange={setKg}
          error={kg !== '' && lifted === null ? say('a number') : (at('loadKg') ?? null)}
          autoFocus
        />
        <TextField
          label={say('repetitions, 1 to 12')}
          inputMode="numeric"
          maxLength={3}
          value={reps}
          onChange={setReps}
          error={reps !== '' && times === null ? say('a number') : (at('reps') ?? null)}
        />
      </div>
      <Told
        {...{ result, item, share, beyond: at('targetReps') ?? null, assumed: episode.bodyMassKg === null }}
      />
      <button
        type="button"
        className="action mt-2 min-h-11"
        disabled={result?.ok !== true || result.value.loadKg === null}
        onClick={() => {
          if (result?.ok === true && result.value.loadKg !== null) take(result.value.loadKg);
        }}
      >
        {say('Use it')}
      </button>
      <p className="mt-2 text-xs text-ink-3">
        {say(
          'Epley’s estimate, rounded down to an owned weight; at most what the exercise is safe with and what the body weighs.',
        )}
      </p>
    </>
  );
}

/** What the estimate comes to, and what it rests on. */
function Told({
  result,
  item,
  share,
  beyond,
  assumed,
}: {
  result: ReturnType<typeof repetitionMaximum> | null;
  item: Prescription;
  share: number;
  beyond: string | null;
  /** The body mass is not known. */
  assumed: boolean;
}) {
  return (
    <div className="mt-2 min-h-16 text-sm" role="status">
      {result?.ok === true && (
        <>
          <p>
            {say(
              'Once about {{oneRepMaxKg}} kg{{words}}. For {{reps}} repetitions, of the weights at home: ',
              {
                oneRepMaxKg: shown(result.value.oneRepMaxKg),
                words: share > 0 ? say(', {{share}} kg of the body in it', { share: shown(share) }) : '',
                reps: item.reps,
              },
            )}
            <b>
              {result.value.loadKg === null
                ? say('none')
                : say('{{loadKg}} kg', { loadKg: shown(result.value.loadKg) })}
            </b>
            .
          </p>
          {result.value.reason !== null && <p className="text-hold-deep">{`${result.value.reason}.`}</p>}
        </>
      )}
      {beyond !== null && (
        <p className="text-hold-deep">
          {say(
            'This dose has {{reps}} repetitions; the estimate holds for {{at}}. Set the weight by trying it.',
            { reps: item.reps, at: beyond },
          )}
        </p>
      )}
      {assumed && share > 0 && (
        <p className="text-ink-2">
          {say('Body mass is not known: {{assumedKg}} kg assumed.', { assumedKg: ASSUMED_MASS_KG })}
        </p>
      )}
    </div>
  );
}
