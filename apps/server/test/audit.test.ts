import { checkAudit } from '../src/audit/chain.js';
import { type Caller, makeWorld, treated, type World } from './harness.js';

describe('the log of who saw and changed what', () => {
  let world: World;
  let lead: Caller;
  let who: Caller;
  let personId: string;
  beforeAll(async () => {
    world = await makeWorld();
    lead = await world.as(0, 'lead');
    who = await world.as(0, 'clinician');
    personId = (await treated(who)).person.id;
    await who.get('/api/people').expect(200);
  });
  afterAll(() => world.stop());
  const [ours, theirs] = [() => world.clinics[0], () => world.clinics[1]];
  const seal = () => world.owner.query('SELECT seal_audit()');
  const check = (clinic: string) => checkAudit(world.owner, clinic);
  const lines = async (query: string) =>
    (await lead.get(`/api/audit?${query}`).expect(200)).body as {
      lines: {
        seq: string;
        who: { name: string } | null;
        person: { id: string } | null;
        action: string;
        shown: number | null;
      }[];
      before: string | null;
    };

  it('tells by who did it, whose record it is and what it was, lists that showed someone too', async () => {
    const of = await lines(`person=${personId}`);
    expect(of.lines.length).toBeGreaterThan(4);
    expect(of.lines.every((l) => l.person?.id === personId || l.shown !== null)).toBe(true);
    expect(of.lines.some((l) => l.shown !== null)).toBe(true);
    const changed = await lines('kind=changed');
    expect(changed.lines.some((l) => l.action === 'give')).toBe(true);
    expect(changed.lines.some((l) => l.action === 'read')).toBe(false);
    const [{ id } = { id: '' }] = await world.owner.query<{ id: string }[]>(
      "SELECT id FROM app_user WHERE email = 'clinician0@clinic.example'",
    );
    const byOne = await lines(`user=${id}`);
    expect(new Set(byOne.lines.map((l) => l.who?.name))).toEqual(new Set(['clinician 0']));
  });

  it('is told page by page, each line once, the newest first', async () => {
    for (let i = 0; i < 110; i += 1) await who.get(`/api/people/${personId}`).expect(200);
    const first = await lines('');
    expect(first.lines).toHaveLength(100);
    const second = await lines(`before=${first.before ?? ''}`);
    const seqs = [...first.lines, ...second.lines].map((l) => Number(l.seq));
    expect(seqs).toEqual([...new Set(seqs)].sort((a, b) => b - a));
  });

  it('is a table with every line, the looking itself in it', async () => {
    const { text } = await lead.get(`/api/audit/audit.csv?person=${personId}`).expect(200);
    const rows = text.trim().split('\n');
    expect(rows[0]).toBe('at,by,person,person_id,action,subject,people_shown');
    expect(rows.length).toBeGreaterThan(110);
    expect((await lines('kind=took')).lines.some((l) => l.action === 'export')).toBe(true);
  });

  it.each(['user=x', 'person=1', 'kind=all', 'before=-1', 'before=x'])('refuses %s', (query) =>
    lead.get(`/api/audit?${query}`).expect(400),
  );

  it('sealed twice, it is whole; the last seal stays when nothing is added', async () => {
    await seal();
    await who.get(`/api/people/${personId}`).expect(200);
    await seal();
    const told = await check(ours());
    expect(told).toMatchObject({ brokenAt: null, seals: 2 });
    await seal();
    expect(await check(ours())).toEqual(told);
    expect(await check(theirs())).toMatchObject({ brokenAt: null });
    expect((await lead.get('/api/audit/seals').expect(200)).body).toMatchObject({ brokenAt: null });
  });

  /** Does something to the log behind the application’s back, tells what the check says, and undoes it. */
  async function tampered(change: string): Promise<number | null> {
    const runner = world.owner.createQueryRunner();
    await runner.startTransaction();
    try {
      await runner.query(change, [ours()]);
      return (await checkAudit(runner.manager, ours())).brokenAt;
    } finally {
      await runner.rollbackTransaction();
      await runner.release();
    }
  }
  const FIRST = '(SELECT min(seq) FROM audit WHERE clinic_id = $1)';
  const LAST = '(SELECT to_seq FROM audit_seal WHERE clinic_id = $1 ORDER BY number DESC LIMIT 1)';
  it.each([
    ['a line taken out', `DELETE FROM audit WHERE clinic_id = $1 AND seq = ${FIRST}`, 1],
    [
      'a line said to be another’s',
      `UPDATE audit SET user_id = gen_random_uuid() WHERE clinic_id = $1 AND seq = ${FIRST}`,
      1,
    ],
    [
      'a time moved',
      `UPDATE audit SET at = at + interval '1 hour' WHERE clinic_id = $1 AND seq = ${LAST}`,
      2,
    ],
    ['an action renamed', `UPDATE audit SET action = 'read' WHERE clinic_id = $1 AND action = 'give'`, 1],
    ['whom a list showed', `UPDATE audit SET shown = '[]' WHERE clinic_id = $1 AND shown IS NOT NULL`, 1],
    ['a seal taken out', 'DELETE FROM audit_seal WHERE clinic_id = $1 AND number = 1', 2],
    [
      'a line put in below',
      `INSERT INTO audit (id, clinic_id, at, actor, action, subject, seq) OVERRIDING SYSTEM VALUE
       SELECT gen_random_uuid(), $1, now(), 'user', 'read', 'person', -5`,
      1,
    ],
  ])('%s is found by the seal that closes it', async (_what, change, at) => {
    expect(await tampered(change)).toBe(at);
  });

  it('counts as a change whatever is no look, no paper and no sign-in: decisions and amendments too', async () => {
    for (const action of ['decide', 'amend', 'discharge', 'merge', 'read', 'print', 'sign-out'])
      await world.owner.query(
        "INSERT INTO audit (id, clinic_id, at, actor, action, subject) VALUES (gen_random_uuid(), $1, now(), 'user', $2, 'test')",
        [ours(), action],
      );
    const of = async (kind: string) => {
      const found = await lines(`kind=${kind}`);
      return [...new Set(found.lines.map((l) => l.action))];
    };
    expect(await of('changed')).toEqual(
      expect.arrayContaining(['decide', 'amend', 'discharge', 'merge', 'give']),
    );
    expect(await of('changed')).not.toEqual(expect.arrayContaining(['read']));
    expect((await of('took')).every((a) => ['print', 'export'].includes(a))).toBe(true);
  });

  it('gives way to who is writing, and holds nobody up meanwhile', async () => {
    const writer = world.owner.createQueryRunner();
    await writer.startTransaction();
    try {
      await writer.query(
        "INSERT INTO audit (id, clinic_id, at, actor, action, subject) VALUES (gen_random_uuid(), $1, now(), 'user', 'read', 'day')",
        [theirs()],
      );
      const [sealed, read] = await Promise.allSettled([seal(), who.get(`/api/people/${personId}`)]);
      expect(sealed.status).toBe('rejected');
      expect(read).toMatchObject({ status: 'fulfilled', value: { status: 200 } });
    } finally {
      await writer.rollbackTransaction();
      await writer.release();
    }
    await seal();
    expect(await check(ours())).toMatchObject({ brokenAt: null });
  });

  it('cannot be written anew by the application: neither lines nor seals', async () => {
    const { DataSource } = await import('typeorm');
    const app = await new DataSource({ type: 'postgres', url: world.appUrl }).initialize();
    try {
      for (const sql of [
        "UPDATE audit SET action = 'x'",
        'DELETE FROM audit',
        'DELETE FROM audit_seal',
        "UPDATE audit_seal SET hash = ''",
        "INSERT INTO audit_seal VALUES (gen_random_uuid(), 1, 1, 1, '', now())",
      ])
        await expect(app.query(sql)).rejects.toThrow(/permission denied/);
    } finally {
      await app.destroy();
    }
  });
});
