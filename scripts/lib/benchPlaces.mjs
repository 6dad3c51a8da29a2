// The bench of going about: how long after a click each place of the application can be used.
import { percentile, signedIn } from './benchTools.mjs';

const escaped = (text) => text.replace(/[.*+?^${}()|[\]\\]/g, '\\$&');

/**
 * Goes round the places of each person by clicks; the first round only warms. Milliseconds of each click by place. What is
 * waited for is told by its tag and words: looking for roles and names costs more in a long list than the list itself.
 */
export async function placesAfterClicks(page, names, rounds) {
  const took = new Map();
  const places = page.getByRole('navigation', { name: 'Places of this episode' });
  const staff = page.getByRole('navigation', { name: 'Places', exact: true });
  const click = async (place, link, ready, counts) => {
    await link.waitFor();
    const began = performance.now();
    await link.click();
    await page.locator(ready).first().waitFor();
    if (counts) took.set(place, [...(took.get(place) ?? []), performance.now() - began]);
  };
  for (let round = 0; round < rounds; round += 1) {
    const name = names[round % names.length];
    const counts = round > 0;
    await click('People', staff.getByRole('link', { name: 'People' }), 'main li a', counts);
    // In a large clinic someone is found, not seen at once.
    await page.locator('main input').first().fill(name);
    const person = page.locator('main li a', { hasText: new RegExp(`^${escaped(name)}(?!\\d| \\d)`) });
    await click('Course', person.first(), 'h2:text("To leave")', counts);
    await click('Plan', places.getByRole('link', { name: 'Plan' }), 'h2:text("At home")', counts);
    await click(
      'Visit',
      places.getByRole('link', { name: 'Visit' }),
      'button:text("Start a review")',
      counts,
    );
    await click('Day', staff.getByRole('link', { name: 'Day' }), 'h1:text("look")', counts);
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
