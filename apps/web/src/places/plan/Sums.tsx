import {
  addImpact,
  type Impact,
  RUN_DAYS,
  RUN_RISE_PERCENT,
  shown,
  type Stage,
  whyLoad,
  whyMinutes,
  say,
  sayKey,
} from '@heathstep/core';
import type { CourseView } from '@heathstep/contracts';
import { Why } from '../../parts/Why.js';
import { tagList } from '../../parts/tagWords.js';
import { minutesBy, type PlanModel, type TissueLoad } from './planModel.js';
import { conflictText, DAYS } from './weekWords.js';

/** Minutes of the day and the week, and the load against the last 7 days done. */
export function Sums({ model, course, stage }: { model: PlanModel; course: CourseView; stage: Stage }) {
  const agreed = course.episode.minutesPerDay;
  const whole = model.week.map((minutes, i) => minutes + (model.weekElsewhere[i] ?? 0));
  const others = Math.max(0, ...model.weekElsewhere);
  const over = Math.max(0, ...whole) > agreed + 0.05;
  const longest = Math.max(...whole, agreed, 1);
  return (
    <>
      <section>
        <h3>{say('Time')}</h3>
        <p className="mt-1 flex items-baseline gap-2">
          <span className={`font-head text-3xl font-semibold ${over ? 'text-hold-deep' : ''}`}>
            {shown(Math.max(0, ...whole))}
          </span>
          <span className="text-sm text-ink-2">
            {say('min on the longest day, {{agreed}} agreed', { agreed })}
          </span>
        </p>
        <div
          className="mt-3 flex h-20 items-end gap-1.5"
          role="img"
          aria-label={DAYS.map((d, i) => say('{{d}} {{whole}} min', { d, whole: shown(whole[i] ?? 0) })).join(
            ', ',
          )}
        >
          {whole.map((minutes, i) => (
            <span
              key={i}
              className="flex flex-1 flex-col items-center justify-end gap-1"
              style={{ height: '100%' }}
            >
              <span
                className="w-full rounded-t-sm bg-line"
                style={{ height: `${((model.weekElsewhere[i] ?? 0) / longest) * 72}%` }}
              />
              <span
                className={`-mt-1 w-full ${others === 0 ? 'rounded-t-sm' : ''} ${minutes > agreed + 0.05 ? 'bg-hold' : 'bg-heather'}`}
                style={{ height: `${((model.week[i] ?? 0) / longest) * 72}%` }}
              />
              <span className="text-xs text-ink-2">{DAYS[i]}</span>
            </span>
          ))}
        </div>
        {others > 0 && (
          <p className="mt-1 text-sm text-ink-2">
            {say('Of these up to {{others}} min for the other complaint, drawn light.', {
              others: shown(others),
            })}
          </p>
        )}
        <p className="mt-1 text-sm text-ink-2">
          <Why
            of={() =>
              whyMinutes(
                model.lines.map((l) => ({
                  name: l.exercise.name,
                  daySeconds: l.totals?.daySeconds ?? 0,
                  daysPerWeek: l.item.daysPerWeek,
                })),
              )
            }
          >
            {say('{{minutesPerWeek}} min a week', { minutesPerWeek: shown(model.minutesPerWeek, 0) })}
          </Why>
        </p>
      </section>
      <ByAim model={model} />
      <Conflicts model={model} />
      {model.loads.map((load) => (
        <section key={load.tissue.key} className="mt-5 border-t border-line pt-4">
          <h3>{say('{{name}}, load on the treated side', { name: load.tissue.name })}</h3>
          <Load load={load} limit={stage.loadRisePercent} />
        </section>
      ))}
      <ImpactSum model={model} course={course} stage={stage} />
      <Acts course={course} />
    </>
  );
}

/** What the chosen days do against the rules of load, as they are chosen. */
function Conflicts({ model }: { model: PlanModel }) {
  if (model.conflicts.length === 0) return null;
  return (
    <ul className="mt-2 text-sm text-ease-deep" role="alert">
      {model.conflicts.map((c) => (
        <li key={c.kind}>{conflictText(c)}</li>
      ))}
    </ul>
  );
}

const amount = ({ contacts, runMinutes }: Impact): string =>
  [
    contacts > 0 ? say('{{contacts}} landings', { contacts: shown(contacts, 0) }) : '',
    runMinutes > 0 ? say('{{runMinutes}} min of running', { runMinutes: shown(runMinutes, 0) }) : '',
  ]
    .filter((t) => t !== '')
    .join(say(' and ')) || say('none');

/** What a stage allows of impact in a week and this plan goes over, in words. */
function overStage(impact: Impact, stage: Stage): string {
  const over = [
    ...(stage.contactsPerWeek !== null && impact.contacts > stage.contactsPerWeek
      ? [say('{{contactsPerWeek}} landings', { contactsPerWeek: shown(stage.contactsPerWeek, 0) })]
      : []),
    ...(stage.runMinutesPerWeek !== null && impact.runMinutes > stage.runMinutesPerWeek
      ? [
          say('{{runMinutesPerWeek}} min of running', {
            runMinutesPerWeek: shown(stage.runMinutesPerWeek, 0),
          }),
        ]
      : []),
  ];
  return over.length === 0
    ? ''
    : say('This stage allows at most {{list}} a week.', { list: over.join(say(' and ')) });
}

