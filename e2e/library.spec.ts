import type { Page } from '@playwright/test';
import { readFile } from 'node:fs/promises';
import { expect, expectAccessible, openPerson, signIn, test, turnTo } from './support.js';

async function openLibrary(page: Page): Promise<void> {
  await page.getByRole('link', { name: 'Exercises', exact: true }).click();
  await expect(page.getByRole('heading', { level: 1, name: 'Exercises' })).toBeVisible();
}

test.describe('moving', () => {
  test.use({ contextOptions: { reducedMotion: 'no-preference' } });

  test('the library: find by words and by choices, see it move on either side, compare two', async ({
    page,
  }) => {
    await signIn(page);
    await openLibrary(page);
    const stairs = page.getByRole('region', { name: 'Heel raise', exact: true });
    await expect(stairs.getByRole('link')).toHaveCount(10);
    await expect(stairs.getByRole('img', { name: 'Heel raise on one leg, drawn' })).toBeVisible();
    await expectAccessible(page, 'Exercises');

    await test.step('nothing fits, and the way back', async () => {
      await page.getByLabel('Find an exercise').fill('no such words');
      await expect(page.getByText(/No exercise fits all of this/)).toBeVisible();
      await page.getByRole('button', { name: 'Show all' }).click();
    });

    await test.step('narrowed by what is at home and what is to be avoided, with counts', async () => {
      await page.getByLabel('equipment').selectOption('towel');
      await page.getByLabel('free of').selectOption('weight-bearing');
      await page.getByLabel('body part').selectOption('sole');
      await expect(page.getByRole('status')).toHaveText(/^4 of \d+$/);
      await page.getByRole('link', { name: /^Towel gather, drawn/ }).click();
    });

    await test.step('one exercise, moving, on the left and on the right', async () => {
      await expect(page.getByRole('heading', { level: 1, name: 'Towel gather' })).toBeVisible();
      const figure = page.getByRole('img', { name: 'Towel gather, drawn on the right' });
      const before = await figure.innerHTML();
      await expect.poll(() => figure.innerHTML()).not.toBe(before);
      await page.getByRole('radio', { name: 'left', exact: true }).click();
      await expect(page.getByRole('img', { name: 'Towel gather, drawn on the left' })).toHaveCSS(
        'transform',
        'matrix(-1, 0, 0, 1, 0, 0)',
      );
      await expectAccessible(page, 'Exercise');
      await page.getByRole('link', { name: 'Towel in, then away' }).click();
      await expect(page.getByRole('heading', { level: 1, name: 'Towel in, then away' })).toBeVisible();
      await expect(page.getByText(/pushed away again \(direction\)/)).toBeVisible();
    });

    await test.step('two beside each other', async () => {
      await page.getByLabel('Compare with').selectOption({ label: 'Bridge' });
      await expect(page.getByRole('heading', { level: 1, name: 'Bridge' })).toBeVisible();
      await expect(page.getByRole('article')).toHaveCount(2);
      await expectAccessible(page, 'Two exercises');
    });
  });
});

test('a foot from above is the foot it is said to be', async ({ page }) => {
  await signIn(page);
  await turnTo(page, '/library/big-toe-up');
  const drawn = (side: string) => page.getByRole('img', { name: `Big toe up alone, drawn on the ${side}` });
  // Drawn as a left foot: the big toe to the right. The right one is its mirror.
  await expect(drawn('right')).toHaveCSS('transform', 'matrix(-1, 0, 0, 1, 0, 0)');
  await page.getByRole('radio', { name: 'left', exact: true }).click();
  await expect(drawn('left')).toHaveCSS('transform', 'none');
});

