import type { EntityManager } from 'typeorm';
import { type ContentBundle } from '@heathstep/content';
import {
  addDays,
  composePlan,
  criterionSentences,
  type ComposedExercise,
  type Facts,
  isDueOn,
  type HomeAnswer,
  type HomeMoment,
  homeQuestions,
  type HomeRole,
  type HomeScores,
  type LeftOut,
  type ProtocolDefinition,
  questionsByKey,
  normal,
  seededRandom,
  simulateHomeLog,
  weekdayOf,
  withHeld,
} from '@heathstep/core';
import {
  episodeSafety,
  measuredFacts,
  type MeasureEntry,
  workedOnVisits,
  skillFacts,
  stateFacts,
  type VisitView,
} from '@heathstep/contracts';
import {
  CourseEvent,
  DecisionRow,
  EpisodeRow,
  HomeEntry,
  Person,
  PlanRow,
  StageSpanRow,
  Visit,
} from '../persistence/entities.js';
import { ageOn } from '../clock.js';
import { CLINIC_ID, CLINICIAN, demoId, today } from './ids.js';
import { type DemoPair, type DemoPerson, type DemoVisit } from './people.js';

const DEFAULT_CONDITION = 'plantar-heel-pain';

interface DemoPlan {
  readonly items: ComposedExercise[];
  readonly leftOut: LeftOut[];
}

/** A line of a made-up log. */
type HomeRow = Omit<HomeEntry, 'payload'> & { readonly payload: object };

/** Writes one person of the demo: their visits, stages, plans and log, each by the same road as anyone's. */
export class DemoPersonLoader {
  private readonly episodeId: string;
  private readonly personId: string;

  constructor(
    private readonly tx: EntityManager,
    private readonly content: ContentBundle,
    private readonly now: Date,
    private readonly person: DemoPerson,
  ) {
    this.personId = demoId('person', person.name);
    this.episodeId = demoId('episode', person.name);
  }

  async load(): Promise<void> {
    const { person, tx } = this;
    const started = this.moment(Math.max(...person.visits.map((v) => v.daysAgo)));
    const last = person.stages[person.stages.length - 1];
    const condition = person.condition ?? DEFAULT_CONDITION;
    await tx.insert(Person, {
      id: this.personId,
      clinicId: CLINIC_ID,
      name: person.name,
      birthDate: person.born,
      occupation: person.occupation,
      sex: person.sex ?? null,
      version: 1,
      createdAt: started,
    });
    await tx.insert(EpisodeRow, {
      id: this.episodeId,
      clinicId: CLINIC_ID,
      personId: this.personId,
      condition,
      protocol: this.content.pathways.find((c) => c.key === condition)?.protocol ?? '',
      protocolVersion: this.protocol?.version ?? 0,
      affected: person.affected,
      schools: this.schools(),
      equipment: [...person.equipment],
      minutesPerDay: person.minutesPerDay,
      stage: last?.stage ?? null,
      stageSince: last === undefined ? null : this.moment(last.daysAgo),
      startedAt: started,
      ...this.ending(),
      version: 1,
    });
    for (const visit of person.visits) await this.visit(visit);
    for (const i of person.stages.keys()) await this.stage(i);
    for (const event of person.events ?? []) await this.event(event);
    await this.home();
  }

  private async event({ daysAgo, kind, note }: NonNullable<DemoPerson['events']>[number]): Promise<void> {
    await this.tx.insert(CourseEvent, {
      id: demoId('event', this.person.name, String(daysAgo)),
      clinicId: CLINIC_ID,
      episodeId: this.episodeId,
      kind,
      day: addDays(today(this.now), -daysAgo),
      note,
      authorId: CLINICIAN,
      at: this.moment(daysAgo),
      removedAt: null,
    });
  }

  private ending(): Pick<EpisodeRow, 'status' | 'endedAt' | 'endedBy' | 'outcome' | 'endNote'> {
    const { ended } = this.person;
    return ended === undefined
      ? { status: 'open', endedAt: null, endedBy: null, outcome: null, endNote: null }
      : {
          status: 'closed',
          endedAt: this.moment(ended.daysAgo),
          endedBy: CLINICIAN,
          outcome: ended.outcome,
          endNote: ended.note,
        };
  }

  /** Ten in the morning, some days ago; now for today. */
  private moment(daysAgo: number): Date {
    if (daysAgo === 0) return this.now;
    return new Date(`${addDays(today(this.now), -daysAgo)}T10:00:00Z`);
  }

  private async visit(visit: DemoVisit): Promise<void> {
    const id = demoId('visit', this.person.name, String(visit.daysAgo));
    const at = this.moment(visit.daysAgo);
    const first = visit === this.person.visits[0];
    await this.tx.insert(Visit, {
      id,
      clinicId: CLINIC_ID,
      episodeId: this.episodeId,
      kind: first ? 'first' : 'review',
      startedAt: at,
      signedAt: visit.signed ? at : null,
      signedBy: visit.signed ? CLINICIAN : null,
    });
    const entries = Object.entries(this.entries(visit));
    await this.tx.query(
      `INSERT INTO visit_entry (id, clinic_id, visit_id, key, version, value, author_id, at)
       SELECT e.id, $4, $5, e.key, 1, e.value::jsonb, $6, $7
         FROM unnest($1::uuid[], $2::text[], $3::text[]) AS e (id, key, value)`,
      [
        entries.map(([key]) => demoId('entry', id, key)),
        entries.map(([key]) => key),
        entries.map(([, value]) => JSON.stringify(value)),
        CLINIC_ID,
        id,
        CLINICIAN,
        at,
      ],
    );
  }

