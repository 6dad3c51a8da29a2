import { say } from '../quantity/tongue.js';
import { type ExerciseDefinition, TAGS, type Tag } from '../exercise/definition.js';
import { PAIN_SCHOOLS_BY_STRICTNESS, type PainSchool } from '../progress/painRule.js';
import { SIDES, treatedSides, type Affected, type PerSide, type Side } from '../quantity/side.js';
import type { FootRiskSign, SafetyLevel, SafetyQuestion, SafetyRule } from './definition.js';
import { type FootRisk, footRiskClass, type FootRiskFactor } from './footRisk.js';
import { type Limits, offUnder } from './limits.js';
import { type Asked, fires, type SafetyAnswers, type SafetyFindings, scoresOf } from './trigger.js';

export interface Closure {
  readonly rule: string;
  readonly side: Side | 'none';
  readonly kind: 'closed' | 'overridden';
  readonly text: string;
}

export interface TriggeredRule {
  readonly rule: SafetyRule;
  readonly side: Side | 'none';
  readonly status: 'open' | 'closed' | 'overridden';
  /** The answers that triggered it, in words. */
  readonly because: readonly string[];
  readonly closure: Closure | null;
  /** Tags that it switches off now; `everything` until it is closed or its limits are entered. */
  readonly off: 'everything' | readonly Tag[];
}

/** What open cautions change of pain school and load steps. */
export interface SafetyActs {
  /** The strictest pain school asked for; null when none is. */
  readonly school: PainSchool | null;
  /** The smallest load step asked for, in percent; null when none is. */
  readonly loadStepPercent: number | null;
  /** Which rule asks for what, in words. */
  readonly because: readonly string[];
}

export interface SafetyState {
  /** Keys of the questions that are asked, gates passed. */
  readonly asked: readonly string[];
  /** Keys of asked questions without an answer. */
  readonly unanswered: readonly string[];
  /** Keys of asked questions that were left not tested: neither a yes nor a no. */
  readonly notTested: readonly string[];
  /** Keys of tests that nothing known makes needed: not asked, and no no. */
  readonly spared: readonly string[];
  /** Answers of no that do not go with what was told elsewhere. */
  readonly clashes: readonly { readonly question: string; readonly words: string }[];
  readonly triggered: readonly TriggeredRule[];
  /** Sum of each scoring rule on each side, whatever it comes to. */
  readonly scores: Readonly<Record<string, PerSide<number>>>;
  /** Tags switched off for each side, by open rules. */
  readonly tagsOff: PerSide<readonly Tag[]>;
  /** Tags done only with someone beside. */
  readonly supervised: PerSide<readonly Tag[]>;
  readonly acts: SafetyActs;
  /** Open emergencies and urgents. */
  readonly stops: readonly TriggeredRule[];
  /** Open rules that let no plan be given. */
  readonly blocking: readonly TriggeredRule[];
  /** Why nothing can be prescribed now, open signs before missing answers; empty when something can. */
  readonly blockedBecause: readonly string[];
  readonly footRisk: FootRisk;
}

const LEVEL_ORDER: readonly SafetyLevel[] = ['emergency', 'urgent', 'refer', 'caution'];

/** Emergency and urgent are only ever closed with a result, and limits are entered; other refer and caution may be overridden with a reason. */
export const canOverride = (rule: Pick<SafetyRule, 'level' | 'until'>): boolean =>
  (rule.level === 'refer' || rule.level === 'caution') && rule.until === undefined;

export interface SafetyInput {
  readonly questions: readonly SafetyQuestion[];
  readonly rules: readonly SafetyRule[];
  readonly answers: SafetyAnswers;
  /** Questions answered today, where older answers stand beside them; all of `answers` when left out. */
  readonly answered?: ReadonlySet<string>;
  readonly affected: Affected;
  /** Whether it is asked for the first time. */
  readonly firstVisit?: boolean;
  /** Parts of the body that the complaint and the pain concern; left out where that is not known: then no test is spared. */
  readonly concerned?: ReadonlySet<string>;
  readonly ageYears: number | null;
  readonly closures: readonly Closure[];
  /** Left out where nothing was measured yet. */
  readonly findings?: SafetyFindings;
  /** What else than an answer makes a factor of the foot risk present. */
  readonly footRisk?: readonly FootRiskSign[];
  /** What is allowed after surgery, a cast or a fracture, by side. */
  readonly limits?: Partial<PerSide<Limits>>;
}

/** A test that neither the complaint nor anything told makes needed, and that was not made. */
function isSpared(q: SafetyQuestion, input: SafetyInput, asked: Asked): boolean {
  if (q.neededIf === undefined || q.part === undefined || input.concerned === undefined) return false;
  if (input.concerned.has(q.part) || fires(q.neededIf, asked, 'none', [])) return false;
  const today = input.answered === undefined || input.answered.has(q.key);
  return !fires(q.key, asked, 'none', []) && !(today && input.answers[q.key] !== undefined);
}

