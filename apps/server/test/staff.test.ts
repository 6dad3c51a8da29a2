import { randomUUID } from 'node:crypto';
import request from 'supertest';
import { makeClinic } from '../src/clinic/newClinic.js';
import { ProblemError } from '../src/http/problem.js';
import { type Caller, cookieOf, makeWorld, PASSWORD, type World } from './harness.js';

const GOOD = 'lantern gravel otter plum';

describe('who works at a clinic', () => {
  let world: World;
  let lead: Caller;
  beforeAll(async () => {
    world = await makeWorld();
    lead = await world.as(0, 'lead');
  });
  afterAll(() => world.stop());
  const server = () => request(world.app.getHttpServer());
  const tokenOf = (path: string): string => path.replace('/join#', '');
  const signIn = (email: string, password: string) => server().post('/api/session').send({ email, password });
  const list = async () =>
    (await lead.get('/api/clinic/staff').expect(200)).body as {
      id: string;
      name: string;
      state: string;
      role: string;
      devices: number;
    }[];

  /** Someone new with a password, signed in. */
  async function joined(name: string, role: string) {
    const id = randomUUID();
    const email = `${id}@clinic.example`;
    await lead.post('/api/clinic/staff', { id, name, email, role }).expect(201);
    const link = (await lead.post(`/api/clinic/staff/${id}/link`).expect(201)).body as { path: string };
    await server()
      .post('/api/account-links/password')
      .send({ token: tokenOf(link.path), password: GOOD })
      .expect(204);
    const cookie = cookieOf(await signIn(email, GOOD).expect(200));
    return { id, email, cookie, link: link.path };
  }

  it('is added once, chooses a password by a link, once, and signs in', async () => {
    const id = randomUUID();
    const body = { id, name: ' Ada Ørsted ', email: 'Ada@Clinic.example', role: 'clinician' };
    await lead.post('/api/clinic/staff', body).expect(201);
    await lead.post('/api/clinic/staff', body).expect(201);
    expect((await list()).filter((m) => m.name === 'Ada Ørsted')).toMatchObject([{ state: 'invited' }]);
    await signIn('ada@clinic.example', '').expect(400);
    await signIn('ada@clinic.example', 'anything at all').expect(401);
    const { path } = (await lead.post(`/api/clinic/staff/${id}/link`).expect(201)).body as { path: string };
    const token = tokenOf(path);
    expect((await server().post('/api/account-links').send({ token }).expect(200)).body).toEqual({
      name: 'Ada Ørsted',
      email: 'ada@clinic.example',
      clinic: 'Clinic 0',
    });
    await server().post('/api/account-links/password').send({ token, password: GOOD }).expect(204);
    await server().post('/api/account-links/password').send({ token, password: GOOD }).expect(404);
    await server().post('/api/account-links').send({ token }).expect(404);
    expect((await signIn('ada@clinic.example', GOOD).expect(200)).body.user.role).toBe('clinician');
    expect((await list()).find((m) => m.id === id)).toMatchObject({ state: 'here', devices: 1 });
  });

  it('a link is held hashed, an older one ends with a newer one, and one that is too old does not work', async () => {
    const { id } = await joined('Bryn', 'assistant');
    const [first, second] = [
      (await lead.post(`/api/clinic/staff/${id}/link`).expect(201)).body as { path: string },
      (await lead.post(`/api/clinic/staff/${id}/link`).expect(201)).body as { path: string },
    ];
    await server()
      .post('/api/account-links')
      .send({ token: tokenOf(first.path) })
      .expect(404);
    const rows = await world.owner.query<{ token_hash: string }[]>('SELECT token_hash FROM account_link');
    expect(rows.some((r) => second.path.includes(r.token_hash))).toBe(false);
    await world.owner.query('UPDATE account_link SET expires_at = now() WHERE user_id = $1', [id]);
    await server()
      .post('/api/account-links')
      .send({ token: tokenOf(second.path) })
      .expect(404);
  });

  it.each([
    ['short', 'At least 10 characters'],
    ['password1234', 'Too easy to guess. Four words that have nothing to do with each other are harder'],
    ['clinicclinic', 'Too easy to guess. Four words that have nothing to do with each other are harder'],
    ['Corvin Aldous', 'Too easy to guess. Four words that have nothing to do with each other are harder'],
  ])('the password %s is refused by its field, and the link still works', async (password, detail) => {
    const id = randomUUID();
    await lead
      .post('/api/clinic/staff', { id, name: 'Corvin Aldous', email: `${id}@clinic.example`, role: 'lead' })
      .expect(201);
    const { path } = (await lead.post(`/api/clinic/staff/${id}/link`).expect(201)).body as { path: string };
    const token = tokenOf(path);
    const refused = await server().post('/api/account-links/password').send({ token, password }).expect(400);
    expect(refused.body.errors).toEqual([{ pointer: '/password', detail }]);
    await server().post('/api/account-links').send({ token }).expect(200);
  });

  it('an e-mail of anyone, of another clinic too, is refused by its field', async () => {
    for (const email of ['clinician0@clinic.example', 'CLINICIAN1@clinic.example']) {
      const refused = await lead
        .post('/api/clinic/staff', { id: randomUUID(), name: 'Again', email, role: 'lead' })
        .expect(400);
      expect(refused.body.errors[0].pointer).toBe('/email');
    }
  });

  it('who leaves is signed out at once, cannot come in, and comes back by a new link only', async () => {
    const { id, email, cookie } = await joined('Dorin', 'clinician');
    await server().get('/api/session').set('cookie', cookie).expect(200);
    await lead.patch(`/api/clinic/staff/${id}`, { left: true }).expect(200);
    await server().get('/api/session').set('cookie', cookie).expect(401);
    await signIn(email, GOOD).expect(401);
    await lead.post(`/api/clinic/staff/${id}/link`).expect(422);
    expect((await list()).find((m) => m.id === id)).toMatchObject({ state: 'left', devices: 0 });
    await lead.patch(`/api/clinic/staff/${id}`, { left: false }).expect(200);
    expect((await list()).find((m) => m.id === id)).toMatchObject({ state: 'invited' });
    await signIn(email, GOOD).expect(401);
  });

  it('the only lead who can sign in neither leaves nor steps down, also when another was only invited', async () => {
    const other = await makeWorldLead();
    const [me] = (await other.get('/api/clinic/staff').expect(200)).body as { id: string; role: string }[];
    const id = (await mine(other)) ?? me?.id ?? '';
    const invited = randomUUID();
    await other
      .post('/api/clinic/staff', {
        id: invited,
        name: 'Not yet',
        email: 'notyet@clinic.example',
        role: 'lead',
      })
      .expect(201);
    for (const body of [{ left: true }, { role: 'assistant' }])
      expect((await other.patch(`/api/clinic/staff/${id}`, body).expect(422)).body.detail).toContain(
        'is the only lead',
      );
  });
  const makeWorldLead = () => world.as(1, 'lead');
  const mine = async (who: Caller) =>
    ((await who.get('/api/session').expect(200)).body as { user: { id: string } }).user.id;

  it('a lost device: someone is signed out everywhere by the lead', async () => {
    const { id, cookie } = await joined('Elin', 'clinician');
    await lead.del(`/api/clinic/staff/${id}/sessions`).expect(204);
    await server().get('/api/session').set('cookie', cookie).expect(401);
  });

  it('a changed role counts at once', async () => {
    const { id, cookie } = await joined('Fenn', 'clinician');
    await server().get('/api/outcomes').set('cookie', cookie).expect(200);
    await lead.patch(`/api/clinic/staff/${id}`, { role: 'assistant' }).expect(200);
    await server().get('/api/outcomes').set('cookie', cookie).expect(403);
  });

  it.each(['clinician', 'assistant'] as const)('%s can do none of it', async (role) => {
    const who = await world.as(0, role);
    const id = randomUUID();
    const answers = [
      await who.get('/api/clinic/staff'),
      await who.post('/api/clinic/staff', { id, name: 'x', email: 'x@y.example', role: 'lead' }),
      await who.post(`/api/clinic/staff/${id}/link`),
      await who.patch(`/api/clinic/staff/${id}`, { role: 'lead' }),
      await who.del(`/api/clinic/staff/${id}/sessions`),
      await who.put('/api/clinic', {}),
      await who.get('/api/audit'),
      await who.get('/api/audit/seals'),
      await who.get('/api/audit/audit.csv'),
    ];
    expect(answers.map((a) => a.status)).toEqual(answers.map(() => 403));
  });

  it('one’s own password is changed by the one that stands; other devices are signed out', async () => {
    const { email, cookie } = await joined('Gwyn', 'clinician');
    const elsewhere = cookieOf(await signIn(email, GOOD).expect(200));
    const change = (body: object) => server().post('/api/session/password').set('cookie', cookie).send(body);
    const next = 'violin harbour seventeen moss';
    expect((await change({ current: 'wrong', password: next }).expect(400)).body.errors[0].pointer).toBe(
      '/current',
    );
    await change({ current: GOOD, password: next }).expect(204);
    await server().get('/api/session').set('cookie', elsewhere).expect(401);
    await server().get('/api/session').set('cookie', cookie).expect(200);
    await signIn(email, GOOD).expect(401);
    await signIn(email, next).expect(200);
  });

  it('what a clinic says of itself is changed, and refused where days could not be written by it', async () => {
    const facts = {
      name: 'Heath Row Feet',
      phone: '+44 (1632) 960-111',
      emergencyNumber: '112',
      locale: 'de-AT',
      timeZone: 'Europe/Vienna',
    };
    await lead.put('/api/clinic', facts).expect(204);
    expect((await lead.get('/api/session').expect(200)).body.clinic).toMatchObject(facts);
    const wrong = await lead
      .put('/api/clinic', { ...facts, locale: 'nowhere!', timeZone: 'Europe/Viena' })
      .expect(400);
    expect((wrong.body.errors as { pointer: string }[]).map((e) => e.pointer)).toEqual([
      '/locale',
      '/timeZone',
    ]);
    expect((await (await world.as(1, 'lead')).get('/api/session').expect(200)).body.clinic.name).toBe(
      'Clinic 1',
    );
  });
});

