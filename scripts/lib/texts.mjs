// Every text the application says, read from its code and its content: for languages, and for the tests that find what is missing.
import {
  cpSync,
  mkdirSync,
  mkdtempSync,
  readdirSync,
  readFileSync,
  renameSync,
  writeFileSync,
} from 'node:fs';
import { tmpdir } from 'node:os';
import { dirname, join } from 'node:path';
import ts from 'typescript';
import { ROOT } from './paths.mjs';
import { whenStale } from './stale.mjs';

/** Where what is said to people is written. */
const CODE = [
  'packages/core/src',
  'packages/content/src',
  'packages/contracts/src',
  'apps/server/src',
  'apps/web/src',
];

const sorted = (texts) => [...texts].sort((a, b) => (a < b ? -1 : 1));

/** Source files below a folder, tests left out. */
function sourcesBelow(folder) {
  return readdirSync(folder, { withFileTypes: true }).flatMap((entry) => {
    const path = join(folder, entry.name);
    if (entry.isDirectory())
      return ['node_modules', 'dist', 'test', 'testing'].includes(entry.name) ? [] : sourcesBelow(path);
    return /\.tsx?$/.test(entry.name) && !entry.name.includes('.test.') ? [path] : [];
  });
}

const OPTIONS = {
  target: ts.ScriptTarget.ES2022,
  module: ts.ModuleKind.ESNext,
  moduleResolution: ts.ModuleResolutionKind.Bundler,
  jsx: ts.JsxEmit.ReactJSX,
  strict: true,
  noUncheckedIndexedAccess: true,
  skipLibCheck: true,
  noEmit: true,
  experimentalDecorators: true,
  types: [],
};

/** Words of a union of literals, such as the sides; none where any text may stand. */
function wordsOf(type) {
  const parts = type.isUnion() ? type.types : [type];
  const words = parts.filter((p) => p.isStringLiteral()).map((p) => p.value);
  const wide = parts.some((p) => (p.flags & ts.TypeFlags.String) !== 0);
  return wide ? [] : words.filter((w) => w !== '');
}

/** Reads every text that code below some folders says, by what is written and by what its types allow. */
function catalogueOf(folders) {
  const files = folders.flatMap(sourcesBelow);
  const program = ts.createProgram(files, OPTIONS);
  const checker = program.getTypeChecker();
  const patients = new Set();
  const clinicians = new Set();

  const literalsBelow = (node) => {
    if (ts.isStringLiteralLike(node)) return node.text === '' ? [] : [node.text];
    if (ts.isPropertyAssignment(node)) return literalsBelow(node.initializer);
    const found = [];
    node.forEachChild((child) => {
      found.push(...literalsBelow(child));
    });
    return found;
  };

  /** Texts of a table that an element is taken of, wherever it stands. */
  const tableOf = (node) => {
    if (!ts.isIdentifier(node)) return [];
    const declared = checker.getSymbolAtLocation(node)?.declarations?.[0];
    const made =
      declared !== undefined && ts.isVariableDeclaration(declared) ? declared.initializer : undefined;
    if (made === undefined) return [];
    return ts.isElementAccessExpression(made) ? tableOf(made.expression) : literalsBelow(made);
  };

  const textsIn = (node) => {
    if (ts.isStringLiteralLike(node)) return node.text === '' ? [] : [node.text];
    if (ts.isParenthesizedExpression(node)) return textsIn(node.expression);
    if (ts.isConditionalExpression(node)) return [...textsIn(node.whenTrue), ...textsIn(node.whenFalse)];
    if (ts.isBinaryExpression(node)) return [...textsIn(node.left), ...textsIn(node.right)];
    if (ts.isElementAccessExpression(node)) {
      const table = tableOf(node.expression);
      if (table.length > 0) return table;
    }
    return wordsOf(checker.getTypeAtLocation(node));
  };

  const messagesIn = (node) => {
    if (ts.isPropertyAssignment(node) && node.name.getText() === 'message') return textsIn(node.initializer);
    const found = [];
    node.forEachChild((child) => {
      found.push(...messagesIn(child));
    });
    return found;
  };

  const visit = (node) => {
    if (ts.isCallExpression(node)) {
      const [first] = node.arguments;
      const { expression: called } = node;
      const name = ts.isIdentifier(called) ? called.text : '';
      const method = ts.isPropertyAccessExpression(called) ? called.name.text : '';
      if (first !== undefined && method === 'say') for (const t of textsIn(first)) patients.add(t);
      if (first !== undefined && ['say', 'words', 'phrase'].includes(name))
        for (const t of textsIn(first)) clinicians.add(t);
      if (first !== undefined && name === 'sayKey')
        for (const t of textsIn(first)) clinicians.add(t.replaceAll('-', ' '));
      if (method === 'map' && first !== undefined && ts.isIdentifier(first) && first.text === 'sayKey') {
        const list = ts.isPropertyAccessExpression(called) ? called.expression : called;
        const element = checker.getTypeAtLocation(list).getNumberIndexType();
        if (element !== undefined) for (const t of wordsOf(element)) clinicians.add(t.replaceAll('-', ' '));
      }
    }
    // What a field that was sent must be, said with the answer.
    if (ts.isDecorator(node)) for (const t of messagesIn(node)) clinicians.add(t);
    node.forEachChild(visit);
  };
  for (const file of files) {
    const source = program.getSourceFile(file);
    if (source !== undefined) visit(source);
  }
  return { patients, clinicians };
}

