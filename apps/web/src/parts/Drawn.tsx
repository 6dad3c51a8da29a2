import type { ReactNode } from 'react';
import type { Side } from '@heathstep/core';

/** The outlines of a drawn foot or shoe, in its side's colour. */
export function Outline({ side, paths }: { side: Side; paths: readonly string[] }) {
  return (
    <>
      {paths.map((d) => (
        <path
          key={d}
          d={d}
          fill={`var(--color-${side}-wash)`}
          stroke={`var(--color-${side})`}
          strokeWidth="1.5"
        />
      ))}
    </>
  );
}

/** Lines of a drawing that are for the eye only. */
export function Lines({ side, paths }: { side: Side; paths: readonly string[] }) {
  return (
    <>
      {paths.map((d) => (
        <path
          key={d}
          d={d}
          fill="none"
          stroke={`var(--color-${side})`}
          strokeOpacity="0.55"
          strokeWidth="1.5"
        />
      ))}
    </>
  );
}

/** A place on a drawing that is pressed by pointer, Enter or Space; what is last in it shows the focus. */
export function Spot({
  label,
  onPress,
  children,
}: {
  label: string;
  onPress: () => void;
  children: ReactNode;
}) {
  return (
    <g
      role="button"
      tabIndex={0}
      aria-label={label}
      className="cursor-pointer outline-none [&:focus-visible>circle:last-of-type]:stroke-heather [&:focus-visible>circle:last-of-type]:stroke-[6]"
      onClick={onPress}
      onKeyDown={(event) => {
        if (event.key !== 'Enter' && event.key !== ' ') return;
        event.preventDefault();
        onPress();
      }}
    >
      {children}
    </g>
  );
}
