// Makes a large clinic of the demo's: its people again and again, and what they logged over years.
import pg from 'pg';

/** Tables of a person's record in the order of what refers to what, each with the columns that are ids of such rows. */
const RECORD = {
  person: ['id'],
  episode: ['id', 'person_id'],
  stage_span: ['id', 'episode_id'],
  visit: ['id', 'episode_id'],
  visit_entry: ['id', 'visit_id'],
  closure: ['id', 'episode_id', 'visit_id'],
  plan: ['id', 'episode_id'],
  home_entry: ['id', 'episode_id', 'plan_id'],
  decision: ['id', 'episode_id'],
};

async function columnsOf(client, table) {
  const { rows } = await client.query(
    `SELECT column_name AS name FROM information_schema.columns
      WHERE table_schema = 'public' AND table_name = $1 AND is_generated = 'NEVER' AND is_identity = 'NO'
        AND column_default IS DISTINCT FROM 'nextval(''' || $1 || '_seq_seq''::regclass)'`,
    [table],
  );
  return rows.map((r) => r.name);
}

/** Inserts each row of a table anew with some of its columns changed; what is there already stays. */
async function again(client, table, changed) {
  const columns = await columnsOf(client, table);
  const list = columns.map((c) => `"${c}"`).join(', ');
  const values = columns.map((c) => changed[c] ?? `t."${c}"`).join(', ');
  await client.query(
    `INSERT INTO ${table} (${list}) SELECT ${values} FROM ${table} t WHERE t.id IN (SELECT id FROM as_it_was.${table})
       ON CONFLICT DO NOTHING`,
  );
}

/** Does something with what was there before it, in one transaction. */
async function onWhatWas(ownerUrl, work) {
  const client = new pg.Client({ connectionString: ownerUrl });
  await client.connect();
  await client.query('BEGIN; CREATE SCHEMA as_it_was');
  for (const table of Object.keys(RECORD))
    await client.query(`CREATE TABLE as_it_was.${table} AS SELECT DISTINCT id FROM ${table}`);
  await work(client);
  await client.query('DROP SCHEMA as_it_was CASCADE; COMMIT; ANALYZE');
  const { rows } = await client.query(
    'SELECT (SELECT count(*) FROM person)::int AS people, (SELECT count(*) FROM home_entry)::int AS logs',
  );
  await client.end();
  return rows[0];
}

/** Copies the people of a prepared database so many times, each with their whole record. */
export const manyPeople = (ownerUrl, copies) =>
  onWhatWas(ownerUrl, async (client) => {
    for (let copy = 1; copy <= copies; copy += 1)
      for (const [table, ids] of Object.entries(RECORD))
        await again(client, table, {
          ...Object.fromEntries(ids.map((c) => [c, `md5(t."${c}"::text || ' ${copy}')::uuid`])),
          ...(table === 'person' ? { name: `t.name || ' ${copy}'` } : {}),
        });
  });

/** Repeats what was logged at home so many days back. */
export const yearsOfLogs = (ownerUrl, days) =>
  onWhatWas(ownerUrl, async (client) => {
    const { rows } = await client.query('SELECT max(day) - min(day) + 1 AS span FROM home_entry');
    const span = rows[0]?.span ?? days;
    for (let back = span; back < days; back += span)
      await again(client, 'home_entry', {
        id: `md5(t.id || '-${back}')::uuid`,
        day: `t.day - ${back}`,
        at: `t.at - interval '${back} days'`,
      });
  });
