import { say } from '@heathstep/core';
import { Search } from 'lucide-react';
import { Dialog } from 'radix-ui';
import { useDeferredValue, useEffect, useMemo, useState } from 'react';
import { useNavigate } from 'react-router';
import { useContent, usePeople } from '../api/queries.js';
import { FindAndChoose } from '../parts/FindAndChoose.js';
import { lookUpOf, peopleHits } from './lookUp.js';

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
        <span className="max-lg:sr-only">{say('Look up')}</span>
        <kbd
          aria-hidden
          className="rounded border border-line px-1.5 text-xs max-lg:hidden pointer-coarse:hidden"
        >
          {say('Ctrl K')}
        </kbd>
      </Dialog.Trigger>
      <Dialog.Portal>
        <Dialog.Overlay className="fixed inset-0 z-40 bg-scrim" />
        <Dialog.Content
          aria-describedby={undefined}
          className="fixed left-1/2 top-[10vh] z-50 flex max-h-[80vh] w-[38rem] max-w-[94vw] -translate-x-1/2 flex-col overflow-hidden rounded-xl bg-paper shadow-2xl"
        >
          <Dialog.Title className="sr-only">{say('Look up')}</Dialog.Title>
          <Found close={() => setOpen(false)} />
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
  );
}

function Found({ close }: { close: () => void }) {
  const [asked, setAsked] = useState('');
  const navigate = useNavigate();
  const content = useContent();
  const late = useDeferredValue(asked.trim());
  const people = usePeople(late);
  const find = useMemo(() => (content.data === undefined ? null : lookUpOf(content.data)), [content.data]);
  const persons = late === '' ? [] : peopleHits(people.data?.pages[0] ?? []);
  return (
    <FindAndChoose
      label={say('Look up')}
      placeholder={say('a person, a measure, an exercise, a protocol, a place')}
      fieldClass="w-full border-b border-line bg-transparent px-5 py-4 text-lg outline-none"
      listClass="p-2"
      asked={asked}
      onAsked={setAsked}
      found={[...persons, ...(find?.(late) ?? [])]}
      keyOf={(hit) => `${hit.group}-${hit.to}-${hit.name}`}
      onChoose={(hit) => {
        close();
        void navigate(hit.to);
      }}
      row={(hit, before) => (
        <>
          <span className="w-20 shrink-0 text-sm text-ink-2">
            {before?.group === hit.group ? '' : hit.group}
          </span>
          <span className="font-semibold">{hit.name}</span>
          <span className="min-w-0 truncate text-sm text-ink-2">{hit.beside}</span>
        </>
      )}
      nothing={
        <p className="px-3 pb-3">
          {people.isFetching ? say('Looking') : say('Nothing has these words. Try a shorter one.')}
        </p>
      }
    />
  );
}
