import { parse } from 'csv-parse/sync';
import { addDays } from '@heathstep/core';
import { addPerson, inWorld, openAtHome, today, treated } from './harness.js';
import { randomUUID } from 'node:crypto';

describe('lists as tables', () => {
  const { world, who } = inWorld();
  const table = async (path: string, of = who) => {
    const answer = await of.get(path).expect(200);
    expect(answer.headers['content-type']).toMatch(/^text\/csv/);
    expect(answer.headers['content-disposition']).toMatch(/^attachment; filename="\w+\.csv"$/);
    return parse<Record<string, string>>(answer.text, { columns: true });
  };

  it('tell what the pages tell: the day, planned visits, staff, measures, exercises', async () => {
    const { person } = await treated(who);
    const odd = await addPerson(who, '=SUM(A1)');
    await who
      .post('/api/appointments', {
        id: randomUUID(),
        personId: person.id,
        day: addDays(today(), 2),
        time: '09:30',
        minutes: 30,
        note: 'first, "long"',
      })
      .expect(201);
    const day = await table('/api/day/day.csv');
    expect(day.find((r) => r['person'] === person.name)).toMatchObject({
      complaint: 'plantar-heel-pain',
      side: 'left',
    });
    // A name that a sheet would work out is kept from it.
    expect(day.some((r) => r['person'] === `'${odd.name}`)).toBe(true);
    expect(await table('/api/appointments/visits.csv')).toMatchObject([
      { person: person.name, time: '09:30', note: 'first, "long"' },
    ]);
    const lead = await world.as(0, 'lead');
    expect((await table('/api/clinic/staff/staff.csv', lead)).map((r) => r['role']).sort()).toEqual([
      'assistant',
      'clinician',
      'lead',
    ]);
    expect(
      (await table('/api/content/measures.csv')).find((r) => r['key'] === 'lunge-knee-bent'),
    ).toMatchObject({
      unit: 'deg',
      trials: '3',
    });
    expect((await table('/api/content/exercises.csv')).some((r) => r['key'] === 'pogo')).toBe(true);
    const { lines } = (await lead.get('/api/audit?kind=took').expect(200)).body as {
      lines: { subject: string }[];
    };
    expect(lines.map((l) => l.subject)).toEqual(expect.arrayContaining(['day', 'appointments', 'account']));
  });

  it('tell the log of a complaint day by day', async () => {
    const { episodeId, plan } = await treated(who);
    const home = await openAtHome(world, who, episodeId);
    await home
      .put('/api/home/entries', {
        id: randomUUID(),
        version: 1,
        kind: 'session',
        day: today(),
        planId: plan.id,
        payload: {
          scores: { before: 2, during: 3, after: 2, 'hour-above': false },
          exercises: plan.items
            .slice(0, 1)
            .map((i) => ({ exercise: i.exercise, sets: 1, reps: 5, effort: 4 })),
        },
      })
      .expect(200);
    const rows = await table(`/api/episodes/${episodeId}/log.csv`);
    expect(rows).toMatchObject([{ day: today(), taken: 'not-known' }]);
    expect(Number(rows[0]?.['minutes under tension'])).toBeGreaterThan(0);
  });
});
