import type { MigrationInterface, QueryRunner } from 'typeorm';
import { grantOwnClinic } from './rights.js';

/** Visits that are planned, and what of the day is set aside until later. */
export class DayWork1766100000000 implements MigrationInterface {
  name = 'DayWork1766100000000';

  async up(runner: QueryRunner): Promise<void> {
    await runner.query(`
      CREATE TABLE appointment (
        id uuid PRIMARY KEY, clinic_id uuid NOT NULL REFERENCES clinic, person_id uuid NOT NULL,
        day date NOT NULL, time text NOT NULL CHECK (time ~ '^([01][0-9]|2[0-3]):[0-5][0-9]$'),
        minutes integer NOT NULL CHECK (minutes BETWEEN 5 AND 240), note text NOT NULL,
        state text NOT NULL CHECK (state IN ('planned', 'came', 'missed', 'cancelled')), uid text,
        version integer NOT NULL, author_id uuid NOT NULL, at timestamptz NOT NULL,
        FOREIGN KEY (clinic_id, author_id) REFERENCES app_user (clinic_id, id),
        FOREIGN KEY (clinic_id, person_id) REFERENCES person (clinic_id, id) ON DELETE CASCADE);
      CREATE INDEX appointment_day ON appointment (clinic_id, day);
      CREATE UNIQUE INDEX appointment_uid ON appointment (clinic_id, uid) WHERE uid IS NOT NULL;
      CREATE TABLE set_aside (
        id uuid PRIMARY KEY, clinic_id uuid NOT NULL REFERENCES clinic, person_id uuid NOT NULL, episode_id uuid,
        kind text NOT NULL, weight integer NOT NULL, until date NOT NULL, reason text NOT NULL,
        ended_at timestamptz, author_id uuid NOT NULL, at timestamptz NOT NULL,
        FOREIGN KEY (clinic_id, author_id) REFERENCES app_user (clinic_id, id),
        FOREIGN KEY (clinic_id, person_id) REFERENCES person (clinic_id, id) ON DELETE CASCADE,
        FOREIGN KEY (clinic_id, episode_id) REFERENCES episode (clinic_id, id) ON DELETE CASCADE);
      CREATE INDEX set_aside_until ON set_aside (clinic_id, until) WHERE ended_at IS NULL;
    `);
    const app = await grantOwnClinic(runner, {
      appointment: 'SELECT, INSERT',
      set_aside: 'SELECT, INSERT',
    });
    await runner.query(`
      GRANT UPDATE (day, time, minutes, note, state, version) ON appointment TO ${app};
      GRANT UPDATE (ended_at) ON set_aside TO ${app};
    `);
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query('DROP TABLE set_aside; DROP TABLE appointment');
  }
}
