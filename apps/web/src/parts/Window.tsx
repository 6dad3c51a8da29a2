import { Dialog } from 'radix-ui';
import type { ReactNode } from 'react';

/** A window over the page with its title; closed by Escape or beside it. */
export function Window({
  title,
  close,
  wide = false,
  children,
}: {
  title: string;
  close: () => void;
  wide?: boolean;
  children: ReactNode;
}) {
  return (
    <Dialog.Root open onOpenChange={(open) => !open && close()}>
      <Dialog.Portal>
        <Dialog.Overlay className="fixed inset-0 z-40 bg-scrim" />
        <Dialog.Content
          className={`fixed left-1/2 top-1/2 z-50 max-h-[94vh] max-w-[94vw] -translate-x-1/2 -translate-y-1/2 overflow-y-auto rounded-xl bg-paper p-6 shadow-2xl ${wide ? 'w-[44rem]' : 'w-[30rem]'}`}
          aria-describedby={undefined}
        >
          <Dialog.Title asChild>
            <h2>{title}</h2>
          </Dialog.Title>
          {children}
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
  );
}
