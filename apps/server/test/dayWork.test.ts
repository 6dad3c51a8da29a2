import { randomUUID } from 'node:crypto';
import ICAL from 'ical.js';
import { addDays } from '@heathstep/core';
import type { AppointmentView, CourseView, DayItem, DayView } from '@heathstep/contracts';
import { DayController } from '../src/day/day.controller.js';
import { addEpisode, addPerson, inWorld, openAtHome, today, treated } from './harness.js';

describe('visits that are planned', () => {
  const { world, who } = inWorld();
  let personId = '';
  beforeAll(async () => {
    personId = (await addPerson(who, 'Øda Strand')).id;
  });

  const body = (change: Record<string, unknown> = {}): Record<string, unknown> => ({
    id: randomUUID(),
    personId,
    day: today(),
    time: '09:30',
    minutes: 30,
    note: ' Bring the shoes ',
    ...change,
  });
  const listed = async (query = '') =>
    (await who.get(`/api/appointments${query}`).expect(200)).body as AppointmentView[];

  it('stand on the day by time, with the name as it is now, and once though sent twice', async () => {
    const late = body({ time: '15:00' });
    const early = body({ time: '08:15', minutes: 45 });
    for (const sent of [late, early, late]) await who.post('/api/appointments', sent).expect(201);
    await who.post('/api/appointments', { ...late, time: '16:00' }).expect(409);
    const { appointments } = (await who.get('/api/day').expect(200)).body as DayView;
    expect(appointments.map((a) => [a.time, a.minutes, a.name, a.note, a.state])).toEqual([
      ['08:15', 45, 'Øda Strand', 'Bring the shoes', 'planned'],
      ['15:00', 30, 'Øda Strand', 'Bring the shoes', 'planned'],
    ]);
  });

  it('are told for one person from today on, the next first, without what was cancelled', async () => {
    const other = (await addPerson(who, 'Åse Lund')).id;
    const [late, next, gone] = [
      body({ personId: other, day: addDays(today(), 9) }),
      body({ personId: other, day: addDays(today(), 3) }),
      body({ personId: other, day: addDays(today(), 1) }),
    ];
    for (const sent of [late, next, gone]) await who.post('/api/appointments', sent).expect(201);
    await who
      .patch(`/api/appointments/${String(gone['id'])}`, { version: 1, state: 'cancelled' })
      .expect(200);
    const list = (await who.get(`/api/people/${other}/appointments`).expect(200)).body as AppointmentView[];
    expect(list.map((a) => a.id)).toEqual([next['id'], late['id']]);
    await who.get(`/api/people/${randomUUID()}/appointments`).expect(404);
  });

  it('are due by the stage: so many days after the last visit, and none without a plan', async () => {
    const { episodeId, visitId } = await treated(who);
    const next = async () =>
      ((await who.get(`/api/episodes/${episodeId}/course`).expect(200)).body as CourseView).nextReview;
    const first = await next();
    expect(first?.due).toBe(addDays(today(), first?.everyDays ?? 0));
    await world.owner.query(`UPDATE visit SET started_at = started_at - interval '40 days' WHERE id = $1`, [
      visitId,
    ]);
    await world.owner.query(
      `UPDATE plan SET given_at = given_at - interval '40 days' WHERE episode_id = $1`,
      [episodeId],
    );
    expect((await next())?.due).toBe(addDays(today(), (first?.everyDays ?? 0) - 40));
    const bare = await addEpisode(who, personId, 'left');
    expect(((await who.get(`/api/episodes/${bare.id}/course`)).body as CourseView).nextReview).toBeNull();
  });

  it('are changed by the version last read, and come, are missed or cancelled', async () => {
    const sent = body({ day: addDays(today(), 2) });
    await who.post('/api/appointments', sent).expect(201);
    const url = `/api/appointments/${String(sent['id'])}`;
    const moved = (await who.patch(url, { version: 1, time: '11:00' }).expect(200)).body as AppointmentView;
    expect(moved).toMatchObject({ time: '11:00', version: 2, minutes: 30 });
    const late = await who.patch(url, { version: 1, state: 'missed' }).expect(409);
    expect(late.body.current).toMatchObject({ time: '11:00', version: 2 });
    await who.patch(url, { version: 2, state: 'came' }).expect(200);
    const list = await listed(`?from=${addDays(today(), 2)}&to=${addDays(today(), 2)}`);
    expect(list.map((a) => a.state)).toEqual(['came']);
  });

  it.each([
    ['personId', { personId: 'me' }],
    ['day', { day: '2026-02-30' }],
    ['day', { day: 'tomorrow' }],
    ['time', { time: '9:30' }],
    ['time', { time: '24:00' }],
    ['minutes', { minutes: 4 }],
    ['minutes', { minutes: 7.5 }],
    ['note', { note: 'x'.repeat(201) }],
  ])('refuses a wrong %s by its field', async (field, change) => {
    const { body: problem } = await who.post('/api/appointments', body(change)).expect(400);
    expect(problem.errors.map((e: { pointer: string }) => e.pointer)).toContain(`/${field}`);
  });

  it.each(['?from=yesterday', '?to=2026-02-99', '?from=2026-02-30', '?from=2026-01-01&to=2027-01-01'])(
    'refuses the days %s',
    async (query) => {
      await who.get(`/api/appointments${query}`).expect(400);
    },
  );

  it('go into any calendar at the clinic’s own time, a cancelled one as cancelled', async () => {
    const sent = body({ day: addDays(today(), 5), time: '23:45', minutes: 30, note: '' });
    await who.post('/api/appointments', sent).expect(201);
    const id = String(sent['id']);
    await who.patch(`/api/appointments/${id}`, { version: 1, state: 'cancelled' }).expect(200);
    const { text } = await who.get('/api/appointments/visits.ics').expect(200);
    const events = new ICAL.Component(ICAL.parse(text) as unknown[]).getAllSubcomponents('vevent');
    const event = events.find((e) => e.getFirstPropertyValue('uid') === `${id}@heathstep`);
    expect(String(event?.getFirstPropertyValue('dtstart'))).toBe(`${addDays(today(), 5)}T23:45:00`);
    expect(String(event?.getFirstPropertyValue('dtend'))).toBe(`${addDays(today(), 6)}T00:15:00`);
    expect(event?.getFirstPropertyValue('status')).toBe('CANCELLED');
    expect(event?.getFirstPropertyValue('summary')).toBe('Visit: Øda Strand');
  });

  it('an event of a calendar is taken once', async () => {
    const uid = `${randomUUID()}@elsewhere`;
    const day = addDays(today(), 3);
    await who.post('/api/appointments', body({ uid, day })).expect(201);
    await who.post('/api/appointments', body({ uid, day })).expect(409);
    expect((await listed(`?from=${day}&to=${day}`)).filter((a) => a.uid === uid)).toHaveLength(1);
  });

  it('one of ours that comes back from a calendar is not taken again', async () => {
    const sent = body({ day: addDays(today(), 6) });
    await who.post('/api/appointments', sent).expect(201);
    const uid = `${String(sent['id'])}@heathstep`;
    await who.post('/api/appointments', body({ day: addDays(today(), 6), uid })).expect(409);
    await who
      .post('/api/appointments', body({ day: addDays(today(), 6), uid: `${randomUUID()}@heathstep` }))
      .expect(201);
  });

  it('an assistant plans them too', async () => {
    const assistant = await world.as(0, 'assistant');
    await assistant.post('/api/appointments', body({ day: addDays(today(), 9) })).expect(201);
  });
});