  private entries(visit: DemoVisit): Record<string, unknown> {
    const entries: Record<string, unknown> = { 'story.side': this.person.affected, ...visit.story };
    if (visit.safety !== 'open') {
      for (const q of this.content.safetyQuestions)
        if (q.retired !== true) entries[`safety.${q.key}`] = visit.safety[q.key] ?? 'no';
    }
    for (const [key, pair] of Object.entries(visit.measures)) Object.assign(entries, measured(key, pair));
    for (const [skill, [left, right]] of Object.entries(visit.skills ?? {})) {
      entries[`skill.${skill}.left`] = left;
      entries[`skill.${skill}.right`] = right;
    }
    return entries;
  }

  private async stage(index: number): Promise<void> {
    const stage = this.person.stages[index];
    if (stage === undefined) return;
    const at = this.moment(stage.daysAgo);
    await this.tx.insert(StageSpanRow, {
      id: demoId('span', this.person.name, stage.stage),
      clinicId: CLINIC_ID,
      episodeId: this.episodeId,
      stage: stage.stage,
      since: at,
      reason: stage.reason,
    });
    if (index > 0) {
      await this.tx.insert(DecisionRow, {
        id: demoId('decision', this.person.name, stage.stage),
        clinicId: CLINIC_ID,
        episodeId: this.episodeId,
        suggested: 'progress',
        suggestion: {
          decision: 'progress',
          rule: 4,
          because: this.criteriaBefore(index),
          wouldChange: [],
          confidence: 'clear',
          criteria: null,
        },
        decision: 'progress',
        agreed: true,
        reason: '',
        contentVersion: this.content.version,
        authorId: CLINICIAN,
        at,
      });
    }
    await this.tx.insert(PlanRow, {
      id: demoId('plan', this.person.name, stage.stage),
      clinicId: CLINIC_ID,
      episodeId: this.episodeId,
      number: index + 1,
      stage: stage.stage,
      status: 'given',
      version: 2,
      ...this.composed(stage.stage, stage.daysAgo),
      contentVersion: this.content.version,
      createdBy: CLINICIAN,
      createdAt: at,
      givenBy: CLINICIAN,
      givenAt: at,
    });
  }

  /** What was met to come into a stage, in words. */
  private criteriaBefore(index: number): readonly string[] {
    const before = this.protocol?.stages.find((s) => s.key === this.person.stages[index - 1]?.stage);
    if (before === undefined || before.criteria === null || this.protocol === undefined) return [];
    return criterionSentences(before.criteria, {
      lookup: (key) => this.content.measures.find((m) => m.key === key),
      questions: questionsByKey(this.protocol),
      affected: this.person.affected,
    });
  }

  private visitViews(sinceDaysAgo: number): VisitView[] {
    return this.person.visits
      .filter((v) => v.daysAgo >= sinceDaysAgo)
      .map((v, i) => ({
        id: '',
        episodeId: '',
        kind: 'review',
        number: i + 1,
        startedAt: this.moment(v.daysAgo).toISOString(),
        signedAt: null,
        signedBy: null,
        amendments: [],
        entries: Object.entries(this.entries(v)).map(([key, value]) => ({
          key,
          version: 1,
          value,
          at: '',
          author: '',
        })),
      }));
  }

  private readonly plans = new Map<string, DemoPlan>();

  /** The plan the application itself would have composed at that time; worked out once for each stage. */
  private composed(stageKey: string, daysAgo: number): DemoPlan {
    const key = `${stageKey} ${daysAgo}`;
    const made = this.plans.get(key) ?? this.compose(stageKey, daysAgo);
    this.plans.set(key, made);
    return made;
  }

  /** The person's protocol; undefined where the pathway has none. */
  private get protocol(): ProtocolDefinition | undefined {
    const pathway = this.person.condition ?? DEFAULT_CONDITION;
    const key = this.content.pathways.find((c) => c.key === pathway)?.protocol;
    return this.content.protocols.find((p) => p.key === key);
  }

  /** The defaults of its schools. */
  private schools(): Record<string, string> {
    return Object.fromEntries((this.protocol?.schools ?? []).map((s) => [s.key, s.default]));
  }

