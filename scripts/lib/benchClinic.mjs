// The clinic's day and its outcomes, and how they grow with the clinic.
import { manyEpisodes } from './manyEpisodes.mjs';
import { manyPeople } from './manyPeople.mjs';

const median = (list) => [...list].sort((a, b) => a - b)[Math.floor(list.length / 2)];

async function signedIn(url, { email, password }) {
  const answer = await fetch(`${url}/api/session`, {
    method: 'POST',
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify({ email, password }),
  });
  const cookie = answer.headers.get('set-cookie').split(';')[0];
  return async (path) => {
    const began = performance.now();
    const body = await (await fetch(url + path, { headers: { cookie } })).json();
    return { took: performance.now() - began, body };
  };
}

/** Asks for the day until it is whole; the first answer, all of it, and one of those after it. */
async function day(get) {
  const began = performance.now();
  const first = await get('/api/day');
  let view = first.body;
  while (view.pending > 0) {
    await new Promise((resolve) => setTimeout(resolve, 500));
    view = (await get('/api/day')).body;
  }
  const whole = performance.now() - began;
  const after = [];
  for (let i = 0; i < 9; i += 1) after.push((await get('/api/day')).took);
  return { people: view.items.length, first: first.took, whole, after: median(after) };
}

const ms = (value) => `${value.toFixed(0)} ms`;

/** Copies of the demo's people: some two hundred, and of those again some two thousand. */
const [FEW, MORE] = [11, 8];

export async function benchClinic(ownerUrl, url, signIn, line) {
  const get = await signedIn(url, signIn);
  await manyPeople(ownerUrl, FEW);
  const small = await day(get);
  await manyPeople(ownerUrl, MORE);
  const large = await day(get);
  for (const { people, first, whole, after } of [small, large]) {
    line(`day of ${people} complaints, first answer of a morning`, ms(first), 'none');
    line(`day of ${people} complaints, until all are worked out`, `${(whole / 1000).toFixed(1)} s`, 'none');
    line(`day of ${people} complaints, asked again (median)`, ms(after), 'under 200 ms');
  }
  line(
    `day, asked again: ${(large.people / small.people).toFixed(1)} times the people`,
    `${(large.after / small.after).toFixed(1)} x`,
    'no more than the people',
  );
  let from = 0;
  const outcomes = [];
  for (const to of [5000, 20_000]) {
    await manyEpisodes(ownerUrl, from, to);
    from = to;
    const took = [];
    for (let i = 0; i < 5; i += 1) took.push((await get('/api/outcomes')).took);
    outcomes.push(median(took));
    line(`outcomes over ${to} episodes (median)`, ms(median(took)), to === 20_000 ? 'under 1000 ms' : 'none');
  }
  line('outcomes, four times the episodes', `${(outcomes[1] / outcomes[0]).toFixed(1)} x`, 'about 4 x');
}