describe('a clinic made from nothing', () => {
  let world: World;
  beforeAll(async () => {
    world = await makeWorld();
  });
  afterAll(() => world.stop());
  const said = {
    name: 'Millbrook Feet',
    phone: '01632 960 111',
    emergencyNumber: '999',
    locale: 'en-GB',
    timeZone: 'Europe/London',
    lead: 'Ada Quill',
    email: 'ada@millbrook.example',
  };

  it('has a lead who comes in by a link and sees no one of another clinic', async () => {
    const link = await makeClinic(world.owner, said, new Date());
    const server = request(world.app.getHttpServer());
    await server
      .post('/api/account-links/password')
      .send({ token: link.path.replace('/join#', ''), password: GOOD })
      .expect(204);
    const cookie = cookieOf(
      await server.post('/api/session').send({ email: said.email, password: GOOD }).expect(200),
    );
    expect((await server.get('/api/people').set('cookie', cookie).expect(200)).body).toEqual([]);
    expect((await server.get('/api/clinic/staff').set('cookie', cookie).expect(200)).body).toMatchObject([
      { name: 'Ada Quill', role: 'lead' },
    ]);
    await server.post('/api/session').send({ email: 'lead0@clinic.example', password: PASSWORD }).expect(200);
  });

  it('is refused with all that is wrong, by field, and nothing of it stands', async () => {
    const before = await world.owner.query<unknown[]>('SELECT id FROM clinic');
    const made = makeClinic(
      world.owner,
      { ...said, phone: 'x', timeZone: 'Moon/Base', lead: ' ' },
      new Date(),
    );
    const error = await made.catch((e: unknown) => e);
    expect(error).toBeInstanceOf(ProblemError);
    expect(new Set((error as ProblemError).more.errors?.map((e) => e.pointer))).toEqual(
      new Set(['/phone', '/lead', '/timeZone']),
    );
    await expect(
      makeClinic(world.owner, { ...said, email: 'LEAD0@clinic.example' }, new Date()),
    ).rejects.toBeInstanceOf(ProblemError);
    expect(await world.owner.query<unknown[]>('SELECT id FROM clinic')).toHaveLength(before.length);
  });
});