/** Hops and runs have a ledger of their own beside the slow load. */
function ImpactSum({ model, course, stage }: { model: PlanModel; course: CourseView; stage: Stage }) {
  const { impact, impactRise, runRise } = model;
  const { impactElsewhere } = model;
  const over = overStage(addImpact(impact, impactElsewhere), stage);
  if (impact.contacts + impact.runMinutes === 0) return null;
  return (
    <section className="mt-5 border-t border-line pt-4">
      <h3>{say('Impact in a week, on a foot')}</h3>
      <p className="mt-1">
        <b>{amount(impact)}</b>
        <span className="text-sm text-ink-2">
          {say(', counted of the last 7 days {{amount}}; 48 hours between', {
            amount: amount(course.impactDone),
          })}
        </span>
      </p>
      {impactElsewhere.contacts + impactElsewhere.runMinutes > 0 && (
        <p className="text-sm text-ink-2">
          {say('Beside it {{amount}} for the other complaint.', { amount: amount(impactElsewhere) })}
        </p>
      )}
      {over !== '' && (
        <p role="alert" className="mt-1 text-sm text-ease-deep">
          {over}
        </p>
      )}
      {impactRise.over && (
        <p role="alert" className="mt-1 text-sm text-ease-deep">
          {say(
            'More than {{impactRisePercent}} % over the last week, or over a first week: at most {{amount}}.',
            { impactRisePercent: stage.impactRisePercent, amount: amount(impactRise.most) },
          )}
        </p>
      )}
      {runRise.over && (
        <p role="alert" className="mt-1 text-sm text-ease-deep">
          {say(
            'One run is more than {{percent}} % longer than the longest of the last {{days}} days, {{longestMinutes}} min: at most {{mostMinutes}} min of running.',
            {
              percent: RUN_RISE_PERCENT,
              days: RUN_DAYS,
              longestMinutes: shown(runRise.longestMinutes ?? 0, 0),
              mostMinutes: shown(runRise.mostMinutes ?? 0, 1),
            },
          )}
        </p>
      )}
    </section>
  );
}

/** Where the minutes of a week go: by aim, and by part of the body. */
function ByAim({ model }: { model: PlanModel }) {
  if (model.lines.length === 0) return null;
  const list = (title: string, sums: ReturnType<typeof minutesBy>) => (
    <div>
      <h4 className="text-ink-2">{title}</h4>
      <dl className="grid grid-cols-[minmax(0,1fr)_auto] gap-x-3">
        {sums.map(([word, minutes]) => (
          <div key={word} className="contents">
            <dt>{sayKey(word)}</dt>
            <dd className="text-right">{shown(minutes, 0)}</dd>
          </div>
        ))}
      </dl>
    </div>
  );
  return (
    <details className="mt-2 text-sm">
      <summary className="min-h-9 text-ink-2">{say('Minutes by aim and by part')}</summary>
      <div className="grid gap-2 pb-2">
        {list(
          say('Aim'),
          minutesBy(model.lines, (e) => [e.aim]),
        )}
        {list(
          say('Part; what works on two counts for both'),
          minutesBy(model.lines, (e) => e.parts),
        )}
      </div>
    </details>
  );
}

/** What open cautions change of pain and load steps. */
function Acts({ course }: { course: CourseView }) {
  const { safety, held } = course.episode;
  const acts = safety?.acts.because ?? [];
  const ideas = held.map((h) =>
    say('{{name}}{{words}}: holds back {{tagList}}', {
      name: h.name,
      words: h.side === 'none' ? '' : `, ${say(h.side)}`,
      tagList: tagList(h.tags),
    }),
  );
  if (acts.length + ideas.length === 0) return null;
  return (
    <section className="mt-5 border-t border-line pt-4">
      <h3>{say('Held back and judged with care')}</h3>
      <ul className="mt-1 text-sm text-ink-2">
        {[...acts, ...ideas].map((t) => (
          <li key={t}>{t}.</li>
        ))}
      </ul>
    </section>
  );
}

function Load({ load, limit }: { load: TissueLoad; limit: number }) {
  const { rise } = load;
  const why = () =>
    whyLoad(
      load.tissue,
      { rise, coming: load.coming, elsewhere: load.elsewhere, leftOut: load.withoutEstimate },
      limit,
    );
  if (rise.percent === null) {
    return (
      <p className="mt-1 text-sm text-ink-2">
        {say('No comparison yet:')} <Why of={why}>{rise.reason ?? ''}</Why>.
      </p>
    );
  }
  const share = Math.min(1, Math.max(0.02, (100 + rise.percent) / 200));
  return (
    <>
      <p className="mt-1">
        <Why of={why} className={`text-lg font-bold ${rise.over ? 'text-ease-deep' : ''}`}>
          {rise.percent >= 0.5 ? '+' : rise.percent <= -0.5 ? '−' : ''}
          {shown(Math.abs(rise.percent), 0)} %
        </Why>{' '}
        <span className="text-sm text-ink-2">
          {say('on the last 7 days, limit {{limit}}\u00a0%', { limit })}
        </span>
      </p>
      <div className="relative mt-2 h-3 bg-line-2" aria-hidden>
        <div
          className={`h-full ${rise.over ? 'bg-ease' : 'bg-heather'}`}
          style={{ width: `${share * 100}%` }}
        />
        <div className="absolute -top-1 h-5 w-0.5 bg-ink" style={{ left: `${(100 + limit) / 2}%` }} />
      </div>
      {load.elsewhere > 0 && (
        <p className="mt-2 text-sm text-ink-2">
          {say('The other complaint’s plan loads it too and is counted in.')}
        </p>
      )}
      {rise.over && (
        <p role="alert" className="mt-2 text-sm text-ease-deep">
          {say(
            'Above the limit, most by {{because}}. A smaller step: one set less, or the easier exercise.',
            { because: rise.because ?? '' },
          )}
        </p>
      )}
    </>
  );
}
