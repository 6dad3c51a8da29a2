import { expect, test } from '@playwright/test';
import { expectAccessible, signIn } from './support.js';

const two = (n: number): string => String(n).padStart(2, '0');

test('the day: a visit is planned, one comes from a calendar, and a row waits until it is taken back', async ({
  page,
}) => {
  await signIn(page);
  const visits = page.getByRole('region', { name: 'Visits today' });

  await test.step('a visit is planned by name, without the accents', async () => {
    await visits.getByRole('button', { name: 'Plan a visit' }).click();
    const dialog = page.getByRole('dialog', { name: 'Plan a visit' });
    await dialog.getByRole('combobox', { name: 'Who' }).fill('oyvind');
    await dialog.getByRole('option', { name: /Øyvind Farrow/ }).click();
    await dialog.getByLabel('Minutes').fill('3');
    await dialog.getByRole('button', { name: 'Plan it' }).click();
    await expect(dialog.getByText('Type a time such as 09:30')).toBeVisible();
    await expect(dialog.getByText('From 5 to 240 minutes')).toBeVisible();
    await expectAccessible(page, 'Plan a visit');
    await dialog.getByLabel('Time').fill('16:40');
    await dialog.getByLabel('Minutes').fill('45');
    await dialog.getByLabel('Note').fill('New shoes, Łódź');
    await dialog.getByRole('button', { name: 'Plan it' }).click();
    await expect(dialog).toBeHidden();
    await expect(visits.getByText('New shoes, Łódź')).toBeVisible();
    await visits.getByRole('combobox', { name: 'Øyvind Farrow at 16:40' }).selectOption('came');
    await expect(visits.getByRole('combobox', { name: 'Øyvind Farrow at 16:40' })).toHaveValue('came');
  });

  await test.step('what a calendar has is taken for whom it names, once', async () => {
    const day = new Date(Date.now() + 2 * 86_400_000);
    const at = `${day.getUTCFullYear()}${two(day.getUTCMonth() + 1)}${two(day.getUTCDate())}T101500`;
    const calendar = [
      'BEGIN:VCALENDAR',
      'VERSION:2.0',
      'PRODID:-//made up//',
      'BEGIN:VEVENT',
      'UID:one@elsewhere',
      'DTSTAMP:20260101T000000Z',
      `DTSTART:${at}`,
      'DURATION:PT40M',
      'SUMMARY:Visit: Jory Lind',
      'END:VEVENT',
      'END:VCALENDAR',
    ].join('\r\n');
    const choose = page.waitForEvent('filechooser');
    await visits.getByRole('button', { name: 'From a calendar' }).click();
    await (
      await choose
    ).setFiles({ name: 'visits.ics', mimeType: 'text/calendar', buffer: Buffer.from(calendar) });
    const dialog = page.getByRole('dialog', { name: 'From a calendar' });
    await expect(dialog.getByText('Jory Lind', { exact: true })).toBeVisible();
    await expectAccessible(page, 'From a calendar');
    await dialog.getByRole('button', { name: 'Take', exact: true }).click();
    await expect(dialog.getByText('taken', { exact: true })).toBeVisible();
    await dialog.getByRole('button', { name: 'Done' }).click();
    await visits.getByText('The next two weeks').click();
    await expect(visits.getByRole('combobox', { name: 'Jory Lind at 10:15' })).toBeVisible();
    const wrong = page.waitForEvent('filechooser');
    await visits.getByRole('button', { name: 'From a calendar' }).click();
    await (
      await wrong
    ).setFiles({ name: 'no.ics', mimeType: 'text/calendar', buffer: Buffer.from('no calendar') });
    await expect(visits.getByRole('alert')).toContainText('no calendar file');
  });

  await test.step('a row is set aside with a reason, and taken back', async () => {
    const row = page.getByRole('link', { name: /Averil Moss/ });
    await page.getByRole('button', { name: 'Set Averil Moss aside' }).click();
    const pane = page.getByRole('dialog', { name: 'Set Averil Moss aside' });
    await pane.getByRole('button', { name: 'Set aside' }).click();
    await expect(pane.getByText('Say why, in a few words')).toBeVisible();
    await pane.getByLabel('Why').fill('Waits for her shoes');
    await expectAccessible(page, 'Set aside');
    await pane.getByRole('button', { name: 'Set aside' }).click();
    await expect(row).toHaveCount(0);
    await page.getByText('Set aside: 1').click();
    await expect(page.getByText(/Waits for her shoes \(Tomas Fell\)/)).toBeVisible();
    await page.getByRole('button', { name: 'Take back' }).click();
    await expect(row).toBeVisible();
    // What blocks a prescription can never be set aside.
    await expect(page.getByRole('button', { name: 'Set Hanne Rook aside' })).toHaveCount(0);
  });
});

test('who assists sees what to measure and teach, and sets nothing aside', async ({ page }) => {
  await signIn(page, 'wren.atley');
  await expect(page.getByText(/^To teach:/).first()).toBeVisible();
  await expect(page.getByRole('button', { name: /^Set .* aside$/ })).toHaveCount(0);
});
