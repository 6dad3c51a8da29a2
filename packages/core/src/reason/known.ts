import { SIDES, type Side } from '../quantity/side.js';
import type { BodyPart, FindingDefinition } from './definition.js';
import { PLAIN, readSign, type Column, type SignReading, type SignSource, UNKNOWN } from './sign.js';

export const FINDING_STATES = ['present', 'absent', 'not-tested'] as const;
export type FindingState = (typeof FINDING_STATES)[number];

/** What is known of one finding on one side, by an answer or from the record. */
export interface KnownFinding extends SignReading {
  /** Empty while it is not known. */
  readonly key: string;
  /** `record` when measures, drawings, story or safety set it; `answer` when it was answered by hand. */
  readonly by: 'record' | 'answer' | 'nobody';
  readonly notTested: boolean;
}

/** Keys of findings that say where it hurts begin so. */
const SITE = 'site-';
const isPlain = (because: string): boolean => Object.values(PLAIN).includes(because);
/** Parts that are of no one place. */
export const NO_ONE_PLACE: readonly BodyPart[] = ['whole-foot', 'person', 'leg'];

/** Known findings by key and side, worked out on the first asking and kept. */
const NOT_KNOWN: KnownFinding = { ...UNKNOWN, key: '', by: 'nobody', notTested: false };
const NOT_TESTED: KnownFinding = { ...NOT_KNOWN, notTested: true };

/** What is known of each finding on each side, from answers, the record and what follows from other findings. */
export class Known {
  private readonly kept: Readonly<Record<Column, Map<string, KnownFinding>>> = {
    left: new Map(),
    right: new Map(),
    none: new Map(),
  };
  private readonly given: Readonly<Record<Column, Map<string, FindingState>>> = {
    left: new Map(),
    right: new Map(),
    none: new Map(),
  };
  private readonly source: SignSource;
  readonly byKey: ReadonlyMap<string, FindingDefinition>;

  /** @param answers of findings by hand, by `key.side` */
  constructor(
    readonly findings: readonly FindingDefinition[],
    answers: ReadonlyMap<string, FindingState>,
    record: Omit<SignSource, 'finding'>,
  ) {
    this.byKey = new Map(findings.map((f) => [f.key, f]));
    for (const [id, state] of answers) {
      const dot = id.lastIndexOf('.');
      this.given[id.slice(dot + 1) as Column].set(id.slice(0, dot), state);
    }
    this.source = { ...record, finding: (key, side) => this.named(key, side) };
  }

  /** As a part of another sign: what hangs on no figure is called by its name. */
  private named(key: string, side: Column): SignReading {
    const at = this.at(key, side);
    const name = this.byKey.get(key)?.name ?? key;
    return { ...at, because: at.because.map((b) => (isPlain(b) ? `${name}, ${b}` : b)) };
  }

  /** One finding as a side sees it: its own answer, or the person's. On `none`, either side's counts, present first. */
  at(key: string, side: Column): KnownFinding {
    const kept = this.kept[side];
    const found = kept.get(key);
    if (found !== undefined) return found;
    // A finding that leads back to itself is not known.
    kept.set(key, NOT_KNOWN);
    const known = this.read(key, side);
    kept.set(key, known);
    return known;
  }

  private read(key: string, side: Column): KnownFinding {
    const finding = this.byKey.get(key);
    if (finding === undefined) return NOT_KNOWN;
    if (finding.sides === 'person' && side !== 'none') return this.at(key, 'none');
    if (finding.sides === 'each' && side === 'none')
      return this.eitherSide(key) ?? this.answered(key, side) ?? NOT_KNOWN;
    const record = this.ofRecord(finding, side);
    if (record.state !== 'unknown') return { ...record, key, by: 'record', notTested: false };
    return this.answered(key, side) ?? NOT_KNOWN;
  }

  /** An answer by hand; one given without a side holds for either. */
  private answered(key: string, side: Column): KnownFinding | null {
    const answer = this.given[side].get(key) ?? this.given.none.get(key);
    if (answer === undefined) return null;
    if (answer === 'not-tested') return NOT_TESTED;
    return { key, weak: false, state: answer, because: [PLAIN.answered], by: 'answer', notTested: false };
  }

  private ofRecord(finding: FindingDefinition, side: Column): SignReading {
    const told = finding.safety === null ? UNKNOWN : readSign({ safety: finding.safety }, side, this.source);
    if (told.state === 'present' || finding.sign === null) return told;
    // Two ways to be told: present in either is present.
    const seen = readSign(finding.sign, side, this.source);
    return seen.state === 'present' || told.state === 'unknown' ? seen : told;
  }

  private eitherSide(key: string): KnownFinding | null {
    const both = SIDES.map((s) => this.at(key, s));
    const told = both.filter((k) => k.state !== 'unknown');
    return (
      told.find((k) => k.state === 'present') ?? (told.length === both.length ? (told[0] ?? null) : null)
    );
  }

  /** Parts of the body where something that was asked of the place itself is present on a side; and those that are of no one place. */
  placesOn(side: Column): ReadonlySet<BodyPart> {
    const here = this.findings.filter(
      (f) => f.key.startsWith(SITE) && this.at(f.key, side).state === 'present',
    );
    return new Set([...NO_ONE_PLACE, ...here.map((f) => f.part)]);
  }

  /** Whether any place was told to hurt on a side. */
  hurtsSomewhere(side: Column): boolean {
    return this.findings.some((f) => f.key.startsWith(SITE) && this.at(f.key, side).state === 'present');
  }

  /** Sides with a present finding of their own. */
  sidesTold(): readonly Side[] {
    return SIDES.filter((side) =>
      this.findings.some((f) => {
        const told = f.sides === 'each' && !this.given.none.has(f.key);
        return told && this.at(f.key, side).state === 'present';
      }),
    );
  }

  readSign(sign: Parameters<typeof readSign>[0], side: Column): SignReading {
    return readSign(sign, side, this.source);
  }
}
