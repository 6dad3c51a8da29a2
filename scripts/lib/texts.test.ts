import { rmSync } from 'node:fs';
import { loadContent, loadContentFrom } from '@heathstep/content';
import { readTexts, spokenContent, tongueOf } from '@heathstep/contracts';
// @ts-expect-error The scripts are plain JavaScript, checked by what they do.
import { allTexts, contentWithMadeUp, lacking, madeUp, unsaid } from './texts.mjs';

const shipped = loadContent();
if (!shipped.ok) throw new Error(shipped.problems.join('\n'));

describe('what clinicians read', () => {
  it('is said wherever a page writes it; only our own name is as it is', () => {
    expect(unsaid().map((place) => place.replace(/:\d+/, ''))).toEqual([
      'apps/web/src/places/home/Home.tsx: heathstep',
    ]);
  });

  it('is found in code, types, tables, checks of what is sent, and content', async () => {
    const { clinicians } = await allTexts();
    const all = new Set(clinicians);
    for (const text of [
      'Sign in',
      '{{label}} lies between {{min}} and {{measure}}',
      'left',
      'not tested',
      'a stop is open, refer',
      'URGENT: please see the same or next day',
      'Type a name of 2 to 60 characters',
      'Type a name of 1 to 80 characters',
      'Single-leg stance, eyes open',
      'phone or inclinometer',
    ])
      expect([text, all.has(text)]).toEqual([text, true]);
  });

  it.each(shipped.content.languages.map((l) => [l.name, l] as const))(
    'is said whole in %s as far as it is for them',
    async (_, language) => expect(await lacking(language)).toEqual([]),
  );
});

describe('a language that is one file more', () => {
  let root = '';
  beforeAll(async () => {
    root = await contentWithMadeUp();
  });
  afterAll(() => rmSync(root, { recursive: true, force: true }));

  it('is read with the content, and says everything', async () => {
    const loaded = loadContentFrom(root);
    if (!loaded.ok) throw new Error(loaded.problems.join('\n'));
    const language = loaded.content.languages.find((l) => l.code === 'eo');
    expect(language?.clinicians).toBe(true);
    expect(await lacking(language ?? { texts: {} })).toEqual([]);
    expect(await lacking({ texts: {}, clinicians: true })).toContain('Sign in');
  });

  it('says what is read of content, and leaves every key, number and rule', () => {
    const said = spokenContent(shipped.content, { ...tongueOf(null), say: (text) => madeUp(text) });
    const plain = (value: unknown): unknown =>
      JSON.parse(JSON.stringify(value).replaceAll(/[‹›]/g, '')) as unknown;
    expect(plain(said)).toEqual(JSON.parse(JSON.stringify(shipped.content)));
    const [measure] = said.measures;
    expect(measure?.label).toMatch(/^‹.+›$/);
    const marked = JSON.stringify(said);
    for (const key of ['key', 'exercise', 'ladder', 'op', 'direction', 'kind', 'methods', 'fault'])
      expect([key, new RegExp(`"${key}":\\[?"‹`).test(marked)]).toEqual([key, false]);
    expect(readTexts(shipped.content).size).toBeGreaterThan(4000);
  });
});
