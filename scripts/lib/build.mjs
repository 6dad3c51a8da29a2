import { join } from 'node:path';
import { BIN, ROOT, TSC } from './paths.mjs';
import { runOrThrow } from './run.mjs';
import { whenStale } from './stale.mjs';

const PACKAGES = ['packages', 'tsconfig.base.json', 'tsconfig.json', 'package-lock.json'];

const BUILD_CONTENT =
  "import('@heathstep/content').then((c) => c.buildContent()).catch((e) => (console.error(e.message), process.exit(1)))";

/** core, content, contracts and the command line. */
export function ensurePackagesBuilt() {
  return whenStale(
    'packages',
    PACKAGES,
    [
      'packages/core/dist/index.js',
      'packages/content/dist/index.js',
      'packages/contracts/dist/index.js',
      'packages/core/cli/dist/main.js',
      'packages/content/dist/content.json',
    ],
    () => {
      runOrThrow(process.execPath, [TSC, '-b', 'packages/contracts', 'packages/core/cli']);
      // The content is checked and completed once, here, and not by every start.
      runOrThrow(process.execPath, ['-e', BUILD_CONTENT]);
    },
  );
}

/** A Node application of ours, compiled file by file. */
function ensureAppBuilt(name) {
  return whenStale(name, [...PACKAGES, `apps/${name}`], [`apps/${name}/dist/main.js`], () =>
    runOrThrow(
      join(BIN, 'swc'),
      [
        'src',
        '--out-dir',
        'dist',
        '--strip-leading-paths',
        '--config-file',
        '.swcrc',
        '--ignore',
        '**/*.test.ts',
        '--delete-dir-on-start',
        '--quiet',
      ],
      {
        cwd: join(ROOT, 'apps', name),
      },
    ),
  );
}

/** The server and the device service. */
export function ensureServerBuilt() {
  const devices = ensureAppBuilt('devices');
  return ensureAppBuilt('server') || devices;
}

export function ensureWebBuilt() {
  return whenStale('web', [...PACKAGES, 'apps/web'], ['apps/web/dist/index.html'], () =>
    runOrThrow(join(BIN, 'vite'), ['build', '--logLevel', 'warn'], { cwd: join(ROOT, 'apps/web') }),
  );
}
