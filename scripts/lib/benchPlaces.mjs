// The bench of going about: how long after a click each place of the application can be used.
import { percentile, signedIn } from './benchTools.mjs';

const escaped = (text) => text.replace(/[.*+?^${}()|[\]\\]/g, '\\$&');

/**
 * From the press to the frame in which what is waited for stands on the page, in ms, told by the page itself: a test that
 * asks from without asks at 20, 70, 170 ms, and its own press takes some 40 more.
 */
const untilShown = (page, link, shown) =>
  Promise.all([
    page.evaluate(
      ({ path, tag, words }) =>
        new Promise((resolve) => {
          let pressed = null;
          window.addEventListener('click', (e) => (pressed = e.timeStamp), { capture: true, once: true });
          const there = () =>
            new RegExp(path).test(window.location.pathname) &&
            [...document.querySelectorAll(tag)].some((e) => e.textContent.includes(words));
          const look = () => {
            if (pressed === null || !there()) requestAnimationFrame(look);
            else requestAnimationFrame(() => setTimeout(() => resolve(performance.now() - pressed)));
          };
          look();
        }),
      shown,
    ),
    link.click(),
  ]);

/** Goes round the places of each person by clicks; the first round only warms. Milliseconds of each click by place. */
export async function placesAfterClicks(page, names, rounds) {
  const took = new Map();
  const places = page.getByRole('navigation', { name: 'Places of this episode' });
  const staff = page.getByRole('navigation', { name: 'Places', exact: true });
  const click = async (place, link, shown, counts) => {
    await link.waitFor();
    const [ms] = await untilShown(page, link, shown);
    if (counts) took.set(place, [...(took.get(place) ?? []), ms]);
  };
  for (let round = 0; round < rounds; round += 1) {
    const name = names[round % names.length];
    const counts = round > 0;
    const at = (path, tag, words) => ({ path, tag, words });
    await click(
      'People',
      staff.getByRole('link', { name: 'People' }),
      at('/people$', 'main li a', ''),
      counts,
    );
    // In a large clinic someone is found, not seen at once.
    await page.locator('main input').first().fill(name);
    const person = page.locator('main li a', { hasText: new RegExp(`^${escaped(name)}(?!\\d| \\d)`) });
    await click('Course', person.first(), at('/course$', 'h2', 'To leave'), counts);
    const place = (label) => places.getByRole('link', { name: label });
    await click('Plan', place('Plan'), at('/plan$', 'h2', 'At home'), counts);
    await click('Visit', place('Visit'), at('/visit', 'button', 'Start a review'), counts);
    await click('Day', staff.getByRole('link', { name: 'Day' }), at('/day$', 'h1', 'look'), counts);
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
