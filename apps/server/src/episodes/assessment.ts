import { Injectable } from '@nestjs/common';
import {
  addImpact,
  adherencePercent,
  bodyShareKg,
  currentRuns,
  daysBetween,
  doubleProgression,
  type DoneSession,
  type DoseStep,
  type Driver,
  easeDose,
  isEased,
  LOAD_STEP_PERCENT,
  minDaysAtLevel,
  NO_IMPACT,
  type Facts,
  type Impact,
  impactOf,
  prescriptionTotals,
  reviewEpisode,
  type ReviewResult,
  type Stage,
  stricterSchool,
} from '@heathstep/core';
import {
  type CourseView,
  measuredFacts,
  reportedText,
  type SessionPayload,
  skillFacts,
} from '@heathstep/contracts';
import { localDay, localTime } from '../clock.js';
import { Content } from '../content/content.controller.js';
import { homeFacts, type HomeFacts } from './facts.js';
import type { EpisodeRecord } from './reader.js';

export interface Assessed {
  readonly facts: Facts;
  readonly home: HomeFacts;
  readonly drivers: readonly Driver[];
  readonly stage: Stage | null;
  readonly review: ReviewResult | null;
  readonly doseSteps: readonly { readonly exercise: string; readonly step: DoseStep }[];
  readonly now: string;
}

/** Used for the load estimate until the person's own mass is known. */
const ASSUMED_MASS_KG = 75;

const DOUBLE_PROGRESSION = new Set(['strength', 'eccentric', 'endurance']);

@Injectable()
export class Assessment {
  constructor(private readonly content: Content) {}

  /** From the record to facts, judged sessions and the review suggestion; all arithmetic is the core's. */
  assess(record: EpisodeRecord, lastReviewAt: Date | null): Assessed {
    const { row, clinic, view } = record;
    const local = (moment: Date | string) => localTime(new Date(moment), clinic.timeZone);
    const now = local(new Date());
    const protocol = this.content.protocol(row.protocol);
    const stage = protocol.stages.find((s) => s.key === row.stage) ?? null;
    const stageSince = local(row.stageSince ?? row.startedAt);
    const school = stricterSchool(stage?.painSchool ?? 'next-morning', view.safety?.acts.school ?? null);
    const home = homeFacts(record.home, school, stageSince.slice(0, 10));
    const planned =
      view.plan === null ? undefined : Math.max(0, ...view.plan.items.map((i) => i.daysPerWeek));
    const facts: Facts = {
      measures: measuredFacts(view.visits, local, record.measures),
      sessions: home.facts,
      skills: skillFacts(view.visits),
      stageSince,
      affected: row.affected,
      ageYears: view.person.ageYears,
      sex: view.person.sex,
      ...(planned === undefined ? {} : { plannedPerWeek: planned }),
    };
    const { drivers } = record.reasoning;
    const doseSteps = this.doseSteps(record, home);
    const firstGiven = record.plans.find((p) => p.givenAt !== null)?.givenAt;
    const review =
      stage === null || view.plan === null
        ? null
        : reviewEpisode(
            {
              now,
              lastReviewAt: local(lastReviewAt ?? firstGiven ?? row.startedAt),
              stopsOpen: this.stopsOpen(record),
              minimumDays: stage.minimumDays,
              leadingMeasure: stage.leadingMeasure,
              lookAgainWeeks: protocol.lookAgainWeeks,
              referWeeks: protocol.referWeeks,
              firstStage: protocol.stages[0]?.key === stage.key,
              criteria: stage.criteria,
              facts,
              doseSteps: this.readySteps(record, home).map((s) => ({
                ...s,
                exercise: record.library.exercise(s.exercise)?.name ?? s.exercise,
              })),
            },
            (key) => record.measures.find((m) => m.key === key),
          );
    return { facts, home, drivers, stage, review, doseSteps, now };
  }

  stopsOpen(record: EpisodeRecord): string[] {
    const { safety, openStops } = record.view;
    const rules = (safety?.stops ?? []).map(
      (s) => `${s.rule.title}${s.side === 'none' ? '' : `, ${s.side}`}: ${s.rule.action}`,
    );
    const reported = openStops.map(reportedText);
    return [...reported, ...rules];
  }

  /** What the log says of each exercise: more, less or keep. */
  private doseSteps(record: EpisodeRecord, home: HomeFacts) {
    const since = (record.row.stageSince ?? record.row.startedAt).toISOString().slice(0, 10);
    const runs = currentRuns(home.sessions.filter((s) => s.day >= since).map((s) => s.state));
    if (runs.reds === 0 && !runs.twoAmberOrWorse) return this.readySteps(record, home);
    const after = runs.reds > 0 ? 'red' : 'two-ambers';
    return (record.view.plan?.items ?? [])
      .filter((item) => isEased(record.library.exercise(item.exercise)?.aim ?? 'relief', after))
      .map((item) => ({ exercise: item.exercise, step: easeDose(item) }));
  }

