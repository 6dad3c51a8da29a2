import type { OutcomePerson, OutcomesView } from '@heathstep/contracts';
import { inWorld, treated } from './harness.js';

const PROTOCOL = 'plantar-heel-pain';

describe('outcomes', () => {
  const { world, who } = inWorld();
  const made: { personId: string; episodeId: string }[] = [];
  /** So many people, with weeks in the first stage, and worst pain at a first and a second visit. */
  const people = async (list: readonly { weeks: number; worst: readonly [number, number] }[]) => {
    for (const { weeks, worst } of list) {
      const { person, episodeId, visitId } = await treated(who);
      made.push({ personId: person.id, episodeId });
      const author = `(SELECT id FROM app_user WHERE clinic_id = '${world.clinics[0]}' LIMIT 1)`;
      await world.owner.query(
        `INSERT INTO stage_span (id, clinic_id, episode_id, stage, since, reason)
         SELECT gen_random_uuid(), clinic_id, id, 'calm', (SELECT min(since) FROM stage_span WHERE episode_id = $1) - $2 * interval '7 days', 'plan given'
           FROM episode WHERE id = $1`,
        [episodeId, weeks],
      );
      await world.owner.query(
        `INSERT INTO visit (id, clinic_id, episode_id, kind, started_at, signed_at, signed_by)
         SELECT gen_random_uuid(), clinic_id, id, 'first', now() - interval '90 days', now() - interval '90 days', ${author}
           FROM episode WHERE id = $1`,
        [episodeId],
      );
      await world.owner.query(
        `INSERT INTO visit_entry (id, clinic_id, visit_id, key, version, value, author_id, at, reason)
         SELECT gen_random_uuid(), v.clinic_id, v.id, 'story.worst', 1,
                to_jsonb(CASE WHEN v.id = $2 THEN $4::int ELSE $3::int END), ${author}, now(), 'told'
           FROM visit v WHERE v.episode_id = $1`,
        [episodeId, visitId, worst[0], worst[1]],
      );
      await world.owner.query('UPDATE visit SET signed_at = now() WHERE id = $1 AND signed_at IS NULL', [
        visitId,
      ]);
    }
  };
  const read = async () => {
    const { protocols } = (await who.get('/api/outcomes').expect(200)).body as OutcomesView;
    return protocols.find((p) => p.protocol === PROTOCOL);
  };

  it('says of nobody nothing', async () => {
    expect((await who.get('/api/outcomes').expect(200)).body).toEqual({ protocols: [] });
  });

  it('tells how many there are, and nothing else of fewer than five', async () => {
    await people([
      { weeks: 2, worst: [7, 3] },
      { weeks: 3, worst: [6, 4] },
      { weeks: 4, worst: [8, 4] },
      { weeks: 5, worst: [5, 5] },
    ]);
    const told = await read();
    expect(told).toMatchObject({ people: 4, loggedPercent: null, painChange: { n: 4, spread: null } });
    expect(told?.stages.find((s) => s.stage === 'calm')?.weeks).toEqual({ n: 4, spread: null });
  });

  it('tells the middle and the quarters of five: weeks in a stage, and the change of the worst pain', async () => {
    await people([{ weeks: 6, worst: [7, 8] }]);
    const told = await read();
    const calm = told?.stages.find((s) => s.stage === 'calm')?.weeks;
    expect(calm?.n).toBe(5);
    expect(calm?.spread?.low).toBeCloseTo(3, 5);
    expect(calm?.spread?.middle).toBeCloseTo(4, 5);
    expect(calm?.spread?.high).toBeCloseTo(5, 5);
    // -4, -2, -4, 0 and +1.
    expect(told?.painChange).toEqual({ n: 5, spread: { low: -4, middle: -2, high: 0 }, betterPercent: 60 });
    expect(told?.functionChange).toEqual({ n: 0, spread: null, betterPercent: null });
    // Those who are in it still are not among those who left it.
    expect(told?.stages.find((s) => s.stage === 'build')?.weeks.n).toBe(0);
  });

  it('holds decisions by the rules against others, by what came next', async () => {
    const decide = (episodeId: string, ago: number, agreed: boolean, decision: string) =>
      world.owner.query(
        `INSERT INTO decision (id, clinic_id, episode_id, suggested, suggestion, decision, agreed, reason, content_version, author_id, at)
         SELECT gen_random_uuid(), e.clinic_id, e.id, 'hold', '{}', $2, $3, '', 'x', u.id, now() - $4 * interval '1 day'
           FROM episode e JOIN app_user u ON u.clinic_id = e.clinic_id WHERE e.id = $1 LIMIT 1`,
        [episodeId, decision, agreed, ago],
      );
    for (const [i, { episodeId }] of made.entries()) {
      await decide(episodeId, 20, false, 'progress');
      await decide(episodeId, 10, true, i < 2 ? 'ease-back' : 'hold');
    }
    const told = await read();
    expect(told?.otherwise).toEqual({ n: 5, followed: 5, worsePercent: 40 });
    expect(told?.agreed).toEqual({ n: 5, followed: 0, worsePercent: null });
  });

  it('tells own activities by the mean of those scored, the newest version of each visit, and no cleared one', async () => {
    const author = `(SELECT id FROM app_user WHERE clinic_id = '${world.clinics[0]}' LIMIT 1)`;
    const tell = (visit: string, episodeId: string, version: number, value: unknown) =>
      world.owner.query(
        `INSERT INTO visit_entry (id, clinic_id, visit_id, key, version, value, author_id, at, reason)
         SELECT gen_random_uuid(), v.clinic_id, v.id, 'story.activities', $2, $3, ${author}, now(), 'told'
           FROM (SELECT * FROM visit WHERE episode_id = $1 ORDER BY started_at ${visit} LIMIT 1) v`,
        [episodeId, version, JSON.stringify(value)],
      );
    const scored = (...abilities: (number | null)[]) =>
      abilities.map((ability, i) => ({ text: `${i}`, ability }));
    for (const { episodeId } of made) {
      await tell('ASC', episodeId, 1, scored(9));
      await tell('ASC', episodeId, 2, scored(2, 4, null));
      await tell('DESC', episodeId, 1, scored(6, 8));
    }
    // One who took it back is not counted.
    await tell('DESC', made[0]?.episodeId ?? '', 2, null);
    const told = await read();
    expect(told?.functionChange.n).toBe(4);
    expect(told?.functionChange.spread).toBeNull();
    await tell('DESC', made[0]?.episodeId ?? '', 3, scored(4));
    const again = await read();
    // From 3 to 7 for four of them, to 4 for one.
    expect(again?.functionChange).toEqual({
      n: 5,
      spread: { low: 4, middle: 4, high: 4 },
      betterPercent: 80,
    });
  });

  it('counts flares that came to a decision against the days at home, and who came back only from five on', async () => {
    for (const { episodeId } of made.slice(0, 3))
      await world.owner.query(
        `INSERT INTO decision (id, clinic_id, episode_id, suggested, suggestion, decision, agreed, reason, content_version, author_id, at)
         SELECT gen_random_uuid(), e.clinic_id, e.id, 'ease-back', '{"rule": 2}', 'ease-back', true, '', 'x', u.id, now()
           FROM episode e JOIN app_user u ON u.clinic_id = e.clinic_id WHERE e.id = $1 LIMIT 1`,
        [episodeId],
      );
    await world.owner.query(
      `UPDATE plan SET given_at = now() - interval '19.5 days' WHERE given_at IS NOT NULL`,
    );
    // Three flares on five times twenty days.
    expect((await read())?.flaresPer100Days).toBeCloseTo(3, 5);
    expect((await read())?.cameBack).toBe(0);
    await world.owner.query('UPDATE episode SET came_back_at = now() WHERE id = $1', [made[0]?.episodeId]);
    expect((await read())?.cameBack).toBeNull();
    await world.owner.query('UPDATE episode SET came_back_at = now()');
    expect((await read())?.cameBack).toBe(5);
  });

  it('goes into a table, where no text is worked out', async () => {
    const { text } = await who.get('/api/outcomes/outcomes.csv').expect(200);
    const [head, ...rows] = text.trim().split('\n');
    expect(head).toBe('protocol,version,what,stage,n,lower quarter,middle,upper quarter');
    expect(rows.some((r) => /weeks in stage,Calm and lengthen,5,3,4,5$/.test(r))).toBe(true);
    expect(rows.every((r) => r.split(',').length >= 8)).toBe(true);
  });

  it('leads to who they are, and keeps who looked and whom it showed', async () => {
    const told = await read();
    const query = `protocol=${PROTOCOL}&version=${told?.version ?? 0}`;
    const list = (await who.get(`/api/outcomes/people?${query}`).expect(200)).body as OutcomePerson[];
    expect(list.map((p) => p.episodeId).toSorted()).toEqual(made.map((m) => m.episodeId).toSorted());
    const [row] = await world.owner.query<{ shown: string[] }[]>(
      'SELECT shown FROM audit WHERE subject = $1 ORDER BY at DESC LIMIT 1',
      [`outcomes:${PROTOCOL}`],
    );
    expect(row?.shown.toSorted()).toEqual(made.map((m) => m.personId).toSorted());
    expect((await who.get('/api/outcomes/people?protocol=nobody&version=1').expect(200)).body).toEqual([]);
    await who.get('/api/outcomes/people?protocol=a%20b&version=1').expect(400);
    await who.get(`/api/outcomes/people?protocol=${PROTOCOL}&version=x`).expect(400);
  });

  it('is not for who assists, and another clinic sees none of it', async () => {
    const assistant = await world.as(0, 'assistant');
    for (const path of ['', '/outcomes.csv', `/people?protocol=${PROTOCOL}&version=1`])
      await assistant.get(`/api/outcomes${path}`).expect(403);
    const stranger = await world.as(1, 'lead');
    expect((await stranger.get('/api/outcomes').expect(200)).body).toEqual({ protocols: [] });
    const told = await read();
    const query = `protocol=${PROTOCOL}&version=${told?.version ?? 0}`;
    expect((await stranger.get(`/api/outcomes/people?${query}`).expect(200)).body).toEqual([]);
  });
});
