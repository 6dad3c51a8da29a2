import 'reflect-metadata';
import { existsSync, readFileSync, writeFileSync } from 'node:fs';
import { readConfig } from './config.js';
import { demoIsLoaded, loadDemo, removeDemo, type DemoSignIn } from './demo/loadDemo.js';
import { NotUpdatedError, prepareDatabase } from './persistence/prepare.js';

/**
 * Migrates, and loads the demo clinic into an empty database unless HEATHSTEP_DEMO is `no`. With `--reset` the demo clinic is made
 * anew.
 * The demo's sign-ins are made up on each load and kept in the file named by HEATHSTEP_DEMO_FILE.
 */
const config = readConfig();
const appRole = new URL(config.databaseUrl).username;
const file = process.env['HEATHSTEP_DEMO_FILE'] ?? '';
const say = (text: string): void => void process.stderr.write(`${text}\n`);

const { source, applied } = await prepareDatabase(config.ownerUrl, appRole).catch((error: unknown) => {
  if (!(error instanceof NotUpdatedError)) throw error;
  say(error.message);
  process.exit(1);
});
try {
  if (applied > 0) say(`Database brought up to date (${applied} migrations)`);
  if (process.argv.includes('--reset')) await removeDemo(source);
  if (process.env['HEATHSTEP_DEMO'] !== 'no' && !(await demoIsLoaded(source))) {
    say('Loading the demo clinic ...');
    const signIns = await loadDemo(source, new Date());
    if (file !== '') writeFileSync(file, JSON.stringify(signIns, null, 2), { mode: 0o600 });
  }
  if (file !== '' && existsSync(file)) {
    const signIns = JSON.parse(readFileSync(file, 'utf8')) as DemoSignIn[];
    process.stdout.write(`${JSON.stringify(signIns)}\n`);
  }
} finally {
  await source.destroy();
}
