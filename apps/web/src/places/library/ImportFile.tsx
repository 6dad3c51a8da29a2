import { useRef, useState } from 'react';
import { useNavigate } from 'react-router';
import { keepDraft } from './editor/draft.js';

const MOST_BYTES = 200_000;

/** Takes an exercise file into the editor, where it is looked at before it is kept. */
export function ImportFile() {
  const input = useRef<HTMLInputElement>(null);
  const navigate = useNavigate();
  const [wrong, setWrong] = useState<string | null>(null);
  const take = async (file: File | undefined) => {
    if (file === undefined) return;
    setWrong(null);
    if (file.size > MOST_BYTES) {
      setWrong('This file is too large to be an exercise.');
      return;
    }
    try {
      const read = JSON.parse(await file.text()) as { format?: unknown };
      if (read.format !== 'heathstep exercise') throw new Error('another format');
      keepDraft({ id: crypto.randomUUID(), file: read });
      await navigate('/library/new?import=1');
    } catch {
      setWrong('This file is not an exercise exported from here.');
    }
  };
  return (
    <span className="inline-flex items-baseline gap-3">
      <button type="button" className="text-action min-h-11" onClick={() => input.current?.click()}>
        Import
      </button>
      <input
        ref={input}
        type="file"
        accept="application/json,.json"
        className="hidden"
        aria-label="Exercise file"
        onChange={(e) => {
          void take(e.target.files?.[0]);
          e.target.value = '';
        }}
      />
      {wrong !== null && (
        <span role="alert" className="text-sm text-ease-deep">
          {wrong}
        </span>
      )}
    </span>
  );
}