describe('what is set aside', () => {
  const { world, who } = inWorld();
  const rowOf = async (personId: string): Promise<DayItem> => {
    const { items } = (await who.get('/api/day').expect(200)).body as DayView;
    const [row] = items.filter((i) => i.personId === personId);
    if (row === undefined) throw new Error('no such row');
    return row;
  };
  const aside = ({ personId, episodeId, kind, weight }: DayItem, change: object = {}) => ({
    id: randomUUID(),
    personId,
    episodeId,
    kind,
    weight,
    until: addDays(today(), 7),
    reason: 'Comes next week anyway',
    ...change,
  });

  it('says until when, why and who, and is taken back', async () => {
    const person = await addPerson(who, 'Ulf Marrow');
    const sent = aside(await rowOf(person.id));
    await who.post('/api/day/asides', sent).expect(201);
    await who.post('/api/day/asides', sent).expect(201);
    expect((await rowOf(person.id)).aside).toMatchObject({
      until: sent.until,
      reason: 'Comes next week anyway',
    });
    expect((await rowOf(person.id)).aside?.by).not.toBe('');
    await who.del(`/api/day/asides/${sent.id}`).expect(204);
    expect((await rowOf(person.id)).aside).toBeNull();
  });

  it('is taken back with one press, though it was set aside twice', async () => {
    const person = await addPerson(who, 'Una Selby');
    const [first, second] = [aside(await rowOf(person.id)), aside(await rowOf(person.id))];
    for (const sent of [first, second]) await who.post('/api/day/asides', sent).expect(201);
    await who.del(`/api/day/asides/${second.id}`).expect(204);
    expect((await rowOf(person.id)).aside).toBeNull();
  });

  it('never hides what was asked after it was set aside, nor a second question', async () => {
    const { person, episodeId } = await treated(who);
    const home = await openAtHome(world, who, episodeId);
    const ask = (text: string) => home.post('/api/home/questions', { id: randomUUID(), text }).expect(201);
    await ask('May I swim?');
    await who.post('/api/day/asides', aside(await rowOf(person.id))).expect(201);
    expect((await rowOf(person.id)).aside).not.toBeNull();
    await ask('And run?');
    expect(await rowOf(person.id)).toMatchObject({ kind: 'asked', weight: 2, aside: null });
  });

  it('comes back as soon as it is something else', async () => {
    const person = await addPerson(who, 'Ylva Tarn');
    await who.post('/api/day/asides', aside(await rowOf(person.id))).expect(201);
    await addEpisode(who, person.id);
    expect((await rowOf(person.id)).aside).toBeNull();
  });

  it('never hides a stop sign, though someone set them aside before', async () => {
    const { person, episodeId } = await treated(who);
    // Set aside as what it is not yet: a row that would be quiet.
    await who
      .post('/api/day/asides', aside(await rowOf(person.id), { kind: 'silent', weight: 0 }))
      .expect(201);
    const home = await openAtHome(world, who, episodeId);
    const payload = { grade: 'emergency', sign: 'Calf hot and swollen', exercise: null };
    await home
      .put('/api/home/entries', { id: randomUUID(), version: 1, kind: 'stop', day: today(), payload })
      .expect(200);
    const row = await rowOf(person.id);
    expect([row.kind, row.aside]).toEqual(['stop', null]);
    // Nor is anyone who assists told to load or to teach past it.
    expect([row.toMeasure, row.toTeach]).toEqual([[], []]);
  });

  it.each(['stop', 'blocked', 'refer', 'steady'])('cannot be someone of the kind %s', async (kind) => {
    const person = await addPerson(who);
    const { body } = await who.post('/api/day/asides', aside(await rowOf(person.id), { kind })).expect(400);
    expect(body.errors.map((e: { pointer: string }) => e.pointer)).toEqual(['/kind']);
  });

  it('comes back when there is more of the same', async () => {
    const person = await addPerson(who, 'Ask Fenner');
    const row = await rowOf(person.id);
    await who.post('/api/day/asides', aside(row)).expect(201);
    // As if it had been one of less.
    await world.owner.query('UPDATE set_aside SET weight = $1 WHERE person_id = $2', [
      row.weight - 1,
      person.id,
    ]);
    expect((await rowOf(person.id)).aside).toBeNull();
  });

  it.each([
    ['until', { until: today() }],
    ['until', { until: addDays(today(), 29) }],
    ['until', { until: 'soon' }],
    ['reason', { reason: '' }],
    ['reason', { reason: '   ' }],
    ['weight', { weight: -1 }],
  ])('refuses a wrong %s by its field', async (field, change) => {
    const person = await addPerson(who);
    const { body } = await who.post('/api/day/asides', aside(await rowOf(person.id), change)).expect(400);
    expect(body.errors.map((e: { pointer: string }) => e.pointer)).toContain(`/${field}`);
  });

  it('is for clinicians: an assistant sees it and sets nothing aside', async () => {
    const assistant = await world.as(0, 'assistant');
    const person = await addPerson(who);
    await assistant.post('/api/day/asides', aside(await rowOf(person.id))).expect(403);
  });

  it('stands beside the reason what helps to decide: where in the stages, last contact, what to measure and teach', async () => {
    const { person } = await treated(who);
    const row = await rowOf(person.id);
    expect(row.line).toMatchObject({ stage: 1 });
    expect(row.line?.stages).toBeGreaterThan(1);
    expect(row.lastContact).toEqual({ day: today(), by: 'visit' });
    expect(row.toTeach.length).toBeGreaterThan(0);
    const referral = await addPerson(who);
    expect(await rowOf(referral.id)).toMatchObject({ line: null, lastContact: null, toTeach: [] });
  });
});

