import { sayKey, say, type FirstToLast, type TakenOn, unitAfter, shown } from '@heathstep/core';

type Measure = FirstToLast['measure'];

const figure = (measure: Measure, value: number): string =>
  `${shown(value, measure.decimals)}${unitAfter(measure)}`;

/** A value with its day; unable is said as that. */
export const takenText = (measure: Measure, taken: TakenOn | null, day: (iso: string) => string): string =>
  taken === null
    ? ''
    : say('{{value}} ({{day}})', {
        value: taken.value === null ? say('unable') : figure(measure, taken.value),
        day: day(taken.day),
      });

/** By how much a value changed, and how sure that is; what became possible is said as that. */
export function changeText({ measure, first, last, change, important }: FirstToLast): string {
  if (first === null) return say('not compared');
  if (change === null)
    return first.value === null && last.value !== null
      ? say('possible now')
      : last.value === null && first.value !== null
        ? say('not possible any more')
        : say('not compared');
  const by = `${change.change > 0 ? '+' : ''}${figure(measure, change.change)}`;
  const sure =
    change.class === 'not-known'
      ? important === null
        ? say('its error is not known')
        : important
          ? say('enough to matter')
          : say('less than matters')
      : sayKey(change.class);
  const words = change.direction === 'same' ? [sure] : [say(change.direction), sure];
  return say('{{by}}, {{words}}', { by, words: words.join(', ') });
}