/** Questions of this person now. A gate decides what is asked, never whether a danger that was told counts. */
function questionsNow(
  input: SafetyInput,
  asked: Asked,
): { asked: SafetyQuestion[]; spared: SafetyQuestion[] } {
  const open = (q: SafetyQuestion) => q.onlyIf === undefined || fires(q.onlyIf, asked, 'none', []);
  const all = input.questions.filter((q) => q.retired !== true && open(q));
  return {
    asked: all.filter((q) => !isSpared(q, input, asked)),
    spared: all.filter((q) => isSpared(q, input, asked)),
  };
}

/** Today's answers of no that something told elsewhere speaks against. */
const clashesOf = (
  questions: readonly SafetyQuestion[],
  asked: Asked,
  { answered, firstVisit }: SafetyInput,
): SafetyState['clashes'] =>
  questions.flatMap((q) =>
    asked.answers[q.key] !== 'no' || answered?.has(q.key) === false
      ? []
      : (q.clashes ?? [])
          .filter((c) => (c.ofOnset !== true || firstVisit === true) && fires(c.when, asked, 'none', []))
          .map((c) => ({ question: q.key, words: c.words })),
  );

const limitsOf = (input: SafetyInput, rule: SafetyRule, side: Side | 'none'): Limits | null =>
  rule.until === 'limits' && side !== 'none' ? (input.limits?.[side] ?? null) : null;

function triggeredRules(input: SafetyInput, asked: Asked): TriggeredRule[] {
  const textOf = new Map(input.questions.map((q) => [q.key, q.text]));
  return input.rules
    .flatMap((rule) => {
      const sides: readonly (Side | 'none')[] = rule.scope === 'side' ? SIDES : ['none'];
      return sides.flatMap((side): TriggeredRule[] => {
        const used: string[] = [];
        if (!fires(rule.trigger, asked, side, used)) return [];
        const closure =
          input.closures.find(
            (c) => c.rule === rule.key && c.side === side && (c.kind === 'closed' || canOverride(rule)),
          ) ?? null;
        const limits = limitsOf(input, rule, side);
        return [
          {
            rule,
            side,
            status: closure?.kind ?? 'open',
            because: [...new Set(used)].map((k) => textOf.get(k) ?? k),
            closure,
            off: limits === null ? rule.off : offUnder(limits),
          },
        ];
      });
    })
    .sort((a, b) => LEVEL_ORDER.indexOf(a.rule.level) - LEVEL_ORDER.indexOf(b.rule.level));
}

const isStop = (t: TriggeredRule): boolean => t.rule.level === 'emergency' || t.rule.level === 'urgent';

/** An emergency concerns the person, whichever leg it is found on; so does what says so. */
const ofPerson = (t: TriggeredRule): boolean =>
  t.side === 'none' || t.rule.level === 'emergency' || t.rule.blocks === 'person';

const reaches = (t: TriggeredRule, side: Side): boolean => ofPerson(t) || t.side === side;

/** Whether an open rule lets nothing be given for a complaint on these sides. */
export function blocksOn(t: TriggeredRule, affected: Affected): boolean {
  if (t.status !== 'open' || t.off !== 'everything') return false;
  const treated = treatedSides(affected);
  return ofPerson(t) || treated.length === 0 || t.side === 'none' || treated.includes(t.side);
}

/**
 * Open signs that end a protocol by what it says itself, on these sides: it is not what they need, also where other work might
 * be given. Those that let nothing be given at all are told by `blocksOn` already.
 */
export function endsProtocol(
  triggered: readonly TriggeredRule[],
  protocol: { readonly endsOn: readonly string[] },
  affected: Affected,
): readonly TriggeredRule[] {
  const treated = treatedSides(affected);
  return triggered.filter(
    (t) =>
      t.status === 'open' &&
      protocol.endsOn.includes(t.rule.key) &&
      !blocksOn(t, affected) &&
      (ofPerson(t) || t.side === 'none' || treated.includes(t.side)),
  );
}

function tagsOn(open: readonly TriggeredRule[], of: (t: TriggeredRule) => readonly Tag[]): PerSide<Tag[]> {
  const on = (side: Side): Tag[] => {
    const all = new Set(open.filter((t) => reaches(t, side)).flatMap((t) => [...of(t)]));
    return TAGS.filter((tag) => all.has(tag));
  };
  return { left: on('left'), right: on('right') };
}

