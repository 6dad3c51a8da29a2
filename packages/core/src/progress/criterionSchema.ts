import { SINCE_WHAT } from './criteriaTypes.js';
type Schema = Readonly<Record<string, unknown>>;

const key: Schema = { type: 'string', pattern: '^[a-z0-9]+(-[a-z0-9]+)*$' };
const number: Schema = { type: 'number' };
const days: Schema = { type: 'integer', minimum: 1 };
const count: Schema = { type: 'integer', minimum: 0 };
const oneOf = (...values: readonly unknown[]): Schema => ({ enum: values });
const maxAgeDays: Schema = { type: 'number', minimum: 1 };
const op = oneOf('>=', '>', '<=', '<');
const self: Schema = { $ref: 'criterion' };
const some: Schema = { type: 'array', items: self, minItems: 1 };

const object = (properties: Readonly<Record<string, Schema>>, optional: readonly string[] = []): Schema => ({
  type: 'object',
  additionalProperties: false,
  required: Object.keys(properties).filter((k) => !optional.includes(k)),
  properties,
});

/** The plain limit that each side must meet when both are affected. */
const twin: Schema = { anyOf: [number, object({ op, value: number })] };

/** JSON Schema of an expression of criteria: one for the content, the command line and files that are exchanged. */
export const CRITERION_SCHEMA: Schema = {
  $id: 'heathstep/criterion',
  oneOf: [
    object({ all: some }),
    object({ any: some }),
    object({ atLeast: days, of: some }),
    object(
      { measure: key, side: oneOf('treated', 'other', 'left', 'right'), op, value: number, maxAgeDays },
      ['maxAgeDays'],
    ),
    object({ symmetry: key, min: number, floor: number, maxAgeDays }, ['floor', 'maxAgeDays']),
    object({ lessThanOther: key, max: { type: 'number', minimum: 0 }, bothSides: twin, maxAgeDays }, [
      'bothSides',
      'maxAgeDays',
    ]),
    object({ atLeastForAge: key, share: { type: 'number', exclusiveMinimum: 0, maximum: 2 }, maxAgeDays }, [
      'maxAgeDays',
    ]),
    object({ sideDifference: key, max: number, maxAgeDays }, ['maxAgeDays']),
    object({
      pain: oneOf('first-step', 'before', 'during', 'after', 'next-morning', 'day', 'worst-of-day'),
      max: number,
      days,
    }),
    object({ answer: key, op, value: number, days: { ...days, maximum: 60 } }),
    object({ noRed: { anyOf: [days, object({ days, atLeast: days })] } }),
    object({ skill: key, state: key }),
    object({ adherence: object({ min: number, days }) }),
    object({ minDays: count }),
    object({ daysSince: oneOf(...SINCE_WHAT), min: count }),
    object({ events: key, max: count, days, exposure: object({ what: key, min: days }) }),
    object({ outcome: key, gain: { type: 'number', exclusiveMinimum: 0 } }),
    object({ status: oneOf('weight-bearing'), atLeast: oneOf('none', 'partial', 'full') }),
    object({ noLimp: { const: true } }),
    object({
      impact: oneOf('contacts', 'run-minutes'),
      min: days,
      maxPain: { type: 'number', minimum: 0, maximum: 10 },
    }),
  ],
};
