import type { MigrationInterface, QueryRunner } from 'typeorm';
import { grantOwnClinic } from './rights.js';

/**
 * What may have bent a course beside what is treated: illness, travel, other shoes. And an index for what outcomes are counted
 * by, so that no other entry is read.
 */
export class CourseEvents1766400000000 implements MigrationInterface {
  name = 'CourseEvents1766400000000';

  async up(runner: QueryRunner): Promise<void> {
    await runner.query(`
      CREATE TABLE course_event (
        id uuid PRIMARY KEY, clinic_id uuid NOT NULL REFERENCES clinic, episode_id uuid NOT NULL, kind text NOT NULL,
        day date NOT NULL, note text NOT NULL, author_id uuid NOT NULL, at timestamptz NOT NULL, removed_at timestamptz,
        FOREIGN KEY (clinic_id, author_id) REFERENCES app_user (clinic_id, id),
        FOREIGN KEY (clinic_id, episode_id) REFERENCES episode (clinic_id, id) ON DELETE CASCADE);
      CREATE INDEX course_event_episode ON course_event (clinic_id, episode_id, day);
      CREATE INDEX visit_entry_told ON visit_entry (clinic_id, key, visit_id, version) WHERE key IN ('story.worst', 'story.activities');
    `);
    const app = await grantOwnClinic(runner, { course_event: 'SELECT, INSERT' });
    await runner.query(`GRANT UPDATE (removed_at) ON course_event TO ${app}`);
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query('DROP INDEX visit_entry_told; DROP TABLE course_event');
  }
}
