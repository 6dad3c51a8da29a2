// What the study found, as a page: numbers of made-up people, and what they do not say.

const percent = (part, of, digits = 0) => (of === 0 ? '–' : `${((part / of) * 100).toFixed(digits)} %`);
const per = (sum, of, digits = 1) => (of === 0 ? '–' : (sum / of).toFixed(digits));

const row = (cells) => `| ${cells.join(' | ')} |`;
const table = (head, rows) =>
  [row(head), row(head.map((_, i) => (i === 0 ? '---' : '---:'))), ...rows.map(row)].join('\n');

const COLUMNS = [
  ['progressed through a red', (t) => `${t.throughRed}`],
  ['prescribed past a stop', (t) => `${t.pastStop}`],
  ['false reds', (t) => percent(t.falseRed, t.quiet, 1)],
  ['false ambers', (t) => percent(t.falseAmber, t.quiet, 1)],
  ['flares caught', (t) => percent(t.caught, t.catchable)],
  ['after days', (t) => per(t.caughtAfterDays, t.caught)],
  ['flares in 100 days', (t) => per(t.flares * 100, t.days, 2)],
  ['reached the last stage', (t) => percent(t.reachedLast, t.changing)],
  ['weeks to it', (t) => per(t.weeksToLast, t.reachedLast)],
  ['complaint gone', (t) => percent(t.healed, t.changing)],
  ['flagged although well', (t) => percent(t.flaggedWrongly, t.changing)],
  ['unchanging flagged', (t) => percent(t.unchangingFlagged, t.unchanging)],
  ['weeks until', (t) => per(t.unchangingWeeks, t.unchangingFlagged)],
  ['mistaken found out', (t) => percent(t.mistakenFound, t.mistaken)],
  ['weeks until', (t) => per(t.mistakenWeeks, t.mistakenFound)],
  ['days stuck in 100', (t) => per(t.stuckDays * 100, t.days, 1)],
];

const columnsOf = (names) => COLUMNS.filter(([name]) => names === undefined || names.includes(name));

const lines = (list, names) =>
  table(
    ['', 'people', ...columnsOf(names).map(([name]) => name)],
    list.map(({ name, tally }) => [name, `${tally.people}`, ...columnsOf(names).map(([, of]) => of(tally))]),
  );

/** Forecasts held against what came true, by a row's name. */
const forecasts = (rows) =>
  table(
    ['', 'forecasts', 'within 80 %', 'sooner', 'later'],
    rows.map(([name, list]) => [
      name,
      `${list.length}`,
      ...['within', 'sooner', 'later'].map((key) =>
        percent(list.filter((f) => f[key] === 1).length, list.length),
      ),
    ]),
  );

const POINTS = [
  ['3 values', (n) => n === 3],
  ['4 values', (n) => n === 4],
  ['5 or 6 values', (n) => n === 5 || n === 6],
  ['7 to 10 values', (n) => n >= 7 && n <= 10],
  ['more', (n) => n > 10],
];

/** The page. Runs come with their sums over all protocols, the first is the rules as they are. */
export function report(runs, { weeks }) {
  const [rules] = runs;
  const named = (keys) => runs.filter((r) => keys(r.key)).map((r) => ({ name: r.name, tally: r.all }));
  const t = rules.all;
  return `# The rules on made-up people

\`npm run study\` writes this page. Made-up people of every protocol live ${weeks} weeks by the very functions that the clinic
and the phone go by: the pain rule, the criteria, the review, the steps of the dose, the planner. How they come along is
invented (\`packages/content/data/simulated\`), no number of it was measured in anyone. **That the rules do better here than
something simpler is no evidence for patients.** It shows that they do what they say, what each is worth in a world whose truth
is known, and where they cost something.

Seeds are fixed and used for nothing else; the same page comes out again.

## What must never be

Progressed through a red: **${t.throughRed}** of ${t.progressions}. Prescribed past an open stop: **${t.pastStop}** of ${t.prescribed}.

## By protocol

False alarms are of people who do not change, on days on which nothing was near too much for them. A flare is a night after which the morning is at least
1.5 points worse by what was loaded; it can be caught where something was done and judged within three days. The last stage is
upkeep: ${weeks} weeks are shorter than many protocols are meant to take.

${lines(rules.byProtocol.concat([{ name: '**all**', tally: t }]), [
  'false reds',
  'false ambers',
  'flares caught',
  'after days',
  'flares in 100 days',
  'reached the last stage',
  'weeks to it',
  'complaint gone',
  'flagged although well',
  'unchanging flagged',
  'mistaken found out',
  'days stuck in 100',
])}

## Held against something simpler

${lines(named((k) => ['rules', 'fixed', 'calendar', 'random'].includes(k)))}

## What each rule is worth

Rules by their numbers in the review: 1 a stop is open, 2 two reds running or three in 14 days, 3 the last red or two ambers, 4 all
met, 5 under 60 % done, 6 no real change for long, 7 something is not known, 8 only within error.

${lines(named((k) => k === 'rules' || k.startsWith('without')))}

## More noise, more left out, nobody changing

${lines(named((k) => ['rules', 'noise', 'missed', 'still'].includes(k)))}

## Forecasts

A forecast of a leading measure after three takes or more, of a threshold some way ahead, held against the day on which the true
trend meets it. An interval of 80 % should hold it in 75 to 85 of 100. The way a forecast is made was settled on other seeds.

${forecasts([
  ...POINTS.map(([name, fits]) => [
    name,
    rules.byProtocol.flatMap((p) => p.forecasts).filter((f) => fits(f.points)),
  ]),
  ...rules.byProtocol.map((p) => [p.name, p.forecasts]),
  ['**all**', rules.byProtocol.flatMap((p) => p.forecasts)],
])}
`;
}
