// Everything is of the types it says: the packages (built by references), the applications, the tests, the journeys.
import { ensurePackagesBuilt } from './lib/build.mjs';
import { ROOT, TSC } from './lib/paths.mjs';
import { spawnSync } from 'node:child_process';

const PROJECTS = ['apps/web', 'apps/server', 'apps/devices', 'e2e', 'tsconfig.tests.json'];

ensurePackagesBuilt();
const failed = PROJECTS.filter((project) => {
  const { status } = spawnSync(process.execPath, [TSC, '-p', project, '--noEmit'], {
    cwd: ROOT,
    stdio: 'inherit',
  });
  return status !== 0;
});
if (failed.length > 0) console.error(`Types do not hold in ${failed.join(', ')}`);
process.exitCode = failed.length === 0 ? 0 : 1;
