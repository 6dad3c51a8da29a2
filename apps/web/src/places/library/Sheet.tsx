import { Also } from '../../parts/Also.js';
import { useState } from 'react';
import { Link } from 'react-router';
import {
  bandForce,
  doseSentence,
  type ExerciseDefinition,
  type Rise,
  risesOf,
  rungsOf,
  sentenceText,
  shown,
  type Side,
  type Span,
  withUnit,
  say,
  sayKey,
} from '@heathstep/core';
import type { ClinicContent } from '../../api/queries.js';
import { sentence } from '../../parts/Judgement.js';
import { Figure } from '../../parts/Figure.js';
import { SideSwitch } from '../../parts/SideSwitch.js';
import { Note, Review, Versions } from './Kept.js';

const span = (label: string, range: Span | undefined, unit = '', by = 1): string | null =>
  range === undefined
    ? null
    : range[0] === range[1]
      ? `${label} ${shown(range[0] / by)}${unit}`
      : say('{{label}} {{range}} to {{range2}}{{unit}}', {
          label,
          range: shown(range[0] / by),
          range2: shown(range[1] / by),
          unit,
        });

/** What a clinician can set in place, in words. */
function rangeWords(e: ExerciseDefinition): string {
  const { range } = e;
  const minutes = e.counted === 'minutes';
  const reps = { reps: say('repetitions'), holds: say('holds'), minutes: say('times') } as Record<
    string,
    string
  >;
  return [
    minutes ? null : span(say('sets'), range.sets),
    minutes ? null : span(reps[e.counted] ?? e.counted, range.reps),
    minutes
      ? span(say('for'), range.holdSeconds, say(' min'), 60)
      : span(say('hold'), range.holdSeconds, ' s'),
    span(e.beats[0], range.upSeconds, ' s'),
    span(say('at the end'), range.topSeconds, ' s'),
    span(e.beats[1], range.downSeconds, ' s'),
    minutes ? null : span(say('rest'), range.restSeconds, ' s'),
    span(say('added'), range.addedKg, say(' kg')),
    span(say('times a day'), range.timesPerDay),
    span(say('days a week'), range.daysPerWeek),
  ]
    .filter((w) => w !== null)
    .join('; ');
}

/** An exercise on one page: the figure, how it is done, its dose, its place on the ladder, and where it comes from. */
export function Sheet({
  exercise,
  content,
  wide,
}: {
  exercise: ExerciseDefinition;
  content: ClinicContent;
  wide: boolean;
}) {
  const own = content.ownExercises.find((o) => o.key === exercise.key);
  const [side, setSide] = useState<Side>('right');
  const sides = exercise.laterality === 'together' ? 'together' : side;
  const words = sentenceText(
    doseSentence({ ...exercise.dose, exercise: exercise.key, slot: '', sides }, exercise),
  );
  return (
    <article
      className={
        wide
          ? 'mt-2 grid grid-cols-[minmax(0,1fr)_minmax(0,1.2fr)] gap-8 print:grid-cols-[16rem_1fr] print:gap-5'
          : 'mt-2'
      }
    >
      <DrawnAndNamed exercise={exercise} content={content} wide={wide} side={side} setSide={setSide} />
      <div>
        <Steps exercise={exercise} />
        <Part title={say('Faults, and what helps')}>
          <ul>
            {exercise.faults.map((f) => (
              <li key={f.fault}>
                <b>{say(f.fault)}:</b> {f.fix}
              </li>
            ))}
          </ul>
        </Part>
        <Part title={say('Stop at once with')}>
          <p className="font-semibold text-ease-deep">{exercise.stops.join('; ')}.</p>
        </Part>
        <Part title={say('Dose to begin with')}>
          <p className="text-lg font-semibold">{words}</p>
          <p className="text-sm text-ink-2">
            {say('Safe range: {{range}}.', { range: rangeWords(exercise) })}
          </p>
          {exercise.loadKind === 'band' && <BandPulls content={content} />}
        </Part>
        <div className="print:hidden">
          <Part title={say('On the ladder')}>
            <Neighbours exercise={exercise} content={content} />
          </Part>
        </div>
        <Part title={say('Where, and with what')}>
          <p>
            {say('{{sentence}} surface, {{space}}. Set-up {{setupSeconds}} s. {{needs}}', {
              sentence: sentence(exercise.surface),
              space: exercise.space,
              setupSeconds: exercise.setupSeconds,
              needs: needs(exercise, content) + begins(exercise, content),
            })}
          </p>
        </Part>
        <div className="print:hidden">
          <Part title={say('For whom, and for whom not')}>
            <ForWhom exercise={exercise} content={content} />
          </Part>
        </div>
        <div className={(content.notes[exercise.key]?.text ?? '') === '' ? 'print:hidden' : ''}>
          <Part title={say('Our note')}>
            <Note exercise={exercise} content={content} />
          </Part>
        </div>
        <Part title={say('Evidence')}>
          <p className="text-sm text-ink-2">{`${exercise.evidence.statement}. ${exercise.evidence.source} (${say(exercise.evidence.kind)}).`}</p>
          <Review exercise={exercise} content={content} />
          {own !== undefined && <Versions exerciseKey={exercise.key} />}
        </Part>
      </div>
    </article>
  );
}

