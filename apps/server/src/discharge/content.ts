import {
  entriesOf,
  type LetterContent,
  type LetterRow,
  type Outcome,
  OUTCOME_WORDS,
  reportedText,
} from '@heathstep/contracts';
import type { ContentBundle } from '@heathstep/content';
import {
  doseSentence,
  exerciseIn,
  firstToLast,
  heldBack,
  type LetterPart,
  localDay,
  measuresIn,
  ownActivities,
  say,
  sentenceText,
  shown,
  signText,
  spoken,
  stageOf,
  type UpkeepEnd,
  BODY_MASS,
} from '@heathstep/core';
import { defaultsOf } from '../clinic/defaults.js';
import type { Assessed } from '../episodes/assessment.js';
import type { EpisodeRecord } from '../episodes/record.js';
import { letterCharts } from './charts.js';
import { changeText, takenText } from './words.js';

/** So many rows leave room for the rest on one page. */
const MOST_ROWS = 10;

/** Ends after which someone goes on by themselves. */
const GOES_ON: readonly Outcome[] = ['goals-reached', 'goes-on-alone'];

export interface LetterOn {
  readonly record: EpisodeRecord;
  readonly assessed: Assessed;
  readonly content: ContentBundle;
  readonly upkeep: UpkeepEnd | null;
  readonly author: { readonly name: string; readonly registration: string | null };
  /** Today where the clinic is. */
  readonly today: string;
}

/** A day in words, as the clinic writes it. */
export const daysOf = (record: EpisodeRecord) => {
  const format = new Intl.DateTimeFormat(record.clinic.locale, {
    day: 'numeric',
    month: 'short',
    year: 'numeric',
    timeZone: 'UTC',
  });
  const onDay = (day: string): string => format.format(new Date(`${day.slice(0, 10)}T12:00:00Z`));
  return { onDay, onMoment: (iso: string) => onDay(localDay(new Date(iso), record.clinic.timeZone)) };
};

/** What was measured from first to last: what the protocol draws first, then what its stages ask for, then all else. */
function rowsOf({ record, assessed }: LetterOn) {
  const { protocol, measures, row } = record;
  const wanted = [
    ...protocol.charts,
    ...protocol.stages.flatMap((s) => [...measuresIn(s.criteria), ...s.remeasure]),
    ...assessed.facts.measures.map((m) => m.measure),
  ].filter((k) => k !== BODY_MASS);
  const ordered = [...new Set(wanted)].flatMap((key) => measures.find((m) => m.key === key) ?? []);
  const all = firstToLast(assessed.facts.measures, ordered, row.affected);
  const compared = all.filter((r) => r.first !== null);
  return { rows: compared.length > 0 ? compared.slice(0, MOST_ROWS) : all.slice(0, MOST_ROWS), all };
}

/** Stages with the day each began, and what was logged. */
function courseLines({ record, assessed }: LetterOn): string[] {
  const { view, protocol } = record;
  const { onMoment } = daysOf(record);
  const stages = view.stages.map((s) =>
    say('{{stage}} from {{day}}', {
      stage: say(stageOf(protocol, s.stage)?.name ?? s.stage),
      day: onMoment(s.since),
    }),
  );
  const done = assessed.facts.sessions.filter((s) => s.done !== false).length;
  const reds = assessed.home.sessions.filter((s) => s.state === 'red' || s.state === 'stop').length;
  return [
    ...(stages.length === 0 ? [] : [`${stages.join('; ')}.`]),
    ...(done === 0 ? [] : [say('Exercises logged on {{done}} days, {{reds}} of them red.', { done, reds })]),
  ];
}

/** What matters most to the person, then and now, of 10. */
function activityLines({ record }: LetterOn): string[] {
  const asked = record.view.visits.flatMap((v) => {
    const list = entriesOf(v.entries).get('story.activities');
    return list === undefined ? [] : [list];
  });
  const [first] = asked;
  const last = asked.at(-1);
  if (first === undefined || last === undefined) return [];
  const score = (n: number | null) => (n === null ? say('not asked') : shown(n));
  return ownActivities(first, last).map((a) =>
    first === last
      ? say('{{text}}: {{now}} of 10', { text: a.text, now: score(a.now) })
      : say('{{text}}: {{then}}, now {{now}} of 10', {
          text: a.text,
          then: score(a.then),
          now: score(a.now),
        }),
  );
}

/** What is done at home from here on, and until when; nothing while a sign holds it back. */
function goesOnLines(on: LetterOn): string[] {
  const { record, upkeep } = on;
  const { view, library } = record;
  if (view.plan === null || view.heldBack.length > 0) return [];
  // What safety takes away at home is not told as going on.
  const { kept } = heldBack(view.plan.items, (key) => library.exercise(key), view);
  const lines = kept.flatMap((item) => {
    const found = library.exercise(item.exercise);
    if (found === undefined) return [];
    const exercise = exerciseIn(spoken(), found);
    return [`${exercise.name}: ${sentenceText(doseSentence(item, exercise))}`];
  });
  return upkeep === null
    ? lines
    : [
        ...lines,
        say('This is upkeep; it usually ends by {{day}}.', { day: daysOf(record).onDay(upkeep.by) }),
      ];
}

