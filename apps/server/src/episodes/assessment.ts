import { Injectable } from '@nestjs/common';
import {
  addDays,
  adherencePercent,
  daysBetween,
  doneByWeek,
  type DoneWork,
  doseSteps,
  type DoseStepsOn,
  type Driver,
  type ExerciseStep,
  type Facts,
  homeFacts,
  isOfRoutine,
  lastWholeDay,
  routineDays,
  impactByDay,
  type HomeFacts,
  homeQuestions,
  questionsByKey,
  impactOfDone,
  RUN_DAYS,
  runsDone,
  loadOfWork,
  ASSUMED_MASS_KG,
  type ProtocolDefinition,
  readySteps,
  reviewEpisode,
  type ReviewResult,
  type Stage,
  stageOf,
  tensionMinutes,
  treatedSides,
  type UpkeepEnd,
  upkeepEnd,
  workByDay,
  type DoneRun,
  countedRuns,
  impactDaysWith,
  impactWith,
  runsWith,
  workDone,
  workWithin,
  localDay,
  localTime,
  say,
} from '@heathstep/core';
import {
  type CourseView,
  homeLogOf,
  loggedWorkOf,
  measuredFacts,
  reportedText,
  skillFacts,
  stateFacts,
} from '@heathstep/contracts';
import { painSchoolOn } from '../clinic/defaults.js';
import { Clock } from '../clock.js';
import { Content } from '../content/content.controller.js';
import { type EpisodeRecord, givenNow } from './record.js';

export interface Assessed {
  readonly facts: Facts;
  readonly home: HomeFacts;
  readonly work: readonly DoneWork[];
  readonly drivers: readonly Driver[];
  readonly stage: Stage | null;
  readonly review: ReviewResult | null;
  readonly doseSteps: readonly ExerciseStep[];
  readonly now: string;
}

/** What a record says without asking when it was last decided about. */
interface Read extends Omit<Assessed, 'review' | 'doseSteps'> {
  readonly steps: DoseStepsOn;
  readonly stageSince: string;
}

const WEEK_DAYS = 7;
/** Weeks that are told one by one. */
const SHOWN_WEEKS = 8;

@Injectable()
export class Assessment {
  constructor(
    private readonly content: Content,
    private readonly clock: Clock,
  ) {}

  /** What one record says is worked out once, however many ask. */
  private readonly known = new WeakMap<EpisodeRecord, Read>();

  /** From the record to facts, judged sessions and the review suggestion; all arithmetic is the core's. */
  assess(record: EpisodeRecord, lastReviewAt: Date | null): Assessed {
    const read = this.known.get(record) ?? this.read(record);
    this.known.set(record, read);
    const { steps, stageSince, ...assessed } = read;
    return {
      ...assessed,
      review: this.review(record, { ...read, protocol: record.protocol, lastReviewAt }),
      doseSteps: doseSteps(steps, stageSince.slice(0, 10)),
    };
  }

  private read(record: EpisodeRecord): Read {
    const { row, clinic, view } = record;
    const local = (moment: Date | string) => localTime(new Date(moment), clinic.timeZone);
    const now = local(this.clock.now());
    const { protocol } = record;
    const stage = stageOf(protocol, row.stage);
    const stageSince = local(row.stageSince ?? row.startedAt);
    const school = painSchoolOn(clinic, stage?.painSchool, view.safety?.acts.school ?? null);
    const questions = homeQuestions(protocol);
    const home = homeFacts(
      homeLogOf(record.home, record.harmless),
      questions,
      school,
      stageSince.slice(0, 10),
    );
    const work = workDone(
      loggedWorkOf(record.home),
      record.plans.filter((p) => p.status === 'given'),
      (key) => record.library.exercise(key),
    );
    const planned =
      view.plan === null
        ? undefined
        : Math.max(0, ...view.plan.items.filter((i) => !isOfRoutine(i)).map((i) => i.daysPerWeek));
    const routines = routineDays(
      loggedWorkOf(record.home),
      record.plans.filter((p) => p.status === 'given'),
    );
    const during = new Map(home.facts.map((f) => [f.at, f.during]));
    const painOn = (day: string): number | null => during.get(day) ?? null;
    const facts: Facts = {
      measures: measuredFacts(view.visits, local, record.measures),
      // A routine alone is no session of the plan.
      sessions: home.facts.map((f) => (routines.has(f.at) ? { ...f, done: false } : f)),
      skills: skillFacts(view.visits, this.content.bundle.skills),
      stageSince,
      affected: row.affected,
      ageYears: view.person.ageYears,
      sex: view.person.sex,
      questions: questionsByKey(record.protocol),
      ...stateFacts(view.visits, now.slice(0, 10), (iso) => local(iso).slice(0, 10)),
      impactDone: impactDaysWith(impactByDay(work, painOn), record.recorded, painOn),
      ...(planned === undefined ? {} : { plannedPerWeek: planned }),
    };
    const steps = this.stepsOn(record, home, work);
    return {
      facts,
      home,
      work,
      // What was found on a side without a complaint is not worked on here.
      drivers: record.reasoning.drivers.filter(
        ({ side }) => side === 'none' || treatedSides(row.affected).includes(side),
      ),
      stage,
      now,
      steps,
      stageSince,
    };
  }

