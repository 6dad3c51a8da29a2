import { say } from '@heathstep/core';
import { X } from 'lucide-react';
import { useMemo, useState } from 'react';
import type { FigureDefinition, Prop } from '@heathstep/core';
import type { ClinicContent } from '../../../api/queries.js';
import { Figure } from '../../../parts/Figure.js';
import { type RadioOption, RadioRow } from '../../../parts/RadioRow.js';
import {
  heldBy,
  NEW_PROPS,
  type Slider,
  slidersOf,
  slidersOfFrame,
  slidersOfProp,
  withinLimits,
  withValue,
} from './sliders.js';

type Tab = 'start' | 'end' | 'around';

const TABS: readonly RadioOption<Tab>[] = [
  { value: 'start', word: say('Start') },
  { value: 'end', word: say('End') },
  { value: 'around', word: say('Around it') },
];

const PRESSES = ['ball', 'heel', 'arch', 'toes', 'calf', 'sole'] as const;

/** A figure put together from two poses; no joint goes further than it can. */
export function Composer({
  figure,
  content,
  onChange,
  error,
}: {
  figure: FigureDefinition;
  content: ClinicContent;
  onChange: (figure: FigureDefinition) => void;
  error: string | null;
}) {
  const [tab, setTab] = useState<Tab>('end');
  const [playing, setPlaying] = useState(false);
  const [held, setHeld] = useState<string | null>(null);
  const [before, setBefore] = useState<readonly FigureDefinition[]>([]);
  const change = (next: FigureDefinition) => {
    setBefore([...before.slice(-49), figure]);
    onChange(next);
  };
  const move = (slider: Slider, value: number) => {
    // A range held back by its joint reports where it came to rest as well.
    if (Math.abs(value - slider.value) < slider.step) return;
    const moved = withinLimits(figure, slider, value);
    setHeld(moved.held);
    change(moved.figure);
  };
  const back = () => {
    const last = before.at(-1);
    if (last === undefined) return;
    setBefore(before.slice(0, -1));
    setHeld(null);
    onChange(last);
  };
  const moment = playing || tab === 'around' ? undefined : tab === 'start' ? 0 : 1;
  return (
    <section aria-label={say('Figure')} className="sticky top-4 self-start">
      <Figure
        figure={figure}
        side="right"
        label={say('The figure as it is now')}
        playing={playing}
        {...(moment === undefined ? {} : { moment })}
        className="h-80 w-full bg-ground"
      />
      <Playback
        content={content}
        setHeld={setHeld}
        change={change}
        playing={playing}
        setPlaying={setPlaying}
        before={before}
        back={back}
      />
      <p className="min-h-6 text-sm text-hold-deep" role="status">
        {held === null ? '' : heldBy(held)}
      </p>
      {error !== null && (
        <p role="alert" className="text-sm text-ease-deep">
          {error}
        </p>
      )}
      <PoseTabs tab={tab} setTab={setTab} setPlaying={setPlaying} figure={figure} change={change} />
      <div className="max-h-96 overflow-y-auto pr-2">
        {tab === 'around' ? (
          <Around figure={figure} change={change} move={move} />
        ) : (
          <Groups sliders={slidersOf(figure, tab)} move={move} />
        )}
      </div>
    </section>
  );
}

/** Which of the two poses is set, or what stands around them. */
function PoseTabs({
  tab,
  setTab,
  setPlaying,
  figure,
  change,
}: {
  tab: Tab;
  setTab: (next: Tab) => void;
  setPlaying: (next: boolean) => void;
  figure: FigureDefinition;
  change: (next: FigureDefinition) => void;
}) {
  return (
    <div className="flex gap-1 border-b border-line">
      <RadioRow
        label={say('What is set')}
        value={tab}
        options={TABS}
        onChange={(key) => {
          setTab(key);
          setPlaying(false);
        }}
        itemClass={(_, on) =>
          `min-h-11 px-4 ${on ? 'border-b-2 border-heather font-semibold' : 'text-ink-2'}`
        }
      />
      {tab !== 'around' && <SameAs tab={tab} figure={figure} change={change} />}
    </div>
  );
}

/** Another figure to begin from, the movement, and one step back. */
function Playback({
  content,
  setHeld,
  change,
  playing,
  setPlaying,
  before,
  back,
}: {
  content: ClinicContent;
  setHeld: (next: string | null) => void;
  change: (next: FigureDefinition) => void;
  playing: boolean;
  setPlaying: (next: boolean) => void;
  before: readonly FigureDefinition[];
  back: () => void;
}) {
  return (
    <div className="mt-2 flex flex-wrap items-center gap-4">
      <BeginFrom
        content={content}
        chosen={(other) => {
          setHeld(null);
          change(other);
        }}
      />
      <button
        type="button"
        className="text-action min-h-11"
        aria-pressed={playing}
        onClick={() => setPlaying(!playing)}
      >
        {playing ? say('Stop') : say('See it move')}
      </button>
      <button type="button" className="text-action min-h-11" disabled={before.length === 0} onClick={back}>
        {say('Undo')}
      </button>
    </div>
  );
}

