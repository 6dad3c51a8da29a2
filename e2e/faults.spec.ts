import type { Page } from '@playwright/test';
import {
  expect,
  expectAccessible,
  goToStep,
  openPerson,
  openPhone,
  saved,
  signIn,
  takeTrials,
  test,
  url,
} from './support.js';

async function openMeasure(page: Page, step = 'Measure'): Promise<void> {
  await openPerson(page, 'Marit Osgar', 'Visit');
  const start = page.getByRole('button', { name: 'Start a review' });
  const steps = page.getByRole('navigation', { name: 'Steps of the visit' });
  await expect(start.or(steps)).toBeVisible();
  if (await start.isVisible()) await start.click();
  await goToStep(page, step);
}

const RAISE = 'Single-leg heel raise, left, trial 1';

test('a lost server while typing: nothing is lost, a clear state, sent again', async ({ page, context }) => {
  await signIn(page);
  await openMeasure(page, 'Load');
  await context.setOffline(true);
  await takeTrials(page, 'Single-leg heel raise', 'left', ['11']);
  await expect(page.locator('[data-status="unreachable"]')).toContainText('kept on this device');
  await takeTrials(page, 'Single-leg heel raise', 'right', ['17']);
  await page.setViewportSize({ width: 1280, height: 420 });
  await page.evaluate(() => window.scrollTo(0, document.body.scrollHeight));
  await expect(page.getByRole('heading', { name: 'Load', exact: true })).not.toBeInViewport();
  await expect(page.getByRole('button', { name: 'Try now' })).toBeInViewport();
  await context.setOffline(false);
  await expect(saved(page)).toBeVisible();
  await page.reload();
  await expect(page.getByLabel(RAISE)).toHaveValue('11');
  await expect(page.getByLabel('Single-leg heel raise, right, trial 1')).toHaveValue('17');
});

test('a crash before anything was sent: the draft is on the device and sent on the next opening', async ({
  page,
  context,
}) => {
  await signIn(page);
  await openMeasure(page);
  await page.route('**/api/visits/*/entries', (route) => route.abort());
  await takeTrials(page, 'Foot shortening hold', 'left', ['8']);
  await expect(page.locator('[data-status="unreachable"]')).toBeVisible();
  const address = page.url();
  await page.close();
  const again = await context.newPage();
  await again.goto(address);
  await expect(again.getByLabel('Foot shortening hold, left, trial 1')).toHaveValue('8');
  await expect(saved(again)).toBeVisible();
});

test('two people in one visit: the second is told, both values stand until one is chosen', async ({
  page,
  browser,
}) => {
  await signIn(page);
  await openMeasure(page, 'Load');
  const other = await (await browser.newContext({ viewport: { width: 1280, height: 800 } })).newPage();
  await signIn(other, 'orla.rendell');
  await openMeasure(other, 'Load');
  await expect(other.getByText('Tomas Fell is writing here too, in load')).toBeVisible();
  await expect(page.getByText('Orla Rendell is writing here too, in load')).toBeVisible();
  await takeTrials(other, 'Single-leg heel raise', 'right', ['18']);
  await expect(page.getByLabel('Single-leg heel raise, right, trial 1')).toHaveValue('18');
  // From here the first person hears nothing of the second until saving.
  await page.route('**/presence', (route) => route.abort());
  await takeTrials(other, 'Single-leg heel raise', 'left', ['13']);
  await expect(saved(other)).toBeVisible();
  await takeTrials(page, 'Single-leg heel raise', 'left', ['14']);
  const told = page.getByRole('alert').filter({ hasText: 'Orla Rendell' });
  await expect(told).toContainText('Orla Rendell wrote');
  await expect(told.getByText('13', { exact: true })).toBeVisible();
  await expect(told.getByText('14', { exact: true })).toBeVisible();
  await expect(page.getByLabel(RAISE)).toHaveValue('14');
  await told.getByRole('button', { name: 'Keep mine' }).click();
  await expect(saved(page)).toBeVisible();
  await page.reload();
  await expect(page.getByLabel(RAISE)).toHaveValue('14');
  await other.context().close();
});

