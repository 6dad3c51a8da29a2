import { RadioRow } from '../../../parts/RadioRow.js';
import { useQueryClient } from '@tanstack/react-query';
import { Dialog } from 'radix-ui';
import { useEffect, useId, useRef, useState } from 'react';
import {
  type Landmarks,
  type MeasureDefinition,
  PHOTO_CONSTRUCTIONS,
  type PhotoConstruction,
  type PhotoResult,
  photoValue,
  raterError,
  shown,
  type Side,
  unitAfter,
  say,
} from '@heathstep/core';
import { type PhotoView } from '@heathstep/contracts';
import { ApiError, request } from '../../../api/client.js';
import { keys, usePhotos } from '../../../api/queries.js';
import { longDay } from '../../../parts/dates.js';
import type { LiveVisit } from '../live.js';
import { nextTrial, readEntry, withTrial, writeEntry } from '../rows/entries.js';
import { Choose } from './Choose.js';
import { Picture } from './Picture.js';

/** What a picture of a construction says, rounded to what the measure keeps. */
const kept = (measure: MeasureDefinition, value: number): number => Number(value.toFixed(measure.decimals));

/** Stands for a picture still to be chosen. */
const ANOTHER = 'another';

const PICTURE_SIDES = [
  { value: 'left', word: say('L left') },
  { value: 'right', word: say('R right') },
] as const;

/** A measure taken from a picture: landmarks placed by mouse, finger or keys, its value with its uncertainty. */
export function PhotoTool({
  live,
  measure,
  close,
}: {
  live: LiveVisit;
  measure: MeasureDefinition;
  close: () => void;
}) {
  const construction = PHOTO_CONSTRUCTIONS.find((c) => c.key === measure.photo);
  const photos = usePhotos(live.course.episode.id);
  const [side, setSide] = useState<Side>(live.affected === 'right' ? 'right' : 'left');
  const [chosen, setChosen] = useState<string | null>(null);
  // Points placed and not kept yet stay while another picture is looked at.
  const [drafts] = useState(() => new Map<string, Landmarks>());
  if (construction === undefined) return null;
  const mine = (photos.data ?? []).filter((p) => p.measure === measure.key && p.side === side);
  const newest = mine.find((p) => p.visitId === live.visit.id);
  const photo = chosen === ANOTHER ? null : (mine.find((p) => p.id === chosen) ?? newest ?? null);
  return (
    <Dialog.Root open onOpenChange={(open) => !open && close()}>
      <Dialog.Portal>
        <Dialog.Overlay className="fixed inset-0 z-40 bg-scrim" />
        <Dialog.Content
          className="fixed inset-3 z-50 flex flex-col overflow-hidden rounded-xl bg-paper shadow-2xl"
          aria-describedby={undefined}
        >
          <ToolHead construction={construction} side={side} setSide={setSide} setChosen={setChosen} />
          {photo === null ? (
            <Choose
              key={side}
              live={live}
              measure={measure}
              construction={construction}
              side={side}
              earlier={mine}
              choose={setChosen}
            />
          ) : (
            <Place
              key={photo.id}
              drafts={drafts}
              live={live}
              measure={measure}
              construction={construction}
              photo={photo}
              others={mine.filter((p) => p.id !== photo.id)}
              choose={setChosen}
              close={close}
            />
          )}
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
  );
}

/** What is measured, on which side, seen from where. */
function ToolHead({
  construction,
  side,
  setSide,
  setChosen,
}: {
  construction: PhotoConstruction;
  side: Side;
  setSide: (next: Side) => void;
  setChosen: (next: string | null) => void;
}) {
  return (
    <header className="flex items-center gap-5 border-b border-line px-5 py-2">
      <Dialog.Title asChild>
        <h2>{say(construction.label)}</h2>
      </Dialog.Title>
      <RadioRow
        label={say('Side')}
        value={side}
        options={PICTURE_SIDES}
        onChange={(s) => {
          setSide(s);
          setChosen(null);
        }}
        itemClass={(_, on) =>
          `min-h-11 border-b-4 px-4 font-semibold ${on ? '' : 'border-transparent text-ink-2'}`
        }
        itemStyle={(s, on) =>
          on ? { borderColor: `var(--color-${s})`, color: `var(--color-${s})` } : undefined
        }
      />
      <p className="flex-1 text-sm text-ink-2">{say(construction.view)}</p>
      <Dialog.Close className="action-quiet">{say('Close')}</Dialog.Close>
    </header>
  );
}

const unitText = (c: PhotoConstruction): string =>
  c.unit === 'deg' ? '°' : c.unit === 'mm' ? say(' mm') : '';

