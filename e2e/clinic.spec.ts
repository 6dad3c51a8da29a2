import { execFile } from 'node:child_process';
import { join } from 'node:path';
import { promisify } from 'node:util';
import type { Page } from '@playwright/test';
import { bytesOf, codeOf } from '../apps/server/test/authenticator.js';
import {
  answerSafety,
  choose,
  database,
  expect,
  expectAccessible,
  goToStep,
  saved,
  signIn,
  takeTrials,
  test,
  turnTo,
  url,
} from './support.js';

const GOOD = 'lantern gravel otter plum';

/** A clinic made by the command on this worker’s database; what the command says. */
async function clinicMade(email: string): Promise<string> {
  const flags = {
    name: 'Millbrook Feet',
    phone: '01632 960 111',
    emergency: '999',
    locale: 'en-GB',
    'time-zone': 'Europe/London',
    lead: 'Ada Ørsted',
    email,
  };
  const { stdout } = await promisify(execFile)(
    process.execPath,
    [
      join(import.meta.dirname, '..', 'apps', 'server', 'dist', 'makeClinic.js'),
      ...Object.entries(flags).flatMap(([flag, value]) => [`--${flag}`, value]),
    ],
    {
      env: {
        ...process.env,
        HEATHSTEP_OWNER_DATABASE_URL: database().ownerUrl,
        HEATHSTEP_APP_DATABASE_URL: database().appUrl,
      },
    },
  );
  return stdout;
}

async function choosePassword(page: Page, link: string): Promise<void> {
  await page.goto(url(`/join${link.slice(link.indexOf('#'))}`));
  await page.getByLabel('Password').fill('millbrook1');
  await page.getByRole('button', { name: 'Take this password' }).click();
  await expect(page.getByText(/^Too easy to guess/)).toBeVisible();
  await expectAccessible(page, 'Choosing a password');
  await page.getByLabel('Password').fill(GOOD);
  await page.getByRole('button', { name: 'Take this password' }).click();
  await page.getByRole('link', { name: 'Sign in' }).click();
}

async function comeIn(page: Page, email: string): Promise<void> {
  await page.getByLabel('E-mail').fill(email);
  await page.getByLabel('Password').fill(GOOD);
  await page.getByRole('button', { name: 'Sign in' }).click();
}

