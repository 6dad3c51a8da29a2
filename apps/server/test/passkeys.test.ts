import request from 'supertest';
import type { PasskeyChallenge, PasskeyView, SessionView } from '@heathstep/contracts';
import { cookieOf, inWorld, PASSWORD } from './harness.js';
import { Device } from './passkeyDevice.js';

const HOST = 'localhost:4310';
const ORIGIN = `http://${HOST}`;

describe('a passkey', () => {
  const { world } = inWorld();
  const post = (path: string, body: object, cookie = '') =>
    request(world.app.getHttpServer())
      .post(`/api/session${path}`)
      .set('host', HOST)
      .set('cookie', cookie)
      .send(body);
  const signedIn = async (email: string) =>
    cookieOf(await post('', { email, password: PASSWORD }).expect(200));
  const challenge = async () => (await post('/passkey/options', {}).expect(201)).body as PasskeyChallenge;
  const asked = (c: PasskeyChallenge) => c.options as unknown as { challenge: string };

  const added = async (email: string, device = new Device(ORIGIN)) => {
    const cookie = await signedIn(email);
    const begun = (await post('/passkeys/options', { current: PASSWORD }, cookie).expect(201))
      .body as PasskeyChallenge;
    const answer = await post('/passkeys', { name: 'Phone', response: device.added(asked(begun)) }, cookie);
    return { cookie, device, answer };
  };

  it('is added by the password, signs in without one, and opens nothing once it is taken back', async () => {
    const email = 'clinician0@clinic.example';
    const cookie = await signedIn(email);
    await post('/passkeys/options', { current: 'not it' }, cookie).expect(400);
    const { device, answer } = await added(email);
    expect(answer.status).toBe(201);
    expect(answer.body).toMatchObject([{ name: 'Phone', usedAt: null }]);

    const c = await challenge();
    const opened = await post('/passkey', { id: c.id, response: device.signed(asked(c)) }).expect(200);
    expect((opened.body as SessionView).user.email).toBe(email);
    const own = cookieOf(opened);
    const server = request(world.app.getHttpServer());
    await server.get('/api/people').set('cookie', own).expect(200);
    const [key] = (await server.get('/api/session/passkeys').set('cookie', own).expect(200))
      .body as PasskeyView[];
    expect(key?.usedAt).not.toBeNull();

    await server
      .delete(`/api/session/passkeys/${key?.id ?? ''}`)
      .set('cookie', own)
      .expect(200);
    const again = await challenge();
    await post('/passkey', { id: again.id, response: device.signed(asked(again)) }).expect(401);
  });

  it('answers each challenge once, and none that was given to another, or to another site', async () => {
    const { device } = await added('lead0@clinic.example');
    const c = await challenge();
    const response = device.signed(asked(c));
    await post('/passkey', { id: c.id, response }).expect(200);
    await post('/passkey', { id: c.id, response }).expect(401);
    const [one, two] = [await challenge(), await challenge()];
    await post('/passkey', { id: two.id, response: device.signed(asked(one)) }).expect(401);
    const elsewhere = new Device('http://feet.example');
    expect((await added('lead0@clinic.example', elsewhere)).answer.status).toBe(400);
  });

  it('is refused with a signature over something else, from a device that was not added, and without its owner', async () => {
    const { device } = await added('assistant0@clinic.example');
    const c = await challenge();
    const changed = device.signed(asked(c), (data) => {
      const other = Buffer.from(data);
      other[33] = (other[33] ?? 0) ^ 1;
      return other;
    });
    await post('/passkey', { id: c.id, response: changed }).expect(401);
    const d = await challenge();
    await post('/passkey', { id: d.id, response: new Device(ORIGIN).signed(asked(d)) }).expect(401);
    // One that does not make sure of its owner is no second step.
    expect((await added('assistant0@clinic.example', new Device(ORIGIN, false))).answer.status).toBe(400);
    for (const response of [
      {},
      { id: 7 },
      { id: 'x', response: {} },
      { id: 'x', rawId: 'x', type: 'public-key' },
    ]) {
      const e = await challenge();
      await post('/passkey', { id: e.id, response }).expect(401);
    }
    await post('/passkey', { id: 'x', response: {} }).expect(400);
  });

  it('opens nothing once a lead has signed its owner out everywhere, as when a device is lost', async () => {
    const lead = await world.as(1, 'lead');
    const { device } = await added('assistant1@clinic.example');
    const of = async () =>
      (
        (await lead.get('/api/clinic/staff').expect(200)).body as {
          id: string;
          email: string;
          passkeys: number;
        }[]
      ).find((m) => m.email === 'assistant1@clinic.example');
    const owner = await of();
    expect(owner?.passkeys).toBe(1);
    await lead.del(`/api/clinic/staff/${owner?.id ?? ''}/sessions`).expect(204);
    expect((await of())?.passkeys).toBe(0);
    const c = await challenge();
    await post('/passkey', { id: c.id, response: device.signed(asked(c)) }).expect(401);
  });

  it('of someone who left opens nothing', async () => {
    const lead = await world.as(1, 'lead');
    const { device } = await added('clinician1@clinic.example');
    const staff = (await lead.get('/api/clinic/staff').expect(200)).body as { id: string; email: string }[];
    const gone = staff.find((m) => m.email === 'clinician1@clinic.example')?.id ?? '';
    await lead.patch(`/api/clinic/staff/${gone}`, { left: true }).expect(200);
    const c = await challenge();
    await post('/passkey', { id: c.id, response: device.signed(asked(c)) }).expect(401);
  });

  it('needs an address with a name', async () => {
    const server = request(world.app.getHttpServer());
    const refused = await server.post('/api/session/passkey/options').send({}).expect(404);
    expect(refused.body.title).toMatch(/address with a name/);
  });
});
