import { expect, expectAccessible, signIn, test, turnTo, url } from './support.js';

const episodeOf = async (page: Parameters<typeof signIn>[0], name: string): Promise<string> => {
  const { items } = (await (await page.request.get(url('/api/day'))).json()) as {
    items: { name: string; episodeId: string }[];
  };
  return items.find((i) => i.name === name)?.episodeId ?? '';
};

test('a letter is begun from the clinic’s text, written beside what it shows, and stays as it went out', async ({
  page,
}) => {
  await signIn(page);
  await turnTo(page, `/episodes/${await episodeOf(page, 'Oskar Thwaite')}/course`);
  await page.getByRole('link', { name: 'Letters' }).click();
  await expect(page.getByRole('button', { name: 'Discharge' })).toBeDisabled();
  await expect(page.getByText('This complaint has not ended')).toBeVisible();
  await expectAccessible(page, 'The letters of a complaint');
  await page.getByRole('button', { name: 'How it goes' }).click();

  const sheet = page.getByRole('region', { name: 'As it will be read' });
  await expect(sheet).toContainText('We treat Oskar Thwaite, born 22 Jan 2003, for plantar heel pain, left');
  await expect(page.getByText('Write to whom it goes, then')).toBeVisible();
  await page.getByLabel('To', { exact: true }).fill('Dr Ada Quill\nMill Lane');
  await page.getByLabel('Above what the record shows').fill('Dear Ada,\n\nHe stands {{how}} at work.');
  await expect(sheet).toContainText('He stands {{how}} at work.');
  await expect(page.getByText('Nothing has filled {{how}} yet')).toBeVisible();
  await page.getByLabel('Above what the record shows').fill('Dear Ada,\n\nHe stands all night at work.');
  await expect(sheet.getByRole('heading', { name: 'Measured from first to last' })).toBeVisible();
  await page.getByLabel('What was measured, first to last').uncheck();
  await expect(sheet.getByRole('heading', { name: 'Measured from first to last' })).toBeHidden();
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(sheet.getByRole('heading', { name: 'Measured from first to last' })).toBeVisible();
  await expect(page.getByText('Saved', { exact: true })).toBeVisible();
  await expectAccessible(page, 'A letter being written');

  // Written and left: it is there again as it was.
  await page.reload();
  await expect(page.getByLabel('To', { exact: true })).toHaveValue('Dr Ada Quill\nMill Lane');
  await page.getByRole('button', { name: 'Note as sent' }).click();
  await expect(page.getByText('Choose how it went out')).toBeVisible();
  await page.getByLabel('It went out').selectOption('by post');
  await page.getByRole('button', { name: 'Note as sent' }).click();
  await expect(page.getByText(/by post, noted by Tomas Fell/)).toBeVisible();
  await expect(page.getByText('He stands all night at work.')).toBeVisible();
  await expect(page.getByLabel('To', { exact: true })).toBeHidden();
  const pdf = await page.request.get(
    new URL((await page.getByRole('link', { name: 'As a PDF' }).getAttribute('href')) ?? '', page.url()).href,
  );
  expect((await pdf.body()).subarray(0, 5).toString()).toBe('%PDF-');
  await page.getByRole('link', { name: 'All letters of this complaint' }).click();
  await expect(page.getByRole('region', { name: 'Sent' }).getByRole('link')).toContainText('Dr Ada Quill');

  await page.getByRole('button', { name: 'Referral' }).click();
  await page.getByRole('button', { name: 'Throw this draft away' }).click();
  await expect(page.getByText('The draft is thrown away.')).toBeVisible();
  await page.getByRole('button', { name: 'Take back' }).click();
  await expect(page.getByRole('heading', { level: 1, name: 'Referral: Oskar Thwaite' })).toBeVisible();
});

test('a lead writes what letters begin with; what nothing fills is refused and nothing typed is lost', async ({
  page,
}) => {
  await signIn(page, 'orla.rendell');
  await turnTo(page, '/clinic/letters');
  const form = page.getByRole('form', { name: 'Referral' });
  const opening = form.getByLabel('Above what the record shows');
  await opening.fill('To whom it may concern: {{persn}} has {{complaint}}.');
  await form.getByRole('button', { name: 'Keep' }).click();
  await expect(form.getByText('Nothing fills {{persn}}')).toBeVisible();
  await opening.fill('To whom it may concern: {{person}} has {{complaint}}.');
  await form.getByRole('button', { name: 'Keep' }).click();
  await expect(form.getByText('by Orla Rendell')).toBeVisible();
  await expectAccessible(page, 'What letters begin with');
  await turnTo(page, `/episodes/${await episodeOf(page, 'Marit Osgar')}/letters`);
  await page.getByRole('button', { name: 'Referral' }).click();
  await expect(page.getByLabel('What is asked, and why')).toHaveValue(
    'To whom it may concern: Marit Osgar has plantar heel pain, left.',
  );
});