  private compose(stageKey: string, daysAgo: number): DemoPlan {
    const stage = this.protocol?.stages.find((s) => s.key === stageKey);
    if (stage === undefined) throw new Error(`no stage ${stageKey}`);
    const lookup = (key: string) => this.content.measures.find((m) => m.key === key);
    const views = this.visitViews(daysAgo);
    const at = this.moment(daysAgo).toISOString();
    const facts: Facts = {
      measures: measuredFacts(views, (iso) => iso, this.content.measures),
      sessions: [],
      skills: skillFacts(views, this.content.skills),
      ...stateFacts(views, at.slice(0, 10), (iso) => iso.slice(0, 10)),
      stageSince: at,
      affected: this.person.affected,
      ageYears: ageOn(this.person.born, at.slice(0, 10)),
      sex: this.person.sex ?? null,
    };
    const ageYears = ageOn(this.person.born, at.slice(0, 10));
    const on = { affected: this.person.affected, ageYears };
    const safety = episodeSafety(this.content, views, {
      ...on,
      complaint: this.person.condition ?? DEFAULT_CONDITION,
      closures: [],
    });
    const off = safety?.tagsOff ?? { left: [], right: [] };
    const reasoning = workedOnVisits(this.content, views, {
      ...on,
      daysSinceOnset: null,
      tagsOff: (side) => (side === 'none' ? [] : off[side]),
    });
    const plan = composePlan(
      {
        stage,
        exercises: this.content.exercises,
        facts,
        schools: this.schools(),
        equipment: this.person.equipment,
        minutesPerDay: this.person.minutesPerDay,
        tagsOff: withHeld(off, reasoning.held),
        supervised: safety?.supervised ?? { left: [], right: [] },
        drivers: reasoning.drivers,
        now: at,
      },
      lookup,
    );
    return { items: [...plan.exercises], leftOut: [...plan.left] };
  }

  private async home(): Promise<void> {
    const { home } = this.person;
    if (home === null) return;
    const random = seededRandom(home.seed + 1);
    const log = simulateHomeLog({
      seed: home.seed,
      from: addDays(today(this.now), -home.sinceDaysAgo),
      days: home.sinceDaysAgo - (home.untilDaysAgo ?? 0) + 1,
      startPain: home.startPain,
      endPain: home.endPain,
      adherence: home.adherence,
      daysPerWeek: 7,
      flares: home.flareDaysAgo.map((ago) => home.sinceDaysAgo - ago),
    });
    const rows: HomeRow[] = [];
    for (const day of log) {
      const plan = this.planOn(day.day);
      rows.push(
        this.homeRow(plan.id, {
          kind: 'morning',
          day: day.day,
          time: '07:10',
          payload: {
            scores: this.answers('morning', { morning: day.firstStep, 'day-worst': day.dayWorst }),
          },
        }),
      );
      if (day.session === null || day.day === today(this.now)) continue;
      const { effort, before, during, after, hourAbove } = day.session;
      const scores = {
        ...this.answers('before', { before }),
        ...this.answers('after', { during, after }),
        ...this.answers('later', { 'hour-above': hourAbove }),
      };
      const due = plan.items.filter((item) => isDueOn(item, weekdayOf(day.day)));
      const exercises = due.map((item) => ({
        exercise: item.exercise,
        sets: item.sets,
        reps: item.reps,
        effort: Math.min(10, Math.max(0, Math.round(normal(random, effort, 0.4)))),
      }));
      rows.push(
        this.homeRow(plan.id, {
          kind: 'session',
          day: day.day,
          time: '18:40',
          payload: { scores, exercises },
        }),
      );
    }
    await this.tx.insert(HomeEntry, rows);
  }

  /** Answers to everything asked at a moment: by role as simulated, and nothing amiss in all else. */
  private answers(moment: HomeMoment, byRole: Partial<Record<HomeRole, HomeAnswer>>): HomeScores {
    const { protocol } = this;
    const asked = protocol === undefined ? [] : homeQuestions(protocol).filter((q) => q.at === moment);
    return Object.fromEntries(
      asked.map((q) => [
        q.key,
        (q.role === null ? undefined : byRole[q.role]) ?? (q.kind === 'yes-no' ? true : 0),
      ]),
    );
  }

  private planOn(day: string): { id: string; items: ComposedExercise[] } {
    const stage =
      [...this.person.stages].reverse().find((s) => addDays(today(this.now), -s.daysAgo) <= day) ??
      this.person.stages[0];
    if (stage === undefined) throw new Error('a home log needs a stage');
    return {
      id: demoId('plan', this.person.name, stage.stage),
      items: this.composed(stage.stage, stage.daysAgo).items,
    };
  }

  private homeRow(
    planId: string,
    entry: { kind: 'session' | 'morning'; day: string; time: string; payload: object },
  ): HomeRow {
    const { kind, day, time, payload } = entry;
    const at = new Date(`${day}T${time}:00Z`);
    return {
      id: demoId('home', this.person.name, kind, day),
      version: 1,
      clinicId: CLINIC_ID,
      episodeId: this.episodeId,
      planId,
      kind,
      day,
      payload,
      at: at > this.now ? this.now : at,
    };
  }
}

function measured(key: string, [left, right, painLeft, painRight]: DemoPair): Record<string, MeasureEntry> {
  return {
    [`measure.${key}.left`]: { trials: left, status: 'taken', pain: painLeft ?? null },
    [`measure.${key}.right`]: { trials: right, status: 'taken', pain: painRight ?? null },
  };
}
