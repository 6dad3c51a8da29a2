import { mainPosition, type Tongue } from '@heathstep/core';

/**
 * Fields that hold what clinicians read, by kind of content and at any depth of it. All else is keys, numbers and what
 * decides: it stays as it is written, in every language. Methods, positions and faults are kept with what is measured and
 * taught, or found by, so they stay too and are said where they are shown.
 */
const READ: Readonly<Record<string, readonly string[]>> = {
  measures: ['label', 'brief', 'meaning', 'source', 'statement', 'method', 'low', 'high', 'school', 'text'],
  ladders: ['name', 'purpose'],
  exercises: [
    'name',
    'change',
    'place',
    'surface',
    'space',
    'moves',
    'steps',
    'feel',
    'fix',
    'stops',
    'breathing',
    'how',
    'when',
    'statement',
    'source',
  ],
  pathways: ['name', 'gloss', 'one', 'both', 'words', 'aside'],
  bodyParts: ['name'],
  safetyQuestions: ['group', 'text', 'words'],
  safetyRules: ['title', 'action', 'label', 'name', 'note', 'statement', 'source'],
  protocols: [
    'name',
    'usually',
    'excludes',
    'refer',
    'lookAgain',
    'bothSides',
    'cannotTest',
    'relapse',
    'question',
    'label',
    'reason',
    'because',
    'text',
    'dose',
    'clinician',
    'patient',
    'purpose',
    'ask',
    'statement',
    'source',
  ],
  findings: ['name', 'ask', 'how', 'statement', 'source'],
  standIns: ['name', 'note'],
  skills: ['label', 'brief'],
  stopSigns: ['text'],
  tissues: ['name', 'unit', 'source'],
  letters: ['opening', 'closing'],
  routines: ['name', 'purpose', 'mind', 'statement', 'source'],
  conditions: ['name', 'gloss', 'text', 'statement', 'source'],
  drivers: ['label', 'gloss', 'adds', 'statement', 'source'],
};

function said(value: unknown, read: ReadonlySet<string>, tell: Tongue['say']): unknown {
  if (Array.isArray(value)) return value.map((v) => said(v, read, tell));
  if (typeof value !== 'object' || value === null) return value;
  return Object.fromEntries(
    Object.entries(value).map(([field, v]) => {
      if (!read.has(field)) return [field, said(v, read, tell)];
      if (typeof v === 'string') return [field, tell(v)];
      if (Array.isArray(v) && v.every((t) => typeof t === 'string')) return [field, v.map((t) => tell(t))];
      return [field, said(v, read, tell)];
    }),
  );
}

/** Content with what clinicians read of it in their language; the same lists, keys, numbers and rules. */
export const spokenContent = <C extends object>(content: C, tongue: Tongue): C =>
  Object.fromEntries(
    Object.entries(content).map(([kind, value]) => {
      const read = READ[kind];
      return [kind, read === undefined ? value : said(value, new Set(read), (t) => tongue.say(t))];
    }),
  ) as C;

/** Words that decide or are kept, and are said where they are shown: `not-tested`, a method, a fault. */
const SHOWN: readonly string[] = [
  ...['word', 'methods', 'positions', 'fault', 'aim', 'equipment', 'serves', 'parts', 'tags', 'off'],
  ...[
    'position',
    'changes',
    'supervised',
    'counted',
    'loadKind',
    'kind',
    'at',
    'asked',
    'level',
    'care',
    'scope',
  ],
];

/** Every text of content that clinicians read, and every word of it that is said where it is shown. */
export function readTexts(content: object): ReadonlySet<string> {
  const texts = new Set<string>();
  const note = (text: string): string => {
    if (/[a-z]/i.test(text)) texts.add(text);
    return text;
  };
  const listen = { say: note, inside: note, number: String };
  spokenContent(content, listen);
  for (const value of Object.values(content))
    said(value, new Set(SHOWN), (t) => note(t.replaceAll('-', ' ')));
  const { exercises } = content as { readonly exercises?: readonly { readonly position: string }[] };
  for (const e of exercises ?? []) note(mainPosition(e));
  return texts;
}