function SameAs({
  tab,
  figure,
  change,
}: {
  tab: 'start' | 'end';
  figure: FigureDefinition;
  change: (figure: FigureDefinition) => void;
}) {
  return (
    <button
      type="button"
      className="text-action ml-auto min-h-11"
      onClick={() => change(withValue(figure, [tab], tab === 'start' ? figure.end : figure.start))}
    >
      {tab === 'start' ? say('Same as the end') : say('Same as the start')}
    </button>
  );
}

/** Another figure to begin from. */
function BeginFrom({
  content,
  chosen,
}: {
  content: ClinicContent;
  chosen: (figure: FigureDefinition) => void;
}) {
  return (
    <label className="flex items-center gap-2">
      <span className="text-sm text-ink-2">{say('Begin from')}</span>
      <select
        className="field min-h-11 w-52"
        value=""
        onChange={(e) => {
          const found = content.figures.find((f) => f.exercise === e.target.value);
          if (found === undefined) return;
          const { exercise: _of, ...other } = found;
          chosen(other);
        }}
      >
        <option value="">{say('another figure')}</option>
        {content.figures.map((f) => (
          <option key={f.exercise} value={f.exercise}>
            {content.exercises.find((e) => e.key === f.exercise)?.name ?? f.exercise}
          </option>
        ))}
      </select>
    </label>
  );
}

/** In the order a pose is put together. */
const GROUPS = [
  say('body'),
  say('leg shown'),
  say('right leg'),
  say('other leg'),
  say('left leg'),
  say('foot'),
];

function Groups({ sliders, move }: { sliders: readonly Slider[]; move: (s: Slider, value: number) => void }) {
  const groups = useMemo(
    () => [...new Set(sliders.map((s) => s.group))].sort((a, b) => GROUPS.indexOf(a) - GROUPS.indexOf(b)),
    [sliders],
  );
  return groups.map((group) => (
    <fieldset key={group} className="mt-2">
      <legend className="font-semibold">{group}</legend>
      {sliders
        .filter((s) => s.group === group)
        .map((s) => (
          <Row key={s.path.join('.')} slider={s} move={move} />
        ))}
    </fieldset>
  ));
}

function Row({ slider, move }: { slider: Slider; move: (s: Slider, value: number) => void }) {
  return (
    <label className="grid min-h-8 grid-cols-[9rem_1fr_3.5rem] items-center gap-3">
      <span className="text-sm">{slider.label}</span>
      <input
        type="range"
        className="accent-heather"
        aria-label={`${slider.group}, ${slider.label}`}
        min={slider.min}
        max={slider.max}
        step={slider.step}
        value={slider.value}
        onChange={(e) => move(slider, Number(e.target.value))}
      />
      <output className="text-right text-sm tabular-nums">{Math.round(slider.value * 100) / 100}</output>
    </label>
  );
}

function Around({
  figure,
  change,
  move,
}: {
  figure: FigureDefinition;
  change: (figure: FigureDefinition) => void;
  move: (s: Slider, value: number) => void;
}) {
  const props: readonly Prop[] = figure.props;
  const press = figure.press ?? [];
  return (
    <>
      <label className="mt-2 flex items-center gap-2">
        <span className="text-sm text-ink-2">{say('Add')}</span>
        <select
          className="field min-h-11 w-56"
          value=""
          onChange={(e) => {
            const prop = NEW_PROPS[e.target.value];
            if (prop !== undefined) change({ ...figure, props: [...props, prop] });
          }}
        >
          <option value="">{say('something beside the body')}</option>
          {Object.keys(NEW_PROPS).map((name) => (
            <option key={name} value={name}>
              {name}
            </option>
          ))}
        </select>
      </label>
      {props.map((prop, i) => (
        <fieldset key={i} className="mt-2">
          <legend className="flex items-center gap-2 font-semibold">
            {say(prop.kind)}
            <button
              type="button"
              className="inline-flex size-8 items-center justify-center text-ink-2 hover:text-ease-deep"
              aria-label={say('Take the {{kind}} away', { kind: say(prop.kind) })}
              onClick={() => change({ ...figure, props: props.filter((_, n) => n !== i) })}
            >
              <X className="size-4" aria-hidden />
            </button>
          </legend>
          {slidersOfProp(prop, i).map((s) => (
            <Row key={s.path.join('.')} slider={s} move={move} />
          ))}
        </fieldset>
      ))}
      <fieldset className="mt-2">
        <legend className="font-semibold">{say('Pressure is felt')}</legend>
        {PRESSES.map((p) => (
          <label key={p} className="mr-3 inline-flex min-h-8 items-center gap-1.5">
            <input
              type="checkbox"
              className="size-4 accent-heather"
              checked={press.includes(p)}
              onChange={() =>
                change({ ...figure, press: press.includes(p) ? press.filter((x) => x !== p) : [...press, p] })
              }
            />
            {say(p)}
          </label>
        ))}
      </fieldset>
      <Groups sliders={slidersOfFrame(figure)} move={move} />
    </>
  );
}