test('favourites and the clinic’s note stay', async ({ page }) => {
  await signIn(page);
  await turnTo(page, '/library/heel-toe-rocks');
  await page.getByRole('button', { name: 'keep as favourite' }).click();
  await page.getByRole('button', { name: 'Write a note for the clinic' }).click();
  await page.getByLabel('Note of the clinic').fill('Only at the long wall in room two');
  await page.getByRole('button', { name: 'Keep', exact: true }).click();
  await expect(page.getByText('Only at the long wall in room two')).toBeVisible();
  await page.reload();
  await expect(page.getByRole('button', { name: 'favourite', exact: true })).toHaveAttribute(
    'aria-pressed',
    'true',
  );
  await openLibrary(page);
  await page.getByRole('button', { name: /^favourites/ }).click();
  await expect(page.getByRole('link', { name: /^Heel-toe rocks, drawn/ })).toBeVisible();
});

test('an exercise is taught in the room: paced, faults by keys, kept, and printed as the cue', async ({
  page,
}) => {
  await page.clock.install();
  await signIn(page);
  await openPerson(page, 'Marit Osgar', 'Plan');
  await page
    .getByRole('listitem')
    .filter({ hasText: 'Up on two, down on one' })
    .getByRole('link', { name: 'Teach' })
    .click();
  await expect(page.getByRole('heading', { level: 1, name: 'Up on two, down on one' })).toBeVisible();
  await expectAccessible(page, 'Teaching');
  await page.keyboard.press('r');
  await expect(page.getByRole('img', { name: /drawn on the right/ })).toBeVisible();
  await page.keyboard.press('l');
  await page.getByRole('button', { name: 'Start the pacer' }).click();
  await page.clock.runFor(3500);
  await expect(page.getByText('Up', { exact: true })).toBeVisible();
  await page.clock.runFor(9000);
  await page.getByRole('button', { name: 'Pause' }).click();
  await page.keyboard.press('1');
  await page.keyboard.press('2');
  await page.keyboard.press('1');
  const second = page.getByRole('button', { name: /^2/ });
  await expect(second).toHaveAttribute('aria-pressed', 'true');
  await expect(page.getByText(/^Cue on the handout:/)).toBeVisible();
  await page.getByRole('button', { name: 'Keep in the record and close' }).click();
  await expect(
    page
      .getByRole('listitem')
      .filter({ hasText: 'Up on two, down on one' })
      .getByText(/^Taught .*: /),
  ).toBeVisible();
  await page.goto(page.url().replace(/plan$/, 'handout'));
  await expect(
    page
      .getByRole('listitem')
      .filter({ hasText: 'Up on two, down on one' })
      .getByText(/^Your cue: /),
  ).toBeVisible();
});