test('text, emoji and undo in a field for a number', async ({ page }) => {
  await signIn(page);
  await openMeasure(page);
  const field = page.getByLabel('Lunge, knee straight, left, trial 1');
  await field.fill('24');
  await expect(saved(page)).toBeVisible();
  await field.fill('😀');
  await expect(page.getByText('Type a number such as 34 or 34.5')).toBeVisible();
  await expect(field).toHaveValue('😀');
  await field.fill('x'.repeat(10_000));
  await expect(page.getByText('Type a number such as 34 or 34.5')).toBeVisible();
  await field.fill('25');
  await expect(saved(page)).toBeVisible();
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(field).toHaveValue('');
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(field).toHaveValue('24');
  // What was taken back is said, and made again by press or by key.
  await expect(page.getByRole('status', { name: 'What was taken back' })).toHaveText(
    'Taken back: Lunge, knee straight, left, now 24',
  );
  await page.getByRole('button', { name: 'Redo' }).click();
  await expect(field).toHaveValue('');
  await page.keyboard.press('Control+Shift+z');
  await expect(field).toHaveValue('25');
  await expect(page.getByRole('button', { name: 'Redo' })).toBeHidden();
  await page.getByRole('button', { name: 'Undo' }).focus();
  await page.keyboard.press('Control+z');
  await expect(field).toHaveValue('');
  await page.keyboard.press('Control+y');
  await expect(field).toHaveValue('25');
});

test('the keyboard alone: trials by Enter and arrows, safety by arrows, Why by W', async ({ page }) => {
  await signIn(page);
  await openMeasure(page);
  await page.getByLabel('Lunge, knee bent, left, trial 1').focus();
  for (const value of ['31', '32', '33', '40', '40', '41']) {
    await page.keyboard.type(value);
    await page.keyboard.press('Enter');
  }
  await expect(page.getByLabel('Lunge, knee bent, right, trial 3')).toHaveValue('41');
  await expect(page.getByLabel('Lunge, knee straight, left, trial 1')).toBeFocused();
  await page.keyboard.press('ArrowUp');
  await page.keyboard.press('p');
  const pain = page.getByRole('group', { name: 'Pain while doing it, left' });
  await expect(pain.getByRole('button', { name: 'Pain while doing it, left 0' })).toBeFocused();
  await page.keyboard.press('2');
  await expect(pain.getByRole('button', { name: 'Pain while doing it, left 2' })).toHaveAttribute(
    'aria-pressed',
    'true',
  );
  await page.keyboard.press('Enter');
  await expect(page.getByLabel('Lunge, knee straight, left, trial 1')).toBeFocused();
  await page.keyboard.press('ArrowUp');
  await expect(page.getByLabel('Lunge, knee bent, left, trial 1')).toBeFocused();
  await page.getByRole('button', { name: /^Lunge, knee bent, left: 32/ }).press('w');
  await expect(page.getByRole('dialog').getByText('(31 + 32 + 33) / 3 = 32°')).toBeVisible();
  await expect(page.getByRole('dialog')).toBeFocused();
  await page.keyboard.press('Escape');
  await expect(page.getByRole('dialog')).toBeHidden();
  await page
    .getByRole('navigation', { name: 'Steps of the visit' })
    .getByRole('link', { name: /Safety/ })
    .press('Enter');
  const first = page.getByRole('radiogroup').first();
  await first.getByRole('radio', { name: 'No' }).focus();
  await page.keyboard.press('ArrowRight');
  await expect(first.getByRole('radio', { name: 'Left' })).toBeChecked();
  await page.keyboard.press('ArrowLeft');
  await expect(first.getByRole('radio', { name: 'No' })).toBeChecked();
});

test('a reading with all its decimals goes on by itself, and the hand’s own way on does nothing twice', async ({
  page,
}) => {
  await signIn(page);
  await openMeasure(page);
  const trial = (measure: string, side: string, n: number) =>
    page.getByLabel(`${measure}, ${side}, trial ${n}`, { exact: true });
  const straight = (side: string, n: number) => trial('Lunge, knee straight', side, n);
  await straight('left', 1).focus();
  await page.keyboard.type('31.5');
  await expect(straight('left', 2)).toBeFocused();
  // Enter by habit, and Tab: already there.
  await page.keyboard.press('Enter');
  await expect(straight('left', 2)).toBeFocused();
  await page.keyboard.type('32,5');
  await page.keyboard.press('Tab');
  await expect(straight('left', 3)).toBeFocused();
  // A whole number may still get its decimal: it waits.
  await page.keyboard.type('33');
  await expect(straight('left', 3)).toBeFocused();
  await page.keyboard.type('.5');
  await expect(straight('right', 1)).toBeFocused();
  // P right after is the pain of what was measured, not of the side that comes.
  await page.keyboard.press('p');
  await expect(page.getByRole('button', { name: 'Pain while doing it, left 0' })).toBeFocused();
  await page.keyboard.press('Enter');
  await expect(straight('right', 1)).toBeFocused();
  // What is not possible stays where it can be mended.
  await page.keyboard.type('345.5');
  await expect(straight('right', 1)).toBeFocused();
  await expect(page.getByRole('alert')).toContainText('Lunge, knee straight lies between');
  await straight('right', 1).fill('');
  await page.keyboard.type('34.5');
  await expect(straight('right', 2)).toBeFocused();
  // Backspace right after takes from what was typed last, and a unit belongs to it.
  await page.keyboard.press('Backspace');
  await page.keyboard.type('2');
  await expect(straight('right', 1)).toHaveValue('34.2');
  await page.keyboard.type(' °');
  await expect(straight('right', 1)).toHaveValue('34.2 °');
  await expect(straight('left', 1)).toHaveValue('31.5');
  await expect(straight('left', 2)).toHaveValue('32,5');
  await expect(straight('right', 2)).toHaveValue('');
  await expect(saved(page)).toBeVisible();
});

