import { useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { type MeasureDefinition, type PhotoConstruction, shown, type Side, say } from '@heathstep/core';
import { PHOTO_LIMITS, type PhotoView } from '@heathstep/contracts';
import { ApiError, upload } from '../../../api/client.js';
import { keys } from '../../../api/queries.js';
import { longDay } from '../../../parts/dates.js';
import type { LiveVisit } from '../live.js';
import { SAMPLES } from './samples.js';

/** A picture of one's own, a drawn sample, or one taken before. */
export function Choose({
  live,
  measure,
  construction,
  side,
  earlier,
  choose,
}: {
  live: LiveVisit;
  measure: MeasureDefinition;
  construction: PhotoConstruction;
  side: Side;
  earlier: readonly PhotoView[];
  choose: (id: string) => void;
}) {
  const { add, busy, error } = useAddPhoto(live, measure, side, choose);
  const samples = SAMPLES.filter((s) => s.construction === construction.key && s.side === side);
  return (
    <div className="overflow-y-auto p-6">
      <FromFile busy={busy} add={add} />
      <p className="mt-2 text-sm text-ink-2">
        {say('JPEG or PNG, at most {{bytes}} MB. Where and when it was taken is removed before it is kept.', {
          bytes: PHOTO_LIMITS.bytes / 1_000_000,
        })}
      </p>
      {error !== null && (
        <p role="alert" className="mt-2 text-ease-deep">
          {error}
        </p>
      )}
      {samples.length > 0 && (
        <section className="mt-6">
          <h3>{say('Drawn samples, to try')}</h3>
          <div className="mt-2 flex flex-wrap gap-3">
            {samples.map((s) => (
              <button
                key={s.file}
                type="button"
                className="w-40 rounded border border-line p-2 text-left hover:border-heather"
                disabled={busy}
                onClick={() =>
                  void fetch(`/samples/${s.file}`)
                    .then((r) => r.blob())
                    .then(add)
                }
              >
                <img src={`/samples/${s.file}`} alt="" className="h-28 w-full object-contain" />
                <span className="text-sm">{s.label}</span>
              </button>
            ))}
          </div>
        </section>
      )}
      <TakenBefore earlier={earlier} choose={choose} />
    </div>
  );
}

/** Pictures of earlier visits. */
function TakenBefore({ earlier, choose }: { earlier: readonly PhotoView[]; choose: (id: string) => void }) {
  return (
    <>
      {earlier.length > 0 && (
        <section className="mt-6">
          <h3>{say('Taken before')}</h3>
          <ul className="mt-2 flex flex-wrap gap-3">
            {earlier.map((p) => (
              <li key={p.id}>
                <button
                  type="button"
                  className="w-40 rounded border border-line p-2 text-left hover:border-heather"
                  onClick={() => choose(p.id)}
                >
                  <img src={`/api/photos/${p.id}`} alt="" className="h-28 w-full object-contain" />
                  <span className="text-sm">{`${longDay(p.at)}, ${p.by}`}</span>
                </button>
              </li>
            ))}
          </ul>
        </section>
      )}
    </>
  );
}

/** A picture of one's own. */
function FromFile({ busy, add }: { busy: boolean; add: (file: Blob) => Promise<void> }) {
  return (
    <label className="action w-fit">
      {busy ? say('Sending the picture') : say('Choose a picture')}
      <input
        type="file"
        accept="image/jpeg,image/png"
        className="sr-only"
        disabled={busy}
        onChange={(event) => {
          const file = event.target.files?.[0];
          event.target.value = '';
          if (file !== undefined) void add(file);
        }}
      />
    </label>
  );
}

function useAddPhoto(live: LiveVisit, measure: MeasureDefinition, side: Side, done: (id: string) => void) {
  const client = useQueryClient();
  const [busy, setBusy] = useState(false);
  const [error, setError] = useState<string | null>(null);
  const add = async (file: Blob) => {
    setError(null);
    if (file.size > PHOTO_LIMITS.bytes) {
      setError(
        say('This picture has {{size}} MB; at most {{bytes}} MB can be kept. Nothing was sent.', {
          size: shown(file.size / 1_000_000),
          bytes: PHOTO_LIMITS.bytes / 1_000_000,
        }),
      );
      return;
    }
    setBusy(true);
    try {
      const photo = await upload<PhotoView>(
        `/api/visits/${live.visit.id}/photos/${crypto.randomUUID()}?measure=${measure.key}&side=${side}`,
        file,
      );
      await client.invalidateQueries({ queryKey: keys.photos(live.course.episode.id) });
      done(photo.id);
    } catch (failure) {
      setError(failure instanceof ApiError ? failure.message : say('The picture could not be sent'));
    } finally {
      setBusy(false);
    }
  };
  return { add, busy, error };
}
