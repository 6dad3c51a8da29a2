import type { ClinicContent } from '../../api/queries.js';

const plain = (value: unknown): string => (typeof value === 'string' ? value : JSON.stringify(value));

/** A value of an entry as it is read aloud. */
export function told(value: unknown): string {
  if (value === null) return 'nothing';
  if (typeof value === 'object' && 'trials' in value) {
    const { trials, status, pain } = value as {
      trials: (number | null)[];
      status: string;
      pain: number | null;
    };
    const taken = trials.filter((t) => t !== null).join(', ') || 'no trials';
    const what = status === 'taken' ? taken : status.replaceAll('-', ' ');
    return pain === null ? what : `${what}, pain ${pain}`;
  }
  if (!Array.isArray(value)) return plain(value);
  return value.map(plain).join(', ') || 'none';
}

/** What an entry is about, by the content's own names. */
export function entryName(key: string, content: ClinicContent): string {
  const [kind, name = '', ...more] = key.split('.');
  const label =
    kind === 'measure'
      ? content.measures.find((m) => m.key === name)?.label
      : kind === 'safety'
        ? content.safetyQuestions.find((q) => q.key === name)?.text
        : name.replaceAll('-', ' ');
  return [label ?? name, ...more.filter((m) => m !== 'none')].join(', ');
}
