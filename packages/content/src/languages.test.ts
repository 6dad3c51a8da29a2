import { fileURLToPath } from 'node:url';
import {
  type Criterion,
  type CriterionLeaf,
  homeQuestions,
  type MeasureDefinition,
  measureOf,
  PAIN_ALL_RIGHT,
  textsOfExercise,
} from '@heathstep/core';
import { loadContent } from './load.js';
import { saidBelow } from './testing/saidTexts.js';

const loaded = loadContent();
if (!loaded.ok) throw new Error(loaded.problems.join('\n'));
const { content } = loaded;

const ROOT = fileURLToPath(new URL('../../..', import.meta.url));
const CODE = ['packages/core/src', 'packages/contracts/src', 'apps/server/src', 'apps/web/src'];

/** Written by the pages and papers themselves. */
const written = saidBelow(CODE.map((folder) => `${ROOT}${folder}`));

/** Measures that criteria of a protocol name. */
function criteriaMeasures(): readonly MeasureDefinition[] {
  const leaves = (c: Criterion): readonly CriterionLeaf[] =>
    'all' in c
      ? c.all.flatMap(leaves)
      : 'any' in c
        ? c.any.flatMap(leaves)
        : 'of' in c
          ? c.of.flatMap(leaves)
          : [c];
  const keys = new Set(
    content.protocols.flatMap((p) =>
      p.stages.flatMap((s) => (s.criteria === null ? [] : leaves(s.criteria).map(measureOf))),
    ),
  );
  return content.measures.filter((m) => keys.has(m.key));
}

/** Written in the content and read by patients. */
const told = new Set([
  ...content.exercises.flatMap(textsOfExercise),
  ...content.protocols.flatMap((p) => [
    p.usually,
    ...p.stages.flatMap((s) => [
      s.purpose.patient,
      ...s.adjuncts.flatMap((a) => [a.text, a.dose ?? '', a.weaning?.text ?? '']),
    ]),
    ...homeQuestions(p).flatMap((q) => [q.ask, q.name]),
  ]),
  ...criteriaMeasures().flatMap((m) => [
    m.label,
    ...(m.levels ?? []).map((l) => l.word.replaceAll('-', ' ')),
  ]),
  ...content.stopSigns.map((s) => s.text),
  ...content.pathways.flatMap(({ name, place }) => [
    name,
    place.both,
    `your left ${place.one}`,
    `your right ${place.one}`,
  ]),
  ...Object.values(PAIN_ALL_RIGHT),
]);
const all = [...new Set([...written.keys(), ...told])].filter((t) => t !== '');

/** The same word in both. */
const ALIKE: Readonly<Record<string, readonly string[]>> = {
  de: [
    'Start',
    '{{n}} s',
    '{{n}} s {{does}}',
    '{{n}} min {{does}}',
    '{{n}} kg',
    '{{n}} min',
    'Version {{number}}',
    'Ball',
    'Band',
    'Name',
  ],
};

const gapsOf = (text: string): string[] => [...text.matchAll(/\{\{(\w+)\}\}/g)].map((m) => m[1] ?? '').sort();

describe('what patients read', () => {
  it('is found in the code and in the content', () => {
    expect(written.has('It hurts, or something is wrong')).toBe(true);
    expect(written.has('Both feet together')).toBe(true);
    expect(told.size).toBeGreaterThan(1000);
  });

  describe.each(content.languages.map((l) => [l.name, l] as const))(
    'in %s',
    (_, { code, texts, clinicians = false }) => {
      const said = (t: string) => texts[t] ?? texts[`${t}_other`] ?? texts[`${t}_counted`];

      it('says every text', () => expect(all.filter((t) => said(t) === undefined)).toEqual([]));

      it('leaves none as it was', () =>
        expect(all.filter((t) => said(t) === t && ALIKE[code]?.includes(t) !== true)).toEqual([]));

      it('keeps every gap, and says nothing that is no longer asked for', () => {
        const bare = (key: string) => key.replace(/(_counted)?(_(zero|one|two|few|many|other))?$/, '');
        const asked = new Set(all);
        expect(Object.entries(texts).filter(([k, v]) => gapsOf(k).join() !== gapsOf(v).join())).toEqual([]);
        // What clinicians read besides is looked at with the other texts of theirs.
        const unread = Object.keys(texts).filter((k) => !asked.has(k) && !asked.has(bare(k)));
        expect(clinicians ? [] : unread).toEqual([]);
      });
    },
  );
});
