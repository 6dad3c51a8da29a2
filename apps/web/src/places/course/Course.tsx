import { Hint } from '../../parts/Hint.js';
import { Circle } from 'lucide-react';
import { lazy, memo, Suspense, useMemo, useState } from 'react';
import { Link } from 'react-router';
import {
  areLike,
  FEWEST_POINTS,
  type Criterion,
  type MeasureDefinition,
  type Side,
  type StageAhead,
  whyCriterion,
  type When,
  whyForecast,
  say,
} from '@heathstep/core';
import type { CourseView, EventView } from '@heathstep/contracts';
import { type ClinicContent } from '../../api/queries.js';
import { ChoiceBlank } from '../../parts/Blank.js';
import { CourseLine } from '../../parts/CourseLine.js';
import { shortDay } from '../../parts/dates.js';
import { OfEpisode } from '../../parts/OfEpisode.js';
import { EpisodeHead } from '../../parts/EpisodeHead.js';
import { Judgement, sentence, type Tone } from '../../parts/Judgement.js';
import { Events, eventText, useEvents } from '../../parts/Events.js';
import { Why } from '../../parts/Why.js';
import { DecisionPanel } from './DecisionPanel.js';
import { Earlier } from './Earlier.js';
import { LoadAndPain } from './LoadAndPain.js';
import { Recorded } from './Recorded.js';
import { TwoVisits } from './TwoVisits.js';
import { type Ahead, type AheadOfStage, fewestOf, useAhead } from './useAhead.js';

/** Drawn once for a course, not again when its forecasts are there. */
const MemoLine = memo(CourseLine);
const MemoLoad = memo(LoadAndPain);
const MemoVisits = memo(TwoVisits);
const MemoDecision = memo(DecisionPanel);

const Trend = lazy(async () => ({ default: (await import('../../parts/Trend.js')).Trend }));

export function Course() {
  return (
    <OfEpisode what={say('the course')}>
      {(course, content) => <Whole course={course} content={content} />}
    </OfEpisode>
  );
}

function Whole({ course, content }: { course: CourseView; content: ClinicContent }) {
  const { episode } = course;
  const { protocol } = course;
  const condition = content.pathways.find((c) => c.key === episode.condition)?.name ?? '';
  if (episode.stages.length === 0) {
    return (
      <>
        <EpisodeHead episode={episode} condition={condition} />
        <main className="mx-auto w-full max-w-2xl px-8 py-12">
          <h2>
            {protocol.stages.length === 0
              ? say('No protocol for this condition yet')
              : say('The course begins with the first plan')}
          </h2>
          <p className="mt-2 text-ink-2">
            {protocol.stages.length === 0
              ? say(
                  'What each visit measured stands below, side by side. Stages and decisions come with the protocol.',
                )
              : say(
                  'Finish the first visit, then give a plan. From then on the stages, the log and each decision stand here.',
                )}
          </p>
          <Link to={`/episodes/${episode.id}/visit`} className="action mt-5">
            {say('To the visit')}
          </Link>
          <Earlier course={course} content={content} />
          {course.measures.length > 0 && <MemoVisits course={course} content={content} />}
        </main>
      </>
    );
  }
  return <Running course={course} content={content} condition={condition} />;
}

/** The course of someone who has a stage. */
function Running({
  course,
  content,
  condition,
}: {
  course: CourseView;
  content: ClinicContent;
  condition: string;
}) {
  const { episode, protocol } = course;
  const ahead = useAhead(course, content);
  const events = useEvents(episode.id);
  const stage = protocol.stages.find((s) => s.key === episode.stage);
  return (
    <>
      <EpisodeHead episode={episode} condition={condition} />
      <div className="border-b border-line px-5 py-3">
        <MemoLine
          episode={episode}
          protocol={protocol}
          pain={course.mornings}
          leaves={ahead.stage?.when ?? null}
        />
      </div>
      <main className="grid flex-1 content-start md:grid-cols-[minmax(0,1fr)_20rem] lg:grid-cols-[19rem_minmax(0,1fr)_20rem] lg:content-stretch">
        <section className="px-5 py-4">
          <h2>{stage?.criteria == null ? say('Upkeep') : say('To leave {{name}}', { name: stage.name })}</h2>
          <Hint of="why" />
          <StageWhen stage={ahead.stage} />
          <Criteria course={course} ahead={ahead} />
        </section>
        <section className="min-w-0 border-line px-5 py-4 max-lg:order-3 max-lg:border-t md:max-lg:col-span-2 lg:border-x">
          <Trends
            course={course}
            content={content}
            leading={stage?.leadingMeasure ?? ''}
            criteria={stage?.criteria ?? null}
            ahead={ahead}
            events={events}
          />
          <Events episodeId={episode.id} today={episode.today} events={events} />
          <MemoLoad course={course} school={course.painSchool} events={events} />
          <Recorded course={course} />
          <Earlier course={course} content={content} />
          <TwoVisits course={course} content={content} />
        </section>
        <aside className="bg-paper px-5 py-4 max-md:order-first">
          <MemoDecision course={course} content={content} protocol={protocol} />
        </aside>
      </main>
    </>
  );
}

