import { SearchField } from '../../parts/fields.js';
import { useMemo, useState } from 'react';
import type { CourseView } from '@heathstep/contracts';
import { type ComposedExercise, type FigureDefinition, prescribe } from '@heathstep/core';
import type { ClinicContent } from '../../api/queries.js';
import { Figure } from '../../parts/Figure.js';
import { addable, addableFinder, type PlanLine } from './planModel.js';

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
  const list = find(q);
  return (
    <section className="mt-4 border-t border-line pt-3" aria-label="Add an exercise">
      <div className="flex items-end gap-4">
        <SearchField
          className="max-w-xs"
          label="Find an exercise"
          placeholder="name, region, or what it is for"
          value={q}
          onChange={setQ}
          autoFocus
        />
        <button type="button" className="text-action min-h-11" onClick={close}>
          Close
        </button>
      </div>
      {list.length === 0 && <p className="mt-3 text-ink-2">No exercise has all these words.</p>}
      <ul className="mt-2 grid max-h-72 grid-cols-2 gap-x-6 overflow-y-auto">
        {list.map(({ exercise, off, early, serves }) => (
          <li key={exercise.key}>
            <button
              type="button"
              disabled={off !== null}
              className="flex min-h-14 w-full items-center gap-3 border-b border-line-2 py-1 text-left hover:bg-paper disabled:opacity-60"
              onClick={() =>
                add({
                  ...prescribe(exercise, {
                    slot: 'added',
                    sideRule: 'treated',
                    affected: course.episode.affected,
                  }),
                  why: ['Added by the clinician'],
                })
              }
            >
              <Drawn figure={figures.get(exercise.key)} />
              <span>
                <span className="block font-semibold">{exercise.name}</span>
                <span className="block text-sm text-ink-2">
                  {serves !== null && off === null && (
                    <b className="text-heather-deep">{`for ${serves.toLowerCase()}: `}</b>
                  )}
                  {off === null && early !== null && <span className="block text-hold-deep">{early}</span>}
                  {off ??
                    `${content.ladders.find((l) => l.key === exercise.ladder)?.name ?? ''}, ${exercise.change}`}
                </span>
              </span>
            </button>
          </li>
        ))}
      </ul>
    </section>
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