/** Attributes that people read or hear. */
const READ =
  /^(aria-(label|description|roledescription)|alt|heading|hint|label|placeholder|prompt|title|what)$/;

/** Words between tags and in attributes that are written out and not said, each with its place: nobody could read them in another language. */
export function unsaid() {
  const found = [];
  for (const file of sourcesBelow(join(ROOT, 'apps/web/src')).filter((f) => f.endsWith('.tsx'))) {
    const source = ts.createSourceFile(file, readFileSync(file, 'utf8'), ts.ScriptTarget.Latest, true);
    const note = (node, text) => {
      if (!/[A-Za-z]{2}/.test(text)) return;
      const { line } = source.getLineAndCharacterOfPosition(node.getStart());
      found.push(`${file.slice(ROOT.length + 1)}:${line + 1}: ${text.trim()}`);
    };
    const visit = (node) => {
      if (ts.isJsxText(node)) note(node, node.text);
      if (ts.isJsxAttribute(node) && READ.test(node.name.getText()) && node.initializer !== undefined) {
        const value = ts.isJsxExpression(node.initializer) ? node.initializer.expression : node.initializer;
        if (value !== undefined && ts.isStringLiteralLike(value)) note(node, value.text);
        if (value !== undefined && ts.isTemplateExpression(value))
          note(node, [value.head, ...value.templateSpans.map((s) => s.literal)].map((l) => l.text).join(' '));
      }
      node.forEachChild(visit);
    };
    visit(source);
  }
  return found;
}

const FILE = join(ROOT, '.cache', 'texts.json');

/** Texts that clinicians and patients read, each sorted; read anew when something they are written in changed. */
export async function allTexts() {
  const inputs = [...CODE, 'packages/content/data', 'scripts/lib/texts.mjs'];
  const { loadContent } = await import('@heathstep/content');
  const { readTexts } = await import('@heathstep/contracts');
  whenStale('texts', inputs, ['.cache/texts.json'], () => {
    const { patients, clinicians } = catalogueOf(CODE.map((folder) => join(ROOT, folder)));
    const loaded = loadContent();
    if (!loaded.ok) throw new Error(loaded.problems.join('\n'));
    const all = new Set([...patients, ...clinicians, ...readTexts(loaded.content)]);
    mkdirSync(dirname(FILE), { recursive: true });
    const made = `${FILE}.${process.pid}`;
    writeFileSync(made, JSON.stringify({ clinicians: sorted(all), patients: sorted(patients) }));
    renameSync(made, FILE);
  });
  return JSON.parse(readFileSync(FILE, 'utf8'));
}

/** What a language does not say of what is read in it: by clinicians too where it is theirs, else by patients. */
export async function lacking(language) {
  const { clinicians, patients } = await allTexts();
  const bare = (key) => key.replace(/(_counted)?(_(zero|one|two|few|many|other))?$/, '');
  const has = new Set(Object.keys(language.texts).flatMap((key) => [key, bare(key)]));
  return (language.clinicians === true ? clinicians : patients).filter((t) => !has.has(t));
}

/** A text of the made-up language: the English one between marks, so that what is not said in it is seen at once. */
export const madeUp = (text) => `‹${text}›`;

/**
 * The shipped content with one more language, made of one file alone: every text is the English one between marks.
 * Returns the folder, which is the caller's to remove.
 */
export async function contentWithMadeUp() {
  const { clinicians } = await allTexts();
  const root = mkdtempSync(join(tmpdir(), 'heathstep-language-'));
  for (const part of ['data', 'schemas'])
    cpSync(join(ROOT, 'packages', 'content', part), join(root, part), { recursive: true });
  const texts = Object.fromEntries(clinicians.map((t) => [t, madeUp(t)]));
  const head = { name: '‹Made up›', locale: 'fi-FI', smallWithin: false, clinicians: true };
  // JSON is YAML.
  writeFileSync(join(root, 'data', 'languages', 'eo.yaml'), JSON.stringify([{ code: 'eo', head, texts }]));
  return root;
}
