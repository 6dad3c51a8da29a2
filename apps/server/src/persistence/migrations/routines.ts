import type { MigrationInterface, QueryRunner } from 'typeorm';
import { grantOwnClinic } from './rights.js';

/** Ready sets of exercises that a clinic keeps of its own. */
export class Routines1765400000000 implements MigrationInterface {
  name = 'Routines1765400000000';

  async up(runner: QueryRunner): Promise<void> {
    await runner.query(`
      CREATE TABLE clinic_routine (
        id uuid PRIMARY KEY, clinic_id uuid NOT NULL REFERENCES clinic, name text NOT NULL, items jsonb NOT NULL,
        retired boolean NOT NULL, author_id uuid NOT NULL REFERENCES app_user, at timestamptz NOT NULL);
      CREATE UNIQUE INDEX clinic_routine_name ON clinic_routine (clinic_id, lower(name)) WHERE NOT retired;
    `);
    const app = await grantOwnClinic(runner, { clinic_routine: 'SELECT, INSERT' });
    await runner.query(`GRANT UPDATE (retired) ON clinic_routine TO ${app}`);
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query('DROP TABLE clinic_routine');
  }
}
