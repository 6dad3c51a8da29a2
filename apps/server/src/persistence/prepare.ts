import { DataSource, type MigrationInterface } from 'typeorm';
import { databaseOptions } from './options.js';

type Migration = new () => MigrationInterface;

/** Names the application role to the migrations, which grant it its rights. */
function ownerUrl(url: string, appRole: string, only: readonly Migration[] | null): DataSource {
  const options = databaseOptions(url);
  return new DataSource({
    ...options,
    ...(only === null ? {} : { migrations: [...only] }),
    extra: { max: 2, options: `-c timezone=UTC -c heathstep.app_role=${appRole}` },
  });
}

/** The schema could not be brought up to date; it is as it was before. */
export class NotUpdatedError extends Error {}

/**
 * Brings the schema up to date as the owner of the tables; returns the connection, to be destroyed by the caller. All that is
 * missing is done in one transaction: where a part of it fails, nothing is done.
 *
 * @param only other migrations than the shipped ones
 * @throws NotUpdatedError when one fails, with its reason
 */
export async function prepareDatabase(
  url: string,
  appRole: string,
  only: readonly Migration[] | null = null,
): Promise<{ source: DataSource; applied: number }> {
  const source = await ownerUrl(url, appRole, only).initialize();
  try {
    const applied = await source.runMigrations({ transaction: 'all' });
    return { source, applied: applied.length };
  } catch (error) {
    await source.destroy();
    throw new NotUpdatedError(
      `The database could not be brought up to date, and is as it was before: ${error instanceof Error ? error.message : String(error)}. The version before this one still works with it.`,
      { cause: error },
    );
  }
}
