import { cpSync, mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { readBuilt, writeBuilt } from './builtContent.js';
import { loadContent, loadContentFrom } from './load.js';

const PACKAGE = join(__dirname, '..');

describe('content as a build left it', () => {
  let folder: string;
  beforeEach(() => {
    folder = mkdtempSync(join(tmpdir(), 'heathstep-built-'));
    for (const part of ['data', 'schemas'])
      cpSync(join(PACKAGE, part), join(folder, part), { recursive: true });
  });
  afterEach(() => rmSync(folder, { recursive: true, force: true }));
  const loaded = () => {
    const result = loadContentFrom(folder);
    if (!result.ok) throw new Error(result.problems.join('\n'));
    return result.content;
  };

  it('is what is read from the files, to the last value', () => {
    const content = loaded();
    writeBuilt(folder, content);
    expect(readBuilt(folder)).toEqual(JSON.parse(JSON.stringify(content)));
    expect(readBuilt(folder)).toEqual(content);
  });

  it.each([
    ['a file of data changed', 'data/ladders/ladders.yaml', (t: string) => `${t}\n# another line\n`],
    ['a schema changed', 'schemas/ladders.schema.json', (t: string) => `${t} `],
  ])('is not used where %s since', (_what, file, change) => {
    writeBuilt(folder, loaded());
    const path = join(folder, file);
    writeFileSync(path, change(readFileSync(path, 'utf8')));
    expect(readBuilt(folder)).toBeNull();
  });

  it('is not used where it is only half there, or not at all', () => {
    expect(readBuilt(folder)).toBeNull();
    writeBuilt(folder, loaded());
    const path = join(folder, 'dist', 'content.json');
    writeFileSync(path, readFileSync(path, 'utf8').slice(0, 5000));
    expect(readBuilt(folder)).toBeNull();
  });

  it('is frozen like what is read anew, and the same', () => {
    const result = loadContent();
    expect(result.ok && Object.isFrozen(result.content.exercises[0]?.dose)).toBe(true);
    const anew = loadContentFrom(PACKAGE);
    expect(result).toEqual(anew);
  });
});