function resultText(c: PhotoConstruction, measure: MeasureDefinition, r: PhotoResult): string {
  if (r.value === null) return '';
  if (c.unit === 'level')
    return `${measure.levels?.find((l) => l.value === r.value)?.word ?? String(r.value)}${r.plusMinus > 0 ? say(', but a pointing error could change it') : ''}`;
  const decimals = c.unit === 'ratio' ? 3 : 1;
  return `${shown(r.value, decimals)}${unitText(c)} ± ${shown(r.plusMinus, decimals)}`;
}

interface PlaceProps {
  readonly live: LiveVisit;
  readonly measure: MeasureDefinition;
  readonly construction: PhotoConstruction;
  readonly drafts: Map<string, Landmarks>;
  readonly photo: PhotoView;
  readonly others: readonly PhotoView[];
  readonly choose: (id: string) => void;
  readonly close: () => void;
}

/** Landmarks as they are placed, the value they give, and how it is kept. */
function usePlacing({ live, measure, construction, photo, close, drafts }: PlaceProps) {
  const client = useQueryClient();
  const last = photo.placements[0];
  const start = drafts.get(photo.id) ?? last?.landmarks ?? {};
  const [landmarks, setLandmarks] = useState<Landmarks>(start);
  const [at, setAt] = useState(() => Math.max(0, firstOpen(construction, start)));
  useEffect(() => {
    drafts.set(photo.id, landmarks);
  }, [drafts, photo.id, landmarks]);
  const [ruler, setRuler] = useState(last?.rulerMm == null ? '' : String(last.rulerMm));
  const [error, setError] = useState<string | null>(null);
  const id = useRef(crypto.randomUUID());
  const rulerMm = ruler.trim() === '' ? null : Number(ruler.replace(',', '.'));
  const result = photoValue(construction.key, landmarks, photo.side, rulerMm);
  const outside =
    result.value !== null && (result.value < measure.allowed.min || result.value > measure.allowed.max);
  const put = (key: string, x: number, y: number) => {
    const inside = {
      x: Math.min(photo.width, Math.max(0, x)),
      y: Math.min(photo.height, Math.max(0, y)),
    };
    setLandmarks((all) => ({ ...all, [key]: inside }));
  };
  const keep = async () => {
    if (result.value === null || outside) return;
    setError(null);
    try {
      await request('POST', `/api/photos/${photo.id}/placements`, { id: id.current, landmarks, rulerMm });
      id.current = crypto.randomUUID();
      await client.invalidateQueries({ queryKey: keys.photos(live.course.episode.id) });
      const entry = readEntry(live.store, measure, photo.side);
      const trial = nextTrial(measure, entry) ?? measure.trials.count - 1;
      const method = measure.methods.includes('photo') ? { method: 'photo' } : {};
      writeEntry(
        live.store,
        measure,
        photo.side,
        withTrial({ ...entry, ...method, status: 'taken' }, trial, kept(measure, result.value)),
      );
      close();
    } catch (failure) {
      setError(failure instanceof ApiError ? failure.message : say('It could not be kept'));
    }
  };
  return { landmarks, setLandmarks, at, setAt, put, ruler, setRuler, result, outside, error, keep };
}

type Placing = ReturnType<typeof usePlacing>;

/** Landmarks on one picture, the value they give, and the value kept. */
function Place(props: PlaceProps) {
  const { live, measure, construction, photo, others, choose } = props;
  const placing = usePlacing(props);
  const { landmarks, at, setAt, result, outside } = placing;
  const [overlay, setOverlay] = useState<string | null>(null);
  return (
    <div className="grid min-h-0 flex-1 grid-cols-[minmax(0,1fr)_20rem]">
      <Picture
        photo={photo}
        construction={construction}
        landmarks={landmarks}
        at={at}
        setAt={setAt}
        put={placing.put}
        placed={() => {
          const open = construction.landmarks.findIndex((l, i) => i > at && landmarks[l.key] === undefined);
          if (open !== -1) setAt(open);
        }}
        before={others.find((p) => p.id === overlay) ?? null}
      />
      <aside className="overflow-y-auto border-l border-line p-4">
        <Points construction={construction} placing={placing} />
        <Outcome measure={measure} construction={construction} photo={photo} placing={placing} />
        <div className="mt-3 flex flex-wrap gap-3">
          <button
            type="button"
            className="action"
            disabled={result.value === null || outside || live.visit.signedAt !== null}
            onClick={() => void placing.keep()}
          >
            {say('Keep the value')}
          </button>
          <button type="button" className="action-quiet" onClick={() => placing.setLandmarks({})}>
            {say('Start over')}
          </button>
          <button type="button" className="text-action min-h-11" onClick={() => choose(ANOTHER)}>
            {say('Another picture')}
          </button>
        </div>
        {others.length > 0 && (
          <Others
            measure={measure}
            others={others}
            overlay={overlay}
            setOverlay={setOverlay}
            choose={choose}
          />
        )}
        <p className="mt-4 text-xs text-ink-3">
          {say(
            'Click or tap sets the marked point and goes on to the next. Arrow keys move it by a pixel, with Shift by ten. Space sets it at the middle. Page up and down change the point.',
          )}
        </p>
      </aside>
    </div>
  );
}

