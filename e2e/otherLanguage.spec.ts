import { rmSync } from 'node:fs';
import type { Page } from '@playwright/test';
import { freePort } from '../scripts/lib/postgres.mjs';
import { startServer as start, stopServer as stop } from '../scripts/lib/server.mjs';
import { contentWithMadeUp } from '../scripts/lib/texts.mjs';
import { database, expect, test, turnTo } from './support.js';

const startServer: (database: unknown, port: number, env: object) => Promise<unknown> = start;
const stopServer = stop as (server: unknown) => Promise<void>;

/** What of an answer is written in English for all: content and protocols are said by the page. */
const SAID_BY_THE_PAGE = ['protocol', 'madeOf', 'safety', 'stages'];
/** Of content, what stands in every language as it is: clinical terms, names of the quick line, what a clinic wrote itself. */
const AS_IT_IS = ['also', 'aliases', 'key', 'ownExercises', 'notes', 'own', 'unitLabel', 'languages'];
/** Why an exercise is in a plan is kept in the language it was filled in. */
const KEPT = ['why'];

/**
 * Texts that people wrote, and terms that stay: seen in answers of the server on the way to the page. A word that the
 * application has is no one’s own: `left` is said.
 */
function listen(page: Page, catalogue: ReadonlySet<string>): () => Promise<ReadonlySet<string>> {
  const heard: Promise<unknown>[] = [];
  const written = new Set<string>(['English', 'heathstep', 'Ctrl', 'Enter', 'Space', 'Backspace', 'Esc']);
  // Days are written by the language’s own rules, not by its file.
  const days = new Intl.DateTimeFormat('fi-FI', { weekday: 'long', day: 'numeric', month: 'long' });
  for (let day = 0; day < 366; day += 1)
    for (const { type, value } of days.formatToParts(Date.UTC(2026, 0, day + 1)))
      if (type !== 'literal') written.add(value);
  const note = (value: unknown, stays: boolean): void => {
    if (typeof value === 'string') {
      if (stays || !catalogue.has(value)) written.add(value);
    } else if (Array.isArray(value)) for (const v of value) note(v, stays);
    else if (typeof value === 'object' && value !== null)
      for (const [key, v] of Object.entries(value))
        if (stays || !SAID_BY_THE_PAGE.includes(key)) note(v, stays || KEPT.includes(key));
  };
  const noteContent = (value: unknown): void => {
    if (Array.isArray(value)) for (const v of value) noteContent(v);
    else if (typeof value === 'object' && value !== null)
      for (const [key, v] of Object.entries(value))
        if (AS_IT_IS.includes(key) || ('ladder' in value && value.ladder === 'own')) note(v, true);
        else noteContent(v);
  };
  // Of what has come whole: an answer that the page gave up on is never there to be read.
  page.on('requestfinished', (asked) => {
    const path = new URL(asked.url()).pathname;
    if (!path.startsWith('/api/') || path.startsWith('/api/languages')) return;
    const told = asked.response().then(async (response) => {
      if (response?.ok() !== true) return;
      const body: unknown = await response.json();
      if (path === '/api/content') noteContent(body);
      else note(body, false);
    });
    heard.push(told.catch(() => undefined));
  });
  return async () => {
    await Promise.all(heard);
    return written;
  };
}

/** Words on the page that stand in no language but English: neither said nor written by someone. */
async function notSaid(page: Page, writtenSoFar: () => Promise<ReadonlySet<string>>): Promise<string[]> {
  const words = await page.evaluate(() => {
    const found: string[] = [];
    const walker = document.createTreeWalker(document.body, NodeFilter.SHOW_TEXT);
    // A sentence with marked words in it is made of several pieces: each is looked at with the whole.
    const paragraphs = new Set<Element>();
    while (walker.nextNode() !== null) {
      const { textContent, parentElement } = walker.currentNode;
      if (parentElement === null || parentElement.closest('script, style, [data-said-by-others]') !== null)
        continue;
      if (!/[A-Za-z]{3}/.test(textContent ?? '')) continue;
      paragraphs.add(
        parentElement.closest('p, li, td, th, dd, dt, label, button, a, h1, h2, h3') ?? parentElement,
      );
    }
    for (const p of paragraphs) found.push(p.textContent);
    for (const e of document.querySelectorAll('[aria-label], [placeholder], [title], [alt]'))
      for (const name of ['aria-label', 'placeholder', 'title', 'alt'])
        found.push(e.getAttribute(name) ?? '');
    return found;
  });
  // What the page shows has come before: what came with it is known by now.
  const known = [...(await writtenSoFar())]
    .filter((w) => /[A-Za-z]{2}/.test(w))
    .sort((a, b) => b.length - a.length);
  return [...new Set(words)].flatMap((text) => {
    let rest = text;
    // Marks may stand within marks: from the innermost out.
    for (let before = ''; before !== rest;) {
      before = rest;
      rest = rest.replaceAll(/‹[^‹›]*›/g, ' ');
    }
    for (const w of known) {
      // Nearly every text is said already: nothing of it is left to look for.
      if (!/[A-Za-z]{4}/.test(rest)) return [];
      rest = rest.replaceAll(w, ' ');
    }
    return /[A-Za-z]{4}/.test(rest) ? [`${text.slice(0, 90)} (${rest.trim().slice(0, 60)})`] : [];
  });
}

