import { useEffect, useState } from 'react';
import { BODY_MASS, daysBetween, treatedSides, whyIrritability, say } from '@heathstep/core';
import { ENTRY_LIMITS, type EntryValue, type MeasureEntry } from '@heathstep/contracts';
import { ChoiceBlank, ListBlank, NumberBlank, ScoreBlank } from '../../parts/Blank.js';
import { shortDay } from '../../parts/dates.js';
import { BodyMap } from '../../parts/BodyMap.js';
import { Why } from '../../parts/Why.js';
import { AddMeasure } from './AddMeasure.js';
import { type LiveVisit, sidesText, storyScore } from './live.js';
import { Rows } from './rows/Rows.js';
import { Onward, rowsOf } from './Steps.js';
import { SinceLast } from './SinceLast.js';
import { STORY_CHOICES, STORY_LISTS, type ToldKey, type ToldListKey } from './storyWords.js';

const BODY_MASS_ENTRY = `measure.${BODY_MASS}.none` as const;

const bodyMass = (entry: MeasureEntry | null): number | null => entry?.trials.at(-1) ?? null;

const yesNo = (value: boolean | null): 'yes' | 'no' | null => (value === null ? null : value ? 'yes' : 'no');

const YES_NO = [
  { value: 'no', label: say('no') },
  { value: 'yes', label: say('yes') },
] as const;

/** One choice of the story, in its sentence. */
function Told<K extends ToldKey>({ live, entry, label }: { live: LiveVisit; entry: K; label: string }) {
  return (
    <ChoiceBlank<EntryValue<K>>
      label={label}
      value={live.get(entry)}
      options={STORY_CHOICES[entry]}
      onChange={(v) => live.set(entry, v)}
    />
  );
}

/** One list of the story, in its sentence, or none of it. */
function ToldList({
  live,
  entry,
  label,
  ends,
}: {
  live: LiveVisit;
  entry: ToldListKey;
  label: string;
  ends: string;
}) {
  const { none, options } = STORY_LISTS[entry];
  return (
    <ListBlank
      label={label}
      value={live.get(entry)}
      none={none}
      options={options}
      ends={ends}
      onChange={(v) => live.set(entry, v)}
    />
  );
}

function ToldYesNo({
  live,
  entry,
  label,
}: {
  live: LiveVisit;
  entry: 'story.provoked' | 'story.night';
  label: string;
}) {
  return (
    <ChoiceBlank
      label={label}
      prompt={say('yes or no')}
      value={yesNo(live.get(entry))}
      options={YES_NO}
      onChange={(v) => live.set(entry, v === null ? null : v === 'yes')}
    />
  );
}

function ToldScore({
  live,
  entry,
  label,
}: {
  live: LiveVisit;
  entry: 'story.worst' | 'story.now';
  label: string;
}) {
  return <ScoreBlank label={label} value={live.get(entry)} onChange={(v) => tell(live, entry, v)} />;
}

/** A score that is told is the measure's that asks the same, on the sides that hurt, unless another was taken there. */
function tell(live: LiveVisit, entry: 'story.worst' | 'story.now', value: number | null): void {
  const before = live.store.get(entry);
  const same = live.measures.filter((m) => m.told !== undefined && entry === `story.${m.told}`);
  const taken = same.flatMap((m) =>
    treatedSides(live.affected).flatMap((side) => {
      const key = `measure.${m.key}.${side}` as const;
      const now = live.store.get(key);
      const asTold = now === null || (now.trials.length === 1 && now.trials[0] === before);
      return asTold ? [[key, value === null ? null : scoreEntry(value)] as const] : [];
    }),
  );
  live.store.setMany([[entry, value], ...taken]);
}

const scoreEntry = (value: number): MeasureEntry => ({ trials: [value], status: 'taken', pain: null });

/** Which side, how and when it began, after what. */
function Began({ live }: { live: LiveVisit }) {
  const { get, set } = live;
  const { place } = live.pathway;
  return (
    <p>
      {say('It hurts in')}{' '}
      <ChoiceBlank
        label={say('which side')}
        value={live.affected === 'none' ? null : live.affected}
        options={(['left', 'both', 'right'] as const).map((value) => ({
          value,
          label: sidesText(value, place),
        }))}
        onChange={(v) => v !== null && set('story.side', v)}
      />
      {say('. It began')} <Told live={live} entry="story.onset" label={say('how it began')} />,{' '}
      <Told live={live} entry="story.since" label={say('since when')} />
      {get('story.since') === 'under-2-weeks' && (
        <>
          {' ('}
          <NumberBlank
            label={say('how many days ago')}
            value={get('story.days')}
            unit={say('days')}
            min={0}
            max={14}
            onChange={(v) => set('story.days', v)}
          />
          )
        </>
      )}
      {say(', after')}{' '}
      <ToldList live={live} entry="story.load-change" label={say('a change of load')} ends="." />
    </p>
  );
}

