import { randomUUID } from 'node:crypto';
import type request from 'supertest';
import type {
  CourseView,
  EpisodeView,
  MeasurementImportView,
  MeasurementTableView,
} from '@heathstep/contracts';
import {
  addEpisode,
  addPerson,
  entry,
  inWorld,
  openVisit,
  safetyEntries,
  today,
  treated,
} from './harness.js';

const COLUMNS = 'order=dmy&person=0&day=1&measure=2&side=3&value=4&unit=5';
const HEAD = 'Person;Day;Test;Side;Value;Unit\n';

describe('what was measured before, as a table', () => {
  const { who, world } = inWorld();
  const sent = (test: request.Test, text: string) =>
    test.set('content-type', 'application/octet-stream').set('x-file-name', 'alt.csv').send(text);
  const look = async (text: string) =>
    (await sent(who.post(`/api/exchange/measurements/look?${COLUMNS}`), text).expect(200))
      .body as MeasurementTableView;
  const take = (text: string, id = randomUUID()) =>
    sent(who.put(`/api/exchange/measurements/${id}?${COLUMNS}`), text);
  const undo = (id: string) => who.post(`/api/exchange/measurements/imports/${id}/undo`);

  /** Someone with a complaint and no visit yet. */
  const begun = async (name: string) => {
    const person = await addPerson(who, name);
    return (await addEpisode(who, person.id)).id;
  };
  const episode = async (id: string) =>
    (await who.get(`/api/episodes/${id}`).expect(200)).body as EpisodeView;

  it('is looked at, taken once as visits of its days, shown on the course, and taken back whole', async () => {
    const id = await begun('Ada Quill');
    const text = `${HEAD}ada quill;3.2.2025;single-leg-heel-raise;L;8;\nAda Quill;3.2.2025;Single-leg heel raise;R;17;\nAda Quill;5.4.2025;SLHR;l;12;\nNobody;1.1.2025;SLHR;l;9;\n`;
    const before = await look(text);
    expect(before.counts).toEqual({ new: 3, same: 0, wrong: 1 });
    expect(before.lines[0]).toMatchObject({ line: 5, kind: 'wrong', field: 'person' });
    const table = randomUUID();
    const made = (await take(text, table).expect(201)).body as MeasurementImportView;
    expect(made).toMatchObject({ lines: 3, file: 'alt.csv', undoneAt: null, by: 'clinician 0' });
    await take(text, table).expect(201);
    const { visits, earlier, safety } = await episode(id);
    expect(
      earlier.map((v) => [v.startedAt.slice(0, 10), v.imported, v.signedAt !== null, v.entries.length]),
    ).toEqual([
      ['2025-02-03', true, true, 2],
      ['2025-04-05', true, true, 1],
    ]);
    // Nobody was seen or asked: it stands for no visit, and nothing is judged by it.
    expect([visits, safety]).toEqual([[], null]);
    expect((await look(text)).counts).toEqual({ new: 0, same: 3, wrong: 1 });
    await take(text).expect(422);
    await undo(table).expect(200);
    expect((await episode(id)).earlier).toEqual([]);
    expect((await look(text)).counts.new).toBe(3);
  });

  it('leaves the first visit the first, and gives no plan without it', async () => {
    const id = await begun('Bo Ek');
    await take(`${HEAD}Bo Ek;3.2.2025;single-leg-heel-raise;L;8;\n`).expect(201);
    const refused = await who
      .post(`/api/episodes/${id}/plans`, { id: randomUUID(), stage: 'calm', from: 'stage' })
      .expect(422);
    expect(JSON.stringify(refused.body)).toMatch(/safety/i);
    const day = (await who.get('/api/day').expect(200)).body as {
      items: { episodeId: string; headline: string }[];
    };
    expect(day.items.find((i) => i.episodeId === id)?.headline).toBe('First visit to begin');
    const visit = await openVisit(who, id);
    expect(visit).toMatchObject({ kind: 'first' });
    await who.put(`/api/visits/${visit.id}/entries`, { entries: safetyEntries() }).expect(200);
    const course = (await who.get(`/api/episodes/${id}/course`).expect(200)).body as CourseView;
    expect(course.episode.visits.map((v) => [v.kind, v.number])).toEqual([['first', 1]]);
    expect(course.episode.earlier).toHaveLength(1);
    expect((await who.get(`/api/episodes/${id}/letter`).expect(200)).body.about[1].text).toMatch(
      /, 1 visit$/,
    );
  });

  it('meets no criterion, however good it was, and is not taken from the day of the first visit on', async () => {
    const { episodeId, person } = await treated(who);
    const criteria = async () =>
      ((await who.get(`/api/episodes/${episodeId}/course`).expect(200)).body as CourseView).criteria;
    const before = await criteria();
    await take(
      `${HEAD}${person.name};3.2.2019;single-leg-heel-raise;L;40;\n${person.name};3.2.2019;SLHR;R;40;\n`,
    ).expect(201);
    expect(await criteria()).toEqual(before);
    const day = today().split('-').reverse().join('.');
    const { lines } = await look(`${HEAD}${person.name};${day};single-leg-heel-raise;L;8;\n`);
    expect(lines[0]).toMatchObject({ kind: 'wrong', field: 'day' });
  });

  it('stays where something of it was amended since', async () => {
    const id = await begun('Cora Fell');
    const table = randomUUID();
    await take(`${HEAD}Cora Fell;3.2.2025;single-leg-heel-raise;L;8;\n`, table).expect(201);
    const [visit] = (await episode(id)).earlier;
    await who
      .put(`/api/visits/${visit?.id ?? ''}/entries`, {
        entries: [
          entry('measure.single-leg-heel-raise.left', { trials: [9], status: 'taken', pain: null }, 1),
        ],
        reason: 'misread',
      })
      .expect(200);
    expect((await undo(table).expect(422)).body.detail).toContain('Cora Fell');
    expect((await episode(id)).earlier).toHaveLength(1);
  });

  it('is refused where it is no table, where columns are missing, and for another clinic’s people', async () => {
    await sent(who.post('/api/exchange/measurements/columns'), '').expect(400);
    await sent(who.post('/api/exchange/measurements/look?order=dmy&person=0'), `${HEAD}a;b;c;d;e;f\n`).expect(
      400,
    );
    await begun('Dana Moss');
    const stranger = await world.as(1, 'lead');
    const text = `${HEAD}Dana Moss;3.2.2025;single-leg-heel-raise;L;8;\n`;
    const seen = (await sent(stranger.post(`/api/exchange/measurements/look?${COLUMNS}`), text).expect(200))
      .body as MeasurementTableView;
    expect(seen.counts).toEqual({ new: 0, same: 0, wrong: 1 });
  });
});
