import { say, sayKey } from '@heathstep/core';
import { entryWords, readKey } from '@heathstep/contracts';
import type { ClinicContent } from '../../api/queries.js';

const plain = (value: unknown): string => (typeof value === 'string' ? value : JSON.stringify(value));

/** A value of an entry as it is read aloud. */
export function told(value: unknown): string {
  if (value === null) return say('nothing');
  if (typeof value === 'boolean') return value ? 'yes' : 'no';
  if (typeof value === 'object' && 'trials' in value) {
    const { trials, status, pain } = value as {
      trials: (number | null)[];
      status: string;
      pain: number | null;
    };
    const taken = trials.filter((t) => t !== null).join(', ') || say('no trials');
    const what = status === 'taken' ? taken : sayKey(status);
    return pain === null ? what : say('{{what}}, pain {{pain}}', { what, pain });
  }
  if (!Array.isArray(value)) return plain(value);
  return value.map(plain).join(', ') || say('none');
}

type Named = Pick<ClinicContent, 'findings' | 'measures' | 'safetyQuestions' | 'skills'>;

/** What an entry is about: the content's own name for what it names, else the registry's words, with the side. */
export function entryName(key: string, content: Named): string {
  const read = readKey(key);
  const names: Record<string, string | undefined> = {
    measure: content.measures.find((m) => m.key === read?.name)?.label,
    safety: content.safetyQuestions.find((q) => q.key === read?.name)?.text,
    finding: content.findings.find((f) => f.key === read?.name)?.name,
    skill: content.skills.find((s) => s.key === read?.name)?.label,
  };
  const words = names[read?.kind ?? ''] ?? entryWords(key);
  const side = read === null || read.side === 'none' ? [] : [read.side];
  return [words.charAt(0).toUpperCase() + words.slice(1), ...side].join(', ');
}