const STATES: Record<string, { readonly tone: Tone; readonly word: string }> = {
  met: { tone: 'go', word: say('met') },
  'met-within-error': { tone: 'hold', word: say('within error') },
  'not-met': { tone: 'ease', word: say('not yet') },
  'not-known': { tone: 'unknown', word: say('not known') },
  'not-applicable': { tone: 'unknown', word: say('does not apply') },
};

/** When the trend leads to a criterion, as far as it can be told. */
const aheadWords = ({ ahead, when }: Ahead): string =>
  when === null
    ? say('No forecast yet: {{n}} comparable {{words}}, {{fewest}} are needed', {
        n: fewestOf(ahead),
        words: fewestOf(ahead) === 1 ? say('value') : say('values'),
        fewest: FEWEST_POINTS,
      })
    : whenWords(when);

function whenWords({ medianDate, lowDate, highDate }: When): string {
  if (medianDate === null)
    return lowDate === null
      ? say('At this pace not within a year')
      : say('At this pace from {{low}} on, or not within a year', { low: shortDay(lowDate) });
  const low = shortDay(lowDate ?? medianDate);
  return highDate === null
    ? say('At this pace about {{middle}}, from {{low}} to much later', { middle: shortDay(medianDate), low })
    : say('At this pace about {{middle}}, between {{low}} and {{high}}', {
        middle: shortDay(medianDate),
        low,
        high: shortDay(highDate),
      });
}

/** When the stage may be left by its trends, and what none leads to. */
function StageWhen({ stage }: { stage: StageAhead | null }) {
  if (stage?.when == null) return null;
  const { length } = stage.besides;
  return (
    <p className="mt-1 text-sm text-ink-2">
      {whenWords(stage.when)}
      {length === 0
        ? ''
        : length === 1
          ? say('; one more criterion is wanted, of which no trend tells')
          : say('; {{n}} more criteria are wanted, of which no trend tells', { n: length })}
      .
    </p>
  );
}

function Criteria({ course, ahead }: { course: CourseView; ahead: AheadOfStage }) {
  if (course.criteria.length === 0)
    return (
      <p className="mt-2 text-ink-2">
        {course.review === null && course.upkeep === null
          ? say('What is wanted is judged once a plan is given.')
          : say('There is nothing to progress to from here.')}
      </p>
    );
  return (
    <ul className="mt-2 border-t border-line">
      {course.criteria.map((part) => {
        const state =
          part.spare === true
            ? { tone: 'unknown' as const, word: say('not needed') }
            : (STATES[part.state] ?? { tone: 'unknown' as const, word: part.state });
        return (
          <li key={part.text} className="border-b border-line py-2.5">
            <Why
              of={() => whyCriterion(part)}
              className="block font-semibold leading-snug no-underline hover:underline"
            >
              {sentence(part.text)}
            </Why>
            <span className="mt-1 flex items-start gap-2 text-sm text-ink-2">
              <span className="shrink-0">
                <Judgement
                  tone={state.tone}
                  {...(part.state === 'not-met' && part.spare !== true ? { icon: Circle } : {})}
                >
                  {state.word}
                </Judgement>
              </span>
              <span className="pt-0.5">
                {part.spare === true
                  ? say('another way is met; {{because}}', { because: part.because })
                  : part.because}
              </span>
            </span>
            <AheadOf ahead={ahead.criteria.get(part.text)} />
          </li>
        );
      })}
    </ul>
  );
}

