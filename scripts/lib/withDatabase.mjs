import { spawn } from 'node:child_process';
import { join } from 'node:path';
import { ensureInstalled } from './install.mjs';
import { DATA, ROOT } from './paths.mjs';

/** Runs one of the server's own programs on the database, beside a running server or without one; ends as it ends. */
export async function runWithDatabase(program, args) {
  ensureInstalled();
  const { ensurePackagesBuilt, ensureServerBuilt } = await import('./build.mjs');
  const { runningPostgres, startPostgres } = await import('./postgres.mjs');
  ensurePackagesBuilt();
  ensureServerBuilt();
  const database = (await runningPostgres(DATA)) ?? (await startPostgres(DATA));
  try {
    process.exitCode = await new Promise((resolve) => {
      const child = spawn(process.execPath, [join(ROOT, 'apps/server/dist', program), ...args], {
        env: {
          ...process.env,
          HEATHSTEP_APP_DATABASE_URL: database.appUrl,
          HEATHSTEP_OWNER_DATABASE_URL: database.ownerUrl,
        },
        stdio: 'inherit',
      });
      child.on('exit', (code) => resolve(code ?? 1));
    });
  } finally {
    await database.stop();
  }
}
