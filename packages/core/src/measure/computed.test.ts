import { computeMeasure, type ComputeInputs } from './computed.js';
import type { ComputedRule, MeasureDefinition } from './definition.js';
import { lunge } from '../testing/measures.js';

const measure = (rule: ComputedRule, ...from: string[]): MeasureDefinition => ({
  ...lunge,
  computed: { rule, from },
});
const inputs = (values: Record<string, number>, more: Partial<ComputeInputs> = {}): ComputeInputs => ({
  value: (key) => values[key] ?? null,
  part: () => null,
  bodyMassKg: null,
  sites: null,
  abilities: [],
  ...more,
});
const value = (m: MeasureDefinition, i: ComputeInputs) => computeMeasure(m, i)?.value;

describe('measures worked out from others', () => {
  it('reach: the three directions over three leg lengths', () => {
    const m = measure('reach-composite', 'a', 'pm', 'pl', 'leg');
    expect(value(m, inputs({ a: 60, pm: 90, pl: 84, leg: 85 }))).toBeCloseTo(91.76, 2);
    expect(computeMeasure(m, inputs({ a: 60, pm: 90, pl: 84 }))).toEqual({ value: null, missing: ['leg'] });
  });

  it('toe-box room and first-ray slip: one less the other, with its sign', () => {
    expect(value(measure('difference', 'insole', 'foot'), inputs({ insole: 92, foot: 98 }))).toBe(-6);
  });

  it('arch stiffness: 0.4 of body mass over the drop of the index, and none for an arch that does not lower', () => {
    const m = measure('arch-stiffness', 'sit', 'stand');
    expect(value(m, inputs({ sit: 0.36, stand: 0.33 }, { bodyMassKg: 75 }))).toBeCloseTo(1000, 6);
    expect(value(m, inputs({ sit: 0.33, stand: 0.33 }, { bodyMassKg: 75 }))).toBeNull();
    expect(computeMeasure(m, inputs({ sit: 0.36, stand: 0.33 }))).toEqual({
      value: null,
      missing: ['body mass'],
    });
  });

  it('torque per kg: force by lever arm by body mass', () => {
    const m = measure('torque-per-kg', 'ev');
    const with15 = { part: (_m: string, p: string) => (p === 'lever' ? 15 : null), bodyMassKg: 60 };
    expect(value(m, inputs({ ev: 120 }, with15))).toBeCloseTo(0.3, 9);
    expect(computeMeasure(m, inputs({ ev: 120 }, { bodyMassKg: 60 }))).toEqual({
      value: null,
      missing: ['lever arm'],
    });
  });

  it('change of training in percent, and none from nothing', () => {
    const m = measure('change-percent', 'now', 'before');
    expect(value(m, inputs({ now: 39, before: 30 }))).toBeCloseTo(30, 9);
    expect(value(m, inputs({ now: 39, before: 0 }))).toBeNull();
  });

  it('a ratio, and none over nothing', () => {
    expect(value(measure('ratio', 'ev', 'inv'), inputs({ ev: 90, inv: 100 }))).toBe(0.9);
    expect(value(measure('ratio', 'ev', 'inv'), inputs({ ev: 90, inv: 0 }))).toBeNull();
  });

  it('sites felt count only when all ten were tested: untested is never felt', () => {
    const m = measure('sites-felt');
    expect(value(m, inputs({}, { sites: { felt: 8, tested: 10 } }))).toBe(8);
    expect(value(m, inputs({}, { sites: { felt: 8, tested: 9 } }))).toBeNull();
    expect(value(m, inputs({}))).toBeNull();
  });

  it('the mean of the patient’s own activities', () => {
    expect(value(measure('ability-mean'), inputs({}, { abilities: [4, 7] }))).toBe(5.5);
    expect(value(measure('ability-mean'), inputs({}))).toBeNull();
  });

  it('is nothing for a measure that is taken', () => {
    expect(computeMeasure(lunge, inputs({}))).toBeNull();
  });
});
