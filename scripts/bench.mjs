// npm run bench: how fast it is on this machine, beside its targets. Prints, never asserts.
// `npm run bench -- --short` asks for the planner alone, `--clinic` for the day and the outcomes of a large clinic.
import { spawn } from 'node:child_process';
import { chmodSync, mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { findChromium } from './lib/chromium.mjs';
import { ensureInstalled } from './lib/install.mjs';
import { ROOT } from './lib/paths.mjs';

ensureInstalled();
const { ensurePackagesBuilt, ensureServerBuilt, ensureWebBuilt } = await import('./lib/build.mjs');
const { freePort, startPostgres } = await import('./lib/postgres.mjs');
const { prepare, startServer, stopServer } = await import('./lib/server.mjs');
const { benchVisit } = await import('./lib/benchVisit.mjs');
const { benchLibrary } = await import('./lib/benchLibrary.mjs');
const { benchReason } = await import('./lib/benchReason.mjs');
const { benchPlanner } = await import('./lib/benchPlanner.mjs');
const { benchLoad } = await import('./lib/benchLoad.mjs');
const { benchPlaces, placesAfterClicks } = await import('./lib/benchPlaces.mjs');
const { benchLab } = await import('./lib/benchLab.mjs');
const { benchClinic } = await import('./lib/benchClinic.mjs');
const { manyPeople, yearsOfLogs } = await import('./lib/manyPeople.mjs');
const { chromium } = await import('@playwright/test');
const { default: pg } = await import('pg');
ensurePackagesBuilt();
ensureServerBuilt();
ensureWebBuilt();

const rows = [];
const line = (what, measured, target) => {
  rows.push([what, measured, target]);
  console.log(`${what.padEnd(58)} ${String(measured).padStart(12)}   target ${target}`);
};
const median = (list) => [...list].sort((a, b) => a - b)[Math.floor(list.length / 2)];
const temp = () => {
  const folder = mkdtempSync(join(tmpdir(), 'heathstep-bench-'));
  chmodSync(folder, 0o755);
  return folder;
};

/** Milliseconds until `npm start` prints its ready line, then a clean stop. */
async function startOnce(data, port) {
  const began = performance.now();
  const child = spawn('npm', ['start', '--silent'], {
    cwd: ROOT,
    detached: true,
    env: { ...process.env, HEATHSTEP_DATA: data, PORT: String(port) },
    stdio: ['ignore', 'pipe', 'ignore'],
  });
  await new Promise((resolve, reject) => {
    child.stdout.on('data', (chunk) => String(chunk).includes('Heathstep is ready') && resolve());
    child.once('exit', () => reject(new Error('npm start ended')));
  });
  const took = performance.now() - began;
  if (child.pid !== undefined) process.kill(-child.pid, 'SIGTERM');
  await new Promise((resolve) => child.once('exit', resolve));
  return took;
}

async function starts() {
  const data = temp();
  const port = await freePort();
  line(
    'npm start, new data folder (built)',
    `${((await startOnce(data, port)) / 1000).toFixed(1)} s`,
    'none',
  );
  line('npm start, second time', `${((await startOnce(data, port)) / 1000).toFixed(1)} s`, 'under 10 s');
  rmSync(data, { recursive: true, force: true });
}

/** Median milliseconds of one call at a time, warm. */
async function timed(times, call) {
  const took = [];
  for (let i = 0; i < times + 20; i += 1) {
    const began = performance.now();
    await call();
    if (i >= 20) took.push(performance.now() - began);
  }
  return median(took);
}

async function reads(database, url, signIn) {
  const signed = await fetch(`${url}/api/session`, {
    method: 'POST',
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify(signIn),
  });
  const cookie = signed.headers.get('set-cookie').split(';')[0];
  const get = async (path) => (await fetch(url + path, { headers: { cookie } })).text();
  const people = JSON.parse(await get('/api/people'));
  const episode = people.find((p) => p.name === 'Marit Osgar').episodes[0].id;
  const { clinic } = JSON.parse(await get('/api/session'));
  const client = new pg.Client({ connectionString: database.appUrl });
  await client.connect();
  const sql = async (...statements) => {
    await client.query('BEGIN');
    await client.query('SELECT enter_clinic($1)', [clinic.id]);
    for (const [text, values] of statements) await client.query(text, values);
    await client.query('COMMIT');
  };
  const ids = people.map((p) => p.id);
  const api = await timed(200, () => get('/api/people'));
  const raw = await timed(200, () =>
    sql(
      ['SELECT * FROM person ORDER BY lower(name) LIMIT 200', []],
      ['SELECT * FROM episode WHERE person_id = ANY($1) ORDER BY started_at', [ids]],
    ),
  );
  line(
    'GET /api/people against the same SQL through the driver',
    `${(api / raw).toFixed(1)} x`,
    'ratio only',
  );
  const apiCourse = await timed(100, () => get(`/api/episodes/${episode}/course`));
  const rawCourse = await timed(100, () =>
    sql(
      ['SELECT * FROM episode WHERE id = $1', [episode]],
      ['SELECT * FROM visit WHERE episode_id = $1', [episode]],
      [
        'SELECT DISTINCT ON (e.visit_id, e.key) e.* FROM visit_entry e JOIN visit v ON v.id = e.visit_id WHERE v.episode_id = $1 ORDER BY e.visit_id, e.key, e.version DESC',
        [episode],
      ],
      ['SELECT * FROM plan WHERE episode_id = $1', [episode]],
      [
        'SELECT DISTINCT ON (id) * FROM home_entry WHERE episode_id = $1 ORDER BY id, version DESC',
        [episode],
      ],
      ['SELECT * FROM decision WHERE episode_id = $1', [episode]],
    ),
  );
  line(
    'GET course (judged and reviewed) against its SQL alone',
    `${(apiCourse / rawCourse).toFixed(1)} x`,
    'ratio only',
  );
  const pdf = await timed(5, () => get(`/api/episodes/${episode}/handout.pdf`));
  line('handout as a PDF (median)', `${pdf.toFixed(0)} ms`, 'under 1500 ms');
  const ics = await timed(40, () => get(`/api/episodes/${episode}/plan.ics`));
  line('plan as a calendar file, whole request (median)', `${ics.toFixed(0)} ms`, 'ratio below');
  line(
    'plan as a calendar file against reading the course',
    `${(ics / apiCourse).toFixed(1)} x`,
    'ratio only',
  );
  await client.end();
}

const ARGS = [
  '--no-sandbox',
  '--disable-gpu',
  '--disable-quic',
  '--no-first-run',
  '--disable-background-networking',
  '--disable-component-update',
  '--disable-sync',
];

async function pages(url, signIn) {
  const browser = await chromium.launch({
    executablePath: findChromium(),
    args: ARGS,
  });
  const page = await (await browser.newContext({ viewport: { width: 1280, height: 800 } })).newPage();
  await page.goto(`${url}/sign-in`);
  await page.getByLabel('E-mail').fill(signIn.email);
  await page.getByLabel('Password').fill(signIn.password);
  await page.getByRole('button', { name: 'Sign in' }).click();
  await page.getByRole('link', { name: /Marit Osgar/ }).waitFor();
  const state = await page.context().storageState();

  const fresh = await (
    await browser.newContext({ viewport: { width: 1280, height: 800 }, storageState: state })
  ).newPage();
  const began = performance.now();
  await fresh.goto(`${url}/day`);
  await fresh.getByRole('link', { name: /Marit Osgar/ }).waitFor();
  line(
    'First load of the day, nothing cached',
    `${(performance.now() - began).toFixed(0)} ms`,
    'under 1500 ms',
  );
  const kilobytes = await fresh.evaluate(
    () =>
      performance
        .getEntriesByType('resource')
        .filter((r) => r.name.endsWith('.js'))
        .reduce((sum, r) => sum + r.encodedBodySize, 0) / 1024,
  );
  line('First-load JavaScript, compressed', `${kilobytes.toFixed(0)} KB`, 'under 220 KB');

  for (const [name, list] of await placesAfterClicks(page, ['Marit Osgar'], 6))
    line(`${name}, usable after a click, warm (median)`, `${median(list).toFixed(0)} ms`, 'under 300 ms');
  await browser.close();
}

/** Copies of the demo's people that make some four hundred of them, and how far back their logs go in the end. */
const [COPIES, YEARS] = [31, 2];

async function whole() {
  benchReason(line);
  await starts();
  const data = temp();
  const database = await startPostgres(data, { url: '' });
  const signIns = await prepare(database, join(data, 'demo.json'));
  const [, signIn] = signIns;
  const port = await freePort();
  const url = `http://127.0.0.1:${port}`;
  const server = await startServer(database, port, { HEATHSTEP_LOG: 'silent', NODE_ENV: 'production' });
  try {
    await reads(database, url, { email: signIn.email, password: signIn.password });
    await pages(url, signIn);
    await benchLibrary(chromium, ARGS, url, signIn, line);
    await benchVisit(chromium, ARGS, url, signIn, line);
    const large = await manyPeople(database.ownerUrl, COPIES);
    line('a large clinic', `${large.people} people, ${large.logs} logs`, '400 people');
    await benchLoad(database, url, signIns, line);
    const { logs } = await yearsOfLogs(database.ownerUrl, YEARS * 365);
    line(`and ${YEARS} years of each`, `${logs} logs`, 'none');
    await benchPlaces(chromium, ARGS, url, signIn, line);
  } finally {
    await stopServer(server);
    await database.stop();
    rmSync(data, { recursive: true, force: true });
  }
}

/** The clinic's day and outcomes, in a database of their own. */
async function clinic() {
  const data = temp();
  const database = await startPostgres(data, { url: '' });
  const [, signIn] = await prepare(database, join(data, 'demo.json'));
  const port = await freePort();
  const server = await startServer(database, port, { HEATHSTEP_LOG: 'silent', NODE_ENV: 'production' });
  try {
    await benchClinic(database.ownerUrl, `http://127.0.0.1:${port}`, signIn, line);
  } finally {
    await stopServer(server);
    await database.stop();
    rmSync(data, { recursive: true, force: true });
  }
}

benchPlanner(line);
await benchLab(line);
if (process.argv.includes('--clinic')) await clinic();
else if (!process.argv.includes('--short')) {
  await whole();
  await clinic();
}
