import { readFileSync } from 'node:fs';
import type { Page } from '@playwright/test';
import { expect, expectAccessible, signIn, test, turnTo, url } from './support.js';

/** What a course says, from its first heading to its end. */
async function courseOf(page: Page, episodeId: string): Promise<string> {
  await page.goto(url(`/episodes/${episodeId}/course`));
  await expect(page.getByRole('heading', { name: 'Go on to Slow and heavy' })).toBeVisible();
  // The charts come after it.
  const tables = page.getByText('As a table', { exact: true });
  await expect(tables).toHaveCount(2);
  await tables.first().click();
  await expect(page.getByRole('heading', { name: /^drawn over time/ })).toBeVisible();
  await expect(page.getByRole('status', { name: /Loading/ })).toHaveCount(0);
  // The numbers of the charts stand in their tables; axes are drawn when there is time.
  return page.getByRole('main').evaluate((main) => {
    const copy = main.cloneNode(true) as HTMLElement;
    for (const drawn of copy.querySelectorAll('svg')) drawn.remove();
    return copy.textContent;
  });
}

test('a person goes out as a file, is erased, and comes back with the same course', async ({ page }) => {
  await signIn(page, 'orla.rendell');
  const [person] = (await (await page.request.get(url('/api/people?q=Ilse'))).json()) as {
    id: string;
    name: string;
    episodes: { id: string }[];
  }[];
  if (person === undefined) throw new Error('There is nobody of that name');
  const episodeId = person.episodes[0]?.id ?? '';
  const before = await courseOf(page, episodeId);

  await turnTo(page, `/people/${person.id}?all=1`);
  await page.getByText('The whole record: save it').click();
  const save = page.waitForEvent('download');
  await page.getByRole('link', { name: 'Save as a file (FHIR R4)' }).click();
  const file = readFileSync(await (await save).path());

  await test.step('erased only with a decision, a reason and the name', async () => {
    await page.getByRole('button', { name: 'Erase', exact: true }).click();
    await expect(page.getByText(/is kept until/)).toBeVisible();
    await page.getByRole('button', { name: 'Erase for good' }).click();
    await expect(page.getByText('Say why, and who decided it')).toBeVisible();
    await page.getByLabel('Why, and who decided it').fill('Moves to another clinic, asked for by her');
    await page.getByLabel('The name as it stands').fill('Ilse');
    await page.getByRole('button', { name: 'Erase for good' }).click();
    await expect(page.getByText('Type the name as it stands')).toBeVisible();
    await page.getByLabel('The name as it stands').fill(person.name);
    await page.getByRole('button', { name: 'Erase for good' }).click();
    await expect(page.getByText(/say that it was decided to erase before/)).toBeVisible();
    await expectAccessible(page, 'erasing');
    await page.getByRole('checkbox', { name: /It was decided/ }).check();
    await page.getByRole('button', { name: 'Erase for good' }).click();
    await expect(page.getByText(/everything of one person/)).toBeVisible();
    await expect(page.getByText('Moves to another clinic, asked for by her')).toBeVisible();
  });

  await test.step('a file that is none, or was changed, is refused by its path', async () => {
    await page.getByRole('link', { name: 'People', exact: true }).click();
    await expect(page.getByRole('link', { name: person.name })).toHaveCount(0);
    await page.getByRole('button', { name: 'From a file' }).click();
    const choose = (buffer: Buffer) =>
      page
        .getByLabel(/Choose (the|another) file/)
        .setInputFiles({ name: 'record.json', mimeType: 'application/json', buffer });
    await choose(Buffer.from('{"resourceType":'));
    await expect(page.getByRole('alert').filter({ hasText: 'Nothing was taken' })).toBeVisible();
    await choose(Buffer.from(file.toString().replaceAll('"Ilse Venning"', '"Ilsa Venning"')));
    await expect(page.getByText('/entry/0/resource', { exact: true })).toBeVisible();
    await expect(page.getByRole('button', { name: 'Take it' })).toBeDisabled();
    await choose(file);
    await expect(page.getByText('it comes back as it was')).toBeVisible();
    await expectAccessible(page, 'a person from a file');
  });

  await page.getByRole('button', { name: 'Take it' }).click();
  await expect(page.getByRole('heading', { level: 1, name: person.name })).toBeVisible();
  expect(await courseOf(page, episodeId)).toBe(before);
});

test('another program reads with a key that a lead makes and takes back', async ({ page, request }) => {
  await signIn(page, 'orla.rendell');
  await turnTo(page, '/clinic/programs');
  await page.getByRole('button', { name: 'Make a key' }).click();
  await expect(page.getByText('Name the program')).toBeVisible();
  await page.getByLabel('What the key is for').fill('Front desk');
  await page.getByRole('button', { name: 'Make a key' }).click();
  const key = await page.getByLabel('Key for Front desk').last().inputValue();
  await expectAccessible(page, 'programs');
  const ask = () => request.get(url('/fhir/Patient'), { headers: { authorization: `Bearer ${key}` } });
  expect(((await (await ask()).json()) as { total: number }).total).toBeGreaterThan(15);
  await page.getByRole('button', { name: 'Put away' }).click();
  await page.getByRole('button', { name: 'Take the key of Front desk back' }).click();
  await expect(page.getByText('opens nothing')).toBeVisible();
  expect((await ask()).status()).toBe(401);
  await page.getByRole('link', { name: 'Who saw and changed what' }).click();
  await expect(page.getByText('a program, by a key of Orla Rendell').first()).toBeVisible();
});

