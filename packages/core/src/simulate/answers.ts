import type { HomeAnswer, HomeQuestion } from '../protocol/homeQuestions.js';
import type { PersonFamily } from './family.js';

/** A pain that is told: a whole number from 0 to 10. */
export const clampScore = (x: number): number => Math.min(10, Math.max(0, Math.round(x)));

/** A count with this mean (Knuth). */
function countOf(random: () => number, mean: number): number {
  const limit = Math.exp(-mean);
  let [n, product] = [0, random()];
  while (product > limit && n < 99) {
    n += 1;
    product *= random();
  }
  return n;
}

/** What a question is answered on average where a family says nothing of it, at the start and once healed. */
const USUAL: Readonly<Record<HomeQuestion['kind'], readonly [from: number, to: number]>> = {
  score: [2, 0],
  count: [1, 1],
  'yes-no': [0.6, 0.95],
};

/** The answer to a question that has no part in the pain rule, of someone healed so far. */
export function answerTo(
  q: HomeQuestion,
  healed: number,
  family: Pick<PersonFamily, 'answers'>,
  random: () => number,
): HomeAnswer {
  const own = family.answers[q.key];
  const [from, to] = own === undefined ? USUAL[q.kind] : [own.from, own.to];
  const mean = from + (to - from) * healed;
  if (q.kind === 'yes-no') return random() < mean;
  const count = countOf(random, Math.max(0, mean));
  return q.kind === 'score' ? Math.min(10, count) : count;
}
