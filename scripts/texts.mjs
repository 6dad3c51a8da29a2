// npm run texts -- de: what a language does not say yet, as a file to be filled in; without a code, every text there is.
import { ensureInstalled } from './lib/install.mjs';

ensureInstalled();
const { ensurePackagesBuilt } = await import('./lib/build.mjs');
ensurePackagesBuilt();
const { loadContent } = await import('@heathstep/content');
const { allTexts, lacking } = await import('./lib/texts.mjs');

const [code = 'xx'] = process.argv.slice(2);
const loaded = loadContent();
if (!loaded.ok) throw new Error(loaded.problems.join('\n'));
const texts = loaded.content.languages.find((l) => l.code === code)?.texts ?? {};
const { clinicians } = await allTexts();
// Asked for, a language is measured by all that clinicians read.
const lacks = await lacking({ texts, clinicians: true });
process.stdout.write(`- code: ${code}\n  texts:\n`);
for (const text of lacks) process.stdout.write(`    ${JSON.stringify(text)}: ''\n`);
process.stderr.write(`${lacks.length} of ${clinicians.length} texts are not said yet\n`);