  private review(
    record: EpisodeRecord,
    on: {
      readonly now: string;
      readonly stage: Stage | null;
      readonly protocol: ProtocolDefinition;
      readonly facts: Facts;
      readonly steps: DoseStepsOn;
      readonly lastReviewAt: Date | null;
    },
  ): ReviewResult | null {
    const { stage, protocol } = on;
    if (stage === null || record.view.plan === null) return null;
    const firstGiven = givenNow(record.plans, record.row)[0]?.givenAt;
    const since = on.lastReviewAt ?? firstGiven ?? record.row.startedAt;
    return reviewEpisode(
      {
        now: on.now,
        lastReviewAt: localTime(new Date(since), record.clinic.timeZone),
        stopsOpen: this.stopsOpen(record),
        minimumDays: stage.minimumDays,
        leadingMeasure: stage.leadingMeasure,
        lookAgainWeeks: protocol.lookAgainWeeks,
        referWeeks: protocol.referWeeks,
        firstStage: protocol.stages[0]?.key === stage.key,
        criteria: stage.criteria,
        facts: on.facts,
        doseSteps: readySteps(on.steps).map((s) => ({
          ...s,
          exercise: record.library.exercise(s.exercise)?.name ?? s.exercise,
        })),
      },
      (key) => record.measures.find((m) => m.key === key),
    );
  }

  stopsOpen(record: EpisodeRecord): string[] {
    const { safety, openStops } = record.view;
    const rules = (safety?.stops ?? []).map(
      (s) => `${say(s.rule.title)}${s.side === 'none' ? '' : `, ${say(s.side)}`}: ${say(s.rule.action)}`,
    );
    const reported = openStops.map(reportedText);
    const elsewhere = record.view.elsewhere.flatMap((c) => c.blocks);
    return [...reported, ...rules, ...elsewhere];
  }

  private stepsOn(record: EpisodeRecord, home: HomeFacts, work: readonly DoneWork[]): DoseStepsOn {
    const { plan, today } = record.view;
    const given = plan?.givenAt ?? null;
    return {
      items: given === null ? [] : (plan?.items ?? []),
      work: work.filter((w) => w.planId === plan?.id),
      sessions: home.sessions,
      exerciseOf: (key) => record.library.exercise(key),
      ownedKg: record.row.weightsKg,
      bodyMassKg: record.view.bodyMassKg,
      daysAtLevel: given === null ? 0 : daysBetween(localDay(new Date(given), record.clinic.timeZone), today),
      cautiousStepPercent: record.view.safety?.acts.loadStepPercent ?? null,
    };
  }

  /** When the next review is due: so many days after the last visit, by the stage. */
  nextReview({ view, clinic }: EpisodeRecord, { stage }: Assessed): CourseView['nextReview'] {
    if (stage === null || view.plan === null) return null;
    const seen = localDay(new Date(view.visits.at(-1)?.startedAt ?? view.startedAt), clinic.timeZone);
    return { due: addDays(seen, stage.reviewEveryDays), everyDays: stage.reviewEveryDays };
  }

