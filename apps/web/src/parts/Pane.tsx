import { Popover } from 'radix-ui';
import { type ComponentProps, useRef } from 'react';

/** Closing gives the focus back a moment later; whoever has gone on meanwhile (a key for the quick line, say) keeps it. */
function keepFocusOfWhoWentOn(event: Event, pane: HTMLElement | null): void {
  const active = document.activeElement;
  if (active !== null && active !== document.body && pane?.contains(active) !== true) event.preventDefault();
}

/** What opens beside a word or button: above the page, at the edge of the window at most, closed by Escape. */
export function Pane({ className = '', ...rest }: ComponentProps<typeof Popover.Content>) {
  const pane = useRef<HTMLDivElement>(null);
  return (
    <Popover.Portal>
      <Popover.Content
        ref={pane}
        align="start"
        collisionPadding={10}
        sideOffset={6}
        onCloseAutoFocus={(event) => keepFocusOfWhoWentOn(event, pane.current)}
        className={`z-50 max-w-[94vw] rounded-lg border border-line bg-paper shadow-xl ${className}`}
        {...rest}
      />
    </Popover.Portal>
  );
}
