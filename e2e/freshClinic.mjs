import pg from 'pg';

/** The prepared database that all others are copies of. */
const TEMPLATE = 'heathstep';

const inDatabase = (url, name) => {
  const changed = new URL(url);
  changed.pathname = `/${name}`;
  return changed.href;
};

/** The addresses of a worker's own database in a cluster. */
export const databaseOf = ({ ownerUrl, appUrl }, worker) => ({
  ownerUrl: inDatabase(ownerUrl, `worker_${worker}`),
  appUrl: inDatabase(appUrl, `worker_${worker}`),
});

/** Makes a worker's database the demo clinic as it is first, whatever stands in it and whoever is connected to it. */
export async function freshClinic({ ownerUrl }) {
  const name = new URL(ownerUrl).pathname.slice(1);
  const admin = new pg.Client({ connectionString: inDatabase(ownerUrl, 'postgres') });
  await admin.connect();
  await admin.query(`DROP DATABASE IF EXISTS ${name} WITH (FORCE)`);
  await admin.query(`CREATE DATABASE ${name} TEMPLATE ${TEMPLATE}`);
  await admin.end();
  // What changes in this copy is marked as no copy before it was: the server keeps what it worked out by these marks.
  const copy = new pg.Client({ connectionString: ownerUrl });
  await copy.connect();
  await copy.query("SELECT setval('held.mark', $1)", [Date.now()]);
  await copy.end();
}
