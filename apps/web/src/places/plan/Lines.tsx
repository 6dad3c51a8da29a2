import { RepMax } from './RepMax.js';
import { JoinNext, RoundHead } from './Rounds.js';
import { RunSteps } from './RunSteps.js';
import { DayChips } from './DayChips.js';
import { ChevronDown, ChevronUp, X } from 'lucide-react';
import { Link } from 'react-router';
import { shortDay } from '../../parts/dates.js';
import {
  type ComposedExercise,
  type ExerciseDefinition,
  onlySupervised,
  type Prescription,
  shown,
  type Stage,
  stretches,
  whyDose,
  say,
} from '@heathstep/core';
import type { CourseView } from '@heathstep/contracts';
import type { ClinicContent } from '../../api/queries.js';
import { DoseSentence } from '../../parts/DoseSentence.js';
import { sentence } from '../../parts/Judgement.js';
import { drawnSide, Figure } from '../../parts/Figure.js';
import { Why } from '../../parts/Why.js';
import { neighbour, type PlanLine, type PlanModel } from './planModel.js';

interface LinesProps {
  readonly model: PlanModel;
  readonly course: CourseView;
  readonly content: ClinicContent;
  readonly stage: Stage;
  readonly previous: readonly ComposedExercise[] | null;
  /** Left out for a plan that is given. */
  readonly onChange?: (items: readonly ComposedExercise[]) => void;
  readonly errors: Readonly<Record<string, string>>;
}

/** The exercises of a plan as dose sentences, each with its reason, minutes and relative load. */
export function Lines({ model, course, content, stage, previous, onChange, errors }: LinesProps) {
  const items = model.lines.map((l) => l.item);
  const firsts = new Map(stretches(items).map((group) => [group[0], group] as const));
  return (
    <ol className="@container border-t border-line">
      {model.lines.map((line, i) => {
        const replace = (next: ComposedExercise | null) =>
          onChange?.(
            next === null ? items.filter((_, j) => j !== i) : items.map((item, j) => (j === i ? next : item)),
          );
        const own = Object.fromEntries(
          Object.entries(errors).flatMap(([pointer, detail]) => {
            const field = new RegExp(`^/items/${i}/(.+)$`).exec(pointer)?.[1];
            return field === undefined ? [] : [[field, detail]];
          }),
        );
        return (
          <Line
            key={line.item.exercise}
            line={line}
            most={model.most}
            course={course}
            content={content}
            stage={stage}
            items={items}
            group={firsts.get(line.item) ?? []}
            next={model.lines[i + 1] ?? null}
            turns={onChange}
            isNew={previous !== null && previous.every((p) => p.exercise !== line.item.exercise)}
            replace={onChange === undefined ? undefined : replace}
            errors={own}
          />
        );
      })}
    </ol>
  );
}

/** A round is held together by a line at its side, and nothing between. */
function edges({ round }: Prescription, next: PlanLine | null): string {
  const goesOn = round !== undefined && next?.item.round?.key === round.key;
  return `${round === undefined ? '' : 'border-l-4 border-l-heather pl-3'} ${goesOn ? '' : 'border-b border-b-line'}`;
}

interface LineProps {
  readonly line: PlanLine;
  readonly stage: Stage;
  readonly items: readonly ComposedExercise[];
  /** The round that begins with it. */
  readonly group: readonly ComposedExercise[];
  readonly next: PlanLine | null;
  /** Joins it to the next in a round, or parts them; left out for a plan that is given. */
  readonly turns: ((items: readonly ComposedExercise[]) => void) | undefined;
  readonly most: number;
  readonly course: CourseView;
  readonly content: ClinicContent;
  readonly isNew: boolean;
  readonly replace: ((next: ComposedExercise | null) => void) | undefined;
  readonly errors: Readonly<Record<string, string>>;
}

