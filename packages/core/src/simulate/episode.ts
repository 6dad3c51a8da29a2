import type { Prescription } from '../plan/prescription.js';
import { applyStep } from '../plan/step.js';
import { isDueOn } from '../plan/due.js';
import type { Facts, MeasuredFact } from '../progress/criteriaTypes.js';
import { doseSteps, type DoseStepsOn, readySteps } from '../progress/doseSteps.js';
import { homeFacts, type HomeFacts, homeSessions, type LoggedScores } from '../progress/homeFacts.js';
import { restsToday, type StopSign } from '../progress/painRule.js';
import { type Decision, reviewEpisode, type ReviewResult } from '../progress/review.js';
import { currentRuns, redsWithin } from '../progress/sessions.js';
import { type DoneWork, type GivenPlan, impactByDay, type LoggedWork, workDone } from '../progress/work.js';
import type { ComposedExercise } from '../plan/compose.js';
import type { MeasureDefinition } from '../measure/definition.js';
import {
  askedIn,
  type HomeQuestion,
  homeQuestions,
  type HomeScores,
  questionsByKey,
} from '../protocol/homeQuestions.js';
import type { Stage } from '../protocol/definition.js';
import { addDays, daysBetween, type DayText } from '../quantity/day.js';
import { answerTo } from './answers.js';
import {
  drawPerson,
  foundOut,
  limitsOf,
  type PersonFamily,
  type SimulatedPerson,
  type Twist,
} from './family.js';
import { Living } from './living.js';
import { measuresIn } from '../progress/measuresIn.js';
import { type Decided, decide, type Policy } from './policy.js';
import { type StagePlans, WEIGHTS_KG } from './plans.js';
import { normal, seededRandom } from './random.js';
import { Taking } from './taking.js';

export interface SimulatedCourse {
  readonly family: PersonFamily;
  readonly plans: StagePlans;
  readonly seed: number;
  readonly weeks: number;
  /** A Monday. */
  readonly from: DayText;
  readonly policy?: Policy;
  /** Rules of the review that are switched off, 1 to 8. */
  readonly without?: ReadonlySet<number>;
  readonly twist?: Twist;
}

export interface SimulatedReview {
  readonly day: DayText;
  readonly stage: string;
  readonly decision: Decision;
  readonly rule: number;
  /** A visit with measures, or between visits by the log alone. */
  readonly seen: boolean;
  /** The last judged session was red, or a stop, when it was decided. */
  readonly throughRed: boolean;
  /** A stop was open when something was prescribed. */
  readonly pastStop: boolean;
  /** Criteria not known when it was decided. */
  readonly unknown: number;
  /** Reasons, in words. */
  readonly because: readonly string[];
}

/** Everything that happened, and what was true. */
export interface SimulatedEpisode {
  readonly person: SimulatedPerson;
  readonly mornings: readonly LoggedScores[];
  readonly sessions: readonly LoggedScores[];
  readonly stops: readonly { readonly day: DayText; readonly grade: StopSign }[];
  readonly measures: readonly MeasuredFact[];
  readonly reviews: readonly SimulatedReview[];
  /** Judged under the school of the stage it was done in. */
  readonly states: HomeFacts['sessions'];
  readonly stages: readonly { readonly stage: string; readonly since: DayText }[];
  readonly truth: {
    /** Of each day, how much had gone. */
    readonly healed: readonly number[];
    /** Of each day, what was loaded as a share of what was tolerated. */
    readonly loaded: readonly number[];
    /** Of each day and leading measure of a stage, where the treated side stood without error or flare. */
    readonly trends: Readonly<Record<string, readonly number[]>>;
    /** Days on which a flare began. */
    readonly flares: readonly DayText[];
    /** When someone whose complaint is another was found out; null where they were not. */
    readonly foundOutOn: DayText | null;
  };
}

