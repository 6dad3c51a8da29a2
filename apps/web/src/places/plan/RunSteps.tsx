import { isWalkRun, type Prescription, WALK_RUN_STEPS, walkRunAt, say } from '@heathstep/core';
import type { ExerciseDefinition } from '@heathstep/core';

/** The steps of running and walking in turn, the one it stands on marked; a press sets another. */
export function RunSteps({
  item,
  exercise,
  onChange,
}: {
  item: Prescription;
  exercise: ExerciseDefinition;
  /** Left out where nothing can be changed. */
  onChange?: ((next: Prescription) => void) | undefined;
}) {
  const { tempo } = item;
  if (!isWalkRun(exercise) || tempo === undefined) return null;
  const at = walkRunAt(item);
  return (
    <div className="mt-1">
      <ol className="flex flex-wrap gap-1" aria-label={say('{{name}}: its steps', { name: exercise.name })}>
        {WALK_RUN_STEPS.map((step, i) => {
          const words = `${step.runSeconds / 60} : ${step.walkSeconds / 60}`;
          const look = `inline-flex min-h-9 min-w-14 items-center justify-center border-b-2 px-2 text-sm font-semibold ${i === at ? 'border-heather bg-heather-wash text-heather-deep' : i < at ? 'border-ink-3 text-ink-2' : 'border-line text-ink-2'}`;
          return (
            <li key={words} aria-current={i === at ? 'step' : undefined}>
              {onChange === undefined ? (
                <span className={look}>{words}</span>
              ) : (
                <button
                  type="button"
                  className={`${look} hover:bg-heather-wash`}
                  aria-label={say('{{runSeconds}} min run, {{walkSeconds}} min walk', {
                    runSeconds: step.runSeconds / 60,
                    walkSeconds: step.walkSeconds / 60,
                  })}
                  aria-pressed={i === at}
                  onClick={() =>
                    onChange({
                      ...item,
                      tempo: { ...tempo, upSeconds: step.runSeconds, downSeconds: step.walkSeconds },
                    })
                  }
                >
                  {words}
                </button>
              )}
            </li>
          );
        })}
      </ol>
      <p className="text-sm text-ink-2">
        {say(
          'Minutes run : walked. The log moves it: on after three green runs at a step, the same again on amber, one step back on red; 48 hours between two runs.',
        )}
      </p>
    </div>
  );
}
