import { say } from '@heathstep/core';
import { ChooseFile } from './ChooseFile.js';

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
  /** Whether it has what one of ours has; asked before anything of it is kept. */
  readonly fits?: (file: object) => boolean;
  readonly take: (file: { readonly format: string }) => void;
}

/** A JSON file of one of our formats, read on this device; one that is not says so and takes nothing. */
export function ReadFile({
  word,
  label,
  mostBytes,
  refusal,
  format,
  fits = () => true,
  take,
}: ReadFileProps) {
  const read = async (file: File): Promise<string | null> => {
    if (file.size > mostBytes) return say('{{refusal}} It is larger than any of them.', { refusal });
    try {
      const found = JSON.parse(await file.text()) as { readonly format?: unknown } | null;
      if (found?.format !== format || !fits(found)) return refusal;
      take({ ...found, format });
      return null;
    } catch {
      return refusal;
    }
  };
  return <ChooseFile {...{ word, label, read }} accept="application/json,.json" />;
}
