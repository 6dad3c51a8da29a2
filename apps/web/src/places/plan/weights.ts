import { say } from '@heathstep/core';
/** Weights as they are typed: numbers with commas, semicolons or spaces between, a point for parts of a kilogram. */
export function weightsOf(text: string): {
  readonly weights: readonly number[];
  readonly problem: string | null;
} {
  const words = text
    .replaceAll(/kg/gi, ' ')
    .split(/[,;\s]+/)
    .filter((w) => w !== '');
  const wrong = words.find((w) => !/^\d+(\.\d+)?$/.test(w));
  if (wrong !== undefined)
    return { weights: [], problem: say('{{wrong}} is no number; write 2.5, not 2,5', { wrong }) };
  const weights = [...new Set(words.map(Number))].sort((a, b) => a - b);
  const outside = weights.find((w) => w < 0.1 || w > 100);
  if (outside !== undefined)
    return { weights: [], problem: say('{{outside}} kg is not from 0.1 to 100 kg', { outside }) };
  return weights.length > 20
    ? { weights: [], problem: say('At most 20 weights') }
    : { weights, problem: null };
}
