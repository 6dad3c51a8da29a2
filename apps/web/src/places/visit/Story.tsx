import { useEffect, useState } from 'react';
import { BODY_MASS, treatedSides, whyIrritability } from '@heathstep/core';
import { ENTRY_LIMITS, type MeasureEntry } from '@heathstep/contracts';
import { ChoiceBlank, ListBlank, NumberBlank, ScoreBlank } from '../../parts/Blank.js';
import { BodyMap } from '../../parts/BodyMap.js';
import { Why } from '../../parts/Why.js';
import { AddMeasure } from './AddMeasure.js';
import { type LiveVisit, sidesText, storyScore } from './live.js';
import { Rows } from './rows/Rows.js';
import { Onward, rowsOf } from './Steps.js';

const BODY_MASS_ENTRY = `measure.${BODY_MASS}.none`;

const bodyMass = (entry: MeasureEntry | null): number | null => entry?.trials.at(-1) ?? null;

const yesNo = (value: boolean | null): 'yes' | 'no' | null => (value === null ? null : value ? 'yes' : 'no');

/** The story starts on the foot and reads back as sentences. */
export function Story({ live }: { live: LiveVisit }) {
  const { get, set } = live;
  const regions = get<string[]>('story.regions') ?? [];
  const { place } = live.pathway;
  const named = (side: 'left' | 'right') => sidesText(side, place);
  const { storyAsks } = live.pathway;
  const rows = rowsOf(live, 'story');
  return (
    <div className="grid grid-cols-[19rem_minmax(0,1fr)] gap-8">
      <div>
        <p className="text-sm text-ink-2">Tap or paint where it hurts, as the patient looks down.</p>
        <BodyMap chosen={regions} onChange={(next) => set('story.regions', next)} />
      </div>
      <div className="max-w-2xl space-y-5 text-lg leading-9">
        <p>
          It hurts in{' '}
          <ChoiceBlank
            label="which side"
            value={live.affected === 'none' ? null : live.affected}
            options={[
              { value: 'left', label: named('left') },
              { value: 'both', label: sidesText('both', place) },
              { value: 'right', label: named('right') },
            ]}
            onChange={(v) => v !== null && set('story.side', v)}
          />
          . It began{' '}
          <ChoiceBlank
            label="how it began"
            value={get<'gradual' | 'sudden' | 'injury'>('story.onset')}
            options={[
              { value: 'gradual', label: 'gradually' },
              { value: 'sudden', label: 'suddenly, without an injury' },
              { value: 'injury', label: 'with an injury' },
            ]}
            onChange={(v) => set('story.onset', v)}
          />
          ,{' '}
          <ChoiceBlank
            label="since when"
            value={get<string>('story.since')}
            options={[
              { value: 'under-2-weeks', label: 'under 2 weeks ago' },
              { value: '2-to-6-weeks', label: '2 to 6 weeks ago' },
              { value: '6-weeks-to-3-months', label: '6 weeks to 3 months ago' },
              { value: '3-to-6-months', label: '3 to 6 months ago' },
              { value: '6-to-12-months', label: '6 to 12 months ago' },
              { value: 'over-a-year', label: 'over a year ago' },
            ]}
            onChange={(v) => set('story.since', v)}
          />
          {get<string>('story.since') === 'under-2-weeks' && (
            <>
              {' ('}
              <NumberBlank
                label="how many days ago"
                value={get<number>('story.days')}
                unit="days"
                min={0}
                max={14}
                onChange={(v) => set('story.days', v)}
              />
              )
            </>
          )}
          , after{' '}
          <ListBlank
            label="a change of load"
            value={get<string[]>('story.load-change')}
            none="no change of load"
            options={[
              { value: 'longer-round', label: 'more walking' },
              { value: 'more-running', label: 'more running' },
              { value: 'more-standing', label: 'more standing' },
              { value: 'new-shoes', label: 'new or flat shoes' },
              { value: 'weight', label: 'a gain of weight' },
            ]}
            onChange={(v) => set('story.load-change', v)}
          />
          .
        </p>
        <p>
          {storyAsks === null ? (
            <>The worst pain is </>
          ) : (
            <>
              {storyAsks.words} <StoryScore live={live} measure={storyAsks.measure} />, the worst is{' '}
            </>
          )}
          <ScoreBlank
            label="worst pain"
            value={get<number>('story.worst')}
            onChange={(v) => set('story.worst', v)}
          />
          , and now it is{' '}
          <ScoreBlank
            label="pain now"
            value={get<number>('story.now')}
            onChange={(v) => set('story.now', v)}
          />
          . It is worse{' '}
          <ListBlank
            label="when it is worse"
            value={get<string[]>('story.worse-when')}
            none="at no time in particular"
            options={[
              { value: 'first-steps', label: 'on first steps' },
              { value: 'standing', label: 'on standing long' },
              { value: 'end-of-day', label: 'at the end of the day' },
              { value: 'during-sport', label: 'during sport' },
              { value: 'after-sport', label: 'after sport' },
            ]}
            onChange={(v) => set('story.worse-when', v)}
          />
          .
        </p>
        <p>
          {`Activity${storyAsks === null ? '' : `, ${storyAsks.aside} aside,`} brings it on in 5 minutes: `}
          <ChoiceBlank
            label="provoked within 5 minutes"
            prompt="yes or no"
            value={yesNo(get<boolean>('story.provoked'))}
            options={[
              { value: 'no', label: 'no' },
              { value: 'yes', label: 'yes' },
            ]}
            onChange={(v) => set('story.provoked', v === null ? null : v === 'yes')}
          />
          . It settles after{' '}
          <NumberBlank
            label="how long"
            value={get<number>('story.settles')}
            unit="min"
            min={0}
            max={1440}
            onChange={(v) => set('story.settles', v)}
          />
          . It wakes at night:{' '}
          <ChoiceBlank
            label="wakes at night"
            prompt="yes or no"
            value={yesNo(get<boolean>('story.night'))}
            options={[
              { value: 'no', label: 'no' },
              { value: 'yes', label: 'yes' },
            ]}
            onChange={(v) => set('story.night', v === null ? null : v === 'yes')}
          />
          . There is{' '}
          <ListBlank
            label="burning, numbness"
            value={get<string[]>('story.character')}
            none="no burning, numbness or back stiffness"
            options={[
              { value: 'burning', label: 'burning' },
              { value: 'numb', label: 'numbness or tingling' },
              { value: 'both-heels-back-stiff', label: 'both heels and a stiff back in the morning' },
            ]}
            onChange={(v) => set('story.character', v)}
          />
          . So it is{' '}
          <Why of={() => whyIrritability(live.irritability)} className="font-semibold">
            {live.irritability.level === 'not-known'
              ? 'not yet known how irritable'
              : `${live.irritability.level === 'high' ? 'highly' : live.irritability.level === 'low' ? 'hardly' : 'moderately'} irritable`}
          </Why>
          .
        </p>
        <p>
          {live.content.safetyQuestions
            .filter((q) => q.inStory === true)
            .map((q) => (
              <span key={q.key}>
                {q.text}: <Lasting live={live} question={q.key} />.{' '}
              </span>
            ))}
          Weighs{' '}
          <NumberBlank
            label="body mass"
            value={bodyMass(get<MeasureEntry>(BODY_MASS_ENTRY))}
            unit="kg"
            min={10}
            max={350}
            onChange={(v) =>
              set(BODY_MASS_ENTRY, v === null ? null : { trials: [v], status: 'taken', pain: null })
            }
          />
          .
        </p>
        <Activities live={live} />
        <Note live={live} />
      </div>
      <div className="col-span-2 text-base leading-normal">
        <Rows live={live} measures={rows} />
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
    const entry: MeasureEntry | null = v === null ? null : { trials: [v], status: 'taken', pain: null };
    for (const side of treatedSides(live.affected)) live.set(`measure.${measure}.${side}`, entry);
  };
  return (
    <ScoreBlank
      label={`${label.toLowerCase()}, ${sidesText(live.affected, live.pathway.place)}`}
      value={storyScore(live, measure)}
      onChange={write}
    />
  );
}

