import { type DateOrder, say } from '@heathstep/core';

export const ORDER_WORDS: Readonly<Record<DateOrder, string>> = {
  dmy: say('day, month, year'),
  mdy: say('month, day, year'),
  ymd: say('year, month, day'),
};

/** As it is, whatever it says it is. */
export const AS_IT_IS = 'application/octet-stream';