/** So much of the log says whether a call is asked for. */
const CALLED_FOR_DAYS = 15;
/** Between two things that the clinic changes without seeing the person, in days. [invented] */
const CALL_PAUSE = 3;
/** Who is looked at again, or was closed a stop, and has something else: how often it is found. [invented] */
const FOUND_SHARE = 0.6;
const STOP_HARMLESS = 0.7;
const OVERDONE_LOAD = 1.6;
const RESTING_LOAD = 0.3;
/** Days until a visit that is due takes place, and until a stop is closed. [invented] */
const WAIT_DAYS = 4;

interface Given extends GivenPlan {
  readonly items: readonly ComposedExercise[];
  readonly on: DayText;
}

/** One made-up person under a protocol, day by day, with the very rules that the clinic and the phone go by. */
class Course {
  private readonly random: () => number;
  private person: SimulatedPerson;
  private readonly living: Living;
  private readonly taking: Taking;
  private readonly questions: readonly HomeQuestion[];
  private readonly leading: readonly MeasureDefinition[];
  private readonly mornings: LoggedScores[] = [];
  private readonly sessions: LoggedScores[] = [];
  private stops: { day: DayText; grade: StopSign }[] = [];
  private readonly work: DoneWork[] = [];
  private readonly given: Given[] = [];
  private readonly measured: MeasuredFact[] = [];
  private readonly reviews: SimulatedReview[] = [];
  private readonly spans: { stage: number; since: DayText }[] = [];
  private readonly healed: number[] = [];
  private readonly loaded: number[] = [];
  private readonly flares: DayText[] = [];
  private readonly trends: Record<string, number[]> = {};
  private readonly askedBy = new Map<number, readonly HomeQuestion[]>();
  private states: HomeFacts['sessions'] = [];
  private foundOutOn: DayText | null = null;
  private stopOpenUntil: DayText | null = null;
  private stage = 0;
  private stageSince: DayText;
  private nextVisit: DayText;
  private lastChange: DayText;

  constructor(private readonly input: SimulatedCourse) {
    this.person = drawPerson(input.family, input.seed, input.twist);
    this.random = seededRandom(input.seed ^ 0x5bd1e995);
    this.living = new Living(this.person, this.random);
    this.taking = new Taking(this.person, this.living, this.random);
    this.questions = homeQuestions(input.plans.protocol);
    this.leading = [...new Set(input.plans.protocol.stages.map((s) => s.leadingMeasure))].flatMap(
      (key) => input.plans.measureOf(key) ?? [],
    );
    this.stageSince = input.from;
    this.nextVisit = addDays(input.from, this.stageNow().reviewEveryDays);
    this.lastChange = input.from;
    this.take(input.from);
    this.enter(0, input.from);
  }

  private stageNow(): Stage {
    const stage = this.input.plans.protocol.stages[this.stage];
    if (stage === undefined) throw new Error(`no stage ${this.stage}`);
    return stage;
  }

  private planNow(): Given {
    const plan = this.given.at(-1);
    if (plan === undefined) throw new Error('no plan was given');
    return plan;
  }

  private give(items: readonly ComposedExercise[], day: DayText): void {
    this.given.push({ id: `${this.given.length + 1}`, items, on: day });
    this.lastChange = day;
  }

  private enter(stage: number, day: DayText): void {
    this.stage = stage;
    this.stageSince = day;
    this.spans.push({ stage, since: day });
    this.give(this.input.plans.of(stage, this.person.side).items, day);
  }

  /** The measures that the stage's criteria, its leading measure and its list ask for. */
  private take(day: DayText): void {
    const { protocol, measureOf } = this.input.plans;
    const stage = this.stageNow();
    const lead = protocol.stages.map((s) => s.leadingMeasure);
    for (const key of new Set([...lead, ...stage.remeasure, ...measuresIn(stage.criteria)])) {
      const measure = measureOf(key);
      if (measure !== undefined) this.measured.push(...this.taking.at(measure, `${day}T10:00:00`));
    }
  }