describe('a day of many people', () => {
  const { world, who } = inWorld();

  it('is answered in parts, says how many are missing, and is whole in the end', async () => {
    for (let i = 0; i < 34; i += 1) await addPerson(who, `Quist ${i}`);
    const days = world.app.get(DayController);
    const { patience } = days;
    days.patience = 0;
    try {
      const first = (await who.get('/api/day').expect(200)).body as DayView;
      expect(first.items.length).toBe(10);
      expect(first.pending).toBe(24);
      let view = first;
      for (let asked = 0; view.pending > 0 && asked < 20; asked += 1)
        view = (await who.get('/api/day').expect(200)).body as DayView;
      expect(view.pending).toBe(0);
      expect(new Set(view.items.map((i) => i.personId)).size).toBe(34);
    } finally {
      days.patience = patience;
    }
  });

  it('puts those first who were pressing before', async () => {
    const { person, episodeId } = await treated(who, {}, 'Zuletzt Quist');
    const phone = await openAtHome(world, who, episodeId);
    const payload = { grade: 'review', sign: 'Numbness or tingling', exercise: null };
    await phone
      .put('/api/home/entries', { id: randomUUID(), version: 1, kind: 'stop', day: today(), payload })
      .expect(200);
    const whole = async () => {
      let view = (await who.get('/api/day').expect(200)).body as DayView;
      while (view.pending > 0) view = (await who.get('/api/day').expect(200)).body as DayView;
      return view;
    };
    const stands = (view: DayView) => view.items.find((i) => i.personId === person.id)?.kind;
    expect(stands(await whole())).toBe('stop');
    const days = world.app.get(DayController);
    const { patience } = days;
    days.patience = 0;
    try {
      // What everyone's day is read by changed: all is worked out anew.
      await world.owner.query(`UPDATE clinic SET phone = phone || '1' WHERE id = $1`, [world.clinics[0]]);
      const view = (await who.get('/api/day').expect(200)).body as DayView;
      expect(view.pending).toBeGreaterThan(0);
      expect(stands(view)).toBe('stop');
    } finally {
      days.patience = patience;
    }
  });
});
