import { expect, test } from '@playwright/test';
import { expectAccessible, signIn } from './support.js';

test('the library: find by words and by choices, see it move on either side, compare two', async ({
  page,
}) => {
  await signIn(page);
  await page.getByRole('link', { name: 'Exercises', exact: true }).click();
  await expect(page.getByRole('heading', { level: 1, name: 'Exercises' })).toBeVisible();
  const stairs = page.getByRole('region', { name: 'Heel raise' });
  await expect(stairs.getByRole('link')).toHaveCount(6);
  await expect(stairs.getByRole('img', { name: 'Heel raise on one leg, drawn' })).toBeVisible();
  await expectAccessible(page, 'Exercises');

  await test.step('nothing fits, and the way back', async () => {
    await page.getByLabel('Find an exercise').fill('no such words');
    await expect(page.getByText(/No exercise fits all of this/)).toBeVisible();
    await page.getByRole('button', { name: 'Show all' }).click();
  });

  await test.step('narrowed by what is at home and what is to be avoided, with counts', async () => {
    await page.getByLabel('equipment').selectOption('towel');
    await page.getByLabel('free of').selectOption('weight-bearing');
    await expect(page.getByRole('status')).toHaveText(/^2 of \d+$/);
    await page.getByRole('link', { name: /^Towel gather, drawn/ }).click();
  });

  await test.step('one exercise, moving, on the left and on the right', async () => {
    await expect(page.getByRole('heading', { level: 1, name: 'Towel gather' })).toBeVisible();
    const figure = page.getByRole('img', { name: 'Towel gather, drawn on the right' });
    const before = await figure.innerHTML();
    await expect.poll(() => figure.innerHTML()).not.toBe(before);
    await page.getByRole('button', { name: 'left', exact: true }).click();
    await expect(page.getByRole('img', { name: 'Towel gather, drawn on the left' })).toHaveCSS(
      'transform',
      'matrix(-1, 0, 0, 1, 0, 0)',
    );
    await expectAccessible(page, 'Exercise');
    await page.getByRole('link', { name: 'Towel gather with a weight' }).click();
    await expect(page.getByRole('heading', { level: 1, name: 'Towel gather with a weight' })).toBeVisible();
  });

  await test.step('two beside each other', async () => {
    await page.getByLabel('Compare with').selectOption({ label: 'Bridge' });
    await expect(page.getByRole('heading', { level: 1, name: 'Bridge' })).toBeVisible();
    await expect(page.getByRole('article')).toHaveCount(2);
    await expectAccessible(page, 'Two exercises');
  });
});

test('someone who wants less movement sees the start behind the end, still', async ({ browser }) => {
  const page = await (await browser.newContext({ reducedMotion: 'reduce' })).newPage();
  await signIn(page);
  await page.goto(page.url().replace(/day$/, 'library/raise-one-leg'));
  const figure = page.getByRole('img', { name: /drawn on the right/ });
  await expect(figure.locator('path[opacity]').first()).toBeAttached();
  const before = await figure.innerHTML();
  await page.evaluate(() => new Promise((done) => requestAnimationFrame(() => requestAnimationFrame(done))));
  expect(await figure.innerHTML()).toBe(before);
});