test('a language that is one file more: every word of the clinic’s pages is said in it', async ({ page }) => {
  const root = await contentWithMadeUp();
  const port = await freePort();
  const server = await startServer(database(), port, { HEATHSTEP_LOG: 'silent', HEATHSTEP_CONTENT: root });
  const url = `http://127.0.0.1:${port}`;
  try {
    const { request } = page.context();
    const answer = await request.post(`${url}/api/session`, {
      headers: { origin: url },
      data: { email: 'orla.rendell@heathstep.example', password: process.env['E2E_PASSWORD'] ?? '' },
    });
    expect(answer.status()).toBe(200);

    await test.step('chosen in the account, on this device', async () => {
      await page.goto(`${url}/day`);
      await page.getByRole('button', { name: /account/ }).click();
      await page.getByRole('menuitem', { name: 'Account and devices' }).click();
      const reloaded = page.waitForEvent('load');
      await page.getByRole('combobox', { name: /Language of these pages/ }).selectOption('eo');
      await reloaded;
      await expect(page.getByRole('link', { name: '‹People›' })).toBeVisible();
      await expect(page.locator('html')).toHaveAttribute('lang', 'eo');
    });

    const { texts } = (await (await request.get(`${url}/api/languages/eo`, { maxRetries: 3 })).json()) as {
      texts: object;
    };
    const written = listen(page, new Set(Object.keys(texts)));
    const wrong: Record<string, string[]> = {};
    const look = async (place: string): Promise<void> => {
      // What loads says so; what is there has a heading.
      await expect(page.getByRole('heading').first()).toBeVisible();
      await expect(page.getByRole('status', { name: /Loading/ })).toHaveCount(0);
      const found = await notSaid(page, written);
      if (found.length > 0) wrong[place] = found;
    };
    await page.goto(`${url}/day`);
    await look('day');
    const { items } = (await (await request.get(`${url}/api/day`, { maxRetries: 3 })).json()) as {
      items: { name: string; personId: string; episodeId: string }[];
    };
    const of = (name: string) => items.find((i) => i.name === name);
    const [flare, steady] = [of('Marit Osgar'), of('Oskar Thwaite')];
    // Whose visit is open.
    const open = of('Corin Fellgate');
    const [singer] = (await (await request.get(`${url}/api/people?q=Averil`, { maxRetries: 3 })).json()) as {
      episodes: { id: string }[];
    }[];
    const places = [
      '/people',
      `/people/${steady?.personId ?? ''}`,
      '/measures',
      '/outcomes',
      '/clinic/staff',
      '/clinic/facts',
      '/clinic/audit',
      '/clinic/programs',
      '/people?file=1',
      `/episodes/${flare?.episodeId ?? ''}/letter`,
      `/episodes/${flare?.episodeId ?? ''}/letters`,
      '/clinic/letters',
      '/clinic/rules',
      '/library',
      '/library/raise-two-legs',
      '/library/new',
      '/library/equipment',
      '/library/protocols',
      '/library/protocols/plantar-heel-pain',
      `/episodes/${flare?.episodeId ?? ''}/course`,
      `/episodes/${flare?.episodeId ?? ''}/plan`,
      `/episodes/${singer?.episodes[0]?.id ?? ''}/lab`,
      ...['story', 'safety', 'look', 'measure', 'load', 'feel', 'conclude'].map(
        (step) => `/episodes/${open?.episodeId ?? ''}/visit/${step}`,
      ),
    ];
    for (const place of places) {
      await turnTo(page, place);
      await look(place.replace(/[0-9a-f-]{36}/, ':id'));
    }
    expect(wrong).toEqual({});

    await test.step('English again by the same choice', async () => {
      await page.getByRole('button', { name: /‹.*account/ }).click();
      await page.getByRole('menuitem', { name: '‹Account and devices›' }).click();
      const reloaded = page.waitForEvent('load');
      await page.getByRole('combobox', { name: /Language of these pages/ }).selectOption('English');
      await reloaded;
      await expect(page.getByRole('link', { name: 'People', exact: true })).toBeVisible();
    });
  } finally {
    await stopServer(server);
    rmSync(root, { recursive: true, force: true });
  }
});
