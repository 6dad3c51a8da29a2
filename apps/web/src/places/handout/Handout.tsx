import { drawnSide, Figure } from '../../parts/Figure.js';
import { Link, useParams } from 'react-router';
import {
  besideText,
  PAIN_ALL_RIGHT,
  signsText,
  type FigureDefinition,
  type PatientExercise,
  patientPlan,
  type PatientPlan,
  stricterSchool,
} from '@heathstep/core';
import { type EpisodeView, lastFaults } from '@heathstep/contracts';
import { signsOf } from '../../parts/stopSigns.js';
import { Blocked } from '../plan/Blocked.js';
import { type ClinicContent, useContent, useCourse, useSession } from '../../api/queries.js';
import { Failed, Loading } from '../../parts/Waiting.js';
import { complaintName } from '../../parts/complaints.js';
import { fullDay } from '../../parts/dates.js';

/** The plan on paper: one to two pages in large type, in the second person. */
export function Handout() {
  const { episodeId = '' } = useParams();
  const course = useCourse(episodeId);
  const content = useContent();
  const session = useSession();
  if (course.data === undefined || content.data === undefined || session.data === undefined) {
    const error = course.error ?? content.error;
    return error === null ? (
      <Loading what="the handout" />
    ) : (
      <Failed error={error} again={() => void course.refetch()} />
    );
  }
  const { episode } = course.data;
  const { plan } = episode;
  const held = episode.heldBack;
  if (plan === null || held.length > 0)
    return <NothingToPrint held={plan === null ? [] : held} episodeId={episode.id} />;
  const { clinic } = session.data;
  const stage = plan.madeOf;
  const exerciseOf = (key: string) => content.data.exercises.find((e) => e.key === key);
  const patient = patientPlan({
    items: plan.items,
    exerciseOf,
    stage,
    schools: episode.schools,
    tagsOff: episode.tagsOff,
    seenFaults: (exercise) => lastFaults(episode.taught, exercise),
  });
  return (
    <main className="mx-auto w-full max-w-[52rem] bg-paper px-10 py-8 text-[1.05rem] print:max-w-none print:bg-transparent print:p-0 print:text-[12.5pt]">
      <Ways episodeId={episode.id} />
      {patient.held.length > 0 && (
        <p className="no-print mb-4 rounded bg-hold-wash px-3 py-2 text-hold-deep" role="status">
          {`Held back by safety, not printed: ${patient.held.map((h) => exerciseOf(h.exercise)?.name ?? h.exercise).join(', ')}.`}
        </p>
      )}
      <header className="flex items-end justify-between border-b-2 border-ink pb-2">
        <div>
          <h1 className="text-3xl">{`${episode.person.name.split(' ')[0] ?? ''}, your plan`}</h1>
          {patient.purpose !== '' && <p>{patient.purpose}.</p>}
        </div>
        <p className="text-right text-sm">
          {clinic.name}
          <br />
          {`Version ${plan.number}, ${plan.givenAt === null ? '' : fullDay(plan.givenAt)}`}
        </p>
      </header>
      <Exercises plan={patient} figures={content.data.figures} />
      <BesideThem plan={patient} />
      <Elsewhere episode={episode} content={content.data} />
      <PainAndStop
        clinic={clinic}
        content={content.data}
        school={stricterSchool(stage?.painSchool ?? 'next-morning', episode.safety?.acts.school ?? null)}
      />
      <p className="mt-3 border-t border-line pt-2 text-sm">
        Made for you by your physiotherapist. It does not replace their advice.
        {course.data.protocol.usually === '' ? '' : ` ${course.data.protocol.usually}.`}
      </p>
    </main>
  );
}

function NothingToPrint({ held, episodeId }: { held: EpisodeView['heldBack']; episodeId: string }) {
  return (
    <main className="mx-auto max-w-xl px-6 py-16">
      {held.length > 0 ? (
        <Blocked reasons={held} episodeId={episodeId} />
      ) : (
        <>
          <h1>No plan is given yet</h1>
          <Link to={`/episodes/${episodeId}/plan`} className="action mt-5">
            To the plan
          </Link>
        </>
      )}
    </main>
  );
}