test('people come as a table, line by line, and are taken back whole', async ({ page }) => {
  await signIn(page);
  await turnTo(page, '/people?file=1');
  const choose = (text: string) =>
    page
      .getByLabel(/Choose (the|another) file/)
      .setInputFiles({ name: 'people.csv', mimeType: 'text/csv', buffer: Buffer.from(text) });
  await choose('Name;Born\n"Bo;1.1.1980\n');
  await expect(page.getByText('The table cannot be read')).toBeVisible();
  await choose('Name;Born;Work\nØre Lund;02/03/1971;baker\n;1.1.1980;\nIlse Venning;2.9.1974;\n');
  await expect(page.getByText('new: 1', { exact: true })).toBeVisible();
  await expect(page.getByText('here already: 1')).toBeVisible();
  await expect(page.getByText('A name of 1 to 80 characters')).toBeVisible();
  await expect(page.getByRole('cell', { name: '2 Mar 1971' })).toBeVisible();
  await page.getByLabel('Dates are written as').selectOption('mdy');
  await expect(page.getByRole('cell', { name: '3 Feb 1971' })).toBeVisible();
  await page.getByLabel('Dates are written as').selectOption('dmy');
  await expect(page.getByText('new: 1', { exact: true })).toBeVisible();
  await expectAccessible(page, 'people from a table');
  await page.getByRole('button', { name: 'Take who is new: 1' }).dblclick();
  await expect(page.getByRole('link', { name: /Øre Lund/ })).toHaveCount(1);
  await page.getByRole('button', { name: 'From a file' }).click();
  await page.getByRole('button', { name: 'Take people.csv back' }).click();
  await expect(page.getByText(/^taken back/)).toBeVisible();
  await expect(page.getByRole('link', { name: /Øre Lund/ })).toHaveCount(0);
});

test('what was measured before comes as a table, and is taken back whole', async ({ page }) => {
  await signIn(page);
  await turnTo(page, '/people?file=1');
  await page.getByLabel(/Choose (the|another) file/).setInputFiles({
    name: 'before.csv',
    mimeType: 'text/csv',
    buffer: Buffer.from(
      'Person;When;Test;Side;Value;Unit\nilse venning;3.2.2020;lunge-distance;L;0.07;m\nIlse Venning;3.2.2020;SLHR;;9;\n',
    ),
  });
  await page.getByRole('radio', { name: 'measurements' }).click();
  await expect(page.getByText('Choose the column of: Day')).toBeVisible();
  await page.getByLabel('Day', { exact: true }).selectOption('When');
  await expect(page.getByText(/is of the left or the right/)).toBeVisible();
  await expect(page.getByRole('cell', { name: /^Lunge.* left$/ })).toBeVisible();
  await expectAccessible(page, 'measurements from a table');
  await page.getByRole('button', { name: 'Take what is new: 1' }).dblclick();
  await expect(page.getByRole('radio', { name: 'measurements' })).toBeHidden();
  const [ilse] = (await (await page.request.get(url('/api/people?q=Ilse'))).json()) as {
    episodes: { id: string }[];
  }[];
  await turnTo(page, `/episodes/${ilse?.episodes[0]?.id ?? ''}/course`);
  await expect(page.getByRole('region', { name: 'Measured before' })).toContainText(/3 Feb 2020.*left7 cm/);
  await turnTo(page, '/people');
  await page.getByRole('button', { name: 'From a file' }).click();
  await expect(page.getByText(/measurements: 1, taken/)).toBeVisible();
  await page.getByRole('button', { name: 'Take before.csv back' }).click();
  await expect(page.getByText(/^taken back/)).toBeVisible();
});

test('a run from a watch counts as run beside the log; a broken file is refused with its line', async ({
  page,
}) => {
  await signIn(page);
  const { items } = (await (await page.request.get(url('/api/day'))).json()) as {
    items: { name: string; episodeId: string }[];
  };
  const episode = items.find((i) => i.name === 'Oskar Thwaite')?.episodeId ?? '';
  await turnTo(page, `/episodes/${episode}/course`);
  const start = Date.now() - 2 * 86_400_000;
  const points = Array.from(
    { length: 241 },
    (_, i) =>
      `<trkpt lat="${54 + (i * 15) / 111_195}" lon="-2"><time>${new Date(start + i * 5000).toISOString()}</time></trkpt>`,
  );
  const text = `<gpx><trk><trkseg>\n${points.join('\n')}\n</trkseg></trk></gpx>`;
  const send = (name: string, content: string) =>
    page
      .getByLabel('Recording of a watch')
      .setInputFiles({ name, mimeType: 'application/gpx+xml', buffer: Buffer.from(content) });
  const region = page.getByRole('region', { name: 'Recorded runs and walks' });
  await send('cut.gpx', text.slice(0, 2000));
  await expect(region.getByRole('alert')).toContainText(/^The file is broken at line \d+/);
  await send('run.gpx', text);
  await expect(region.getByRole('listitem')).toContainText('3.6 km, 20 min, 20 min of it run');
  await expect(page.getByText('minutes of running, at most 20')).toBeVisible();
  await send('run.gpx', text);
  await expect(region.getByText('All of it is here already.')).toBeVisible();
  await region.getByRole('button', { name: /^Take back: / }).click();
  await expect(region.getByRole('listitem')).toHaveCount(0);
  await region.getByRole('button', { name: 'Keep it after all' }).click();
  await expect(region.getByRole('listitem')).toHaveCount(1);
});