test('a clinic from nothing: made, led, joined by someone, changed, left, and all of it in the log', async ({
  page,
  browser,
}) => {
  const said = await clinicMade('ada@millbrook.example');
  const link = /http\S+#\S+/.exec(said)?.[0] ?? '';
  expect(link).toContain('/join#');
  await choosePassword(page, link);
  await comeIn(page, 'ada@millbrook.example');
  await expect(page.getByRole('heading', { level: 1 })).toContainText(/look/);

  await test.step('the link was used up', async () => {
    const again = await browser.newPage();
    await again.goto(url(`/join${link.slice(link.indexOf('#'))}`));
    await expect(again.getByRole('alert')).toContainText('This link does not work any more');
    await again.close();
  });

  await test.step('someone is added, comes in by a link, and is seen to be here', async () => {
    await page.getByRole('button', { name: /, account/ }).click();
    await page.getByRole('menuitem', { name: 'Clinic' }).click();
    await page.getByRole('button', { name: 'Add someone' }).click();
    await page.getByRole('button', { name: 'Add', exact: true }).click();
    await expect(page.getByText('Type a name of 1 to 80 characters')).toBeVisible();
    await page.getByLabel('Name').fill('Bryn Holt');
    await page.getByLabel('E-mail').fill('Bryn@millbrook.example');
    await page.getByLabel('Role', { exact: true }).selectOption('assistant');
    await page.getByRole('button', { name: 'Add', exact: true }).dblclick();
    const told = await page.getByRole('textbox', { name: 'Link for Bryn Holt' }).inputValue();
    await expectAccessible(page, 'Who works here');
    const other = await browser.newPage();
    await choosePassword(other, told);
    await comeIn(other, 'bryn@millbrook.example');
    await expect(other.getByRole('heading', { level: 1 })).toContainText(/look/);
    await other.goto(url('/clinic'));
    await expect(other.getByText('This is for the leads of the clinic.')).toBeVisible();
    await page.reload();
    await expect(page.getByText(/^bryn@millbrook\.example$/)).toHaveCount(1);
    await page.getByRole('button', { name: 'Bryn Holt leaves' }).click();
    await page.getByRole('button', { name: 'Yes, Bryn Holt leaves' }).click();
    await expect(page.getByText('Left: 1')).toBeVisible();
    await other.goto(url('/people'));
    await expect(other.getByRole('heading', { level: 1, name: 'Sign in' })).toBeVisible();
    await other.close();
    await page.getByRole('button', { name: 'Ada Ørsted leaves' }).click();
    await page.getByRole('button', { name: 'Yes, Ada Ørsted leaves' }).click();
    await expect(page.getByText(/is the only lead/)).toBeVisible();
  });

  await test.step('what the clinic says of itself', async () => {
    await page.getByRole('link', { name: 'The clinic itself' }).click();
    await page.getByLabel('Time zone').fill('Europe/Nowhere');
    await page.getByLabel('Telephone').fill('ring us');
    await page.getByRole('button', { name: 'Keep' }).click();
    await expect(page.getByText(/^Type a telephone number/)).toBeVisible();
    await page.getByLabel('Telephone').fill('01632 960 222');
    await page.getByRole('button', { name: 'Keep' }).click();
    await expect(page.getByText('must be a time zone such as Europe/London')).toBeVisible();
    await expectAccessible(page, 'The clinic itself');
    await page.getByLabel('Time zone').fill('Europe/Dublin');
    await page.getByRole('button', { name: 'Keep' }).click();
    await expect(page.getByText('Kept.')).toBeVisible();
  });

  await test.step('all of it is in the log, and only of this clinic', async () => {
    await page.getByRole('link', { name: 'Who saw and changed what' }).click();
    const log = page.getByRole('region', { name: 'The log' });
    await expect(log.getByText('changed what the clinic says of itself')).toBeVisible();
    await expect(log.getByText('let leave someone of the clinic')).toBeVisible();
    await expect(log.getByText('Orla Rendell')).toHaveCount(0);
    await page.getByLabel('What', { exact: true }).selectOption('signed');
    await expect(log.getByText('changed what the clinic says of itself')).toHaveCount(0);
    await expect(log.getByText('signed in').first()).toBeVisible();
    await expectAccessible(page, 'The log');
  });

  await test.step('a second step: set up by the password, asked for at the next sign-in, a kept code when it is lost', async () => {
    await page.getByRole('button', { name: /, account/ }).click();
    await page.getByRole('menuitem', { name: 'Account and devices' }).click();
    await page.getByText('Second step of signing in: off').click();
    await page.getByLabel('Password', { exact: true }).fill(GOOD);
    await page.getByRole('button', { name: 'Set it up' }).click();
    await expect(page.getByRole('img', { name: 'Picture for the authenticator' })).toBeVisible();
    await expectAccessible(page, 'Setting up the second step');
    const secret = bytesOf(
      (await page.getByRole('dialog').locator('code').innerText()).replaceAll(/\s/g, ''),
    );
    await page.getByLabel('The code it shows').fill('12');
    await page.getByRole('button', { name: 'Switch it on' }).click();
    await expect(page.getByText('Type the six digits that the authenticator shows')).toBeVisible();
    await page.getByLabel('The code it shows').fill(codeOf(secret, Date.now() / 1000));
    await page.getByRole('button', { name: 'Switch it on' }).click();
    const codes = page.getByRole('region', { name: 'Codes for when the authenticator is lost' });
    const kept = await codes.getByRole('listitem').first().innerText();
    await page.getByRole('button', { name: 'Close' }).click();
    await page.getByRole('button', { name: /, account/ }).click();
    await page.getByRole('menuitem', { name: 'Sign out' }).click();
    await comeIn(page, 'ada@millbrook.example');
    const code = page.getByLabel(/^Code of your authenticator/);
    await expectAccessible(page, 'Asked for the code');
    await code.fill('000000');
    await page.getByRole('button', { name: 'Sign in' }).click();
    await expect(page.getByText('This code is not the one of now, or was used already')).toBeVisible();
    await code.fill(kept);
    await page.getByRole('button', { name: 'Sign in' }).click();
    await expect(page.getByRole('heading', { level: 1 })).toContainText(/look/);
  });

  await test.step('and its first plan is given', async () => {
    await page.getByRole('link', { name: 'People', exact: true }).click();
    await expect(page.getByText('Nobody is here yet.')).toBeVisible();
    await page.getByRole('button', { name: 'Add a person' }).click();
    await page.getByLabel('Name', { exact: true }).fill('Wilf Åberg');
    await page.getByLabel('Date of birth').fill('1979-05-06');
    await page.getByRole('button', { name: 'Add', exact: true }).click();
    await page.getByRole('radio', { name: 'right R' }).click();
    await page.getByRole('radio', { name: /Plantar heel pain/ }).click();
    await page.getByRole('button', { name: 'Begin the first visit' }).click();
    await page.getByRole('checkbox', { name: 'inner heel, right' }).click();
    await choose(page, /how it began/, 'gradually');
    await choose(page, /worst pain/, 'worst pain 5');
    await choose(page, /pain now/, 'pain now 1');
    await expect(saved(page)).toBeVisible();
    await goToStep(page, 'Safety');
    await answerSafety(page);
    await expect(page.getByRole('complementary').getByText(/Safety answered/)).toBeVisible();
    await goToStep(page, 'Load');
    await takeTrials(page, 'Single-leg heel raise', 'left', ['21']);
    await takeTrials(page, 'Single-leg heel raise', 'right', ['9']);
    await expect(saved(page)).toBeVisible();
    await goToStep(page, 'Conclude');
    await page.getByRole('button', { name: 'Agree: Plantar heel pain, right' }).click();
    await choose(page, /which stage/, 'Build the foot');
    await expect(saved(page)).toBeVisible();
    await page.getByRole('button', { name: 'Sign, and make the plan' }).click();
    await page.getByRole('button', { name: 'Make the plan' }).click();
    await page.getByRole('button', { name: 'Give to Wilf' }).click();
    await expect(page.getByText(/^version 1, given/)).toBeVisible();
  });
});

