import { known, type Quantity, several } from '../lab/report.js';
import { meanOf } from '../lab/filter.js';
import { centreIn, type FootLoads, HEADS, partAt, partOver } from './loads.js';

/** A step on the mat, and its numbers. */
export interface MatStep {
  readonly loads: FootLoads;
  readonly quantities: Readonly<Record<string, number>>;
}

/** The heel has left when it carries less than this share of the most it carried. */
const HEEL_LEFT = 0.05;
/** The last part of the time on the ground in which the centre leaves the foot. */
const LEAVING = 0.04;
const PUSH_OFF_FROM = 0.6;

const integral = (values: Float64Array, rateHz: number): number => values.reduce((s, v) => s + v, 0) / rateHz;

/** The last frame in which the heel carries, as a share of the time on the ground. */
function heelOffOf(l: FootLoads): number {
  const heel = partOver(l, 'heel');
  const most = Math.max(...heel);
  let last = -1;
  for (let i = 0; i < heel.length; i += 1) if ((heel[i] as number) >= HEEL_LEFT * most) last = i;
  return last < 0 ? Number.NaN : (100 * (last + 1)) / l.count;
}

/** Numbers of one step. */
export function stepOf(l: FootLoads, rateHz: number): MatStep {
  const whole = integral(l.totals, rateHz);
  const of = (...r: Parameters<typeof partAt>[2][]) => (100 * integral(partOver(l, ...r), rateHz)) / whole;
  const late = Math.round(l.count * PUSH_OFF_FROM);
  const push = (...r: Parameters<typeof partAt>[2][]) => meanOf(partOver(l, ...r), late);
  const outward = Array.from({ length: l.count }, (_, i) => centreIn(l, i).outward);
  const inside = outward.slice(Math.round(l.count * 0.1), Math.round(l.count * 0.9));
  const last = outward.slice(Math.floor(l.count * (1 - LEAVING))).filter((v) => Number.isFinite(v));
  const width = l.foot.outer - l.foot.inner;
  const centre = { forward: centreIn(l, 0).forward, end: centreIn(l, l.count - 1).forward };
  return {
    loads: l,
    quantities: {
      contactMs: (1000 * l.count) / rateHz,
      peakLoad: Math.max(...l.totals),
      peakHeel: l.peak.heel,
      peakBall: Math.max(...HEADS.map((h) => l.peak[h])),
      peakBigToe: l.peak.bigToe,
      heelOff: heelOffOf(l),
      timeHeel: of('heel'),
      timeMidfoot: of('midfoot'),
      timeInnerBall: of('m1'),
      timeOuterBall: of('m5'),
      timeBigToe: of('bigToe'),
      pushFirstRay: (100 * push('m1', 'bigToe')) / (push(...HEADS, 'bigToe', 'toes') || Number.NaN),
      centreSpan: (100 * (Math.max(...inside) - Math.min(...inside))) / width,
      // 0 at the inner edge of the ball, 100 at the outer.
      exit: (100 * (meanOf(last) - l.foot.inner)) / width,
      centreSpeed: ((centre.end - centre.forward) * rateHz) / Math.max(1, l.count - 1),
    },
  };
}

/** The steps of one foot together. */
export function walkOf(steps: readonly MatStep[]): Readonly<Record<string, Quantity>> {
  const names = Object.keys(steps[0]?.quantities ?? {});
  return known(
    Object.fromEntries(names.map((name) => [name, several(steps.map((s) => s.quantities[name] as number))])),
  );
}