  run(): SimulatedEpisode {
    const { from, weeks, plans } = this.input;
    for (let i = 0; i < weeks * 7; i += 1) this.live(addDays(from, i), i % 7);
    return {
      person: this.person,
      mornings: this.mornings,
      sessions: this.sessions,
      stops: this.stops,
      measures: this.measured,
      reviews: this.reviews,
      states: this.states,
      stages: this.spans.map((s) => ({ stage: plans.protocol.stages[s.stage]?.key ?? '', since: s.since })),
      truth: {
        healed: this.healed,
        loaded: this.loaded,
        trends: this.trends,
        flares: this.flares,
        foundOutOn: this.foundOutOn,
      },
    };
  }

  private live(day: DayText, weekday: number): void {
    this.tellMorning(day);
    this.closeStop(day);
    if (weekday < 5) this.look(day);
    if (this.stopOpenUntil === null) this.mayStop(day);
    const { load, done } = this.exerciseOn(day, weekday);
    const overdone = this.random() < this.person.overdone;
    const life = overdone
      ? OVERDONE_LOAD * this.living.capacity * Math.max(0.6, normal(this.random, 1, 0.2))
      : 0;
    this.loaded.push(Math.max(load, life) / this.living.capacity);
    if (this.living.endDay(Math.max(load, life), done)) this.flares.push(day);
    this.healed.push(this.living.healed);
    for (const m of this.leading) (this.trends[m.key] ??= []).push(this.taking.trend(m));
  }

  private missed(): boolean {
    return this.random() < this.person.missed;
  }

  private answers(at: HomeQuestion['at'], known: HomeScores): HomeScores {
    const all = this.askedBy.get(this.stage) ?? askedIn(this.questions, this.stageNow().criteria);
    this.askedBy.set(this.stage, all);
    const asked = all.filter((q) => q.at === at);
    return Object.fromEntries(
      asked.map((q) => {
        const told =
          q.role === null ? answerTo(q, this.living.healed, this.input.family, this.random) : known[q.role];
        // What the page asks before it goes on is always answered; an hour later the phone may lie elsewhere.
        return [q.key, at === 'later' && this.missed() ? null : (told ?? null)];
      }),
    );
  }

  private tellMorning(day: DayText): void {
    if (this.missed()) return;
    const scores = this.answers('morning', {
      morning: this.living.morning(),
      'day-worst': this.living.worstOfDay(),
    });
    this.mornings.push({ day, scores });
  }

  /** What of the plan is done today, and what it weighs. */
  private exerciseOn(day: DayText, weekday: number): { load: number; done: number } {
    const { plans } = this.input;
    const { items, id } = this.planNow();
    const due = items.filter((i) => isDueOn(i, weekday));
    const work = plans.workOn(items, weekday);
    // Nothing is done at home while a stop is open.
    if (due.length === 0 || this.stopOpenUntil !== null || this.random() >= this.person.adherence)
      return { load: 0, done: 0 };
    const whole = plans.of(this.stage, this.person.side);
    const load =
      this.person.stageStep ** this.stage *
      (work / whole.dayWork) *
      Math.max(0.5, normal(this.random, 1, 0.08));
    const felt = this.living.exercise(load);
    // Too sore before the start: relief and range only.
    const resting = restsToday(this.stageNow().painSchool, felt.before);
    const share = work / whole.weekWork;
    // Done and not told of.
    if (this.missed()) return { load: resting ? load * RESTING_LOAD : load, done: share };
    this.sessions.push({
      day,
      scores: {
        ...this.answers('before', { before: felt.before }),
        ...this.answers('after', {
          during: resting ? felt.before : felt.during,
          after: resting ? felt.before : felt.after,
        }),
        ...this.answers('later', { 'hour-above': resting ? false : felt.hourAbove }),
      },
    });
    const logged: LoggedWork = {
      day,
      planId: id,
      exercises: due.map((i) => this.doneOf(i, felt.effort, resting)),
    };
    this.work.push(...workDone([logged], [this.planNow()], plans.exerciseOf));
    return { load: resting ? load * RESTING_LOAD : load, done: share };
  }

  private doneOf(item: Prescription, effort: number, resting: boolean) {
    const aim = this.input.plans.exerciseOf(item.exercise)?.aim;
    const rests = resting && aim !== 'relief' && aim !== 'range-static' && aim !== 'range-loaded';
    return { exercise: item.exercise, sets: rests ? 0 : item.sets, reps: rests ? 0 : item.reps, effort };
  }

