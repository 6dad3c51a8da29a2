import type { Locator } from '@playwright/test';
import { expect, expectAccessible, signIn, test } from './support.js';

/** Most keys of a review of someone steady, typed readings aside. */
const MOST_PRESSES = 40;

test('a review by keys alone: what happened since, signs asked group by group, the decision and the plan', async ({
  page,
}) => {
  await signIn(page);
  const { items } = (await (await page.request.get(new URL('/api/day', page.url()).href)).json()) as {
    items: { name: string; episodeId: string }[];
  };
  const episode = items.find((i) => i.name === 'Øyvind Farrow')?.episodeId ?? '';
  let presses = 0;
  const press = async (...keys: string[]) => {
    for (const key of keys) {
      presses += 1;
      await page.keyboard.press(key);
    }
  };
  /** What has the focus is one Tab from its button, which is then pressed. */
  const tabAndEnter = async (button: Locator) => {
    await press('Tab');
    await expect(button).toBeFocused();
    await press('Enter');
  };
  const line = page.getByRole('combobox', { name: 'Quick line' });
  const type = async (readings: string) => {
    await press('/');
    await expect(line).toBeFocused();
    await page.keyboard.type(readings);
    await press('Enter');
    await expect(line).toHaveValue('');
    await press('Escape');
  };
  const step = async (name: string) => {
    await press('Alt+ArrowDown');
    await expect(page.getByRole('heading', { level: 2, name, exact: true })).toBeVisible();
  };
  const place = (name: string | RegExp) => page.getByRole('button', { name });

  await page.goto(new URL(`/episodes/${episode}/visit`, page.url()).href);
  await expect(place('Start a review')).toBeFocused();
  await press('Enter');

  await test.step('opens with what happened since, and what the log says', async () => {
    const since = page.getByRole('region', { name: /^Since visit 4/ });
    await expect(since.getByText(/^Exercises on \d+ of 5 days/)).toBeVisible();
    await expect(since.getByText('By the log so far')).toBeVisible();
    await expectAccessible(page, 'Since the last visit');
    await type('first l 3 r 3; worst l 4 r 4; now l 1 r 1');
  });

  await test.step('each group of signs is a place of its own, and a press of the mouse moves nobody', async () => {
    await step('Safety');
    await tabAndEnter(place('They still hold'));
    for (const name of ['Injury and bone', 'Tendon']) {
      await expect(page.getByRole('region', { name })).toBeFocused();
      await tabAndEnter(place(`Asked, none of these: ${name}`));
    }
    await expect(page.getByRole('region', { name: 'Circulation and clot' })).toBeFocused();
    for (;;) {
      const left = page.getByRole('button', { name: /^Asked, none of these|^Tested/ });
      const count = await left.count();
      if (count === 0) break;
      await expect(page.locator('[data-open-place]:focus')).toHaveCount(1);
      await press('Tab', 'Enter');
      await expect(left).not.toHaveCount(count);
    }
    await expect(page.getByRole('complementary').getByText('Safety answered, nothing open')).toBeVisible();
  });

  await test.step('readings in one line, and the conclusion is still so', async () => {
    await step('Look');
    await step('Measure');
    await type('lunge l 39 39 39 r 39 39 39; raise l 5 r 4');
    await step('Load');
    await step('Feel');
    await step('Conclude');
    const last = page.locator('[data-open-place]').last();
    await tabAndEnter(place('It is still so'));
    await expect(last).toBeFocused();
    await tabAndEnter(place('Sign, and decide'));
  });

  await test.step('the decision is one Tab away, then the plan', async () => {
    await expect(page).toHaveURL(/\/course$/);
    await expect(page.getByRole('region', { name: 'The plan it would draft' })).toBeVisible();
    await tabAndEnter(place('Use this'));
    await expect(page).toHaveURL(/\/plan$/);
    await expect(place('Give to Øyvind').locator('..')).toBeFocused();
    await tabAndEnter(place('Give to Øyvind'));
    await expect(page.getByText(/^version 3, given/)).toBeVisible();
  });
  expect(presses).toBeLessThanOrEqual(MOST_PRESSES);

  await test.step('in Course any two visits stand side by side, and the course line leads to each', async () => {
    await page.goto(new URL(`/episodes/${episode}/course`, page.url()).href);
    await expect(page.getByText(/At this pace/).first()).toBeVisible();
    await expect(page.getByRole('rowheader', { name: 'Single-leg heel raise' })).toBeVisible();
    await page.getByRole('button', { name: /^the visit before:/ }).click();
    await page.getByRole('button', { name: /^visit 4,/ }).click();
    await expect(page.getByRole('cell', { name: /4 then 5/ })).toBeVisible();
    await expectAccessible(page, 'Course with a forecast');
    await page.getByRole('link', { name: /^Visit 1,/ }).click();
    await expect(page.getByText(/^First visit/)).toBeVisible();
  });
  test.info().annotations.push({ type: 'presses beside the readings', description: String(presses) });
});
