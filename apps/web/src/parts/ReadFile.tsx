import { useRef, useState } from 'react';

interface ReadFileProps {
  /** What is pressed. */
  readonly word: string;
  /** What is taken, as a screen reader says it: Exercise file. */
  readonly label: string;
  readonly mostBytes: number;
  /** Said of a file that is not one of these. */
  readonly refusal: string;
  /** What the file's own format line must be. */
  readonly format: string;
  readonly take: (file: { readonly format: string }) => void;
}

/** A JSON file of one of our formats, read on this device; one that is not says so and takes nothing. */
export function ReadFile({ word, label, mostBytes, refusal, format, take }: ReadFileProps) {
  const input = useRef<HTMLInputElement>(null);
  const [wrong, setWrong] = useState<string | null>(null);
  const read = async (file: File | undefined) => {
    if (file === undefined) return;
    setWrong(null);
    if (file.size > mostBytes) {
      setWrong(`${refusal} It is larger than any of them.`);
      return;
    }
    try {
      const found = JSON.parse(await file.text()) as { readonly format?: unknown } | null;
      if (found?.format === format) take({ ...found, format });
      else setWrong(refusal);
    } catch {
      setWrong(refusal);
    }
  };
  return (
    <span className="inline-flex items-baseline gap-3">
      <button type="button" className="text-action min-h-11" onClick={() => input.current?.click()}>
        {word}
      </button>
      <input
        ref={input}
        type="file"
        accept="application/json,.json"
        className="hidden"
        aria-label={label}
        onChange={(e) => {
          void read(e.target.files?.[0]);
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
