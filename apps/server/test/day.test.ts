import { randomUUID } from 'node:crypto';
import type { DayView } from '@heathstep/contracts';
import {
  addEpisode,
  addPerson,
  entry,
  inWorld,
  openAtHome,
  openVisit,
  safetyEntries,
  today,
  treated,
} from './harness.js';

describe('the day', () => {
  const { world, who } = inWorld();
  const of = async (personId: string) => {
    const { items } = (await who.get('/api/day').expect(200)).body as DayView;
    return items.filter((i) => i.personId === personId).map((i) => i.headline);
  };

  it('follows each step of a person from the referral to the closed complaint, though nothing is worked out twice', async () => {
    const person = await addPerson(who);
    expect(await of(person.id)).toEqual(['New referral']);
    const episode = await addEpisode(who, person.id);
    expect(await of(person.id)).toEqual(['First visit to begin']);
    const visit = await openVisit(who, episode.id);
    expect(await of(person.id)).toEqual(['First visit open']);
    await who
      .put(`/api/visits/${visit.id}/entries`, { entries: safetyEntries({ 'chest-signs': 'yes' }) })
      .expect(200);
    expect(await of(person.id)).toEqual(['Nothing can be prescribed']);
    await who
      .put(`/api/visits/${visit.id}/entries`, { entries: [entry('safety.chest-signs', 'no', 1)] })
      .expect(200);
    expect(await of(person.id)).toEqual(['First visit open']);
    const { version } = (await who.get(`/api/episodes/${episode.id}`)).body as { version: number };
    await who
      .patch(`/api/episodes/${episode.id}`, { version, status: 'closed', outcome: 'referred' })
      .expect(200);
    expect(await of(person.id)).toEqual([]);
  });

  it('tells of a stop within the same minute, of its closing, and of a corrected name', async () => {
    const { person, episodeId } = await treated(who);
    expect(await of(person.id)).toEqual(['Going as planned']);
    const home = await openAtHome(world, who, episodeId);
    const stop = randomUUID();
    await home
      .put('/api/home/entries', {
        id: stop,
        version: 1,
        kind: 'stop',
        day: today(),
        payload: { grade: 'review', sign: 'New swelling', exercise: null },
      })
      .expect(200);
    expect(await of(person.id)).toEqual(['Stop sign reported at home']);
    await who
      .post(`/api/episodes/${episodeId}/closures`, {
        id: randomUUID(),
        subject: `stop:${stop}`,
        side: 'none',
        kind: 'closed',
        assessedOn: today(),
        assessedBy: 'A colleague',
        done: 'harmless',
        text: 'Nothing found',
      })
      .expect(201);
    expect(await of(person.id)).toEqual(['Going as planned']);
    await who.patch(`/api/people/${person.id}`, { version: 1, name: 'Corrected Name' }).expect(200);
    const { items } = (await who.get('/api/day').expect(200)).body as DayView;
    expect(items.find((i) => i.personId === person.id)?.name).toBe('Corrected Name');
  });

  it('is read anew after a value is put right by the database itself, whatever wrote it', async () => {
    const { person, visitId } = await treated(who);
    const before = await of(person.id);
    await who.put(`/api/visits/${visitId}/entries`, { entries: [entry('story.now', 3)] }).expect(200);
    expect(await of(person.id)).toEqual(before);
    await world.owner.query(
      "UPDATE episode SET started_at = started_at - interval '90 days' WHERE person_id = $1",
      [person.id],
    );
    await world.owner.query(
      "UPDATE plan SET given_at = given_at - interval '9 days' WHERE episode_id IN (SELECT id FROM episode WHERE person_id = $1)",
      [person.id],
    );
    expect(await of(person.id)).not.toEqual(before);
  });
});
