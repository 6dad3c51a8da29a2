import { useState } from 'react';
import { Link, useParams, useSearchParams } from 'react-router';
import {
  doseSentence,
  type ExerciseDefinition,
  rungsOf,
  sentenceText,
  type Side,
  type Span,
} from '@heathstep/core';
import { type ClinicContent, useContent } from '../../api/queries.js';
import { Failed, Loading, NotFound } from '../../app/Failures.js';
import { sentence } from '../../parts/Judgement.js';
import { Figure } from '../../parts/Figure.js';

/** One exercise with its moving figure, or two beside each other. */
export function Exercise() {
  const { key = '' } = useParams();
  const content = useContent();
  const [query, setQuery] = useSearchParams();
  if (content.data === undefined)
    return content.error === null ? (
      <Loading what="the exercise" />
    ) : (
      <Failed error={content.error} again={() => void content.refetch()} />
    );
  const { exercises } = content.data;
  const exercise = exercises.find((e) => e.key === key);
  if (exercise === undefined) return <NotFound />;
  const other = exercises.find((e) => e.key === query.get('with') && e.key !== key);
  return (
    <main className="px-6 py-5">
      <div className="no-print flex flex-wrap items-center gap-5">
        <Link to="/library" className="text-action min-h-11">
          All exercises
        </Link>
        <div className="flex-1" />
        <label className="flex items-center gap-2">
          <span className="text-sm text-ink-2">Compare with</span>
          <select
            className="field min-h-11 max-w-64"
            value={other?.key ?? ''}
            onChange={(e) => setQuery(e.target.value === '' ? {} : { with: e.target.value })}
          >
            <option value="">nothing</option>
            {exercises
              .filter((e) => e.key !== key)
              .map((e) => (
                <option key={e.key} value={e.key}>
                  {e.name}
                </option>
              ))}
          </select>
        </label>
        <button type="button" className="action-quiet" onClick={() => window.print()}>
          Print
        </button>
      </div>
      <div className={other === undefined ? '' : 'grid grid-cols-2 gap-8'}>
        <Sheet exercise={exercise} content={content.data} wide={other === undefined} />
        {other !== undefined && <Sheet exercise={other} content={content.data} wide={false} />}
      </div>
    </main>
  );
}

const span = (label: string, range: Span | undefined, unit = ''): string | null =>
  range === undefined
    ? null
    : range[0] === range[1]
      ? `${label} ${range[0]}${unit}`
      : `${label} ${range[0]} to ${range[1]}${unit}`;

/** What a clinician can set in place, in words. */
function rangeWords(e: ExerciseDefinition): string {
  const { range } = e;
  return [
    span('sets', range.sets),
    span(e.dose.tempo === undefined ? 'holds' : 'repetitions', range.reps),
    span('hold', range.holdSeconds, ' s'),
    span('up', range.upSeconds, ' s'),
    span('at the top', range.topSeconds, ' s'),
    span('down', range.downSeconds, ' s'),
    span('rest', range.restSeconds, ' s'),
    span('added', range.addedKg, ' kg'),
    span('times a day', range.timesPerDay),
    span('days a week', range.daysPerWeek),
  ]
    .filter((w) => w !== null)
    .join('; ');
}

