import { randomUUID } from 'node:crypto';
import { expect, expectAccessible, signIn, test, turnTo, url } from './support.js';

test('a person is corrected, also beside someone else, and a complaint is closed with its outcome', async ({
  page,
}) => {
  await signIn(page);
  const id = randomUUID();
  const headers = { origin: new URL(url('/')).origin };
  const person = { id, name: 'Ödil Sörenby', birthDate: '1962-02-03', occupation: 'thatcher' };
  expect((await page.request.post(url('/api/people'), { headers, data: person })).status()).toBe(201);
  await turnTo(page, `/people/${id}`);
  await expect(page.getByRole('heading', { level: 1, name: 'Ödil Sörenby' })).toBeVisible();
  await page.getByRole('button', { name: 'Correct' }).click();
  const form = page.getByRole('form', { name: 'Correct the person' });
  await form.getByLabel('Name').fill('   ');
  await form.getByRole('button', { name: 'Save' }).click();
  await expect(form.getByText('Type a name of 1 to 80 characters')).toBeVisible();
  await form.getByLabel('Date of birth').fill('1962-03-02');
  await form.getByLabel('Name').fill('Odil Sørenby');
  await expectAccessible(page, 'Correcting a person');
  // Someone else is quicker: nothing typed is lost, and both stand until one saves again.
  const other = await page.request.patch(url(`/api/people/${id}`), {
    headers,
    data: { version: 1, occupation: 'thatcher and mason' },
  });
  expect(other.status()).toBe(200);
  await form.getByRole('button', { name: 'Save' }).click();
  await expect(form.getByRole('alert')).toContainText(
    'changed this meanwhile to Ödil Sörenby, born 3 Feb 1962, thatcher and mason',
  );
  await expect(form.getByLabel('Name')).toHaveValue('Odil Sørenby');
  await form.getByLabel('Work or main activity').fill('thatcher and mason');
  await form.getByRole('button', { name: 'Save' }).click();
  await expect(page.getByRole('heading', { level: 1, name: 'Odil Sørenby' })).toBeVisible();
  await expect(page.getByText('thatcher and mason, born 2 Mar 1962')).toBeVisible();

  await page.getByLabel('Find a complaint').fill('hallux');
  await page.getByRole('radio', { name: /Bunion/ }).click();
  await page.getByRole('radio', { name: 'both' }).click();
  await page.getByRole('button', { name: 'Begin the first visit' }).click();
  await expect(page.getByRole('heading', { level: 2, name: 'Story' })).toBeVisible();
  await page.getByRole('link', { name: 'Odil Sørenby' }).click();
  await page.getByRole('button', { name: 'Close: Bunion with flat foot, both sides' }).click();
  const end = page.getByRole('form', { name: /^Close: Bunion/ });
  await end.getByLabel('What to know of it later').fill('Has the wide shoes; comes back if it rubs.');
  await end.getByRole('button', { name: 'Close it' }).click();
  await expect(end.getByText('Say how it ended')).toBeVisible();
  await expect(end.getByLabel('What to know of it later')).toHaveValue(/^Has the wide shoes/);
  await end.getByLabel('How it ended').selectOption('goes on alone');
  await expectAccessible(page, 'Closing a complaint');
  await end.getByRole('button', { name: 'Close it' }).click();
  await expect(page.getByRole('listitem').filter({ hasText: 'Bunion' })).toContainText(
    /closed \d+ \w+ \d{4} by Tomas Fell: goes on alone/i,
  );
  await page.getByRole('link', { name: /^Bunion/ }).click();
  await expect(page.getByRole('status', { name: 'Closed' })).toContainText(
    'goes on alone. Has the wide shoes',
  );
  await page.getByRole('link', { name: 'Plan', exact: true }).click();
  await expect(page.getByText('This complaint is closed; open it again to go on')).toBeVisible();
  await page.getByRole('link', { name: 'Open it again' }).click();
  await page.getByRole('button', { name: 'Open again: Bunion with flat foot, both sides' }).click();
  const again = page.getByRole('form', { name: /^Open again: Bunion/ });
  await again.getByRole('button', { name: 'Open it' }).click();
  await expect(again.getByText('Say why it is opened again').last()).toBeVisible();
  await again.getByRole('radio', { name: 'It was closed too early' }).click();
  await again.getByRole('button', { name: 'Open it' }).click();
  await expect(page.getByRole('button', { name: 'Close: Bunion with flat foot, both sides' })).toBeVisible();
});

