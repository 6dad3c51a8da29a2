import { expect, expectAccessible, openPerson, signIn, test, url } from './support.js';

test('by night: as the system says until one is chosen, readable everywhere, and paper stays light', async ({
  page,
}) => {
  await page.emulateMedia({ colorScheme: 'dark' });
  await signIn(page);
  const html = page.locator('html');
  await expect(html).toHaveAttribute('data-theme', 'dark');
  await expectAccessible(page, 'Day by night');
  await openPerson(page, 'Oskar Thwaite', 'Course');
  await expectAccessible(page, 'Course by night');
  await openPerson(page, 'Oskar Thwaite', 'Plan');
  await expectAccessible(page, 'Plan by night');

  await page.getByRole('button', { name: /, account/ }).click();
  await expectAccessible(page, 'The menu by night');
  await page.getByRole('menuitemradio', { name: 'light' }).click();
  await expect(html).toHaveAttribute('data-theme', 'light');
  await page.goto(url('/measures'));
  await expect(html).toHaveAttribute('data-theme', 'light');
  await page.getByRole('button', { name: /, account/ }).click();
  await page.getByRole('menuitemradio', { name: 'as the system' }).click();
  await expect(html).toHaveAttribute('data-theme', 'dark');
  await page.keyboard.press('Escape');
  await page.emulateMedia({ colorScheme: 'light' });
  await expect(html).toHaveAttribute('data-theme', 'light');
  await page.emulateMedia({ colorScheme: 'dark', media: 'print' });
  expect(await html.evaluate((e) => getComputedStyle(e).backgroundColor)).toBe('rgb(255, 255, 255)');
});
