import request from 'supertest';
import { addPerson, cookieOf, makeWorld, PASSWORD, type World } from './harness.js';

describe('signing in and the edge of the server', () => {
  let world: World;
  beforeAll(async () => {
    world = await makeWorld();
  });
  afterAll(() => world.stop());
  const server = () => request(world.app.getHttpServer());
  const credentials = { email: 'Lead0@clinic.example', password: PASSWORD };

  it('answers health without a sign-in', async () => {
    expect((await server().get('/api/health').expect(200)).body).toEqual({
      status: 'ok',
      database: 'ok',
      version: 'test',
    });
  });

  it('signs in with an HttpOnly, SameSite cookie, tells who it is, and signs out', async () => {
    const response = await server().post('/api/session').send(credentials).expect(200);
    const header = String((response.headers['set-cookie'] as unknown as string[])[0]);
    expect(header).toMatch(/HttpOnly/);
    expect(header).toMatch(/SameSite=Strict/);
    expect(response.body.user).toMatchObject({ name: 'lead 0', role: 'lead' });
    const cookie = cookieOf(response);
    expect((await server().get('/api/session').set('cookie', cookie).expect(200)).body.clinic.name).toBe(
      'Clinic 0',
    );
    await server().delete('/api/session').set('cookie', cookie).expect(204);
    await server().get('/api/session').set('cookie', cookie).expect(401);
  });

  it('stores the session hashed, never the cookie itself', async () => {
    const cookie = cookieOf(await server().post('/api/session').send(credentials));
    const rows = await world.owner.query<{ token_hash: string }[]>('SELECT token_hash FROM user_session');
    expect(rows.every((r) => r.token_hash.length === 64 && !cookie.includes(r.token_hash))).toBe(true);
  });

  it('ends a session at its time', async () => {
    const cookie = cookieOf(await server().post('/api/session').send(credentials));
    await world.owner.query("UPDATE user_session SET expires_at = now() - interval '1 second'");
    await server().get('/api/session').set('cookie', cookie).expect(401);
  });

  it('says the same of a wrong password and an unknown address', async () => {
    const wrong = await server()
      .post('/api/session')
      .send({ ...credentials, password: 'wrong' })
      .expect(401);
    const unknown = await server()
      .post('/api/session')
      .send({ email: 'nobody@clinic.example', password: 'wrong' })
      .expect(401);
    expect(wrong.body).toEqual(unknown.body);
    expect(wrong.type).toBe('application/problem+json');
  });

  it.each([
    [{}, ['/email', '/password']],
    [{ email: 'not an address', password: 'x' }, ['/email']],
    [{ email: 7, password: null }, ['/email', '/password']],
    [{ email: 'a@b.example', password: 'x', admin: true }, ['/admin']],
  ])('points at the field: %j', async (body, pointers) => {
    const response = await server().post('/api/session').send(body).expect(400);
    expect(response.body.errors.map((e: { pointer: string }) => e.pointer).sort()).toEqual(pointers);
  });

  it('lets a wrong try wait after five, says how long, and holds up no one else', async () => {
    const body = { email: 'clinician1@clinic.example', password: 'wrong' };
    const answers: request.Response[] = [];
    for (let i = 0; i < 7; i += 1) answers.push(await server().post('/api/session').send(body));
    expect(answers.slice(0, 5).map((a) => a.status)).toEqual(Array(5).fill(401));
    const waits = answers.filter((a) => a.status === 429);
    expect(waits.length).toBeGreaterThan(0);
    expect(waits[0]?.headers['retry-after']).toBe('1');
    expect(waits[0]?.body.detail).toBe('Wait 1 seconds, then try again');
    await server()
      .post('/api/session')
      .send({ email: 'assistant1@clinic.example', password: PASSWORD })
      .expect(200);
  });

  it('tells of wrong tries at the next sign-in, once, and audits each', async () => {
    const mine = { email: 'assistant0@clinic.example', password: PASSWORD };
    for (const password of ['wrong', 'wronger'])
      await server()
        .post('/api/session')
        .send({ ...mine, password })
        .expect(401);
    const first = await server().post('/api/session').send(mine).expect(200);
    expect(first.body.wrongTries).toBe(2);
    await server().delete('/api/session').set('cookie', cookieOf(first)).expect(204);
    expect((await server().post('/api/session').send(mine).expect(200)).body.wrongTries).toBe(0);
    const rows = await world.owner.query<{ action: string }[]>(
      `SELECT action FROM audit a JOIN app_user u ON u.id = a.user_id
        WHERE u.email = $1 AND subject = 'session' ORDER BY at`,
      [mine.email],
    );
    expect(rows.map((r) => r.action)).toEqual([
      'sign-in-failed',
      'sign-in-failed',
      'sign-in',
      'sign-out',
      'sign-in',
    ]);
  });

  it('lists where an account is signed in, and signs out one device or all others', async () => {
    const sign = () =>
      server().post('/api/session').set('user-agent', 'A tablet').send(credentials).expect(200);
    const [a, b, c] = [cookieOf(await sign()), cookieOf(await sign()), cookieOf(await sign())];
    const list = async (with_: string) =>
      (await server().get('/api/session/devices').set('cookie', with_).expect(200)).body as {
        id: string;
        here: boolean;
        agent: string;
      }[];
    const devices = await list(a);
    expect(devices.filter((d) => d.here)).toHaveLength(1);
    expect(devices.filter((d) => d.agent === 'A tablet').length).toBeGreaterThanOrEqual(3);
    expect(JSON.stringify(devices)).not.toMatch(/token|address/);
    const ofB = (await list(b)).find((d) => d.here)?.id ?? '';
    await server().delete(`/api/session/devices/${ofB}`).set('cookie', a).expect(204);
    await server().get('/api/session').set('cookie', b).expect(401);
    await server().delete('/api/session/devices').set('cookie', a).expect(204);
    await server().get('/api/session').set('cookie', c).expect(401);
    await server().get('/api/session').set('cookie', a).expect(200);
    // Of a colleague nothing is seen and nothing is ended.
    const colleague = await world.as(0, 'clinician');
    const mine = (await list(a))[0]?.id ?? '';
    await colleague.del(`/api/session/devices/${mine}`).expect(404);
    await server().get('/api/session').set('cookie', a).expect(200);
  });

  it('keeps the register someone is in', async () => {
    const who = await world.as(0, 'clinician');
    const { body } = await who.patch('/api/session', { registration: ' PH 4711 ' }).expect(200);
    expect(body.user.registration).toBe('PH 4711');
    expect((await who.get('/api/session')).body.user.registration).toBe('PH 4711');
    await who.patch('/api/session', { registration: 'x'.repeat(61) }).expect(400);
    expect((await who.patch('/api/session', { registration: '' }).expect(200)).body.user.registration).toBe(
      null,
    );
  });

  it('refuses changes asked for by another site, and bodies that are not JSON', async () => {
    const who = await world.as(0, 'lead');
    await who.post('/api/people').set('origin', 'https://elsewhere.example').expect(403);
    await who.post('/api/people').set('sec-fetch-site', 'cross-site').expect(403);
    await who.post('/api/people').set('content-type', 'text/plain').send('{}').expect(415);
    await server().post('/api/session').set('sec-fetch-site', 'cross-site').send(credentials).expect(403);
  });

  it('answers to the names of this machine only', async () => {
    await server().get('/api/health').set('host', 'localhost:9').expect(200);
    await server().get('/api/health').set('host', 'clinic.example').expect(421);
  });

  it('sends a strict content policy, and never caches a record', async () => {
    const response = await server().get('/api/health');
    expect(response.headers['content-security-policy']).toMatch(/default-src 'none'.*script-src 'self'/);
    expect(response.headers['x-content-type-options']).toBe('nosniff');
    expect(response.headers['x-powered-by']).toBeUndefined();
    expect((await (await world.as(0, 'lead')).get('/api/people')).headers['cache-control']).toBe('no-store');
  });

  it('answers nonsense with a clear problem', async () => {
    await server().get('/api/no-such-thing').expect(404);
    await (await world.as(0, 'lead')).get('/api/people/not-an-id').expect(404);
    const broken = await server()
      .post('/api/session')
      .set('content-type', 'application/json')
      .send('{ broken')
      .expect(400);
    expect(broken.type).toBe('application/problem+json');
    const who = await world.as(0, 'lead');
    await who.post('/api/people', { name: 'x'.repeat(1_100_000) }).expect(413);
  });

  it('audits every read and change of a person by whom, without what', async () => {
    const who = await world.as(0, 'clinician');
    const person = await addPerson(who, 'Audited Person');
    await who.get(`/api/people/${person.id}`).expect(200);
    await who.patch(`/api/people/${person.id}`, { version: 1, name: 'Audited Anew' }).expect(200);
    const rows = await world.owner.query<{ action: string; row: object }[]>(
      'SELECT action, to_jsonb(audit) AS row FROM audit WHERE person_id = $1 ORDER BY at',
      [person.id],
    );
    expect(rows.map((r) => r.action)).toEqual(['create', 'read', 'change']);
    expect(JSON.stringify(rows)).not.toContain('Audited');
  });
});

