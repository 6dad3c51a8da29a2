// The bench of a visit: key presses, the cost of typing and scrolling 60 measures, and saving a value.
import { randomUUID } from 'node:crypto';
import { answering } from './benchReason.mjs';
import { BETWEEN_KEYS_MS, caller, percentile, signedIn, traced } from './benchTools.mjs';

async function newVisit(api, name) {
  const person = randomUUID();
  await api('POST', '/api/people', { id: person, name, birthDate: '1980-01-01', occupation: '' });
  const episode = randomUUID();
  await api('POST', `/api/people/${person}/episodes`, {
    id: episode,
    condition: 'plantar-heel-pain',
    affected: 'left',
  });
  const visit = await api('POST', `/api/episodes/${episode}/visits`, { id: randomUUID() });
  return { episode, visit: visit.id };
}

async function saving(api, line) {
  const { visit } = await newVisit(api, 'Bench Saving');
  const took = [];
  let bytes = 0;
  for (let version = 0; version < 220; version += 1) {
    const body = {
      entries: [
        {
          id: randomUUID(),
          key: 'measure.lunge-knee-bent.left',
          baseVersion: version,
          value: { trials: [30 + (version % 9)], status: 'taken', pain: null },
        },
      ],
    };
    bytes = JSON.stringify(body).length;
    const began = performance.now();
    await api('PUT', `/api/visits/${visit}/entries`, body);
    if (version >= 20) took.push(performance.now() - began);
  }
  line(
    `Saving a value, one request of ${bytes} bytes, p95`,
    `${percentile(took, 0.95).toFixed(0)} ms`,
    'under 50 ms',
  );
}

/** Which field of a visit has the cursor. */
const placeNow = (page) =>
  page.evaluate(() => {
    const { row, order } = document.activeElement?.closest('[data-order]')?.dataset ?? {};
    return `${row} ${order}`;
  });

/** Types the first-visit set of heel pain by keyboard and counts every press that is not a figure of a reading. */
async function presses(page, url, api, line) {
  const { episode } = await newVisit(api, 'Bench Keys');
  const { measures, pathways } = await api('GET', '/api/content');
  const set = pathways.find((c) => c.key === 'plantar-heel-pain').firstVisit;
  let beyond = 0;
  const press = async (key) => {
    beyond += 1;
    await page.keyboard.press(key);
  };
  await page.goto(`${url}/episodes/${episode}/visit/story`);
  await page.getByRole('heading', { level: 2, name: 'Story' }).waitFor();
  for (const step of ['story', 'look', 'measure', 'load', 'feel']) {
    const rows = set.map((k) => measures.find((m) => m.key === k)).filter((m) => m.step === step);
    if (step !== 'story') {
      if (step === 'look') {
        await press('Alt+ArrowDown');
        await page.getByRole('heading', { level: 2, name: 'Safety', exact: true }).waitFor();
      }
      await press('Alt+ArrowDown');
      const name = step.charAt(0).toUpperCase() + step.slice(1);
      await page.getByRole('heading', { level: 2, name, exact: true }).waitFor();
    }
    if (rows.length === 0) continue;
    const first = page.locator('[data-order]').first();
    const there = await first
      .and(page.locator(':focus'))
      .waitFor({ timeout: 1000 })
      .then(
        () => true,
        () => false,
      );
    if (!there) {
      // One press stands for coming to the first field of a step, by Tab or a tap.
      beyond += 1;
      await first.focus();
    }
    for (const m of rows) {
      for (let i = 0; i < m.trials.count * 2; i += 1) {
        const before = await placeNow(page);
        if (m.levels !== null) {
          if (i > 1) break;
          await press(m.levels.at(-1).word.charAt(0));
        } else {
          const middle = (m.usual.min + m.usual.max) / 2;
          await page.keyboard.type(String(Number(middle.toFixed(m.decimals))));
        }
        // A reading with all its decimals, and a chosen word, go on by themselves.
        if ((await placeNow(page)) === before) await press('Enter');
      }
    }
  }
  await page.locator('[data-status="saved"]').waitFor();
  const visit = (await api('GET', `/api/episodes/${episode}`)).visits[0];
  const kept = visit.entries.filter((e) => e.key.startsWith('measure.')).length;
  line(
    `Key presses beyond the figures, ${set.length} measures, both feet (${kept} kept)`,
    String(beyond),
    'at most 45',
  );
}

async function sixty(browser, page, url, api, line) {
  const { episode, visit } = await newVisit(api, 'Bench Sixty');
  const { measures } = await api('GET', '/api/content');
  const keys = measures
    .filter((m) => m.step === 'measure' && m.computed === null && m.sides === 'each')
    .map((m) => m.key);
  const middle = new Map(measures.map((m) => [m.key, Math.round((m.usual.min + m.usual.max) / 2)]));
  for (let i = keys.length; i < 60; i += 1) {
    const made = await api('POST', '/api/measures', {
      id: randomUUID(),
      version: 0,
      label: `Bench measure ${i} ${randomUUID().slice(0, 4)}`,
      unit: 'cm',
      sides: 'each',
      trials: 3,
      combine: 'mean',
      direction: 'more',
      min: 0,
      max: 100,
      decimals: 1,
      mdc: 3,
      source: 'bench',
      step: 'measure',
      method: '',
    });
    keys.push(made.key);
  }
  for (let i = 0; i < keys.length; i += 40)
    await api('PUT', `/api/visits/${visit}/entries`, {
      entries: keys.slice(i, i + 40).map((k) => ({
        id: randomUUID(),
        key: `measure.${k}.left`,
        baseVersion: 0,
        value: { trials: [middle.get(k) ?? 20], status: 'taken', pain: 2 },
      })),
    });
  await page.goto(`${url}/episodes/${episode}/visit/measure`);
  await page.getByLabel('Lunge, knee bent, right, trial 1').waitFor();
  const rowsShown = await page.locator('main section[aria-label]').count();
  const typing = await traced(browser, page, async () => {
    await page.getByLabel('Lunge, knee bent, right, trial 1').focus();
    for (let i = 0; i < 40; i += 1) {
      for (const key of [...String(20 + (i % 9)), 'Enter']) {
        await page.keyboard.press(key);
        await page.waitForTimeout(BETWEEN_KEYS_MS);
      }
    }
  });
  line(
    `Typing among ${rowsShown} measures, main thread a frame (median)`,
    `${percentile(typing, 0.5).toFixed(1)} ms`,
    'under 8 ms',
  );
  line(
    `Typing among ${rowsShown} measures, main thread a frame (p95)`,
    `${percentile(typing, 0.95).toFixed(1)} ms`,
    'none',
  );
  await page.mouse.move(600, 500);
  const scrolling = await traced(browser, page, async () => {
    for (let i = 0; i < 60; i += 1) {
      await page.mouse.wheel(0, i < 30 ? 120 : -120);
      await page.evaluate(() => new Promise((r) => requestAnimationFrame(r)));
    }
  });
  line(
    `Scrolling ${rowsShown} measures, main thread a frame (median)`,
    `${percentile(scrolling, 0.5).toFixed(1)} ms`,
    'under 8 ms',
  );
}

/** A visit's speed, printed beside its targets. */
export async function benchVisit(chromium, args, url, signIn, line) {
  const api = await caller(url, signIn);
  await saving(api, line);
  const { browser, page } = await signedIn(chromium, args, url, signIn);
  await presses(page, url, api, line);
  await sixty(browser, page, url, api, line);
  const { episode } = await newVisit(api, 'Bench Findings');
  await answering(page, url, episode, (work) => traced(browser, page, work), line);
  await browser.close();
}