  /** How upkeep stands toward its end; null in any other stage. */
  upkeep(record: EpisodeRecord, { stage, facts, now }: Assessed): UpkeepEnd | null {
    return upkeepEnd(stage, {
      since: facts.stageSince.slice(0, 10),
      today: now.slice(0, 10),
      sessions: facts.sessions,
      stopsOpen: this.stopsOpen(record),
    });
  }

  /** Every run that was logged at home. */
  runsLogged(record: EpisodeRecord): readonly DoneRun[] {
    return runsDone(this.assess(record, null).work);
  }

  /** Recorded runs with the minutes that a coming week for this complaint may be built on. */
  private counted(record: EpisodeRecord, assessed: Assessed): EpisodeRecord['recorded'] {
    return countedRuns(runsDone(assessed.work), record.recorded);
  }

  /** Recorded runs as they were, and as they count. */
  recordedView(record: EpisodeRecord, assessed: Assessed): CourseView['recorded'] {
    const counted = new Map(this.counted(record, assessed).map((r) => [r.id, r.minutes]));
    return record.recorded.map((r) => ({ ...r, countedMinutes: counted.get(r.id) ?? 0 }));
  }

  /** Load, impact and days of the last 7 days, as done. */
  done(
    record: EpisodeRecord,
    assessed: Assessed,
  ): Pick<CourseView, 'loadDone' | 'impactDone' | 'runsDone' | 'loggedDays'> {
    const { today, bodyMassKg } = record.view;
    const all = loggedWorkOf(record.home);
    const end = lastWholeDay(
      all.map((l) => l.day),
      today,
    );
    const week = workWithin(assessed.work, end, WEEK_DAYS);
    const counted = this.counted(record, assessed);
    const logged = all.filter((l) => daysBetween(l.day, end) < WEEK_DAYS && l.day <= end);
    return {
      loadDone: this.content.tissuesOf(record.protocol).flatMap((tissue) =>
        loadOfWork(week, {
          tissue,
          affected: record.row.affected,
          bodyMassKg: bodyMassKg ?? ASSUMED_MASS_KG,
        }).map((l) => ({ tissue: tissue.key, ...l })),
      ),
      impactDone: impactWith(
        week,
        counted.filter((r) => r.day > addDays(end, -WEEK_DAYS) && r.day <= end),
      ),
      runsDone: runsWith(
        runsDone(workWithin(assessed.work, today, RUN_DAYS)),
        counted.filter((r) => r.day > addDays(today, -RUN_DAYS) && r.day <= today),
      ),
      loggedDays: new Set(logged.map((l) => l.day)).size,
    };
  }

  /** Share of the planned sessions done in the last 7 days, or since the first plan was given where that is less. */
  adherence(
    assessed: Assessed,
    record: EpisodeRecord,
  ): { readonly percent: number; readonly days: number } | null {
    const logged = assessed.facts.sessions.filter((s) => s.done !== false).map((s) => s.at);
    const today = assessed.now.slice(0, 10);
    const givenAt = givenNow(record.plans, record.row)[0]?.givenAt ?? null;
    const given = givenAt === null ? today : localDay(new Date(givenAt), record.clinic.timeZone);
    const days = Math.max(1, Math.min(WEEK_DAYS, daysBetween(given, today) + 1));
    const percent = adherencePercent(logged, assessed.facts.plannedPerWeek ?? 0, today, days);
    return percent === null ? null : { percent, days };
  }

  sessionsView(assessed: Assessed): CourseView['sessions'] {
    const days = workByDay(assessed.work);
    return assessed.home.sessions.map((s) => {
      const done = days.get(s.day) ?? [];
      return { ...s, ...impactOfDone(done), tensionMinutes: tensionMinutes(done) };
    });
  }

  /** What was done of what is planned, by week. */
  doneWeeks(record: EpisodeRecord, { facts, now }: Assessed): CourseView['done'] {
    const logged = facts.sessions.filter((s) => s.done !== false).map((s) => s.at.slice(0, 10));
    const givenAt = givenNow(record.plans, record.row)[0]?.givenAt ?? null;
    return {
      planned: facts.plannedPerWeek ?? null,
      weeks:
        givenAt === null
          ? []
          : doneByWeek(logged, {
              end: lastWholeDay(logged, now.slice(0, 10)),
              weeks: SHOWN_WEEKS,
              since: localDay(new Date(givenAt), record.clinic.timeZone),
            }),
    };
  }
}
