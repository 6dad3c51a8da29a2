import { SIDES, type FindingDefinition, type Known, withUnit, say } from '@heathstep/core';
import { concludedIdeas, entriesOfKind } from '@heathstep/contracts';
import { placeName } from '../../../parts/footShapes.js';
import { LEVEL_WORDS, SIGN_WORDS } from '../../../parts/levels.js';
import { type Column, columnsOf, type LiveVisit } from '../live.js';
import { STATUS_WORDS } from '../rows/entries.js';
import { STORY_CHOICES, STORY_LISTS, type ToldKey, type ToldListKey } from '../storyWords.js';

export type Line = readonly [what: string, said: string];

const on = (side: string): string => (side === 'none' ? '' : `, ${say(side)}`);
const yesNo = (value: boolean | null): string => (value === null ? '' : value ? say('yes') : say('no'));
const score = (value: number | null): string => (value === null ? '' : say('{{value}} of 10', { value }));

function chosen(live: LiveVisit, key: ToldKey): string {
  const value: string | null = live.get(key);
  const options: readonly { value: string; label: string }[] = STORY_CHOICES[key];
  return options.find((o) => o.value === value)?.label ?? '';
}

function several(live: LiveVisit, key: ToldListKey): string {
  const { none, options } = STORY_LISTS[key];
  const told = live.get(key) ?? [];
  if (told.includes('none')) return none;
  return options
    .filter((o) => told.includes(o.value))
    .map((o) => o.label)
    .join(', ');
}

/** What was told, a line each; what was not is left out. */
export function storyLines(live: LiveVisit): Line[] {
  const settles = live.get('story.settles');
  const lines: Line[] = [
    [say('Where it hurts'), (live.get('story.regions') ?? []).map(placeName).join('; ')],
    [
      say('How it began'),
      [chosen(live, 'story.onset'), chosen(live, 'story.since')].filter((t) => t !== '').join(', '),
    ],
    [say('What changed before it'), several(live, 'story.load-change')],
    [say('Worst pain'), score(live.get('story.worst'))],
    [say('Pain now'), score(live.get('story.now'))],
    [say('Worse'), several(live, 'story.worse-when')],
    [say('Provoked within 5 minutes'), yesNo(live.get('story.provoked'))],
    [say('Settles in'), settles === null ? '' : say('{{settles}} min', { settles })],
    [say('Wakes at night'), yesNo(live.get('story.night'))],
    [say('Burning, numbness'), several(live, 'story.character')],
    [
      say('What matters'),
      (live.get('story.activities') ?? [])
        .map((a) =>
          a.ability === null
            ? a.text
            : say('{{text}} ({{ability}} of 10)', { text: a.text, ability: a.ability }),
        )
        .join(', '),
    ],
    [say('Goal'), live.get('story.goal') ?? ''],
  ];
  return lines.filter(([, said]) => said !== '');
}

/** Signs that the answers opened, what was not tested and why, what nothing called for, what is still missing. */
export function safetyLines(live: LiveVisit): Line[] {
  const { safety, content, store } = live;
  const textOf = (key: string) => content.safetyQuestions.find((q) => q.key === key)?.text ?? key;
  const untested = safety.notTested.map((key) => {
    const why = store.get(`untested.${key}`);
    return `${textOf(key)}${why === null ? '' : ` (${why})`}`;
  });
  return [
    ...safety.triggered.map((t): Line => [
      LEVEL_WORDS[t.rule.level],
      `${t.rule.title}${on(t.side)}: ${SIGN_WORDS[t.status]}${t.closure === null ? '' : `, ${t.closure.text}`}`,
    ]),
    ...(safety.unanswered.length > 0
      ? [
          [
            say('Not answered'),
            say('{{n}} of {{n2}}', { n: safety.unanswered.length, n2: safety.asked.length }),
          ] as const,
        ]
      : []),
    ...(untested.length > 0 ? [[say('Not tested'), untested.join('; ')] as const] : []),
    ...(safety.spared.length > 0
      ? [[say('Not called for'), safety.spared.map(textOf).join('; ')] as const]
      : []),
    ...(safety.unanswered.length === 0 && safety.triggered.length === 0
      ? [[say('Asked'), say('nothing open')] as const]
      : []),
  ];
}

