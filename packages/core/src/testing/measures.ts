import type { MeasureDefinition } from '../measure/definition.js';

const base: Omit<MeasureDefinition, 'key' | 'label'> = {
  brief: '',
  region: 'ankle',
  step: 'measure',
  aliases: [],
  sides: 'each',
  unit: 'deg',
  unitLabel: '°',
  decimals: 1,
  allowed: { min: 0, max: 70 },
  usual: { min: 10, max: 55 },
  trials: { count: 3, combine: 'mean' },
  direction: 'more',
  band: { min: 35, max: 45 },
  scale: 'ratio',
  error: { mdc: 4.5, source: 'test' },
  important: null,
  sideFlag: { kind: 'difference', op: '>', value: 5, source: 'test' },
  thresholds: [],
  method: ['as usual'],
  methods: ['goniometer', 'phone'],
  positions: ['standing'],
  setup: null,
  tool: null,
  device: null,
  photo: null,
  lab: [],
  levels: null,
  computed: null,
  byAge: null,
  painless: false,
  evidence: { statement: '', source: 'test', kind: 'convention', version: 1 },
};

/** Small measures of known properties for tests of the rules. */
export const lunge: MeasureDefinition = { ...base, key: 'lunge-knee-bent', label: 'Lunge, knee bent' };

export const raise: MeasureDefinition = {
  ...base,
  key: 'single-leg-heel-raise',
  label: 'Single-leg heel raise',
  unitLabel: '',
  decimals: 0,
  allowed: { min: 0, max: 100 },
  usual: { min: 0, max: 45 },
  trials: { count: 1, combine: 'best' },
  error: { mdc: 4, source: 'test' },
  sideFlag: { kind: 'symmetry', below: 90, source: 'test' },
  band: { min: 12, max: 25 },
  norms: {
    bands: [
      { from: 21, female: 16, male: 22 },
      { from: 41, female: 9, male: 12 },
      { from: 61, female: 3, male: 4 },
    ],
    source: 'test',
  },
};

export const toePress: MeasureDefinition = {
  ...raise,
  key: 'toe-press-big-toe',
  label: 'Toe press',
  error: { mdcPercent: 15, source: 'test' },
};

export const posture: MeasureDefinition = {
  ...base,
  key: 'foot-posture-index',
  label: 'Foot posture index',
  unitLabel: '',
  decimals: 0,
  allowed: { min: -12, max: 12 },
  usual: { min: -8, max: 11 },
  direction: 'target',
  band: { min: 0, max: 5 },
  scale: 'signed',
  error: { mdc: 2, source: 'test' },
  sideFlag: { kind: 'difference', op: '>=', value: 2, source: 'test' },
};

export const firstStep: MeasureDefinition = {
  ...base,
  key: 'first-step-pain',
  label: 'First-step pain',
  unitLabel: '',
  decimals: 0,
  allowed: { min: 0, max: 10 },
  usual: { min: 0, max: 10 },
  trials: { count: 1, combine: 'mean' },
  direction: 'less',
  band: { min: 0, max: 2 },
  error: null,
  important: { absolute: 2, percent: 30, source: 'test' },
  sideFlag: null,
};

const ALL = [lunge, raise, toePress, posture, firstStep];

export const lookup = (key: string): MeasureDefinition | undefined => ALL.find((m) => m.key === key);

/** Any other, as little as a test needs to say of it. */
export const measure = (
  over: Pick<MeasureDefinition, 'key' | 'label'> & Partial<MeasureDefinition>,
): MeasureDefinition => ({
  ...base,
  allowed: { min: 0, max: 100 },
  ...over,
});