/** How bad it is, and when. */
function HowBad({ live }: { live: LiveVisit }) {
  const { storyAsks } = live.pathway;
  return (
    <p>
      {storyAsks === null ? (
        <>{say('The worst pain is')} </>
      ) : (
        <>
          {storyAsks.words} <StoryScore live={live} measure={storyAsks.measure} />
          {say(', the worst is')}{' '}
        </>
      )}
      <ToldScore live={live} entry="story.worst" label={say('worst pain')} />
      {say(', and now it is')} <ToldScore live={live} entry="story.now" label={say('pain now')} />
      {say('. It is worse')}{' '}
      <ToldList live={live} entry="story.worse-when" label={say('when it is worse')} ends="." />
    </p>
  );
}

/** What brings it on and how it settles, and so how irritable it is. */
function HowIrritable({ live }: { live: LiveVisit }) {
  const { storyAsks } = live.pathway;
  const { level } = live.irritability;
  return (
    <p>
      {say('Activity{{words}} brings it on in 5 minutes: ', {
        words: storyAsks === null ? '' : say(', {{aside}} aside,', { aside: storyAsks.aside }),
      })}
      <ToldYesNo live={live} entry="story.provoked" label={say('provoked within 5 minutes')} />
      {say('. It settles after')}{' '}
      <NumberBlank
        label={say('how long')}
        value={live.get('story.settles')}
        unit={say('min')}
        min={0}
        max={1440}
        onChange={(v) => live.set('story.settles', v)}
      />
      {say('. It wakes at night:')}{' '}
      <ToldYesNo live={live} entry="story.night" label={say('wakes at night')} />
      {say('. There is')}{' '}
      <ToldList live={live} entry="story.character" label={say('burning, numbness')} ends="." />{' '}
      {say('So it is')}{' '}
      <Why of={() => whyIrritability(live.irritability)} className="font-semibold">
        {level === 'not-known'
          ? say('not yet known how irritable')
          : say('{{words}} irritable', {
              words: level === 'high' ? say('highly') : level === 'low' ? say('hardly') : say('moderately'),
            })}
      </Why>
      .
    </p>
  );
}

/** What is asked of the person once, and the body mass that loads are worked out from. */
function ThePerson({ live }: { live: LiveVisit }) {
  const asked = live.content.safetyQuestions.filter((q) => q.inStory === true);
  return (
    <p>
      {asked.map((q) => (
        <span key={q.key}>
          {q.text}: <Lasting live={live} question={q.key} />.{' '}
        </span>
      ))}
      {say('Weighs')}{' '}
      <NumberBlank
        label={say('body mass')}
        value={bodyMass(live.get(BODY_MASS_ENTRY))}
        unit={say('kg')}
        min={10}
        max={350}
        onChange={(v) =>
          live.set(BODY_MASS_ENTRY, v === null ? null : { trials: [v], status: 'taken', pain: null })
        }
      />
      .
    </p>
  );
}

/** The story starts on the foot and reads back as sentences. */
export function Story({ live }: { live: LiveVisit }) {
  return (
    <>
      <SinceLast live={live} />
      <WholeStory live={live} />
    </>
  );
}

function WholeStory({ live }: { live: LiveVisit }) {
  return (
    <div className="grid grid-cols-[19rem_minmax(0,1fr)] gap-8 max-md:grid-cols-1">
      <div>
        <p className="text-sm text-ink-2">{say('Tap or paint where it hurts, as the patient looks down.')}</p>
        <BodyMap
          chosen={live.get('story.regions') ?? []}
          onChange={(next) => live.set('story.regions', next)}
        />
      </div>
      <div className="max-w-2xl space-y-5 text-lg leading-9">
        <Began live={live} />
        <HowBad live={live} />
        <HowIrritable live={live} />
        <ThePerson live={live} />
        <Activities live={live} />
        <Note live={live} />
      </div>
      <div className="text-base leading-normal md:col-span-2">
        <Rows live={live} measures={rowsOf(live, 'story')} />
        <AddMeasure live={live} step="story" />
        <Onward live={live} step="story" />
      </div>
    </div>
  );
}

/** A score that is a measure; told here, it stands in Measure too. */
function StoryScore({ live, measure }: { live: LiveVisit; measure: string }) {
  const label = live.content.measures.find((m) => m.key === measure)?.label ?? measure;
  const write = (v: number | null) => {
    const entry = v === null ? null : scoreEntry(v);
    for (const side of treatedSides(live.affected)) live.set(`measure.${measure}.${side}`, entry);
  };
  const value = storyScore(live, measure);
  const home = value === null ? lastMorning(live) : null;
  return (
    <>
      <ScoreBlank
        label={`${label.toLowerCase()}, ${sidesText(live.affected, live.pathway.place)}`}
        value={value}
        onChange={write}
      />
      {home !== null && (
        <button
          type="button"
          className="text-action ml-2 inline-flex min-h-9 items-center text-sm"
          onClick={() => write(home.pain)}
        >
          {say('{{pain}} at home on {{shortDay}}: take it', {
            pain: home.pain,
            shortDay: shortDay(home.day),
          })}
        </button>
      )}
    </>
  );
}

