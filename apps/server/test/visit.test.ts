import { randomUUID } from 'node:crypto';
import type { EpisodeView, PlanView, VisitView } from '@heathstep/contracts';
import {
  addEpisode,
  addPerson,
  type Caller,
  entry,
  inWorld,
  measured,
  openVisit,
  safetyEntries,
  treated,
} from './harness.js';

describe('people and visits', () => {
  const { world, who } = inWorld();

  describe('a person', () => {
    it('is made once, however often it is sent', async () => {
      const body = { id: randomUUID(), name: 'Sent Twice', birthDate: null, occupation: '' };
      const answers = await Promise.all([1, 2, 3].map(() => who.post('/api/people', body)));
      expect(answers.map((a) => a.status)).toEqual([201, 201, 201]);
      const found = (await who.get('/api/people?q=sent twice')).body;
      expect(found).toHaveLength(1);
    });

    it.each([
      [{ name: '' }, '/name'],
      [{ name: '   ' }, '/name'],
      [{ name: 'x'.repeat(81) }, '/name'],
      [{ birthDate: '31.5.1980' }, '/birthDate'],
      [{ birthDate: '2026-02-30' }, '/birthDate'],
      [{ birthDate: '2190-01-01' }, '/birthDate'],
      [{ occupation: 5 }, '/occupation'],
      [{ id: 'mine' }, '/id'],
      [{ clinicId: randomUUID() }, '/clinicId'],
    ])('is refused by its field for %j', async (change, pointer) => {
      const response = await who
        .post('/api/people', { id: randomUUID(), name: 'A', birthDate: null, occupation: '', ...change })
        .expect(400);
      expect(response.body.errors[0].pointer).toBe(pointer);
    });

    it('keeps odd names as they are, and finds them', async () => {
      await who
        .post('/api/people', {
          id: randomUUID(),
          name: "Zoë O'Näve 🌿 100%_",
          birthDate: null,
          occupation: '<b>x</b>',
        })
        .expect(201);
      expect((await who.get(`/api/people?q=${encodeURIComponent("o'näve 🌿 100%_")}`)).body).toHaveLength(1);
      expect((await who.get(`/api/people?q=${encodeURIComponent('%')}`)).body).toHaveLength(1);
    });

    it('answers a stale edit with 409 and what stands now', async () => {
      const person = await addPerson(who);
      await who.patch(`/api/people/${person.id}`, { version: 1, name: 'First' }).expect(200);
      const stale = await who.patch(`/api/people/${person.id}`, { version: 1, name: 'Second' }).expect(409);
      expect(stale.body.current).toMatchObject({ name: 'First', version: 2 });
    });
  });

  describe('what an episode is treated as', () => {
    const patch = (by: Caller, episode: EpisodeView, condition: string) =>
      by.patch(`/api/episodes/${episode.id}`, { version: episode.version, condition });

    it('can be changed before the first plan, and brings its protocol', async () => {
      const episode = await addEpisode(who, (await addPerson(who)).id);
      const open = (await patch(who, episode, 'foot-ankle-complaint').expect(200)).body as EpisodeView;
      expect(open).toMatchObject({ condition: 'foot-ankle-complaint', protocol: 'by-findings' });
      const back = (await patch(who, open, 'plantar-heel-pain').expect(200)).body as EpisodeView;
      expect(back).toMatchObject({ condition: 'plantar-heel-pain', protocol: 'plantar-heel-pain' });
      expect(Object.keys(back.schools).length).toBeGreaterThan(0);
    });

    it('takes the protocol there is now, where it was begun before there was one', async () => {
      const episode = await addEpisode(who, (await addPerson(who)).id);
      await world.owner.query("UPDATE episode SET protocol = '', protocol_version = 0 WHERE id = $1", [
        episode.id,
      ]);
      const now = (await patch(who, episode, 'plantar-heel-pain').expect(200)).body as EpisodeView;
      expect(now.protocol).toBe('plantar-heel-pain');
      expect(now.visits).toEqual(episode.visits);
    });

    it('is not changed to what is not in the library, by an assistant, or under a plan', async () => {
      const episode = await addEpisode(who, (await addPerson(who)).id);
      expect((await patch(who, episode, 'no-such').expect(400)).body.errors[0].pointer).toBe('/condition');
      await patch(await world.as(0, 'assistant'), episode, 'foot-ankle-complaint').expect(403);
      const { episodeId } = await treated(who);
      const planned = (await who.get(`/api/episodes/${episodeId}`)).body as EpisodeView;
      await patch(who, planned, 'foot-ankle-complaint').expect(422);
    });
  });

  describe('entries of a visit', () => {
    let visitId: string;
    let episode: EpisodeView;
    beforeEach(async () => {
      episode = await addEpisode(who, (await addPerson(who)).id);
      visitId = (await openVisit(who, episode.id)).id;
    });
    const save = (...entries: object[]) => who.put(`/api/visits/${visitId}/entries`, { entries });

    it('are versions: an edit adds one, and what was stands', async () => {
      await save(entry('story.worst', 6)).expect(200);
      const saved = (await save(entry('story.worst', 7, 1)).expect(200)).body.saved;
      expect(saved).toMatchObject([{ key: 'story.worst', version: 2, value: 7, author: 'clinician 0' }]);
      const rows = await world.owner.query<{ value: number }[]>(
        "SELECT value FROM visit_entry WHERE visit_id = $1 AND key = 'story.worst' ORDER BY version",
        [visitId],
      );
      expect(rows.map((r) => r.value)).toEqual([6, 7]);
    });

    it('answer a stale edit with 409 and the other value, and save nothing of the batch', async () => {
      await save(entry('story.worst', 6)).expect(200);
      const stale = await save(entry('story.now', 1), entry('story.worst', 3)).expect(409);
      expect(stale.body.current).toMatchObject([{ key: 'story.worst', version: 1, value: 6 }]);
      expect((await who.get(`/api/visits/${visitId}`)).body.entries).toHaveLength(1);
    });

    it('are safe to send again: the same ids change nothing', async () => {
      const same = entry('story.worst', 6);
      await save(same).expect(200);
      await save(same).expect(200);
      await save(entry('story.worst', 8, 1)).expect(200);
      expect((await save(same).expect(200)).body.saved[0]).toMatchObject({ value: 8, version: 2 });
    });

    it('hold two edits at once apart: one is saved, the other told', async () => {
      const answers = await Promise.all([save(entry('story.worst', 1)), save(entry('story.worst', 2))]);
      expect(answers.map((a) => a.status).sort()).toEqual([200, 409]);
    });

    it.each([
      ['story.worst', 11],
      ['story.worst', 4.5],
      ['story.worst', '4'],
      ['story.side', 'middle'],
      ['story.nonsense', 1],
      ['measure.no-such.left', { trials: [1], status: 'taken', pain: null }],
      ['measure.lunge-knee-bent.left', { trials: [340], status: 'taken', pain: null }],
      ['measure.lunge-knee-bent.left', { trials: ['34'], status: 'taken', pain: null }],
      ['measure.lunge-knee-bent.left', { trials: [34], status: 'guessed', pain: null }],
      ['measure.lunge-knee-bent.left', { trials: [34], status: 'taken', pain: 12 }],
      ['safety.no-such', 'no'],
      ['safety.diabetes', 'maybe'],
      ['note.story', 'x'.repeat(10_001)],
      ['skill.foot-shortening.left', 'brilliant'],
      ['finding.no-such.left', 'present'],
      ['finding.windlass-test.none', 'present'],
      ['finding.load-up.left', 'present'],
      ['finding.windlass-test.left', 'perhaps'],
      [
        'conclude.ideas',
        [{ condition: 'no-such', side: 'left', verdict: 'agreed', leads: true, reason: null }],
      ],
      [
        'conclude.ideas',
        [{ condition: 'gout', side: 'left', verdict: 'rejected', leads: false, reason: null }],
      ],
    ])('refuse %s = %j by its field', async (key, value) => {
      const response = await save(entry('story.now', 2), entry(key, value)).expect(400);
      expect(response.body.errors[0].pointer).toBe('/entries/1/value');
    });

    it('keep findings by side and what was concluded', async () => {
      const idea = {
        condition: 'plantar-heel-pain',
        side: 'left',
        verdict: 'agreed',
        leads: true,
        reason: null,
      };
      await save(entry('finding.windlass-test.left', 'present'), entry('conclude.ideas', [idea])).expect(200);
      const { entries } = (await who.get(`/api/visits/${visitId}`)).body as VisitView;
      expect(Object.fromEntries(entries.map((e) => [e.key, e.value]))).toEqual({
        'finding.windlass-test.left': 'present',
        'conclude.ideas': [idea],
      });
    });

    it('take 10 000 characters and emoji, and null to clear', async () => {
      const text = '🦶'.repeat(5_000);
      await save(entry('note.story', text)).expect(200);
      expect((await who.get(`/api/visits/${visitId}`)).body.entries[0].value).toBe(text);
      await save(entry('note.story', null, 1)).expect(200);
      expect((await who.get(`/api/visits/${visitId}`)).body.entries[0].value).toBeNull();
    });

    it('move the side of the episode with the story', async () => {
      await save(entry('story.side', 'both')).expect(200);
      expect((await who.get(`/api/episodes/${episode.id}`)).body.affected).toBe('both');
    });

    it('are closed by signing, which needs every safety answer and a clinician', async () => {
      await who.post(`/api/visits/${visitId}/sign`).expect(422);
      await save(...safetyEntries()).expect(200);
      await (await world.as(0, 'assistant')).post(`/api/visits/${visitId}/sign`).expect(403);
      await who.post(`/api/visits/${visitId}/sign`).expect(200);
      await save(entry('story.now', 1)).expect(409);
    });

    it('are not closed while a test was left out without saying why', async () => {
      const other = await addEpisode(who, (await addPerson(who)).id);
      const visit = await openVisit(who, other.id);
      const put = (...entries: object[]) => who.put(`/api/visits/${visit.id}/entries`, { entries });
      await put(...safetyEntries({ 'heel-squeeze': 'not-tested' })).expect(200);
      const refused = await who.post(`/api/visits/${visit.id}/sign`).expect(422);
      expect(refused.body.detail).toMatch(/^A test was left out without saying why/);
      expect((await put(entry('untested.heel-squeeze', ' ')).expect(400)).body.errors[0].pointer).toBe(
        '/entries/0/value',
      );
      await put(entry('untested.diabetes', 'declined')).expect(400);
      await put(entry('untested.heel-squeeze', 'too painful')).expect(200);
      await who.post(`/api/visits/${visit.id}/sign`).expect(200);
    });

    it('leave out what nothing makes needed: a visit without those tests is closed, and a pop asks for them', async () => {
      const other = await addEpisode(who, (await addPerson(who)).id);
      const visit = await openVisit(who, other.id);
      const spared = ['calf-squeeze-still', 'matles-drop', 'protective-feeling-lost'];
      const answers = (more: Record<string, string> = {}) =>
        (safetyEntries(more) as { key: string }[]).filter(
          (e) => !spared.some((k) => e.key === `safety.${k}`),
        );
      await who.put(`/api/visits/${visit.id}/entries`, { entries: answers() }).expect(200);
      const course = async () => (await who.get(`/api/episodes/${other.id}`).expect(200)).body as EpisodeView;
      expect((await course()).safety).toMatchObject({
        unanswered: [],
        spared: ['calf-squeeze-still', 'protective-feeling-lost'],
      });
      await who
        .put(`/api/visits/${visit.id}/entries`, { entries: [entry('safety.sudden-pop', 'left', 1)] })
        .expect(200);
      expect((await course()).safety?.unanswered).toEqual(['calf-squeeze-still', 'matles-drop']);
      await who.post(`/api/visits/${visit.id}/sign`).expect(422);
    });

    it('stay in one open visit, however often it is opened', async () => {
      const again = await Promise.all([openVisit(who, episode.id), openVisit(who, episode.id)]);
      expect(again.map((v) => v.id)).toEqual([visitId, visitId]);
    });
  });

  describe('safety before prescribing', () => {
    const start = async (answers: Record<string, string> | null) => {
      const episode = await addEpisode(who, (await addPerson(who)).id);
      const visit = await openVisit(who, episode.id);
      if (answers !== null)
        await who
          .put(`/api/visits/${visit.id}/entries`, {
            entries: [...safetyEntries(answers), ...measured('first-step-pain', [5], [0])],
          })
          .expect(200);
      return { episode, visit };
    };
    const plan = (episodeId: string) =>
      who.post(`/api/episodes/${episodeId}/plans`, { id: randomUUID(), stage: 'calm', from: 'stage' });

    it('gives no plan while a question is unanswered', async () => {
      const { episode, visit } = await start(null);
      expect((await plan(episode.id).expect(422)).body.errors[0].detail).toMatch(
        /safety answers are missing/,
      );
      await who.put(`/api/visits/${visit.id}/entries`, { entries: safetyEntries().slice(1) }).expect(200);
      expect((await plan(episode.id).expect(422)).body.errors[0].detail).toBe('1 safety answer is missing');
    });

    it('gives no plan past an open urgent sign until it is closed with a result by a clinician', async () => {
      const { episode } = await start({ 'neuropathy-hot-foot': 'left' });
      await plan(episode.id).expect(422);
      const closure = { subject: 'rule:charcot', side: 'left', text: 'MRI clear, temperature even' };
      const close = (by: Caller, more: object) =>
        by.post(`/api/episodes/${episode.id}/closures`, { id: randomUUID(), ...closure, ...more });
      await close(who, { kind: 'overridden' }).expect(422);
      await close(await world.as(0, 'assistant'), {
        kind: 'closed',
        assessedOn: '2026-03-01',
        assessedBy: 'Foot clinic',
      }).expect(403);
      expect(
        (await close(who, { kind: 'closed' }).expect(400)).body.errors.map(
          (e: { pointer: string }) => e.pointer,
        ),
      ).toEqual(['/assessedOn', '/assessedBy', '/done']);
      const by = { kind: 'closed', assessedOn: '2026-03-01', assessedBy: 'Foot clinic' };
      const film = await close(who, { ...by, done: 'xray-clear' }).expect(400);
      expect(film.body.errors).toMatchObject([
        { pointer: '/done', detail: expect.stringMatching(/does not close it/) },
      ]);
      await plan(episode.id).expect(422);
      await close(who, { ...by, done: 'mri' }).expect(201);
      await plan(episode.id).expect(201);
    });

    it('leaves out what a caution switches off, says so, and lets it be overridden with a reason', async () => {
      const { episode } = await start({ 'protective-feeling-lost': 'left' });
      const first = (await plan(episode.id).expect(201)).body as PlanView;
      expect(first.left).toContainEqual({ exercise: 'doming-seated', why: 'safety switches off barefoot' });
      await who
        .post(`/api/episodes/${episode.id}/closures`, {
          id: randomUUID(),
          subject: 'rule:protective-feeling',
          side: 'left',
          kind: 'overridden',
          text: 'Foot team agrees, on a mat',
        })
        .expect(201);
      const second = (await plan(episode.id).expect(201)).body as PlanView;
      expect(second.items.map((i) => i.exercise)).toContain('doming-seated');
    });

    it('is asked anew at every visit', async () => {
      const { episodeId, visitId } = await treated(who);
      await who.post(`/api/visits/${visitId}/sign`).expect(200);
      await openVisit(who, episodeId);
      await who.post(`/api/episodes/${episodeId}/plans`, { id: randomUUID(), from: 'current' }).expect(422);
    });
  });
});
