import { chmodSync, existsSync, mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { ensureDebian } from './debian.mjs';

/** A program that is there once its package is installed by the apt-get of the test. */
const program = (folder: string, name: string) => ({
  name,
  found: () => (existsSync(join(folder, name)) ? join(folder, name) : undefined),
  packages: [name],
});

describe('what is needed of Debian', () => {
  const path = process.env['PATH'];
  let folder = '';
  const asked = () => {
    const file = join(folder, 'asked');
    return existsSync(file) ? readFileSync(file, 'utf8').trim().split('\n') : [];
  };

  beforeEach(() => {
    folder = mkdtempSync(join(tmpdir(), 'heathstep-debian-'));
    const script = (name: string, text: string) => {
      writeFileSync(join(folder, name), `#!/bin/sh\n${text}\n`);
      chmodSync(join(folder, name), 0o755);
    };
    // Installs every package by a file of its name, but for one that Debian does not have.
    script(
      'apt-get',
      `echo "$@" >> ${folder}/asked
for p in "$@"; do case $p in update|install|-*) ;; absent) exit 100 ;; *) : > ${folder}/$p ;; esac; done`,
    );
    script('sudo', 'shift; exec "$@"');
    process.env['PATH'] = `${folder}:${String(path)}`;
    jest.spyOn(process.stderr, 'write').mockReturnValue(true);
  });

  afterEach(() => {
    process.env['PATH'] = path;
    jest.restoreAllMocks();
    rmSync(folder, { recursive: true, force: true });
  });

  it('is left alone where it is there', () => {
    writeFileSync(join(folder, 'reader'), '');
    expect(ensureDebian(program(folder, 'reader'))).toEqual([join(folder, 'reader')]);
    expect(asked()).toEqual([]);
  });

  it('is installed in one go, only what is missing, and found afterwards', () => {
    writeFileSync(join(folder, 'reader'), '');
    const before = jest.fn();
    const wanted = ['reader', 'browser', 'maker'].map((name) => program(folder, name));
    expect(ensureDebian(...wanted, { ...program(folder, 'keeper'), before })).toEqual(
      ['reader', 'browser', 'maker', 'keeper'].map((name) => join(folder, name)),
    );
    expect(before).toHaveBeenCalledTimes(1);
    expect(asked()).toEqual(['update -qq', 'install -y -qq --no-install-recommends browser maker keeper']);
  });

  it('says by name and by command what could not be installed', () => {
    expect(() => ensureDebian(program(folder, 'absent'), program(folder, 'maker'))).toThrow(
      /^absent, maker not installed.*sudo apt-get install absent maker$/,
    );
  });
});
