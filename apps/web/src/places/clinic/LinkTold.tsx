import { say } from '@heathstep/core';
import { useState } from 'react';
import type { AccountLinkView } from '@heathstep/contracts';
import { momentText } from '../../parts/dates.js';

/** A link as it is told, once: to be handed over by a way the two trust. */
export function LinkTold({ name, link, close }: { name: string; link: AccountLinkView; close: () => void }) {
  const address = `${window.location.origin}${link.path}`;
  const [copied, setCopied] = useState<'no' | 'yes' | 'by hand'>('no');
  const copy = async (): Promise<void> => {
    try {
      await navigator.clipboard.writeText(address);
      setCopied('yes');
    } catch {
      setCopied('by hand');
    }
  };
  return (
    <section
      aria-label={say('Link for {{name}}', { name })}
      className="mt-4 border-l-2 border-heather bg-heather-wash px-4 py-3"
    >
      <p>
        {say(
          'Give this to {{name}} yourself. By it they choose a password, once, until {{until}}. It is not shown again.',
          { name, until: momentText(link.until) },
        )}
      </p>
      <input
        className="field mt-2 w-full font-mono text-sm"
        readOnly
        value={address}
        aria-label={say('Link for {{name}}', { name })}
        onFocus={(e) => e.target.select()}
      />
      <div className="mt-1 flex gap-5">
        <button type="button" className="text-action min-h-11" onClick={() => void copy()}>
          {say('Copy')}
        </button>
        <button type="button" className="text-action min-h-11" onClick={close}>
          {say('Put away')}
        </button>
        <span role="status" className="min-h-11 content-center text-sm text-ink-2">
          {copied === 'yes'
            ? say('Copied.')
            : copied === 'by hand'
              ? say('Mark it and copy it by hand.')
              : ''}
        </span>
      </div>
    </section>
  );
}
