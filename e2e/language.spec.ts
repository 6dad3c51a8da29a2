import { expect, expectAccessible, openPerson, openPhone, signIn, test } from './support.js';

test('someone who reads German does so everywhere, and the clinic reads what they report in its own words', async ({
  page,
  browser,
}) => {
  await signIn(page);
  await openPerson(page, 'Einar Combe', 'Plan');
  await page.getByRole('combobox', { name: 'Reads' }).selectOption('Deutsch');
  await page.getByRole('button', { name: 'Make a link' }).click();
  const link = (await page.getByTestId('home-link').textContent()) ?? '';
  const code = (await page.getByTestId('home-code').textContent()) ?? '';

  await page.getByRole('link', { name: 'Print the handout' }).click();
  await expect(page.getByRole('heading', { level: 1, name: 'Einar, Ihr Plan' })).toBeVisible();
  await expect(page.getByText('Zu spüren ist:').first()).toBeVisible();
  await expectAccessible(page, 'Handout in German');

  const phone = await openPhone(browser);
  await phone.goto(link);
  await phone.getByRole('textbox').fill('000000' === code ? '111111' : '000000');
  await phone.getByRole('button', { name: 'Open' }).click();
  await expect(phone.getByRole('alert')).toContainText('That does not open.');
  await phone.getByRole('textbox').fill(code);
  await phone.getByRole('button', { name: 'Open' }).click();
  await expect(phone.getByRole('heading', { name: 'Guten Tag, Einar' })).toBeVisible();
  await expect(phone.locator('html')).toHaveAttribute('lang', 'de');
  await expectAccessible(phone, 'Home in German');

  await phone.getByRole('button', { name: 'Es schmerzt, oder etwas stimmt nicht' }).click();
  await phone.getByRole('button', { name: 'Neue Schwellung' }).click();
  await expect(phone.getByRole('heading', { name: 'Für heute aufhören' })).toBeVisible();
  await expect(phone.getByText('Ihre Praxis weiß Bescheid.')).toBeVisible();
  await phone.getByRole('button', { name: 'Schließen' }).click();
  await expect(phone.getByText('Sie haben ein Stoppzeichen gemeldet.', { exact: false })).toBeVisible();

  await test.step('kept on the phone: the next visit begins in German, before the code', async () => {
    await phone.evaluate(() => sessionStorage.clear());
    await phone.context().clearCookies();
    await phone.goto(link);
    await phone.reload();
    await expect(phone.getByRole('heading', { name: 'Ihre Übungen' })).toBeVisible();
  });

  await openPerson(page, 'Einar Combe', 'Course');
  await expect(page.getByRole('status', { name: 'Open stop signs' })).toContainText('New swelling');
  await phone.context().close();
});
