import { Fragment, type ReactNode } from 'react';
import { say } from '@heathstep/core';

/** A text with parts of a page in its gaps, in the order its language has them. */
export function words(text: string, gaps: Readonly<Record<string, ReactNode>>): ReactNode {
  const marked = Object.fromEntries(Object.keys(gaps).map((name) => [name, `\u0001${name}\u0001`]));
  return say(text, marked)
    .split('\u0001')
    .map((piece, i) => <Fragment key={i}>{i % 2 === 0 ? piece : gaps[piece]}</Fragment>);
}
