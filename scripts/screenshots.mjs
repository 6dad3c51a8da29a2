// npm run screenshots: one picture of each main view for docs/screenshots, from a fresh demo clinic.
import { chmodSync, mkdirSync, mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { findChromium } from './lib/chromium.mjs';
import { ensureInstalled } from './lib/install.mjs';
import { ROOT } from './lib/paths.mjs';

ensureInstalled();
const { ensurePackagesBuilt, ensureServerBuilt, ensureWebBuilt } = await import('./lib/build.mjs');
const { freePort, startPostgres } = await import('./lib/postgres.mjs');
const { prepare, startDevices, startServer, stopServer } = await import('./lib/server.mjs');
const { chromium } = await import('@playwright/test');
ensurePackagesBuilt();
ensureServerBuilt();
ensureWebBuilt();

const out = join(ROOT, 'docs', 'screenshots');
mkdirSync(out, { recursive: true });
const data = mkdtempSync(join(tmpdir(), 'heathstep-pictures-'));
chmodSync(data, 0o755);
const database = await startPostgres(data, { fast: true, url: '' });
const [, signIn] = await prepare(database, join(data, 'demo.json'));
const devices = await startDevices();
const port = await freePort();
const server = await startServer(database, port, {
  HEATHSTEP_LOG: 'silent',
  HEATHSTEP_DEVICES_URL: devices.url,
});
const url = `http://127.0.0.1:${port}`;
const args = [
  '--no-sandbox',
  '--disable-gpu',
  '--disable-quic',
  '--no-first-run',
  '--disable-background-networking',
  '--disable-component-update',
  '--disable-sync',
];
const browser = await chromium.launch({ executablePath: findChromium(), args });

const page = await (
  await browser.newContext({
    viewport: { width: 1280, height: 800 },
    locale: 'en-GB',
    timezoneId: 'Europe/London',
  })
).newPage();
const settle = (p) =>
  p.evaluate(() =>
    document.fonts.ready.then(
      () => new Promise((r) => requestAnimationFrame(() => requestAnimationFrame(r))),
    ),
  );
const shot = async (name, from = page) => {
  await settle(from);
  await from.screenshot({ path: join(out, `${name}.png`) });
};
const step = (name) =>
  page
    .getByRole('navigation', { name: 'Steps of the visit' })
    .getByRole('link', { name: new RegExp(name) })
    .click();
const place = (name) =>
  page.getByRole('navigation', { name: 'Places of this episode' }).getByRole('link', { name }).click();
const saved = () => page.locator('[data-status="saved"]').waitFor();

try {
  await page.goto(`${url}/sign-in`);
  await page.getByLabel('E-mail').fill(signIn.email);
  await page.getByLabel('Password').fill(signIn.password);
  await page.getByRole('button', { name: 'Sign in' }).click();
  await page.getByRole('link', { name: /Marit Osgar/ }).waitFor();
  await shot('day');
  await page.getByRole('link', { name: 'People' }).click();
  await page.getByRole('heading', { level: 1, name: 'People', exact: true }).waitFor();
  await page.getByRole('link', { name: /Marit Osgar/ }).click();
  await place('Visit');
  await page.getByRole('button', { name: 'Start a review' }).click();
  await page.getByRole('button', { name: /worst pain/ }).click();
  await page.getByRole('button', { name: 'worst pain 4' }).click();
  await shot('story');
  await step('Safety');
  await page.getByRole('button', { name: 'They still hold' }).click();
  for (;;) {
    const next = page.getByRole('button', { name: /Asked, none of these|^Tested/ }).first();
    if ((await next.count()) === 0) break;
    await next.click();
  }
  await step('Measure');
  const trial = async (measure, side, ...values) => {
    for (const [i, v] of values.entries())
      await page.getByLabel(`${measure}, ${side}, trial ${i + 1}`, { exact: true }).fill(v);
  };
  await trial('Lunge, knee bent', 'left', '33', '34', '33.5');
  await trial('Lunge, knee bent', 'right', '40', '40.5', '40');
  await trial('Lunge, knee straight', 'left', '25', '26', '26');
  await trial('Lunge, knee straight', 'right', '33', '33', '34');
  await trial('Foot shortening hold', 'left', '9', '10');
  await trial('Foot shortening hold', 'right', '11', '12');
  await page.getByLabel('Lunge, knee straight, left, trial 1').click();
  await saved();
  await shot('measure');
  await step('Load');
  await trial('Single-leg heel raise', 'right', '19');
  await page.getByLabel('Single-leg heel raise, left, trial 1').click();
  await page.getByRole('button', { name: 'Start left' }).click();
  for (let i = 0; i < 12; i += 1) await page.keyboard.press('Space');
  await page.keyboard.press('3');
  await page.getByRole('button', { name: 'Stop and keep 12' }).click();
  await saved();
  await step('Conclude');
  await shot('conclude');
  await place('Course');
  await page.locator('figure svg').first().waitFor();
  await shot('course');
  await place('Letters');
  await page.getByRole('button', { name: 'How it goes' }).click();
  await page.getByLabel('To', { exact: true }).fill('Dr Ada Quill\nMill Lane Surgery\nThornmoor');
  await page.getByText('Saved', { exact: true }).waitFor();
  await page.getByText('Measured from first to last').waitFor();
  await shot('letter');
  await page.goBack();
  await place('Course');
  await page.locator('figure svg').first().waitFor();
  await page.getByRole('button', { name: 'Show the working' }).click();
  await shot('why');
  await page.keyboard.press('Escape');
  await place('Plan');
  await page.getByRole('button', { name: 'Make a link' }).click();
  const link = (await page.getByTestId('home-link').textContent()).trim();
  const code = (await page.getByTestId('home-code').textContent()).trim();
  await page.getByRole('button', { name: 'Make the next version' }).click();
  await page.getByText(/^draft of version/).waitFor();
  await shot('plan');
  await page.goto(page.url().replace(/plan$/, 'handout'));
  await page.getByRole('heading', { name: 'Marit, your plan' }).waitFor();
  await shot('handout');
  await page.goto(`${url}/day`);
  await page.getByRole('link', { name: /Hanne Rook/ }).click();
  await page.getByText('Blocks everything of the right side.').waitFor();
  await shot('safety');

  await page.goto(`${url}/day`);
  await page.getByRole('link', { name: /Corin Fellgate/ }).click();
  await step('Look');
  await page.getByRole('tab', { name: /Support points/ }).click();
  await page.getByRole('button', { name: 'all down' }).first().click();
  await page.getByRole('button', { name: 'standing, right, fifth metatarsal head: down' }).click();
  await page.getByRole('button', { name: 'all down' }).nth(3).click();
  for (const state of ['down', 'light'])
    await page.getByRole('button', { name: `one leg, right, fifth metatarsal head: ${state}` }).click();
  await saved();
  await page.getByLabel('Ankle girth, figure of eight, right, trial 1').click();
  await shot('look');
  await step('Feel');
  await page.getByLabel('By body part').selectOption('ankle');
  await page.getByRole('button', { name: 'How: Front drawer of the ankle' }).click();
  await page
    .getByRole('button', { name: 'present, Inward tilt of the talus, right' })
    .scrollIntoViewIfNeeded();
  await page.getByRole('button', { name: 'present, Inward tilt of the talus, right' }).hover();
  await page.getByText(/^\+ and − : Inward tilt/).waitFor();
  await shot('feel');
  await page.getByRole('link', { name: 'People' }).click();
  await page.getByRole('link', { name: /Averil Moss/ }).click();
  await place('Visit');
  await page.getByRole('button', { name: 'Start a review' }).click();
  await step('Look');
  await page.getByLabel('Hallux angle, right, trial 1').click();
  await page.getByRole('button', { name: 'From a picture' }).click();
  await page.getByRole('radio', { name: 'R right' }).click();
  await page.getByRole('button', { name: /Leaning big toe/ }).click();
  const box = await page.getByRole('application').boundingBox();
  for (const [x, y] of [
    [360, 760],
    [360, 430],
    [446, 261],
  ])
    await page.mouse.click(box.x + (x / 900) * box.width, box.y + (y / 1200) * box.height);
  await page.getByText(/27.* ± 1/).waitFor();
  await shot('photo');
  await page.goto(`${url}/library/raise-towel-one-leg`);
  await page.getByRole('img', { name: /drawn on the right/ }).waitFor();
  await page.waitForTimeout(1900);
  await shot('exercise');
  await page.goto(`${url}/library`);
  await page.getByRole('img', { name: 'Heel raise on one leg, drawn' }).scrollIntoViewIfNeeded();
  await page.getByRole('heading', { level: 2, name: 'Heel raise', exact: true }).scrollIntoViewIfNeeded();
  await shot('library');
  await page.goto(`${url}/library/protocols/achilles-midportion`);
  await page.getByRole('button', { name: 'Make our own version' }).click();
  await page.getByRole('radio', { name: 'Slow and strong' }).click();
  await page.getByLabel('At least, days').fill('35');
  await page
    .getByRole('button', { name: /: more important$/ })
    .nth(1)
    .click();
  await page.getByText(/At least 35 days/).waitFor();
  await shot('protocol');
  const [singer] = await (await page.request.get(`${url}/api/people?q=Averil`)).json();
  await page.goto(`${url}/episodes/${singer.episodes[0].id}/lab`);
  await page.getByRole('button', { name: /^Heel raise/ }).click();
  await page.getByText('L: early outward shift').waitFor();
  await shot('lab');

  const phone = await (
    await browser.newContext({
      viewport: { width: 390, height: 844 },
      hasTouch: true,
      isMobile: true,
      locale: 'en-GB',
      timezoneId: 'Europe/London',
    })
  ).newPage();
  await phone.clock.install();
  await phone.goto(link);
  await phone.getByRole('textbox').fill(code);
  await phone.getByRole('button', { name: 'Open' }).click();
  await phone.getByRole('heading', { name: 'Hello Marit' }).waitFor();
  const picture = async (name) => phone.screenshot({ path: join(out, `${name}.png`) });
  await picture('home-today');
  await phone.getByRole('button', { name: 'Start' }).click();
  await phone.getByRole('button', { name: 'Pain 1', exact: true }).click();
  await phone.getByRole('button', { name: 'Start' }).click();
  await phone.clock.runFor(21_000);
  await picture('home-pacer');
} finally {
  await browser.close();
  await stopServer(server);
  await stopServer(devices.child);
  await database.stop();
  rmSync(data, { recursive: true, force: true });
}
