import type { Locator, Page } from '@playwright/test';
import { choose, expect, expectAccessible, goToStep, saved, signIn, takeTrials, test } from './support.js';

async function beginComplaint(
  page: Page,
  name: string,
  born: string,
  side: 'L left' | 'right R',
): Promise<void> {
  await signIn(page);
  await page
    .getByRole('navigation', { name: 'Places', exact: true })
    .getByRole('link', { name: 'People' })
    .click();
  await page.getByRole('button', { name: 'Add a person' }).click();
  await page.getByLabel('Name', { exact: true }).fill(name);
  await page.getByLabel('Date of birth').fill(born);
  await page.getByRole('button', { name: 'Add', exact: true }).click();
  await page.getByRole('radio', { name: /Foot or ankle complaint/ }).click();
  await page.getByRole('radio', { name: side }).click();
  await page.getByRole('button', { name: 'Begin the first visit' }).click();
  await expect(page.getByRole('heading', { level: 2, name: 'Story' })).toBeVisible();
}

const tally = (page: Page): Locator => page.getByRole('complementary');
const idea = (page: Page, name: string): Locator =>
  tally(page).getByRole('list', { name: 'Ideas' }).getByRole('listitem').filter({ hasText: name });

/** Finds a finding by its words and answers it on a side. */
async function answer(page: Page, find: string, what: string): Promise<void> {
  await page.getByLabel('Find a finding').fill(find);
  await page.getByRole('button', { name: what, exact: true }).click();
  await expect(page.getByRole('button', { name: what, exact: true })).toHaveAttribute('aria-pressed', 'true');
}

test('heel pain: from nothing known to a conclusion, with reasons down to each ratio', async ({ page }) => {
  await beginComplaint(page, 'Tamsin Orrel', '1979-05-02', 'L left');
  await expect(tally(page).getByText('Cannot tell yet')).toBeVisible();

  await test.step('the story moves the ideas', async () => {
    await page.getByRole('checkbox', { name: 'inner heel, left' }).click();
    await choose(page, /^how it began/, 'gradually');
    await choose(page, /^when it is worse/, 'on first steps');
    await choose(page, /^since when/, '6 weeks to 3 months ago');
    await expect(idea(page, 'Plantar heel pain')).toContainText('leading');
    await expect(tally(page).getByText('Cannot tell yet')).toHaveCount(0);
  });

  await test.step('an open finding shows what either answer would do, and is answered by one key', async () => {
    await goToStep(page, 'Feel');
    await page.getByLabel('Find a finding').fill('windlass test, standing');
    const windlass = page.getByRole('button', { name: 'present, Windlass test, standing, left' });
    await windlass.hover();
    await expect(tally(page).getByText('+ and − : Windlass test, standing, present or absent')).toBeVisible();
    await page.getByRole('button', { name: 'How: Windlass test, standing' }).click();
    await expect(page.getByText('Lift the big toe up as far as it goes')).toBeVisible();
    await expect(page.getByRole('img', { name: /Windlass test, standing: where to press/ })).toBeVisible();
    await expectAccessible(page, 'Feel with a test opened');
    await windlass.focus();
    await page.keyboard.press('p');
    await expect(windlass).toHaveAttribute('aria-pressed', 'true');
    // The next one found has the focus now.
    await windlass.focus();
    await page.keyboard.press('Backspace');
    await expect(windlass).toHaveAttribute('aria-pressed', 'false');
    await windlass.focus();
    await page.keyboard.press('p');
    await answer(page, 'inner heel point', 'present, Tender at the inner heel point, left');
  });

  await test.step('Why goes down to the ratio and its source', async () => {
    await idea(page, 'Plantar heel pain')
      .getByRole('button', { name: /leading. Why/ })
      .click();
    const why = page.getByRole('dialog', { name: 'Why' });
    await expect(why).toContainText('De Garceau 2003');
    await expect(why).toContainText('x 10');
    await expect(why).toContainText('uncalibrated');
    await page.keyboard.press('Escape');
  });

  await test.step('the clinician agrees, rejects with a reason, adds; that is the record', async () => {
    await goToStep(page, 'Conclude');
    await page.getByRole('button', { name: 'Agree: Plantar heel pain, left' }).click();
    await page.getByRole('button', { name: 'Go on as plantar heel pain' }).click();
    await expect(page.getByRole('button', { name: 'Sign, and make the plan' })).toBeVisible();
    await page.getByLabel('Add another').selectOption({ label: 'Forefoot overload' });
    await page.getByRole('button', { name: 'Add', exact: true }).click();
    await expect(page.getByRole('main').getByText('added by you')).toBeVisible();
    await page.getByRole('button', { name: 'Agree: Plantar heel pain, left' }).click();
    await page.getByRole('button', { name: 'Reject: Plantar heel pain, left' }).click();
    await expect(page.getByRole('button', { name: 'Reject', exact: true })).toBeDisabled();
    await page.getByLabel('Why it is not plantar heel pain').fill('The scan shows another cause');
    await page.getByRole('button', { name: 'Reject', exact: true }).click();
    await expect(page.getByText('Rejected: The scan shows another cause')).toBeVisible();
    await expect(saved(page)).toBeVisible();
    await page.reload();
    await expect(page.getByText('Rejected: The scan shows another cause')).toBeVisible();
    await expectAccessible(page, 'Conclude with judged ideas');
  });
});