test('a discharge is read as a letter; what comes back begins again with nothing given before', async ({
  page,
}) => {
  await signIn(page);
  await turnTo(page, '/people');
  await page.getByRole('link', { name: /Solveig Harrow/ }).click();
  await page.getByRole('link', { name: 'Letter' }).click();
  await expect(page.getByRole('heading', { level: 1, name: 'Discharge' })).toBeVisible();
  const raises = page.getByRole('row', { name: /^Single-leg heel raise/ });
  await expect(raises).toContainText('+18, better, real');
  await expect(page.getByRole('img', { name: /^left: 48/ })).toBeVisible();
  await expectAccessible(page, 'The letter');
  await page.getByRole('link', { name: 'Back to the course' }).click();
  await expect(page.getByRole('link', { name: 'Discharge letter' })).toBeVisible();
  await page.getByRole('link', { name: 'Open it again' }).click();
  await page.getByRole('button', { name: /^Open again: Achilles/ }).click();
  const form = page.getByRole('form', { name: /^Open again: Achilles/ });
  await form.getByRole('radio', { name: 'It came back' }).click();
  await expect(form.getByText('It begins again at Back to sport.')).toBeVisible();
  await expectAccessible(page, 'Opening a complaint again');
  await form.getByRole('button', { name: 'Open it' }).click();
  await page.getByRole('link', { name: /^Achilles tendon/ }).click();
  await expect(page.getByRole('status', { name: 'It came back' })).toContainText('No plan stands');
  await expect(page.getByText('back to the stage before for two weeks')).toBeVisible();
  await page.getByRole('link', { name: 'Plan', exact: true }).click();
  await expect(page.getByText(/the safety questions are asked anew at a visit/)).toBeVisible();
  await page.getByRole('link', { name: 'To the visit' }).first().click();
  await page.getByRole('button', { name: 'Start a review' }).click();
  await expect(page.getByRole('heading', { level: 2, name: 'Story' })).toBeVisible();
});

test('a lead brings two records of one person together, and takes them apart again', async ({ page }) => {
  await signIn(page, 'orla.rendell');
  await turnTo(page, '/people?add=1');
  const find = async (name: string): Promise<{ id: string }> => {
    const found = (await (await page.request.get(url(`/api/people?q=${name}`))).json()) as { id: string }[];
    if (found[0] === undefined) throw new Error(`There is no ${name}`);
    return found[0];
  };
  const kept = await find('Marit');
  await turnTo(page, `/people/${kept.id}?all`);
  await page.getByText('The whole record: save it as a file, bring two together').click();
  await page.getByRole('button', { name: 'There is another record of this person' }).click();
  await page.getByRole('combobox', { name: 'Who' }).fill('Oskar');
  await page.getByRole('option', { name: /Oskar Thwaite/ }).click();
  const region = page.getByRole('region', { name: 'Bring two records together' });
  await expect(region).toContainText('Stops of one hold for the other');
  await region.getByRole('button', { name: 'Bring them together' }).click();
  await expect(region.getByText('The dates of birth differ: say that it is one person').last()).toBeVisible();
  await region.getByLabel('The dates of birth differ: it is one person all the same').check();
  await expectAccessible(page, 'Two records of one person');
  await region.getByRole('button', { name: 'Bring them together' }).click();
  await expect(page.getByText(/^Oskar Thwaite came into this record/)).toBeVisible();
  await expect(page.getByRole('link', { name: /^Plantar heel pain/ })).toHaveCount(2);
  await page.getByRole('button', { name: 'Take Oskar Thwaite apart again' }).click();
  await expect(page.getByText(/^taken apart again/)).toBeVisible();
  await expect(page.getByRole('link', { name: /^Plantar heel pain/ })).toHaveCount(1);
  await find('Oskar');
});

test('a no stands above every place of the person until there is a yes', async ({ page }) => {
  await signIn(page);
  const [person] = (await (await page.request.get(url('/api/people?q=Ilse'))).json()) as {
    id: string;
    episodes: { id: string }[];
  }[];
  await turnTo(page, `/people/${person?.id ?? ''}?all`);
  const consent = page.locator('summary').filter({ hasText: /^Consent/ });
  await consent.click();
  const note = page.getByRole('button', { name: 'Note: Pictures of the feet in the record' });
  await note.click();
  await expect(page.getByRole('button', { name: 'Note it' })).toBeDisabled();
  await page.getByRole('radio', { name: 'no', exact: true }).click();
  await expectAccessible(page, 'Consent');
  await page.getByRole('button', { name: 'Note it' }).click();
  await expect(page.getByText('no to: Pictures of the feet in the record')).toBeVisible();
  await turnTo(page, `/episodes/${person?.episodes[0]?.id ?? ''}/course`);
  await expect(page.getByRole('status', { name: 'Consent' })).toContainText(
    'Does not agree to: Pictures of the feet in the record.',
  );
  await page.getByRole('link', { name: 'See what was said' }).click();
  await consent.click();
  await note.click();
  await page.getByRole('radio', { name: 'yes', exact: true }).click();
  await page.getByRole('button', { name: 'Note it' }).click();
  await expect(page.getByText(/^yes, said on/)).toBeVisible();
  await expect(page.getByText(/^Before: no, said on/)).toBeVisible();
  await expect(page.getByText(/^no to:/)).toBeHidden();
});