  private mayStop(day: DayText): void {
    if (this.random() >= this.person.stopsPerDay) return;
    this.stops.push({ day, grade: 'review' });
    this.stopOpenUntil = addDays(day, 1 + Math.floor(this.random() * WAIT_DAYS));
  }

  private closeStop(day: DayText): void {
    if (this.stopOpenUntil === null || day < this.stopOpenUntil) return;
    this.stopOpenUntil = null;
    if (this.random() < STOP_HARMLESS) this.stops = this.stops.slice(0, -1);
    this.examine(day);
  }

  /** Someone looks again: what they really have may be found. */
  private examine(day: DayText): void {
    if (this.person.kind !== 'mistaken' || this.random() >= FOUND_SHARE) return;
    this.foundOutOn = day;
    this.person = foundOut(this.person, this.input.family);
    this.living.become(this.person);
  }

  private factsOn(day: DayText): { facts: Facts; steps: DoseStepsOn; home: HomeFacts } {
    const { plans } = this.input;
    const { protocol } = plans;
    const stage = this.stageNow();
    const home = homeFacts(
      { mornings: this.mornings, sessions: this.sessions, stops: this.stops },
      this.questions,
      stage.painSchool,
      this.stageSince,
    );
    const { work } = this;
    const during = new Map(home.facts.map((f) => [f.at, f.during]));
    const { side, injuredDaysBefore, ageYears, sex } = this.person;
    const plan = this.planNow();
    return {
      home,
      facts: {
        measures: this.measured,
        sessions: home.facts,
        skills: Object.fromEntries(stage.skills.map((s) => [s, this.skill()])),
        stageSince: this.stageSince,
        affected: side,
        ageYears,
        sex,
        questions: questionsByKey(protocol),
        ...limitsOf(this.person, this.input.family, this.input.from),
        injuredOn: injuredDaysBefore === null ? null : addDays(this.input.from, -injuredDaysBefore),
        impactDone: impactByDay(work, (d) => during.get(d) ?? null),
        plannedPerWeek: Math.max(0, ...plan.items.map((i) => i.daysPerWeek)),
      },
      steps: {
        items: plan.items,
        work: work.filter((w) => w.planId === plan.id),
        sessions: home.sessions,
        exerciseOf: plans.exerciseOf,
        ownedKg: WEIGHTS_KG,
        bodyMassKg: null,
        daysAtLevel: daysBetween(plan.on, day),
        cautiousStepPercent: null,
      },
    };
  }

  private skill(): string {
    const share = this.living.sessionsDone / this.person.skillSessions;
    return share >= 1 ? 'learned' : share >= 0.5 ? 'partial' : 'none';
  }

  private review(day: DayText): { review: ReviewResult; steps: DoseStepsOn; home: HomeFacts } {
    const { facts, steps, home } = this.factsOn(day);
    const { protocol, measureOf } = this.input.plans;
    const stage = this.stageNow();
    const last = this.reviews.findLast((r) => r.seen);
    const review = reviewEpisode(
      {
        now: `${day}T11:00:00`,
        lastReviewAt: `${last?.day ?? this.input.from}T11:00:00`,
        stopsOpen: this.stopOpenUntil === null ? [] : ['reported at home'],
        minimumDays: stage.minimumDays,
        leadingMeasure: stage.leadingMeasure,
        lookAgainWeeks: protocol.lookAgainWeeks,
        referWeeks: protocol.referWeeks,
        firstStage: this.stage === 0,
        criteria: stage.criteria,
        facts,
        doseSteps: readySteps(steps),
      },
      measureOf,
      this.input.without,
    );
    return { review, steps, home };
  }

