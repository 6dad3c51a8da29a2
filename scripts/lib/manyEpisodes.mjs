// Fills a prepared database with complaints that were treated: stages, visits, decisions and logs, made by the database.
import pg from 'pg';

/** Complaints from one number to another, so that more can be added to those that are there. */
export async function manyEpisodes(ownerUrl, from, to) {
  const client = new pg.Client({ connectionString: ownerUrl });
  await client.connect();
  const one = async (text) => (await client.query(text)).rows[0].id;
  const clinic = await one('SELECT id FROM clinic LIMIT 1');
  const user = await one('SELECT id FROM app_user LIMIT 1');
  const each = `generate_series(${from}, ${to - 1}) g`;
  const insert = (table, columns, values, sets = each) =>
    client.query(`INSERT INTO ${table} (clinic_id, ${columns}) SELECT '${clinic}', ${values} FROM ${sets}`);
  await insert(
    'person',
    'id, name, birth_date, occupation, version, created_at',
    `md5('p' || g)::uuid, 'Zed ' || g, '1980-01-01', 'weaver', 1, now()`,
  );
  await insert(
    'episode',
    'id, person_id, condition, protocol, protocol_version, affected, schools, equipment, minutes_per_day, stage, stage_since, started_at, status, version',
    `md5('e' || g)::uuid, md5('p' || g)::uuid, 'plantar-heel-pain', 'plantar-heel-pain', 3, 'left', '{}', '[]', 20, 'build', now(), now() - interval '90 days', 'open', 1`,
  );
  await insert(
    'stage_span',
    'id, episode_id, stage, since, reason',
    `gen_random_uuid(), md5('e' || g)::uuid, s.stage, now() - (s.day + g % 20) * interval '1 day', 'criteria met'`,
    `${each}, (VALUES ('calm', 90), ('build', 60)) s (stage, day)`,
  );
  await insert(
    'visit',
    'id, episode_id, kind, started_at',
    `md5('v' || g || '-' || s)::uuid, md5('e' || g)::uuid, 'review', now() - s * interval '30 days'`,
    `${each}, generate_series(1, 3) s`,
  );
  await insert(
    'visit_entry',
    'id, visit_id, key, version, value, author_id, at',
    `gen_random_uuid(), md5('v' || g || '-' || s)::uuid, 'story.worst', 1, to_jsonb(s + g % 4), '${user}', now()`,
    `${each}, generate_series(1, 3) s`,
  );
  await insert(
    'visit_entry',
    'id, visit_id, key, version, value, author_id, at',
    `gen_random_uuid(), md5('v' || g || '-' || s)::uuid, 'story.activities', 1, jsonb_build_array(jsonb_build_object('text', 'Stairs', 'ability', 9 - s)), '${user}', now()`,
    `${each}, (VALUES (1), (3)) n (s)`,
  );
  await client.query('UPDATE visit SET signed_at = started_at, signed_by = $1 WHERE signed_at IS NULL', [
    user,
  ]);
  await insert(
    'decision',
    'id, episode_id, suggested, suggestion, decision, agreed, reason, content_version, author_id, at',
    `gen_random_uuid(), md5('e' || g)::uuid, 'hold', '{}', CASE WHEN g % 7 = 0 THEN 'ease-back' ELSE 'hold' END, g % 5 <> 0, '', '', '${user}', now() - s * interval '20 days'`,
    `${each}, generate_series(1, 2) s`,
  );
  await insert(
    'plan',
    'id, episode_id, number, stage, status, version, items, left_out, content_version, created_by, created_at, given_by, given_at',
    `gen_random_uuid(), md5('e' || g)::uuid, 1, 'calm', 'given', 1, '[]', '[]', '', '${user}', now() - interval '90 days', '${user}', now() - interval '90 days'`,
  );
  await insert(
    'home_entry',
    'id, version, episode_id, kind, day, payload, at',
    `gen_random_uuid(), 1, md5('e' || g)::uuid, 'morning', current_date - d, '{}', now()`,
    `${each}, generate_series(0, 20, 2) d`,
  );
  await client.query('ANALYZE');
  await client.end();
}
