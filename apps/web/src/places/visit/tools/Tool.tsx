import type { MeasureTool } from '@heathstep/core';
import type { Column } from '../live.js';
import { Metronome, SitToStand } from './Counter.js';
import { Interval } from './Interval.js';
import { Stopwatch } from './Stopwatch.js';

export interface ToolProps {
  /** Where the next value goes; null when every trial is taken. */
  readonly place: { readonly side: Column; readonly trial: number } | null;
  readonly keep: (value: number) => void;
}

/** The tool a measure asks for, built into its entry. */
export function Tool({ tool, ...props }: ToolProps & { tool: MeasureTool }) {
  switch (tool.kind) {
    case 'stopwatch':
      return <Stopwatch {...props} capSeconds={tool.capSeconds} />;
    case 'metronome':
      return (
        <Metronome
          {...props}
          beatsPerMinute={tool.beatsPerMinute}
          faults={tool.faults}
          stopAtFaults={tool.stopAtFaults}
        />
      );
    case 'sit-to-stand':
      return <SitToStand {...props} target={tool.target} />;
    case 'interval':
      return <Interval {...props} workSeconds={tool.workSeconds} restSeconds={tool.restSeconds} />;
    case 'items':
      return null;
  }
}
