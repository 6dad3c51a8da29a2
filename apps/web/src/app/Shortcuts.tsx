import { Dialog } from 'radix-ui';
import { useEffect, useState } from 'react';

const KEYS: readonly (readonly [where: string, keys: readonly (readonly [key: string, does: string])[]])[] = [
  [
    'Everywhere',
    [
      ['Ctrl K', 'look up a person, a measure, an exercise, a place'],
      ['?', 'these keys'],
      ['Esc', 'closes what is open'],
      ['W', 'on a number: why it is so'],
    ],
  ],
  [
    'Visit',
    [
      ['/', 'the quick line: lunge l 34 35 33'],
      ['Alt ↑ ↓', 'the step before, the step after'],
      ['Enter', 'the next trial, then the next measure'],
      ['P', 'on a reading: the pain with it'],
      ['Ctrl Z', 'takes the last entry back'],
      ['Ctrl Shift Z, Ctrl Y', 'makes it again'],
      ['P  A  N', 'a finding: present, absent, not tested'],
      ['Space, 1 to 9', 'counter: one more, a fault'],
    ],
  ],
  [
    'Plan',
    [
      ['↑ ↓', 'on a number: a step more or less'],
      ['digits', 'on a number: type another'],
      ['Space, arrows', 'on a mark of the week: to another day'],
    ],
  ],
];

/** The sheet of keys; `?` opens it wherever nothing is being written. */
export function Shortcuts() {
  const [open, setOpen] = useState(false);
  useEffect(() => {
    const listen = (event: KeyboardEvent) => {
      const { target } = event;
      const typing =
        target instanceof HTMLInputElement ||
        target instanceof HTMLTextAreaElement ||
        target instanceof HTMLSelectElement;
      if (event.key !== '?' || typing || event.ctrlKey || event.metaKey || event.altKey) return;
      event.preventDefault();
      setOpen(true);
    };
    window.addEventListener('keydown', listen);
    return () => window.removeEventListener('keydown', listen);
  }, []);
  return (
    <Dialog.Root open={open} onOpenChange={setOpen}>
      <Dialog.Portal>
        <Dialog.Overlay className="fixed inset-0 z-40 bg-ink/30" />
        <Dialog.Content
          aria-describedby={undefined}
          className="fixed left-1/2 top-[10vh] z-50 max-h-[80vh] w-[40rem] max-w-[94vw] -translate-x-1/2 overflow-y-auto rounded-xl bg-paper p-6 shadow-2xl"
        >
          <div className="flex items-baseline gap-4">
            <Dialog.Title asChild>
              <h2 className="flex-1">Keys</h2>
            </Dialog.Title>
            <Dialog.Close className="text-action min-h-11">Close</Dialog.Close>
          </div>
          {KEYS.map(([where, keys]) => (
            <section key={where} className="mt-3">
              <h3>{where}</h3>
              <dl className="grid grid-cols-[9rem_minmax(0,1fr)] gap-x-4 gap-y-1 border-t border-line-2 pt-1">
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
          ))}
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
  );
}
