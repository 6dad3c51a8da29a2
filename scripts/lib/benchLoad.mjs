// The bench of a full house: clinicians and phones at once, as they work, and whether everything acknowledged was kept once.
import { createHash, randomBytes, randomUUID } from 'node:crypto';
import pg from 'pg';
import { caller, percentile } from './benchTools.mjs';

const CLINICIANS = 50;
const PHONES = 500;
/** Seconds between two actions of one clinician, and of one phone. */
const PAUSE = { clinician: 3, phone: 30 };

const sleep = (ms) => new Promise((r) => setTimeout(r, ms));

/** Opens phones without their codes, each on a complaint with a plan; their page is asked for by the cookie alone. */
async function openPhones(client, count) {
  const { rows } = await client.query(
    `SELECT e.id AS "episodeId", e.clinic_id AS "clinicId", u.id AS "userId",
            (SELECT h.payload FROM home_entry h WHERE h.episode_id = e.id AND h.kind = 'session' ORDER BY h.day DESC LIMIT 1) AS payload
       FROM episode e JOIN LATERAL (SELECT id FROM app_user a WHERE a.clinic_id = e.clinic_id LIMIT 1) u ON true
      WHERE EXISTS (SELECT 1 FROM plan p WHERE p.episode_id = e.id AND p.status = 'given')
        AND EXISTS (SELECT 1 FROM home_entry h WHERE h.episode_id = e.id AND h.kind = 'session')
      ORDER BY e.id`,
  );
  const phones = [];
  for (let i = 0; i < count; i += 1) {
    const { episodeId, clinicId, userId, payload } = rows[i % rows.length];
    const [token, link] = [randomBytes(32).toString('base64url'), randomUUID()];
    const hashed = createHash('sha256').update(token).digest('hex');
    await client.query(
      `INSERT INTO home_link (id, clinic_id, episode_id, token_hash, code_hash, wrong_codes, created_by, created_at, expires_at)
       VALUES ($1, $2, $3, $4, 'none', 0, $5, now(), now() + interval '1 day')`,
      [link, clinicId, episodeId, `${hashed}-link`, userId],
    );
    await client.query(
      `INSERT INTO home_session (token_hash, clinic_id, link_id, episode_id, created_at, expires_at)
       VALUES ($1, $2, $3, $4, now(), now() + interval '80 days')`,
      [hashed, clinicId, link, episodeId],
    );
    phones.push({ cookie: `heathstep_home=${token}`, payload });
  }
  return phones;
}

/** Who has waited how long for what, and what was refused. */
function book() {
  const took = new Map();
  const refused = new Map();
  const kept = { visit_entry: [], home_entry: [] };
  const timed = async (what, call, table = null, id = null) => {
    const began = performance.now();
    try {
      const answer = await call();
      took.set(what, [...(took.get(what) ?? []), performance.now() - began]);
      if (table !== null) kept[table].push(id);
      return answer;
    } catch (error) {
      const said = String(error.message)
        .replace(/[0-9a-f]{8}-[0-9a-f-]{27}/, ':id')
        .slice(0, 110);
      refused.set(said, (refused.get(said) ?? 0) + 1);
      return null;
    }
  };
  return { took, refused, kept, timed };
}

async function atHome(url, { cookie, payload }, { timed }, ends) {
  const ask = async (method, path, body) => {
    const response = await fetch(url + path, {
      method,
      headers: { cookie, origin: url, ...(body === undefined ? {} : { 'content-type': 'application/json' }) },
      ...(body === undefined ? {} : { body: JSON.stringify(body) }),
    });
    if (!response.ok) throw new Error(`${method} ${path}: ${response.status} ${await response.text()}`);
    return response.json();
  };
  await sleep(Math.random() * PAUSE.phone * 1000);
  while (Date.now() < ends) {
    const page = await timed('the page at home', () => ask('GET', '/api/home/today'));
    await sleep(PAUSE.phone * 500);
    if (page !== null) {
      const entry = { id: randomUUID(), version: 1, kind: 'session', day: page.today, payload };
      await timed('a session logged', () => ask('PUT', '/api/home/entries', entry), 'home_entry', entry.id);
    }
    await sleep(PAUSE.phone * (250 + Math.random() * 500));
  }
}

