import { addImpact, type Impact, impactRise, NO_IMPACT } from '../dose/impact.js';
import { type DoneRun, runRise } from '../dose/longestRun.js';
import { type ExerciseLoad, FEWEST_LOGGED_DAYS } from '../dose/loadRise.js';
import type { ExerciseDefinition } from '../exercise/definition.js';
import type { TissueDefinition } from '../exercise/tissue.js';
import { weekLoadOn } from '../progress/work.js';
import type { Stage } from '../protocol/definition.js';
import type { DayText } from '../quantity/day.js';
import type { Affected } from '../quantity/side.js';
import type { Prescription } from './prescription.js';
import { impactOfWeek } from './totals.js';

/** What a filled week is measured by beside its minutes: load by tissue, landings, minutes of running. */
export interface WeekLimits {
  readonly of: (item: Prescription, exercise: ExerciseDefinition) => Readonly<Record<string, number>>;
  readonly most: Readonly<Record<string, number>>;
  /** The most minutes of running in one run; null where nothing was run to compare with. */
  readonly mostRunMinutes: number | null;
  /** Impact of a week that plans for other complaints ask for already. */
  readonly elsewhere: Readonly<Record<string, number>>;
}

export const CONTACTS = 'contacts';
export const RUN_MINUTES = 'run-minutes';

/** One exercise of a plan with its dose. */
export interface Planned {
  readonly item: Prescription;
  readonly exercise: ExerciseDefinition;
}

/** Impact of a week of some plans. */
export const impactOfPlans = (plans: readonly Planned[]): Impact =>
  plans.map((p) => impactOfWeek(p.item, p.exercise)).reduce(addImpact, NO_IMPACT);

export interface WeekLimitsOn {
  readonly tissues: readonly TissueDefinition[];
  readonly affected: Affected;
  readonly bodyMassKg: number;
  /** Load done in the last 7 days, by tissue. */
  readonly loadDone: readonly (ExerciseLoad & { readonly tissue: string })[];
  readonly impactDone: Impact;
  /** Runs of the last 30 days. */
  readonly runsDone: readonly DoneRun[];
  readonly today: DayText;
  readonly loggedDays: number;
  /** What the plan the person has asks for. */
  readonly planned: readonly Planned[];
  /** What plans for the person's other complaints ask for: they take their part of the same tissue. */
  readonly elsewhere: readonly Planned[];
}

/**
 * The most a coming week may hold, so that load rises slowly: of each tissue so much over what was done in the last 7 days
 * or what the plan asks for, whichever is more (who did less than the plan is not held to it for ever); of impact so much
 * over what was done alone. Where too few days were logged to compare, slow load is not limited, and impact is a first week's.
 * Plans for other complaints count as done and as coming: what they take of a tissue is not there a second time, also for a
 * complaint that has only begun.
 */
export function weekLimits(
  stage: Pick<Stage, 'loadRisePercent' | 'impactRisePercent'>,
  on: WeekLimitsOn,
): WeekLimits {
  const loadOf = (item: Prescription, exercise: ExerciseDefinition, tissue: TissueDefinition): number =>
    weekLoadOn(item, exercise, { tissue, affected: on.affected, bodyMassKg: on.bodyMassKg }) ?? 0;
  const weekOf = (plan: readonly Planned[], tissue: TissueDefinition): number =>
    plan.reduce((sum, p) => sum + loadOf(p.item, p.exercise, tissue), 0);
  const comparable = on.loggedDays >= FEWEST_LOGGED_DAYS;
  const tissues = on.tissues.flatMap((tissue): [string, number][] => {
    const done = on.loadDone.filter((l) => l.tissue === tissue.key).reduce((sum, l) => sum + l.load, 0);
    const elsewhere = weekOf(on.elsewhere, tissue);
    const here = comparable ? done : 0;
    if (here + elsewhere <= 0) return [];
    const base = Math.max(here, weekOf(on.planned, tissue)) + elsewhere;
    return [[tissue.key, base * (1 + stage.loadRisePercent / 100) - elsewhere]];
  });
  const elsewhere = impactOfPlans(on.elsewhere);
  const { most } = impactRise(NO_IMPACT, addImpact(on.impactDone, elsewhere), stage.impactRisePercent);
  return {
    of: (item, exercise) => Object.fromEntries(on.tissues.map((t) => [t.key, loadOf(item, exercise, t)])),
    most: {
      ...Object.fromEntries(tissues),
      [CONTACTS]: most.contacts - elsewhere.contacts,
      [RUN_MINUTES]: most.runMinutes - elsewhere.runMinutes,
    },
    elsewhere: { [CONTACTS]: elsewhere.contacts, [RUN_MINUTES]: elsewhere.runMinutes },
    mostRunMinutes: runRise(0, on.runsDone, on.today).mostMinutes,
  };
}