function Sheet({
  exercise,
  content,
  wide,
}: {
  exercise: ExerciseDefinition;
  content: ClinicContent;
  wide: boolean;
}) {
  const [side, setSide] = useState<Side>('right');
  const figure = content.figures.find((f) => f.exercise === exercise.key);
  const ladder = content.ladders.find((l) => l.key === exercise.ladder);
  const rungs = rungsOf(content.exercises, exercise.ladder);
  const at = rungs.findIndex((e) => e.key === exercise.key);
  const review = content.reviews[`exercise:${exercise.key}`];
  const sides = exercise.laterality === 'together' ? 'together' : side;
  const words = sentenceText(
    doseSentence({ ...exercise.dose, exercise: exercise.key, slot: '', sides }, exercise),
  );
  return (
    <article className={wide ? 'mt-2 grid grid-cols-[minmax(0,1fr)_minmax(0,1.2fr)] gap-8' : 'mt-2'}>
      <div>
        <h1>{exercise.name}</h1>
        <p className="text-ink-2">{`${ladder?.name ?? ''}, step ${at + 1} of ${rungs.length}. ${sentence(exercise.position)}, ${exercise.place}.`}</p>
        {figure !== undefined && (
          <Figure
            figure={figure}
            side={side}
            playing
            label={`${exercise.name}, drawn on the ${side}`}
            className={wide ? 'mt-3 h-96 w-full' : 'mt-3 h-64 w-full'}
          />
        )}
        <div className="no-print mt-2 flex justify-center gap-1" role="group" aria-label="Side drawn">
          {(['left', 'right'] as const).map((s) => (
            <button
              key={s}
              type="button"
              aria-pressed={side === s}
              className={`min-h-11 border-b-2 px-4 font-semibold ${side === s ? 'text-paper' : 'border-line text-ink-2'}`}
              style={
                side === s ? { background: `var(--color-${s})`, borderColor: `var(--color-${s})` } : undefined
              }
              onClick={() => setSide(s)}
            >
              {s}
            </button>
          ))}
        </div>
      </div>
      <div>
        <Part title="Steps">
          <ol className="list-decimal pl-6 text-lg">
            {exercise.steps.map((s) => (
              <li key={s}>{s}</li>
            ))}
          </ol>
          <p className="mt-1">
            <b>Should feel:</b> {exercise.feel.charAt(0).toLowerCase() + exercise.feel.slice(1)}.
          </p>
        </Part>
        <Part title="Faults, and what helps">
          <ul>
            {exercise.faults.map((f) => (
              <li key={f.fault}>
                <b>{f.fault}:</b> {f.fix}
              </li>
            ))}
          </ul>
        </Part>
        <Part title="Dose to begin with">
          <p className="text-lg font-semibold">{words}</p>
          <p className="text-sm text-ink-2">{`Safe range: ${rangeWords(exercise)}.`}</p>
        </Part>
        <Part title="On the ladder">
          <p>
            {'Easier: '}
            <Neighbour exercise={rungs[at - 1]} />
            {'. Harder: '}
            <Neighbour exercise={rungs[at + 1]} />.
          </p>
          <p className="text-sm text-ink-2">
            {at === 0 ? 'The first of its ladder.' : `Harder than the one before: ${exercise.change}.`}
          </p>
        </Part>
        <Part title="For whom, and for whom not">
          <p>
            {exercise.drivers.length === 0
              ? 'Serves no single driver.'
              : `Helps with: ${exercise.drivers.map((k) => (content.drivers.find((d) => d.key === k)?.label ?? k).toLowerCase()).join(', ')}.`}
          </p>
          <p>
            {exercise.tags.length === 0
              ? 'Nothing in the safety screen switches it off by itself.'
              : `Switched off with: ${exercise.tags.map((t) => t.replaceAll('-', ' ')).join(', ')}.`}
          </p>
          <p>{`Needs: ${exercise.equipment.length === 0 ? 'nothing' : exercise.equipment.join(', ')}. Set-up ${exercise.setupSeconds} s.`}</p>
        </Part>
        <Part title="Evidence">
          <p className="text-sm text-ink-2">
            {`${exercise.evidence.statement}. ${exercise.evidence.source} (${exercise.evidence.kind}). `}
            {review === undefined
              ? 'Not yet reviewed by this clinic.'
              : `Reviewed by ${review.reviewer} on ${review.on} for this clinic.`}
          </p>
        </Part>
      </div>
    </article>
  );
}

function Part({ title, children }: { title: string; children: React.ReactNode }) {
  return (
    <section className="border-b border-line py-2.5">
      <h2 className="text-base text-ink-2">{title}</h2>
      {children}
    </section>
  );
}

function Neighbour({ exercise }: { exercise: ExerciseDefinition | undefined }) {
  if (exercise === undefined) return <span className="text-ink-2">none</span>;
  return (
    <Link className="text-action" to={`/library/${exercise.key}`}>
      {exercise.name}
    </Link>
  );
}
