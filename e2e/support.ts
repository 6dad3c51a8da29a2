import AxeBuilder from '@axe-core/playwright';
import axeCore from 'axe-core';
import { appendFileSync, existsSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import {
  expect as plainExpect,
  test as plain,
  type Browser,
  type Locator,
  type Page,
} from '@playwright/test';
import { freshClinic } from './freshClinic.mjs';

/** As long as anything is expected; `playwright.config.ts` says it for all else. */
const PATIENCE = 20_000;

/**
 * What is to be seen is waited for by its locator. An assertion that finds nothing yet would have the whole page
 * described for its message, again at each look: a tenth of all that the browser did.
 */
export const expect = plainExpect.extend({
  async toBeVisible(locator: Locator, options: { readonly timeout?: number } = {}) {
    const timeout = options.timeout ?? PATIENCE;
    const asserted = async () => {
      if (this.isNot) return plainExpect(locator).not.toBeVisible({ timeout });
      const seen = await locator.waitFor({ state: 'visible', timeout }).then(
        () => true,
        () => false,
      );
      // Once more for its message, or because it came at the last moment.
      return seen ? undefined : plainExpect(locator).toBeVisible({ timeout: 1 });
    };
    const told = await asserted().then(
      () => null,
      (error: unknown) => (error instanceof Error ? error.message : String(error)),
    );
    return { pass: (told === null) !== this.isNot, message: () => told ?? '' };
  },
});

/** Each worker has a server and a database of its own. */
const base = (): string => {
  const urls = JSON.parse(process.env['E2E_URLS'] ?? '[]') as string[];
  return urls[Number(process.env['TEST_PARALLEL_INDEX'] ?? 0)] ?? '';
};

export const url = (path: string): string => `${base()}${path}`;

type Database = { readonly ownerUrl: string; readonly appUrl: string };

/** The addresses of this worker's database. */
export function database(): Database {
  const all = JSON.parse(process.env['E2E_DATABASES'] ?? '[]') as Database[];
  const own = all[Number(process.env['TEST_PARALLEL_INDEX'] ?? 0)];
  if (own === undefined) throw new Error('This worker has no database');
  return own;
}

type Who = 'orla.rendell' | 'tomas.fell' | 'wren.atley';

type Cookies = Parameters<ReturnType<Page['context']>['addCookies']>[0];

/** Who signed in once on this worker's server stays so. */
const signedIn = new Map<Who, Cookies>();

/** The file whose journeys this worker's clinic was made for. */
let clinicOf = '';

/** A journey: the first of each file finds the demo clinic as it is on its first day, whatever other files did to theirs. */
export const test = plain.extend<{ clinic: undefined }>({
  clinic: [
    // oxlint-disable-next-line no-empty-pattern -- which fixtures it needs is read from the pattern
    async ({}, use, info) => {
      if (clinicOf !== info.file) {
        await freshClinic(database());
        // The server finds that its connections are gone, and makes others.
        while (!(await fetch(url('/api/health'))).ok);
        clinicOf = info.file;
        signedIn.clear();
      }
      await use(undefined);
    },
    { auto: true },
  ],
});

/** Opens the day as one of the clinic; the form of signing in has a journey of its own. */
export async function signIn(page: Page, who: Who = 'tomas.fell'): Promise<void> {
  const context = page.context();
  const known = signedIn.get(who);
  if (known === undefined) {
    const answer = await context.request.post(url('/api/session'), {
      headers: { origin: base() },
      data: { email: `${who}@heathstep.example`, password: process.env['E2E_PASSWORD'] ?? '' },
    });
    expect(answer.status(), `${who} signs in`).toBe(200);
    signedIn.set(who, await context.cookies());
  } else await context.addCookies(known);
  await page.goto(url('/day'));
  await expect(page.getByRole('heading', { level: 1, name: /look/ })).toBeVisible();
}

/** Where the workers note what has been looked at for its colours: one shape a line. */
const seenFile = (): string => join(process.env['E2E_SEEN'] ?? '', 'colours');

const seenShapes = (): string[] =>
  existsSync(seenFile()) ? readFileSync(seenFile(), 'utf8').split('\n') : [];

/**
 * Marks each element whose colours were found readable before: the same tags, classes, styles and states from the root of
 * the page down to it have the same colours. Gives the shapes that are new and will be looked at: those that say something.
 */
const markKnownColours = (page: Page): Promise<string[]> =>
  page.evaluate((seen) => {
    const known = new Set(seen);
    const fresh = new Set<string>();
    const shapes = new Map<Element, string>();
    const dialog = document.querySelector('[role="dialog"]');
    const stateOf = ({ name, value }: Attr): string => {
      if (name === 'class' || name === 'style' || name.startsWith('data-')) return `${name}=${value}`;
      return value.length < 8 ? `${name}=${value}` : name;
    };
    const hashed = (text: string): string => {
      let [a, b] = [0x811c9dc5, 0x1b873593];
      for (let i = 0; i < text.length; i += 1) {
        a = Math.imul(a ^ text.charCodeAt(i), 0x01000193);
        b = Math.imul(b ^ text.charCodeAt(i), 0x85ebca6b);
      }
      return (a >>> 0).toString(36) + (b >>> 0).toString(36);
    };
    for (const element of document.querySelectorAll('*')) {
      const above = element.parentElement === null ? '' : (shapes.get(element.parentElement) ?? '');
      const own = [...element.attributes].filter((a) => a.name !== 'data-colours').map(stateOf);
      const shape = hashed(`${above} ${window.innerWidth} ${element.tagName} ${own.sort().join(' ')}`);
      shapes.set(element, shape);
      if (known.has(shape)) {
        element.setAttribute('data-colours', 'known');
        continue;
      }
      element.removeAttribute('data-colours');
      const says = [...element.childNodes].some(
        (n) => n.nodeType === Node.TEXT_NODE && n.textContent?.trim(),
      );
      const looked = dialog === null || dialog.contains(element);
      if (looked && (says || element.matches('input, textarea, select')) && element.checkVisibility())
        fresh.add(shape);
    }
    return [...fresh];
  }, seenShapes());

/** Axe, which leaves alone the contrast of what is marked as known: looking at colours is half of the time of a scan. */
const axeSource = `${axeCore.source};axe.configure({ rules: [{ id: 'color-contrast', selector: ':not([data-colours])' }] });`;

/** Nothing that keeps someone out: WCAG 2.2 A and AA by axe. */
export async function expectAccessible(page: Page, what: string): Promise<void> {
  const fresh = await markKnownColours(page);
  const axe = new AxeBuilder({ page, axeSource });
  // What stands behind a dialog cannot be reached while it is open, and is looked at without it.
  if ((await page.getByRole('dialog').count()) > 0) axe.include('[role="dialog"]');
  const { violations } = await axe
    // Only what is wrong is told, and there are no frames: no list of what is right, no second page to put frames together.
    .options({ resultTypes: ['violations'] })
    .setLegacyMode(true)
    .withTags(['wcag2a', 'wcag2aa', 'wcag21a', 'wcag21aa', 'wcag22aa'])
    .analyze();
  const told = violations.map(
    (v) =>
      `${v.id}: ${v.nodes.map((n) => `${n.target.join(' ')} (${n.failureSummary?.split('\n')[1]?.trim() ?? ''})`).join('; ')}`,
  );
  expect(told, what).toEqual([]);
  appendFileSync(seenFile(), `${fresh.join('\n')}\n`);
}

/** Turns to another place without loading the application anew, and waits until something is shown that was not before. */
export async function turnTo(page: Page, path: string): Promise<void> {
  await page.evaluate((to) => {
    for (const shown of document.querySelectorAll('main *')) shown.setAttribute('data-before', '');
    history.pushState(null, '', to);
    dispatchEvent(new PopStateEvent('popstate'));
  }, path);
  await expect(
    page.locator('main :is(h1, h2, h3, p, li, td, label):not([data-before])').first(),
    path,
  ).toBeVisible();
}

/** Opens a person of the demo clinic at a place. */
export async function openPerson(
  page: Page,
  name: string,
  place?: 'Course' | 'Visit' | 'Plan',
): Promise<void> {
  await page
    .getByRole('navigation', { name: 'Places', exact: true })
    .getByRole('link', { name: 'People' })
    .click();
  // The day before it may name the same person: a press there would be overtaken by the list.
  await expect(page.getByRole('heading', { level: 1, name: 'People', exact: true })).toBeVisible();
  await page.getByRole('link', { name }).click();
  await expect(page.getByRole('heading', { level: 1, name })).toBeVisible();
  if (place !== undefined)
    await page
      .getByRole('navigation', { name: 'Places of this episode' })
      .getByRole('link', { name: place })
      .click();
}

/** Fills a gap of a sentence by its choices. */
export async function choose(page: Page, gap: string | RegExp, ...choices: string[]): Promise<void> {
  await page.getByRole('button', { name: gap }).first().click();
  for (const choice of choices)
    await page.getByRole('dialog').getByRole('button', { name: choice, exact: true }).click();
  if (await page.getByRole('dialog').isVisible()) await page.keyboard.press('Escape');
}

/** Goes to a step of the visit by its name at the left. */
export async function goToStep(page: Page, step: string): Promise<void> {
  await page
    .getByRole('navigation', { name: 'Steps of the visit' })
    .getByRole('link', { name: new RegExp(`^${step}`) })
    .click();
  await expect(page.getByRole('heading', { level: 2, name: step, exact: true })).toBeVisible();
}

export const saved = (page: Page): Locator => page.locator('[data-status="saved"]');

export async function answerSafety(page: Page): Promise<void> {
  await expect(page.getByRole('radiogroup').first()).toBeVisible();
  for (;;) {
    const next = page.getByRole('button', { name: /Asked, none of these|^Tested/ }).first();
    if ((await next.count()) === 0) break;
    await next.click();
  }
}

export async function takeTrials(
  page: Page,
  measure: string,
  side: 'left' | 'right',
  values: readonly string[],
): Promise<void> {
  for (const [i, value] of values.entries())
    await page.getByLabel(`${measure}, ${side}, trial ${i + 1}`, { exact: true }).fill(value);
}

export async function openPhone(browser: Browser): Promise<Page> {
  const context = await browser.newContext({
    viewport: { width: 390, height: 844 },
    hasTouch: true,
    isMobile: true,
    locale: 'en-GB',
    timezoneId: 'Europe/London',
  });
  return context.newPage();
}