test('a wrong home link is a kind page that tells nothing', async ({ browser }) => {
  const phone = await openPhone(browser);
  await phone.goto(url('/home#AAAAAAAAAAAAAAAAAAAAAA'));
  await phone.getByRole('textbox').fill('123456');
  await phone.getByRole('button', { name: 'Open' }).click();
  await expect(phone.getByText(/^That does not open\. Check the code/)).toBeVisible();
  await expect(phone.getByText(/Osgar|Venning|Heathstep demo clinic/)).toHaveCount(0);
  await expectAccessible(phone, 'Home, wrong link');
  await phone.goto(url('/home'));
  await expect(phone.getByRole('heading', { name: 'This link does not open' })).toBeVisible();
  await phone.context().close();
});

test('it hurts: an emergency is shown at once, without a connection too, and the clinic sees it', async ({
  page,
  browser,
}) => {
  await signIn(page);
  // A visit is open, so that what is told from home is seen within it.
  await openMeasure(page);
  await openPerson(page, 'Marit Osgar', 'Plan');
  await page.getByRole('button', { name: 'Make a link' }).click();
  const link = (await page.getByTestId('home-link').textContent()) ?? '';
  const code = (await page.getByTestId('home-code').textContent()) ?? '';
  const phone = await openPhone(browser);
  await phone.goto(link);
  await phone.getByRole('textbox').fill(code);
  await phone.getByRole('button', { name: 'Open' }).click();
  await phone.getByRole('button', { name: /It hurts/ }).click();
  await expectAccessible(phone, 'Home, it hurts');
  await phone.context().setOffline(true);
  await phone.getByRole('button', { name: 'Chest pain' }).click();
  await expect(phone.getByRole('heading', { name: 'Stop. Call now.' })).toBeVisible();
  await expect(phone.getByRole('link', { name: 'Call 999' })).toHaveAttribute('href', 'tel:999');
  await expectAccessible(phone, 'Home, emergency');
  await phone.getByRole('button', { name: 'Close' }).click();
  await expect(phone.getByText(/No connection just now/)).toBeVisible();
  await expect(phone.getByText(/needs help at once. Call 999 now/)).toBeVisible();
  await expect(phone.getByRole('button', { name: 'Start' })).toHaveCount(0);
  await phone.context().setOffline(false);
  await expect(phone.getByText(/No connection just now/)).toBeHidden({ timeout: 15_000 });
  await expect(phone.getByText(/needs help at once. Call 999 now/)).toBeVisible();
  await page.getByRole('link', { name: 'Day' }).click();
  await expect(page.getByRole('link', { name: /Marit Osgar/ })).toContainText('Stop sign reported at home');
  await page.getByRole('link', { name: /Marit Osgar/ }).click();
  await expect(page.getByRole('heading', { name: 'Refer before going on' })).toBeVisible();
  await expect(page.getByRole('status', { name: 'Open stop signs' })).toContainText('Emergency: Chest pain');
  await openPerson(page, 'Marit Osgar', 'Visit');
  await expect(page.getByRole('link', { name: 'Reported at home: Chest pain' })).toBeVisible();
  await expect(page.getByText('Most telling next')).toHaveCount(0);
  await openPerson(page, 'Marit Osgar', 'Course');
  await page.getByRole('button', { name: 'Close with result' }).click();
  await page.getByLabel('By whom').fill('Emergency department');
  await page.getByLabel('What was done').selectOption('dealt-with');
  await page.getByLabel(/Result/).fill('Heart and lungs clear');
  await page.getByRole('button', { name: 'Close it' }).click();
  await expect(page.getByText('Stop sign reported at home')).toBeHidden();
  await phone.context().close();
});

