import { anyOf, flag, list, number, object, open, orNull, text } from './schemaParts.js';

const capture = open({
  format: text,
  version: { type: 'integer' },
  kind: text,
  unit: text,
  rateHz: number,
  frames: list({ type: 'object' }),
});
const task = anyOf('stance', 'walk', 'balance', 'squat', 'raise');
const side = anyOf('left', 'right', 'both');
const quantities = {
  type: 'object',
  additionalProperties: object({ value: number, spread: orNull(number), n: { type: 'integer', minimum: 1 } }),
};
const told = {
  usable: flag,
  quantities: object({ left: quantities, right: quantities }),
  notes: list(object({ level: anyOf('refuse', 'warn'), key: text, text })),
};
const wave = orNull(
  object({ mean: list(number), spread: list(number), steps: { type: 'integer' }, rest: orNull(number) }),
);

/** Schemas of the lab: a capture as its JSON file is written, and what it tells. */
export const LAB = {
  pressure: {
    input: object(
      { capture, task, side, bodyMassKg: orNull({ type: 'number', minimum: 10, maximum: 300 }) },
      ['bodyMassKg'],
    ),
    output: object({ ...told, weighed: flag, factor: number }),
  },
  motion: {
    input: object({ capture, task, side }),
    output: object({ ...told, waves: object({ left: wave, right: wave }) }),
  },
} as const;