test('the log of one person’s record, and one’s own password', async ({ page }) => {
  await signIn(page, 'orla.rendell');
  await turnTo(page, '/people?add=1');
  await page.getByLabel('Name', { exact: true }).fill('Ossian Pell');
  await page.getByRole('button', { name: 'Add', exact: true }).click();
  await expect(page.getByRole('heading', { level: 1, name: 'Ossian Pell' })).toBeVisible();
  await turnTo(page, '/clinic/audit');
  await page.getByLabel('Whose record').fill('ossi');
  await page.getByRole('button', { name: /Ossian Pell/ }).click();
  const log = page.getByRole('region', { name: 'The log' });
  await expect(log.getByText('added a person')).toHaveCount(1);
  await expect(log.getByRole('link', { name: 'Ossian Pell' }).first()).toBeVisible();
  await page.getByRole('button', { name: /, account/ }).click();
  await page.getByRole('menuitem', { name: 'Account and devices' }).click();
  await page.getByText('Another password').click();
  await page.getByLabel('The one you have').fill('not this one');
  await page.getByLabel('The new one').fill(GOOD);
  await page.getByRole('button', { name: 'Change it' }).click();
  await expect(page.getByText('This is not the password you have')).toBeVisible();
  await expectAccessible(page, 'Another password');
});

test('pages that nobody touches are locked, and stand as they were for the same person again', async ({
  page,
}) => {
  await page.clock.install();
  await signIn(page, 'wren.atley');
  await turnTo(page, '/people?add=1');
  await page.getByLabel('Name', { exact: true }).fill('Half a na');
  // A window stands open over it.
  await page.getByRole('button', { name: /account/ }).click();
  await page.getByRole('menuitem', { name: 'Account and devices' }).click();
  await page.clock.fastForward('29:00');
  await expect(page.getByRole('heading', { name: 'Locked' })).toBeHidden();
  await page.clock.fastForward('02:00');
  await expect(page.getByRole('heading', { name: 'Locked' })).toBeVisible();
  await expect(page.getByLabel('Name', { exact: true })).toBeHidden();
  await expectAccessible(page, 'Locked pages');
  // The server gives nothing any more, whatever the page shows.
  await expect.poll(async () => (await page.request.get(url('/api/day'))).status()).toBe(401);
  const lock = page.getByRole('dialog', { name: 'Locked' });
  await page.keyboard.press('Escape');
  await lock.getByLabel('Password').fill('not it');
  await lock.getByRole('button', { name: 'Go on' }).click();
  await expect(lock.getByText('E-mail and password do not match')).toBeVisible();
  await lock.getByLabel('Password').fill(process.env['E2E_PASSWORD'] ?? '');
  await lock.getByRole('button', { name: 'Go on' }).click();
  await expect(page.getByRole('heading', { name: 'Locked' })).toBeHidden();
  await page.getByRole('dialog').getByRole('button', { name: 'Close' }).click();
  await expect(page.getByLabel('Name', { exact: true })).toBeVisible();
  await expect(page.getByLabel('Name', { exact: true })).toHaveValue('Half a na');
  expect((await page.request.get(url('/api/day'))).status()).toBe(200);
});

