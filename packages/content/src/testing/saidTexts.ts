import { readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import ts from 'typescript';

/** Source files below a folder, tests left out. */
function sourcesBelow(folder: string): string[] {
  return readdirSync(folder, { withFileTypes: true }).flatMap((entry) => {
    const path = join(folder, entry.name);
    if (entry.isDirectory())
      return ['node_modules', 'dist', 'test', 'testing'].includes(entry.name) ? [] : sourcesBelow(path);
    return /\.tsx?$/.test(entry.name) && !entry.name.includes('.test.') ? [path] : [];
  });
}

/** Texts written out in an expression; where it names a table of the same file, those of the table. */
function textsIn(node: ts.Node, tables: ReadonlyMap<string, ts.Expression>): string[] {
  if (ts.isStringLiteralLike(node)) return node.text === '' ? [] : [node.text];
  if (ts.isConditionalExpression(node))
    return [...textsIn(node.whenTrue, tables), ...textsIn(node.whenFalse, tables)];
  if (ts.isBinaryExpression(node)) return textsIn(node.left, tables);
  if (ts.isElementAccessExpression(node) && ts.isIdentifier(node.expression)) {
    const table = tables.get(node.expression.text);
    if (table === undefined) return [];
    return ts.isElementAccessExpression(table) ? textsIn(table, tables) : literalsOf(table);
  }
  return [];
}

function literalsOf(node: ts.Node): string[] {
  const found: string[] = [];
  const visit = (n: ts.Node): void => {
    if (ts.isStringLiteralLike(n)) {
      if (n.text !== '') found.push(n.text);
    } else if (ts.isPropertyAssignment(n)) visit(n.initializer);
    else n.forEachChild(visit);
  };
  visit(node);
  return found;
}

/** Every text that code below some folders says through a tongue, by the file it is in. */
export function saidBelow(folders: readonly string[]): ReadonlyMap<string, string> {
  const said = new Map<string, string>();
  for (const file of folders.flatMap(sourcesBelow)) {
    const text = readFileSync(file, 'utf8');
    if (!/\bsay\(/.test(text)) continue;
    const source = ts.createSourceFile(file, text, ts.ScriptTarget.Latest, true);
    const tables = new Map<string, ts.Expression>();
    const note = (n: ts.Node): void => {
      if (ts.isVariableDeclaration(n) && ts.isIdentifier(n.name) && n.initializer !== undefined)
        tables.set(n.name.text, n.initializer);
      n.forEachChild(note);
    };
    note(source);
    const visit = (n: ts.Node): void => {
      if (ts.isCallExpression(n) && n.arguments[0] !== undefined) {
        const called = n.expression;
        const name = ts.isPropertyAccessExpression(called) ? called.name.text : '';
        if (name === 'say') for (const t of textsIn(n.arguments[0], tables)) said.set(t, file);
      }
      n.forEachChild(visit);
    };
    visit(source);
  }
  return said;
}
