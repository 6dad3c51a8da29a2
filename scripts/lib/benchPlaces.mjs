// The bench of going about: how long after a click each place of the application can be used.
import { percentile, signedIn } from './benchTools.mjs';

const escaped = (text) => text.replace(/[.*+?^${}()|[\]\\]/g, '\\$&');

/** Goes round the places of each person by clicks; the first round only warms. Milliseconds of each click by place. */
export async function placesAfterClicks(page, names, rounds) {
  const took = new Map();
  const places = page.getByRole('navigation', { name: 'Places of this episode' });
  const staff = page.getByRole('navigation', { name: 'Places', exact: true });
  const click = async (place, link, ready, counts) => {
    const began = performance.now();
    await link.click();
    await ready.first().waitFor();
    if (counts) took.set(place, [...(took.get(place) ?? []), performance.now() - began]);
  };
  for (let round = 0; round < rounds; round += 1) {
    const name = new RegExp(`^${escaped(names[round % names.length])}(?!\\d| \\d)`);
    const counts = round > 0;
    const person = page.getByRole('main').getByRole('link', { name });
    const anyone = page.getByRole('main').getByRole('link', { name: /, (left|right|both sides)/ });
    await click('People', staff.getByRole('link', { name: 'People' }), anyone, counts);
    // In a large clinic someone is found, not seen at once.
    await page
      .getByRole('searchbox')
      .or(page.getByLabel('Find by name'))
      .first()
      .fill(names[round % names.length]);
    await person.first().waitFor();
    await click('Course', person.first(), page.getByRole('heading', { name: /^To leave/ }), counts);
    await click(
      'Plan',
      places.getByRole('link', { name: 'Plan' }),
      page.getByRole('heading', { name: 'At home' }),
      counts,
    );
    await click(
      'Visit',
      places.getByRole('link', { name: 'Visit' }),
      page.getByRole('button', { name: 'Start a review' }),
      counts,
    );
    await click(
      'Day',
      staff.getByRole('link', { name: 'Day' }),
      page.getByRole('heading', { level: 1, name: /look/ }),
      counts,
    );
  }
  return took;
}

/** Prints what nineteen of twenty clicks take at most in a large clinic, each on someone else. */
export async function benchPlaces(chromium, args, url, signIn, line) {
  const { browser, page } = await signedIn(chromium, args, url, signIn);
  const names = Array.from({ length: 13 }, (_, i) => `Marit Osgar ${i + 1}`);
  for (const [place, list] of await placesAfterClicks(page, names, 27))
    line(
      `  ${place}, usable after a click (p95 of ${list.length})`,
      `${percentile(list, 0.95).toFixed(0)} ms`,
      'under 150 ms',
    );
  await browser.close();
}
