// npm run faults: writes without end while the server, the database and the start itself are killed at random moments, then
// looks whether everything that was acknowledged is there, once. `npm run faults -- 300 7` asks for 300 kills and another
// seed; `npm run faults -- disk` fills the disk instead.
import { chmodSync, mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { fullDisk } from './lib/fullDisk.mjs';
import { house, sleep } from './lib/house.mjs';

const [asked = '30', seeded = '20261127'] = process.argv.slice(2);
const PORT = Number(process.env.PORT ?? 4390);
/** So many ends of one thing within a minute are given up on purpose; we stay below. */
const MOST_A_MINUTE = 4;

/** Kills one of the three at a time and waits until all answer again; resolves to how often each, and the longest wait. */
async function kills({ pids, kept, untilHealthy }, { times, seed, failures }) {
  let state = seed;
  const random = () => {
    state = (state * 1_103_515_245 + 12_345) % 2_147_483_648;
    return state / 2_147_483_648;
  };
  const killed = { server: 0, database: 0, start: 0 };
  const lately = { server: [], database: [] };
  const choose = () => {
    const kind = ['server', 'database', 'start'][Math.floor(random() * 3)];
    if (kind === 'start') return kind;
    lately[kind] = lately[kind].filter((at) => Date.now() - at < 60_000);
    return lately[kind].length < MOST_A_MINUTE ? kind : 'start';
  };
  let longest = 0;
  for (let i = 0; i < times && failures.length === 0; i += 1) {
    await sleep(200 + random() * 1500);
    const kind = choose();
    try {
      process.kill(pids[kind](), 'SIGKILL');
    } catch {
      // It was gone a moment before.
      i -= 1;
      continue;
    }
    killed[kind] += 1;
    if (kind === 'start') Object.assign(lately, { server: [], database: [] });
    else lately[kind].push(Date.now());
    await sleep(100);
    longest = Math.max(longest, await untilHealthy());
    if ((i + 1) % 10 === 0) console.log(`${i + 1} of ${times}, ${kept.entries.length} entries acknowledged`);
  }
  console.log(
    `Killed: server ${killed.server}, database ${killed.database}, start ${killed.start}. Longest until all answered again ${(longest / 1000).toFixed(1)} s.`,
  );
}

const data = mkdtempSync(join(tmpdir(), 'heathstep-faults-'));
// Run as root, the database is another user's.
chmodSync(data, 0o755);
const disk = asked === 'disk' ? fullDisk(data) : null;
const clinic = house(data, PORT);
let code = 1;
try {
  clinic.begin();
  await clinic.untilHealthy();
  await clinic.signIn();
  const failures = [];
  const writers = ['a', 'b', 'c', 'd'].map((name) =>
    clinic.write(name).catch((error) => failures.push(error)),
  );
  if (disk === null) await kills(clinic, { times: Number(asked), seed: Number(seeded), failures });
  else await disk.fill(clinic);
  await sleep(500);
  clinic.end();
  await Promise.all(writers);
  if (failures.length > 0) throw failures[0];
  const { lost, doubled } = await clinic.counted();
  console.log(
    `Acknowledged: ${clinic.kept.entries.length} entries, ${clinic.kept.people.length} people. Lost ${lost}, doubled ${doubled}.`,
  );
  code = lost + doubled === 0 ? 0 : 1;
} catch (error) {
  console.error(error.message);
} finally {
  await clinic.close();
  disk?.free();
  rmSync(data, { recursive: true, force: true });
}
process.exit(code);
