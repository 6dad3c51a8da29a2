import { useMemo, useState } from 'react';
import { Link } from 'react-router';
import { type ExerciseDefinition, rungsOf } from '@heathstep/core';
import { type ClinicContent, useContent } from '../../api/queries.js';
import { Failed, Loading } from '../../app/Failures.js';
import { Figure } from '../../parts/Figure.js';
import { DrawnAs } from './DrawnAs.js';
import { type Chosen, countsOf, type Facet, FACETS, indexOf, narrowed } from './libraryModel.js';

/** Every exercise, drawn, on its ladder from the easiest to the hardest. */
export function Library() {
  const content = useContent();
  if (content.data === undefined)
    return content.error === null ? (
      <Loading what="the library" />
    ) : (
      <Failed error={content.error} again={() => void content.refetch()} />
    );
  return <Whole content={content.data} />;
}

function Whole({ content }: { content: ClinicContent }) {
  const { exercises, ladders } = content;
  const [query, setQuery] = useState('');
  const [chosen, setChosen] = useState<Chosen>({});
  const index = useMemo(() => indexOf(exercises), [exercises]);
  const found = narrowed(exercises, index, query, chosen);
  const shown = new Set(found.map((e) => e.key));
  const choose = (facet: Facet, word: string) => {
    const { [facet]: _before, ...others } = chosen;
    setChosen(word === '' ? others : { ...others, [facet]: word });
  };
  const narrow = query.trim() !== '' || Object.keys(chosen).length > 0;
  const labelOf = (facet: Facet, word: string) =>
    facet === 'driver'
      ? (content.drivers.find((d) => d.key === word)?.label ?? word)
      : word.replaceAll('-', ' ');
  return (
    <main className="px-6 py-5">
      <div className="flex items-baseline justify-between">
        <h1>Exercises</h1>
        <DrawnAs />
      </div>
      <div className="mt-3 flex flex-wrap items-end gap-x-5 gap-y-2 border-b border-line pb-3">
        <label className="min-w-64">
          <span className="sr-only">Find an exercise</span>
          <input
            className="field"
            type="search"
            aria-label="Find an exercise"
            placeholder="words of its name, steps or faults"
            value={query}
            maxLength={60}
            onChange={(e) => setQuery(e.target.value)}
          />
        </label>
        {FACETS.map((facet) => (
          <label key={facet}>
            <span className="block text-sm text-ink-2">{facet}</span>
            <select
              className="field min-h-11 max-w-44"
              value={chosen[facet] ?? ''}
              onChange={(e) => choose(facet, e.target.value)}
            >
              <option value="">any</option>
              {countsOf(exercises, index, query, chosen, facet).map(({ word, count }) => (
                <option key={word} value={word} disabled={count === 0}>
                  {`${labelOf(facet, word)} (${count})`}
                </option>
              ))}
            </select>
          </label>
        ))}
        {narrow && (
          <button
            type="button"
            className="text-action min-h-11"
            onClick={() => {
              setQuery('');
              setChosen({});
            }}
          >
            Show all
          </button>
        )}
        <p className="min-h-11 content-center text-sm text-ink-2" role="status">
          {`${found.length} of ${exercises.length}`}
        </p>
      </div>
      {found.length === 0 && (
        <p className="py-6 text-ink-2">
          No exercise fits all of this. Take one choice back, or use fewer words.
        </p>
      )}
      <div className="flex flex-wrap items-end gap-x-10">
        {ladders.map((ladder) => {
          const rungs = rungsOf(exercises, ladder.key);
          if (!rungs.some((e) => shown.has(e.key))) return null;
          return (
            <section key={ladder.key} aria-label={ladder.name} className="max-w-full py-4">
              <h2 className="text-lg">{ladder.name}</h2>
              <p className="text-sm text-ink-2">{ladder.purpose}</p>
              <ol className="mt-2 flex items-end gap-1 overflow-x-auto pb-2">
                {rungs.map((e) => (
                  <Rung
                    key={e.key}
                    exercise={e}
                    content={content}
                    faint={!shown.has(e.key)}
                    of={rungs.length}
                  />
                ))}
              </ol>
            </section>
          );
        })}
      </div>
    </main>
  );
}

/** The rise of one step of the stairs, in rem. */
const RISE = 0.9;

function Rung({
  exercise,
  content,
  faint,
  of,
}: {
  exercise: ExerciseDefinition;
  content: ClinicContent;
  faint: boolean;
  of: number;
}) {
  const figure = content.figures.find((f) => f.exercise === exercise.key);
  return (
    <li className={`w-44 shrink-0 ${faint ? 'opacity-35' : ''}`}>
      <Link
        to={`/library/${exercise.key}`}
        className="block hover:bg-heather-wash"
        tabIndex={faint ? -1 : 0}
        aria-hidden={faint}
      >
        {figure !== undefined && (
          <Figure figure={figure} side="right" label={`${exercise.name}, drawn`} className="h-32 w-full" />
        )}
        <span
          className="block border-t-[3px] border-ink-3 bg-paper px-2 pt-1.5"
          style={{
            paddingBottom: `${0.4 + RISE * (exercise.rung - 1)}rem`,
            minHeight: `${4 + RISE * (exercise.rung - 1)}rem`,
          }}
        >
          <span className="block font-semibold leading-tight">{exercise.name}</span>
          <span className="text-sm leading-tight text-ink-2">
            {of > 1 && exercise.change !== 'the start' ? exercise.change : ''}
          </span>
        </span>
      </Link>
    </li>
  );
}
