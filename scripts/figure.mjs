// npm run figure -- KEY [moment] [file]: draws the figure of one exercise as a PNG, to look at while it is made.
import { mkdirSync, writeFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import { dirname, join } from 'node:path';
import { ensurePackagesBuilt } from './lib/build.mjs';
import { ensureInstalled } from './lib/install.mjs';
import { ROOT } from './lib/paths.mjs';

const [key = '', moment = '1', file = join(ROOT, '.cache', 'figures', `${key}.png`)] = process.argv.slice(2);

ensureInstalled();
ensurePackagesBuilt();
const { drawFigure, drawingMarkup, PAPER_COLOURS } = await import('../packages/core/dist/index.js');
const { loadContent } = await import('../packages/content/dist/index.js');
const sharp = createRequire(join(ROOT, 'apps/server/package.json'))('sharp');

const loaded = loadContent();
if (!loaded.ok) {
  console.error(loaded.problems.map(String).join('\n'));
  process.exit(1);
}
const { figures } = loaded.content;
const figure = figures.find((f) => f.exercise === key);
if (figure === undefined) {
  const near = figures.map((f) => f.exercise).filter((k) => key !== '' && k.includes(key.slice(0, 4)));
  console.error(
    `There is no figure ${key || '(no key given)'}. ${near.length > 0 ? `Near: ${near.join(', ')}` : ''}`,
  );
  process.exit(1);
}
const t = Number(moment);
const drawing = drawFigure(figure, t, t === 1);
const { box } = drawing;
const paths = drawingMarkup(drawing, (tone) => PAPER_COLOURS[tone]);
const [, , width, height] = box.split(' ').map(Number);
const SIZE = 640;
const scale = SIZE / Math.max(width, height);
const svg = `<svg xmlns="http://www.w3.org/2000/svg" viewBox="${box}" width="${width * scale}" height="${height * scale}">${paths}</svg>`;
mkdirSync(dirname(file), { recursive: true });
writeFileSync(file, await sharp(Buffer.from(svg)).flatten({ background: '#fbfaf6' }).png().toBuffer());
console.log(file);
