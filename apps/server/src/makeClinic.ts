import 'reflect-metadata';
import { parseArgs } from 'node:util';
import { makeClinic } from './clinic/newClinic.js';
import { readConfig } from './config.js';
import { ProblemError } from './http/problem.js';
import { prepareDatabase } from './persistence/prepare.js';

/** Flags of the command, and what of a clinic each says. */
const FLAGS = {
  name: 'name',
  phone: 'phone',
  emergency: 'emergencyNumber',
  locale: 'locale',
  'time-zone': 'timeZone',
  lead: 'lead',
  email: 'email',
} as const;

const { values } = parseArgs({
  options: Object.fromEntries(Object.keys(FLAGS).map((k) => [k, { type: 'string' as const, default: '' }])),
});
const said = Object.fromEntries(Object.entries(FLAGS).map(([flag, field]) => [field, values[flag]]));
const config = readConfig();
const { source } = await prepareDatabase(config.ownerUrl, new URL(config.databaseUrl).username);
try {
  const link = await makeClinic(source, said as never, new Date());
  const base = config.publicUrl ?? `http://127.0.0.1:${config.port}`;
  process.stdout.write(
    `The clinic is made. Its lead chooses a password here, until ${link.until.slice(0, 10)}:\n${base}${link.path}\n`,
  );
} catch (error) {
  if (!(error instanceof ProblemError)) throw error;
  const flagOf = (pointer: string): string =>
    Object.entries(FLAGS).find(([, field]) => `/${field}` === pointer)?.[0] ?? pointer;
  for (const { pointer, detail } of error.more.errors ?? [])
    process.stderr.write(`--${flagOf(pointer)}: ${detail}\n`);
  process.exitCode = 2;
} finally {
  await source.destroy();
}
