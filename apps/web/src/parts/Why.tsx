import { say } from '@heathstep/core';
import { Popover } from 'radix-ui';
import { hintUsed } from './Hint.js';
import { Pane } from './Pane.js';
import { useState, type ReactNode } from 'react';
import type { Why as WhyContent } from '@heathstep/core';
import { sentence } from './Judgement.js';
import { useContent } from '../api/queries.js';

/** Any computed statement: a click, Enter or the W key opens inputs, rule, arithmetic and source with its review status. */
export function Why({
  of,
  children,
  className = '',
  label,
}: {
  of: () => WhyContent;
  children: ReactNode;
  className?: string;
  label?: string;
}) {
  const [open, setOpen] = useState(false);
  return (
    <Popover.Root
      open={open}
      onOpenChange={(next) => {
        if (next) hintUsed('why');
        setOpen(next);
      }}
    >
      <Popover.Trigger
        data-why
        className={`text-left underline decoration-ink-3 decoration-dotted underline-offset-4 hover:decoration-solid ${className}`}
        {...(label === undefined ? {} : { 'aria-label': say('{{label}}. Why?', { label }) })}
        onKeyDown={(event) => {
          if (event.key.toLowerCase() === 'w' && !event.ctrlKey && !event.metaKey) setOpen(true);
        }}
      >
        {children}
      </Popover.Trigger>
      <Pane aria-label={say('Why')} className="max-h-[70vh] w-[26rem] overflow-y-auto p-5 text-sm">
        {open && <Working why={of()} />}
      </Pane>
    </Popover.Root>
  );
}

function Working({ why }: { why: WhyContent }) {
  const content = useContent();
  const review = why.reviewKey === null ? undefined : content.data?.reviews[why.reviewKey];
  return (
    <div>
      <h3>{sentence(why.statement)}</h3>
      {why.inputs.length > 0 && (
        <dl className="mt-3 grid grid-cols-[minmax(0,1fr)_minmax(0,1.2fr)] gap-x-4 gap-y-1">
          {why.inputs.map((input, i) => (
            <div key={i} className="contents">
              <dt className="text-ink-2">{input.name}</dt>
              <dd>{input.value}</dd>
            </div>
          ))}
        </dl>
      )}
      <p className="mt-3 border-t border-line-2 pt-3">{why.rule}</p>
      {why.arithmetic.length > 0 && (
        <ul className="mt-2 space-y-1">
          {why.arithmetic.map((line, i) => (
            <li key={i} className="font-semibold">
              {line}
            </li>
          ))}
        </ul>
      )}
      <p className="mt-3 border-t border-line-2 pt-3 text-ink-2">{why.source}.</p>
      {why.reviewKey !== null && (
        <p className="mt-1 text-ink-2">
          {review === undefined
            ? say('Not yet reviewed by this clinic.')
            : say('Reviewed by {{reviewer}} on {{on}} for this clinic, version {{version}}.', {
                reviewer: review.reviewer,
                on: review.on,
                version: review.version,
              })}
        </p>
      )}
    </div>
  );
}