interface Of {
  readonly exercise: ExerciseDefinition;
  readonly content: ClinicContent;
}

/** Its name, its place on the ladder, and the figure of the side chosen. */
function DrawnAndNamed({
  exercise,
  content,
  wide,
  side,
  setSide,
}: Of & { wide: boolean; side: Side; setSide: (side: Side) => void }) {
  const figure = content.figures.find((f) => f.exercise === exercise.key);
  const ladder = content.ladders.find((l) => l.key === exercise.ladder);
  const rungs = rungsOf(content.exercises, exercise.ladder);
  const at = rungs.findIndex((e) => e.key === exercise.key);
  const own = content.ownExercises.find((o) => o.key === exercise.key);
  return (
    <div>
      <h1>{exercise.name}</h1>
      <Also of={exercise} most={6} />
      <p className="text-ink-2">
        {ladder?.set === true
          ? `${ladder.name}. `
          : say('{{name}}, step {{at}} of {{n}}. ', {
              name: ladder?.name ?? '',
              at: at + 1,
              n: rungs.length,
            })}
        {`${sentence(say(exercise.position))}, ${exercise.place}. `}
        {own?.retired === true && <b>{say('Put aside: offered to no new plan.')}</b>}
      </p>
      {figure !== undefined && (
        <Figure
          figure={figure}
          side={side}
          playing
          label={say('{{name}}, drawn on the {{side}}', { name: exercise.name, side: say(side) })}
          className={`no-print mt-3 w-full ${wide ? 'h-96' : 'h-64'}`}
        />
      )}
      {figure !== undefined && (
        <Figure figure={figure} side={side} label="" className="mt-3 hidden h-64 w-full print:block" />
      )}
      <div className="no-print mt-2 flex justify-center">
        <SideSwitch side={side} onChange={setSide} label={say('Side drawn')} />
      </div>
      <p className="mt-2 text-center text-ink-2">{exercise.moves}.</p>
    </div>
  );
}

function Steps({ exercise }: Pick<Of, 'exercise'>) {
  return (
    <Part title={say('Steps')}>
      <ol className="list-decimal pl-6 text-lg">
        {exercise.steps.map((s) => (
          <li key={s}>{s}</li>
        ))}
      </ol>
      <p className="mt-1">
        <b>{say('Should feel:')}</b> {exercise.feel.charAt(0).toLowerCase() + exercise.feel.slice(1)}.
        {exercise.breathing !== null && (
          <>
            {' '}
            <b>{say('Breathe:')}</b> {exercise.breathing.toLowerCase()}.
          </>
        )}
      </p>
      {exercise.variants.length > 0 && (
        <ul className="mt-1">
          {exercise.variants.map((v) => (
            <li key={v.key}>
              <b>{v.name}:</b> {v.how.charAt(0).toLowerCase() + v.how.slice(1)}.
            </li>
          ))}
        </ul>
      )}
    </Part>
  );
}

