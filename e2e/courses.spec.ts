import { expect, expectAccessible, signIn, test } from './support.js';

test('no real change: the row says so, the decision is to look again, and it stands in the course', async ({
  page,
}) => {
  await signIn(page);
  await expect(page.getByRole('link', { name: /^Silent Joss Harrap/ })).toContainText(
    /Nothing logged for \d days/,
  );
  await page.getByRole('link', { name: /^Look again Gudrun Vale/ }).click();
  await expect(page.getByRole('heading', { name: 'Look again at what keeps it going' })).toBeVisible();
  await expect(page.getByText('No real change for the better in Own activities for 8 weeks')).toBeVisible();
  await expect(page.getByText('Own activities better by 2')).toBeVisible();
  await page.getByRole('button', { name: 'Use this' }).click();
  await expect(page.getByRole('listitem').filter({ hasText: 'as suggested' }).first()).toContainText(
    'Look again',
  );
});

test('both sides: each is held to the criteria, what happened is marked, the next review is planned', async ({
  page,
}) => {
  await signIn(page);
  await page
    .getByRole('link', { name: /^Øyvind Farrow|Steady Øyvind Farrow/ })
    .first()
    .click();
  await expect(page.getByText('left 4; right 3', { exact: true })).toBeVisible();
  await page.getByRole('button', { name: 'Something happened' }).click();
  const dialog = page.getByRole('dialog', { name: 'Something happened' });
  await dialog.getByRole('button', { name: 'Keep it' }).click();
  await expect(dialog.getByText('Choose what it was')).toBeVisible();
  await dialog.getByLabel('What it was').selectOption('illness');
  await dialog.getByLabel('In a few words').fill('three days in bed');
  await expectAccessible(page, 'Something happened');
  await dialog.getByRole('button', { name: 'Keep it' }).click();
  const events = page.getByRole('region', { name: 'What happened meanwhile' });
  await expect(events).toContainText('Illness: three days in bed');
  await page.getByText('As a table', { exact: true }).last().click();
  await expect(page.getByRole('table', { name: 'Pain and load by day' })).toContainText(
    'illness: three days in bed',
  );

  const next = page.getByRole('region', { name: 'Next review' });
  await next.getByRole('button', { name: 'Plan another' }).click();
  const visit = page.getByRole('dialog', { name: 'Plan a visit' });
  await expect(visit.getByText('Øyvind Farrow')).toBeVisible();
  await visit.getByLabel('Time').fill('09:40');
  await visit.getByRole('button', { name: 'Plan it' }).click();
  await expect(next).toContainText(/Planned: .+, 09:40\./);

  await events.getByRole('button', { name: 'Take back: illness: three days in bed' }).click();
  await expect(events).not.toContainText('Illness');
});
