import {
  type ConditionDefinition,
  type DriverDefinition,
  type Evidence,
  type FindingDefinition,
  type FindingFrom,
  type Grade,
  GRADES,
  type Ratio,
  type Sign,
  type TestPicture,
} from '@heathstep/core';

/** A ratio as it is written: a word of the graded convention, or two numbers with their source. */
type WrittenRatio = string | { readonly present: number; readonly absent: number; readonly source: string };

export type WrittenFinding = Partial<Omit<FindingDefinition, 'ratios' | 'picture'>> &
  Pick<FindingDefinition, 'key' | 'name' | 'ask' | 'part'> & {
    readonly ratios: Readonly<Record<string, WrittenRatio>>;
    readonly picture?: Pick<TestPicture, 'view'> & Partial<TestPicture>;
  };
export type WrittenCondition = Partial<Omit<ConditionDefinition, 'refer'>> &
  Pick<ConditionDefinition, 'key' | 'name' | 'gloss' | 'part' | 'per100' | 'care'> & {
    readonly refer?: readonly { readonly when: Sign; readonly text: string; readonly source?: string }[];
  };
export type WrittenDriver = Partial<DriverDefinition> &
  Pick<DriverDefinition, 'key' | 'label' | 'gloss' | 'when' | 'adds'>;

/** Minutes a finding takes where it does not say, by where it is found. Convention. */
const MINUTES: Readonly<Record<FindingFrom, number>> = {
  story: 0.2,
  look: 0.3,
  measure: 1,
  load: 0.8,
  feel: 0.4,
  test: 0.8,
};

const convention = (statement: string): Evidence => ({
  statement,
  source: 'Clinical convention',
  kind: 'convention',
  version: 1,
});

/** `strong`, `weak if present`, `against moderate`: the grades of the convention as two ratios. */
function ratioOf(written: WrittenRatio): Ratio {
  if (typeof written !== 'string') return { ...written, grade: 'published' };
  const words = written.split(' ');
  const grade = (words[0] === 'against' ? words[1] : words[0]) as Exclude<Grade, 'published'>;
  const source = `Graded convention, ${written}`;
  const { present, absent } = GRADES[grade];
  if (words[0] === 'against') return { present: absent, absent: 1, grade, source };
  return { present, absent: written.endsWith('if present') ? 1 : absent, grade, source };
}

/** A written finding with everything it left to the rule. `from` is the name of the file it stands in, up to a hyphen. */
export function expandFinding(written: WrittenFinding, file: string): FindingDefinition {
  const from = written.from ?? (file === 'marked' ? 'story' : (file.split('-')[0] as FindingFrom));
  return {
    key: written.key,
    name: written.name,
    ask: written.ask,
    from,
    part: written.part,
    sides: written.sides ?? 'each',
    minutes: written.minutes ?? MINUTES[from],
    group: written.group ?? written.key,
    how: written.how ?? [],
    picture: written.picture === undefined ? null : { press: [], move: [], ...written.picture },
    needs: written.needs ?? [],
    sign: written.sign ?? null,
    onlyIf: written.onlyIf ?? null,
    rises: written.rises ?? null,
    cluster: written.cluster ?? null,
    safety: written.safety ?? null,
    ratios: Object.fromEntries(Object.entries(written.ratios).map(([key, r]) => [key, ratioOf(r)])),
    evidence: written.evidence ?? convention(written.ask),
  };
}

export function expandCondition(written: WrittenCondition): ConditionDefinition {
  return {
    key: written.key,
    name: written.name,
    gloss: written.gloss,
    part: written.part,
    scope: written.scope ?? 'side',
    family: written.family ?? null,
    per100: written.per100,
    byAge: written.byAge ?? [],
    byDays: written.byDays ?? [],
    keep: written.keep ?? [],
    likeness: written.likeness ?? [],
    care: written.care,
    holds: written.holds ?? [],
    requires: written.requires ?? null,
    refer: (written.refer ?? []).map((r) => ({
      when: r.when,
      text: r.text,
      source: r.source ?? 'Clinical convention',
    })),
    pathway: written.pathway ?? null,
    evidence: written.evidence ?? convention(written.gloss),
  };
}

export function expandDriver(written: WrittenDriver): DriverDefinition {
  return {
    key: written.key,
    label: written.label,
    gloss: written.gloss,
    scope: written.scope ?? 'side',
    when: written.when,
    surer: written.surer ?? null,
    unless: written.unless ?? null,
    adds: written.adds,
    tags: written.tags ?? [],
    evidence: written.evidence ?? convention(written.gloss),
  };
}