function AheadOf({ ahead }: { ahead: Ahead | undefined }) {
  if (ahead === undefined) return null;
  return (
    <Why of={() => whyForecast(ahead.ahead)} className="mt-1 block text-sm text-ink-2">
      {aheadWords(ahead)}
    </Why>
  );
}

/** What the stage wants of a measure on the treated side; null when nothing. */
function wantedOf(criterion: Criterion | null, measure: string): number | null {
  if (criterion === null) return null;
  const parts =
    'all' in criterion
      ? criterion.all
      : 'any' in criterion
        ? criterion.any
        : 'of' in criterion
          ? criterion.of
          : null;
  if (parts !== null) return parts.map((p) => wantedOf(p, measure)).find((w) => w !== null) ?? null;
  return 'measure' in criterion && criterion.measure === measure ? criterion.value : null;
}

function Trends({
  course,
  content,
  leading,
  criteria,
  ahead,
  events,
}: {
  course: CourseView;
  content: ClinicContent;
  leading: string;
  criteria: Criterion | null;
  ahead: AheadOfStage;
  events: readonly EventView[];
}) {
  const marks = useMemo(
    () => [
      ...events.map((e, i) => ({ day: e.day, mark: String(i + 1), text: eventText(e) })),
      ...flaresOf(course.sessions).map((day) => ({ day, mark: '×', text: say('flare') })),
    ],
    [events, course.sessions],
  );
  const charts = course.protocol.charts.flatMap((k) => content.measures.find((m) => m.key === k) ?? []);
  const [chosen, setChosen] = useState<string | null>(null);
  const measure = charts.find((m) => m.key === (chosen ?? leading)) ?? charts[0];
  if (measure === undefined) return null;
  const points = (side: Side) =>
    likeNewest(course.measures, measure, side).map((m) => ({
      day: m.at.slice(0, 10),
      value: m.value ?? 0,
    }));
  const [left, right] = [points('left'), points('right')];
  const [leftAhead, rightAhead] = [ahead.bandOf(measure.key, 'left'), ahead.bandOf(measure.key, 'right')];
  return (
    <div>
      <div className="flex items-baseline justify-between">
        <h2>
          {charts.length < 2 ? (
            measure.label
          ) : (
            <ChoiceBlank
              label={say('drawn over time')}
              value={measure.key}
              options={charts.map((m) => ({ value: m.key, label: m.label }))}
              onChange={setChosen}
            />
          )}
        </h2>
        <span className="text-sm text-ink-2">
          {leftAhead === null && rightAhead === null
            ? say('shaded: error of the measurement')
            : say('shaded: error of the measurement, then four in five by the trend')}
        </span>
      </div>
      {left.length + right.length === 0 ? (
        <p className="py-6 text-ink-2">{say('Not measured yet.')}</p>
      ) : (
        <Suspense fallback={<div className="h-56" role="status" aria-label={say('Drawing the chart')} />}>
          <Trend
            measure={measure}
            left={left}
            right={right}
            leftAhead={leftAhead}
            rightAhead={rightAhead}
            wanted={wantedOf(criteria, measure.key)}
            to={course.episode.today}
            marks={marks}
          />
        </Suspense>
      )}
    </div>
  );
}

/** First days of runs of red. */
const flaresOf = (sessions: CourseView['sessions']): readonly string[] => {
  const isRed = (s: CourseView['sessions'][number] | undefined) => s?.state === 'red' || s?.state === 'stop';
  return sessions.filter((s, i) => isRed(s) && !isRed(sessions[i - 1])).map((s) => s.day);
};

/** Values of a measure on a side that were taken as the newest was, oldest first: only like is compared with like. */
function likeNewest(
  facts: CourseView['measures'],
  measure: MeasureDefinition,
  side: Side,
): CourseView['measures'] {
  const own = facts.filter((f) => f.measure === measure.key && f.side === side && f.value !== null);
  const newest = own[own.length - 1];
  return newest === undefined ? [] : own.filter((f) => areLike(measure, f, newest));
}
