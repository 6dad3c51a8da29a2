import { execFileSync } from 'node:child_process';
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { loadContent } from '@heathstep/content';
import type { HandoutContent } from '../src/handout/content.js';
import { handoutDocument } from '../src/handout/document.js';
import { addEpisode, addPerson, entry, inWorld, treated } from './harness.js';

const loaded = loadContent();
if (!loaded.ok) throw new Error(loaded.problems.join('\n'));
const { content } = loaded;

/** The words of a PDF in its reading order, by a reader that had no part in making it. */
function wordsOf(bytes: Buffer): string {
  const folder = mkdtempSync(join(tmpdir(), 'heathstep-pdf-'));
  try {
    writeFileSync(join(folder, 'plan.pdf'), bytes);
    const text = execFileSync('pdftotext', ['-nopgbrk', join(folder, 'plan.pdf'), '-'], { encoding: 'utf8' });
    return text.replaceAll(/\s+/g, ' ');
  } finally {
    rmSync(folder, { recursive: true });
  }
}

describe('the handout as a PDF', () => {
  const { who } = inWorld();

  const pdf = (episodeId: string) =>
    who
      .get(`/api/episodes/${episodeId}/handout.pdf`)
      .buffer(true)
      .parse((response, done) => {
        const parts: Buffer[] = [];
        response.on('data', (part: Buffer) => parts.push(part));
        response.on('end', () => done(null, Buffer.concat(parts)));
      });

  it('says everything of the plan given, in the order it is read, in letters of every name', async () => {
    const { episodeId, plan } = await treated(who, {}, 'Øystein Łęcki');
    const response = await pdf(episodeId).expect(200);
    expect(response.headers['content-type']).toBe('application/pdf');
    expect(response.headers['cache-control']).toBe('no-store');
    const bytes = response.body as Buffer;
    expect(bytes.subarray(0, 5).toString()).toBe('%PDF-');
    const words = wordsOf(bytes);
    const nameOf = (key: string) => content.exercises.find((e) => e.key === key)?.name ?? '?';
    const wanted = [
      'Øystein, your plan',
      ...plan.items.map((i) => nameOf(i.exercise)),
      'Beside the exercises',
      'Is this pain all right?',
      'Stop and call 112:',
      '01632 960 000',
      'It does not replace their advice',
    ];
    const at = wanted.map((text) => words.indexOf(text));
    expect(wanted.filter((_, i) => at[i] === -1)).toEqual([]);
    expect([...at].sort((a, b) => a - b)).toEqual(at);
  });

  it('prints nothing without a plan, nor past an open sign', async () => {
    const person = await addPerson(who);
    const empty = await addEpisode(who, person.id);
    await who.get(`/api/episodes/${empty.id}/handout.pdf`).expect(422);
    const { episodeId, visitId } = await treated(who);
    await pdf(episodeId).expect(200);
    await who
      .put(`/api/visits/${visitId}/entries`, {
        entries: [entry('safety.calf-squeeze-still', 'left', 1)],
      })
      .expect(200);
    const refused = await who.get(`/api/episodes/${episodeId}/handout.pdf`).expect(422);
    expect(refused.body.detail).toMatch(/Nothing is printed/);
  });
});

describe('the paper', () => {
  const paper = (more: Partial<HandoutContent> = {}): HandoutContent => ({
    title: 'Ada, your plan',
    clinic: 'Clinic',
    version: 'Version 1',
    parts: [
      {
        title: '',
        purpose: 'Move',
        beside: ['Shoes.'],
        exercises: [
          {
            name: 'Rise',
            dose: 'Left, 3 sets',
            steps: 'Rise.',
            feel: 'work',
            cue: '',
            needs: '',
            figure: '<svg viewBox="0 0 1 1"></svg>',
            days: [true, false, true, false, false, false, false],
          },
        ],
      },
    ],
    allRight: 'Some pain',
    emergency: { call: '112', signs: 'chest pain' },
    review: { call: '01632', signs: 'swelling' },
    usually: '',
    ...more,
  });
  const textOf = (content: HandoutContent) =>
    JSON.stringify(handoutDocument(content, 'https://clinic.example/home'));

  it('draws figures as lines, a box for each day it is done, and the way to the home page', () => {
    const text = textOf(paper());
    expect(text.match(/"svg":/g)).toHaveLength(1);
    expect(text.match(/"type":"rect"/g)).toHaveLength(2);
    expect(text).toContain('"qr":"https://clinic.example/home"');
  });

  it('leaves out what there is nothing to say of', () => {
    const text = textOf(paper());
    expect(text).not.toContain('Mind:');
    expect(text).not.toContain('You need:');
    expect(textOf(paper({ parts: [] }))).not.toContain('Beside the exercises');
  });

  it('numbers the exercises of all complaints in one row', () => {
    const [first] = paper().parts;
    if (first === undefined) throw new Error('no part');
    const text = textOf(paper({ parts: [first, { ...first, title: 'Bunion, left' }] }));
    expect(text).toContain('"text":"2","bold":true');
    expect(text).toContain('Bunion, left');
  });
});
