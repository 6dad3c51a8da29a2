import { useRef, useState } from 'react';

interface ChooseFileProps {
  /** What is pressed. */
  readonly word: string;
  /** What is taken, as a screen reader says it: Exercise file. */
  readonly label: string;
  /** Types and endings, as of the file field of a browser. */
  readonly accept: string;
  /** Reads it on this device; gives why it is not taken, or null. */
  readonly read: (file: File) => Promise<string | null>;
}

/** A file chosen from this device; one that is not taken says why. */
export function ChooseFile({ word, label, accept, read }: ChooseFileProps) {
  const input = useRef<HTMLInputElement>(null);
  const [wrong, setWrong] = useState<string | null>(null);
  const chosen = async (file: File | undefined) => {
    if (file === undefined) return;
    setWrong(null);
    setWrong(await read(file));
  };
  return (
    <span className="inline-flex items-baseline gap-3">
      <button type="button" className="text-action min-h-11" onClick={() => input.current?.click()}>
        {word}
      </button>
      <input
        ref={input}
        type="file"
        accept={accept}
        className="hidden"
        aria-label={label}
        onChange={(e) => {
          void chosen(e.target.files?.[0]);
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
