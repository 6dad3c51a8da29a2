import type { QualityNote } from '../lab/report.js';
import { shown } from '../quantity/statistics.js';
import { say } from '../quantity/tongue.js';
import type { Recording } from '../recording/recording.js';
import type { CleanMat } from './clean.js';

/** Frames that may be missing, share of all; above it a capture is refused. Convention. */
const MISSING = { told: 0.005, refused: 0.1 } as const;

/** Frames that never came, read from the times. */
function missingShare(r: Pick<Recording, 'times' | 'header'>): number {
  const n = r.times.length;
  if (n < 2) return 0;
  const whole = Math.round(((r.times[n - 1] as number) - (r.times[0] as number)) * r.header.rateHz) + 1;
  return Math.max(0, 1 - n / whole);
}

export function gapNotes(r: Pick<Recording, 'times' | 'header'>): QualityNote[] {
  const share = missingShare(r);
  if (share < MISSING.told) return [];
  const text = say('{{share}} % of the frames are missing', { share: shown(share * 100, 1) });
  return [{ level: share > MISSING.refused ? 'refuse' : 'warn', key: 'missing', text }];
}

/** Broken cells that may be filled under a foot, share of what is touched. */
const BROKEN_REFUSED = 0.05;
const DRIFT_TOLD = 1;
const DRIFT_REFUSED = 40;

/** What was wrong with cells of the mat. */
export function cellNotes(m: CleanMat): QualityNote[] {
  const { dead, stuck, saturated, driftKpa } = m.faults;
  const touched = m.most.reduce((n, v) => (v > 0 ? n + 1 : n), 0);
  const broken = dead.length + stuck.length;
  return [
    ...(broken === 0
      ? []
      : [
          {
            level: broken > touched * BROKEN_REFUSED ? ('refuse' as const) : ('warn' as const),
            key: 'cells',
            text: say(
              '{{dead}} cells read nothing and {{stuck}} always the same: filled from those around them',
              {
                dead: dead.length,
                stuck: stuck.length,
              },
            ),
          },
        ]),
    ...(saturated.length === 0
      ? []
      : [
          {
            level: 'warn' as const,
            key: 'saturated',
            text: say(
              '{{n}} cells were at the most the mat can read: the highest pressure is at least what is told',
              {
                n: saturated.length,
              },
            ),
          },
        ]),
    ...(driftKpa < DRIFT_TOLD
      ? []
      : [
          {
            level: driftKpa > DRIFT_REFUSED ? ('refuse' as const) : ('warn' as const),
            key: 'drift',
            text: say('Unloaded cells drifted by {{kpa}} kPa: taken off', { kpa: shown(driftKpa, 1) }),
          },
        ]),
  ];
}
