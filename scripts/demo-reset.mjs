// npm run demo:reset: the demo clinic as new, beside a running server or without one.
import { existsSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { ensureInstalled } from './lib/install.mjs';
import { DATA } from './lib/paths.mjs';
import { say } from './lib/say.mjs';

ensureInstalled();
const { ensurePackagesBuilt, ensureServerBuilt } = await import('./lib/build.mjs');
const { runningPostgres, startPostgres } = await import('./lib/postgres.mjs');
const { prepare } = await import('./lib/server.mjs');
ensurePackagesBuilt();
ensureServerBuilt();
const database = (await runningPostgres(DATA)) ?? (await startPostgres(DATA));
try {
  const demoFile = join(DATA, 'demo-sign-ins.json');
  // Keeps the passwords that are known already.
  if (existsSync(demoFile))
    process.env.HEATHSTEP_DEMO_PASSWORD ??= JSON.parse(readFileSync(demoFile, 'utf8'))[0]?.password ?? '';
  await prepare(database, demoFile, '--reset');
  say('The demo clinic is as new. People signed in sign in again.');
} finally {
  await database.stop();
}