test('an exercise is adapted: joints stop at their limits, bad input loses nothing, versions stay', async ({
  page,
}) => {
  await signIn(page, 'orla.rendell');
  await turnTo(page, '/library/raise-two-legs');
  await page.getByRole('link', { name: 'Adapt' }).click();
  const name = page.getByRole('textbox', { name: 'Name', exact: true });
  await expect(name).toHaveValue('Heel raise on two legs, our way');
  await expectAccessible(page, 'Editor');

  await test.step('a slider pulled too far stops where the joint does', async () => {
    const heel = page.getByRole('slider', { name: 'leg shown, heel up' });
    await heel.fill('120');
    await expect(page.getByText(/^Held by the /)).toBeVisible();
    expect(Number(await heel.inputValue())).toBeLessThan(90);
    await page.getByRole('button', { name: 'Undo' }).click();
    await expect(heel).toHaveValue('36');
    await heel.fill('24');
  });

  await test.step('bad input is named by its field and stays, also after the page is opened again', async () => {
    await name.fill('Bridge');
    await page.getByRole('textbox', { name: 'sets, to begin with' }).fill('many');
    await page.getByRole('button', { name: 'Keep', exact: true }).click();
    await expect(page.getByRole('alert').first()).toContainText('Not kept yet');
    await expect(page.getByRole('row', { name: /^sets/ })).toContainText('must be integer');
    await page.reload();
    await expect(page.getByRole('textbox', { name: 'sets, to begin with' })).toHaveValue('many');
    await page.getByRole('textbox', { name: 'sets, to begin with' }).fill('2');
    await page.getByRole('button', { name: 'Keep', exact: true }).click();
    await expect(page.getByText('There is an exercise of this name already').first()).toBeVisible();
  });

  await test.step('kept, reviewed, changed, and then not reviewed any more', async () => {
    await name.fill('Low heel raise');
    await page.getByRole('button', { name: 'Keep', exact: true }).click();
    await expect(page.getByRole('heading', { level: 1, name: 'Low heel raise' })).toBeVisible();
    await page.getByRole('button', { name: 'I have reviewed it' }).click();
    await expect(page.getByText(/^Reviewed by Orla Rendell/)).toBeVisible();
    await page.getByRole('link', { name: 'Change' }).click();
    await name.fill('Low heel raise on the kerb');
    await page.getByRole('button', { name: 'Keep as version 2' }).click();
    await expect(page.getByText(/^Changed since Orla Rendell reviewed it/)).toBeVisible();
    await expect(page.getByText(/^Version 1, .*: Low heel raise$/)).toBeVisible();
  });

  await test.step('given away as a file and taken in again under another name', async () => {
    const download = page.waitForEvent('download');
    await page.getByRole('button', { name: 'Export' }).click();
    const file = await (await download).path();
    expect(JSON.parse(await readFile(file, 'utf8'))).toMatchObject({
      format: 'heathstep exercise',
      exercise: { name: 'Low heel raise on the kerb' },
    });
    await openLibrary(page);
    await page.getByLabel('Exercise file').setInputFiles({
      name: 'letter.json',
      mimeType: 'application/json',
      buffer: Buffer.from('{"hello":1}'),
    });
    await expect(page.getByText('This file is not an exercise exported from here.')).toBeVisible();
    const broken = (more: object) => ({
      name: 'broken.json',
      mimeType: 'application/json',
      buffer: Buffer.from(JSON.stringify({ format: 'heathstep exercise', version: 1, ...more })),
    });
    await page.getByLabel('Exercise file').setInputFiles(broken({}));
    await expect(page.getByText('This file is not an exercise exported from here.')).toBeVisible();
    // One that looks like ours and is not: it is told, set aside, and bars nothing afterwards.
    await page
      .getByLabel('Exercise file')
      .setInputFiles(broken({ exercise: { steps: 7 }, figure: { view: 'side' } }));
    await expect(page.getByRole('heading', { name: 'This cannot be opened' })).toBeVisible();
    await expectAccessible(page, 'A draft that cannot be opened');
    await page.getByRole('button', { name: 'Set it aside' }).click();
    await expect(name).toHaveValue('');
    await turnTo(page, '/library');
    await page.getByLabel('Exercise file').setInputFiles(file);
    await expect(name).toHaveValue('Low heel raise on the kerb');
    await name.fill('Low heel raise, from a colleague');
    await page.getByRole('button', { name: 'Keep', exact: true }).click();
    await expect(
      page.getByRole('heading', { level: 1, name: 'Low heel raise, from a colleague' }),
    ).toBeVisible();
  });

  await test.step('put aside: no longer offered, still there by its address', async () => {
    const address = page.url();
    await page.getByRole('link', { name: 'Change' }).click();
    await page.getByRole('button', { name: 'Put aside' }).click();
    await expect(page.getByText('Put aside: offered to no new plan.')).toBeVisible();
    await openLibrary(page);
    await page.getByLabel('Find an exercise').fill('low heel raise');
    await expect(page.getByRole('link', { name: /^Low heel raise on the kerb, drawn/ })).toBeVisible();
    await expect(page.getByRole('link', { name: /from a colleague/ })).toHaveCount(0);
    await page.goto(address);
    await expect(
      page.getByRole('heading', { level: 1, name: 'Low heel raise, from a colleague' }),
    ).toBeVisible();
  });
});

