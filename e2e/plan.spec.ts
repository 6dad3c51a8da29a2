import type { Locator, Page } from '@playwright/test';
import { expect, expectAccessible, openPerson, openPhone, saved, signIn, test } from './support.js';

/** The days of one exercise in the week of a draft. */
const daysOf = (week: Locator, exercise: string) =>
  week
    .getByRole('button', { name: new RegExp(`^${exercise}, `) })
    .evaluateAll((marks) => marks.map((m) => m.getAttribute('aria-label')?.split(', ').at(-1)));

async function draftOf(page: Page, name: string): Promise<Locator> {
  await openPerson(page, name, 'Plan');
  const next = page.getByRole('button', { name: 'Make the next version' });
  await expect(next.or(page.getByText(/^draft of version/)).first()).toBeVisible();
  if (await next.isVisible()) await next.click();
  const week = page.getByRole('region', { name: 'The week', exact: true });
  await expect(week).toBeVisible();
  return week;
}

test('the week of a plan: marks go to another day by pointer and by keys, and stay there', async ({
  page,
}) => {
  await signIn(page);
  const week = await draftOf(page, 'Birke Holloway');
  const exercise = 'Step up';
  const mark = (day: string) => week.getByRole('button', { name: `${exercise}, ${day}`, exact: true });
  expect(await daysOf(week, exercise)).toEqual(['Monday', 'Thursday', 'Saturday']);

  await test.step('by pointer', async () => {
    await mark('Monday').scrollIntoViewIfNeeded();
    const from = await mark('Monday').boundingBox();
    const to = await week.getByRole('button', { name: `Also on Tuesday, ${exercise}` }).boundingBox();
    if (from === null || to === null) throw new Error('the week is not drawn');
    await page.mouse.move(from.x + from.width / 2, from.y + from.height / 2);
    await page.mouse.down();
    await page.mouse.move(from.x + from.width, from.y + from.height / 2, { steps: 4 });
    await page.mouse.move(to.x + to.width / 2, to.y + to.height / 2, { steps: 4 });
    await page.mouse.up();
    await expect(mark('Tuesday')).toBeVisible();
    expect(await daysOf(week, exercise)).toEqual(['Tuesday', 'Thursday', 'Saturday']);
  });

  await test.step('by keys, and back with Escape', async () => {
    const lifted = async (day: string) => {
      await mark(day).focus();
      await page.keyboard.press('Space');
      await expect(page.getByText(`${exercise}, taken from ${day}`)).toBeAttached();
    };
    await lifted('Saturday');
    await page.keyboard.press('ArrowRight');
    await expect(page.getByText('Sunday', { exact: true }).first()).toBeAttached();
    await page.keyboard.press('Space');
    await expect(mark('Sunday')).toBeVisible();
    await lifted('Sunday');
    await page.keyboard.press('ArrowLeft');
    await page.keyboard.press('Escape');
    await expect(mark('Sunday')).toBeVisible();
    expect(await daysOf(week, exercise)).toEqual(['Tuesday', 'Thursday', 'Sunday']);
  });

  await test.step('an exercise at another part of the day than the rest, by keys, and its sentence says so', async () => {
    const when = week.getByLabel(`When of the day, ${exercise}`);
    await expect(when).toHaveValue('');
    await when.focus();
    await page.keyboard.press('e');
    await expect(when).toHaveValue('evening');
    await expect(page.getByText(/3 days a week, in the evening\./)).toBeVisible();
    await page.keyboard.press('Control+z');
    await expect(when).toHaveValue('');
  });

  await test.step('a time of day, held against the calendar of the person', async () => {
    const time = week.getByLabel('Time of day for the exercises');
    await expect(time).toHaveValue('18:00');
    const file = (text: string) =>
      week.getByLabel('Calendar file').setInputFiles({
        name: 'own.ics',
        mimeType: 'text/calendar',
        buffer: Buffer.from(text),
      });
    await time.fill('late');
    await time.press('Enter');
    await expect(week.getByText('Type a time such as 18:30')).toBeVisible();
    await time.fill('6.30');
    await time.press('Enter');
    await expect(time).toHaveValue('06:30');
    await time.fill('18:00');
    await time.press('Enter');
    await file('a shopping list');
    await expect(week.getByText('This is no calendar file.')).toBeVisible();
    await file(
      [
        'BEGIN:VCALENDAR',
        'VERSION:2.0',
        'PRODID:-//own//own//EN',
        'BEGIN:VEVENT',
        'UID:1',
        'DTSTAMP:20260101T000000Z',
        'DTSTART:20260101T173000',
        'DTEND:20260101T200000',
        'RRULE:FREQ=DAILY',
        'END:VEVENT',
        'END:VCALENDAR',
      ].join('\r\n'),
    );
    await expect(week.getByText('Taken in the next 14 days:')).toBeVisible();
    await expectAccessible(page, 'Week held against a calendar');
    await week.getByRole('button', { name: /fewer are taken: set it$/ }).click();
    await expect(time).not.toHaveValue('18:00');
    await expect(week.getByText(/is free on every day of the next 14/)).toBeVisible();
  });

  await test.step('the draft keeps it, and one step is taken back', async () => {
    await expect(saved(page)).toBeVisible();
    await page.reload();
    await expect(mark('Sunday')).toBeVisible();
    await week.getByRole('button', { name: `Also on Friday, ${exercise}` }).click();
    await expect(mark('Friday')).toBeVisible();
    await page.keyboard.press('Control+z');
    await expect(mark('Friday')).toHaveCount(0);
    await page.keyboard.press('Control+Shift+z');
    await expect(mark('Friday')).toBeVisible();
    await page.getByRole('button', { name: 'Undo' }).click();
    await page.getByRole('button', { name: 'All easier' }).click();
    await expect(page.getByText('One rung down, by the clinician').first()).toBeVisible();
    await page.getByRole('button', { name: 'Undo' }).click();
    await expect(mark('Sunday')).toBeVisible();
    await expect(saved(page)).toBeVisible();
    await expect(page.getByRole('button', { name: /^Give to/ })).toBeEnabled();
    await expectAccessible(page, 'Week of a draft');
  });

  await test.step('other minutes leave what was changed by hand, until someone has seen what filling anew would change', async () => {
    const minutes = async (value: string) => {
      await page.getByRole('button', { name: /^minutes a day/ }).click();
      await page.getByLabel('minutes a day, min').fill(value);
      await page.keyboard.press('Enter');
    };
    const asked = page.getByRole('status', { name: 'The exercises below stand as they were' });
    await minutes('6');
    await expect(asked.getByText('would leave')).toBeVisible();
    await expect(mark('Sunday')).toBeVisible();
    await asked.getByRole('button', { name: 'Keep them as they stand' }).click();
    await page.reload();
    await expect(page.getByRole('button', { name: 'minutes a day: 6 min' })).toBeVisible();
    await expect(mark('Sunday')).toBeVisible();
    await page.getByRole('button', { name: 'Fill the stage anew' }).click();
    await expect(asked.getByText('would leave')).toBeVisible();
    await expectAccessible(page, 'What filling anew would change');
    await asked.getByRole('button', { name: 'Fill the stage anew' }).click();
    await expect(mark('Sunday')).toHaveCount(0);
    await expect(asked).toBeHidden();
  });
});

