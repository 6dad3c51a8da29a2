import type { MigrationInterface, QueryRunner } from 'typeorm';
import { erasing } from './erasing.js';
import { grantOwnClinic } from './rights.js';

/**
 * Letters: what is written in them, and of one that went out all it said, which nothing changes afterwards. What a clinic
 * begins its letters with is kept in every version.
 */
const TABLES = `
CREATE TABLE letter (
  id uuid PRIMARY KEY, clinic_id uuid NOT NULL REFERENCES clinic, episode_id uuid NOT NULL, kind text NOT NULL,
  text jsonb NOT NULL, version integer NOT NULL, started_at timestamptz NOT NULL, author_id uuid NOT NULL,
  at timestamptz NOT NULL, dropped_at timestamptz, sent_on date, sent_way text, sent_by uuid, content jsonb,
  CONSTRAINT letter_sent_check CHECK (
    (sent_on IS NULL) = (sent_way IS NULL) AND (sent_on IS NULL) = (sent_by IS NULL)
    AND (sent_on IS NULL) = (content IS NULL) AND (sent_on IS NULL OR dropped_at IS NULL)),
  FOREIGN KEY (clinic_id, episode_id) REFERENCES episode (clinic_id, id),
  FOREIGN KEY (clinic_id, author_id) REFERENCES app_user (clinic_id, id),
  FOREIGN KEY (clinic_id, sent_by) REFERENCES app_user (clinic_id, id));
CREATE INDEX letter_episode ON letter (clinic_id, episode_id, started_at);
CREATE FUNCTION letter_stays() RETURNS trigger LANGUAGE plpgsql SET search_path = pg_catalog AS $$
BEGIN
  IF OLD.sent_on IS NOT NULL THEN
    RAISE EXCEPTION 'a letter that went out stays as it is' USING ERRCODE = 'check_violation';
  END IF;
  RETURN NEW;
END $$;
CREATE TRIGGER letter_stays BEFORE UPDATE ON letter FOR EACH ROW EXECUTE FUNCTION letter_stays();
CREATE TABLE letter_template (
  clinic_id uuid NOT NULL REFERENCES clinic, letter text NOT NULL, version integer NOT NULL, opening text NOT NULL,
  closing text NOT NULL, shows jsonb NOT NULL, author_id uuid NOT NULL, at timestamptz NOT NULL,
  PRIMARY KEY (clinic_id, letter, version),
  FOREIGN KEY (clinic_id, author_id) REFERENCES app_user (clinic_id, id));
`;

const LETTERS = `('letter', 'episode_id', episodes)`;

export class Letters1767100000000 implements MigrationInterface {
  name = 'Letters1767100000000';

  async up(runner: QueryRunner): Promise<void> {
    await runner.query(TABLES);
    await runner.query(erasing(LETTERS));
    await grantOwnClinic(runner, { letter: 'SELECT, INSERT, UPDATE', letter_template: 'SELECT, INSERT' });
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query(`
      DROP TABLE letter_template; DROP TABLE letter; DROP FUNCTION letter_stays();`);
    await runner.query(erasing());
  }
}
