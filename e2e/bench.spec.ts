import { writeFileSync } from 'node:fs';
import type { Page } from '@playwright/test';
import { expect, expectAccessible, goToStep, openPerson, saved, signIn, test } from './support.js';

/** A review of someone without a plan, at a step; it stays open for the next test. */
async function review(page: Page, step: string): Promise<void> {
  await openPerson(page, 'Averil Moss', 'Visit');
  const start = page.getByRole('button', { name: 'Start a review' });
  const steps = page.getByRole('navigation', { name: 'Steps of the visit' });
  await expect(start.or(steps)).toBeVisible();
  if (await start.isVisible()) await start.click();
  await goToStep(page, step);
}

/** Adds a measure to the visit by its name. */
async function addMeasure(page: Page, name: string): Promise<void> {
  await page.getByRole('button', { name: 'Add a measure' }).click();
  await page.getByLabel('Find a measure').fill(name);
  await page.getByRole('dialog').getByRole('option', { name }).first().click();
}

test('a device fills trials in turn, and never with a mistake', async ({ page }) => {
  await signIn(page);
  await review(page, 'Measure');
  await addMeasure(page, 'Hip, turning in');
  const field = (side: string, n: number) => page.getByLabel(`Hip, turning in, ${side}, trial ${n}`);
  await field('left', 1).click();
  await page.getByRole('button', { name: 'Connect the inclinometer' }).click();
  const device = page.getByRole('group', { name: 'Device' });
  const mistake = (name: string) => device.getByLabel('play a mistake').selectOption(name);

  for (const [name, told] of [
    ['tilt', 'Tilted: hold it in line, nothing is taken'],
    ['heel lift', 'The heel has lifted, nothing is taken'],
    ['silence', 'The device says nothing. Nothing is taken'],
    ['rubbish', 'The device sent something unreadable: starting over'],
  ] as const) {
    await mistake(name);
    await expect(device.getByText(told)).toBeVisible();
    await expect(field('left', 1)).toHaveValue('');
  }
  await mistake('none');
  await expect(field('left', 1)).not.toHaveValue('', { timeout: 15_000 });
  await expect(field('left', 2)).not.toHaveValue('', { timeout: 15_000 });
  await expect(field('right', 1)).toHaveValue('');
  await expect(device.getByText('right trial 1')).toBeVisible();
  const row = page.getByRole('region', { name: 'Hip, turning in' });
  await expect(row.getByText('simulated', { exact: true })).toBeVisible();
  await mistake('cut');
  await expect(page.getByText(/Disconnected: the connection was lost/)).toBeVisible({ timeout: 15_000 });
  await expect(field('right', 1)).toHaveValue('');
  await expect(page.getByLabel('Method')).toHaveValue('phone or inclinometer');
  await expectAccessible(page, 'Device');
});

test('a force is kept when the push is let go, with its torque, and as held by oneself when it was', async ({
  page,
}) => {
  await signIn(page);
  await review(page, 'Measure');
  await addMeasure(page, 'Turning out, force');
  const field = page.getByLabel('Turning out, force, left, trial 1');
  await field.click();
  await page.getByLabel('Lever arm in cm, left').fill('14');
  await page.getByRole('button', { name: 'Connect the dynamometer' }).click();
  const device = page.getByRole('group', { name: 'Device' });
  await device.getByLabel('play a mistake').selectOption('late trigger');
  await expect(device.getByText(/The push began before the capture/)).toBeVisible();
  await expect(field).toHaveValue('');
  await device.getByLabel('play a mistake').selectOption('self held');
  await expect(device.getByText(/kept as measured by oneself/)).toBeVisible();
  await expect(field).not.toHaveValue('', { timeout: 15_000 });
  await expect(device.getByText(/peak \d+ N, best second \d+ N, rise \d+ N\/s/)).toBeVisible();
  await expect(device.getByText(/Nm\/kg/)).toBeVisible();
  await expect(page.getByLabel('Measured by')).toHaveValue('self');
});

