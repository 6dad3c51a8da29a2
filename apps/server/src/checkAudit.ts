import 'reflect-metadata';
import { checkAudit } from './audit/chain.js';
import { readConfig } from './config.js';
import { prepareDatabase } from './persistence/prepare.js';

/** Seals the log of each clinic and reads it anew against its seals; ends with 1 where one does not fit. */
const config = readConfig();
const { source } = await prepareDatabase(config.ownerUrl, new URL(config.databaseUrl).username);
try {
  await source.query('SELECT seal_audit()');
  const clinics = await source.query<{ id: string; name: string }[]>(
    'SELECT id, name FROM clinic ORDER BY name',
  );
  for (const { id, name } of clinics) {
    const told = await checkAudit(source, id);
    const whole = told.brokenAt === null;
    if (!whole) process.exitCode = 1;
    process.stdout.write(
      `${name}: ${told.lines} lines in ${told.seals} seals, ${whole ? 'all as they were written' : `CHANGED: seal ${told.brokenAt} does not fit`}; last seal ${told.hash ?? 'none'}\n`,
    );
  }
} finally {
  await source.destroy();
}
