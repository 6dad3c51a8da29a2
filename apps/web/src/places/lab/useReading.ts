import { useQuery, type UseQueryResult } from '@tanstack/react-query';
import { useState } from 'react';
import type { CaptureView } from '@heathstep/contracts';
import type { LabReading } from './reading.js';
import { runJob } from './runJob.js';

/** Frames a second of each instrument, for how far a reading is. */
const RATE = { 'pressure-mat': 100, 'motion-pair': 200 } as const;

/** A kept capture worked out, in a worker; ended when nobody looks any more. */
export function useReading(capture: CaptureView | null): {
  readonly query: UseQueryResult<LabReading>;
  readonly progress: number;
} {
  const [progress, setProgress] = useState(0);
  const query = useQuery({
    queryKey: ['reading', capture?.id ?? ''],
    enabled: capture !== null,
    queryFn: async ({ signal }) => {
      if (capture === null) throw new Error('no capture');
      const { kind, task, side, massKg, factor, seconds } = capture;
      setProgress(0);
      const worked = await runJob(
        {
          do: 'capture',
          url: `/api/captures/${capture.id}/recording`,
          frames: seconds * RATE[kind],
          question: { task, side, massKg, factor },
        },
        { signal, progress: setProgress },
      );
      return worked.reading;
    },
    staleTime: Infinity,
    // Readings are large: the last few looked at are kept.
    gcTime: 120_000,
    retry: 1,
  });
  return { query, progress };
}