function actsOf(open: readonly TriggeredRule[]): SafetyActs {
  const schools = open.flatMap((t) => t.rule.school ?? []);
  const steps = open.flatMap((t) => t.rule.loadStepPercent ?? []);
  return {
    school: PAIN_SCHOOLS_BY_STRICTNESS.find((s) => schools.includes(s)) ?? null,
    loadStepPercent: steps.length === 0 ? null : Math.min(...steps),
    because: open.flatMap((t) => [
      ...(t.rule.school === undefined
        ? []
        : [
            say('{{title}}: pain is judged by the {{school}} rule', {
              title: t.rule.title,
              school: say(t.rule.school),
            }),
          ]),
      ...(t.rule.loadStepPercent === undefined
        ? []
        : [
            say('{{title}}: load steps of at most {{loadStepPercent}} %', {
              title: t.rule.title,
              loadStepPercent: t.rule.loadStepPercent,
            }),
          ]),
    ]),
  };
}

/** Whether what a surgeon or clinic allows of this side is entered, and counts. */
export const limitsStand = (triggered: readonly TriggeredRule[], side: Side | 'none'): boolean =>
  triggered.some((t) => t.rule.until === 'limits' && t.side === side && t.off !== 'everything');

/** A factor is there by any yes or any sign, absent only when every question of it was answered no; else not known. */
function riskFactor(input: SafetyInput, asked: Asked, factor: FootRiskFactor): boolean | null {
  const signs = (input.footRisk ?? []).filter((s) => s.factor === factor);
  if (signs.some((s) => fires(s.when, asked, 'none', []))) return true;
  const answers = input.questions.filter((q) => q.risk === factor).map((q) => input.answers[q.key]);
  if (answers.some((a) => a !== undefined && a !== 'no' && a !== 'not-tested')) return true;
  return answers.every((a) => a === 'no') ? false : null;
}

/** A triggered rule as one sentence: what, where, and what to do now. */
export const signText = (t: TriggeredRule): string =>
  `${say(t.rule.title)}${t.side === 'none' ? '' : `, ${say(t.side)}`}: ${say(t.rule.action)}`;

/**
 * Evaluates every safety rule on the answers given. Each open rule switches off exactly its tags; an unanswered question
 * blocks prescribing altogether, and is never read as no. An emergency blocks the person, an urgent sign its side.
 */
export function evaluateSafety(input: SafetyInput): SafetyState {
  const asked: Asked = {
    answers: input.answers,
    ageYears: input.ageYears,
    findings: input.findings ?? null,
  };
  const { asked: questions, spared } = questionsNow(input, asked);
  const isAnswered = (key: string) =>
    input.answers[key] !== undefined && (input.answered === undefined || input.answered.has(key));
  const unanswered = questions.filter((q) => !isAnswered(q.key)).map((q) => q.key);
  const triggered = triggeredRules(input, asked);
  const open = triggered.filter((t) => t.status === 'open');
  const blocking = open.filter((t) => blocksOn(t, input.affected));
  const missing = unanswered.length;
  return {
    asked: questions.map((q) => q.key),
    unanswered,
    notTested: questions.map((q) => q.key).filter((k) => input.answers[k] === 'not-tested'),
    spared: spared.map((q) => q.key),
    clashes: clashesOf(questions, asked, input),
    triggered,
    scores: scoresOf(input.rules, asked),
    tagsOff: tagsOn(open, (t) => (t.off === 'everything' ? TAGS : t.off)),
    supervised: tagsOn(open, (t) => t.rule.supervised ?? []),
    acts: actsOf(open),
    stops: open.filter(isStop),
    blocking,
    footRisk: footRiskClass({
      feelingLost: riskFactor(input, asked, 'feeling'),
      poorCirculation: riskFactor(input, asked, 'circulation'),
      deformity: riskFactor(input, asked, 'deformity'),
      history: riskFactor(input, asked, 'history'),
      activeFoot: open.some((t) => isStop(t) && t.rule.activeFoot === true),
    }),
    blockedBecause: [
      ...blocking.map(signText),
      ...(missing > 0
        ? [
            say('{{missing}} safety {{words}} missing', {
              missing,
              words: missing === 1 ? say('answer is') : say('answers are'),
            }),
          ]
        : []),
    ],
  };
}

/** How many exercises safety leaves on each side; one done with both feet needs both. */
export function exercisesLeft(
  exercises: readonly Pick<ExerciseDefinition, 'laterality' | 'tags'>[],
  tagsOff: PerSide<readonly Tag[]>,
): PerSide<number> {
  const allOff = (side: Side) => TAGS.every((t) => tagsOff[side].includes(t));
  const on = (side: Side, e: (typeof exercises)[number]) =>
    !allOff(side) && !e.tags.some((t) => tagsOff[side].includes(t));
  const left = (side: Side) =>
    exercises.filter((e) => (e.laterality === 'together' ? SIDES.every((s) => on(s, e)) : on(side, e)))
      .length;
  return { left: left('left'), right: left('right') };
}
