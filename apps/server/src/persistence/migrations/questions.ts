import type { MigrationInterface, QueryRunner } from 'typeorm';
import { grantOwnClinic } from './rights.js';

/** What patients ask from home, and what they are answered. */
export class Questions1766200000000 implements MigrationInterface {
  name = 'Questions1766200000000';

  async up(runner: QueryRunner): Promise<void> {
    await runner.query(`
      CREATE TABLE home_question (
        id uuid PRIMARY KEY, clinic_id uuid NOT NULL REFERENCES clinic, episode_id uuid NOT NULL, text text NOT NULL,
        at timestamptz NOT NULL, answer text, answered_at timestamptz, answered_by uuid,
        FOREIGN KEY (clinic_id, episode_id) REFERENCES episode (clinic_id, id) ON DELETE CASCADE,
        FOREIGN KEY (clinic_id, answered_by) REFERENCES app_user (clinic_id, id));
      CREATE INDEX home_question_episode ON home_question (clinic_id, episode_id, at);
    `);
    const app = await grantOwnClinic(runner, { home_question: 'SELECT, INSERT' });
    await runner.query(`GRANT UPDATE (answer, answered_at, answered_by) ON home_question TO ${app}`);
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query('DROP TABLE home_question');
  }
}
