import type { Locator, Page } from '@playwright/test';
import { expect, expectAccessible, goToStep, saved, signIn, test } from './support.js';

/** Whether a place has the focus, or is gone; else it is the one at which Tab is not heard any more. */
const tabsOn = (place: Element): 'there' | 'gone' | 'on' => {
  const page = window as typeof window & { tabEndsAt?: Element | undefined };
  if (!('tabEndsAt' in page))
    window.addEventListener(
      'keydown',
      (event) => event.key === 'Tab' && document.activeElement === page.tabEndsAt && event.preventDefault(),
      true,
    );
  page.tabEndsAt = place === document.activeElement ? undefined : place;
  return page.tabEndsAt === undefined ? 'there' : place.isConnected ? 'on' : 'gone';
};

const STROKES = 8;

/**
 * Goes on with Tab, as someone without a mouse would, until a place has the focus. The key is held down, some strokes at
 * a time, and is not heard any more once the place has the focus.
 */
async function tabTo(page: Page, target: Locator): Promise<void> {
  await expect(target).toBeVisible();
  let place = await target.elementHandle();
  for (let strokes = 0; strokes < 250; strokes += STROKES) {
    const is = await place?.evaluate(tabsOn);
    if (is === 'there') return;
    if (is === 'gone') place = await target.elementHandle();
    await Promise.all(Array.from({ length: STROKES }, () => page.keyboard.down('Tab')));
    await page.keyboard.up('Tab');
  }
  throw new Error('Tab never came to it');
}

async function press(page: Page, target: Locator, key = 'Enter'): Promise<void> {
  await tabTo(page, target);
  await page.keyboard.press(key);
}

/** One stop of Tab for a row of tabs; arrows go through them, and each opens as it is come to. */
async function openTab(page: Page, tabs: Locator, name: RegExp): Promise<void> {
  await tabTo(page, tabs.getByRole('tab', { selected: true }));
  const count = await tabs.getByRole('tab').count();
  for (let i = 0; i < count; i += 1) {
    if ((await tabs.getByRole('tab', { name, selected: true }).count()) > 0) return;
    const before = await tabs.getByRole('tab', { selected: true }).innerText();
    await page.keyboard.press('ArrowRight');
    await expect(tabs.getByRole('tab', { selected: true })).not.toHaveText(before);
  }
  await expect(tabs.getByRole('tab', { name, selected: true })).toHaveCount(1);
}

/** Fills a gap of a sentence: opens it, goes down to the choice, takes it. */
async function fillGap(page: Page, gap: RegExp, down: number): Promise<void> {
  await press(page, page.getByRole('button', { name: gap }).first());
  await expect(page.getByRole('dialog')).toBeVisible();
  for (let i = 0; i < down; i += 1) await page.keyboard.press('ArrowDown');
  await page.keyboard.press('Enter');
  if (await page.getByRole('dialog').isVisible()) await page.keyboard.press('Escape');
}

async function fillScore(page: Page, gap: RegExp, score: string): Promise<void> {
  await press(page, page.getByRole('button', { name: gap }).first());
  await expect(page.getByRole('dialog')).toBeVisible();
  await page.keyboard.type(score);
  await expect(page.getByRole('dialog')).toBeHidden();
}

async function quick(page: Page, line: string): Promise<void> {
  await page.keyboard.press('/');
  await expect(page.getByRole('combobox', { name: 'Quick line' })).toBeFocused();
  await page.keyboard.type(line);
  await page.keyboard.press('Enter');
  await expect(page.getByRole('combobox', { name: 'Quick line' })).toHaveValue('');
  await page.keyboard.press('Escape');
}

