import { randomUUID } from 'node:crypto';
import type { ConsentsView, CourseView, LetterPageView, MergeView, PersonRow } from '@heathstep/contracts';
import { addPerson, type Caller, inWorld, openAtHome, takePhoto, today, treated } from './harness.js';
import { readBy, wordsOf } from './pdf.js';

describe('two records of one person', () => {
  const { world, who } = inWorld();
  let lead: Caller;
  beforeAll(async () => {
    lead = await world.as(0, 'lead');
  });
  const person = async (id: string) => (await who.get(`/api/people/${id}`).expect(200)).body as PersonRow;
  const merge = (keep: string, gone: string, more: object = {}) =>
    lead.post(`/api/people/${keep}/merge`, { id: randomUUID(), gone, ...more });

  /** Every row of the tables that say something of people, without who they are of. */
  const everything = async () => {
    const tables = [
      'episode',
      'visit',
      'visit_entry',
      'plan',
      'appointment',
      'outing',
      'consent',
      'home_entry',
    ];
    const all: unknown[] = [];
    for (const table of tables)
      all.push(
        ...(await world.owner.query<{ row: object }[]>(
          `SELECT to_jsonb(t) AS row FROM ${table} t ORDER BY to_jsonb(t)::text`,
        )),
      );
    return all;
  };
  const people = () => world.owner.query('SELECT * FROM person ORDER BY id');

  const run = (personId: string, at: string) =>
    world.owner.query(
      `INSERT INTO outing (id, clinic_id, person_id, day, started_at, seconds, metres, run_seconds, file, author_id, at)
       SELECT gen_random_uuid(), p.clinic_id, p.id, $2::date, $2::timestamptz, 60, 100, 30, 'a.gpx',
              (SELECT u.id FROM app_user u WHERE u.clinic_id = p.clinic_id LIMIT 1), now() FROM person p WHERE p.id = $1`,
      [personId, at],
    );

  it('become one with everything of both, and are apart again as they were', async () => {
    const [one, two] = [await treated(who), await treated(who)];
    await who
      .post('/api/appointments', {
        id: randomUUID(),
        personId: two.person.id,
        day: today(),
        time: '09:30',
        minutes: 30,
        note: '',
      })
      .expect(201);
    const home = await openAtHome(world, who, two.episodeId);
    // One run that both have, and one of the second alone.
    await run(one.person.id, '2026-01-05T08:00:00Z');
    await run(two.person.id, '2026-01-05T08:00:00Z');
    await run(two.person.id, '2026-01-07T08:00:00Z');
    const before = { rows: await everything(), people: await people() };

    const [done] = (await merge(one.person.id, two.person.id).expect(201)).body as MergeView[];
    expect(done).toMatchObject({ goneName: two.person.name, undoneAt: null, by: 'lead 0' });
    await who.get(`/api/people/${two.person.id}`).expect(404);
    const whole = await person(one.person.id);
    expect(whole.episodes.map((e) => e.id).sort()).toEqual([one.episodeId, two.episodeId].sort());
    expect((await who.get(`/api/people/${one.person.id}/outings`).expect(200)).body.outings).toHaveLength(2);
    expect((await who.get(`/api/people/${one.person.id}/appointments`).expect(200)).body).toHaveLength(1);
    // What one complaint forbids holds for the other: they are of one person now.
    const course = (await who.get(`/api/episodes/${one.episodeId}`).expect(200)).body as {
      elsewhere: { episodeId: string }[];
    };
    expect(course.elsewhere.map((c) => c.episodeId)).toEqual([two.episodeId]);
    await home.get('/api/home/today').expect(200);
    // The log of the one tells what was done to the other too.
    const { lines } = (await lead.get(`/api/audit?person=${one.person.id}`).expect(200)).body as {
      lines: { person: { id: string } | null }[];
    };
    expect(lines.some((l) => l.person?.id === two.person.id)).toBe(true);

    await lead.post(`/api/merges/${done?.id ?? ''}/undo`, {}).expect(200);
    await lead.post(`/api/merges/${done?.id ?? ''}/undo`, {}).expect(200);
    expect(await everything()).toEqual(before.rows);
    const plain = (rows: { version: number }[]) => rows.map(({ version: _version, ...p }) => p);
    expect(plain(await people())).toEqual(plain(before.people as { version: number }[]));
    await home.get('/api/home/today').expect(200);
  });

  it('keep what is known of either, and give back what was filled in when they come apart', async () => {
    const make = async (body: object) => {
      const id = randomUUID();
      await who
        .post('/api/people', { id, name: 'Ada Quill', birthDate: null, occupation: '', ...body })
        .expect(201);
      return id;
    };
    const [keep, gone] = [
      await make({}),
      await make({ birthDate: '1980-05-01', occupation: 'weaver', sex: 'female' }),
    ];
    const [done] = (await merge(keep, gone).expect(201)).body as MergeView[];
    expect(await person(keep)).toMatchObject({
      birthDate: '1980-05-01',
      occupation: 'weaver',
      sex: 'female',
    });
    // Said otherwise since: that stays.
    const { version } = await person(keep);
    await who.patch(`/api/people/${keep}`, { version, occupation: 'potter' }).expect(200);
    await lead.post(`/api/merges/${done?.id ?? ''}/undo`, {}).expect(200);
    expect(await person(keep)).toMatchObject({ birthDate: null, occupation: 'potter', sex: null });
    expect(await person(gone)).toMatchObject({
      birthDate: '1980-05-01',
      occupation: 'weaver',
      sex: 'female',
    });
  });

  it('of three become one and come apart in the order they came together', async () => {
    const [a, b, c] = [await treated(who), await treated(who), await treated(who)];
    const [ab] = (await merge(b.person.id, a.person.id).expect(201)).body as MergeView[];
    const [bc] = (await merge(c.person.id, b.person.id).expect(201)).body as MergeView[];
    expect((await person(c.person.id)).episodes).toHaveLength(3);
    await lead.post(`/api/merges/${bc?.id ?? ''}/undo`, {}).expect(200);
    expect((await person(b.person.id)).episodes).toHaveLength(2);
    await lead.post(`/api/merges/${ab?.id ?? ''}/undo`, {}).expect(200);
    expect((await person(a.person.id)).episodes.map((e) => e.id)).toEqual([a.episodeId]);
  });

  it('are not brought together by themselves, by accident or across clinics', async () => {
    const [one, two] = [await addPerson(who), await addPerson(who)];
    const { version } = two;
    await who.patch(`/api/people/${two.id}`, { version, birthDate: '1999-01-01' }).expect(200);
    expect((await merge(one.id, two.id).expect(400)).body.errors).toMatchObject([{ pointer: '/differs' }]);
    expect((await merge(one.id, one.id).expect(400)).body.errors).toMatchObject([{ pointer: '/gone' }]);
    expect((await merge(one.id, 'x').expect(400)).body.errors).toMatchObject([{ pointer: '/gone' }]);
    await merge(one.id, randomUUID()).expect(404);
    const foreign = await addPerson(await world.as(1, 'lead'));
    await merge(one.id, foreign.id).expect(404);
    const id = randomUUID();
    const body = { id, gone: two.id, differs: true };
    await lead.post(`/api/people/${one.id}/merge`, body).expect(201);
    // Sent again, it is done once.
    await lead.post(`/api/people/${one.id}/merge`, body).expect(201);
    expect((await lead.get(`/api/people/${one.id}/merges`).expect(200)).body as MergeView[]).toHaveLength(1);
  });

  it('of which one is erased are gone together, and a paper says so without a name', async () => {
    const [one, two] = [await treated(who), await treated(who)];
    await merge(one.person.id, two.person.id).expect(201);
    const erased = await lead
      .post(`/api/people/${one.person.id}/erase`, {
        name: one.person.name,
        reason: 'asked for by them',
        early: true,
      })
      .expect(200);
    for (const [table, column] of [
      ['person_merge', 'person_id'],
      ['episode', 'person_id'],
    ] as const)
      expect(await world.owner.query(`SELECT 1 FROM ${table} WHERE ${column} = $1`, [one.person.id])).toEqual(
        [],
      );
    const { body } = await lead
      .get(`/api/clinic/erasures/${erased.body.id as string}/certificate.pdf`)
      .buffer(true)
      .responseType('blob')
      .expect(200);
    const words = wordsOf(body as Buffer);
    expect(words).toContain('asked for by them');
    expect(words).toContain(erased.body.id as string);
    expect(words).not.toContain(one.person.name);
    expect(readBy('pdfinfo', body as Buffer)).toMatch(/Pages:\s+1\n/);
  });
});

