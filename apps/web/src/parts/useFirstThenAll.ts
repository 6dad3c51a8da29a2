import { useDeferredValue } from 'react';

/** More than a large screen shows. */
const FIRST = 30;

/** A long list as it is shown: what can be seen at once first, all of it a moment later, so that a place opens without delay. */
export const useFirstThenAll = <T>(list: readonly T[]): readonly T[] =>
  useDeferredValue(list, list.slice(0, FIRST));