function Line({
  line,
  most,
  course,
  content,
  stage,
  items,
  group,
  next,
  turns,
  isNew,
  replace,
  errors,
}: LineProps) {
  const { item, exercise } = line;
  const figure = content.figures.find((f) => f.exercise === exercise.key);
  const ladder = content.ladders.find((l) => l.key === exercise.ladder);
  const change =
    replace === undefined ? undefined : (next: Prescription) => replace({ ...next, why: item.why });
  return (
    <li
      className={`grid gap-x-5 py-3 sm:grid-cols-[7.5rem_minmax(0,1fr)] @2xl:grid-cols-[7.5rem_minmax(0,1fr)_auto] ${edges(item, next)}`}
    >
      {group.length > 1 && <RoundHead {...{ group, content, items }} onChange={turns} />}
      <div>
        {figure !== undefined && (
          <Figure
            figure={figure}
            side={drawnSide(item.sides)}
            label={say('{{name}}, drawn', { name: exercise.name })}
            className="h-24 w-30"
          />
        )}
      </div>
      <div>
        <h3>
          {exercise.name}{' '}
          <span className="ml-1 font-body text-sm font-normal text-ink-2">{ladder?.name.toLowerCase()}</span>
          {isNew && (
            <span className="ml-2 rounded bg-heather-wash px-1.5 py-0.5 font-body text-xs font-semibold text-heather-deep">
              {say('new')}
            </span>
          )}
        </h3>
        <DoseSentence prescription={item} exercise={exercise} onChange={change} errors={errors} />
        <RunSteps item={item} exercise={exercise} onChange={change} />
        {change !== undefined && (
          <RepMax item={item} exercise={exercise} episode={course.episode} onChange={change} />
        )}
        <DayChips item={item} exercise={exercise} onChange={replace} />
        <p className="text-sm text-ink-2">{(item.why ?? []).map(sentence).join('. ')}</p>
        {item.beyond !== undefined && (
          <p className="text-sm text-hold-deep">
            {say('Beyond the usual dose: {{beyond}}', { beyond: item.beyond })}
          </p>
        )}
        <Beside
          line={line}
          episode={course.episode}
          replace={replace}
          missing={errors['beside'] !== undefined}
        />
        {line.early !== null && <p className="text-sm text-hold-deep">{`${sentence(line.early)}.`}</p>}
        <div className="flex flex-wrap items-center gap-x-4">
          <Taught line={line} course={course} />
          {turns !== undefined && next !== null && (
            <JoinNext line={line} next={next} items={items} onChange={turns} />
          )}
        </div>
        <Problem errors={errors} />
      </div>
      <div className="flex flex-wrap items-center gap-x-5 sm:col-start-2 @2xl:col-start-auto @2xl:block">
        <MinutesADay line={line} most={most} />
        {replace !== undefined && (
          <LineSteps
            line={line}
            course={course}
            content={content}
            stage={stage}
            items={items}
            replace={replace}
            exercise={exercise}
          />
        )}
      </div>
    </li>
  );
}

/** Where safety allows it only with someone beside: that this is so is said here, or it is not given. */
function Beside({
  line: { item, exercise },
  episode,
  replace,
  missing,
}: {
  line: PlanLine;
  episode: CourseView['episode'];
  replace: LineProps['replace'];
  /** It was not taken without. */
  missing: boolean;
}) {
  const asked = onlySupervised(exercise, item.sides, episode.supervised) !== null;
  if (!asked && item.beside !== true) return null;
  if (replace === undefined)
    return item.beside === true ? (
      <p className="text-sm text-hold-deep">{say('Only with someone beside.')}</p>
    ) : null;
  return (
    <label
      className={`flex min-h-11 items-center gap-2 text-sm ${missing ? 'font-semibold text-ease-deep' : 'text-hold-deep'}`}
    >
      <input
        type="checkbox"
        checked={item.beside === true}
        onChange={(e) => {
          const { beside: _beside, ...rest } = item;
          replace(e.target.checked ? { ...rest, beside: true } : rest);
        }}
      />
      {missing
        ? say('Only with someone beside: say that someone is, or remove it')
        : say('Only with someone beside; someone is')}
    </label>
  );
}

/** How long it takes on a day, and how much it loads beside the others. */
function MinutesADay({
  line: { item, exercise, totals, relativeLoad },
  most,
}: Pick<LineProps, 'line' | 'most'>) {
  return (
    <div className="flex items-start justify-end gap-3 pt-0.5">
      <Why
        of={() => whyDose(item, exercise)}
        label={say('{{daySeconds}} minutes a day', { daySeconds: shown((totals?.daySeconds ?? 0) / 60) })}
        className="whitespace-nowrap text-lg font-bold"
      >
        {shown((totals?.daySeconds ?? 0) / 60)}
        <span className="text-sm font-normal text-ink-2"> {say('min')}</span>
      </Why>
      <LoadSteps load={relativeLoad} most={most} />
    </div>
  );
}

