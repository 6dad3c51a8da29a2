import { DataSource } from 'typeorm';
import { databaseOptions } from './options.js';

/** Names the application role to the migrations, which grant it its rights. */
function ownerUrl(url: string, appRole: string): DataSource {
  const options = databaseOptions(url);
  return new DataSource({
    ...options,
    extra: { max: 2, options: `-c timezone=UTC -c heathstep.app_role=${appRole}` },
  });
}

/** Brings the schema up to date as the owner of the tables; returns the connection, to be destroyed by the caller. */
export async function prepareDatabase(
  url: string,
  appRole: string,
): Promise<{ source: DataSource; applied: number }> {
  const source = await ownerUrl(url, appRole).initialize();
  const applied = await source.runMigrations({ transaction: 'each' });
  return { source, applied: applied.length };
}