function ForWhom({ exercise, content }: Of) {
  return (
    <>
      <p>
        {say('Works on the {{list}}. ', { list: exercise.parts.join(', ') })}
        {exercise.drivers.length === 0
          ? say('Serves no single driver.')
          : say('Helps with: {{list}}.', {
              list: exercise.drivers
                .map((k) => (content.drivers.find((d) => d.key === k)?.label ?? k).toLowerCase())
                .join(', '),
            })}
      </p>
      <p>
        {exercise.tags.length === 0
          ? say('Nothing in the safety screen switches it off by itself.')
          : say('Switched off with: {{list}}.', {
              list: exercise.tags.map((t) => sayKey(t)).join(', '),
            })}
      </p>
    </>
  );
}

/** What the measures must show before it is planned; below that the next easier one is. */
function begins({ abilities = [] }: ExerciseDefinition, content: ClinicContent): string {
  const asked = abilities.flatMap(({ measure, atLeast }) => {
    const found = content.measures.find((m) => m.key === measure);
    return found === undefined ? [] : [`${found.label.toLowerCase()} ${withUnit(found, atLeast)}`];
  });
  return asked.length === 0 ? '' : say(' Planned from {{list}} on.', { list: asked.join(say(' and ')) });
}

function needs(e: ExerciseDefinition, content: ClinicContent): string {
  if (e.equipment.length === 0) return say('Needs nothing.');
  const instead = content.standIns.filter((s) => e.equipment.includes(s.serves)).slice(0, 2);
  return say('Needs: {{list}}{{words}}.', {
    list: e.equipment.join(', '),
    words:
      instead.length === 0
        ? ''
        : say(' (or {{list}})', { list: instead.map((s) => s.name.toLowerCase()).join(say(', or ')) }),
  });
}

/** What the clinic's own bands pull at twice their length. */
function BandPulls({ content }: { content: ClinicContent }) {
  const pulls = content.bands.flatMap((b) => {
    const force = bandForce(b.points, 100);
    return force.ok ? [`${b.band} ${shown(force.value, 0)} N`] : [];
  });
  return (
    <p className="text-sm text-ink-2">
      {pulls.length === 0
        ? say('The clinic’s bands are not measured yet. ')
        : say('At twice its length: {{list}}. ', { list: pulls.join(', ') })}
      <Link to="/library/equipment" className="no-print text-action">
        {say('Bands')}
      </Link>
    </p>
  );
}

function Neighbours({ exercise, content }: { exercise: ExerciseDefinition; content: ClinicContent }) {
  const rises = risesOf(
    content.exercises,
    (ladder) => content.ladders.find((l) => l.key === ladder)?.set !== true,
  );
  const easier = rises.filter((r) => r.to === exercise.key);
  const harder = rises.filter((r) => r.from === exercise.key);
  const one = (key: string, r: Rise) => (
    <li key={`${r.from}${r.to}`}>
      <Link className="text-action" to={`/library/${key}`}>
        {content.exercises.find((e) => e.key === key)?.name ?? key}
      </Link>
      <span className="text-ink-2">{`: ${r.change} (${r.changes.map((c) => say(c)).join(', ')})`}</span>
    </li>
  );
  return (
    <dl className="grid grid-cols-[4.5rem_1fr]">
      <dt className="text-ink-2">{say('Easier')}</dt>
      <dd>
        <ul>{easier.length === 0 ? <li>{say('none')}</li> : easier.map((r) => one(r.from, r))}</ul>
      </dd>
      <dt className="text-ink-2">{say('Harder')}</dt>
      <dd>
        <ul>{harder.length === 0 ? <li>{say('none')}</li> : harder.map((r) => one(r.to, r))}</ul>
      </dd>
    </dl>
  );
}

function Part({ title, children }: { title: string; children: React.ReactNode }) {
  return (
    <section className="break-inside-avoid border-b border-line py-2">
      <h2 className="text-base text-ink-2">{title}</h2>
      {children}
    </section>
  );
}