test('an angle from a drawn picture by keys alone, within one degree, and what is no picture is refused', async ({
  page,
}, testInfo) => {
  await signIn(page);
  await review(page, 'Look');
  await page.getByLabel('Hallux angle, right, trial 1').click();
  await page.getByRole('button', { name: 'From a picture' }).click();
  await page.getByRole('radio', { name: 'R right' }).click();

  const input = page.locator('input[type="file"]');
  await input.setInputFiles({
    name: 'toe.jpg',
    mimeType: 'image/jpeg',
    buffer: Buffer.from('not a picture'),
  });
  await expect(page.getByRole('alert')).toContainText('Choose a JPEG or PNG picture');
  const big = testInfo.outputPath('big.jpg');
  writeFileSync(big, Buffer.alloc(30_000_000, 1));
  await input.setInputFiles(big);
  await expect(page.getByRole('alert')).toContainText('This picture has 30 MB; at most 12 MB can be kept');

  await page.getByRole('button', { name: /Leaning big toe/ }).click();
  const picture = page.getByRole('application');
  await picture.focus();
  // From the middle of the picture (450, 600) to each landmark as it was drawn.
  const marks: [number, number][] = [
    [360 - 450, 760 - 600],
    [360 - 450, 430 - 600],
    [446.26 - 450, 260.71 - 600],
  ];
  for (const [i, [dx, dy]] of marks.entries()) {
    if (i > 0) await page.keyboard.press('PageDown');
    await page.keyboard.press('Space');
    const go = async (by: number, less: string, more: string) => {
      const whole = Math.round(Math.abs(by));
      for (let n = 0; n < Math.floor(whole / 10); n += 1)
        await page.keyboard.press(`Shift+${by < 0 ? less : more}`);
      for (let n = 0; n < whole % 10; n += 1) await page.keyboard.press(by < 0 ? less : more);
    };
    await go(dx, 'ArrowLeft', 'ArrowRight');
    await go(dy, 'ArrowUp', 'ArrowDown');
  }
  const dialog = page.getByRole('dialog', { name: 'Hallux angle, from above' });
  await expect(dialog.getByText(/^27(\.\d)?° ± 1\.\d$|^26\.[5-9]° ± 1\.\d$/)).toBeVisible();
  await expectAccessible(page, 'Photo');
  await dialog.getByRole('button', { name: 'Another picture' }).click();
  await expect(dialog.getByText('Taken before')).toBeVisible();
  await dialog.getByRole('button', { name: /Tomas Fell/ }).click();
  // What was placed and not kept is still there.
  await expect(dialog.getByText(/^27(\.\d)?° ± 1\.\d$|^26\.[5-9]° ± 1\.\d$/)).toBeVisible();
  await dialog.getByRole('button', { name: 'Keep the value' }).click();
  await expect(dialog).toBeHidden();
  const kept = Number(await page.getByLabel('Hallux angle, right, trial 1').inputValue());
  expect(Math.abs(kept - 27)).toBeLessThan(1);
  await expect(page.getByLabel('Method')).toHaveValue('photo');
});

test('the quick line: completion, what it means, what is wrong with it, and taking it back', async ({
  page,
}) => {
  await signIn(page);
  await review(page, 'Measure');
  await page.keyboard.press('/');
  const line = page.getByRole('combobox', { name: 'Quick line' });
  await page.keyboard.type('lunge str');
  await expect(page.getByRole('option', { name: /lunge straight/ })).toBeVisible();
  await page.keyboard.press('Tab');
  await expect(line).toHaveValue('lunge straight ');
  await page.keyboard.type('l 24 250');
  await expect(page.getByText(/Lunge, knee straight lies between 0 and 60°/)).toBeVisible();
  await page.getByRole('button', { name: 'Did you mean: lunge straight l 24 25' }).click();
  await expect(page.getByText('Lunge, knee straight: 24.5°')).toBeVisible();
  await page.keyboard.press('Enter');
  const field = page.getByLabel('Lunge, knee straight, left, trial 2');
  await expect(field).toHaveValue('25');
  await page.keyboard.press('Control+z');
  await expect(field).toHaveValue('');
});

test('left and right swapped by mistake are put right, in one step that can be taken back', async ({
  page,
}) => {
  await signIn(page);
  await review(page, 'Measure');
  const field = (side: string, n = 1) => page.getByLabel(`Lunge, knee bent, ${side}, trial ${n}`);
  await field('left').fill('31');
  await field('right').fill('40');
  await page.getByRole('button', { name: 'Swap left and right' }).click();
  await expect(field('left')).toHaveValue('40');
  await expect(field('right')).toHaveValue('31');
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(field('left')).toHaveValue('31');
  await field('left').fill('340');
  await page.getByRole('button', { name: 'Take 34' }).click();
  await expect(field('left')).toHaveValue('34');
  await field('left').fill('34 cm');
  await expect(page.getByText('Lunge, knee bent is in °, not cm')).toBeVisible();
  await field('left').fill('-4');
  await expect(page.getByText('Lunge, knee bent lies between 0 and 70°')).toBeVisible();
});

