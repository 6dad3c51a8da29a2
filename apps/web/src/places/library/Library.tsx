import { TableLink } from '../../parts/TableLink.js';
import { SearchField } from '../../parts/fields.js';
import { Star } from 'lucide-react';
import { memo, useCallback, useDeferredValue, useMemo, useState } from 'react';
import { Link } from 'react-router';
import type { Ladder } from '@heathstep/content';
import { type ExerciseDefinition, type FigureDefinition, rungsOf, say, sayKey } from '@heathstep/core';
import { type ClinicContent, useContent } from '../../api/queries.js';
import { Failed, Loading } from '../../parts/Waiting.js';
import { Figure } from '../../parts/Figure.js';
import { DrawnAs } from './DrawnAs.js';
import { ImportFile } from './ImportFile.js';
import {
  type Chosen,
  countsOf,
  type Facet,
  FACETS,
  type Index,
  indexOf,
  narrowed,
  offered,
} from './libraryModel.js';

/** Every exercise, drawn, on its ladder from the easiest to the hardest. */
export function Library() {
  const content = useContent();
  if (content.data === undefined)
    return content.error === null ? (
      <Loading what={say('the library')} />
    ) : (
      <Failed error={content.error} again={() => void content.refetch()} />
    );
  return <Whole content={content.data} />;
}

function Whole({ content }: { content: ClinicContent }) {
  const exercises = useMemo(() => offered(content), [content]);
  const favourites = useMemo(() => new Set(content.favourites), [content.favourites]);
  const { figures, stairs } = useStairs(content, exercises);
  const [query, setQuery] = useState('');
  const [chosen, setChosen] = useState<Chosen>({});
  const [starred, setStarred] = useState(false);
  const [moving, setMoving] = useState(false);
  const index = useMemo(() => indexOf(exercises), [exercises]);
  const asked = useDeferredValue(query);
  const found = useMemo(
    () => narrowed(index, asked, chosen).filter((e) => !starred || favourites.has(e.key)),
    [index, asked, chosen, starred, favourites],
  );
  const shown = useMemo(() => new Set(found.map((e) => e.key)), [found]);
  const choose = useCallback(
    (facet: Facet, word: string) =>
      setChosen(({ [facet]: _before, ...others }) => (word === '' ? others : { ...others, [facet]: word })),
    [],
  );
  const showAll = () => {
    setQuery('');
    setChosen({});
    setStarred(false);
  };
  const narrow = query.trim() !== '' || starred || Object.keys(chosen).length > 0;
  return (
    <main className="px-6 py-5">
      <LibraryHead />
      <div className="mt-2 flex flex-wrap items-end gap-x-4 gap-y-2 border-b border-line pb-3">
        <label className="w-52">
          <span className="sr-only">{say('Find an exercise')}</span>
          <SearchField
            label={say('Find an exercise')}
            placeholder={say('words of its name, steps or faults')}
            value={query}
            onChange={setQuery}
          />
        </label>
        <Facets content={content} index={index} asked={asked} chosen={chosen} choose={choose} />
        <FavouritesOnly on={starred} set={setStarred} count={favourites.size} />
        <button
          type="button"
          className="text-action min-h-11"
          aria-pressed={moving}
          onClick={() => setMoving(!moving)}
        >
          {moving ? say('Hold them still') : say('See them move')}
        </button>
        {narrow && (
          <button type="button" className="text-action min-h-11" onClick={showAll}>
            {say('Show all')}
          </button>
        )}
        <p className="min-h-11 content-center text-sm text-ink-2" role="status">
          {say('{{n}} of {{n2}}', { n: found.length, n2: exercises.length })}
        </p>
      </div>
      {found.length === 0 && (
        <p className="py-6 text-ink-2">
          {starred && favourites.size === 0
            ? say('No favourites yet. The star beside an exercise’s name keeps it here for you.')
            : say('No exercise fits all of this. Take one choice back, or use fewer words.')}
        </p>
      )}
      <Stairs stairs={stairs} shown={shown} figures={figures} favourites={favourites} moving={moving} />
    </main>
  );
}

/** The ladders with their rungs, and the figures by exercise. */
function useStairs(content: ClinicContent, exercises: readonly ExerciseDefinition[]) {
  const figures = useMemo(
    () => new Map(content.figures.map((f) => [f.exercise, f] as const)),
    [content.figures],
  );
  const stairs = useMemo(
    () => content.ladders.map((ladder) => ({ ladder, rungs: rungsOf(exercises, ladder.key) })),
    [content.ladders, exercises],
  );
  return { figures, stairs };
}

function LibraryHead() {
  return (
    <div className="flex flex-wrap items-baseline gap-x-6">
      <h1 className="flex-1">{say('Exercises')}</h1>
      <TableLink href="/api/content/exercises.csv">{say('As a table')}</TableLink>
      <Link to="/library/new" className="text-action min-h-11 content-center">
        {say('Add our own')}
      </Link>
      <ImportFile />
      <Link to="/library/equipment" className="text-action min-h-11 content-center">
        {say('Bands and stand-ins')}
      </Link>
      <Link to="/library/protocols" className="text-action min-h-11 content-center">
        {say('Protocols')}
      </Link>
      <DrawnAs />
    </div>
  );
}