test('exercises in rounds and a routine: joined, dosed together, kept, given, and done in turn on the phone', async ({
  page,
  browser,
}) => {
  await signIn(page);
  await draftOf(page, 'Tilda Marsh');
  const round = page.getByText(/^In turn, \d rounds? of the next 2/);

  await test.step('two that are done every day go in turn, and what is changed in one holds for both', async () => {
    await page
      .getByRole('button', { name: /^In a round with the next: Big toe up alone, Calf stretch/ })
      .click();
    await expect(round).toHaveText('In turn, 1 round of the next 2: one set of each, both feet in each.');
    await page
      .getByRole('listitem')
      .filter({ has: page.getByRole('heading', { name: /^Big toe up alone/ }) })
      .getByRole('spinbutton', { name: 'Sets' })
      .press('ArrowUp');
    await expect(round).toContainText('2 rounds');
    await expect(page.getByText(/^(Left|Left, then right), .*2 rounds of/)).toHaveCount(2);
    await expect(saved(page)).toBeVisible();
    await expect(page.getByRole('button', { name: /^Give to/ })).toBeEnabled();
    await expectAccessible(page, 'Rounds of a draft');
  });

  await test.step('a routine comes with what safety leaves of it; a plan is kept as one, under a name of its own', async () => {
    await page.getByRole('button', { name: 'Add a routine' }).click();
    const routines = page.getByRole('region', { name: 'Add a routine' });
    await expect(routines.getByText('Left out: Big toe up alone, given already.')).toBeVisible();
    await expectAccessible(page, 'Routines');
    await routines.getByRole('button', { name: 'Add Cool-down' }).click();
    await expect(page.getByText('Of the routine "Cool-down"').first()).toBeVisible();
    await page.getByRole('button', { name: 'Keep as a routine' }).click();
    await page.getByLabel('Name of the routine').fill('cool-down');
    await page.keyboard.press('Enter');
    await expect(page.getByText('There is a routine of this name already')).toBeVisible();
    await page.getByLabel('Name of the routine').fill('Stone yard evening');
    await page.keyboard.press('Enter');
    await expect(page.getByText('Kept: it stands under Add a routine.')).toBeVisible();
    await page.getByRole('button', { name: 'Add a routine' }).click();
    await expect(routines.getByRole('heading', { name: 'Stone yard evening' })).toBeVisible();
    await routines.getByRole('button', { name: 'Put Stone yard evening aside' }).click();
    await expect(routines.getByRole('heading', { name: 'Stone yard evening' })).toBeHidden();
    await routines.getByRole('button', { name: 'Close' }).click();
    await page.getByRole('button', { name: 'Undo' }).click();
    await expect(page.getByText('Of the routine "Cool-down"')).toHaveCount(0);
    await expect(saved(page)).toBeVisible();
    await page.getByRole('button', { name: /^Give to/ }).click();
    await expect(page.getByText(/^version 2, given/)).toBeVisible();
    await expect(round).toBeVisible();
  });

  await page.getByRole('button', { name: 'Make a link' }).click();
  const link = (await page.getByTestId('home-link').textContent()) ?? '';
  const code = (await page.getByTestId('home-code').textContent()) ?? '';
  const phone = await openPhone(browser);
  await test.step('the phone introduces both, paces them in turn, and asks of each', async () => {
    await phone.clock.install();
    await phone.goto(link);
    await phone.getByRole('textbox').fill(code);
    await phone.getByRole('button', { name: 'Open' }).click();
    await expect(phone.getByText(/^In turn, 2 rounds of the next 2/)).toBeVisible();
    await phone
      .getByRole('button', { name: /^(Start|Once more)$/ })
      .first()
      .click();
    await phone.getByRole('button', { name: 'Pain 2' }).click();
    const name = phone.getByRole('heading', { level: 1 });
    for (;;) {
      if ((await name.textContent())?.startsWith('Big toe up alone') === true) break;
      await phone.getByRole('button', { name: 'Not this one today' }).click();
    }
    await expect(phone.getByText(/^In a round with calf stretch/i)).toBeVisible();
    await phone.getByRole('button', { name: 'Next' }).click();
    await expect(name).toContainText('Calf stretch');
    await phone.getByRole('button', { name: 'Start' }).click();
    await expect(name).toContainText('Big toe up alone');
    await expect(phone.getByText('round 1 of 2')).toBeVisible();
    // 15 s to get ready and 40 s for each foot: then the other of the round, for the first time.
    await phone.clock.fastForward(100_000);
    await expect(name).toContainText('Calf stretch');
    await expectAccessible(phone, 'Home, pacer of a round');
    await phone.getByRole('button', { name: 'It hurts' }).click();
    await phone.getByRole('button', { name: 'Ache 3' }).click();
    await expect(phone.getByText(/^That is as much as it should be/)).toBeVisible();
    await phone.getByRole('button', { name: 'Ache 2' }).click();
    await expect(phone.getByText('That is all right.')).toBeVisible();
    await expectAccessible(phone, 'Home, an ordinary ache');
    await phone.getByRole('button', { name: 'Go on', exact: true }).click();
    // It goes on where it stood.
    await expect(name).toContainText('Calf stretch');
    await expect(phone.getByText('round 1 of 2')).toBeVisible();
    await phone.getByRole('button', { name: 'End here' }).click();
    await expect(phone.getByText('Rounds', { exact: true })).toBeVisible();
    await phone.getByRole('button', { name: 'Effort 4' }).click();
    await expect(name).toContainText('Calf stretch');
    await phone.getByRole('button', { name: 'Effort 3' }).click();
    // What was put off comes again once the rest is done.
    const putOff = phone.getByRole('button', { name: 'Not this one today' });
    const asked = phone.getByRole('button', { name: 'Pain 2' });
    for (;;) {
      await expect(putOff.or(asked).first()).toBeVisible();
      if (await asked.isVisible()) break;
      await putOff.click();
    }
    await phone.getByRole('button', { name: 'Pain 2' }).click();
    await phone.getByRole('button', { name: 'Pain 2' }).click();
    await phone.getByRole('button', { name: 'Save' }).click();
    await expect(phone.getByText(/^Done for (today|now)/)).toBeVisible();
  });
  await phone.context().close();
});
