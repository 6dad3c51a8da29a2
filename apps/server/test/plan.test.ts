import { randomUUID } from 'node:crypto';
import type { PlanView } from '@heathstep/contracts';
import {
  addEpisode,
  addPerson,
  entry,
  inWorld,
  measured,
  openVisit,
  safetyEntries,
  treated,
  decidedOn,
} from './harness.js';

const scores = (before: number, during: number, after: number) => ({
  before,
  during,
  after,
  'hour-above': false,
});

describe('plans', () => {
  const { world, who } = inWorld();

  describe('a draft', () => {
    let draft: PlanView;
    let episodeId: string;
    beforeEach(async () => {
      const episode = await addEpisode(who, (await addPerson(who)).id);
      episodeId = episode.id;
      const visit = await openVisit(who, episode.id);
      await who.put(`/api/visits/${visit.id}/entries`, { entries: safetyEntries() }).expect(200);
      draft = (
        await who
          .post(`/api/episodes/${episode.id}/plans`, { id: randomUUID(), stage: 'build', from: 'stage' })
          .expect(201)
      ).body as PlanView;
    });
    const put = (change: object, version = draft.version) =>
      who.put(`/api/plans/${draft.id}`, {
        version,
        items: draft.items.map((item, i) => (i === 0 ? { ...item, ...change } : item)),
      });

    it('refuses null for what may be left out, by its field', async () => {
      const { episodeId } = await treated(who);
      const draft = (
        await who
          .post(`/api/episodes/${episodeId}/plans`, { id: randomUUID(), stage: 'build', from: 'current' })
          .expect(201)
      ).body as PlanView;
      const at = draft.items.findIndex((i) => i.tempo !== undefined);
      for (const field of [
        'tempo',
        'holdSeconds',
        'releaseSeconds',
        'addedKg',
        'variant',
        'days',
        'part',
        'round',
        'beyond',
        'why',
      ]) {
        const items = draft.items.map((i, n) => (n === at ? { ...i, [field]: null } : i));
        const { body } = await who
          .put(`/api/plans/${draft.id}`, { version: draft.version, items })
          .expect(400);
        expect([field, body.errors[0].pointer]).toEqual([field, `/items/${at}/${field}`]);
      }
    });

    it('takes an edit within the safe range, and a stale one is 409', async () => {
      expect((await put({ reps: 5 }).expect(200)).body).toMatchObject({ version: 2 });
      expect((await put({ reps: 6 }).expect(409)).body.current.items[0].reps).toBe(5);
    });

    it.each([
      [{ sets: 50 }, '/items/0/sets'],
      [{ holdSeconds: 300 }, '/items/0/holdSeconds'],
      [{ exercise: 'no-such' }, '/items/0/exercise'],
      [{ sides: 'together' }, '/items/0/sides'],
      [{ sets: 'three' }, '/items/0/sets'],
      [{ addedKg: 10 }, '/items/0/addedKg'],
      [{ secret: 1 }, '/items/0/secret'],
    ])('refuses %j by its field', async (change, pointer) => {
      expect((await put(change).expect(400)).body.errors[0].pointer).toBe(pointer);
    });

    it('takes a dose beyond the usual range with a reason, from a clinician', async () => {
      const reps = 11;
      await put({ reps }).expect(400);
      expect((await put({ reps, beyond: 'no' }).expect(400)).body.errors[0].pointer).toBe('/items/0/beyond');
      const assistant = await world.as(0, 'assistant');
      const items = (first: object) => draft.items.map((item, i) => (i === 0 ? { ...item, ...first } : item));
      const beyond = { reps, beyond: 'Held this many last week' };
      const refused = await assistant
        .put(`/api/plans/${draft.id}`, { version: draft.version, items: items(beyond) })
        .expect(400);
      expect(refused.body.errors[0]).toMatchObject({ pointer: '/items/0/beyond' });
      const saved = (await put(beyond).expect(200)).body as PlanView;
      expect(saved.items[0]).toMatchObject(beyond);
      // What a clinician gave stays while an assistant edits the rest.
      await assistant
        .put(`/api/plans/${draft.id}`, { version: saved.version, items: items(beyond).slice(0, 2) })
        .expect(200);
    });

    it('takes exercises in rounds, refuses a round that does not hold, and tells the patient how it goes', async () => {
      const round = { key: 'a', feet: 'each' };
      const joined = (over: object = {}) => {
        // Two that are done every day; what comes before the first step is done by itself.
        const [one, two] = draft.items
          .filter((i) => i.daysPerWeek === 7 && i.slot !== draft.items[0]?.slot)
          .map((i) => ({ ...i, sets: 2, timesPerDay: 1, daysPerWeek: 7, round }));
        return { version: draft.version, items: [one, { ...two, ...over }] };
      };
      const put2 = (over: object) => who.put(`/api/plans/${draft.id}`, joined(over));
      for (const [over, pointer] of [
        [{ sets: 3 }, '/items/1/sets'],
        [{ days: [1, 3, 5] }, '/items/1/days'],
        [{ round: undefined }, '/items/0/round'],
        [{ round: { key: 'z', feet: 'each' } }, '/items/1/round/key'],
        [{ round: { key: 'a', feet: 'hands' } }, '/items/1/round/feet'],
      ] as const)
        expect((await put2(over).expect(400)).body.errors[0].pointer).toBe(pointer);
      const saved = (await put2({ restSeconds: 0 }).expect(200)).body as PlanView;
      expect(saved.items.map((i) => i.round)).toEqual([round, round]);
      await who.post(`/api/plans/${draft.id}/give`, { version: saved.version }).expect(200);
      const { text } = await who.get(`/api/episodes/${episodeId}/handout.txt`).expect(200);
      expect(text.match(/In turn, 2 rounds of the next 2: one set of each/g)).toHaveLength(1);
      expect(text.match(/2 rounds of/g)).toHaveLength(3);
      const next = (
        await who.post(`/api/episodes/${episodeId}/plans`, { id: randomUUID(), from: 'current' }).expect(201)
      ).body as PlanView;
      expect(next.items.map((i) => i.round)).toEqual([round, round]);
    });

    it('is given once and then does not change', async () => {
      const give = () => who.post(`/api/plans/${draft.id}/give`, { version: draft.version });
      await (await world.as(0, 'assistant')).post(`/api/plans/${draft.id}/give`, { version: 1 }).expect(403);
      const [a, b] = await Promise.all([give(), give()]);
      expect([a.status, b.status]).toEqual([200, 200]);
      await put({ reps: 5 }, 2).expect(409);
      const course = (await who.get(`/api/episodes/${episodeId}/course`)).body;
      expect(course.episode).toMatchObject({
        stage: 'build',
        draft: null,
        plan: { number: 1, status: 'given' },
      });
      expect(course.episode.stages).toHaveLength(1);
      const next = (
        await who.post(`/api/episodes/${episodeId}/plans`, { id: randomUUID(), from: 'current' }).expect(201)
      ).body as PlanView;
      expect(next).toMatchObject({ number: 2, status: 'draft' });
      expect(next.items).toEqual(draft.items);
    });

    it('is made by several at once without a failure, and one draft stands', async () => {
      const made = await Promise.all(
        [1, 2, 3, 4].map(() =>
          who.post(`/api/episodes/${episodeId}/plans`, { id: randomUUID(), stage: 'build', from: 'stage' }),
        ),
      );
      expect(made.map((m) => m.status)).toEqual([201, 201, 201, 201]);
      const drafts = await world.owner.query(
        "SELECT id FROM plan WHERE episode_id = $1 AND status = 'draft'",
        [episodeId],
      );
      expect(drafts).toHaveLength(1);
    });

    it('keeps the stage and the protocol it was made of when the content changes', async () => {
      const kept = await world.owner.query('SELECT definition FROM protocol_version WHERE clinic_id = $1', [
        world.clinics[0],
      ]);
      const own = kept[0].definition;
      const renamed = { ...own, stages: own.stages.map((s: object) => ({ ...s, name: 'As it was' })) };
      await world.owner.query('UPDATE protocol_version SET definition = $1 WHERE clinic_id = $2', [
        JSON.stringify(renamed),
        world.clinics[0],
      ]);
      const course = (await who.get(`/api/episodes/${episodeId}/course`)).body;
      expect(course.protocol.stages[0].name).toBe('As it was');
      expect(course.episode.draft.madeOf.name).toBe('Build the foot');
      await world.owner.query('UPDATE protocol_version SET definition = $1 WHERE clinic_id = $2', [
        JSON.stringify(own),
        world.clinics[0],
      ]);
    });

    it('is not given when a safety answer changed meanwhile', async () => {
      const open = (await who.get(`/api/episodes/${episodeId}`)).body.visits[0];
      await who
        .put(`/api/visits/${open.id}/entries`, { entries: [entry('safety.calf-squeeze-still', 'left', 1)] })
        .expect(200);
      const refused = await who.post(`/api/plans/${draft.id}/give`, { version: draft.version }).expect(422);
      expect(refused.body.errors[0].detail).toMatch(/Possible Achilles rupture, left/);
    });

    it('shows what another school would change, and takes nothing of it', async () => {
      const what = async (lengthening: string) =>
        who.post(`/api/plans/${draft.id}/if`, { schools: { lengthening } });
      const other = (await what('stretch-led')).body;
      expect(other.come).toContain('Calf stretch at the wall, knee straight');
      const view = (await who.get(`/api/episodes/${episodeId}`).expect(200)).body;
      expect(view.draft).toEqual(draft);
      const same = (await what(view.schools.lengthening)).body;
      expect(same).toEqual({ come: [], gone: [], otherwise: [] });
      const wrong = await what('magic');
      expect([wrong.status, wrong.body.errors[0].pointer]).toEqual([400, '/schools/lengthening']);
      await (await world.as(1, 'lead')).post(`/api/plans/${draft.id}/if`, { schools: {} }).expect(404);
      // The draft that is then made has just what was shown.
      await who
        .patch(`/api/episodes/${episodeId}`, {
          version: view.version,
          schools: { lengthening: 'stretch-led' },
        })
        .expect(200);
      const made = (
        await who
          .post(`/api/episodes/${episodeId}/plans`, { id: randomUUID(), stage: 'build', from: 'stage' })
          .expect(201)
      ).body as PlanView;
      const keys = (p: PlanView) => p.items.map((i) => i.exercise);
      expect(keys(made).filter((k) => !keys(draft).includes(k))).toHaveLength(other.come.length);
      expect(keys(draft).filter((k) => !keys(made).includes(k))).toHaveLength(other.gone.length);
    });

    it('follows minutes, equipment and school, each checked', async () => {
      const episode = (await who.get(`/api/episodes/${episodeId}`)).body;
      const patch = (change: object) =>
        who.patch(`/api/episodes/${episodeId}`, { version: episode.version, ...change });
      expect((await patch({ minutesPerDay: 1000 }).expect(400)).body.errors[0].pointer).toBe(
        '/minutesPerDay',
      );
      expect((await patch({ equipment: ['trampoline'] }).expect(400)).body.errors[0].pointer).toBe(
        '/equipment',
      );
      expect((await patch({ schools: { lengthening: 'magic' } }).expect(400)).body.errors[0].pointer).toBe(
        '/schools/lengthening',
      );
      await patch({ minutesPerDay: 6 }).expect(200);
      await patch({ minutesPerDay: 7 }).expect(409);
      const short = (
        await who
          .post(`/api/episodes/${episodeId}/plans`, { id: randomUUID(), stage: 'build', from: 'stage' })
          .expect(201)
      ).body as PlanView;
      expect(short.items.length).toBeLessThan(draft.items.length);
      expect(short.left.some((l) => l.why.startsWith('no minutes left'))).toBe(true);
    });
  });

  describe('a complaint without a name', () => {
    const begun = async (affected: string, more: object[]) => {
      const person = await addPerson(who, 'Øyvind Without Name');
      const episode = (
        await who
          .post(`/api/people/${person.id}/episodes`, {
            id: randomUUID(),
            condition: 'foot-ankle-complaint',
            affected,
          })
          .expect(201)
      ).body;
      const visit = await openVisit(who, episode.id);
      await who
        .put(`/api/visits/${visit.id}/entries`, { entries: [...safetyEntries(), ...more] })
        .expect(200);
      const draft = (
        await who
          .post(`/api/episodes/${episode.id}/plans`, {
            id: randomUUID(),
            stage: 'ease-and-move',
            from: 'stage',
          })
          .expect(201)
      ).body as PlanView;
      return draft.items.map((i) => i.slot);
    };
    const weakCalf = () => measured('single-leg-heel-raise', [6], [24]);

    it('gets a plan by what was found on the side that hurts', async () => {
      expect(await begun('left', weakCalf())).toContain('calf');
    });

    it('is not treated for what is weak on the other side', async () => {
      expect(await begun('right', weakCalf())).not.toContain('calf');
    });

    it('moves gently where nothing was found', async () => {
      expect((await begun('left', [])).sort()).toEqual(['move', 'toes']);
    });
  });

  describe('decisions', () => {
    it('suggests, keeps both when decided otherwise, and drafts what follows', async () => {
      const { episodeId } = await treated(who);
      const course = (await who.get(`/api/episodes/${episodeId}/course`)).body;
      expect(course.review).toMatchObject({ decision: 'hold-and-retest', rule: 7 });
      const decide = async (body: object, status: number) =>
        who
          .post(`/api/episodes/${episodeId}/decisions`, {
            id: randomUUID(),
            on: await decidedOn(who, episodeId),
            ...body,
          })
          .expect(status);
      expect((await decide({ decision: 'progress' }, 400)).body.errors[0].pointer).toBe('/reason');
      expect((await decide({ decision: 'hold-and-retest', on: undefined }, 400)).body.errors[0].pointer).toBe(
        '/on',
      );
      await (
        await world.as(0, 'assistant')
      )
        .post(`/api/episodes/${episodeId}/decisions`, {
          id: randomUUID(),
          on: await decidedOn(who, episodeId),
          decision: 'hold-and-retest',
        })
        .expect(403);
      const after = (await decide({ decision: 'progress', reason: 'Strong, and known to us for years' }, 201))
        .body;
      expect(after.episode).toMatchObject({
        stage: 'heavy',
        draft: { stage: 'heavy', status: 'draft', number: 2 },
      });
      expect(after.decisions[0]).toMatchObject({
        suggested: 'hold-and-retest',
        decision: 'progress',
        agreed: false,
      });
      const back = (await decide({ decision: 'ease-back', reason: 'Too soon after all' }, 201)).body;
      expect(back.episode).toMatchObject({ stage: 'build', draft: { stage: 'build' } });
    });

    it('makes the plan smaller after two ambers, though an exercise not done on those days was ready for more', async () => {
      const { episodeId, plan } = await treated(who);
      const day = (ago: number) => new Date(Date.now() - ago * 86_400_000).toISOString().slice(0, 10);
      await world.owner.query("UPDATE episode SET stage_since = now() - interval '20 days' WHERE id = $1", [
        episodeId,
      ]);
      await world.owner.query("UPDATE plan SET given_at = now() - interval '20 days' WHERE id = $1", [
        plan.id,
      ]);
      const put = (kind: string, ago: number, payload: object) =>
        world.owner.query(
          "INSERT INTO home_entry (id, version, clinic_id, episode_id, plan_id, kind, day, payload, at) VALUES ($1, 1, $2, $3, $4, $5, $6, $7, $6::date + time '12:00')",
          [randomUUID(), world.clinics[0], episodeId, plan.id, kind, day(ago), JSON.stringify(payload)],
        );
      const raise = plan.items.find((i) => i.slot === 'heavy-raise');
      const ready = [{ exercise: raise?.exercise, sets: raise?.sets, reps: raise?.reps, effort: 5 }];
      for (let ago = 9; ago >= 0; ago -= 1) await put('morning', ago, { scores: { 'first-steps': 3 } });
      for (const ago of [5, 4]) await put('session', ago, { scores: scores(1, 1, 1), exercises: ready });
      for (const ago of [2, 1]) await put('session', ago, { scores: scores(1, 5, 2), exercises: [] });
      const course = (await who.get(`/api/episodes/${episodeId}/course`)).body;
      expect(course.review).toMatchObject({ decision: 'adjust-dose', rule: 3 });
      // What is shown before it is taken is what is drafted then.
      const told = course.drafted.otherwise.find((o: { before: string }) => o.before.includes('3 sets'));
      expect(told.dose).toContain('2 sets');
      const after = (
        await who
          .post(`/api/episodes/${episodeId}/decisions`, {
            id: randomUUID(),
            on: await decidedOn(who, episodeId),
            decision: 'adjust-dose',
          })
          .expect(201)
      ).body;
      const eased = after.episode.draft.items.find((i: { slot: string }) => i.slot === 'heavy-raise');
      expect([raise?.sets, eased.sets]).toEqual([3, 2]);
      const named = (list: readonly { name: string }[]) => list.map((x) => x.name).sort();
      const keys = (items: readonly { exercise: string }[]) => items.map((i) => i.exercise);
      const given = keys(plan.items);
      const drafted = keys(after.episode.draft.items);
      expect(named(course.drafted.come)).toHaveLength(drafted.filter((k) => !given.includes(k)).length);
      expect(named(course.drafted.gone)).toHaveLength(given.filter((k) => !drafted.includes(k)).length);
      const stretch = after.episode.draft.items.find((i: { slot: string }) => i.slot === 'before-first-step');
      expect(stretch.sets).toBe(1);
    });

    it('reads what was done by the version it was done with, whatever is drafted or given since', async () => {
      const { episodeId, plan } = await treated(who);
      const raise = plan.items.find((i) => i.slot === 'heavy-raise');
      const day = new Date(Date.now() - 86_400_000).toISOString().slice(0, 10);
      const payload = {
        scores: scores(1, 1, 1),
        exercises: [{ exercise: raise?.exercise, sets: raise?.sets, reps: raise?.reps, effort: 5 }],
      };
      await world.owner.query(
        "INSERT INTO home_entry (id, version, clinic_id, episode_id, plan_id, kind, day, payload, at) VALUES ($1, 1, $2, $3, $4, 'session', $5, $6, $5::date + time '12:00')",
        [randomUUID(), world.clinics[0], episodeId, plan.id, day, JSON.stringify(payload)],
      );
      const loadDone = async () => (await who.get(`/api/episodes/${episodeId}/course`)).body.loadDone;
      const before = await loadDone();
      expect(before.map((l: { tissue: string }) => l.tissue)).toEqual(['calf', 'sole']);
      const draft = (
        await who.post(`/api/episodes/${episodeId}/plans`, { id: randomUUID(), from: 'current' }).expect(201)
      ).body as PlanView;
      const heavier = draft.items.map((i) =>
        i.slot === 'heavy-raise' && i.tempo !== undefined
          ? { ...i, reps: i.reps + 1, tempo: { ...i.tempo, downSeconds: i.tempo.downSeconds + 1 } }
          : i,
      );
      await who.put(`/api/plans/${draft.id}`, { version: draft.version, items: heavier }).expect(200);
      expect(await loadDone()).toEqual(before);
      await who.post(`/api/plans/${draft.id}/give`, { version: draft.version + 1 }).expect(200);
      expect(await loadDone()).toEqual(before);
    });

    it('goes on by one stage, whoever presses at once and however stale a page is', async () => {
      const { episodeId } = await treated(who);
      const on = await decidedOn(who, episodeId);
      const progress = () =>
        who.post(`/api/episodes/${episodeId}/decisions`, {
          id: randomUUID(),
          on,
          decision: 'progress',
          reason: 'Strong enough by every test',
        });
      const both = await Promise.all([progress(), progress()]);
      expect(both.map((r) => r.status).sort()).toEqual([201, 409]);
      const stale = await progress().expect(409);
      expect(stale.body.current.episode.stage).toBe('heavy');
      expect((await who.get(`/api/episodes/${episodeId}`)).body.stage).toBe('heavy');
      const otherPlan = { ...(await decidedOn(who, episodeId)), planId: randomUUID() };
      await who
        .post(`/api/episodes/${episodeId}/decisions`, {
          id: randomUUID(),
          on: otherPlan,
          decision: 'hold',
          reason: 'Not now',
        })
        .expect(409);
    });

    it('counts the same decision once', async () => {
      const { episodeId } = await treated(who);
      const body = {
        id: randomUUID(),
        decision: 'hold-and-retest',
        on: await decidedOn(who, episodeId),
      };
      const send = () => who.post(`/api/episodes/${episodeId}/decisions`, body);
      await Promise.all([send(), send()]);
      expect((await who.get(`/api/episodes/${episodeId}/course`)).body.decisions).toHaveLength(1);
    });
  });
});
