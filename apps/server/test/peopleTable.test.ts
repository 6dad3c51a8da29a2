import { randomUUID } from 'node:crypto';
import request from 'supertest';
import { parse } from 'csv-parse/sync';
import type { PeopleImportView, PeopleTableView } from '@heathstep/contracts';
import { addEpisode, type Caller, inWorld } from './harness.js';

const COLUMNS = 'order=dmy&alike=leave&name=0&birthDate=1&sex=2&occupation=3';
const TABLE =
  'Name;Born;Sex;Work\nØre Lund;03.02.1971;w;baker\nBo Ek;;;\n;1.1.1980;;\n"Li ""Lu"" Berg";31.12.1999;m;\n';

describe('people as a table', () => {
  const { world, who } = inWorld();

  const sent = (test: request.Test, bytes: string | Buffer, name = 'people.csv') =>
    test
      .set('content-type', 'application/octet-stream')
      .set('x-file-name', encodeURIComponent(name))
      .send(bytes);
  const look = async (bytes: string | Buffer, query = COLUMNS): Promise<PeopleTableView> =>
    (await sent(who.post(`/api/exchange/people/look?${query}`), bytes).expect(200)).body as PeopleTableView;
  const take = (of: Caller, bytes: string, query = COLUMNS, id = randomUUID()) =>
    sent(of.put(`/api/exchange/people/${id}?${query}`), bytes, 'Üben.csv');
  const named = async (name: string) =>
    (
      (await who.get(`/api/people?q=${encodeURIComponent(name)}`).expect(200)).body as {
        id: string;
        name: string;
      }[]
    ).map((p) => p.name);

  it('is looked at line by line, taken once, and taken back whole', async () => {
    expect((await sent(who.post('/api/exchange/people/columns'), TABLE).expect(200)).body as object).toEqual({
      heads: ['Name', 'Born', 'Sex', 'Work'],
      columns: { name: 0, birthDate: 1, sex: 2, occupation: 3 },
    });
    const before = await look(TABLE);
    expect(before.counts).toEqual({ new: 3, same: 0, alike: 0, wrong: 1 });
    expect(before.lines[0]).toMatchObject({ line: 4, kind: 'wrong', field: 'name' });
    const id = randomUUID();
    const made = (await take(who, TABLE, COLUMNS, id).expect(201)).body as PeopleImportView;
    expect(made).toMatchObject({ people: 3, file: 'Üben.csv', undoneAt: null });
    // A double press makes nobody twice, and the same file again finds them here.
    expect(((await take(who, TABLE, COLUMNS, id).expect(201)).body as PeopleImportView).people).toBe(3);
    expect(await named('Lund')).toEqual(['Øre Lund']);
    expect((await look(TABLE)).counts).toEqual({ new: 0, same: 2, alike: 1, wrong: 1 });
    await take(who, TABLE).expect(422);
    const out = (await who.get('/api/exchange/people/people.csv').expect(200)).text;
    expect(parse(out, { columns: true })).toEqual(
      expect.arrayContaining([
        { name: 'Øre Lund', 'date of birth': '1971-02-03', sex: 'female', occupation: 'baker' },
        { name: 'Li "Lu" Berg', 'date of birth': '1999-12-31', sex: 'male', occupation: '' },
      ]),
    );
    const [listed] = (await who.get('/api/exchange/people/imports').expect(200)).body as PeopleImportView[];
    expect(listed?.id).toBe(id);
    await who.post(`/api/exchange/people/imports/${id}/undo`).expect(200);
    expect(await named('Lund')).toEqual([]);
    expect((await look(TABLE)).counts.new).toBe(3);
  });

  it('stays where something was recorded of one of them since', async () => {
    const id = randomUUID();
    await take(who, 'name\nKept One\nKept Two\n', 'order=dmy&alike=leave&name=0', id).expect(201);
    const [person] = (await who.get('/api/people?q=Kept One').expect(200)).body as { id: string }[];
    await addEpisode(who, person?.id ?? '');
    const refused = (await who.post(`/api/exchange/people/imports/${id}/undo`).expect(422)).body as {
      detail: string;
    };
    expect(refused.detail).toContain('Kept One');
    expect(await named('Kept Two')).toEqual(['Kept Two']);
  });

  it.each([
    ['nothing', ''],
    ['headings alone', 'name,born\n'],
    ['another writing', Buffer.from([0x6e, 0x0a, 0xe9, 0x0a])],
    ['no text', 'name\n\u0000\n'],
    ['a quote that is not closed', 'name,born\n"Bo,1\n'],
    ['too many people', `name\n${'Bo\n'.repeat(20_001)}`],
  ])('is refused by the file: %s', async (_what, bytes) => {
    const { body } = await sent(who.post(`/api/exchange/people/look?${COLUMNS}`), bytes as string).expect(
      400,
    );
    expect((body as { errors: { pointer: string }[] }).errors[0]?.pointer).toBe('/file');
  });

  it('is refused by the column where none is the name, and by who asks', async () => {
    const { body } = await sent(
      who.post('/api/exchange/people/look?order=dmy&alike=leave&name=x'),
      TABLE,
    ).expect(400);
    expect((body as { errors: { pointer: string }[] }).errors[0]?.pointer).toBe('/name');
    await take(await world.as(0, 'assistant'), TABLE).expect(403);
    await take(who, TABLE, 'order=dmy&alike=leave&name=9').expect(422);
  });

  it('never shows or counts who is of another clinic', async () => {
    await take(await world.as(1, 'clinician'), TABLE).expect(201);
    expect(
      (await look('name,born\nØre Lund,3.2.1971\n', 'order=dmy&alike=leave&name=0&birthDate=1')).counts.new,
    ).toBe(1);
  });
});
