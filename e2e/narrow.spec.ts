import { expect, signIn, test, turnTo } from './support.js';

test('pages of the clinic fit a telephone and a half window without scrolling sideways', async ({ page }) => {
  await signIn(page, 'orla.rendell');
  const { items } = (await (await page.request.get(new URL('/api/day', page.url()).href)).json()) as {
    items: { name: string; episodeId: string }[];
  };
  const of = (name: string) => items.find((i) => i.name === name)?.episodeId ?? '';
  const episode = of('Oskar Thwaite');
  const places: readonly (readonly [string, string | RegExp])[] = [
    ['/people?add=1', 'People'],
    ['/day', /to look at$/],
    ['/outcomes', 'Outcomes'],
    ['/library', 'Exercises'],
    ['/measures?show=lunge-knee-bent', 'Measures'],
    ['/clinic/staff', 'Heathstep demo clinic'],
    ['/clinic/facts', 'Heathstep demo clinic'],
    ['/clinic/audit', 'Heathstep demo clinic'],
    ['/clinic/programs', 'Heathstep demo clinic'],
    ['/people?file=1', 'People'],
    [`/episodes/${episode}/course`, 'Oskar Thwaite'],
    [`/episodes/${episode}/plan`, 'Oskar Thwaite'],
    [`/episodes/${episode}/letter`, 'How it goes'],
    [`/episodes/${episode}/letters`, 'Oskar Thwaite'],
    ['/clinic/letters', 'Heathstep demo clinic'],
    ['/clinic/rules', 'Heathstep demo clinic'],
    [`/episodes/${episode}/visit`, 'Oskar Thwaite'],
    [`/episodes/${of('Corin Fellgate')}/lab`, 'Corin Fellgate'],
    // A visit that is open, step by step.
    ...['story', 'safety', 'look', 'measure', 'load', 'feel', 'conclude'].map(
      (step) => [`/episodes/${of('Corin Fellgate')}/visit/${step}`, 'Corin Fellgate'] as const,
    ),
  ];
  for (const [path, heading] of places) {
    await page.setViewportSize({ width: 390, height: 844 });
    await turnTo(page, path);
    await expect(page.getByRole('heading', { level: 1, name: heading })).toBeVisible();
    for (const width of [390, 800]) {
      await page.setViewportSize({ width, height: 844 });
      await expect
        .poll(() => page.evaluate(() => [window.innerWidth, document.documentElement.scrollWidth]), {
          message: `${path} at ${width}`,
        })
        .toEqual([width, width]);
    }
  }
});
