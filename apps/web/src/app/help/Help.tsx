import { say } from '@heathstep/core';
import { Dialog, Tabs } from 'radix-ui';
import { useEffect, useState } from 'react';
import { SearchField } from '../../parts/fields.js';
import { finderOf } from '../../parts/finder.js';
import { fullDay } from '../../parts/dates.js';
import { CHANGES } from './changes.js';
import { KEYS } from './keys.js';
import { markRead } from './read.js';
import { WORDS } from './words.js';

const SHEETS = [
  ['keys', 'Keys'],
  ['words', 'Words'],
  ['changes', 'What changed'],
] as const;
export type Sheet = (typeof SHEETS)[number][0];

/** Keys, words of ours and what changed; `?` opens it wherever nothing is being written. */
export function Help({ sheet, show }: { sheet: Sheet | null; show: (sheet: Sheet | null) => void }) {
  useEffect(() => {
    const listen = (event: KeyboardEvent) => {
      const { target } = event;
      const typing =
        target instanceof HTMLInputElement ||
        target instanceof HTMLTextAreaElement ||
        target instanceof HTMLSelectElement;
      if (event.key !== '?' || typing || event.ctrlKey || event.metaKey || event.altKey) return;
      event.preventDefault();
      show('keys');
    };
    window.addEventListener('keydown', listen);
    return () => window.removeEventListener('keydown', listen);
  }, [show]);
  useEffect(() => {
    if (sheet === 'changes') markRead();
  }, [sheet]);
  return (
    <Dialog.Root open={sheet !== null} onOpenChange={(open) => show(open ? 'keys' : null)}>
      <Dialog.Portal>
        <Dialog.Overlay className="fixed inset-0 z-40 bg-scrim" />
        <Dialog.Content
          aria-describedby={undefined}
          className="fixed left-1/2 top-[10vh] z-50 max-h-[80vh] w-[44rem] max-w-[94vw] -translate-x-1/2 overflow-y-auto rounded-xl bg-paper p-6 shadow-2xl"
        >
          <Tabs.Root value={sheet ?? 'keys'} onValueChange={(next) => show(next as Sheet)}>
            <div className="flex items-start gap-4">
              <Dialog.Title className="sr-only">
                {SHEETS.find(([key]) => key === sheet)?.[1] ?? ''}
              </Dialog.Title>
              <Tabs.List aria-label={say('Sheet')} className="flex flex-1 flex-wrap gap-1">
                {SHEETS.map(([key, name]) => (
                  <Tabs.Trigger
                    key={key}
                    value={key}
                    className="min-h-11 border-b-2 border-transparent px-3 font-head text-lg text-ink-2 data-[state=active]:border-heather data-[state=active]:font-semibold data-[state=active]:text-ink"
                  >
                    {say(name)}
                  </Tabs.Trigger>
                ))}
              </Tabs.List>
              <Dialog.Close className="text-action min-h-11">{say('Close')}</Dialog.Close>
            </div>
            <Tabs.Content value="keys" tabIndex={-1}>
              <Keys />
            </Tabs.Content>
            <Tabs.Content value="words" tabIndex={-1}>
              <Words />
            </Tabs.Content>
            <Tabs.Content value="changes" tabIndex={-1}>
              <Changed />
            </Tabs.Content>
          </Tabs.Root>
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
  );
}

function Keys() {
  return KEYS.map(([where, keys]) => (
    <section key={where} className="mt-3">
      <h3>{where}</h3>
      <dl className="grid grid-cols-[11rem_minmax(0,1fr)] gap-x-4 gap-y-1 border-t border-line-2 pt-1">
        {keys.map(([key, does]) => (
          <div key={key} className="contents">
            <dt>
              <kbd className="rounded border border-line px-1.5 font-body text-sm">{key}</kbd>
            </dt>
            <dd>{does}</dd>
          </div>
        ))}
      </dl>
    </section>
  ));
}

const find = finderOf(WORDS, (w) => `${w.word} ${w.also} ${w.means}`);

function Words() {
  const [asked, setAsked] = useState('');
  const found = find(asked);
  return (
    <div className="mt-3">
      <SearchField
        className="max-w-xs"
        label={say('Find a word')}
        placeholder={say('ours or the clinical one')}
        value={asked}
        onChange={setAsked}
      />
      {found.length === 0 && (
        <p className="mt-3 text-ink-2" role="status">
          {say('No word of ours. Measures, exercises and findings are found by Look up.')}
        </p>
      )}
      <dl className="mt-2">
        {found.map((w) => (
          <div key={w.word} className="border-b border-line-2 py-2">
            <dt className="flex flex-wrap items-baseline gap-x-3">
              <b>{w.word}</b>
              <span className="text-sm text-ink-2">{w.also}</span>
            </dt>
            <dd>{w.means}</dd>
          </div>
        ))}
      </dl>
    </div>
  );
}

function Changed() {
  return CHANGES.map((news) => (
    <section key={news.day} className="mt-3">
      <h3>{fullDay(news.day)}</h3>
      <ul className="list-disc pl-5">
        {news.lines.map((line) => (
          <li key={line}>{line}</li>
        ))}
      </ul>
    </section>
  ));
}