test('a lead decides what holds for all; a visit outside the hours says so', async ({ page }) => {
  await signIn(page, 'orla.rendell');
  await turnTo(page, '/clinic/rules');
  await page.getByLabel('A visit that is planned outside them says so').check();
  const from = page.getByLabel('Monday from');
  await from.fill('19:00');
  await page.getByLabel('Beside the telephone, on handout and phone').fill('Answered from 8 to 18');
  await page.getByRole('button', { name: 'Keep' }).click();
  await expect(page.getByText('from an earlier time to a later one')).toBeVisible();
  await from.fill('08:30');
  await page.getByRole('button', { name: 'Keep' }).click();
  await expect(page.getByText('Kept.')).toBeVisible();
  await expectAccessible(page, 'What holds for all');
  await page.getByLabel('Signing in asks everyone for a second step').check();
  await page.getByRole('button', { name: 'Keep' }).click();
  await expect(page.getByText('Set up your own second step first')).toBeVisible();
  await turnTo(page, '/day');
  await page.getByRole('button', { name: 'Plan a visit' }).click();
  const dialog = page.getByRole('dialog', { name: 'Plan a visit' });
  await dialog.getByLabel('Day').fill('2030-01-05');
  await dialog.getByLabel('Time').fill('10:00');
  await expect(dialog.getByText('The clinic is closed on this day of the week.')).toBeVisible();
  await dialog.getByLabel('Day').fill('2030-01-07');
  await dialog.getByLabel('Time').fill('08:00');
  await expect(
    dialog.getByText('Outside the hours of the clinic, 08:30 to 18:00 on this day.'),
  ).toBeVisible();
  await dialog.getByLabel('Time').fill('08:30');
  await expect(dialog.getByText('Outside the hours')).toBeHidden();
});

test('a device that knows its owner is added, and signs in without a password', async ({ page }) => {
  const device = await page.context().newCDPSession(page);
  await device.send('WebAuthn.enable');
  await device.send('WebAuthn.addVirtualAuthenticator', {
    options: {
      protocol: 'ctap2',
      transport: 'internal',
      hasResidentKey: true,
      hasUserVerification: true,
      isUserVerified: true,
      automaticPresenceSimulation: true,
    },
  });
  // A passkey belongs to an address with a name.
  const named = (path: string) => url(path).replace('127.0.0.1', 'localhost');
  await page.goto(named('/sign-in'));
  await page.getByLabel('E-mail').fill('wren.atley@heathstep.example');
  await page.getByLabel('Password').fill(process.env['E2E_PASSWORD'] ?? '');
  await page.getByRole('button', { name: 'Sign in' }).click();
  await page.getByRole('button', { name: /account/ }).click();
  await page.getByRole('menuitem', { name: 'Account and devices' }).click();
  const dialog = page.getByRole('dialog');
  await dialog.getByText('Passkeys: none').click();
  const form = dialog.locator('form').filter({ has: page.getByLabel('Name of the device') });
  await form.getByLabel('Name of the device').fill('Tablet at the bench');
  await form.getByLabel('Password').fill('not it');
  await form.getByRole('button', { name: 'Add this device' }).click();
  await expect(form.getByText('This is not the password you have')).toBeVisible();
  await form.getByLabel('Password').fill(process.env['E2E_PASSWORD'] ?? '');
  await form.getByRole('button', { name: 'Add this device' }).click();
  await expect(dialog.getByText('Passkeys: 1')).toBeVisible();
  await expectAccessible(page, 'Passkeys');
  await dialog.getByRole('button', { name: 'Close' }).click();
  await page.getByRole('button', { name: /account/ }).click();
  await page.getByRole('menuitem', { name: 'Sign out' }).click();
  await page.getByRole('button', { name: 'With a passkey' }).click();
  await expect(page.getByRole('heading', { level: 1 })).toContainText(/look/);
});