test('every region of every view can be pressed', async ({ page }) => {
  await signIn(page);
  await review(page, 'Look');
  for (const view of ['Sole', 'Top', 'Outer', 'Inner', 'Front', 'Back']) {
    await page.getByRole('tab', { name: new RegExp(`^${view}`) }).click();
    const map = page.getByRole('group', { name: 'Where it hurts' });
    const first = map.getByRole('checkbox').first();
    const before = await first.isChecked();
    await first.click();
    await expect(first).toBeChecked({ checked: !before });
    await first.click();
    await expect(first).toBeChecked({ checked: before });
    // The right foot is the left one mirrored.
    for (const region of await map.getByRole('checkbox', { name: /, left$/ }).all()) {
      await region.click({ trial: true });
    }
  }
});

test('a measure of the clinic’s own is added, refused where it is wrong, and taken', async ({ page }) => {
  await signIn(page, 'orla.rendell');
  await page.getByRole('link', { name: 'Measures', exact: true }).click();
  await expectAccessible(page, 'Measures');
  await page.getByRole('button', { name: 'Add one of our own' }).click();
  await page.getByRole('textbox', { name: 'Name', exact: true }).fill('Moor foot total');
  await page.getByRole('textbox', { name: 'Highest possible' }).fill('many');
  await page.getByRole('button', { name: 'Add it' }).click();
  await expect(page.getByText('Type the highest possible value')).toBeVisible();
  await expect(page.getByText('Say where the measure and its limits come from')).toBeVisible();
  await page.reload();
  await page.getByRole('button', { name: 'Add one of our own' }).click();
  await expect(page.getByRole('textbox', { name: 'Name', exact: true })).toHaveValue('Moor foot total');
  await page.getByRole('textbox', { name: 'Highest possible' }).fill('80');
  await page.getByRole('textbox', { name: 'Source' }).fill('Licensed to this clinic');
  await expectAccessible(page, 'Own measure');
  await page.getByRole('button', { name: 'Add it' }).click();
  await expect(page.getByRole('heading', { name: 'Moor foot total' })).toBeVisible();
  await review(page, 'Story');
  await page.keyboard.press('/');
  await page.keyboard.type('moor foot total 55');
  await page.keyboard.press('Enter');
  await expect(page.getByLabel('Moor foot total, trial 1')).toHaveValue('55');
  await expect(saved(page)).toBeVisible();
});

test('two tabs of one visit: what is typed in one shows in the other, drafts of both are kept', async ({
  page,
  context,
}) => {
  await signIn(page);
  await review(page, 'Load');
  const other = await context.newPage();
  await other.goto(page.url());
  await expect(other.getByRole('heading', { level: 2, name: 'Load' })).toBeVisible();
  const hold = (p: Page) => p.getByLabel('First-metatarsal hold, left, trial 1');
  await hold(page).fill('65');
  await expect(saved(page)).toBeVisible();
  await expect(hold(other)).toHaveValue('65');
  await context.setOffline(true);
  await hold(page).fill('66');
  await other.getByLabel('First-metatarsal hold, right, trial 1').fill('88');
  await expect(page.locator('[data-status="unreachable"]')).toBeVisible();
  await expect(other.locator('[data-status="unreachable"]')).toBeVisible();
  await page.close();
  await other.close();
  await context.setOffline(false);
  const third = await context.newPage();
  await third.goto(other.url());
  await expect(hold(third)).toHaveValue('66');
  await expect(third.getByLabel('First-metatarsal hold, right, trial 1')).toHaveValue('88');
  await expect(saved(third)).toBeVisible();
});

test('a visit left open overnight says what day its values count as', async ({ page }) => {
  await signIn(page);
  await openPerson(page, 'Corin Fellgate', 'Visit');
  await expect(page.getByText(/^This visit was begun on .* and left open/)).toBeVisible();
  await expectAccessible(page, 'Visit left open');
});