async function ownVisit(api) {
  const [person, episode] = [randomUUID(), randomUUID()];
  await api('POST', '/api/people', {
    id: person,
    name: 'Bench Load',
    birthDate: '1980-01-01',
    occupation: '',
  });
  await api('POST', `/api/people/${person}/episodes`, {
    id: episode,
    condition: 'plantar-heel-pain',
    affected: 'left',
  });
  const { id } = await api('POST', `/api/episodes/${episode}/visits`, { id: randomUUID() });
  return id;
}

async function inClinic({ api, visit }, episodes, { timed }, ends) {
  await sleep(Math.random() * PAUSE.clinician * 1000);
  for (let version = 0; Date.now() < ends;) {
    const one = episodes[Math.floor(Math.random() * episodes.length)];
    const what = Math.random();
    if (what < 0.15) await timed('the day', () => api('GET', '/api/day'));
    else if (what < 0.3) await timed('the people', () => api('GET', '/api/people'));
    else if (what < 0.5) await timed('a course', () => api('GET', `/api/episodes/${one}/course`));
    else {
      const entry = { id: randomUUID(), key: 'story.goal', baseVersion: version, value: `${version}` };
      const saved = await timed(
        'a value saved',
        () => api('PUT', `/api/visits/${visit}/entries`, { entries: [entry] }),
        'visit_entry',
        entry.id,
      );
      if (saved !== null) version += 1;
    }
    await sleep(PAUSE.clinician * (500 + Math.random() * 1000));
  }
}

/** Prints how long each waited, what was refused, and what was lost or doubled of all that was acknowledged. */
export async function benchLoad(database, url, signIns, line, seconds = 120) {
  const client = new pg.Client({ connectionString: database.ownerUrl });
  await client.connect();
  try {
    await fullHouse(client, url, signIns, line, seconds);
  } finally {
    await client.end();
  }
}

async function fullHouse(client, url, signIns, line, seconds) {
  const phones = await openPhones(client, PHONES);
  const callers = await Promise.all(signIns.map((signIn) => caller(url, signIn)));
  const people = await callers[0]('GET', '/api/people');
  const episodes = people.flatMap((p) => p.episodes.map((e) => e.id));
  const clinicians = [];
  for (let i = 0; i < CLINICIANS; i += 1) {
    const api = callers[i % callers.length];
    clinicians.push({ api, visit: await ownVisit(api) });
  }
  // As in the morning of any day: what a restart has to work out once is not what a full house is about.
  await callers[0]('GET', '/api/day');
  const records = book();
  const ends = Date.now() + seconds * 1000;
  await Promise.all([
    ...clinicians.map((clinician) => inClinic(clinician, episodes, records, ends)),
    ...phones.map((phone) => atHome(url, phone, records, ends)),
  ]);
  line(`${clinicians.length} clinicians, ${phones.length} phones at once`, `${seconds} s`, 'two minutes');
  for (const [what, list] of records.took)
    line(
      `  ${what}, p50 and p95 of ${list.length}`,
      `${percentile(list, 0.5).toFixed(0)} / ${percentile(list, 0.95).toFixed(0)} ms`,
      'none refused',
    );
  line(
    '  refused',
    [...records.refused.values()].reduce((a, b) => a + b, 0),
    '0',
  );
  for (const [said, times] of records.refused) console.log(`    ${times} x ${said}`);
  for (const [table, ids] of Object.entries(records.kept)) {
    const { rows } = await client.query(
      `SELECT count(*)::int AS rows, count(DISTINCT id)::int AS ids FROM ${table} WHERE id = ANY($1)`,
      [ids],
    );
    line(
      `  ${table.replace('_', ' ')}: acknowledged, lost, doubled`,
      `${ids.length}, ${ids.length - rows[0].ids}, ${rows[0].rows - rows[0].ids}`,
      '0 lost, 0 doubled',
    );
  }
}