  /** A visit where one is due; else what the log of these days asks for at once. */
  private look(day: DayText): void {
    const policy = this.input.policy ?? 'rules';
    if (day >= this.nextVisit) {
      this.take(day);
      const { review, steps, home } = this.review(day);
      const decided = decide(policy, review, this.stageNow(), {
        daysInStage: daysBetween(this.stageSince, day),
        random: this.random,
      });
      this.act(day, decided, { review, steps, home, seen: true });
      this.nextVisit = addDays(day, Math.max(3, this.stageNow().reviewEveryDays));
      return;
    }
    if (policy !== 'rules' || daysBetween(this.lastChange, day) < CALL_PAUSE) return;
    if (!this.asksForACall(day)) return;
    const { review, steps, home } = this.review(day);
    if (review.rule <= 3) this.act(day, review, { review, steps, home, seen: false });
  }

  /** Whether the log of these days may ask for something before the next visit: what rules 1 to 3 read of it. */
  private asksForACall(day: DayText): boolean {
    const last = this.sessions.at(-1);
    if (last === undefined || daysBetween(last.day, day) > 2) return false;
    const from = addDays(day, -CALLED_FOR_DAYS);
    const sessions = homeSessions(
      { mornings: this.mornings, sessions: this.sessions.filter((s) => s.day > from), stops: this.stops },
      this.questions,
      this.stageNow().painSchool,
      this.stageSince,
    );
    const since = sessions.filter((s) => s.day >= this.stageSince);
    const runs = currentRuns(since.map((s) => s.state));
    return (
      this.stopOpenUntil !== null || runs.reds > 0 || runs.twoAmberOrWorse || redsWithin(since, day, 14) >= 3
    );
  }

  private act(
    day: DayText,
    { decision, rule }: Decided,
    on: { review: ReviewResult; steps: DoseStepsOn; home: HomeFacts; seen: boolean },
  ): void {
    const since = on.home.sessions.filter((s) => s.day >= this.stageSince);
    const runs = currentRuns(since.map((s) => s.state));
    const open = this.stopOpenUntil !== null;
    const gives = decision === 'progress' || decision === 'adjust-dose' || decision === 'ease-back';
    this.reviews.push({
      day,
      stage: this.stageNow().key,
      decision,
      rule,
      seen: on.seen,
      throughRed: decision === 'progress' && runs.reds > 0,
      pastStop: gives && open,
      because: on.review.because,
      unknown:
        on.review.criteria?.parts.filter((p) => p.state === 'not-known' && p.spare !== true).length ?? 0,
    });
    if (decision === 'progress') this.move(1, day);
    else if (decision === 'ease-back' && this.stage > 0) this.move(-1, day);
    else if (decision === 'ease-back' || decision === 'adjust-dose') this.adjust(day, on.steps);
    else if (rule === 6) this.examine(day);
    this.keepStates(on.home);
  }

  private move(by: 1 | -1, day: DayText): void {
    const to = this.stage + by;
    if (this.input.plans.protocol.stages[to] !== undefined) this.enter(to, day);
  }

  private adjust(day: DayText, steps: DoseStepsOn): void {
    const { library } = this.input.plans;
    const items = this.planNow().items;
    const found = doseSteps(steps, this.stageSince);
    if (found.length === 0) return;
    const on = {
      exercises: library.exercises,
      isOrdered: (ladder: string) => library.ladders.some((l) => l.key === ladder && l.set !== true),
      affected: this.person.side,
      tagsOff: { left: [], right: [] },
    };
    this.give(
      items.map((item) => {
        const step = found.find((s) => s.exercise === item.exercise)?.step;
        if (step === undefined) return item;
        const taken = items.filter((i) => i !== item).map((i) => i.exercise);
        return { ...applyStep(item, step, { ...on, taken }), why: item.why };
      }),
      day,
    );
  }

  /** Sessions keep the judgement of the stage they were done in. */
  private keepStates(home: HomeFacts): void {
    const known = new Set(this.states.map((s) => s.day));
    const until = home.sessions.slice(0, -1);
    this.states = [...this.states, ...until.filter((s) => !known.has(s.day))];
  }
}

/** Lives one made-up person through a protocol; the same seed gives the same course. */
export const simulateEpisode = (input: SimulatedCourse): SimulatedEpisode => new Course(input).run();
