import ICAL from 'ical.js';
import { randomUUID } from 'node:crypto';
import type { EpisodeView, PlanView } from '@heathstep/contracts';
import { addEpisode, addPerson, inWorld, openAtHome, treated } from './harness.js';

/** Events of a calendar, read by a library that had no part in writing it. */
function eventsOf(text: string) {
  const calendar = new ICAL.Component(ICAL.parse(text));
  return calendar.getAllSubcomponents('vevent').map((v) => new ICAL.Event(v));
}

const weekday = (time: ICAL.Time): number => (time.dayOfWeek() + 5) % 7;

describe('the plan for a calendar', () => {
  const { world, who } = inWorld();

  const calendar = async (episodeId: string): Promise<string> =>
    (
      await who
        .get(`/api/episodes/${episodeId}/plan.ics`)
        .expect(200)
        .expect('content-type', /text\/calendar/)
    ).text;

  it('has each exercise on its days, with an alarm, at the same hour whatever the clocks do', async () => {
    const { episodeId, plan } = await treated(who);
    const events = eventsOf(await calendar(episodeId));
    const sittings = events.filter((e) => e.summary.startsWith('Exercises'));
    expect(sittings.length).toBeGreaterThan(0);
    for (const event of sittings) {
      expect(event.isRecurring()).toBe(true);
      expect(event.component.getAllSubcomponents('valarm')).toHaveLength(1);
      expect(event.startDate.zone.tzid).toBe('floating');
      const iterator = event.iterator();
      const hours = new Set<number>();
      for (let i = 0; i < 120; i += 1) {
        const next = iterator.next() as ICAL.Time | null;
        if (next !== null) hours.add(next.hour);
      }
      expect(hours.size).toBe(1);
    }
    const daily = plan.items.filter((i) => i.daysPerWeek === 7);
    const every = sittings.filter((e) => {
      const iterator = e.iterator();
      const days = new Set(Array.from({ length: 7 }, () => weekday(iterator.next())));
      return days.size === 7;
    });
    expect(every.length > 0).toBe(daily.length > 0);
  });

  it('stands at the time of day the person exercises, for each complaint, and refuses what is no time', async () => {
    const { episodeId, person } = await treated(who);
    const second = await addEpisode(who, person.id);
    const version = async () =>
      ((await who.get(`/api/episodes/${episodeId}`).expect(200)).body as EpisodeView).version;
    for (const exerciseTime of ['25:00', '7:30', 'noon', 730]) {
      const refused = await who
        .patch(`/api/episodes/${episodeId}`, { version: await version(), exerciseTime })
        .expect(400);
      expect(refused.body.errors[0].pointer).toBe('/exerciseTime');
    }
    const told = { version: await version(), exerciseTime: '06:45' };
    await who.patch(`/api/episodes/${episodeId}`, told).expect(200);
    const hours = eventsOf(await calendar(episodeId))
      .filter((e) => !e.startDate.isDate)
      .map((e) => `${e.startDate.hour}:${e.startDate.minute}`);
    expect(hours).toContain('6:45');
    expect(hours).not.toContain('18:0');
    const other = (await who.get(`/api/episodes/${second.id}`).expect(200)).body as EpisodeView;
    expect(other.exerciseTime).toBe('06:45');
  });

  it('has what is given for a part of the day there, in the sentence too, and refuses what is no part', async () => {
    const { episodeId, plan } = await treated(who);
    const draft = (
      await who
        .post(`/api/episodes/${episodeId}/plans`, { id: randomUUID(), stage: 'build', from: 'current' })
        .expect(201)
    ).body as PlanView;
    // One with no part of the day of its own.
    const at = draft.items.findIndex((i) => i.timesPerDay === 1 && i.daysPerWeek < 7);
    const put = (part: unknown) =>
      who.put(`/api/plans/${draft.id}`, {
        version: draft.version,
        items: draft.items.map((i, n) => (n === at ? { ...i, part } : i)),
      });
    for (const part of ['night', 7, ['evening']])
      expect((await put(part).expect(400)).body.errors[0].pointer).toBe(`/items/${at}/part`);
    const kept = (await put('midday').expect(200)).body as PlanView;
    await who.post(`/api/plans/${draft.id}/give`, { version: kept.version }).expect(200);
    expect(plan.items[at]?.part).toBeUndefined();
    const hours = eventsOf(await calendar(episodeId))
      .filter((e) => e.isRecurring())
      .map((e) => `${e.startDate.hour}:${e.startDate.minute}`);
    expect(hours).toContain('12:30');
    expect((await who.get(`/api/episodes/${episodeId}/handout`).expect(200)).text).toContain('at midday');
  });

  it('puts no two sittings of a day at one time, whenever the person exercises', async () => {
    const { episodeId } = await treated(who);
    const { version } = (await who.get(`/api/episodes/${episodeId}`).expect(200)).body as EpisodeView;
    // Just before what is done before the first step ends.
    await who.patch(`/api/episodes/${episodeId}`, { version, exerciseTime: '07:01' }).expect(200);
    const sittings = eventsOf(await calendar(episodeId)).filter((e) => e.isRecurring());
    const spans = sittings.flatMap((e) => {
      const iterator = e.iterator();
      const minutes = (t: { hour: number; minute: number }) => t.hour * 60 + t.minute;
      const days = new Set(Array.from({ length: 7 }, () => weekday(iterator.next())));
      return [...days].map((day) => ({ day, from: minutes(e.startDate), to: minutes(e.endDate), of: e.uid }));
    });
    const overlaps = spans.filter((a) =>
      spans.some((b) => a.of !== b.of && a.day === b.day && a.from < b.to && b.from < a.to),
    );
    expect(spans.length).toBeGreaterThan(7);
    expect(overlaps).toEqual([]);
  });

  it('asks for a review, once', async () => {
    const { episodeId } = await treated(who);
    const reviews = eventsOf(await calendar(episodeId)).filter((e) =>
      e.summary.startsWith('Time for a review'),
    );
    expect(reviews).toHaveLength(1);
    expect(reviews[0]?.startDate.isDate).toBe(true);
    expect(reviews[0]?.isRecurring()).toBe(false);
  });

  it('keeps its ids from version to version, and cancels what is gone', async () => {
    const { episodeId, plan } = await treated(who);
    const before = eventsOf(await calendar(episodeId));
    const draft = (
      await who
        .post(`/api/episodes/${episodeId}/plans`, { id: randomUUID(), stage: 'build', from: 'current' })
        .expect(201)
    ).body as PlanView;
    const items = draft.items.slice(0, 1).map((i) => ({ ...i, daysPerWeek: 5, days: [0, 1, 2, 3, 4] }));
    const edited = (await who.put(`/api/plans/${draft.id}`, { version: draft.version, items }).expect(200))
      .body as PlanView;
    await who.post(`/api/plans/${draft.id}/give`, { version: edited.version }).expect(200);
    const after = eventsOf(await calendar(episodeId));
    const cancelled = after.filter((e) => e.component.getFirstPropertyValue('status') === 'CANCELLED');
    expect(plan.items.length).toBeGreaterThan(1);
    expect(cancelled.length).toBeGreaterThan(0);
    const had = before.map((e) => e.uid);
    expect(cancelled.filter((e) => !had.includes(e.uid))).toEqual([]);
    const kept = after.filter((e) => e.summary.startsWith('Time for a review'))[0];
    expect(had).toContain(kept?.uid);
    const first = before.find((e) => e.uid === kept?.uid);
    expect(Number(kept?.sequence)).toBeGreaterThan(Number(first?.sequence));
  });

  it('has nothing to give without a plan', async () => {
    const episode = await addEpisode(who, (await addPerson(who)).id);
    await who.get(`/api/episodes/${episode.id}/plan.ics`).expect(422);
  });

  it('refuses days that are none by their field', async () => {
    const { episodeId } = await treated(who);
    const draft = (
      await who
        .post(`/api/episodes/${episodeId}/plans`, { id: randomUUID(), stage: 'build', from: 'current' })
        .expect(201)
    ).body as PlanView;
    const put = (days: unknown) =>
      who.put(`/api/plans/${draft.id}`, {
        version: draft.version,
        items: draft.items.map((i, n) => (n === 0 ? { ...i, days } : i)),
      });
    for (const days of [[7], [-1], [0, 0], ['Monday'], 'Monday'])
      expect((await put(days).expect(400)).body.errors[0].pointer).toMatch(/^\/items\/0\/days/);
  });

  it('comes to the patient by the link, the same, and to no one without one', async () => {
    const { episodeId } = await treated(who);
    const phone = await openAtHome(world, who, episodeId);
    const own = await phone.get('/api/home/plan.ics').expect(200);
    const titles = (text: string) => eventsOf(text).map((e) => [e.uid, e.summary]);
    expect(titles(own.text)).toEqual(titles(await calendar(episodeId)));
    await world.anonymous.get('/api/home/plan.ics').expect(401);
    await who.get('/api/home/plan.ics').expect(401);
  });
});
