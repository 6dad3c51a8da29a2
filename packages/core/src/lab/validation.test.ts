import { LAB_QUANTITIES } from './quantities.js';
import { captured, LAB_CASES } from '../simulate/labStudy.js';
import { SIDES } from '../quantity/side.js';
import { walkerOf } from '../simulate/walker.js';

/**
 * Limits within which 95 of 100 differences to the truth lie, by instrument, task and quantity: as docs/method.md states them
 * of 200 people, rounded outward. No single one may be further out than twice their width.
 */
const STATED: Readonly<Record<string, Readonly<Record<string, readonly [low: number, high: number]>>>> = {
  'pressure-mat stance': {
    weightShare: [-0.5, 0.5],
    innerBall: [-1.5, 1.5],
    outerBall: [-2, 2.2],
    heel: [0.2, 2],
    archIndex: [-0.05, 0.03],
  },
  'pressure-mat balance': { held: [-0.3, 0.1], swaySpeed: [-0.2, 0.8], swayArea: [-8, 9] },
  'pressure-mat squat': { outerKept: [-0.5, 6], inwardShift: [-0.4, 0.1] },
  'pressure-mat raise': { firstHeadHold: [-4, 4] },
  'pressure-mat walk': {
    contactMs: [-16, 16],
    heelOff: [-0.6, 1.5],
    timeHeel: [0.2, 1.3],
    timeInnerBall: [-1.6, 1.3],
    timeOuterBall: [-1.8, 1.6],
    timeBigToe: [-1.5, 0.4],
    pushFirstRay: [-5.5, 2.5],
    centreSpan: [-4, 0.6],
  },
  'motion-pair walk': {
    amplitude: [-1.1, 1.2],
    rate: [-12, 18],
    peakTime: [-3, -0.3],
    duration: [-8, 6.5],
    heelOff: [-1.7, -0.8],
    atHeelOff: [-1.1, 0.9],
    late: [-1.5, 1],
    contactMs: [-8, 12],
  },
  'motion-pair squat': { heelTurn: [-0.4, 0.6], shinTurn: [-0.1, 0.1], underShin: [-0.4, 0.6] },
};

describe.each(LAB_CASES.map((c) => [`${c.instrument} ${c.task}`, c] as const))(
  'made-up people on a %s',
  (name, c) => {
    const people = [3, 15].map((seed) => ({ seed, ...captured(walkerOf(seed), c, 1) }));

    it('are told what is listed, and nothing else', () => {
      const listed = LAB_QUANTITIES[c.instrument][c.task] ?? [];
      const told = people.flatMap((p) => SIDES.flatMap((s) => Object.keys(p.quantities[s])));
      expect([...new Set(told)].sort()).toEqual([...listed].sort());
    });

    it('are never refused', () => {
      expect(people.filter((p) => p.refused).map((p) => p.seed)).toEqual([]);
    });

    it.each(Object.entries(STATED[name] ?? {}))(
      '%s lies as near the truth as stated',
      (quantity, [low, high]) => {
        const off = people.flatMap((p) =>
          SIDES.flatMap((s) => {
            const q = p.quantities[s][quantity];
            return q === undefined ? [] : [q.value - (p.truth(s)[quantity] ?? Number.NaN)];
          }),
        );
        expect(off.length).toBeGreaterThanOrEqual(2);
        const mean = off.reduce((a, b) => a + b, 0) / off.length;
        expect(mean).toBeGreaterThanOrEqual(low);
        expect(mean).toBeLessThanOrEqual(high);
        const room = (high - low) / 2;
        expect(Math.min(...off)).toBeGreaterThanOrEqual(low - room);
        expect(Math.max(...off)).toBeLessThanOrEqual(high + room);
      },
    );
  },
);