test('a whole first visit for an ankle sprain by keyboard alone', async ({ page }) => {
  await signIn(page);
  await page.goto(page.url().replace('/day', '/people'));
  await press(page, page.getByRole('button', { name: 'Add a person' }));
  await tabTo(page, page.getByLabel('Name', { exact: true }));
  await page.keyboard.type('Fenn Harrow');
  await tabTo(page, page.getByLabel('Date of birth'));
  await page.keyboard.type('12041999');
  await press(page, page.getByRole('button', { name: 'Add', exact: true }));
  await tabTo(page, page.getByLabel('Find a complaint'));
  await page.keyboard.type('sprain');
  await press(page, page.getByRole('radio', { name: /Outer ankle sprain/ }), 'Space');
  await expect(page.getByRole('radio', { name: /Outer ankle sprain/ })).toBeChecked();
  await tabTo(page, page.getByRole('radio', { name: 'L left' }));
  for (const side of ['both', 'right R']) {
    await page.keyboard.press('ArrowRight');
    await expect(page.getByRole('radio', { name: side })).toBeChecked();
  }
  await press(page, page.getByRole('button', { name: 'Begin the first visit' }));

  await test.step('Story', async () => {
    await openTab(page, page.getByRole('tablist', { name: 'View of the foot' }), /^Outer/);
    await press(
      page,
      page.getByRole('checkbox', { name: 'in front of the outer ankle bone, right' }),
      'Space',
    );
    await expect(page.getByText('in front of the outer ankle bone, right')).toBeVisible();
    await fillGap(page, /^how it began/, 2);
    await fillGap(page, /^since when/, 0);
    await fillScore(page, /^worst pain/, '7');
    await fillScore(page, /^pain now/, '4');
    await fillGap(page, /^provoked within/, 1);
    await press(page, page.getByRole('button', { name: /^how long/ }));
    await page.keyboard.type('90');
    await page.keyboard.press('Enter');
    await fillGap(page, /^wakes at night/, 0);
    await expect(page.getByRole('button', { name: 'how it began: with an injury' })).toBeVisible();
    // Asked once: what is told is the measure's, on the side that hurts.
    await expect(page.getByLabel('Pain now, right, trial 1', { exact: true })).toHaveValue('4');
    await expect(page.getByLabel('Pain now, left, trial 1', { exact: true })).toHaveValue('');
    await quick(page, 'now l 0; worst r 7 l 0');
    await expectAccessible(page, 'Story, sprain');
  });

  await test.step('Safety: an injury opens the questions of the ankle rules', async () => {
    await page.keyboard.press('Alt+ArrowDown');
    await expect(page.getByRole('heading', { level: 2, name: 'Safety' })).toBeVisible();
    // The story tells of an injury already: that opens them, whichever way it was told.
    await expect(page.getByRole('radiogroup', { name: /Could not take 4 steps/ })).toBeVisible();
    await expect(page.getByRole('radiogroup', { name: /intoxicated/ })).toHaveCount(0);
    const injury = page.getByRole('radiogroup', { name: /A twist, fall or blow/ });
    await tabTo(page, injury.getByRole('radio', { name: 'No' }));
    for (const side of ['Left', 'Both', 'Right']) {
      await page.keyboard.press('ArrowRight');
      await expect(injury.getByRole('radio', { name: side })).toBeChecked();
    }
    await expect(page.getByRole('radiogroup', { name: /intoxicated/ })).toBeVisible();
    for (;;) {
      const next = page.getByRole('button', { name: /Asked, none of these|^Tested/ }).first();
      if ((await next.count()) === 0) break;
      await press(page, next);
    }
    await expect(page.getByRole('complementary').getByText('Safety answered, nothing open')).toBeVisible();
    await expectAccessible(page, 'Safety, sprain');
  });

  await test.step('Look: support points and swelling', async () => {
    await page.keyboard.press('Alt+ArrowDown');
    await openTab(page, page.getByRole('tablist', { name: 'Drawing to mark' }), /Support points/);
    await press(page, page.getByRole('button', { name: 'all down' }).first());
    await press(page, page.getByRole('button', { name: 'standing, right, fifth metatarsal head: down' }));
    await press(page, page.getByRole('button', { name: 'standing, right, fifth metatarsal head: light' }));
    await expect(page.getByText(/the outer point is lifted/)).toBeVisible();
    await tabTo(page, page.getByLabel('Ankle girth, figure of eight, left, trial 1'));
    for (const value of ['52', '52.4', '55.6', '55.4']) {
      await page.keyboard.type(value);
      await page.keyboard.press('Enter');
    }
    await expect(page.getByRole('complementary').getByText(/3.3 cm/)).toBeVisible();
    await expectAccessible(page, 'Look, sprain');
  });

  await test.step('Measure: by Enter through the trials and on to the next measure, pain by its own key', async () => {
    await page.keyboard.press('Alt+ArrowDown');
    await tabTo(page, page.getByLabel('Lunge, knee bent, left, trial 1'));
    for (const value of ['38', '39', '38', '29', '30', '28']) {
      await page.keyboard.type(value);
      await page.keyboard.press('Enter');
    }
    // The next reading can never be typed into a pain.
    await expect(page.getByLabel('Ankle, pointing down, left, trial 1')).toBeFocused();
    await page.keyboard.press('Shift+Enter');
    await page.keyboard.press('p');
    const pain = page.getByRole('group', { name: 'Pain while doing it, right' });
    await expect(pain.locator(':focus')).toBeVisible();
    await page.keyboard.press('3');
    await expect(pain.getByRole('button', { name: 'right 3' })).toHaveAttribute('aria-pressed', 'true');
    await page.keyboard.press('Enter');
    await expect(page.getByLabel('Ankle, pointing down, left, trial 1')).toBeFocused();
    await expect(page.getByRole('complementary').getByText('9.3° R')).toBeVisible();
    await quick(
      page,
      'pf range l 52 54 r 40 42 pain 2; inv range l 30 31 r 20 18 pain 4; ev range l 14 15 r 9 10',
    );
    await quick(page, 'ev force l 120 124 r 80 84 pain 3; inv force l 130 r unable; kg 68');
    await tabTo(page, page.getByLabel('Turning out, force, left, trial 1'));
    await tabTo(page, page.getByLabel('Lever arm in cm, left'));
    await page.keyboard.type('15');
    await expect(page.getByRole('button', { name: /Turning out, torque per kg, left: 0.27/ })).toBeVisible();
    await quick(page, 'leg length l 88 r 88');
    await expectAccessible(page, 'Measure, sprain');
  });

  await test.step('Load: balance, reach and raises; the composite works itself out', async () => {
    await page.keyboard.press('Alt+ArrowDown');
    await quick(
      page,
      'balance eo l 45 r 9 12 11; reach ant l 62 r 55 pain 2; reach pm l 92 r 84; reach pl l 90 r 80',
    );
    await quick(page, 'raise l 24 r stopped pain 5');
    await expect(page.getByRole('button', { name: /^Reach, all three, right: 83/ })).toBeVisible();
    await expect(page.getByRole('button', { name: /^not what is usual at this age/ })).toBeVisible();
    await expectAccessible(page, 'Load, sprain');
  });

  await test.step('Feel: findings by one key each; the conclusion is signed', async () => {
    await page.keyboard.press('Alt+ArrowDown');
    await expect(page.getByRole('heading', { level: 2, name: 'Feel' })).toBeVisible();
    await tabTo(page, page.getByLabel('Find a finding'));
    await page.keyboard.type('outer ligament');
    await tabTo(
      page,
      page.getByRole('button', { name: 'present, Tender over the front outer ligament, left' }),
    );
    await page.keyboard.press('ArrowRight');
    await page.keyboard.press('p');
    await expect(
      page.getByRole('button', { name: 'present, Tender over the front outer ligament, right' }),
    ).toHaveAttribute('aria-pressed', 'true');
    await expectAccessible(page, 'Feel, sprain');
    await page.keyboard.press('Alt+ArrowDown');
    await press(page, page.getByRole('button', { name: 'Agree: Outer ankle sprain, right' }));
    await expect(saved(page)).toBeVisible();
    await expectAccessible(page, 'Conclude, sprain');
    await fillGap(page, /^which stage/, 0);
    await press(page, page.getByRole('button', { name: 'Sign, and make the plan' }));
    await press(page, page.getByRole('button', { name: 'Make the plan', exact: true }));
    await expect(page.getByRole('heading', { name: /^Ankle pumps/ })).toBeVisible();
    await expectAccessible(page, 'Plan, sprain');
    await press(page, page.getByRole('button', { name: /^Move and strengthen/ }));
    await expect(page.getByRole('region', { name: 'Stage Move and strengthen' })).toContainText(
      'Turning out, force, treated side at least 85 % of the other',
    );
    await press(page, page.getByRole('button', { name: 'Give to Fenn' }));
    await expect(page.getByRole('link', { name: 'Print the handout' })).toBeVisible();
    await press(page, page.getByRole('link', { name: 'Visit', exact: true }));
    await expect(page.getByRole('heading', { name: 'Visit 1 was signed' })).toBeVisible();
  });

  await test.step('a signed visit is read, and amended only with a reason, both values kept', async () => {
    await press(page, page.getByRole('link', { name: /^Visit 1/ }));
    await goToStep(page, 'Load');
    await expect(page.getByLabel('Single-leg heel raise, left, trial 1')).toBeDisabled();
    const paper = page.getByRole('article', { name: 'The visit on paper' });
    await expect(paper).toBeHidden();
    await page.emulateMedia({ media: 'print' });
    for (const said of [
      'Fenn Harrow',
      'Outer ankle sprain, right',
      'Where it hurts: in front of the outer ankle bone, right',
      'How it began: with an injury',
      'Not called for: ',
      'Present: ',
      'Tender over the front outer ligament, right',
      'It is: Outer ankle sprain, right',
      'Signed by Tomas Fell',
    ])
      await expect(paper).toContainText(said);
    await expect(paper.getByRole('row', { name: /^Single-leg heel raise/ })).toContainText('stopped by pain');
    await expect(page.getByRole('navigation', { name: 'Steps of the visit' })).toBeHidden();
    // One page of paper.
    const pdf = (await page.pdf({ format: 'A4', printBackground: true })).toString('latin1');
    expect(pdf.match(/\/Type\s*\/Page\b(?!s)/g)).toHaveLength(1);
    await page.emulateMedia({ media: 'screen' });
    await press(page, page.getByRole('button', { name: 'Amend it' }));
    await page.keyboard.type('Miscounted, seen on the film');
    await page.keyboard.press('Enter');
    await tabTo(page, page.getByLabel('Single-leg heel raise, left, trial 1'));
    await page.keyboard.type('22');
    await expect(saved(page)).toBeVisible();
    await page.reload();
    const amended = page.getByRole('region', { name: 'Amendments' });
    await expect(amended).toContainText('was 24, now 22');
    await expect(amended).toContainText('Miscounted, seen on the film');
    await expectAccessible(page, 'Signed visit');
  });
});

