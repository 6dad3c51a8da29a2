import {
  LETTER_PART_WORDS,
  LETTER_PARTS,
  type LetterKind,
  type LetterPart,
  LONGEST_LETTER_TEXT,
  say,
} from '@heathstep/core';
import type { LetterText } from '@heathstep/contracts';
import type { DocumentStore } from '../../api/documentStore.js';
import { Several, TextArea } from '../../parts/fields.js';

/** What is written by hand in a letter, and what of the record stands between. */
export function LetterWriting({
  store,
  kind,
  open,
}: {
  store: DocumentStore<LetterText>;
  kind: LetterKind;
  /** There are signs that are open: they stand in every letter. */
  open: boolean;
}) {
  const text = store.value;
  const set = (change: Partial<LetterText>): void => store.set({ ...text, ...change });
  const wrong = (field: keyof LetterText): string | null => store.errors[`/${field}`] ?? null;
  return (
    <form className="grid gap-4" onSubmit={(e) => e.preventDefault()} noValidate>
      <TextArea
        label={say('To')}
        hint={say('name and address, a line each')}
        rows={3}
        maxLength={400}
        value={text.to}
        error={wrong('to')}
        onChange={(to) => set({ to })}
      />
      <TextArea
        label={kind === 'referral' ? say('What is asked, and why') : say('Above what the record shows')}
        rows={9}
        maxLength={LONGEST_LETTER_TEXT}
        value={text.opening}
        error={wrong('opening')}
        onChange={(opening) => set({ opening })}
      />
      <div>
        <Several
          label={say('Of the record')}
          options={LETTER_PARTS.map((p) => [p, say(LETTER_PART_WORDS[p])] as const)}
          value={text.shows}
          onChange={(shows) => set({ shows: LETTER_PARTS.filter((p): p is LetterPart => shows.includes(p)) })}
          listClass="grid grid-cols-2 gap-x-3"
          error={wrong('shows')}
        />
        {open && <p className="text-sm text-ease-deep">{say('Open signs stand in every letter.')}</p>}
      </div>
      <TextArea
        label={say('Below it')}
        rows={6}
        maxLength={LONGEST_LETTER_TEXT}
        value={text.closing}
        error={wrong('closing')}
        onChange={(closing) => set({ closing })}
      />
      <div className="flex gap-5">
        <button
          type="button"
          className="text-action min-h-9"
          disabled={!store.canUndo}
          onClick={() => store.undo()}
        >
          {say('Undo')}
        </button>
        <button
          type="button"
          className="text-action min-h-9"
          disabled={!store.canRedo}
          onClick={() => store.redo()}
        >
          {say('Redo')}
        </button>
      </div>
    </form>
  );
}