/** A lasting fact of the safety screen, told within the story. */
function Lasting({ live, question }: { live: LiveVisit; question: string }) {
  return (
    <ChoiceBlank
      label={live.content.safetyQuestions.find((q) => q.key === question)?.text ?? question}
      prompt="yes or no"
      value={live.get<'yes' | 'no'>(`safety.${question}`)}
      options={[
        { value: 'no', label: 'no' },
        { value: 'yes', label: 'yes' },
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
  const last = own === null ? (live.get<Activity[]>('story.activities') ?? []) : [];
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
      <p>What matters most to the patient, and how well it goes now:</p>
      <ul>
        {list.map((a, i) => (
          <li key={i} className="flex items-baseline gap-2">
            <span className="font-semibold">{a.text}</span>
            <ScoreBlank
              label={`ability, ${a.text}`}
              prompt="how well"
              low="unable"
              high="as ever"
              value={a.ability}
              onChange={(v) => save(list.map((x, j) => (i === j ? { ...x, ability: v } : x)))}
            />
            <span className="text-base text-ink-2">
              {wasOf(a.text) === null ? 'of 10' : `of 10, was ${wasOf(a.text) ?? ''}`}
            </span>
            <button
              type="button"
              className="text-action min-h-9 text-sm"
              aria-label={`Remove ${a.text}`}
              onClick={() => save(list.filter((_, j) => j !== i))}
            >
              remove
            </button>
          </li>
        ))}
      </ul>
      {list.length < 5 && (
        <div className="flex max-w-md items-end gap-3 text-base">
          <input
            className="field"
            placeholder={list.length === 0 ? 'for example, walking to work' : 'another activity'}
            aria-label="An activity that matters"
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
  const kept = live.get<string>('note.story') ?? '';
  const [text, setText] = useState(kept);
  useEffect(() => setText(kept), [kept]);
  const left = ENTRY_LIMITS.text - text.length;
  return (
    <label className="block text-base">
      <span className="text-sm text-ink-2">In other words</span>
      <textarea
        className="field min-h-20 leading-6"
        value={text}
        maxLength={ENTRY_LIMITS.text}
        onChange={(e) => {
          setText(e.target.value);
          live.set('note.story', e.target.value === '' ? null : e.target.value);
        }}
      />
      {left < 500 && <span className="text-sm text-ink-2">{`${left} characters left`}</span>}
    </label>
  );
}
