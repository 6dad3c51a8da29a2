import { type RefObject, useEffect, useRef } from 'react';
import { useLocation } from 'react-router';

/** Where someone who goes on from the place before goes on: it has the focus when they arrive, and its button is one Tab away. */
export function useArrival(): RefObject<HTMLDivElement | null> {
  const place = useRef<HTMLDivElement>(null);
  const { state } = useLocation() as { state: { readonly goesOn?: boolean } | null };
  const goesOn = state?.goesOn === true;
  useEffect(() => {
    if (goesOn && (document.activeElement === document.body || document.activeElement === null))
      place.current?.focus({ preventScroll: true });
  }, [goesOn]);
  return place;
}
