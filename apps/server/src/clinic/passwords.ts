import { say } from '@heathstep/core';
import { hash } from '@node-rs/argon2';
import { ZxcvbnFactory } from '@zxcvbn-ts/core';
import { adjacencyGraphs, dictionary as common } from '@zxcvbn-ts/language-common';
import { dictionary as english } from '@zxcvbn-ts/language-en';
import { badRequest } from '../http/problem.js';

/** Of 0 to 4: from here it takes some hundred million tries. [convention] */
const LEAST_SCORE = 3;

/** Words that everyone here would try. */
const OURS = ['heathstep', 'physio', 'physiotherapy', 'clinic'];

let guesser: ZxcvbnFactory | null = null;

/** How hard a password is to guess, 0 to 4, by someone who knows these words of its owner. */
function scoreOf(password: string, known: readonly string[]): number {
  guesser ??= new ZxcvbnFactory({ graphs: adjacencyGraphs, dictionary: { ...common, ...english } });
  return guesser.check(password, [...OURS, ...known]).score;
}

/** The hash of a password that is hard enough to guess; one that is not is refused by its field. */
export async function hashOf(password: string, known: readonly string[]): Promise<string> {
  const words = known.flatMap((k) => [k, ...k.split(/[^\p{L}\p{N}]+/u)]).filter((w) => w.length > 2);
  if (scoreOf(password, words) < LEAST_SCORE)
    throw badRequest([
      {
        pointer: '/password',
        detail: say('Too easy to guess. Four words that have nothing to do with each other are harder'),
      },
    ]);
  return hash(password);
}
