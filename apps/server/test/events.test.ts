import { randomUUID } from 'node:crypto';
import { type EventView, MOST_EVENTS } from '@heathstep/contracts';
import { addDays } from '@heathstep/core';
import { inWorld, today, treated } from './harness.js';

describe('what happened beside the treatment', () => {
  const { world, who } = inWorld();
  const event = (over: object = {}) => ({
    id: randomUUID(),
    kind: 'illness',
    day: addDays(today(), -3),
    note: ' a cold ',
    ...over,
  });

  it('is listed by its day, kept once, and taken back', async () => {
    const { episodeId } = await treated(who);
    const path = `/api/episodes/${episodeId}/events`;
    const first = event();
    await who.post(path, first).expect(201);
    await who.post(path, first).expect(201);
    const earlier = event({ kind: 'shoes', day: addDays(today(), -9), note: '' });
    const listed = (await who.post(path, earlier).expect(201)).body as EventView[];
    expect(listed.map((e) => [e.kind, e.note, e.by])).toEqual([
      ['shoes', '', expect.stringMatching(/\S/)],
      ['illness', 'a cold', expect.stringMatching(/\S/)],
    ]);
    await who.post(path, { ...first, kind: 'travel' }).expect(409);
    const left = (await who.del(`/api/events/${first.id}`).expect(200)).body as EventView[];
    expect(left.map((e) => e.id)).toEqual([earlier.id]);
    await who.del(`/api/events/${first.id}`).expect(200);
    await who.del(`/api/events/${randomUUID()}`).expect(404);
  });

  it('has a kind and a day that has been', async () => {
    const { episodeId } = await treated(who);
    const refused = async (over: object) =>
      (await who.post(`/api/episodes/${episodeId}/events`, event(over)).expect(400)).body.errors.map(
        (e: { pointer: string; detail: string }) => [e.pointer, e.detail],
      );
    expect(await refused({ kind: '' })).toEqual([['/kind', 'Choose what it was']]);
    expect(await refused({ day: addDays(today(), 2) })).toEqual([['/day', 'This day is still to come']]);
    expect(await refused({ day: '1999-12-31' })).toEqual([['/day', 'A day since the year 2000']]);
    expect(await refused({ day: '2026-02-30' })).toEqual([['/day', 'There is no such day']]);
    expect(await refused({ note: 'x'.repeat(201) })).toEqual([['/note', 'At most 200 characters']]);
  });

  it('has its bound, so that a chart can be read', async () => {
    const { episodeId } = await treated(who);
    const path = `/api/episodes/${episodeId}/events`;
    await world.owner.query(
      `INSERT INTO course_event (id, clinic_id, episode_id, kind, day, note, author_id, at)
       SELECT gen_random_uuid(), e.clinic_id, e.id, 'travel', current_date - i, '', u.id, now()
         FROM episode e JOIN app_user u ON u.clinic_id = e.clinic_id AND u.role = 'lead', generate_series(1, $2::int) i
        WHERE e.id = $1`,
      [episodeId, MOST_EVENTS - 1],
    );
    await who.post(path, event()).expect(201);
    expect((await who.post(path, event()).expect(422)).body.detail).toMatch(/take one back first/);
  });
});