/** A morning told at home is not asked again, as long as it is of these days. */
const FRESH_DAYS = 2;

/** What was told of the last morning at home, where the protocol asks there for the same; null where it is older or none. */
function lastMorning({
  course,
  protocol,
}: LiveVisit): { readonly day: string; readonly pain: number } | null {
  if (protocol.home.every((q) => q.role !== 'morning')) return null;
  const last = course.mornings.at(-1);
  if (last === undefined || daysBetween(last.day, course.episode.today) > FRESH_DAYS) return null;
  return { day: last.day, pain: last.pain };
}

/** A lasting fact of the safety screen, told within the story. */
function Lasting({ live, question }: { live: LiveVisit; question: string }) {
  return (
    <ChoiceBlank
      label={live.content.safetyQuestions.find((q) => q.key === question)?.text ?? question}
      prompt={say('yes or no')}
      value={live.get(`safety.${question}`)}
      options={[
        { value: 'no', label: say('no') },
        { value: 'yes', label: say('yes') },
      ]}
      onChange={(v) => live.set(`safety.${question}`, v)}
    />
  );
}

interface Activity {
  readonly text: string;
  readonly ability: number | null;
}

/** The patient's own activities, each with how well it goes from 0 to 10. */
function Activities({ live }: { live: LiveVisit }) {
  const own = live.store.get('story.activities') as Activity[] | null;
  const last = own === null ? (live.get('story.activities') ?? []) : [];
  // Activities of the visit before stand to be scored again; their old scores are only shown beside.
  const list = own ?? last.map((a) => ({ ...a, ability: null }));
  const wasOf = (text: string) =>
    (live.previous?.entries.find((e) => e.key === 'story.activities')?.value as Activity[] | undefined)?.find(
      (a) => a.text === text,
    )?.ability ?? null;
  const [adding, setAdding] = useState('');
  const save = (next: readonly Activity[]) => live.set('story.activities', next.length === 0 ? null : next);
  const add = () => {
    const text = adding.trim();
    if (text === '') return;
    save([...list, { text, ability: null }]);
    setAdding('');
  };
  return (
    <div>
      <p>{say('What matters most to the patient, and how well it goes now:')}</p>
      <ul>
        {list.map((a, i) => (
          <li key={i} className="flex items-baseline gap-2">
            <span className="font-semibold">{a.text}</span>
            <ScoreBlank
              label={say('ability, {{text}}', { text: a.text })}
              prompt={say('how well')}
              low={say('unable')}
              high={say('as ever')}
              value={a.ability}
              onChange={(v) => save(list.map((x, j) => (i === j ? { ...x, ability: v } : x)))}
            />
            <span className="text-base text-ink-2">
              {wasOf(a.text) === null
                ? say('of 10')
                : say('of 10, was {{wasOf}}', { wasOf: wasOf(a.text) ?? '' })}
            </span>
            <button
              type="button"
              className="text-action min-h-9 text-sm"
              aria-label={say('Remove {{text}}', { text: a.text })}
              onClick={() => save(list.filter((_, j) => j !== i))}
            >
              {say('remove')}
            </button>
          </li>
        ))}
      </ul>
      {list.length < 5 && (
        <div className="flex max-w-md items-end gap-3 text-base">
          <input
            className="field"
            placeholder={list.length === 0 ? say('for example, walking to work') : say('another activity')}
            aria-label={say('An activity that matters')}
            value={adding}
            maxLength={ENTRY_LIMITS.item}
            onChange={(e) => setAdding(e.target.value)}
            onBlur={add}
            onKeyDown={(e) => {
              if (e.key === 'Enter') {
                e.preventDefault();
                add();
              }
            }}
          />
        </div>
      )}
    </div>
  );
}

/** Free words, kept as typed. */
function Note({ live }: { live: LiveVisit }) {
  const kept = live.get('note.story') ?? '';
  const [text, setText] = useState(kept);
  useEffect(() => setText(kept), [kept]);
  const left = ENTRY_LIMITS.text - text.length;
  return (
    <label className="block text-base">
      <span className="text-sm text-ink-2">{say('In other words')}</span>
      <textarea
        className="field min-h-20 leading-6"
        value={text}
        maxLength={ENTRY_LIMITS.text}
        onChange={(e) => {
          setText(e.target.value);
          live.set('note.story', e.target.value === '' ? null : e.target.value);
        }}
      />
      {left < 500 && <span className="text-sm text-ink-2">{say('{{left}} characters left', { left })}</span>}
    </label>
  );
}
