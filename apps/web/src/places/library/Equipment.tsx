import { useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { Link } from 'react-router';
import {
  type Band,
  BAND_STRETCHES,
  bandForce,
  BANDS,
  type CapturedValue,
  parseNumber,
  shown,
  say,
} from '@heathstep/core';
import { ApiError, request } from '../../api/client.js';
import { type ClinicContent, keys, useContent, useSession } from '../../api/queries.js';
import { Failed, Loading } from '../../parts/Waiting.js';
import { FieldNote } from '../../parts/fields.js';
import { fullDay } from '../../parts/dates.js';
import { useDevice } from '../../parts/useDevice.js';

/** What the clinic's bands pull at, and what at home can stand in for equipment. */
export function Equipment() {
  const content = useContent();
  if (content.data === undefined)
    return content.error === null ? (
      <Loading what={say('the equipment')} />
    ) : (
      <Failed error={content.error} again={() => void content.refetch()} />
    );
  return (
    <main className="max-w-5xl px-6 py-5">
      <Link to="/library" className="text-action inline-flex min-h-11 items-center">
        {say('All exercises')}
      </Link>
      <h1>{say('Bands')}</h1>
      <p className="mt-1 max-w-2xl text-ink-2">
        {say(
          'Pull each band with the force device to one and a half, twice, two and a half and three times its length. Between what was measured its pull is read straight; beyond it nothing is guessed. Measure again when a band is replaced.',
        )}
      </p>
      <div className="mt-3 grid grid-cols-3 gap-8">
        {BANDS.map((band) => (
          <BandCard key={band} band={band} content={content.data} />
        ))}
      </div>
      <StandIns content={content.data} />
    </main>
  );
}

type Typed = Readonly<Record<number, string>>;

/** One band's pulls as they are typed, and the road they are kept by; what was refused stays in the fields. */
function useBand(band: Band, content: ClinicContent) {
  const known = content.bands.find((b) => b.band === band);
  const client = useQueryClient();
  const [typed, setTyped] = useState<Typed | null>(null);
  const [error, setError] = useState<ApiError | null>(null);
  const [busy, setBusy] = useState(false);
  const shownAs: Typed =
    typed ?? Object.fromEntries((known?.points ?? []).map((p) => [p.stretchPercent, shown(p.newtons)]));
  const keep = async () => {
    setBusy(true);
    setError(null);
    const points = BAND_STRETCHES.flatMap((stretchPercent) => {
      const text = (shownAs[stretchPercent] ?? '').trim();
      const read = parseNumber(text);
      return text === '' ? [] : [{ stretchPercent, newtons: read.ok ? read.value : text }];
    });
    try {
      await request('POST', '/api/library/bands', { id: crypto.randomUUID(), band, points });
      await client.invalidateQueries({ queryKey: keys.content });
      setTyped(null);
    } catch (failure) {
      if (!(failure instanceof ApiError)) throw failure;
      setError(failure);
    }
    setBusy(false);
  };
  const wrongAt = (stretch: number): string | null => {
    const order = BAND_STRETCHES.filter((s) => (shownAs[s] ?? '').trim() !== '').indexOf(
      stretch as (typeof BAND_STRETCHES)[number],
    );
    return error?.at(`/points/${stretch}`) ?? error?.at(`/points/${order}/newtons`) ?? null;
  };
  return {
    known,
    shownAs,
    error,
    keep,
    wrongAt,
    unchanged: busy || typed === null,
    put: (stretch: number, value: string) => setTyped((now) => ({ ...(now ?? shownAs), [stretch]: value })),
  };
}

function BandCard({ band, content }: { band: Band; content: ClinicContent }) {
  const session = useSession();
  const { known, shownAs, error, keep, wrongAt, unchanged, put } = useBand(band, content);
  const [aimed, setAimed] = useState<number>(BAND_STRETCHES[0]);
  const take = (value: CapturedValue) => {
    put(aimed, shown(value.value));
    const next = BAND_STRETCHES[BAND_STRETCHES.findIndex((s) => s === aimed) + 1];
    if (next !== undefined) setAimed(next);
  };
  const device = useDevice(
    session.data?.devicesUrl ?? null,
    'dynamometer',
    { measure: `band-${band}-${aimed}`, side: 'none' },
    take,
  );
  const may = session.data?.user.role !== 'assistant';
  return (
    <section
      aria-label={say('Band, {{band}}', { band: say(band) })}
      className="border-t-[3px] border-ink-3 pt-2"
    >
      <h2 className="text-lg">{say(band)}</h2>
      <p className="text-sm text-ink-2">
        {known === undefined
          ? say('Not measured yet.')
          : say('Measured {{at}}, {{by}}.', { at: fullDay(known.at), by: known.by })}
      </p>
      <div className="mt-2 grid gap-1">
        {BAND_STRETCHES.map((stretch) => (
          <Pull
            key={stretch}
            band={band}
            stretch={stretch}
            value={shownAs[stretch] ?? ''}
            wrong={wrongAt(stretch)}
            disabled={!may}
            aim={() => setAimed(stretch)}
            onChange={(value) => put(stretch, value)}
          />
        ))}
      </div>
      <Curve points={known?.points ?? []} />
      <Refused error={error} />
      {may && (
        <div className="mt-2 flex flex-wrap items-center gap-4">
          <button type="button" className="action min-h-11" disabled={unchanged} onClick={() => void keep()}>
            {say('Keep')}
          </button>
          <FromDevice device={device} aimed={aimed} served={session.data?.devicesUrl != null} />
        </div>
      )}
    </section>
  );
}

/** What was refused, or that it could not be sent. */
function Refused({ error }: { error: ApiError | null }) {
  return (
    <>
      {error !== null && (error.at('/points') ?? error.problem.errors?.length ?? null) !== null && (
        <p role="alert" className="text-sm text-ease-deep">
          {error.at('/points') ?? say('Not kept: see what is marked.')}
        </p>
      )}
      {error?.passing === true && (
        <p role="alert" className="text-sm text-ease-deep">
          {say('{{message}}. What you typed is still here.', { message: error.message })}
        </p>
      )}
    </>
  );
}

/** The pull at one stretch, in newtons. */
function Pull({
  band,
  stretch,
  value,
  wrong,
  disabled,
  aim,
  onChange,
}: {
  band: Band;
  stretch: number;
  value: string;
  wrong: string | null;
  disabled: boolean;
  aim: () => void;
  onChange: (value: string) => void;
}) {
  return (
    <label className="grid grid-cols-[7rem_5rem_1fr] items-center gap-2">
      <span>{say('{{stretch}} % longer', { stretch })}</span>
      <input
        className="field min-h-11 text-right"
        inputMode="decimal"
        aria-label={say('{{band}} band at {{stretch}} %, newtons', { band: say(band), stretch })}
        value={value}
        maxLength={8}
        disabled={disabled}
        aria-invalid={wrong !== null}
        onFocus={aim}
        onChange={(e) => onChange(e.target.value)}
      />
      <span className="flex gap-2 text-sm text-ink-2">
        N <FieldNote text={wrong} />
      </span>
    </label>
  );
}

/** The force device: its pull as it is now, or the way to it. */
function FromDevice({
  device,
  aimed,
  served,
}: {
  device: ReturnType<typeof useDevice>;
  aimed: number;
  /** Whether a device service runs on this machine. */
  served: boolean;
}) {
  return device.link === 'on' ? (
    <span className="text-sm" role="status">
      {`${aimed} %: ${device.state.live === null ? say('pull') : `${shown(device.state.live, 0)} N`} `}
      <button type="button" className="text-action min-h-11" onClick={device.disconnect}>
        {say('Let go of the device')}
      </button>
    </span>
  ) : (
    <button
      type="button"
      className="text-action min-h-11"
      disabled={!served || device.link === 'connecting'}
      onClick={device.connect}
    >
      {device.link === 'failed'
        ? say('The device did not answer, try again')
        : say('Take from the force device')}
    </button>
  );
}

/** The pull between the measured stretches, read from the same function everything else asks. */
function Curve({ points }: { points: ClinicContent['bands'][number]['points'] }) {
  const at = [60, 70, 80, 90, 110, 125, 140, 160, 175, 190].flatMap((stretch) => {
    const force = bandForce(points, stretch);
    return force.ok ? [`${stretch} % ${shown(force.value, 0)} N`] : [];
  });
  if (at.length === 0) return null;
  return <p className="mt-1 text-sm text-ink-2">{say('Between: {{list}}.', { list: at.join(', ') })}</p>;
}

function StandIns({ content }: { content: ClinicContent }) {
  return (
    <section className="mt-8">
      <h1>{say('Stand-ins from the household')}</h1>
      <p className="mt-1 text-ink-2">{say('Weights are typical and approximate; weigh what matters.')}</p>
      <table className="mt-2 w-full text-left">
        <thead className="text-sm text-ink-2">
          <tr className="border-b border-line">
            <th className="py-1.5 font-normal">{say('instead of')}</th>
            <th className="font-normal">{say('take')}</th>
            <th className="font-normal">{say('about')}</th>
            <th className="font-normal">{say('mind')}</th>
          </tr>
        </thead>
        <tbody>
          {content.standIns.map((s) => (
            <tr key={s.key} className="border-b border-line-2">
              <td className="py-1.5">{say(s.serves)}</td>
              <td className="font-semibold">{s.name}</td>
              <td className="whitespace-nowrap">
                {s.kg === null
                  ? ''
                  : s.kg[0] === s.kg[1]
                    ? say('{{value}} kg', { value: shown(s.kg[0]) })
                    : say('{{value}} to {{value2}} kg', { value: shown(s.kg[0]), value2: shown(s.kg[1]) })}
              </td>
              <td className="text-ink-2">{s.note}</td>
            </tr>
          ))}
        </tbody>
      </table>
    </section>
  );
}
