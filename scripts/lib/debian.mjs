// What the project needs of Debian's packages: looked for, and installed where it is missing.
import { spawnSync } from 'node:child_process';
import { existsSync, mkdirSync, readdirSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { say } from './say.mjs';

export const isRoot = () => process.getuid?.() === 0;

function binFolder() {
  const inPath = (process.env.PATH ?? '')
    .split(':')
    .find((dir) => existsSync(join(dir, 'initdb')) && existsSync(join(dir, 'postgres')));
  if (inPath) return inPath;
  const base = '/usr/lib/postgresql';
  if (!existsSync(base)) return null;
  const versions = readdirSync(base)
    .filter((v) => existsSync(join(base, v, 'bin', 'initdb')))
    .sort((a, b) => Number(b) - Number(a));
  return versions.length > 0 ? join(base, versions[0], 'bin') : null;
}

/** Debian would start a cluster of its own on installing; we do not need it. */
function withoutCluster() {
  if (!isRoot() || existsSync('/etc/postgresql-common/createcluster.conf')) return;
  mkdirSync('/etc/postgresql-common', { recursive: true });
  writeFileSync('/etc/postgresql-common/createcluster.conf', 'create_main_cluster = false\n');
}

export const POSTGRES = {
  name: 'PostgreSQL',
  found: binFolder,
  packages: ['postgresql'],
  before: withoutCluster,
};

function aptInstall(packages) {
  const [command, ...first] = [...(isRoot() ? [] : ['sudo', '-n']), 'apt-get'];
  const run = (...args) =>
    spawnSync(command, [...first, ...args], {
      stdio: ['ignore', 2, 2],
      env: { ...process.env, DEBIAN_FRONTEND: 'noninteractive' },
    }).status === 0;
  return run('update', '-qq') && run('install', '-y', '-qq', '--no-install-recommends', ...packages);
}

/**
 * Installs in one go what is not found of Debian's packages; resolves to what was found of each.
 * Throws with what to do by hand where something still is not there.
 */
export function ensureDebian(...wanted) {
  const missing = wanted.filter(({ found }) => !found());
  if (missing.length > 0) {
    say(`Installing ${missing.map(({ name }) => name).join(', ')} from Debian's packages ...`);
    for (const { before } of missing) before?.();
    aptInstall(missing.flatMap(({ packages }) => packages));
  }
  const absent = missing.filter(({ found }) => !found());
  if (absent.length > 0)
    throw new Error(
      `${absent.map(({ name }) => name).join(', ')} not installed, and could not be installed here. Install by hand: sudo apt-get install ${absent.flatMap(({ packages }) => packages).join(' ')}`,
    );
  return wanted.map(({ found }) => found());
}