export interface Reading {
  readonly label: string;
  readonly left: string;
  readonly right: string;
  readonly single: string;
}

function said(live: LiveVisit, m: LiveVisit['measures'][number], side: Column): string {
  const value = live.value(m, side);
  const entry = m.computed === null ? live.store.get(`measure.${m.key}.${side}`) : null;
  if (entry !== null && entry.status !== 'taken') return STATUS_WORDS[entry.status];
  if (value === null) return '';
  const pain = entry?.pain ?? null;
  const simulated = entry?.simulated === true ? say(', simulated') : '';
  return `${withUnit(m, value, m.decimals)}${pain === null ? '' : say(', pain {{pain}}', { pain })}${simulated}`;
}

/** What was measured at this visit, both sides; what was not is left out. */
export const readingLines = (live: LiveVisit): Reading[] =>
  live.measures
    .map((m) => {
      const at = (side: Column) => (columnsOf(m).includes(side) ? said(live, m, side) : '');
      return { label: m.label, left: at('left'), right: at('right'), single: at('none') };
    })
    .filter((r) => r.left !== '' || r.right !== '' || r.single !== '');

/** Findings present by whatever way they are known, and those found absent by hand. */
export function findingLines(
  findings: readonly FindingDefinition[],
  known: Known,
  byHand: LiveVisit['readings']['entries'],
): { present: string[]; absent: string[] } {
  const columns = (f: FindingDefinition): readonly Column[] => (f.sides === 'person' ? ['none'] : SIDES);
  const present = findings.flatMap((f) =>
    columns(f)
      .filter((side) => known.at(f.key, side).state === 'present')
      .map((side) => `${f.name}${on(side)}`),
  );
  const nameOf = (key: string) => findings.find((f) => f.key === key)?.name ?? key;
  const absent = entriesOfKind(byHand, 'finding')
    .filter((e) => e.value === 'absent')
    .map((e) => `${nameOf(e.name)}${on(e.side)}`);
  return { present, absent };
}

/** What it is judged to be, and where the work starts. */
export function conclusionLines(live: LiveVisit): Line[] {
  const { entries } = live.readings;
  const nameOf = (key: string) => live.content.conditions.find((c) => c.key === key)?.name ?? key;
  const ideas = concludedIdeas(entries).map((i) => `${nameOf(i.condition)}${on(i.side)}`);
  const stage = live.protocol.stages.find((s) => s.key === live.get('conclude.stage'))?.name ?? '';
  const lines: Line[] = [
    [say('It is'), ideas.join('; ')],
    [say('In other words'), live.get('conclude.other') ?? ''],
    [
      say('It cannot be told yet'),
      live.get('conclude.condition') === 'open' ? say('said so at this visit') : '',
    ],
    [say('Irritability'), live.irritability.level === 'not-known' ? '' : live.irritability.level],
    [say('Starts in'), stage],
    [say('Because'), live.get('conclude.stage-reason') ?? ''],
  ];
  return lines.filter(([, words]) => words.trim() !== '');
}

/** What was written beside the steps, and steps left out with their reason. */
export const noteLines = (live: LiveVisit): Line[] => [
  ...entriesOfKind(live.readings.entries, 'note')
    .filter((n) => n.value.trim() !== '')
    .map((n): Line => [say('Note, {{name}}', { name: n.name }), n.value]),
  ...entriesOfKind(live.readings.entries, 'skip').map((s): Line => [
    say('Left out: {{name}}', { name: s.name }),
    s.value,
  ]),
];
