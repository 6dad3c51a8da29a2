import { loadContent } from '@heathstep/content';
import type { HandoutContent } from '@heathstep/contracts';
import { handoutDocument } from '../src/handout/document.js';
import { addEpisode, addPerson, entry, inWorld, treated } from './harness.js';
import { readBy, wordsOf } from './pdf.js';

const loaded = loadContent();
if (!loaded.ok) throw new Error(loaded.problems.join('\n'));
const { content } = loaded;

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

  it('carries its structure: headings, paragraphs and pictures in the order they are read, ornaments left out', async () => {
    const { episodeId, plan } = await treated(who, {}, 'Ada Brook');
    const bytes = (await pdf(episodeId).expect(200)).body as Buffer;
    expect(readBy('pdfinfo', bytes)).toMatch(/Tagged:\s+yes/);
    const structure = readBy('pdfinfo', bytes, '-struct-text');
    expect(structure).toMatch(/^Document\n\s+H1 \(block\)\n\s+"Ada, your plan"/);
    const kinds = [...structure.matchAll(/^\s+(H1|H2|H3|P|Figure)\b/gm)].map((m) => m[1]);
    expect(kinds.filter((k) => k === 'Figure')).toHaveLength(plan.items.length);
    expect(kinds.filter((k) => k === 'H3')).toHaveLength(plan.items.length);
    const drawn = structure.indexOf('Figure');
    const first = content.exercises.find((e) => e.key === plan.items[0]?.exercise)?.name ?? '?';
    expect(structure.indexOf(`"${first}"`)).toBeGreaterThan(drawn);
    expect(structure.indexOf('"Stop"')).toBeGreaterThan(structure.indexOf('"Beside the exercises"'));
    expect(structure).not.toContain(', page 1 of');
    expect(bytes.toString('latin1')).toContain(`/Alt (${first})`);
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

describe('the handout in another language', () => {
  const { who } = inWorld();

  it('says all of it in German, with numbers and days as they are written there', async () => {
    const { person, episodeId } = await treated(who);
    const changed = await who
      .patch(`/api/people/${person.id}`, { version: person.version, language: 'de' })
      .expect(200);
    expect(changed.body.language).toBe('de');
    const paper: HandoutContent = (await who.get(`/api/episodes/${episodeId}/handout`).expect(200)).body;
    expect(paper.language).toBe('de');
    expect(paper.labels.weekdays).toEqual(['Mo', 'Di', 'Mi', 'Do', 'Fr', 'Sa', 'So']);
    expect(paper.version).toMatch(/^Fassung 1, \d{1,2}\. \p{L}+ \d{4}$/u);
    expect(paper.parts[0]?.exercises[0]?.dose).toMatch(/^(Links|Rechts)?.*jeden Tag|Tagen die Woche/);
    const text = (await who.get(`/api/episodes/${episodeId}/handout.txt`).expect(200)).text;
    expect(text).toContain(paper.parts[0]?.exercises[0]?.name);
    // Words that stand in every English plan.
    expect(text.match(/\b(the|and|with|your|times|days|hold|every)\b/g)).toBeNull();
    const calendar = (await who.get(`/api/episodes/${episodeId}/plan.ics`).expect(200)).text;
    expect(calendar).toContain('Übungen: ');
    expect(calendar).not.toMatch(/Exercises|Version/);
  });

  it('takes no language that is not there', async () => {
    const person = await addPerson(who);
    const refused = await who
      .patch(`/api/people/${person.id}`, { version: person.version, language: 'xx' })
      .expect(400);
    expect(refused.body.errors).toEqual([{ pointer: '/language', detail: 'must be one of the languages' }]);
    await who.get('/api/languages/xx').expect(404);
    expect((await who.get('/api/languages/de').expect(200)).body).toMatchObject({
      code: 'de',
      locale: 'de-DE',
    });
  });

  it('is English as plain text where nothing else was said', async () => {
    const { episodeId } = await treated(who, {}, 'Ada Brook');
    const text = (await who.get(`/api/episodes/${episodeId}/handout.txt`).expect(200)).text;
    expect(text).toMatch(/^Ada, your plan\n/);
    expect(text).toMatch(/\n1\. /);
    expect(text).toContain('Stop and call 112:');
  });
});

describe('the paper', () => {
  const paper = (more: Partial<HandoutContent> = {}): HandoutContent => ({
    language: 'en',
    title: 'Ada, your plan',
    clinic: 'Clinic',
    version: 'Version 1',
    parts: [
      {
        title: '',
        purpose: 'Move',
        beside: ['Shoes.'],
        goesOnWhen: ['Pain during exercise 2 or less for 5 days'],
        exercises: [
          {
            key: 'rise',
            sides: 'left',
            inTurn: 'In turn, 2 rounds of the next 2: one set of each.',
            name: 'Rise',
            dose: 'Left, 3 sets',
            steps: 'Rise.',
            feel: 'work',
            cue: { label: 'Mind:', text: '' },
            needs: '',
            days: [true, false, true, false, false, false, false],
          },
        ],
      },
    ],
    allRight: { title: 'Is this pain all right?', text: 'Some pain' },
    stop: {
      title: 'Stop',
      emergency: { label: 'Call 112:', signs: 'chest pain' },
      review: { label: 'Tell us:', signs: 'swelling' },
      notes: ['Answered from 8 to 18'],
    },
    notice: 'Made for you',
    labels: {
      feel: 'You should feel:',
      needs: 'You need:',
      beside: 'Beside the exercises',
      goesOn: 'You go on when',
      page: 'your page',
      footer: '{{page}} of {{pages}}',
      weekdays: ['Mon', 'Tue', 'Wed', 'Thu', 'Fri', 'Sat', 'Sun'],
    },
    held: [],
    ...more,
  });
  const textOf = (content: HandoutContent) =>
    JSON.stringify(
      handoutDocument(content, 'https://clinic.example/home', () => '<svg viewBox="0 0 1 1"></svg>'),
    );

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
    expect(text).toContain('Pain during exercise 2 or less for 5 days.');
    expect(textOf(paper({ parts: [] }))).not.toContain('Beside the exercises');
    expect(textOf(paper({ parts: [] }))).not.toContain('You go on when');
  });

  it('numbers the exercises of all complaints in one row', () => {
    const [first] = paper().parts;
    if (first === undefined) throw new Error('no part');
    const text = textOf(paper({ parts: [first, { ...first, title: 'Bunion, left' }] }));
    expect(text).toContain('"text":"2","bold":true');
    expect(text).toContain('Bunion, left');
  });
});
