// The bench of the library: opening it, narrowing it down at 500 exercises, and a page of moving figures.
import { randomUUID } from 'node:crypto';
import { loadContent, writeExercise } from '../../packages/content/dist/index.js';
import { drawFigure } from '../../packages/core/dist/index.js';
import { BETWEEN_KEYS_MS, caller, percentile, signedIn, traced } from './benchTools.mjs';

const MANY = 500;
const MOVING = 24;

/** Milliseconds from a click on Exercises until the first figures stand. */
async function opening(page) {
  const took = [];
  for (let round = 0; round < 6; round += 1) {
    await page.getByRole('link', { name: 'Day', exact: true }).click();
    await page.getByRole('heading', { level: 1, name: /look/ }).waitFor();
    const clicked = performance.now();
    await page.getByRole('link', { name: 'Exercises', exact: true }).click();
    await page.getByRole('img', { name: 'Wiggle the toes, drawn' }).waitFor();
    if (round > 0) took.push(performance.now() - clicked);
  }
  return percentile(took, 0.5);
}

/** Fills the clinic's library, which has so many, with exercises of its own until there are MANY. */
async function fill(api, exercises, figures, have) {
  for (let i = have; i < MANY; i += 1) {
    const from = exercises[i % exercises.length];
    const { exercise: _of, ...figure } = figures.find((f) => f.exercise === from.key);
    await api('POST', '/api/library/exercises', {
      id: randomUUID(),
      version: 0,
      retired: false,
      file: {
        format: 'heathstep exercise',
        version: 1,
        exercise: { ...writeExercise(from), name: `${from.name}, bench ${i}` },
        figure,
      },
    });
  }
}

async function filtering(browser, page, count, line) {
  const field = page.getByLabel('Find an exercise');
  await field.focus();
  const typing = await traced(browser, page, async () => {
    for (let i = 0; i < 6; i += 1) {
      for (const key of [...'heel raise']) {
        await page.keyboard.press(key === ' ' ? 'Space' : key);
        await page.waitForTimeout(BETWEEN_KEYS_MS);
      }
      for (let n = 0; n < 10; n += 1) {
        await page.keyboard.press('Backspace');
        await page.waitForTimeout(BETWEEN_KEYS_MS);
      }
    }
  });
  for (const share of [0.5, 0.95])
    line(
      `Typing a search among ${count} exercises, main thread a frame (${share === 0.5 ? 'median' : 'p95'})`,
      `${percentile(typing, share).toFixed(1)} ms`,
      share === 0.5 ? 'under 8 ms' : 'none',
    );
}

async function moving(browser, page, line) {
  await page.setViewportSize({ width: 1280, height: 1500 });
  await page.getByRole('button', { name: 'See them move' }).click();
  await page.waitForTimeout(500);
  const shown = await page.evaluate(
    () =>
      [...document.querySelectorAll('main svg[role="img"]')].filter((svg) => {
        const box = svg.getBoundingClientRect();
        return box.bottom > 0 && box.top < innerHeight && box.right > 0 && box.left < innerWidth;
      }).length,
  );
  const spent = await traced(browser, page, () => page.waitForTimeout(3000));
  const each = percentile(spent, 0.5);
  line(`${shown} moving figures in view, main thread a frame (median)`, `${each.toFixed(1)} ms`, 'none');
  line(`The same, for ${MOVING} moving figures`, `${((each * MOVING) / shown).toFixed(1)} ms`, 'under 8 ms');
}

/** The library's speed, printed beside its targets. */
export async function benchLibrary(chromium, args, url, signIn, line) {
  const loaded = loadContent();
  if (!loaded.ok) throw new Error(loaded.problems.join('\n'));
  const { exercises, figures } = loaded.content;
  const sizes = figures.map((f) =>
    drawFigure(f, 1, true).shapes.reduce((sum, s) => sum + s.d.length + s.tone.length + 30, 0),
  );
  line(
    `Largest of ${figures.length} figures as SVG`,
    `${(Math.max(...sizes) / 1024).toFixed(1)} KB`,
    'under 6 KB',
  );
  const { browser, page } = await signedIn(chromium, args, url, signIn);
  line(
    `Exercises, ${exercises.length} drawn, after a click, warm (median)`,
    `${(await opening(page)).toFixed(0)} ms`,
    'under 300 ms',
  );
  await moving(browser, page, line);
  await page.setViewportSize({ width: 1280, height: 800 });
  // The demo clinic has some of its own already.
  const told = await page.getByText(/^\d+ of \d+$/).textContent();
  await fill(await caller(url, signIn), exercises, figures, Number(/of (\d+)/.exec(told)[1]));
  await page.reload();
  await page.getByText(`${MANY} of ${MANY}`).waitFor();
  line(
    `Exercises, ${MANY} drawn, after a click, warm (median)`,
    `${(await opening(page)).toFixed(0)} ms`,
    'none',
  );
  await filtering(browser, page, MANY, line);
  await browser.close();
}