/** The points to place, in order, and the length of the ruler where one is in the picture. */
function Points({ construction, placing }: { construction: PhotoConstruction; placing: Placing }) {
  const { landmarks, at, setAt, ruler, setRuler } = placing;
  const rulerId = useId();
  return (
    <>
      <ol>
        {construction.landmarks.map((l, i) => (
          <li key={l.key}>
            <button
              type="button"
              aria-current={i === at}
              className={`flex min-h-11 w-full items-center gap-2 rounded px-2 text-left ${i === at ? 'bg-heather-wash font-semibold' : ''}`}
              onClick={() => setAt(i)}
            >
              <span className="w-5 text-ink-3">{i + 1}</span>
              <span className="flex-1">{say(l.label)}</span>
              <span aria-hidden>{landmarks[l.key] === undefined ? '' : '✓'}</span>
              <span className="sr-only">
                {landmarks[l.key] === undefined ? say('not placed') : say('placed')}
              </span>
            </button>
          </li>
        ))}
      </ol>
      {construction.ruler && (
        <label htmlFor={rulerId} className="mt-2 flex items-center gap-2">
          {say('Length between the ruler marks')}
          <input
            id={rulerId}
            className="field w-20 text-right font-semibold"
            inputMode="decimal"
            value={ruler}
            maxLength={6}
            onChange={(e) => setRuler(e.target.value)}
          />
          {say('mm')}
        </label>
      )}
    </>
  );
}

/** The value, its uncertainty, and what is wrong with it. */
function Outcome({
  measure,
  construction,
  photo,
  placing: { result, outside, error },
}: {
  measure: MeasureDefinition;
  construction: PhotoConstruction;
  photo: PhotoView;
  placing: Placing;
}) {
  const own = raterError(photo.placements.map((p) => p.value));
  return (
    <>
      <p className="mt-3 min-h-9 text-2xl font-bold" aria-live="polite">
        {resultText(construction, measure, result)}
      </p>
      <p className="text-sm text-ink-2">
        {result.value === null
          ? say('Still wanted: {{list}}.', { list: result.missing.join(', ') })
          : say('With {{words}} of error in each point.', {
              words: construction.ruler ? say('1 mm') : say('2 px'),
            })}
        {own !== null &&
          say(' Your own spread over {{n}} placements: {{own}}{{unitAfter}}.', {
            n: photo.placements.length,
            own: shown(own, 2),
            unitAfter: unitAfter(measure),
          })}
      </p>
      {outside && (
        <p role="alert" className="mt-2 text-ease-deep">
          {say(
            '{{label}} lies between {{min}} and {{max}}{{unitAfter}}. Are the points and the side right?',
            {
              label: measure.label,
              min: measure.allowed.min,
              max: measure.allowed.max,
              unitAfter: unitAfter(measure),
            },
          )}
        </p>
      )}
      {error !== null && (
        <p role="alert" className="mt-2 text-ease-deep">
          {error}
        </p>
      )}
    </>
  );
}

/** Pictures taken before, to lay over or to open. */
function Others({
  measure,
  others,
  overlay,
  setOverlay,
  choose,
}: {
  measure: MeasureDefinition;
  others: readonly PhotoView[];
  overlay: string | null;
  setOverlay: (id: string | null) => void;
  choose: (id: string) => void;
}) {
  return (
    <section className="mt-5 border-t border-line pt-3">
      <h3>{say('Before and after')}</h3>
      {others.map((p) => (
        <div key={p.id} className="flex items-center gap-3 text-sm">
          <label className="flex min-h-11 flex-1 items-center gap-2">
            <input
              type="checkbox"
              checked={overlay === p.id}
              disabled={p.placements.length === 0}
              onChange={(e) => setOverlay(e.target.checked ? p.id : null)}
            />
            {`${longDay(p.at)}${p.placements[0] === undefined ? say(', no landmarks') : `: ${shown(p.placements[0].value)}${unitAfter(measure)}`}`}
          </label>
          <button type="button" className="text-action min-h-11" onClick={() => choose(p.id)}>
            {say('open')}
          </button>
        </div>
      ))}
    </section>
  );
}

const firstOpen = (c: PhotoConstruction, landmarks: Landmarks): number =>
  c.landmarks.findIndex((l) => landmarks[l.key] === undefined);