describe('what someone agrees to', () => {
  const { world, who } = inWorld();
  const tell = (personId: string, body: object) =>
    who.post(`/api/people/${personId}/consents`, {
      id: randomUUID(),
      kind: 'letters',
      given: true,
      way: 'spoken',
      on: today(),
      note: '',
      ...body,
    });

  it('stands as it was told last, and what was told before is still to be read', async () => {
    const { id } = await addPerson(who);
    await tell(id, { given: true }).expect(201);
    const { told } = (await tell(id, { given: false, way: 'written', note: 'to nobody' }).expect(201))
      .body as ConsentsView;
    expect(told.map((c) => [c.kind, c.given, c.by])).toEqual([
      ['letters', false, 'clinician 0'],
      ['letters', true, 'clinician 0'],
    ]);
  });

  it.each([
    [{ kind: 'everything' }, '/kind'],
    [{ given: 'yes' }, '/given'],
    [{ way: 'nodded' }, '/way'],
    [{ on: '2999-01-01' }, '/on'],
    [{ note: 'x'.repeat(201) }, '/note'],
  ])('is refused by its field where it cannot be: %j', async (change, pointer) => {
    const { id } = await addPerson(who);
    expect((await tell(id, change).expect(400)).body.errors).toMatchObject([{ pointer }]);
  });

  it('after a no to pictures none is taken, and after a yes again', async () => {
    const { person, episodeId } = await treated(who);
    const refuses = async () =>
      ((await who.get(`/api/episodes/${episodeId}/course`).expect(200)).body as CourseView).episode.refuses;
    expect(await refuses()).toEqual([]);
    await tell(person.id, { kind: 'pictures', given: false }).expect(201);
    expect(await refuses()).toEqual(['pictures']);
    await expect(takePhoto(world, episodeId)).rejects.toThrow(/422/);
    await tell(person.id, { kind: 'pictures', given: true }).expect(201);
    await takePhoto(world, episodeId);
  });

  it('after a no to letters one goes out only where it is said that it does all the same', async () => {
    const { person, episodeId } = await treated(who);
    await tell(person.id, { given: false }).expect(201);
    const id = randomUUID();
    const begun = (await who.post(`/api/episodes/${episodeId}/letters`, { id, kind: 'referral' }).expect(201))
      .body as LetterPageView;
    expect(begun.refused).toBe(true);
    const page = (
      await who.put(`/api/letters/${id}`, { version: 1, ...begun.text, to: 'Dr Quill' }).expect(200)
    ).body as LetterPageView;
    const sent = (more: object) =>
      who.post(`/api/letters/${id}/sent`, { version: 2, mark: page.mark, way: 'post', on: today(), ...more });
    expect((await sent({}).expect(400)).body.errors).toMatchObject([{ pointer: '/allTheSame' }]);
    await sent({ allTheSame: true }).expect(200);
  });
});