function FavouritesOnly({ on, set, count }: { on: boolean; set: (on: boolean) => void; count: number }) {
  return (
    <button
      type="button"
      className={`inline-flex min-h-11 items-center gap-1.5 px-1 ${on ? 'font-semibold text-heather-deep' : 'text-ink-2'}`}
      aria-pressed={on}
      onClick={() => set(!on)}
    >
      <Star className="size-4" fill={on ? 'currentColor' : 'none'} aria-hidden />
      {say('favourites ({{n}})', { n: count })}
    </button>
  );
}

/** What can be narrowed down by, each word with how many would be left; counted after what was found is shown. */
const Facets = memo(function Facets({
  content,
  index,
  asked,
  chosen,
  choose,
}: {
  content: ClinicContent;
  index: Index;
  asked: string;
  chosen: Chosen;
  choose: (facet: Facet, word: string) => void;
}) {
  const late = useDeferredValue(asked);
  const counts = useMemo(() => countsOf(index, late, chosen), [index, late, chosen]);
  const labelOf = (facet: Facet, word: string) =>
    facet === 'driver' ? (content.drivers.find((d) => d.key === word)?.label ?? word) : sayKey(word);
  return FACETS.map((facet) => (
    <label key={facet}>
      <span className="block text-sm text-ink-2">{say(facet)}</span>
      <select
        className="field min-h-11 w-28"
        value={chosen[facet] ?? ''}
        onChange={(e) => choose(facet, e.target.value)}
      >
        <option value="">{say('any')}</option>
        {counts[facet].map(({ word, count }) => (
          <option key={word} value={word} disabled={count === 0}>
            {`${labelOf(facet, word)} (${count})`}
          </option>
        ))}
      </select>
    </label>
  ));
});

/** How many stairs are drawn before anything else. */
const FIRST_STAIRS = 3;

/** All ladders as stairs; typing leaves them alone until what is found has changed. */
const Stairs = memo(function Stairs({
  stairs,
  shown,
  figures,
  favourites,
  moving,
}: {
  stairs: readonly { readonly ladder: Ladder; readonly rungs: readonly ExerciseDefinition[] }[];
  shown: ReadonlySet<string>;
  figures: ReadonlyMap<string, FigureDefinition>;
  favourites: ReadonlySet<string>;
  moving: boolean;
}) {
  // The stairs at the top stand at once, the others a moment later.
  const standing = useDeferredValue(stairs.length, FIRST_STAIRS);
  return (
    <div className="flex flex-wrap items-end gap-x-10">
      {stairs.slice(0, standing).map(({ ladder, rungs }) => {
        return (
          <section
            key={ladder.key}
            aria-label={say(ladder.name)}
            hidden={!rungs.some((e) => shown.has(e.key))}
            className="max-w-full py-4 [contain-intrinsic-size:auto_20rem] [content-visibility:auto]"
          >
            <h2 className="text-lg">{say(ladder.name)}</h2>
            <p className="text-sm text-ink-2">{say(ladder.purpose)}</p>
            <ol className="mt-2 flex items-end gap-1 overflow-x-auto pb-2">
              {rungs.map((e) => (
                <Rung
                  key={e.key}
                  exercise={e}
                  figure={figures.get(e.key)}
                  starred={favourites.has(e.key)}
                  out={shown.has(e.key) ? null : ladder.set === true ? 'away' : 'faint'}
                  moving={moving}
                  rise={ladder.set === true ? 0 : e.rung - 1}
                />
              ))}
            </ol>
          </section>
        );
      })}
    </div>
  );
});

/** The rise of one step of the stairs, in rem. */
const RISE = 0.8;

interface StepProps {
  readonly exercise: ExerciseDefinition;
  readonly figure: FigureDefinition | undefined;
  readonly starred: boolean;
  readonly moving: boolean;
  readonly rise: number;
}

const Rung = memo(function Rung({
  out,
  ...step
}: StepProps & {
  /** What of it remains when it is not what is looked for: its step of the stairs, or nothing. */
  out: 'faint' | 'away' | null;
}) {
  return (
    <li className={`w-44 shrink-0 ${out === 'faint' ? 'opacity-35' : ''}`} hidden={out === 'away'}>
      <Link
        to={`/library/${step.exercise.key}`}
        className="block hover:bg-heather-wash"
        tabIndex={out === null ? 0 : -1}
        aria-hidden={out !== null}
      >
        <Step {...step} />
      </Link>
    </li>
  );
});

/** The picture and the step below it, which a search leaves as they are. */
const Step = memo(function Step({ exercise, figure, starred, moving, rise }: StepProps) {
  return (
    <>
      {figure !== undefined && (
        <Figure
          figure={figure}
          side="right"
          playing={moving}
          lazy
          label={say('{{name}}, drawn', { name: exercise.name })}
          className="h-32 w-full"
        />
      )}
      <span
        className="block border-t-[3px] border-ink-3 bg-paper px-2 pt-1.5"
        style={{ minHeight: `${6.8 + RISE * rise}rem` }}
      >
        <span className="block font-semibold leading-tight">
          {exercise.name}
          {starred && (
            <Star
              className="ml-1 inline size-3.5 text-heather"
              fill="currentColor"
              aria-label={say('favourite')}
            />
          )}
        </span>
        <span className="text-sm leading-tight text-ink-2">
          {exercise.change === say('the start') ? '' : exercise.change}
        </span>
      </span>
    </>
  );
});
