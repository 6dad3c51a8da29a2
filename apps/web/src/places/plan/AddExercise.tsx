import { useMemo, useState } from 'react';
import type { CourseView } from '@heathstep/contracts';
import { type ComposedExercise, type FigureDefinition, prescribe, say } from '@heathstep/core';
import type { ClinicContent } from '../../api/queries.js';
import { Figure } from '../../parts/Figure.js';
import { FindAndChoose } from '../../parts/FindAndChoose.js';
import { type Addable, addable, addableFinder, type PlanLine } from './planModel.js';

interface AddExerciseProps {
  readonly course: CourseView;
  readonly content: ClinicContent;
  readonly lines: readonly PlanLine[];
  readonly add: (item: ComposedExercise) => void;
  readonly close: () => void;
}

/** Any exercise of the library that safety allows; those it switches off are shown with the reason. */
export function AddExercise({ course, content, lines, add, close }: AddExerciseProps) {
  const [q, setQ] = useState('');
  const figures = useMemo(
    () => new Map(content.figures.map((f) => [f.exercise, f] as const)),
    [content.figures],
  );
  const find = useMemo(
    () => addableFinder(addable(lines, course, content), content),
    [lines, course, content],
  );
  return (
    <section className="mt-4 border-t border-line pt-3" aria-label={say('Add an exercise')}>
      <button type="button" className="text-action float-right min-h-11" onClick={close}>
        {say('Close')}
      </button>
      <FindAndChoose
        label={say('Find an exercise')}
        placeholder={say('name, region, or what it is for')}
        fieldClass="field max-w-xs"
        listClass="mt-2 grid max-h-72 grid-cols-2 gap-x-6"
        rowClass="flex min-h-14 items-center gap-3 border-b border-line-2 py-1"
        asked={q}
        onAsked={setQ}
        found={find(q)}
        keyOf={({ exercise }) => exercise.key}
        isOff={({ off }) => off !== null}
        onChoose={({ exercise }) =>
          add({
            ...prescribe(exercise, {
              slot: 'added',
              sideRule: 'treated',
              affected: course.episode.affected,
            }),
            why: [say('Added by the clinician')],
          })
        }
        row={(item) => <Row item={item} content={content} figure={figures.get(item.exercise.key)} />}
        nothing={say('No exercise has all these words.')}
      />
    </section>
  );
}

/** What it is and what it serves; or why it is not to be had, or not yet. */
function Row({
  item: { exercise, off, early, serves },
  content,
  figure,
}: {
  item: Addable;
  content: ClinicContent;
  figure: FigureDefinition | undefined;
}) {
  return (
    <>
      <Drawn figure={figure} />
      <span>
        <span className={`block font-semibold ${off === null ? '' : 'text-ink-2'}`}>{exercise.name}</span>
        <span className="block text-sm text-ink-2">
          {serves !== null && off === null && (
            <b className="text-heather-deep">{say('for {{serves}}: ', { serves: serves.toLowerCase() })}</b>
          )}
          {off === null && early !== null && <span className="block text-hold-deep">{early}</span>}
          {off ?? `${content.ladders.find((l) => l.key === exercise.ladder)?.name ?? ''}, ${exercise.change}`}
        </span>
      </span>
    </>
  );
}

/** Small beside a name, which says it already. */
function Drawn({ figure }: { figure: FigureDefinition | undefined }) {
  return (
    <span className="block h-12 w-16 shrink-0" aria-hidden>
      {figure !== undefined && <Figure figure={figure} side="right" lazy label="" className="size-full" />}
    </span>
  );
}
