import { readFileSync } from 'node:fs';
import type { Page } from '@playwright/test';
import { expect, expectAccessible, goToStep, signIn, test, url } from './support.js';

/** Opens the lab of someone of the demo. */
async function lab(page: Page, name: string): Promise<void> {
  await signIn(page);
  const people = (await (
    await page.request.get(url(`/api/people?q=${encodeURIComponent(name)}`))
  ).json()) as {
    episodes: { id: string }[];
  }[];
  await page.goto(url(`/episodes/${people[0]?.episodes[0]?.id ?? ''}/course`));
  await page
    .getByRole('navigation', { name: 'Places of this episode' })
    .getByRole('link', { name: 'Lab' })
    .click();
}

async function choose(page: Page, instrument: string, task: string, mistake?: string): Promise<void> {
  await page.getByLabel('Instrument').selectOption(instrument);
  await page.getByLabel('What is done').selectOption(task);
  if (mistake === undefined) return;
  const simulated = page.getByText('With a simulated instrument');
  if (!(await page.getByLabel('play a mistake').isVisible())) await simulated.click();
  await page.getByLabel('play a mistake').selectOption(mistake);
}

test('kept captures are looked at, compared, played and told in plain words', async ({ page }) => {
  await lab(page, 'Averil Moss');
  // The newest stands open: walking on an insole, beside it barefoot.
  await expect(page.getByRole('heading', { name: 'Walk, both feet, insole' })).toBeVisible();
  await expect(page.getByText('Turning in, how far')).toBeVisible();
  await page.getByLabel('Beside').selectOption({ index: 1 });
  await expect(page.getByText(/^Left: -\d/).first()).toContainText('against the other capture');
  await page.getByLabel('Held against').selectOption('other-capture');
  await expectAccessible(page, 'two captures beside each other');

  await page.getByRole('button', { name: /^Heel raise/ }).click();
  await expect(page.getByText('L: early outward shift')).toBeVisible();
  await page.getByRole('button', { name: 'First-metatarsal hold, left. Why?' }).click();
  await expect(page.getByRole('dialog', { name: 'Why' })).toContainText('Steps or goes');
  await page.keyboard.press('Escape');
  await page.getByRole('slider', { name: 'Moment of the capture' }).fill('0.5');
  await expect(page.getByText(/^(5\.\d|6) s$/)).toBeVisible();
  await page.getByRole('button', { name: 'All of it' }).click();
  await expect(page.getByText('all of it', { exact: true })).toBeVisible();
  await page.getByRole('button', { name: 'For the patient' }).click();
  await expect(page.getByText(/big toe side of your left foot presses for [2-6] of 10/)).toBeVisible();
  await page.getByRole('button', { name: 'Back to the numbers' }).click();

  const save = page.waitForEvent('download');
  await page.getByRole('button', { name: 'Save as CSV' }).click();
  const file = await (await save).path();
  expect(readFileSync(file, 'utf8').slice(0, 60)).toContain('heathstep-recording,1\nkind,pressure-mat');

  // The same file comes back as a capture; one that is broken says its line.
  await page.getByRole('button', { name: 'New capture' }).click();
  const chooser = page.getByLabel('Recording file');
  await chooser.setInputFiles({
    name: 'broken.csv',
    mimeType: 'text/csv',
    buffer: Buffer.from(readFileSync(file, 'utf8').split('\n').slice(0, 60).concat('oops,1', '').join('\n')),
  });
  await expect(
    page.getByRole('alert').filter({ hasText: 'Line 61: 2 columns, 2049 are wanted' }),
  ).toBeVisible();
  await chooser.setInputFiles(file);
  await expect(page.getByRole('heading', { name: 'Keep this capture?' })).toBeVisible();
  await expect(page.getByText('L: early outward shift')).toBeVisible();
  await page.getByRole('button', { name: 'Keep' }).click();
  await expect(page.getByText('from a file')).toBeVisible();

  // Into the visit, where it is a measure by its method, and the driver follows.
  await page.getByRole('button', { name: 'Begin a visit' }).click();
  await page.getByRole('button', { name: 'Into the open visit' }).click();
  await expect(page.getByText('2 values stand in the visit')).toBeVisible();
  await page.getByRole('link', { name: 'To the visit' }).click();
  await expect(page.getByText('early outward shift')).toBeVisible();
  await expect(page.getByText('taken otherwise last time')).toBeVisible();
  await goToStep(page, 'Conclude');
  await expect(page.getByText(/First-ray hold lost/).first()).toBeVisible();
});

test('a capture from the mat counts down, records, and is refused or broken off with the reason', async ({
  page,
}) => {
  await lab(page, 'Øyvind Farrow');
  await expect(page.getByRole('heading', { name: 'New capture' })).toBeVisible();
  await expectAccessible(page, 'a new capture');
  await choose(page, 'pressure-mat', 'stance', 'rubbish');
  await page.getByRole('button', { name: 'Start' }).click();
  await expect(page.getByText('Counting down')).toBeVisible();
  await expect(page.getByText(/^Broken off: .+ Nothing of it is kept\.$/)).toBeVisible();

  await choose(page, 'pressure-mat', 'stance', 'half-off');
  await page.getByRole('button', { name: 'Start' }).click();
  await expect(page.getByText('Recording')).toBeVisible();
  await page.getByRole('button', { name: 'Stop' }).click();
  await expect(page.getByText('Not usable: A foot stands partly off the mat')).toBeVisible();
  await expect(page.getByRole('button', { name: 'Keep' })).toBeDisabled();
  await page.getByRole('button', { name: 'Capture again' }).click();

  await choose(page, 'pressure-mat', 'stance', '');
  await page.getByRole('button', { name: 'Start' }).click();
  await expect(page.getByText('Recording')).toBeVisible();
  await page.getByRole('button', { name: 'Stop' }).click();
  await page.getByRole('button', { name: 'Keep' }).click();
  await expect(page.getByRole('heading', { name: 'Stance, both feet, barefoot' })).toBeVisible();
  await page.getByRole('button', { name: 'Discard' }).click();
  await expect(page.getByText('Discarded: Stance, both feet, barefoot.')).toBeVisible();
  await page.getByRole('button', { name: 'Take back' }).click();
  await expect(page.getByRole('heading', { name: 'Stance, both feet, barefoot' })).toBeVisible();
});
