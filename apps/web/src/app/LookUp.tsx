import { Search } from 'lucide-react';
import { Dialog } from 'radix-ui';
import { useDeferredValue, useEffect, useId, useMemo, useState } from 'react';
import { useNavigate } from 'react-router';
import { useContent, usePeople } from '../api/queries.js';
import { type Hit, lookUpOf, peopleHits } from './lookUp.js';

/** One field over people, places, measures, exercises and protocols, in plain words and in clinicians'; Ctrl+K opens it. */
export function LookUp() {
  const [open, setOpen] = useState(false);
  useEffect(() => {
    const listen = (event: KeyboardEvent) => {
      if (
        event.key.toLowerCase() !== 'k' ||
        !(event.ctrlKey || event.metaKey) ||
        event.shiftKey ||
        event.altKey
      )
        return;
      event.preventDefault();
      setOpen((now) => !now);
    };
    window.addEventListener('keydown', listen);
    return () => window.removeEventListener('keydown', listen);
  }, []);
  return (
    <Dialog.Root open={open} onOpenChange={setOpen}>
      <Dialog.Trigger className="inline-flex min-h-11 items-center gap-2 px-2 text-ink-2 hover:text-ink">
        <Search className="size-4" aria-hidden />
        <span className="max-lg:sr-only">Look up</span>
        <kbd
          aria-hidden
          className="rounded border border-line px-1.5 text-xs max-lg:hidden pointer-coarse:hidden"
        >
          Ctrl K
        </kbd>
      </Dialog.Trigger>
      <Dialog.Portal>
        <Dialog.Overlay className="fixed inset-0 z-40 bg-ink/30" />
        <Dialog.Content
          aria-describedby={undefined}
          className="fixed left-1/2 top-[10vh] z-50 flex max-h-[80vh] w-[38rem] max-w-[94vw] -translate-x-1/2 flex-col overflow-hidden rounded-xl bg-paper shadow-2xl"
        >
          <Dialog.Title className="sr-only">Look up</Dialog.Title>
          <Found close={() => setOpen(false)} />
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
  );
}

/** Hits with the heading of their group where a new one begins. */
function Hits({
  hits,
  listId,
  picked,
  go,
}: {
  hits: readonly Hit[];
  listId: string;
  picked: number;
  go: (hit: Hit) => void;
}) {
  return (
    <ul id={listId} role="listbox" aria-label="Found" className="overflow-y-auto p-2" tabIndex={-1}>
      {hits.map((hit, i) => (
        <li
          key={`${hit.group}-${hit.to}-${hit.name}`}
          id={`${listId}-${i}`}
          role="option"
          aria-selected={i === picked}
          className={`flex min-h-11 cursor-pointer items-baseline gap-3 rounded px-3 py-2 ${i === picked ? 'bg-heather-wash' : ''}`}
          onPointerDown={(event) => event.preventDefault()}
          onClick={() => go(hit)}
        >
          <span className="w-20 shrink-0 text-sm text-ink-2">
            {hits[i - 1]?.group === hit.group ? '' : hit.group}
          </span>
          <span className="font-semibold">{hit.name}</span>
          <span className="min-w-0 truncate text-sm text-ink-2">{hit.beside}</span>
        </li>
      ))}
    </ul>
  );
}

function Found({ close }: { close: () => void }) {
  const [asked, setAsked] = useState('');
  const [picked, setPicked] = useState(0);
  const navigate = useNavigate();
  const content = useContent();
  const listId = useId();
  const late = useDeferredValue(asked.trim());
  const people = usePeople(late);
  const find = useMemo(() => (content.data === undefined ? null : lookUpOf(content.data)), [content.data]);
  const persons = late === '' ? [] : peopleHits(people.data?.pages[0] ?? []);
  const hits = [...persons, ...(find?.(late) ?? [])];
  const go = (hit: Hit | undefined) => {
    if (hit === undefined) return;
    close();
    void navigate(hit.to);
  };
  return (
    <>
      <input
        className="w-full border-b border-line bg-transparent px-5 py-4 text-lg outline-none"
        role="combobox"
        aria-label="Look up"
        aria-expanded={hits.length > 0}
        aria-controls={listId}
        aria-activedescendant={hits.length > 0 ? `${listId}-${picked}` : undefined}
        placeholder="a person, a measure, an exercise, a protocol, a place"
        value={asked}
        maxLength={80}
        autoFocus
        autoComplete="off"
        onChange={(event) => {
          setAsked(event.target.value);
          setPicked(0);
        }}
        onKeyDown={(event) => {
          if (event.key === 'ArrowDown') setPicked(Math.min(hits.length - 1, picked + 1));
          else if (event.key === 'ArrowUp') setPicked(Math.max(0, picked - 1));
          else if (event.key === 'Enter') go(hits[picked]);
          else return;
          event.preventDefault();
        }}
      />
      <Hits hits={hits} listId={listId} picked={picked} go={go} />
      {hits.length === 0 && (
        <p className="px-5 pb-5 text-ink-2" role="status">
          {people.isFetching ? 'Looking' : 'Nothing has these words. Try a shorter one.'}
        </p>
      )}
    </>
  );
}
