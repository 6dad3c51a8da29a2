import { randomUUID } from 'node:crypto';
import type { EpisodeView, PlanView, VisitView } from '@heathstep/contracts';
import {
  addEpisode,
  entry,
  inWorld,
  measured,
  openAtHome,
  openVisit,
  safetyEntries,
  today,
  treated,
} from './harness.js';

describe('a danger, from visit to visit', () => {
  const { world, who } = inWorld();

  const someone = async (more: object): Promise<string> =>
    (
      await who
        .post('/api/people', {
          id: randomUUID(),
          name: 'Øyvind Ashe',
          birthDate: '1970-05-01',
          occupation: '',
          ...more,
        })
        .expect(201)
    ).body.id as string;
  const begun = async (answers: Record<string, string>, person: object = {}, ...more: object[]) => {
    const episode = await addEpisode(who, await someone(person));
    const visit = await openVisit(who, episode.id);
    await put(visit.id, ...safetyEntries(answers), ...measured('first-step-pain', [4], [0]), ...more);
    return { id: episode.id, visit };
  };
  const put = (visitId: string, ...entries: object[]) =>
    who.put(`/api/visits/${visitId}/entries`, { entries }).expect(200);
  const plan = (id: string) =>
    who.post(`/api/episodes/${id}/plans`, { id: randomUUID(), stage: 'calm', from: 'stage' });
  const why = async (id: string): Promise<string> =>
    (await plan(id).expect(422)).body.errors.map((e: { detail: string }) => e.detail).join('; ');
  const open = async (id: string): Promise<string[]> =>
    ((await who.get(`/api/episodes/${id}`).expect(200)).body as EpisodeView).safety?.triggered
      .filter((t) => t.status === 'open')
      .map((t) => `${t.rule.key}.${t.side}`) ?? [];
  const nextVisit = async (id: string, visit: VisitView): Promise<VisitView> => {
    await who.post(`/api/visits/${visit.id}/sign`).expect(200);
    return openVisit(who, id);
  };
  const close = (id: string, rule: string, done: string) =>
    who.post(`/api/episodes/${id}/closures`, {
      id: randomUUID(),
      subject: `rule:${rule}`,
      side: 'left',
      kind: 'closed',
      assessedOn: today(),
      assessedBy: 'Fracture clinic',
      text: 'As written',
      done,
    });

  describe('a calf that did not move on the squeeze', () => {
    const torn = { 'calf-squeeze-still': 'left' };

    it('stands at the next visit, before and after it is left untested there', async () => {
      const { id, visit } = await begun(torn);
      const second = await nextVisit(id, visit);
      expect(await open(id)).toContain('achilles-rupture.left');
      expect(await why(id)).toMatch(/Possible Achilles rupture, left/);
      await put(second.id, ...safetyEntries({ 'calf-squeeze-still': 'not-tested' }));
      expect(await why(id)).toMatch(/Possible Achilles rupture, left/);
    });

    it('goes when the squeeze is done again and moves the foot', async () => {
      const { id, visit } = await begun(torn);
      const second = await nextVisit(id, visit);
      await put(second.id, ...safetyEntries());
      expect(await open(id)).not.toContain('achilles-rupture.left');
      await plan(id).expect(201);
    });

    it('stays closed at the next visit by what was done, and is open again when it is told again', async () => {
      const { id, visit } = await begun(torn);
      await close(id, 'achilles-rupture', 'ultrasound').expect(201);
      const second = await nextVisit(id, visit);
      expect(await open(id)).not.toContain('achilles-rupture.left');
      await put(second.id, entry('safety.calf-squeeze-still', 'left'));
      expect(await open(id)).toContain('achilles-rupture.left');
    });

    it('is not closed as treated before what the surgeon allows is entered', async () => {
      const { id, visit } = await begun({ ...torn, 'surgery-12-weeks': 'left' });
      const early = await close(id, 'achilles-rupture', 'treated').expect(400);
      expect(early.body.errors).toEqual([
        { pointer: '/done', detail: 'Enter first what the surgeon or clinic allows of this side' },
      ]);
      await put(visit.id, entry('limits.left', limits));
      await close(id, 'achilles-rupture', 'treated').expect(201);
      await plan(id).expect(201);
    });
  });

  describe('a sign that ends the protocol, though other work might go on', () => {
    const asFlat = async (id: string) => {
      const view = (await who.get(`/api/episodes/${id}`).expect(200)).body as EpisodeView;
      await who
        .patch(`/api/episodes/${id}`, { version: view.version, condition: 'flexible-flat-foot' })
        .expect(200);
    };
    const reasons = async (id: string) =>
      ((await who.get(`/api/episodes/${id}`).expect(200)).body as EpisodeView).notPrescribed.filter((r) =>
        r.startsWith('This protocol ends'),
      );
    const drafted = (id: string) =>
      who.post(`/api/episodes/${id}/plans`, { id: randomUUID(), stage: null, from: 'stage' });

    it('lets nothing be planned by it until it is closed or overridden with a reason', async () => {
      const { id } = await begun({ 'arch-collapse': 'left' });
      expect(await reasons(id)).toEqual([]);
      await asFlat(id);
      expect(await reasons(id)).toEqual([expect.stringContaining('Inner ankle tendon may fail, left')]);
      await drafted(id).expect(422);
      await who
        .post(`/api/episodes/${id}/closures`, {
          id: randomUUID(),
          subject: 'rule:tendon-failure',
          side: 'left',
          kind: 'overridden',
          text: 'Seen by the foot surgeon, conservative first',
        })
        .expect(201);
      expect(await reasons(id)).toEqual([]);
    });

    it('ends nothing where it is on the foot without the complaint', async () => {
      const { id } = await begun({ 'arch-collapse': 'right' });
      await asFlat(id);
      expect(await reasons(id)).toEqual([]);
    });
  });

  const limits = {
    what: 'surgery',
    day: '2026-01-10',
    weightBearing: 'partial',
    partialKg: 20,
    allowed: ['weight-bearing', 'calf-load', 'push-off'],
    text: 'Pointing down only, to the neutral position',
    by: 'R. Sandgate, surgeon',
  };

  describe('after surgery', () => {
    it('nothing is prescribed until its limits are entered; then what they leave off stays off', async () => {
      const { id, visit } = await begun({ 'surgery-12-weeks': 'left' });
      expect(await why(id)).toMatch(/After surgery, a cast or a fracture, left/);
      await put(visit.id, entry('limits.left', limits));
      const view = (await who.get(`/api/episodes/${id}`)).body as EpisodeView;
      // Ticked, and yet ruled out by part of the weight.
      expect(view.tagsOff.left).toContain('push-off');
      expect(view.tagsOff.left).toContain('forced-extension');
      expect(view.tagsOff.left).not.toContain('calf-load');
      const made = (await plan(id).expect(201)).body as PlanView;
      expect(made.left.map((l) => l.why)).toEqual(
        expect.arrayContaining([expect.stringMatching(/safety switches off/)]),
      );
    });

    it('its limits of the other leg free nothing here', async () => {
      const { id } = await begun({ 'surgery-12-weeks': 'left' }, {}, entry('limits.right', limits));
      expect(await why(id)).toMatch(/After surgery, a cast or a fracture, left/);
    });

    it.each([
      [{ by: ' ' }, /who said it/],
      [{ day: '2026-02-31x' }, /a day/],
      [{ weightBearing: 'some' }, /weight-bearing/],
      [{ partialKg: 0 }, /partial weight/],
      [{ partialKg: null }, /partial weight/],
      [{ weightBearing: 'none' }, /no kilograms/],
      [{ allowed: ['dancing'] }, /list of what is allowed/],
      [{ text: '' }, /in words/],
    ])('refuses %j and keeps nothing of it', async (change, words) => {
      const { id, visit } = await begun({ 'surgery-12-weeks': 'left' });
      const refused = await who
        .put(`/api/visits/${visit.id}/entries`, { entries: [entry('limits.left', { ...limits, ...change })] })
        .expect(400);
      expect(refused.body.errors[0]).toMatchObject({
        pointer: '/entries/0/value',
        detail: expect.stringMatching(words),
      });
      expect(await why(id)).toMatch(/After surgery/);
    });
  });

  describe('the phone', () => {
    it('stays stopped when another visit is begun, and is free only by what closes the sign', async () => {
      const { episodeId, visitId } = await treated(who);
      const home = await openAtHome(world, who, episodeId);
      const stopped = async () => (await home.get('/api/home/today').expect(200)).body.stopped as unknown;
      expect(await stopped()).toBeNull();
      await put(visitId, entry('safety.calf-squeeze-still', 'left', 1));
      expect(await stopped()).not.toBeNull();
      await who.post(`/api/visits/${visitId}/sign`).expect(200);
      await openVisit(who, episodeId);
      expect(await stopped()).not.toBeNull();
      await close(episodeId, 'achilles-rupture', 'exam').expect(400);
      expect(await stopped()).not.toBeNull();
      await close(episodeId, 'achilles-rupture', 'mri').expect(201);
      expect(await stopped()).toBeNull();
    });
  });

  describe('an age the plan is not made for', () => {
    it.each([
      [{ birthDate: `${new Date().getUTCFullYear() - 12}-01-01` }, /16/],
      [{ birthDate: null }, /birth/i],
    ])('%j gives no plan, and says what is needed', async (person, words) => {
      const { id } = await begun({}, person);
      expect(await why(id)).toMatch(words);
    });
  });
});
