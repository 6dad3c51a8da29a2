import { readdirSync, readFileSync } from 'node:fs';
import { join, relative } from 'node:path';
import { loadContent } from './index.js';

const loaded = loadContent();
if (!loaded.ok) throw new Error(loaded.problems.join('\n'));
const { content } = loaded;

const ROOT = join(__dirname, '..', '..', '..');
const HOUSES = ['packages/core/src', 'packages/contracts/src', 'apps/server/src', 'apps/web/src'];

/** What clinical content is called; a change of content must never need a change of code. */
const KEYS = {
  condition: content.conditions.map((c) => c.key),
  pathway: content.pathways.map((p) => p.key),
  protocol: content.protocols.map((p) => p.key),
  stage: content.protocols.flatMap((p) => p.stages.map((s) => s.key)),
  exercise: content.exercises.map((e) => e.key),
  measure: content.measures.map((m) => m.key),
  skill: content.skills.map((s) => s.key),
  'safety question': content.safetyQuestions.map((q) => q.key),
  'safety rule': content.safetyRules.map((r) => r.key),
};

/** Keys that stand in code all the same, each with the reason. */
const ALLOWED: readonly (readonly [key: string, file: RegExp, why: string])[] = [
  ['body-mass', /measure\/definition\.ts$/, 'arithmetic itself needs it, under one name'],
  [
    'leg-length|reach-composite|arch-stiffness',
    /measure\/(computed|definition)\.ts$/,
    'a formula and its own input',
  ],
  ['hallux-angle|shin-line', /signal\/photo\.ts$/, 'a construction on a picture, which content names'],
  ['calf-girth', /parts\/Setup\.tsx$/, 'a drawn set-up, which content names'],
  ['new-shoes', /visit\/storyWords\.ts$/, 'a word of the story'],
  [
    'surgery',
    /(entries\/checks|screen\/limits|visit\/LimitsForm|criteriaState|criteriaTypes|criterionSchema)\.tsx?$/,
    'what limits are of, not the rule',
  ],
  ['insole', /figure\/(drawSide|drawTop|pose)\.ts$/, 'a thing that is drawn'],
  ['cut', /simulate\/device\.ts$/, 'a fault of a simulated instrument'],
  ['height', /editor\/sliders\.ts$/, 'a slider of a drawn prop'],
  ['limp', /criteriaState\.ts$/, 'a criterion of its own, which names its measure'],
  ['build', /library\/DrawnAs\.tsx$/, 'the build of the drawn body'],
];

const filesBelow = (folder: string): string[] =>
  readdirSync(folder, { withFileTypes: true }).flatMap((entry) => {
    const path = join(folder, entry.name);
    if (entry.isDirectory())
      return ['testing', 'demo', 'migrations'].includes(entry.name) ? [] : filesBelow(path);
    return /\.tsx?$/.test(entry.name) && !/\.test\.tsx?$/.test(entry.name) ? [path] : [];
  });

/** A source text without its comments, which may name what they like. */
const codeOf = (text: string): string => text.replace(/\/\*[\s\S]*?\*\//g, '').replace(/^\s*\/\/.*$/gm, '');

/** Pieces of string literals of a source text, as far as they could be a key. */
const piecesOf = (text: string): Set<string> =>
  new Set(
    [...codeOf(text).matchAll(/(['"`])((?:(?!\1)[^\\\n]|\\.)*)\1/g)].flatMap(([, , inner = '']) => [
      inner,
      ...inner.split(/[.:/]/),
    ]),
  );

describe('clinical content', () => {
  it('is known by no key to core, contracts, server or web, but for a few with their reason', () => {
    const kinds = new Map(Object.entries(KEYS).flatMap(([kind, keys]) => keys.map((k) => [k, kind])));
    const found = HOUSES.flatMap((house) => filesBelow(join(ROOT, house))).flatMap((path) => {
      const file = relative(ROOT, path);
      return [...piecesOf(readFileSync(path, 'utf8'))]
        .filter((piece) => kinds.has(piece))
        .filter((key) => !ALLOWED.some(([keys, where]) => keys.split('|').includes(key) && where.test(file)))
        .map((key) => `${file} knows the ${kinds.get(key) ?? ''} ${key}`);
    });
    expect(found).toEqual([]);
  });

  it('would be found in code: the search sees a key within a path and within a list', () => {
    expect(piecesOf("const a = ['x', `measure.body-mass.none`];").has('body-mass')).toBe(true);
    expect(piecesOf("f('calm')").has('calm')).toBe(true);
    expect(piecesOf('/** Of `calm`. */\n// and `build`\nf(x);').size).toBe(0);
  });
});
