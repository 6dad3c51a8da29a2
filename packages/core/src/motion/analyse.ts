import { lowPass, meanOf } from '../lab/filter.js';
import { known, type QualityNote, type Quantities, type Quantity, single } from '../lab/report.js';
import type { LabTask } from '../lab/task.js';
import { gapNotes } from '../mat/quality.js';
import { leastSquares, shown } from '../quantity/statistics.js';
import { type PerSide, type Side, SIDES } from '../quantity/side.js';
import { say } from '../quantity/tongue.js';
import type { LegAngles, MotionRecording } from '../recording/recording.js';
import { evened } from '../recording/even.js';
import { groundTimes } from './steps.js';
import { type Ensemble, ensembleOf, rearfoot, restOf, waveQuantities } from './wave.js';

export interface MotionQuestion {
  readonly task: LabTask;
  readonly side: Side | 'both';
}

/** What a motion pair tells of a task. */
export interface MotionReport {
  readonly notes: readonly QualityNote[];
  readonly quantities: Quantities;
  /** The waves of walking; null for a leg without. */
  readonly waves: PerSide<Ensemble | null>;
  /** Heel against shin over time, deg, smoothed; null for a leg without. */
  readonly angles: PerSide<Float64Array | null>;
}

const note = (level: QualityNote['level'], key: string, text: string): QualityNote => ({ level, key, text });

/** Convention. */
const LIMITS = { steps: 5, few: 3, slipDeg: 4, driftDeg: 1.5, driftRefused: 12, side: 3 } as const;

interface Leg {
  readonly quantities: Readonly<Record<string, Quantity>>;
  readonly wave: Ensemble | null;
  readonly angle: Float64Array;
  readonly notes: readonly QualityNote[];
}

/** Fills samples that never came, NaN, from the one before. */
function whole(values: Float32Array): Float32Array {
  const out = values.slice();
  let last = out.find((v) => !Number.isNaN(v)) ?? 0;
  for (let i = 0; i < out.length; i += 1) {
    if (Number.isNaN(out[i])) out[i] = last;
    else last = out[i] as number;
  }
  return out;
}

/** What is left of the middles of the steps when a line, or a jump at one step, is taken off; and how large those are. */
interface Wander {
  /** Degrees a second. */
  readonly slope: number;
  readonly jump: { readonly deg: number; readonly at: number };
  /** A jump explains more than a line does. */
  readonly jumped: boolean;
}

const squares = (values: readonly number[]): number => {
  const m = meanOf(values);
  return values.reduce((s, v) => s + (v - m) ** 2, 0);
};

function wanderOf(points: readonly { readonly x: number; readonly y: number }[]): Wander {
  const slope = leastSquares(points)?.slope ?? 0;
  const y = points.map((p) => p.y);
  const line = squares(points.map((p) => p.y - slope * p.x));
  let [best, jump] = [Infinity, { deg: 0, at: 0 }];
  for (let i = LIMITS.side; i + LIMITS.side <= y.length; i += 1) {
    const [before, after] = [y.slice(0, i), y.slice(i)];
    const left = squares(before) + squares(after);
    if (left >= best) continue;
    best = left;
    jump = { deg: meanOf(after) - meanOf(before), at: i };
  }
  return { slope, jump, jumped: best < line && Math.abs(jump.deg) > LIMITS.slipDeg };
}

function walkingLeg(side: Side, leg: LegAngles, r: MotionRecording): Leg {
  const rateHz = r.header.rateHz;
  const angle = rearfoot(whole(leg.shin), whole(leg.heel), rateHz);
  const pitch = whole(leg.pitch);
  const { steps, missed } = groundTimes(pitch, rateHz);
  const rest = restOf(angle, pitch, rateHz);
  const wander = wanderOf(
    steps.map((s) => ({ x: s.contact / rateHz, y: meanOf(angle, s.contact, s.toeOff) })),
  );
  const driftDeg = (wander.slope * angle.length) / rateHz;
  const drifts = Math.abs(driftDeg) > LIMITS.driftDeg && !wander.jumped;
  const level = drifts ? angle.map((v, i) => v - (wander.slope * i) / rateHz) : angle;
  const wave = ensembleOf(level, steps, { rateHz, rest });
  return {
    quantities: waveQuantities(wave),
    wave,
    angle: level,
    notes: [
      ...stepNotes(side, wave, missed),
      ...(wander.jumped
        ? [
            note(
              'refuse',
              'slipped',
              say('{{side}}: the heel jumps by {{deg}} degrees at {{at}} s: a sensor has slipped', {
                side: say(side),
                deg: shown(wander.jump.deg, 0),
                at: shown(r.times[steps[wander.jump.at]?.contact ?? 0] as number, 0),
              }),
            ),
          ]
        : []),
      ...(drifts
        ? [
            note(
              Math.abs(driftDeg) > LIMITS.driftRefused ? 'refuse' : 'warn',
              'drift',
              say('{{side}}: it drifts by {{deg}} degrees, taken off', {
                side: say(side),
                deg: shown(driftDeg, 1),
              }),
            ),
          ]
        : []),
      ...(rest === null
        ? [
            note(
              'warn',
              'no-rest',
              say('{{side}}: nobody stood still at the start: nothing is told against the angle at rest', {
                side: say(side),
              }),
            ),
          ]
        : []),
    ],
  };
}