/** The first thing the server refuses of it. */
function Problem({ errors }: { errors: Readonly<Record<string, string>> }) {
  // That someone is beside is asked for where it is said.
  const [first] = Object.entries(errors).filter(([field]) => field !== 'beside');
  if (first === undefined) return null;
  return (
    <p role="alert" className="text-sm text-ease-deep">
      {first[0]}: {first[1]}
    </p>
  );
}

/** Easier, harder, or away with it. */
function LineSteps({
  line,
  course,
  content,
  stage,
  items,
  replace,
  exercise,
}: {
  line: PlanLine;
  course: CourseView;
  content: ClinicContent;
  stage: Stage;
  items: readonly ComposedExercise[];
  replace: (next: ComposedExercise | null) => void;
  exercise: ExerciseDefinition;
}) {
  return (
    <div className="mt-1 flex justify-end gap-3 text-sm">
      <Swap
        line={line}
        by={-1}
        course={course}
        content={content}
        stage={stage}
        items={items}
        replace={replace}
      />
      <Swap
        line={line}
        by={1}
        course={course}
        content={content}
        stage={stage}
        items={items}
        replace={replace}
      />
      <button
        type="button"
        className="inline-flex min-h-9 items-center gap-1 text-ink-2 hover:text-ease-deep"
        onClick={() => replace(null)}
        aria-label={say('Remove {{name}}', { name: exercise.name })}
      >
        <X className="size-4" aria-hidden /> {say('Remove')}
      </button>
    </div>
  );
}

/** When it was last taught in the room and what was seen; and the way to teach it. */
function Taught({ line, course }: { line: PlanLine; course: CourseView }) {
  const { exercise } = line;
  const last = course.episode.taught.filter((t) => t.exercise === exercise.key).at(-1);
  return (
    <p className="text-sm">
      <Link
        className="text-action inline-flex min-h-[24px] items-center"
        to={`/library/${exercise.key}/teach?episode=${course.episode.id}`}
      >
        {say('Teach')}
      </Link>
      {last !== undefined && (
        <span className="ml-3 text-ink-2">
          {say('Taught {{shortDay}}: {{words}}', {
            shortDay: shortDay(last.at),
            words:
              last.faults.length === 0 ? say('no fault seen') : last.faults.map((f) => say(f)).join('; '),
          })}
        </span>
      )}
    </p>
  );
}

function Swap({
  line,
  by,
  course,
  content,
  stage,
  items,
  replace,
}: {
  line: PlanLine;
  by: 1 | -1;
  course: CourseView;
  content: ClinicContent;
  stage: Stage;
  items: readonly ComposedExercise[];
  replace: (next: ComposedExercise | null) => void;
}) {
  const next = neighbour(line, by, { course, content, stage, items });
  if (next === null) return null;
  const name = content.exercises.find((e) => e.key === next.exercise)?.name ?? '';
  const Icon = by === 1 ? ChevronUp : ChevronDown;
  return (
    <button
      type="button"
      className="inline-flex min-h-9 items-center gap-1 text-heather-deep hover:underline"
      title={name}
      aria-label={`${by === 1 ? say('Harder') : say('Easier')}: ${name}`}
      onClick={() => replace(next)}
    >
      <Icon className="size-4" aria-hidden /> {by === 1 ? say('Harder') : say('Easier')}
    </button>
  );
}

const BARS = 6;

/** Relative load as ranked steps; a rank to compare by, never a safe limit. */
function LoadSteps({ load, most }: { load: number | null; most: number }) {
  if (load === null)
    return (
      <span className="w-12 text-right text-xs text-ink-3" title={say('no load estimate')}>
        –
      </span>
    );
  const lit = most === 0 ? 0 : Math.max(1, Math.round((load / Math.max(most, 2.7)) * BARS));
  return (
    <span
      className="flex h-6 w-12 items-end gap-0.5"
      role="img"
      aria-label={say('relative load {{load}} body weights', { load: shown(load) })}
      title={say('{{load}} body weights', { load: shown(load) })}
    >
      {Array.from({ length: BARS }, (_, i) => (
        <span
          key={i}
          className={`w-1.5 ${i < lit ? 'bg-ink-2' : 'bg-line'}`}
          style={{ height: `${25 + (i * 75) / (BARS - 1)}%` }}
        />
      ))}
    </span>
  );
}