  private readySteps(record: EpisodeRecord, home: HomeFacts): { exercise: string; step: DoseStep }[] {
    const { plan } = record.view;
    if (plan?.givenAt == null) return [];
    const since = plan.givenAt;
    return plan.items.flatMap((item) => {
      const exercise = record.library.exercise(item.exercise);
      if (exercise === undefined || !DOUBLE_PROGRESSION.has(exercise.aim)) return [];
      const done = record.home
        .filter((e) => e.kind === 'session' && e.at >= since)
        .flatMap((e): DoneSession[] => {
          const did = (e.payload as SessionPayload).exercises.find((x) => x.exercise === item.exercise);
          const state = home.sessions.find((s) => s.day === e.day)?.state ?? 'not-known';
          return did?.effort == null || state === 'not-known'
            ? []
            : [{ day: e.day, setsDone: did.sets, repsDone: did.reps, effort: did.effort, state }];
        });
      const step = doubleProgression(item, exercise.range, done, record.row.weightsKg, {
        bodyShareKg: bodyShareKg(exercise, record.view.bodyMassKg ?? ASSUMED_MASS_KG),
        daysAtLevel: daysBetween(localDay(new Date(since), record.clinic.timeZone), record.view.today),
        minDaysAtLevel: minDaysAtLevel(exercise) * (record.view.safety?.acts.loadStepPercent == null ? 1 : 2),
        loadStepPercent: record.view.safety?.acts.loadStepPercent ?? LOAD_STEP_PERCENT,
      });
      return step.kind === 'keep' ? [] : [{ exercise: item.exercise, step }];
    });
  }

  /** Load actually done in the last 7 days per exercise on the treated side, and on how many days anything was logged. */
  loadDone(
    record: EpisodeRecord,
    today: string,
    weekAgo: string,
  ): { loads: { exercise: string; load: number }[]; days: number } {
    const recent = record.home.filter((e) => e.kind === 'session' && e.day > weekAgo && e.day <= today);
    const items = new Map(record.plans.flatMap((p) => p.items.map((i) => [i.exercise, i] as const)));
    const totals = new Map<string, number>();
    const side = record.row.affected === 'right' ? 'right' : 'left';
    for (const e of recent) {
      for (const did of (e.payload as SessionPayload).exercises) {
        const item = items.get(did.exercise);
        const exercise = record.library.exercise(did.exercise);
        if (item === undefined || exercise === undefined) continue;
        const full = prescriptionTotals(item, exercise, record.view.bodyMassKg ?? ASSUMED_MASS_KG);
        if (!full.ok || full.value.weekLoad === null) continue;
        const once = full.value.weekLoad[side] / (item.timesPerDay * item.daysPerWeek);
        const share = (did.sets * did.reps) / (item.sets * item.reps);
        totals.set(did.exercise, (totals.get(did.exercise) ?? 0) + once * share);
      }
    }
    return {
      loads: [...totals.entries()].map(([exercise, load]) => ({ exercise, load })),
      days: new Set(recent.map((e) => e.day)).size,
    };
  }

  /** Landings and minutes of running logged in the last 7 days. */
  impactDone(record: EpisodeRecord, today: string, weekAgo: string): Impact {
    const items = new Map(record.plans.flatMap((p) => p.items.map((i) => [i.exercise, i] as const)));
    return record.home
      .filter((e) => e.kind === 'session' && e.day > weekAgo && e.day <= today)
      .flatMap((e) => (e.payload as SessionPayload).exercises)
      .map((did) => {
        const item = items.get(did.exercise);
        const exercise = record.library.exercise(did.exercise);
        if (item === undefined || exercise === undefined) return NO_IMPACT;
        const repetitions = did.sets * did.reps;
        return impactOf(exercise, {
          repetitions,
          runSeconds: repetitions * (item.tempo?.upSeconds ?? item.holdSeconds ?? 0),
        });
      })
      .reduce(addImpact, NO_IMPACT);
  }

  /** Minutes under tension of each day's session, from what was logged. */
  tensionMinutes(record: EpisodeRecord): Map<string, number> {
    const items = new Map(record.plans.flatMap((p) => p.items.map((i) => [i.exercise, i] as const)));
    const minutes = new Map<string, number>();
    for (const e of record.home) {
      if (e.kind !== 'session') continue;
      const seconds = (e.payload as SessionPayload).exercises.reduce((sum, did) => {
        const item = items.get(did.exercise);
        if (item === undefined) return sum;
        const each =
          item.tempo === undefined
            ? (item.holdSeconds ?? 0)
            : item.tempo.upSeconds + item.tempo.topSeconds + item.tempo.downSeconds;
        return sum + did.sets * did.reps * each;
      }, 0);
      minutes.set(e.day, (minutes.get(e.day) ?? 0) + seconds / 60);
    }
    return minutes;
  }

  adherence(assessed: Assessed): number | null {
    const logged = assessed.facts.sessions.filter((s) => s.done !== false).map((s) => s.at);
    return adherencePercent(logged, assessed.facts.plannedPerWeek ?? 0, assessed.now.slice(0, 10), 7);
  }

  sessionsView(record: EpisodeRecord, assessed: Assessed): CourseView['sessions'] {
    const minutes = this.tensionMinutes(record);
    return assessed.home.sessions.map((s) => ({ ...s, tensionMinutes: minutes.get(s.day) ?? 0 }));
  }
}
