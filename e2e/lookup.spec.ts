import { expect, expectAccessible, signIn, test } from './support.js';

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
  await page.getByRole('tab', { name: 'Words' }).click();
  await page.getByLabel('Find a word').fill('contraindication');
  await expect(page.getByRole('dialog')).toContainText('Safety switches off');
  await expectAccessible(page, 'Words');
  await page.getByRole('tab', { name: 'What changed' }).click();
  await expect(page.getByRole('dialog', { name: 'What changed' })).toContainText('too early today');
  await expectAccessible(page, 'What changed');
  await page.keyboard.press('Escape');
  await expect(page.getByRole('dialog')).toHaveCount(0);
});

test('someone who is here already is shown before they are added again', async ({ page }) => {
  await signIn(page);
  await page.getByRole('link', { name: 'Add a person' }).click();
  const name = page.getByLabel('Name', { exact: true });
  await name.fill('Thwaite');
  await expect(page.getByRole('heading', { level: 1, name: 'People' })).toBeVisible();
  await name.fill('thwaite oskar');
  await expect(page.getByText('Perhaps here already')).toBeVisible();
  await page.getByLabel('Date of birth').fill('2003-01-22');
  await expect(page.getByText('Here already, by name and date of birth')).toBeVisible();
  await expectAccessible(page, 'Add a person who is here');
  // Another name, born on the same day.
  await name.fill('Somebody Else');
  await expect(page.getByText('Perhaps here already')).toBeVisible();
  await page.getByLabel('Date of birth').fill('1931-02-03');
  await expect(page.getByText('Perhaps here already')).toBeHidden();
  await name.fill('Oskar Thwaite');
  await page.getByRole('form', { name: 'Add a person' }).getByRole('link', { name: 'Oskar Thwaite' }).click();
  await expect(page.getByRole('heading', { level: 1, name: 'Oskar Thwaite' })).toBeVisible();
});