test('a band is measured with the force device, and a slip of the hand is refused by its field', async ({
  page,
}) => {
  await signIn(page);
  await turnTo(page, '/library/equipment');
  const card = page.getByRole('region', { name: 'Band, firm' });
  await expectAccessible(page, 'Bands');
  await card.getByLabel('firm band at 50 %, newtons').fill('40');
  await card.getByLabel('firm band at 100 %, newtons').fill('30');
  await card.getByRole('button', { name: 'Keep' }).click();
  await expect(card.getByText(/more than the 40 N at less stretch/)).toBeVisible();
  await expect(card.getByLabel('firm band at 100 %, newtons')).toHaveValue('30');
  await card.getByLabel('firm band at 100 %, newtons').fill('56');
  await card.getByRole('button', { name: 'Keep' }).click();
  await expect(card.getByText(/^Measured .*Tomas Fell/)).toBeVisible();
  await expect(card.getByText(/^Between: .*70 % 46 N/)).toBeVisible();
  await turnTo(page, '/library/band-out');
  await expect(page.getByText(/At twice its length: .*firm 56 N/)).toBeVisible();
});

test('a variant and the weights at home are set in the sentences of a plan', async ({ page }) => {
  await signIn(page);
  await openPerson(page, 'Oskar Thwaite', 'Plan');
  await page.getByRole('button', { name: 'Make the next version' }).click();
  await page.getByRole('button', { name: 'Add an exercise' }).click();
  await page.getByLabel('Find an exercise').fill('heel raise, feet turned');
  await page.getByRole('option', { name: /^Heel raise, feet turned/ }).click();
  const line = page.getByRole('listitem').filter({ hasText: 'Heel raise, feet turned' });
  await line.getByRole('button', { name: 'Way: the usual way' }).click();
  await expect(line.getByRole('button', { name: 'Way: heels together' })).toBeVisible();
  await line.getByRole('button', { name: 'Way: heels together' }).press('ArrowUp');
  await expect(line.getByRole('button', { name: 'Way: toes together' })).toBeVisible();
  await page.getByRole('button', { name: /^weights at home/ }).click();
  await page.getByRole('textbox', { name: 'Kilograms, with commas between' }).fill('heavy');
  await expect(page.getByText(/heavy is no number/)).toBeVisible();
  await page.getByRole('textbox', { name: 'Kilograms, with commas between' }).fill('2, 1, 4.5');
  await page.getByRole('dialog').getByRole('button', { name: 'Keep' }).click();
  await expect(page.getByRole('button', { name: 'weights at home: 1, 2, 4.5 kg' })).toBeVisible();
});

test('people in the drawings look as chosen on this device', async ({ page }) => {
  await signIn(page);
  await openLibrary(page);
  const first = page.getByRole('img', { name: 'Wiggle the toes, drawn' });
  const skin = () => first.evaluate((el) => getComputedStyle(el).getPropertyValue('--figure-skin').trim());
  const before = await skin();
  await page.getByRole('button', { name: 'Drawn as' }).click();
  await page.getByRole('combobox', { name: 'Skin' }).selectOption('dark');
  await page.keyboard.press('Escape');
  expect(await skin()).not.toBe(before);
  const chosen = await skin();
  await page.reload();
  await expect(first).toBeVisible();
  expect(await skin()).toBe(chosen);
});

test('someone who wants less movement sees the start behind the end, still', async ({ browser }) => {
  const page = await (await browser.newContext({ reducedMotion: 'reduce' })).newPage();
  await signIn(page);
  await page.goto(page.url().replace(/day$/, 'library/raise-one-leg'));
  const figure = page.getByRole('img', { name: /drawn on the right/ });
  await expect(figure.locator('path[opacity]').first()).toBeAttached();
  const before = await figure.innerHTML();
  await page.evaluate(() => new Promise((done) => requestAnimationFrame(() => requestAnimationFrame(done))));
  expect(await figure.innerHTML()).toBe(before);
});
