// What every bench in the browser needs: a caller of the API, a trace read by frames, and middles of lists.
import { findChromium } from './chromium.mjs';

export const percentile = (list, share) =>
  [...list].sort((a, b) => a - b)[Math.min(list.length - 1, Math.floor(list.length * share))];

/** A signed-in caller of the API. */
export async function caller(url, signIn) {
  const signed = await fetch(`${url}/api/session`, {
    method: 'POST',
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify({ email: signIn.email, password: signIn.password }),
  });
  const cookie = signed.headers.get('set-cookie').split(';')[0];
  return async (method, path, body) => {
    const response = await fetch(url + path, {
      method,
      headers: { cookie, ...(body === undefined ? {} : { 'content-type': 'application/json' }) },
      ...(body === undefined ? {} : { body: JSON.stringify(body) }),
    });
    if (!response.ok) throw new Error(`${method} ${path}: ${response.status} ${await response.text()}`);
    return response.json();
  };
}

/** A fast typist: eleven keys a second. */
export const BETWEEN_KEYS_MS = 90;

const FRAME_US = 16_667;
/** Main-thread milliseconds of work in each sixtieth of a second of a trace in which there was some. */
function frames(trace) {
  const mains = new Set(
    trace
      .filter((e) => e.name === 'thread_name' && e.args?.name === 'CrRendererMain')
      .map((e) => `${e.pid}.${e.tid}`),
  );
  const of = (name) => trace.filter((e) => e.name === name && mains.has(`${e.pid}.${e.tid}`));
  const tasks = of('RunTask').filter((e) => e.dur > 0);
  const busiest = new Map();
  for (const t of tasks) busiest.set(`${t.pid}.${t.tid}`, (busiest.get(`${t.pid}.${t.tid}`) ?? 0) + t.dur);
  const [thread] = [...busiest.entries()].sort((a, b) => b[1] - a[1])[0] ?? [''];
  const work = tasks.filter((t) => `${t.pid}.${t.tid}` === thread);
  const slots = new Map();
  for (const t of work) {
    const slot = Math.floor(t.ts / FRAME_US);
    slots.set(slot, (slots.get(slot) ?? 0) + t.dur / 1000);
  }
  // Frames in which next to nothing was done would only flatter the median.
  return [...slots.values()].filter((ms) => ms >= 0.5);
}

/** Main-thread milliseconds a frame while something is done. */
export async function traced(browser, page, work) {
  await browser.startTracing(page, {
    categories: ['devtools.timeline', 'disabled-by-default-devtools.timeline', 'toplevel', '__metadata'],
  });
  await work();
  const { traceEvents } = JSON.parse((await browser.stopTracing()).toString());
  return frames(traceEvents);
}

/** A browser with a page signed in, on the day. */
export async function signedIn(chromium, args, url, signIn) {
  const browser = await chromium.launch({
    executablePath: findChromium(),
    args,
  });
  const page = await (await browser.newContext({ viewport: { width: 1280, height: 800 } })).newPage();
  await page.goto(`${url}/sign-in`);
  await page.getByLabel('E-mail').fill(signIn.email);
  await page.getByLabel('Password').fill(signIn.password);
  await page.getByRole('button', { name: 'Sign in' }).click();
  await page.getByRole('heading', { level: 1, name: /look/ }).waitFor();
  return { browser, page };
}