/** Signs that keep something off without being open, the caution of whoever goes on. */
const cautionLines = ({ record }: LetterOn): string[] =>
  (record.view.safety?.triggered ?? [])
    .filter((t) => t.status !== 'closed' && (record.view.safety?.stops ?? []).every((s) => s !== t))
    .map((t) => signText(t));

/** What it is about, from when to when, and how it ended. */
function aboutLines({ record, content }: LetterOn): LetterContent['about'] {
  const { view, clinic, protocol, row } = record;
  const { onDay, onMoment } = daysOf(record);
  const pathway = content.pathways.find((p) => p.key === row.condition)?.name ?? '';
  const side = row.affected === 'both' ? say('both sides') : say(row.affected);
  const closed = view.ended;
  const seen = view.visits.length;
  const from = localDay(row.startedAt, clinic.timeZone);
  return [
    { label: say('Treated for'), text: `${say(pathway)}, ${side}` },
    {
      label: say('From'),
      text: say('{{from}} to {{to}}, {{n}} {{words}}', {
        from: onDay(from),
        to: closed === null ? say('now') : onMoment(closed.at),
        n: seen,
        words: seen === 1 ? say('visit') : say('visits'),
      }),
    },
    ...(protocol.name === pathway || protocol.name === ''
      ? []
      : [{ label: say('By the protocol'), text: say(protocol.name) }]),
    ...(closed === null
      ? []
      : [
          {
            label: say('Ended'),
            text: say('{{outcome}}, by {{by}}{{note}}', {
              outcome: say(OUTCOME_WORDS[closed.outcome]),
              by: closed.by,
              note: closed.note === '' ? '' : `. ${closed.note}`,
            }),
          },
        ]),
  ];
}

/** The letter of a course: what it was, what changed by how much, what goes on, and what to do when it comes back. */
export function letterContent(on: LetterOn): LetterContent {
  const { record, assessed, author, today } = on;
  const { view, clinic, protocol, row } = record;
  const { onDay } = daysOf(record);
  const { rows, all } = rowsOf(on);
  const closed = view.ended;
  const open = [
    ...view.openStops.map(reportedText),
    ...(view.safety?.stops ?? []).map(signText),
    ...view.elsewhere.flatMap((c) => c.blocks),
  ];
  const from = localDay(row.startedAt, clinic.timeZone);
  const part = (key: LetterPart, title: string, lines: readonly string[]) =>
    lines.length === 0 ? [] : [{ key, title, lines }];
  return {
    title: closed === null ? say('How it goes') : say('Discharge'),
    to: [],
    opening: [],
    closing: [],
    clinic: say('{{clinic}}, telephone {{phone}}', { clinic: clinic.name, phone: clinic.phone }),
    letterhead: defaultsOf(clinic)
      .letterhead.split('\n')
      .map((line) => line.trim())
      .filter((line) => line !== ''),
    day: onDay(today),
    person: say('About {{person}}{{words}}', {
      person: view.person.name,
      words:
        view.person.birthDate === null ? '' : say(', born {{born}}', { born: onDay(view.person.birthDate) }),
    }),
    about: aboutLines(on),
    open,
    rows: rows.map((r): LetterRow => ({
      measure: say(r.measure.label),
      side: r.side,
      sideText: r.side === 'none' ? '' : say(r.side),
      first: takenText(r.measure, r.first, onDay),
      last: takenText(r.measure, r.last, onDay),
      change: changeText(r),
      direction: r.change?.direction ?? null,
      other: takenText(r.measure, r.other, onDay),
    })),
    more: all.length - rows.length,
    charts: letterCharts({
      facts: assessed.facts.measures,
      rows,
      mornings: assessed.home.mornings,
      from,
      to: today,
    }),
    parts: [
      ...part('activities', say('What mattered most'), activityLines(on)),
      ...part('course', say('The course'), courseLines(on)),
      ...part('cautions', say('To mind'), cautionLines(on)),
      ...part(
        'goesOn',
        closed === null || GOES_ON.includes(closed.outcome)
          ? say('Goes on at home')
          : say('Given last for home'),
        goesOnLines(on),
      ),
      ...part('relapse', say('If it comes back'), protocol.relapse === '' ? [] : [say(protocol.relapse)]),
    ],
    signed: say('{{author}}{{words}}', {
      author: author.name,
      words:
        author.registration === null
          ? ''
          : say(', registration {{registration}}', { registration: author.registration }),
    }),
    notice: say(
      'Changes are told against the error of the measurement. It does not replace the judgement of whoever treats next.',
    ),
    labels: {
      open: say('Open signs, to be assessed first'),
      measured: say('Measured from first to last'),
      measure: say('Measure'),
      side: say('Side'),
      first: say('First'),
      last: say('Last'),
      change: say('Change'),
      other: say('Other side now'),
      more: say('{{n}} more in the record.', { n: all.length - rows.length }),
      footer: say('{{title}}, page {{page}} of {{pages}}', { title: view.person.name }),
    },
  };
}
