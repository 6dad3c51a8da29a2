import { expect, expectAccessible, signIn, test } from './support.js';

test('a protocol is changed, refused where it is wrong, signed by a lead, and people are moved to it', async ({
  page,
}) => {
  await signIn(page, 'orla.rendell');
  await page.getByRole('link', { name: 'Exercises' }).click();
  await page.getByRole('link', { name: 'Protocols' }).click();
  await page.getByLabel('Find a protocol').fill('falls');
  await page.getByRole('link', { name: /^Older foot and falls/ }).click();
  await expect(page.getByText(/^Used as shipped/)).toBeVisible();
  await expect(page.getByRole('region', { name: 'Treated by it' })).toContainText('Sunniva Croft');
  await expectAccessible(page, 'A protocol');

  await test.step('each change shows against what is used now, and is taken back and taken again', async () => {
    await page.getByRole('button', { name: 'Make our own version' }).click();
    const changes = page.getByRole('region', { name: 'Changed against what is used now' });
    await expect(changes).toContainText('they say the same');
    await page.getByRole('radio', { name: 'Steady and strong' }).click();
    await page.getByLabel('At least, days').fill('x');
    await expect(page.getByText('From 0 to 365')).toBeVisible();
    await page.getByLabel('At least, days').fill('25');
    await expect(changes).toContainText('At least 25 days');
    await page.getByRole('button', { name: 'Undo' }).click();
    await expect(changes).toContainText('they say the same');
    await page.getByRole('button', { name: 'Redo' }).click();
    await expect(changes).toContainText('At least 25 days');
    const slots = page.getByRole('region', { name: 'Slots' });
    await slots
      .getByRole('button', { name: /^Take out / })
      .first()
      .click();
    await expect(changes).toContainText('filled with, most important first');
    await expectAccessible(page, 'Changing a protocol');
  });

  await test.step('something else is enough too, the dose goes by the week, and a brace has an end', async () => {
    const changes = page.getByRole('region', { name: 'Changed against what is used now' });
    const criteria = page.getByRole('region', { name: 'Criteria', exact: true });
    await criteria
      .getByRole('button', { name: /^Or something else than/ })
      .first()
      .click();
    await criteria.getByLabel('Also ask for').first().selectOption('no limp');
    await criteria.getByRole('button', { name: 'Add it' }).first().click();
    await expect(changes).toContainText(/ or no limp/i);
    await expectAccessible(page, 'Criteria in groups');
    const slots = page.getByRole('region', { name: 'Slots' });
    await slots.getByText('More: sides, drivers').first().click();
    await slots.getByRole('button', { name: 'Set the numbers by the week' }).first().click();
    await expect(slots.getByText('Its numbers go by the week of the stage.')).toBeVisible();
    await page.getByRole('button', { name: 'Add something beside' }).click();
    const beside = page.getByRole('region', { name: 'Beside the exercises' });
    await beside.getByRole('button', { name: 'It stays; let it end' }).last().click();
    await beside.getByLabel('Gone by week').last().fill('6');
    await expect(changes).toContainText(/brace/i);
  });

  await test.step('what holds for all stages: a question at home, and a choice with its ways', async () => {
    const changes = page.getByRole('region', { name: 'Changed against what is used now' });
    await page.getByRole('radio', { name: 'All stages' }).click();
    const home = page.getByRole('region', { name: 'Asked at home' });
    await home.getByRole('button', { name: 'Ask something more' }).click();
    await home.getByLabel('The patient is asked').last().fill('Did you reach for a rail?');
    await home.getByLabel('Called').last().fill('reached for a rail');
    await expect(changes).toContainText('reached for a rail: Did you reach for a rail?');
    const choices = page.getByRole('region', { name: 'Choices' });
    await choices.getByRole('button', { name: 'Add a choice' }).click();
    await choices.getByLabel('What is chosen').last().fill('Shoes or barefoot');
    await expect(changes).toContainText('Shoes or barefoot');
    await expectAccessible(page, 'What holds for all stages');
    await page.getByRole('button', { name: 'Undo' }).click();
    await page.getByRole('radio', { name: 'Steady and strong' }).click();
    const criteria = page.getByRole('region', { name: 'Criteria', exact: true });
    await criteria
      .getByLabel('Also ask for')
      .last()
      .selectOption('something that did not happen, though it could have');
    await criteria.getByLabel('What did not happen').selectOption('reached for a rail');
    await criteria.getByLabel('How often it could have').selectOption({ index: 1 });
    await criteria.getByRole('button', { name: 'Add it' }).last().click();
    await expect(changes).toContainText(/No reached for a rail in 28 days/);
  });

  await test.step('what is typed is still there after the page is left', async () => {
    await page.reload();
    await expect(page.getByText('Changed on this device, not saved yet.')).toBeVisible();
    await page.getByRole('radio', { name: 'Steady and strong' }).click();
    await expect(page.getByLabel('At least, days')).toHaveValue('25');
  });

  await test.step('a wrong one is refused by its place, and nothing is lost', async () => {
    await page.getByLabel('Name', { exact: true }).fill('');
    await page.getByRole('button', { name: 'Save the draft' }).click();
    await expect(page.getByRole('alert').filter({ hasText: 'is empty' })).toBeVisible();
    await page.getByLabel('Name', { exact: true }).fill('Steady and strong');
    await page.getByRole('button', { name: 'Save the draft' }).click();
    await expect(page.getByText('Changed on this device, not saved yet.')).toBeHidden();
    await page.getByRole('button', { name: 'To the page' }).click();
  });

  await test.step('a file that is no whole protocol is refused by its place, and the draft stays', async () => {
    await page.getByRole('button', { name: 'Go on with the draft' }).click();
    const take = (text: string) =>
      page
        .getByLabel('Protocol file')
        .setInputFiles({ name: 'p.json', mimeType: 'application/json', buffer: Buffer.from(text) });
    await take('{"format":"something else"}');
    await expect(page.getByText('This file is not a protocol exported from here.')).toBeVisible();
    await take('{"format":"heathstep protocol","version":1,"protocol":{"name":"Half","stages":[{}]}}');
    await expect(page.getByRole('alert').filter({ hasText: 'is missing' })).toBeVisible();
    await page.getByRole('radio', { name: 'Steady and strong' }).click();
    await expect(page.getByLabel('At least, days')).toHaveValue('25');
    await page.getByRole('button', { name: 'To the page' }).click();
  });

  await test.step('a lead signs it; people stay where they are until they are moved', async () => {
    await expect(page.getByText(/treats nobody yet/)).toBeVisible();
    await page.getByRole('button', { name: 'Sign and publish the draft' }).click();
    await expect(
      page.getByText(/^Our version 1, made by Orla Rendell, signed by Orla Rendell/),
    ).toBeVisible();
    const people = page.getByRole('region', { name: 'Treated by it' });
    const row = people.getByRole('listitem').filter({ hasText: 'Sunniva Croft' });
    await expect(row).toContainText(/shipped|A plan made anew|draft/);
    const free = people.getByRole('checkbox').first();
    const name = (await free.getAttribute('aria-label'))?.replace('Move ', '') ?? '';
    await free.check();
    await people.getByRole('button', { name: 'Move 1 to what is used now' }).click();
    await expect(people.getByRole('listitem').filter({ hasText: name })).toContainText('on what is used now');
    await page.getByRole('button', { name: 'Go back to the shipped one' }).click();
    await expect(page.getByText(/^Used as shipped/)).toBeVisible();
  });
});
