import type { MigrationInterface, QueryRunner } from 'typeorm';

/** Answers of the home log stand by question, so that each protocol can ask its own. */
export class HomeScores1764400000000 implements MigrationInterface {
  name = 'HomeScores1764400000000';

  async up(runner: QueryRunner): Promise<void> {
    await runner.query(`UPDATE home_entry SET payload = jsonb_build_object(
        'scores', jsonb_strip_nulls(jsonb_build_object(
          'first-steps', payload->'firstStep', 'day-worst', payload->'dayWorst')))
      WHERE kind = 'morning' AND payload ? 'firstStep'`);
    await runner.query(`UPDATE home_entry SET payload = jsonb_build_object(
        'exercises', payload->'exercises',
        'scores', jsonb_build_object('before', payload->'before', 'during', payload->'during',
          'after', payload->'after', 'hour-above', payload->'hourAbove'))
      WHERE kind = 'session' AND payload ? 'before'`);
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query(`UPDATE home_entry SET payload = jsonb_strip_nulls(jsonb_build_object(
        'firstStep', payload->'scores'->'first-steps', 'dayWorst', payload->'scores'->'day-worst'))
      WHERE kind = 'morning'`);
    await runner.query(`UPDATE home_entry SET payload = jsonb_build_object(
        'exercises', payload->'exercises', 'before', payload->'scores'->'before',
        'during', payload->'scores'->'during', 'after', payload->'scores'->'after',
        'hourAbove', payload->'scores'->'hour-above')
      WHERE kind = 'session'`);
  }
}
