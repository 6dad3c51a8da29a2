import { expect, test } from '@playwright/test';
import { expectAccessible, signIn } from './support.js';

test('one field finds people, measures, exercises and places, in either tongue; a question mark shows the keys', async ({
  page,
}) => {
  await signIn(page);
  const field = page.getByRole('combobox', { name: 'Look up' });
  const found = page.getByRole('listbox', { name: 'Found' });

  await page.keyboard.press('Control+k');
  await expect(field).toBeFocused();
  await expect(found.getByRole('option', { name: /Protocols/ })).toBeVisible();
  await expectAccessible(page, 'Look up, nothing asked');
  await field.fill('dorsiflexion');
  await expect(found.getByRole('option').first()).toContainText('Lunge, knee bent');
  await expectAccessible(page, 'Look up, found');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('heading', { name: 'Lunge, knee bent' })).toBeVisible();
  await expect(page.getByText('weight-bearing lunge test', { exact: false })).toBeVisible();

  await page.keyboard.press('Control+k');
  await field.fill('thwaite osk');
  await expect(found.getByRole('option').first()).toContainText('Oskar Thwaite');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('heading', { name: 'Oskar Thwaite' })).toBeVisible();

  await page.getByRole('button', { name: /^Look up/ }).click();
  await field.fill('heavy slow resistence');
  await expect(
    found
      .getByRole('option', { name: /Slow heel raise on the towel$|Slow heel raise on the towel / })
      .first(),
  ).toBeVisible();
  await field.fill('zzqqxx');
  await expect(page.getByText('Nothing has these words. Try a shorter one.')).toBeVisible();
  await page.keyboard.press('Escape');

  await page.keyboard.press('?');
  await expect(page.getByRole('dialog', { name: 'Keys' })).toContainText('takes the last entry back');
  await expectAccessible(page, 'Keys');
  await page.keyboard.press('Escape');
  await expect(page.getByRole('dialog')).toHaveCount(0);
});