describe('known by another name outside', () => {
  let world: World;
  beforeAll(async () => {
    world = await makeWorld(null, 'https://clinic.example');
  });
  afterAll(() => world.stop());
  const credentials = { email: 'lead0@clinic.example', password: PASSWORD };
  /** As what stands in front of it passes a request on. */
  const through = (t: request.Test, host = 'clinic.example') =>
    t.set('host', host).set('x-forwarded-proto', 'https').set('x-forwarded-for', '203.0.113.9');
  const server = () => request(world.app.getHttpServer());

  it.each(['clinic.example', '127.0.0.1:4310'])(
    'takes changes asked for by its own page, passed on as %s, over secure cookies',
    async (host) => {
      const response = await through(server().post('/api/session'), host)
        .set('origin', 'https://clinic.example')
        .set('sec-fetch-site', 'same-origin')
        .send(credentials)
        .expect(200);
      expect(String((response.headers['set-cookie'] as unknown as string[])[0])).toMatch(/; Secure/);
      expect(response.headers['strict-transport-security']).toMatch(/^max-age=/);
    },
  );

  it('turns away changes of any other page, and any other name', async () => {
    await through(server().post('/api/session'))
      .set('origin', 'https://clinic.example.elsewhere.example')
      .send(credentials)
      .expect(403);
    await through(server().get('/api/health'), 'elsewhere.example').expect(421);
    await through(server().get('/'), 'elsewhere.example:443').expect(421);
  });
});
