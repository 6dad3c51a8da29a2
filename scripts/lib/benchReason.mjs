// The bench of the reasoning: one person's ranking with what to ask next, and answering findings in the browser.
import { loadContent } from '@heathstep/content';
import { emptyRecord, reasonAbout } from '@heathstep/core';

const median = (list) => [...list].sort((a, b) => a - b)[Math.floor(list.length / 2)];
const RUNS = 60;
const WARM = 20;

/** A person with a third of all findings answered, on both sides. */
function person(content) {
  const answers = new Map();
  content.findings.forEach((f, i) => {
    if (i % 3 !== 0) return;
    const sides = f.sides === 'person' ? ['none'] : ['left', 'right'];
    for (const side of sides) answers.set(`${f.key}.${side}`, i % 5 === 0 ? 'present' : 'absent');
  });
  return { answers, record: emptyRecord(50), affected: 'both', daysSinceOnset: 60, tagsOff: () => [] };
}

/** What to ask next without any cleverness: everything ranked anew for both answers of every open finding. */
function naive(content, input) {
  const { known } = reasonAbout(content, input);
  let ranked = 0;
  for (const f of content.findings) {
    for (const side of f.sides === 'person' ? ['none'] : ['left', 'right']) {
      if (known.at(f.key, side).state !== 'unknown') continue;
      for (const state of ['present', 'absent']) {
        const answers = new Map([...input.answers, [`${f.key}.${side}`, state]]);
        ranked += reasonAbout(content, { ...input, answers }).ranked.length;
      }
    }
  }
  return ranked;
}

function timed(times, work) {
  const took = [];
  for (let i = 0; i < times; i += 1) {
    const from = performance.now();
    work();
    took.push(performance.now() - from);
  }
  return median(took);
}

/** The core alone. */
export function benchReason(line) {
  const loaded = loadContent();
  if (!loaded.ok) throw new Error(loaded.problems.join('\n'));
  const { content } = loaded;
  const input = person(content);
  timed(WARM, () => reasonAbout(content, input));
  const full = timed(RUNS, () => reasonAbout(content, input));
  const brute = timed(1, () => naive(content, input));
  line(
    `Ranking and next best, ${content.findings.length} findings, both sides`,
    `${full.toFixed(1)} ms`,
    'under 15 ms',
  );
  line('The same by ranking anew for every answer', `${(brute / full).toFixed(0)} x`, 'more than 1 x');
}

/** Answering in the browser by one key each, traced by the caller's own means. */
export async function answering(page, url, episode, traced, line) {
  await page.goto(`${url}/episodes/${episode}/visit/story`);
  await page.getByRole('checkbox', { name: 'inner heel, left' }).click();
  await page.goto(`${url}/episodes/${episode}/visit/feel`);
  await page.getByLabel('By body part').selectOption('heel');
  const first = page.locator('[data-finding] [data-cell="left"] button[tabindex="0"]').first();
  await first.waitFor();
  const work = await traced(async () => {
    await first.focus();
    for (let i = 0; i < 12; i += 1) {
      await page.keyboard.press(i % 3 === 0 ? 'p' : 'a');
      await page.waitForTimeout(120);
    }
  });
  const long = work.filter((ms) => ms > 16.7).length;
  line('Answering findings, main thread a frame (median)', `${median(work).toFixed(1)} ms`, 'under 16.7 ms');
  line('Answering findings, frames of over 16.7 ms', `${long} of ${work.length}`, 'none');
}