/** Taps a number on the keys under the trials. */
async function tapNumber(page: Page, text: string): Promise<void> {
  const keys = page.getByRole('group', { name: 'Figures' });
  for (const c of text) await keys.getByRole('button', { name: c === '-' ? '−' : c, exact: true }).tap();
}

test('a whole first visit for a bunion with flat foot by touch alone, on a tablet', async ({ browser }) => {
  const context = await browser.newContext({
    viewport: { width: 1024, height: 768 },
    hasTouch: true,
    isMobile: true,
    locale: 'en-GB',
    timezoneId: 'Europe/London',
  });
  const page = await context.newPage();
  await signIn(page);
  await page.getByRole('link', { name: 'People' }).tap();
  await page.getByRole('button', { name: 'Add a person' }).tap();
  await page.getByLabel('Name', { exact: true }).fill('Merle Ashdown');
  await page.getByLabel('Date of birth').fill('1975-05-05');
  await page.getByRole('button', { name: 'Add', exact: true }).tap();
  // The list behind names the same complaint of someone else.
  await expect(page.getByRole('heading', { level: 1, name: 'Merle Ashdown' })).toBeVisible();
  await page.getByText('Bunion with flat foot').tap();
  await page.getByRole('radio', { name: 'L left' }).tap();
  await page.getByRole('button', { name: 'Begin the first visit' }).tap();
  const gap = async (name: RegExp, choice: string) => {
    await page.getByRole('button', { name }).first().tap();
    await page.getByRole('dialog').getByRole('button', { name: choice, exact: true }).tap();
    await expect(page.getByRole('dialog')).toBeHidden();
  };

  await test.step('Story by the drawing and the gaps', async () => {
    await page.getByRole('tab', { name: 'Top' }).tap();
    await page.getByRole('checkbox', { name: 'big toe joint, left' }).tap();
    await gap(/^how it began/, 'gradually');
    await gap(/^since when/, 'over a year ago');
    await gap(/^worst pain/, 'worst pain 5');
    await gap(/^pain now/, 'pain now 1');
    await gap(/^provoked within/, 'no');
    await page.getByRole('button', { name: /^how long/ }).tap();
    await page.getByLabel('how long, min').fill('20');
    await page.getByRole('button', { name: 'Keep' }).tap();
    await gap(/^wakes at night/, 'no');
    await page.getByRole('button', { name: /^burning, numbness/ }).tap();
    await page.getByRole('button', { name: 'no burning, numbness or back stiffness' }).tap();
  });

  await test.step('Safety, group by group', async () => {
    await page.getByRole('link', { name: 'On to safety' }).tap();
    await expect(page.getByRole('radiogroup').first()).toBeVisible();
    for (;;) {
      const next = page.getByRole('button', { name: /Asked, none of these|^Tested/ }).first();
      if ((await next.count()) === 0) break;
      await next.tap();
    }
    await page.getByRole('link', { name: 'On to look' }).tap();
  });

  await test.step('Look: toes, points, callus and wear are tapped; posture by its items', async () => {
    await page.getByRole('tab', { name: /Support points/ }).tap();
    await page.getByRole('button', { name: 'all down' }).first().tap();
    await page.getByRole('tab', { name: /Toe shapes/ }).tap();
    for (let i = 0; i < 2; i += 1)
      await page.getByRole('button', { name: /^second toe, left: (not|straight)/ }).tap();
    await page.getByRole('button', { name: 'The rest straight, left' }).tap();
    await page.getByRole('button', { name: 'The rest straight, right' }).tap();
    await page.getByRole('tab', { name: /Callus/ }).tap();
    await page.getByRole('checkbox', { name: 'under the middle metatarsal heads, left' }).tap();
    await page.getByRole('button', { name: 'No callus, right' }).tap();
    await page.getByRole('tab', { name: /Shoe wear/ }).tap();
    await page.getByRole('checkbox', { name: 'inner forefoot, left' }).tap();
    await page.getByRole('button', { name: 'Even wear, right' }).tap();
    await page.getByLabel('Foot posture index, left, trial 1').tap();
    const items = page.getByRole('group', { name: 'Items of Foot posture index' });
    for (const group of await items.getByRole('radiogroup').all()) {
      const left = ((await group.getAttribute('aria-label')) ?? '').endsWith('left');
      await group.getByRole('radio', { name: left ? '+1' : '0', exact: true }).tap();
    }
    await expect(page.getByLabel('Foot posture index, left, trial 1')).toHaveValue('6');
    await expect(page.getByLabel('Foot posture index, right, trial 1')).toHaveValue('0');
    await expect(page.getByRole('button', { name: /^pronated/ })).toBeVisible();
    const rows: [string, string, string][] = [
      ['Hallux angle', '24', '12'],
      ['Heel angle, standing', '8', '-2'],
      ['Toe-out, standing', '18', '9'],
      ['Insole width', '88', '88'],
      ['Forefoot width', '96', '93'],
    ];
    for (const [name, left, right] of rows) {
      await page.getByLabel(`${name}, left, trial 1`).tap();
      await tapNumber(page, left);
      await page.getByRole('group', { name: 'Figures' }).getByRole('button', { name: 'Next' }).tap();
      await tapNumber(page, right);
    }
    const shin = page.getByRole('radiogroup', { name: 'Shin line, left' });
    await shin.getByRole('radio', { name: 'medial' }).tap();
    await page
      .getByRole('radiogroup', { name: 'Shin line, right' })
      .getByRole('radio', { name: 'neutral' })
      .tap();
    await expect(page.getByRole('button', { name: /^Toe-box room, left: -8/ })).toBeVisible();
    await expect(page.getByRole('button', { name: /^too narrow/ })).toBeVisible();
  });

  await test.step('no scrolling inside a measure, and keys large enough for a finger', async () => {
    await goToStepByTouch(page, 'Measure');
    await page.getByLabel('Lunge, knee bent, left, trial 1').tap();
    const row = page.getByRole('region', { name: 'Lunge, knee bent' });
    const box = await row.boundingBox();
    expect(box?.height ?? 0).toBeLessThan(820);
    const small = await row.evaluate((e) =>
      [...e.querySelectorAll<HTMLElement>('button, select, summary, input[data-trial]')]
        .filter((b) => !b.closest('[data-why]') && b.getBoundingClientRect().height > 0)
        .filter((b) => b.getBoundingClientRect().height < 43.5)
        .map(
          (b) => `${b.textContent || b.getAttribute('aria-label') || ''} ${b.getBoundingClientRect().height}`,
        ),
    );
    expect(small).toEqual([]);
  });

  await test.step('Measure and Load by the keys under the trials', async () => {
    const trials: [string, string[], string[]][] = [
      ['Lunge, knee bent', ['34', '35', '34'], ['38', '38', '39']],
      ['Lunge, knee straight', ['25', '25', '26'], ['28', '28', '29']],
      ['Big toe extension', ['48', '50'], ['62', '63']],
      ['Toe press, big toe', ['60', '66', '64'], ['88', '91', '86']],
    ];
    for (const [name, left, right] of trials) {
      await page.getByLabel(`${name}, left, trial 1`).tap();
      for (const value of [...left, ...right]) {
        await tapNumber(page, value);
        await page.getByRole('group', { name: 'Figures' }).getByRole('button', { name: 'Next' }).tap();
      }
      await expect(page.getByLabel(`${name}, right, trial ${right.length}`)).toHaveValue(right.at(-1) ?? '');
    }
    await expectAccessible(page, 'Measure by touch');
    await goToStepByTouch(page, 'Load');
    for (const [name, level] of [
      ['Big toe alone, left', 'partial'],
      ['Big toe alone, right', 'full'],
      ['Toes spread, left', 'none'],
      ['Toes spread, right', 'full'],
    ] as const)
      await page.getByRole('radiogroup', { name }).getByRole('radio', { name: level }).tap();
    await page.getByLabel('Single-leg heel raise, left, trial 1').tap();
    await page.getByRole('button', { name: 'Start left' }).tap();
    for (let i = 0; i < 3; i += 1) await page.getByRole('button', { name: 'One more' }).tap();
    await page.getByRole('button', { name: /knee bent/ }).tap();
    await page.getByRole('button', { name: /pressure left the big toe/ }).tap();
    await expect(page.getByText('Kept 3. Ended: 2 faults')).toBeVisible();
    await expect(page.getByLabel('Single-leg heel raise, left, trial 1')).toHaveValue('3');
    await page.getByRole('button', { name: 'Start right' }).tap();
    await page.getByRole('button', { name: 'One more' }).tap();
    await page.getByRole('button', { name: 'Stop and keep 1' }).tap();
    await page.getByRole('button', { name: 'Skip what is left' }).tap();
    await page.getByLabel('Why the rest of this step is left out').fill('Tired');
    await page.getByRole('button', { name: 'Skip', exact: true }).tap();
    await expect(page.getByText('Skipped: Tired')).toBeVisible();
  });

  await test.step('Feel and the signature', async () => {
    await page.getByRole('link', { name: 'On to feel' }).tap();
    await page
      .getByRole('radiogroup', { name: /^Arch rises.*left/ })
      .getByRole('radio', { name: 'late' })
      .tap();
    await page
      .getByRole('radiogroup', { name: /^Arch rises.*right/ })
      .getByRole('radio', { name: 'works' })
      .tap();
    await page.getByRole('tab', { name: /Feeling/ }).tap();
    await page.getByRole('button', { name: 'The rest felt, left' }).tap();
    await page.getByRole('button', { name: 'The rest felt, right' }).tap();
    await page.getByRole('link', { name: 'On to conclude' }).tap();
    await page.getByRole('button', { name: 'Agree: Bunion, left' }).tap();
    await expect(saved(page)).toBeVisible();
    await page.getByRole('button', { name: /^which stage/ }).tap();
    await page.getByRole('dialog').getByRole('button', { name: 'Room first' }).tap();
    await page.getByRole('button', { name: 'Sign, and make the plan' }).tap();
    await page.getByRole('button', { name: 'Make the plan', exact: true }).tap();
    await page.getByRole('button', { name: 'Give to Merle' }).tap();
    await expect(page.getByRole('link', { name: 'Print the handout' })).toBeVisible();
  });
  await context.close();
});

