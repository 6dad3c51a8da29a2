import type { ExerciseDefinition } from '../exercise/definition.js';
import { say } from '../quantity/tongue.js';

interface Wanted {
  readonly exercises: readonly ExerciseDefinition[];
  readonly locks?: { readonly keep: readonly string[]; readonly never: readonly string[] } | undefined;
}

interface Kept {
  readonly keys: readonly string[];
  readonly warnings: readonly string[];
}

/** What is to be kept, less what is locked out as well: never counts, it is the safer of the two. */
export function keptOf(input: Wanted): Kept {
  const { keep = [], never = [] } = input.locks ?? {};
  const nameOf = (key: string) => input.exercises.find((e) => e.key === key)?.name ?? key;
  const both = keep.filter((k) => never.includes(k));
  const unknown = keep.filter((k) => input.exercises.every((e) => e.key !== k));
  return {
    keys: keep.filter((k) => !never.includes(k) && !unknown.includes(k)),
    warnings: [
      ...both.map((k) =>
        say('{{nameOf}} is to be kept and never given at once: it is left out', { nameOf: nameOf(k) }),
      ),
      ...unknown.map((k) => say('There is no exercise {{k}} to keep', { k })),
    ],
  };
}