test('Achilles: a red flag in the hands stops tests that load, and is ruled out first', async ({ page }) => {
  await beginComplaint(page, 'Rhys Cotterdale', '1983-02-11', 'right R');
  await page.getByRole('tab', { name: 'Back' }).click();
  await page.getByRole('checkbox', { name: 'Achilles tendon, 2 to 6 cm up, right' }).click();
  await choose(page, /^how it began/, 'suddenly, without an injury');
  await goToStep(page, 'Feel');
  await page.getByLabel('Find a finding').fill('raise or hop');
  await expect(page.getByText(/do not test/i)).toHaveCount(0);
  await answer(page, 'calf squeeze', 'present, Calf squeeze does not move the foot, right');
  await expect(idea(page, 'Achilles tendon rupture')).toContainText('rule out first');
  await page.getByLabel('Find a finding').fill('raise or hop');
  await expect(
    page.getByText(/Right: do not test now, safety switches off .*load on the calf/),
  ).toBeVisible();
  await expect(tally(page).getByRole('region', { name: 'Most telling next' })).not.toContainText('raise');
  await goToStep(page, 'Safety');
  await expect(
    page
      .getByRole('list', { name: 'What the answers opened' })
      .getByText(/Achilles/)
      .first(),
  ).toBeVisible();
  await goToStep(page, 'Conclude');
  await page.getByRole('button', { name: 'Prepare the letter' }).click();
  const letter = page.getByLabel('Text of the letter');
  await expect(letter).toHaveValue(/URGENT/);
  await expect(letter).toHaveValue(/Achilles tendon rupture \(right\): Signs of a torn tendon/);
  await letter.press('Control+End');
  await page.keyboard.type('\nWith thanks, by hand.');
  await expectAccessible(page, 'Letter');
  await page.getByRole('button', { name: 'Close' }).click();
  await expect(saved(page)).toBeVisible();
  await page.reload();
  await page.getByRole('button', { name: 'Prepare the letter' }).click();
  await expect(letter).toHaveValue(/URGENT[^]*With thanks, by hand\.$/);
  await page.getByRole('button', { name: 'Prepare anew' }).click();
  await expect(letter).not.toHaveValue(/by hand/);
  await page.getByRole('button', { name: 'Close' }).click();
  await expect(page.getByRole('button', { name: 'Sign, and make the plan' })).toBeDisabled();
});

test('inner ankle: measures set findings, drivers say why, and a reason to refer is named', async ({
  page,
}) => {
  await beginComplaint(page, 'Jory Penhale', '1966-09-21', 'L left');
  await page.getByRole('tab', { name: 'Inner' }).click();
  await page.getByRole('checkbox', { name: 'behind and below the inner ankle bone, left' }).click();
  await choose(page, /^how it began/, 'gradually');
  await goToStep(page, 'Measure');
  await takeTrials(page, 'Lunge, knee bent', 'left', ['26', '26', '26']);
  await takeTrials(page, 'Lunge, knee bent', 'right', ['41', '41', '41']);
  await goToStep(page, 'Load');
  await takeTrials(page, 'Single-leg heel raise', 'left', ['0']);
  await goToStep(page, 'Feel');
  await page.getByLabel('Find a finding').fill('one single-leg heel raise');
  await expect(
    page.getByRole('group', { name: 'Cannot do one single-leg heel raise, left: present' }),
  ).toContainText('from Load');
  await answer(page, 'come down lately', 'present, The arch has come down lately, left');
  await answer(page, 'many toes', 'present, Many toes seen from behind, left');
  await expect(idea(page, 'Posterior tibial tendon')).toContainText('leading');
  await goToStep(page, 'Conclude');
  const drivers = page.getByRole('region', { name: 'What keeps it going' });
  await expect(drivers).toContainText('Calf weak');
  await expect(drivers).toContainText('Ankle stiff, joint or capsule');
  await expect(drivers).toContainText('Adds: heel-raise ladder');
  await expect(page.getByRole('region', { name: 'To refer' })).toContainText(
    'Cannot rise on one leg and the arch falls, stage 2 or more',
  );
  await page.getByLabel('It cannot be told yet; the next visit goes on').check();
  await expect(saved(page)).toBeVisible();
});
