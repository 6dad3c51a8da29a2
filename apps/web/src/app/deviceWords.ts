import { say } from '@heathstep/core';
const SYSTEMS: readonly (readonly [RegExp, string])[] = [
  [/iPad/, say('an iPad')],
  [/iPhone/, say('an iPhone')],
  [/Android/, 'Android'],
  [/Windows/, 'Windows'],
  [/Mac OS X/, say('a Mac')],
  [/CrOS/, say('a Chromebook')],
  [/Linux/, 'Linux'],
];

const BROWSERS: readonly (readonly [RegExp, string])[] = [
  [/Firefox\//, 'Firefox'],
  [/Edg\//, 'Edge'],
  [/Chrom(e|ium)\//, 'Chromium'],
  [/Safari\//, 'Safari'],
];

const first = (list: readonly (readonly [RegExp, string])[], agent: string): string | null =>
  list.find(([pattern]) => pattern.test(agent))?.[1] ?? null;

/** What a browser says it is, in two words; it can say anything, so nothing hangs on it. */
export function deviceWords(agent: string): string {
  const browser = first(BROWSERS, agent);
  const system = first(SYSTEMS, agent);
  if (browser === null && system === null) return say('A device that does not say what it is');
  return [browser ?? say('A browser'), system === null ? '' : say('on {{system}}', { system })]
    .filter((t) => t !== '')
    .join(' ');
}
