import type { MigrationInterface, QueryRunner } from 'typeorm';

/** The register someone is in; and what tells signed-in devices apart, so that one can be signed out from another. */
export class Accounts1765500000000 implements MigrationInterface {
  name = 'Accounts1765500000000';

  async up(runner: QueryRunner): Promise<void> {
    await runner.query(`
      ALTER TABLE app_user ADD COLUMN registration text;
      ALTER TABLE user_session ADD COLUMN id uuid, ADD COLUMN agent text, ADD COLUMN address text;
      UPDATE user_session SET id = gen_random_uuid(), agent = '', address = '';
      ALTER TABLE user_session ALTER COLUMN id SET NOT NULL, ALTER COLUMN agent SET NOT NULL,
        ALTER COLUMN address SET NOT NULL;
      CREATE UNIQUE INDEX user_session_id ON user_session (id);
      CREATE INDEX user_session_user ON user_session (user_id);
      CREATE INDEX audit_user ON audit (clinic_id, user_id, at);
    `);
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query(`
      DROP INDEX audit_user; DROP INDEX user_session_user; DROP INDEX user_session_id;
      ALTER TABLE user_session DROP COLUMN id, DROP COLUMN agent, DROP COLUMN address;
      ALTER TABLE app_user DROP COLUMN registration;
    `);
  }
}
