import request from 'supertest';
import { bytesOf, codeOf } from './authenticator.js';
import { cookieOf, makeWorld, PASSWORD, type World } from './harness.js';

it('the authenticator of these tests gives the codes of RFC 6238, appendix B', () => {
  const secret = Buffer.from('12345678901234567890');
  expect([59, 1_111_111_109, 2_000_000_000].map((t) => codeOf(secret, t))).toEqual([
    '287082',
    '081804',
    '279037',
  ]);
});

describe('a second step of signing in', () => {
  let world: World;
  beforeAll(async () => {
    world = await makeWorld();
  });
  afterAll(() => world.stop());
  const server = () => request(world.app.getHttpServer());
  const signIn = (email: string, code?: string) =>
    server()
      .post('/api/session')
      .send({ email, password: PASSWORD, ...(code === undefined ? {} : { code }) });
  const now = (): number => Date.now() / 1000;
  /** The code that comes next is taken too, and none before it was used. */
  const next = (secret: string): string => codeOf(bytesOf(secret), now() + 30);

  async function switchedOn(email: string) {
    const cookie = cookieOf(await signIn(email).expect(200));
    const post = (path: string, body: object) =>
      server().post(`/api/session/second-step${path}`).set('cookie', cookie).send(body);
    const { secret, uri } = (await post('', { current: PASSWORD }).expect(201)).body as {
      secret: string;
      uri: string;
    };
    expect(uri).toMatch(/^otpauth:\/\/totp\/Heathstep:/);
    expect(uri).toContain(secret);
    const wrong = await post('/first', { code: '000000' });
    expect([400]).toContain(wrong.status);
    const { codes } = (await post('/first', { code: codeOf(bytesOf(secret), now()) }).expect(201)).body as {
      codes: string[];
    };
    return { cookie, secret, codes, post };
  }

  it('is begun by the password only, and asks for nothing until the first code', async () => {
    const cookie = cookieOf(await signIn('assistant0@clinic.example').expect(200));
    await server().post('/api/session/second-step').set('cookie', cookie).send({ current: 'x' }).expect(400);
    await server()
      .post('/api/session/second-step/first')
      .set('cookie', cookie)
      .send({ code: '123456' })
      .expect(422);
    await server()
      .post('/api/session/second-step')
      .set('cookie', cookie)
      .send({ current: PASSWORD })
      .expect(201);
    await signIn('assistant0@clinic.example').expect(200);
  });

  it('then asks for a code of now, takes none twice, and a kept one once', async () => {
    const email = 'clinician0@clinic.example';
    const { secret, codes } = await switchedOn(email);
    const asked = await signIn(email).expect(401);
    expect(asked.body.errors).toEqual([
      { pointer: '/code', detail: 'Type the code that your authenticator shows' },
    ]);
    const code = next(secret);
    expect(
      (await signIn(email, ` ${code.slice(0, 3)} ${code.slice(3)} `).expect(200)).body.user.secondStep,
    ).toBe(true);
    await signIn(email, code).expect(401);
    await signIn(email, codeOf(bytesOf(secret), now() - 300)).expect(401);
    expect(new Set(codes).size).toBe(8);
    await signIn(email, (codes[0] ?? '').toLowerCase()).expect(200);
    await signIn(email, codes[0]).expect(401);
    const kept = await world.owner.query<{ code_hash: string }[]>('SELECT code_hash FROM recovery_code');
    expect(kept.some((k) => codes.includes(k.code_hash))).toBe(false);
  });

  it('two sign-ins at once with the same code: one of them', async () => {
    const email = 'clinician1@clinic.example';
    const { secret } = await switchedOn(email);
    const code = next(secret);
    const ends = await Promise.all([signIn(email, code), signIn(email, code)]);
    expect(ends.map((e) => e.status).sort((a, b) => a - b)).toEqual([200, 401]);
  });

  it('does not help without the password, and wrong codes make one wait', async () => {
    const email = 'lead1@clinic.example';
    const { secret } = await switchedOn(email);
    await server()
      .post('/api/session')
      .send({ email, password: 'wrong', code: next(secret) })
      .expect(401);
    const ends: number[] = [];
    for (let i = 0; i < 12; i += 1) ends.push((await signIn(email, '000000')).status);
    expect(ends).toContain(429);
  });

  it('is ended by the password, or by a lead when the authenticator is lost', async () => {
    const email = 'assistant1@clinic.example';
    const { post } = await switchedOn(email);
    await post('/end', { current: 'wrong' }).expect(400);
    await post('/end', { current: PASSWORD }).expect(204);
    await signIn(email).expect(200);
    const lead = await world.as(0, 'lead');
    const staff = (await lead.get('/api/clinic/staff').expect(200)).body as {
      id: string;
      email: string;
      secondStep: boolean;
    }[];
    const one = staff.find((m) => m.email === 'clinician0@clinic.example');
    expect(one?.secondStep).toBe(true);
    await lead.del(`/api/clinic/staff/${one?.id ?? ''}/second-step`).expect(204);
    await signIn('clinician0@clinic.example').expect(200);
  });
});