test('signing in: wrong password, the next page, and every remaining view by axe', async ({ page }) => {
  await page.goto(url('/people'));
  await expect(page).toHaveURL(/sign-in\?next=%2Fpeople/);
  await page.getByLabel('E-mail').fill('tomas.fell@heathstep.example');
  await page.getByLabel('Password').fill('wrong');
  await page.getByRole('button', { name: 'Sign in' }).click();
  await expect(page.getByText('E-mail and password do not match')).toBeVisible();
  await expectAccessible(page, 'Sign in');
  await page.getByLabel('Password').fill(process.env['E2E_PASSWORD'] ?? '');
  await page.getByRole('button', { name: 'Sign in' }).click();
  await expect(page.getByRole('heading', { name: 'People' })).toBeVisible();
  await expect(page.getByText(/^Since you last signed in, someone tried once/)).toBeVisible();
  await expectAccessible(page, 'People');
  await page.getByRole('button', { name: 'Where I am signed in' }).click();
  const account = page.getByRole('dialog', { name: 'Tomas Fell' });
  await expect(account.getByText(', this one')).toBeVisible();
  await account.getByLabel(/^Number in the register/).fill('PH 4711');
  await account.getByRole('button', { name: 'Keep' }).click();
  await expect(account.getByText('Kept.')).toBeVisible();
  await expectAccessible(page, 'Account');
  await account.getByRole('button', { name: 'Close' }).click();
  await page.getByRole('button', { name: 'It was me' }).click();
  await expect(page.getByText(/^Since you last signed in/)).toBeHidden();
  await page.getByRole('button', { name: 'Add a person' }).click();
  await page.getByRole('button', { name: 'Add', exact: true }).click();
  await expect(page.getByText('Type a name of 1 to 80 characters')).toBeVisible();
  await expectAccessible(page, 'Add a person');
  await page.getByRole('button', { name: 'Fill in a made-up one, to practise on' }).click();
  await expect(page.getByLabel('Name', { exact: true })).toHaveValue(/ \(made up\)$/);
  await expect(page.getByLabel('Work or main activity')).toHaveValue('made up, to practise on');
  await page.getByLabel('Name', { exact: true }).fill('');
  await page.getByLabel(/^Date of birth/).fill('');
  await page.getByLabel('Work or main activity').fill('');
  await page.getByRole('button', { name: 'Not now' }).click();
  await page.getByRole('link', { name: /Pell Aldous/ }).click();
  await expect(page.getByText('Nothing is recorded yet')).toBeVisible();
  await expectAccessible(page, 'A new referral');
  await page.getByRole('link', { name: 'People' }).first().click();
  await page.getByLabel('Find by name').fill('no such name');
  await expect(page.getByText('Nobody has "no such name"')).toBeVisible();
  await page.getByRole('link', { name: 'Day' }).click();
  await expect(page.getByRole('heading', { level: 1 })).toContainText('look');
  await expectAccessible(page, 'Day');
  await page.goto(url('/episodes/00000000-0000-4000-8000-000000000000/course'));
  await expect(page.getByRole('heading', { name: 'There is nothing here' })).toBeVisible();
  await expectAccessible(page, 'Nothing here');
  await page.getByRole('link', { name: 'Go to today' }).click();
  await page.getByRole('button', { name: /account/ }).click();
  await page.getByRole('menuitem', { name: 'Sign out' }).click();
  await expect(page.getByRole('heading', { name: 'Sign in' })).toBeVisible();
});

test('the second press of a double press never opens what stands on the next page', async ({ page }) => {
  await signIn(page);
  const press = async (times: number) => {
    await page.mouse.down({ clickCount: times });
    await page.mouse.up({ clickCount: times });
  };
  const row = page.getByRole('link', { name: /Pell Aldous/ });
  await page.getByRole('link', { name: 'People' }).first().hover();
  await press(1);
  // The day names them too: the second press is for the next place, once it is there.
  await expect(page.getByRole('heading', { level: 1, name: 'People' })).toBeVisible();
  await row.hover();
  await row.evaluate((link) => link.addEventListener('click', () => link.setAttribute('data-pressed', '')));
  await press(2);
  await expect(row).not.toHaveAttribute('data-pressed');
  await expect(page).toHaveURL(url('/people'));
  await row.hover();
  await press(1);
  await expect(page.getByRole('heading', { level: 1, name: 'Pell Aldous' })).toBeVisible();
});
