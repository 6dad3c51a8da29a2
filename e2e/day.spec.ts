import { expect, expectAccessible, openPhone, signIn, test } from './support.js';

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
  });
});

test('outcomes tell how many there are, nothing of few, and lead to who they are', async ({ page }) => {
  await signIn(page);
  await page.getByRole('button', { name: /account/ }).click();
  await page.getByRole('menuitem', { name: 'Outcomes' }).click();
  const heel = page.getByRole('region', { name: /^Plantar heel pain, version/ }).first();
  await expect(heel.getByRole('rowheader', { name: 'Calm and lengthen' })).toBeVisible();
  // Five and more have left the first stage; few have ended.
  await expect(heel.getByRole('row', { name: /^Calm and lengthen/ })).toContainText(/half between/);
  await heel.getByText(/^Who they are/).click();
  await expect(heel.getByRole('link', { name: /Øyvind Farrow/ })).toBeVisible();
  await expectAccessible(page, 'Outcomes');
  const download = page.waitForEvent('download');
  await page.getByRole('link', { name: 'As a table (CSV)' }).click();
  expect((await download).suggestedFilename()).toBe('outcomes.csv');
});

test('who assists sees what to measure and teach, and sets nothing aside', async ({ page }) => {
  await signIn(page, 'wren.atley');
  await expect(page.getByText(/^To teach:/).first()).toBeVisible();
  await expect(page.getByRole('button', { name: /^Set .* aside$/ })).toHaveCount(0);
});

test('a question asked on the phone stands on the day, is answered, and the answer is read at home', async ({
  page,
  browser,
}) => {
  await signIn(page);
  await page.getByRole('link', { name: /^Steady Sunniva Croft/ }).click();
  await page
    .getByRole('navigation', { name: 'Places of this episode' })
    .getByRole('link', { name: 'Plan' })
    .click();
  await page.getByRole('button', { name: 'Make a link' }).click();
  const link = (await page.getByTestId('home-link').textContent()) ?? '';
  const code = (await page.getByTestId('home-code').textContent()) ?? '';
  const phone = await openPhone(browser);
  await phone.goto(link);
  await phone.getByRole('textbox').fill(code);
  await phone.getByRole('button', { name: 'Open' }).click();
  await phone.getByText('Ask your clinic').click();
  await phone.getByLabel('Your question').fill('May I walk barefoot on the beach?');
  await expectAccessible(phone, 'Home, a question');
  await phone.context().setOffline(true);
  await phone.getByRole('button', { name: 'Send' }).click();
  await expect(phone.getByRole('alert')).toContainText('What you typed is kept here');
  await phone.context().setOffline(false);
  await phone.getByRole('button', { name: 'Send' }).click();
  await expect(phone.getByText('Not answered yet.')).toBeVisible();
  await expect(phone.getByLabel('Your question')).toHaveValue('');

  await page
    .getByRole('navigation', { name: 'Places', exact: true })
    .getByRole('link', { name: 'Day' })
    .click();
  const row = page.getByRole('link', { name: /^Asked Sunniva Croft/ });
  await expect(row).toContainText('May I walk barefoot on the beach?');
  await row.click();
  const asked = page.getByRole('region', { name: 'Asked from home' });
  await asked.getByRole('button', { name: 'Answer it' }).click();
  await asked.getByRole('button', { name: 'Send the answer' }).click();
  await expect(asked.getByText('Type what the patient is to read')).toBeVisible();
  await asked.getByRole('textbox').fill('Wet sand first, ten minutes');
  await expectAccessible(page, 'Course with a question');
  await asked.getByRole('button', { name: 'Send the answer' }).click();
  await expect(asked).toHaveCount(0);
  await phone.reload();
  await phone.getByText('Ask your clinic').click();
  await expect(phone.getByText('Wet sand first, ten minutes')).toBeVisible();
  await expect(phone.getByText(/^Answer from Tomas Fell/)).toBeVisible();
});