async function goToStepByTouch(page: Page, step: string): Promise<void> {
  await page
    .getByRole('navigation', { name: 'Steps of the visit' })
    .getByRole('link', { name: new RegExp(`^${step}`) })
    .tap();
  await expect(page.getByRole('heading', { level: 2, name: step, exact: true })).toBeVisible();
  await expectForFingers(page, step);
}

/** Nothing of a step lies beside its column, and whatever is pressed is large enough for a finger. */
async function expectForFingers(page: Page, step: string): Promise<void> {
  const main = page.getByRole('main');
  expect(await main.evaluate((e) => e.scrollWidth - e.clientWidth), `${step}: wider than its column`).toBe(0);
  const small = await main.evaluate((e) =>
    [...e.querySelectorAll<HTMLElement>('button, select, summary, a, input:not([type=checkbox])')]
      .filter((b) => b.closest('[data-why]') === null && b.closest('svg') === null)
      .map((b) => ({ name: b.getAttribute('aria-label') ?? b.textContent, size: b.getBoundingClientRect() }))
      .filter(({ size }) => size.height > 0 && size.width > 1 && (size.height < 43.5 || size.width < 23.5))
      .map(({ name, size }) => `${name} ${Math.round(size.width)}x${Math.round(size.height)}`),
  );
  expect(small, `${step}: too small for a finger`).toEqual([]);
}