/** How many steps there were to work with. */
function stepNotes(side: Side, wave: Ensemble, missed: number): QualityNote[] {
  const name = say(side);
  const n = wave.steps.length;
  const few =
    n < LIMITS.few
      ? [note('refuse', 'few-steps', say('{{side}}: only {{n}} steps can be told', { side: name, n }))]
      : n < LIMITS.steps
        ? [
            note(
              'warn',
              'few-steps',
              say('{{side}}: {{n}} steps, {{wanted}} are wanted', { side: name, n, wanted: LIMITS.steps }),
            ),
          ]
        : [];
  return [
    ...few,
    ...(missed > 0
      ? [
          note(
            'warn',
            'missed',
            say('{{side}}: the contact of {{n}} steps could not be told, left out', {
              side: name,
              n: missed,
            }),
          ),
        ]
      : []),
    ...(wave.outliers > 0
      ? [
          note(
            'warn',
            'outliers',
            say('{{side}}: {{n}} steps unlike the others, left out', { side: name, n: wave.outliers }),
          ),
        ]
      : []),
  ];
}

/** Share of the moments, those with the heel furthest inward, that stand for the bottom of a squat. */
const DEEPEST = 0.1;

function squattingLeg(side: Side, leg: LegAngles, r: MotionRecording): Leg {
  const rateHz = r.header.rateHz;
  const heel = lowPass(whole(leg.heel), rateHz, 3);
  const shin = lowPass(whole(leg.shin), rateHz, 3);
  const angle = rearfoot(whole(leg.shin), whole(leg.heel), rateHz);
  const still = Math.min(heel.length - 1, Math.round(rateHz));
  const rest = { heel: meanOf(heel, 0, still - 1), shin: meanOf(shin, 0, still - 1) };
  const order = Array.from({ length: heel.length - still }, (_, i) => i + still).sort(
    (a, b) => (heel[b] as number) - (heel[a] as number),
  );
  const deep = order.slice(0, Math.max(1, Math.round(order.length * DEEPEST)));
  const over = (values: Float64Array) => meanOf(deep.map((i) => values[i] as number));
  const heelTurn = over(heel) - rest.heel;
  const shinTurn = over(shin) - rest.shin;
  const moved = heel.slice(0, still);
  const restless = Math.max(...moved) - Math.min(...moved) > 3;
  return {
    quantities: known({
      heelTurn: single(heelTurn),
      shinTurn: single(shinTurn),
      underShin: single(heelTurn - shinTurn),
    }),
    wave: null,
    angle,
    notes: restless
      ? [
          note(
            'refuse',
            'restless',
            say('{{side}}: nobody stood still in the first second', { side: say(side) }),
          ),
        ]
      : [],
  };
}

/** Tasks a motion pair can tell something of. */
export const MOTION_TASKS: readonly LabTask[] = ['walk', 'squat'];

/** Works out a capture of a motion pair. Never throws: what cannot be used is told in its notes. */
export function analyseMotion(recorded: MotionRecording, q: MotionQuestion): MotionReport {
  const r = evened(recorded);
  const legs = SIDES.map((side) => {
    const angles = r[side];
    if (angles === null || (q.side !== 'both' && q.side !== side)) return null;
    return q.task === 'walk' ? walkingLeg(side, angles, r) : squattingLeg(side, angles, r);
  });
  const [left = null, right = null] = legs;
  const bare = SIDES.filter((s, i) => legs[i] === null && (q.side === 'both' || q.side === s));
  return {
    notes: [
      ...(left === null && right === null
        ? [note('refuse', 'bare', say('No leg wears the sensors'))]
        : bare.map((s) => note('warn', 'bare', say('{{side}}: no sensors on this leg', { side: say(s) })))),
      ...(left?.notes ?? []),
      ...(right?.notes ?? []),
      ...gapNotes(recorded),
    ],
    quantities: { left: left?.quantities ?? {}, right: right?.quantities ?? {} },
    waves: { left: left?.wave ?? null, right: right?.wave ?? null },
    angles: { left: left?.angle ?? null, right: right?.angle ?? null },
  };
}
