import { anyOf, flag, iso, key, list, number, object, open, orNull, text, texts } from './schemaParts.js';

/** Schemas of what looks ahead: forecasts, and made-up people. */
export const AHEAD = {
  forecast: {
    input: object({
      series: list(object({ at: iso, value: number })),
      threshold: number,
      direction: anyOf('more', 'less'),
      sem: { type: 'number', exclusiveMinimum: 0 },
      now: iso,
      seed: { type: 'integer' },
    }),
    output: {
      anyOf: [
        object({
          medianDate: orNull(iso),
          lowDate: orNull(iso),
          highDate: orNull(iso),
          share: { type: 'number', minimum: 0, maximum: 1 },
          band: list(object({ day: iso, low: number, middle: number, high: number })),
        }),
        object({ why: text }),
      ],
    },
  },
  simulate: {
    input: object({
      protocol: key,
      seed: { type: 'integer', minimum: 0 },
      weeks: { type: 'integer', minimum: 1, maximum: 104 },
    }),
    output: object({
      days: list(open({ day: iso, morning: {}, session: {}, state: {}, stop: {} })),
      visits: list(open({ day: iso, stage: key, seen: flag, decision: text, rule: number, because: texts })),
      truth: open({
        kind: anyOf('changing', 'unchanging', 'mistaken'),
        healed: list(number),
        flares: list(iso),
        foundOutOn: orNull(iso),
      }),
    }),
  },
} as const;