/** Ways to give it away, and back. */
function Ways({ episodeId }: { episodeId: string }) {
  return (
    <div className="no-print mb-6 flex gap-3">
      <button type="button" className="action" onClick={() => window.print()}>
        Print
      </button>
      <a
        href={`/api/episodes/${episodeId}/handout.pdf`}
        target="_blank"
        rel="noreferrer"
        className="action-quiet"
      >
        As a PDF
      </a>
      <a href={`/api/episodes/${episodeId}/plan.ics`} className="action-quiet">
        For a calendar
      </a>
      <Link to={`/episodes/${episodeId}/plan`} className="action-quiet">
        Back to the plan
      </Link>
    </div>
  );
}

/** The plans of the same person's other complaints. */
function Elsewhere({ episode, content }: { episode: EpisodeView; content: ClinicContent }) {
  return episode.elsewhere.map(
    (c) =>
      c.plan !== null &&
      c.blocks.length === 0 && (
        <section key={c.episodeId} className="mt-5">
          <h2 className="border-b-2 border-ink pb-1 text-2xl">{complaintName(c, content.pathways)}</h2>
          <p>{c.plan.purpose}.</p>
          <Exercises plan={c.plan} figures={content.figures} />
          <BesideThem plan={c.plan} />
        </section>
      ),
  );
}

function PainAndStop({
  clinic,
  content,
  school,
}: {
  clinic: { readonly phone: string; readonly emergencyNumber: string };
  content: ClinicContent;
  school: keyof typeof PAIN_ALL_RIGHT;
}) {
  return (
    <section className="mt-3 grid grid-cols-2 gap-6 break-inside-avoid">
      <div>
        <h2>Is this pain all right?</h2>
        <p>{PAIN_ALL_RIGHT[school]}</p>
      </div>
      <div>
        <h2>Stop</h2>
        <p>
          <b>Stop and call {clinic.emergencyNumber}:</b> {signsText(signsOf(content.stopSigns, 'emergency'))}.
        </p>
        <p>
          <b>Stop for today and tell us, {clinic.phone}:</b> {signsText(signsOf(content.stopSigns, 'review'))}
          .
        </p>
      </div>
    </section>
  );
}

/** The exercises of one plan, drawn and in words. */
function Exercises({
  plan,
  figures,
}: {
  plan: PatientPlan;
  figures: readonly (FigureDefinition & { readonly exercise: string })[];
}) {
  return (
    <ol className="mt-2">
      {plan.exercises.map((exercise, i) => {
        const figure = figures.find((f) => f.exercise === exercise.key);
        return (
          <li
            key={exercise.key}
            className="grid grid-cols-[2rem_8rem_1fr] gap-x-2 break-inside-avoid border-b border-line py-2.5"
          >
            <span className="font-head text-2xl font-semibold">{i + 1}</span>
            <span>
              {figure !== undefined && (
                <Figure
                  figure={figure}
                  side={drawnSide(exercise.item.sides)}
                  label={`${exercise.name}, drawn`}
                  className="h-28 w-32"
                />
              )}
            </span>
            <div>
              <h2>{exercise.name}</h2>
              <p className="text-lg font-semibold print:text-[13.5pt]">{exercise.dose}</p>
              <p>{exercise.steps.join('. ')}.</p>
              <p>
                <b>You should feel:</b> {exercise.feel.charAt(0).toLowerCase() + exercise.feel.slice(1)}.
              </p>
              <Cue exercise={exercise} />
              {exercise.needs.length > 0 && (
                <p>
                  <b>You need:</b> {exercise.needs.join(', ')}.
                </p>
              )}
            </div>
          </li>
        );
      })}
    </ol>
  );
}

function BesideThem({ plan }: { plan: PatientPlan }) {
  if (plan.beside.length === 0) return null;
  return (
    <section className="mt-3 break-inside-avoid">
      <h2>Beside the exercises</h2>
      <ul className="list-disc pl-6">
        {plan.beside.map((a) => (
          <li key={a.key}>{besideText(a)}</li>
        ))}
      </ul>
    </section>
  );
}

/** What to watch for; what was seen when it was taught comes first, as the patient's own cue. */
function Cue({ exercise: { cues, watchFor } }: { exercise: PatientExercise }) {
  return (
    <>
      {cues.length > 0 && <p className="font-semibold">Your cue: {cues.join('; ')}.</p>}
      {watchFor.length > 0 && (
        <p>
          <b>Watch for:</b> {watchFor.map((f) => `${f.fault} (${f.fix})`).join('; ')}.
        </p>
      )}
    </>
  );
}
