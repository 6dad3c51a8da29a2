import {
  BODY_MASS,
  combineTrials,
  type Computed,
  type ComputeInputs,
  computeMeasure,
  type MeasuredFact,
  type MeasureDefinition,
  type Side,
  type Taken,
} from '@heathstep/core';
import { asEntries, type Entries, type MeasureEntry } from './entries/values.js';
import { entriesOf } from './facts.js';
import { sitesOf } from './look.js';
import type { VisitView } from './views.js';

type Column = Side | 'none';

/** Body measures change slowly: the newest of an earlier visit stands until it is taken again. */
const lasts = (measure: MeasureDefinition | undefined): boolean => measure?.region === 'body';

const sidesOf = (measure: MeasureDefinition): readonly Column[] =>
  measure.sides === 'single' ? ['none'] : ['left', 'right'];

export const entryAt = (entries: Entries, measure: string, side: Column): MeasureEntry | null =>
  entries.get(`measure.${measure}.${side}`) ?? null;

/** Value of an entry's trials by the measure's own rule; null when none was taken. */
export const entryValue = (measure: MeasureDefinition, entry: MeasureEntry | null): number | null =>
  entry?.status === 'taken' ? combineTrials(measure, entry.trials).value : null;

/** How an entry was taken, as far as it says. */
export const takenOf = (entry: MeasureEntry | null): Taken => ({
  method: entry?.method,
  position: entry?.position,
  by: entry?.by,
});

/** One visit's readings, with what lasts from the visits before. Earlier entries come newest first. */
export class VisitReadings {
  private readonly byKey: ReadonlyMap<string, MeasureDefinition>;

  constructor(
    private readonly measures: readonly MeasureDefinition[],
    readonly entries: Entries,
    private readonly earlier: readonly Entries[] = [],
  ) {
    this.byKey = new Map(measures.map((m) => [m.key, m]));
  }

  /** The value of any measure, taken or worked out; null when it is not known. */
  value(key: string, side: Column): number | null {
    const measure = this.byKey.get(key);
    if (measure === undefined) return null;
    if (measure.computed !== null) return this.computed(measure, side)?.value ?? null;
    const column: Column = measure.sides === 'single' ? 'none' : side;
    const own = entryValue(measure, entryAt(this.entries, key, column));
    if (own !== null || !lasts(measure)) return own;
    for (const entries of this.earlier) {
      const found = entryValue(measure, entryAt(entries, key, column));
      if (found !== null) return found;
    }
    return null;
  }

  /** A computed measure with its arithmetic, or what is missing; null for a measure that is taken. */
  computed(measure: MeasureDefinition, side: Column): Computed | null {
    return computeMeasure(measure, this.inputs(side));
  }

  private inputs(side: Column): ComputeInputs {
    const activities = this.entries.get('story.activities') ?? [];
    return {
      value: (key) => this.value(key, side),
      part: (key, part) => entryAt(this.entries, key, side)?.parts?.[part] ?? null,
      bodyMassKg: this.value(BODY_MASS, 'none'),
      sites: side === 'none' ? null : sitesOf(this.entries, side),
      abilities: activities.flatMap((a) => (a.ability === null ? [] : [a.ability])),
    };
  }

  /** A value as signs read it: unable counts as none at all, where repetitions or seconds are counted. */
  forSigns(key: string, side: Column): number | null {
    return this.value(key, side) ?? this.none(key, side);
  }

  labelOf(key: string): string {
    return this.byKey.get(key)?.label ?? key;
  }

  private none(key: string, side: Column): number | null {
    const measure = this.byKey.get(key);
    const counts = measure?.direction === 'more' && (measure.unit === 'reps' || measure.unit === 's');
    return counts && entryAt(this.entries, key, side)?.status === 'unable' ? 0 : null;
  }

  /** Every value of this visit as a dated fact. Not done says nothing; unable or stopped is a null value. */
  facts(at: string): MeasuredFact[] {
    return this.measures.flatMap((measure) =>
      sidesOf(measure).flatMap((side): MeasuredFact[] => {
        if (measure.computed !== null) {
          const value = this.computed(measure, side)?.value ?? null;
          return value === null ? [] : [{ measure: measure.key, side, value, at }];
        }
        const entry = entryAt(this.entries, measure.key, side);
        if (entry === null || entry.status === 'not-done') return [];
        const value = entryValue(measure, entry);
        if (entry.status === 'taken' && value === null) return [];
        const { method, position, by } = entry;
        return [
          {
            measure: measure.key,
            side,
            value,
            at,
            ...(method === undefined ? {} : { method }),
            ...(position === undefined ? {} : { position }),
            ...(by === undefined ? {} : { by }),
          },
        ];
      }),
    );
  }
}

/** Readings of the last of some visits, oldest first, with what lasts from those before it. */
export function readingsOf(
  visits: readonly VisitView[],
  measures: readonly MeasureDefinition[],
): VisitReadings {
  const maps = visits.map((v) => entriesOf(v.entries)).reverse();
  return new VisitReadings(measures, maps[0] ?? asEntries([]), maps.slice(1));
}

/** Values measured at visits, oldest first, each under its visit's local time. */
export function measuredFacts(
  visits: readonly VisitView[],
  localTimeOf: (iso: string) => string,
  measures: readonly MeasureDefinition[],
): MeasuredFact[] {
  return visits.flatMap((visit, i) =>
    readingsOf(visits.slice(0, i + 1), measures).facts(localTimeOf(visit.startedAt)),
  );
}
